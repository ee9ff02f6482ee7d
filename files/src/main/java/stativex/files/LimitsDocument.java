package stativex.files;

import java.math.BigDecimal;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Predicate;
import stativex.account.Account;
import stativex.account.ContractLimits;
import stativex.account.DayLimits;
import stativex.account.ForThePerson;
import stativex.account.GiveBack;
import stativex.account.Guard;
import stativex.account.LosingRun;
import stativex.account.OwnLimits;
import stativex.account.QuietTimes;
import stativex.market.Money;
import tools.jackson.databind.node.ObjectNode;

/** Own limits of an account in its document, and in the lines of a session file; quiet times are read elsewhere. */
final class LimitsDocument {
    private LimitsDocument() {}

    /**
     * Reads them.
     *
     * @param known contracts that may have limits, by symbol
     * @throws BadInput saying the place of what is wrong
     */
    static OwnLimits read(Field root, QuietTimes quiet, Predicate<String> known) {
        Optional<Account.DayLoss> loss = root.maybe("dayLoss").filter(f -> f.at("on").flag())
                .map(f -> f.checked(() -> new Account.DayLoss(f.at("amount").money(), Documents.guard(f, Guard.ON))));
        Optional<GiveBack> giveBack = root.maybe("giveBack").filter(f -> f.at("on").flag()).map(f -> f.checked(
                () -> new GiveBack(f.at("fall").money(), f.at("after").money(), Documents.guard(f, Guard.ON))));
        Optional<LosingRun> losingRun = root.maybe("losingRun").filter(f -> f.at("on").flag()).map(f -> f.checked(
                () -> new LosingRun((int) f.at("trades").longInteger(1, 10_000),
                        f.has("pauseMinutes")
                                ? OptionalInt.of((int) f.at("pauseMinutes").longInteger(1, 100_000))
                                : OptionalInt.empty())));
        Optional<Long> profit = root.maybe("dayProfit").filter(f -> f.at("on").flag()).map(f -> f.at("amount").money());
        Map<String, Field.Placed<ContractLimits>> contracts = new LinkedHashMap<>();
        for (Field one : root.items("contractLimits")) {
            String symbol = one.at("contract").text();
            if (!known.test(symbol)) {
                throw one.problem("expected limits of a contract with a fee, found " + symbol);
            }
            one.putOnce(contracts, symbol, one.checked(() -> new ContractLimits(StrategyReader.dayLimits(one),
                    one.maybe("tradesADay").map(Field::integer), one.maybe("mostContracts").map(Field::integer))),
                    "the limits of " + symbol);
        }
        return new OwnLimits(loss, profit, giveBack, losingRun, root.maybe("tradesADay").map(Field::integer), quiet,
                Documents.values(contracts), forThePerson(root));
    }

    private static ForThePerson forThePerson(Field root) {
        Optional<Field> orders = root.maybe("ownOrders");
        Map<ForThePerson.Of, ForThePerson.Response> responses = new EnumMap<>(ForThePerson.Of.class);
        orders.ifPresent(of -> {
            for (ForThePerson.Of interlock : ForThePerson.Of.values()) {
                of.maybe(OwnOrders.key(interlock))
                        .ifPresent(f -> responses.put(interlock, f.word(ForThePerson.Response.class)));
            }
        });
        return new ForThePerson(responses,
                orders.flatMap(of -> of.maybe("leaveWithStrategies")).map(Field::flag).orElse(false),
                root.maybe("near").map(LimitsDocument::near).orElse(ForThePerson.Near.DEFAULT));
    }

    private static ForThePerson.Near near(Field near) {
        return near.checked(() -> {
            BigDecimal outs = near.at("stopOuts").decimal().movePointRight(1).stripTrailingZeros();
            if (outs.scale() > 0 || outs.signum() < 0 || outs.compareTo(BigDecimal.valueOf(10_000)) > 0) {
                throw new IllegalArgumentException("expected 0 to 1000 stop-outs with one decimal at most");
            }
            return new ForThePerson.Near((int) near.at("percent").longInteger(0, 100), outs.intValueExact());
        });
    }

    /** Writes what of them is on. */
    static ObjectNode write(OwnLimits limits) {
        ObjectNode d = Json.MAPPER.createObjectNode();
        limits.dayLoss().ifPresent(rule -> loss(d, rule));
        limits.dayProfit().ifPresent(amount -> profit(d, amount));
        limits.giveBack().ifPresent(rule -> {
            ObjectNode line = d.putObject("giveBack").put("on", true).put("fall", Money.text(rule.fall())).put("after",
                    Money.text(rule.after()));
            guard(line, rule.guard());
        });
        limits.losingRun().ifPresent(rule -> {
            ObjectNode line = d.putObject("losingRun").put("on", true).put("trades", rule.trades());
            rule.minutes().ifPresent(minutes -> line.put("pauseMinutes", minutes));
        });
        limits.tradesADay().ifPresent(most -> d.put("tradesADay", most));
        Set<Map.Entry<String, ContractLimits>> contracts = new java.util.TreeMap<>(limits.contracts()).entrySet();
        contracts.forEach(of -> {
            ObjectNode one = d.withArray("/contractLimits").addObject().put("contract", of.getKey());
            day(one, of.getValue().day());
            of.getValue().tradesADay().ifPresent(most -> one.put("tradesADay", most));
            of.getValue().most().ifPresent(most -> one.put("mostContracts", most));
        });
        OwnOrders.write(d, limits.person());
        return d;
    }

    private static void day(ObjectNode d, DayLimits limits) {
        limits.loss().ifPresent(rule -> loss(d, rule));
        limits.profit().ifPresent(amount -> profit(d, amount));
    }

    private static void loss(ObjectNode d, Account.DayLoss rule) {
        guard(d.putObject("dayLoss").put("on", true).put("amount", Money.text(rule.amount())), rule.guard());
    }

    private static void profit(ObjectNode d, long amount) {
        d.putObject("dayProfit").put("on", true).put("amount", Money.text(amount));
    }

    private static void guard(ObjectNode line, Guard guard) {
        line.putObject("guard").put("on", guard.on()).put("margin", Money.text(guard.money())).put("marginTicks",
                guard.ticks());
    }
}
