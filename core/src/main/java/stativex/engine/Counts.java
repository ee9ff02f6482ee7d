package stativex.engine;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.account.ContractLimits;
import stativex.account.Rulebook;
import stativex.interlock.Proposal;
import stativex.interlock.Refusal;
import stativex.interlock.Situation;
import stativex.market.Side;

/** Trades opened and contracts held over a contract and over the whole account, for their limits. Source: SEMANTICS, "Interlocks". */
final class Counts {
    private Counts() {}

    /**
     * Trades against the limits of a contract and of the account that are on.
     *
     * @param pairs the owner's own resting half of a pair does not count
     */
    static List<Situation.TradeCount> trades(Engine engine, OwnerRun of, boolean pairs) {
        Optional<Integer> here = limits(engine, of.market).tradesADay();
        Optional<Integer> all = engine.account().own().tradesADay();
        List<Situation.TradeCount> counts = new ArrayList<>(2);
        here.ifPresent(most -> counts.add(new Situation.TradeCount(Refusal.Of.CONTRACT,
                of.market.owners.stream().mapToInt(owner -> owner.tradesToday).sum(),
                of.market.owners.stream().mapToInt(owner -> mayOpen(owner, pairs && owner == of)).sum(), most)));
        all.ifPresent(most -> counts.add(new Situation.TradeCount(Refusal.Of.ACCOUNT, engine.tradesToday(),
                engine.owners().stream().mapToInt(owner -> mayOpen(owner, pairs && owner == of)).sum(), most)));
        return counts;
    }

    /** Trades that what an owner has resting or waiting would open. */
    static int mayOpen(OwnerRun owner, boolean pairs) {
        int resting = !pairs && owner.trade.isEmpty() && owner.entering() ? 1 : 0;
        return owner instanceof StrategyRun run && run.reverse.isPresent() ? resting + 1 : resting;
    }

    /** The limit of contracts that an entry of an owner would cross: the contract's own, then the rulebook's. */
    static Optional<Refusal.MostContracts> tooMany(Engine engine, OwnerRun of, Proposal proposal) {
        long here = ofSide(of.market, proposal.side()) + proposal.quantity();
        Optional<Integer> own = limits(engine, of.market).most().filter(most -> here > most);
        return own.isPresent()
                ? own.map(most -> new Refusal.MostContracts(Refusal.Of.CONTRACT, most))
                : tooManyForTheBook(engine, of, proposal);
    }

    /** Likewise of the rulebook alone. */
    static Optional<Refusal.MostContracts> tooManyForTheBook(Engine engine, OwnerRun of, Proposal proposal) {
        long here = ofSide(of.market, proposal.side()) + proposal.quantity();
        Optional<Rulebook.Size> size = size(engine);
        if (size.isEmpty()) {
            return Optional.empty();
        }
        Map<String, Long> contracts = new HashMap<>();
        for (MarketRun market : engine.markets()) {
            contracts.put(market.contract.symbol(),
                    market == of.market ? here : ofSide(market, proposal.side()));
        }
        int most = size.get().at(engine.watch().dayBalance() - engine.account().start());
        return size.get().fits(contracts, most)
                ? Optional.empty()
                : Optional.of(new Refusal.MostContracts(Refusal.Of.ACCOUNT, most));
    }

    /** Whether a contract or the account has a limit of contracts. */
    static boolean sizes(Engine engine, MarketRun market) {
        return limits(engine, market).most().isPresent() || size(engine).isPresent();
    }

    private static Optional<Rulebook.Size> size(Engine engine) {
        return engine.account().rulebook().of(Rulebook.Size.class).findFirst();
    }

    private static ContractLimits limits(Engine engine, MarketRun market) {
        return engine.account().limits(market.contract.symbol());
    }

    /** Contracts of a side that anyone holds, has resting, or waits to enter. */
    private static long ofSide(MarketRun market, Side side) {
        long held = 0;
        for (OwnerRun owner : market.owners) {
            held += owner.held(side);
            if (owner instanceof StrategyRun run) {
                held += run.reverse.filter(waiting -> waiting.side() == side).map(StrategyRun.Reverse::quantity)
                        .orElse(0);
            }
        }
        return held;
    }
}
