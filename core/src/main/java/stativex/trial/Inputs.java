package stativex.trial;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.account.Account;
import stativex.engine.Strategy;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.order.Terms;

/**
 * Everything a run needs besides the person: the same inputs give the same fills.
 *
 * @param others further contracts that strategies look at, by symbol
 * @param firstDay first evaluated trading day; empty: as early as each strategy's history allows
 * @param heartbeats times, ascending, at which the tape's clock moves without a print
 */
public record Inputs(Tape tape, Contract contract, Map<String, ContractTape> others, Account account,
        List<Strategy> strategies, Terms terms, Optional<LocalDate> firstDay, long[] heartbeats) {

    public Inputs {
        others = Map.copyOf(others);
        strategies = List.copyOf(strategies);
        heartbeats = heartbeats.clone();
        if (strategies.stream().map(Strategy::name).distinct().count() < strategies.size()) {
            throw new IllegalArgumentException("expected strategies of different names");
        }
    }

    /** Inputs with a heartbeat at each session's close that the tape has reached. */
    public static Inputs of(Tape tape, Contract contract, Map<String, ContractTape> others, Account account,
            List<Strategy> strategies, Terms terms) {
        return new Inputs(tape, contract, others, account, strategies, terms, Optional.empty(),
                sessionCloses(tape, contract));
    }

    /** The same evaluated from a trading day on. */
    public Inputs from(Optional<LocalDate> day) {
        return new Inputs(tape, contract, others, account, strategies, terms, day, heartbeats);
    }

    /** The same of strategies that look at no other contract. */
    public static Inputs of(Tape tape, Contract contract, Account account, List<Strategy> strategies, Terms terms) {
        return of(tape, contract, Map.of(), account, strategies, terms);
    }

    /** The last moment there is, nanoseconds; {@link Long#MIN_VALUE} without any. */
    public long end() {
        long end = tape.count() == 0 ? Long.MIN_VALUE : tape.time(tape.count() - 1);
        return heartbeats.length == 0 ? end : Math.max(end, heartbeats[heartbeats.length - 1]);
    }

    @Override
    public long[] heartbeats() {
        return heartbeats.clone();
    }

    private static long[] sessionCloses(Tape tape, Contract contract) {
        List<Long> closes = new ArrayList<>();
        if (tape.count() > 0) {
            long last = tape.time(tape.count() - 1);
            Optional<Session> session = contract.calendar().current(tape.time(0));
            while (session.isPresent() && session.get().close() <= last) {
                closes.add(session.get().close());
                session = contract.calendar().after(session.get());
            }
        }
        long[] times = new long[closes.size()];
        Arrays.setAll(times, closes::get);
        return times;
    }
}
