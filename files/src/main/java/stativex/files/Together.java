package stativex.files;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import stativex.account.Account;
import stativex.engine.Strategy;
import stativex.files.tape.FurtherTape;
import stativex.files.tape.FurtherTapes;
import stativex.market.Decimals;
import stativex.market.Money;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * The documents of a trial over several contracts on one account: the same rules on each, and other strategies beside them. Source:
 * SEMANTICS, "Several contracts".
 */
public final class Together {
    private Together() {}

    /**
     * What is to be tried at once.
     *
     * @param same the strategy whose rules run on each of {@code contracts}
     * @param others strategies that run beside it, each on its own contract
     * @param fees of one side by contract, money as text, where the account states none
     */
    public record Wanted(StrategyDraft same, List<String> contracts, List<StrategyDraft> others,
            Map<String, String> fees) {
        public Wanted {
            contracts = List.copyOf(contracts);
            others = List.copyOf(others);
            fees = Map.copyOf(fees);
        }
    }

    /**
     * Makes them.
     *
     * @param now contract and account of the trial, and tapes that are at hand already
     * @throws BadInput when a tape is missing, or a fee
     */
    public static SessionFile.Set documents(Wanted wanted, SessionFile.Set now, FurtherTapes tapes) {
        List<Documents.Read<Strategy>> strategies = new ArrayList<>();
        for (String symbol : wanted.contracts()) {
            strategies.add(on(wanted.same(), symbol));
        }
        wanted.others().forEach(draft -> strategies.add(draft.strategy()));
        String own = now.contract().value().symbol();
        Set<String> traded = new LinkedHashSet<>();
        strategies.forEach(one -> traded.add(one.value().contract()));
        if (!traded.contains(own)) {
            throw new BadInput("expected a strategy on " + own + ", the tape that is open");
        }
        Set<String> needed = new LinkedHashSet<>(traded);
        strategies.forEach(one -> needed.addAll(one.value().signals().others(now.contract().value())));
        needed.remove(own);
        List<FurtherTape> further = needed.stream().map(symbol -> tapes.open(symbol)
                .orElseThrow(() -> new BadInput("expected a tape of " + symbol + ": bring one in under Tape")))
                .toList();
        return new SessionFile.Set(now.contract(), account(now.account(), traded, wanted.fees()), strategies, further);
    }

    /** The same rules on a contract; on another one than its own under another name. */
    public static Documents.Read<Strategy> on(StrategyDraft draft, String symbol) {
        if (draft.contract().equals(symbol)) {
            return draft.strategy();
        }
        ObjectNode document = (ObjectNode) draft.strategy().document().deepCopy();
        document.put("contract", symbol);
        return named(document, " on " + symbol);
    }

    /** A strategy's document under a name with words behind it. */
    public static Documents.Read<Strategy> named(JsonNode strategy, String words) {
        ObjectNode document = (ObjectNode) strategy.deepCopy();
        String name = document.path("name").asString("") + words;
        document.put("name", name);
        return Documents.strategy(document, name, other -> {
            throw new BadInput(name + ": expected an exit plan inside, found the file " + other);
        });
    }

    private static Documents.Read<Account> account(Documents.Read<Account> account, Set<String> traded,
            Map<String, String> fees) {
        ObjectNode document = (ObjectNode) account.document().deepCopy();
        for (String symbol : traded) {
            if (account.value().fees().containsKey(symbol)) {
                continue;
            }
            String fee = fees.getOrDefault(symbol, "").strip();
            try {
                Decimals.plain(fee);
                ((ArrayNode) document.get("fees")).addObject().put("contract", symbol).put("perSide",
                        Money.text(Money.parse(fee)));
            } catch (IllegalArgumentException e) {
                throw new BadInput("expected the fee of one side of " + symbol + " such as 2.15, found "
                        + (fee.isEmpty() ? "none" : Causes.found(fee)), e);
            }
        }
        return Documents.account(document, account.value().name(), other -> {
            throw new BadInput(account.value().name() + ": expected its rulebook inside, found the file " + other);
        });
    }
}
