package stativex.trial;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import stativex.market.SessionCalendar;
import java.util.Comparator;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.LongStream;
import stativex.account.Account;
import stativex.engine.Strategy;
import stativex.market.BarSteps;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Rolls;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.order.Owner;
import stativex.order.Terms;

/**
 * Everything a run needs besides the person: the same inputs give the same fills.
 *
 * @param others further contracts that strategies look at or trade, by symbol
 * @param days trading days that are evaluated
 * @param heartbeats times, ascending, at which the tape's clock moves without a print
 * @param rolls months of a joined tape, which has each month's real prices
 */
public record Inputs(Tape tape, Contract contract, Map<String, ContractTape> others, Account account,
        List<Strategy> strategies, Terms terms, Days days, long[] heartbeats, Rolls rolls) {

    /** Inputs of one month. */
    public Inputs(Tape tape, Contract contract, Map<String, ContractTape> others, Account account,
            List<Strategy> strategies, Terms terms, Days days, long[] heartbeats) {
        this(tape, contract, others, account, strategies, terms, days, heartbeats, Rolls.NONE);
    }

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
        return new Inputs(tape, contract, others, account, strategies, terms, Days.ALL,
                sessionCloses(tape, contract));
    }

    /** The same over other trading days. */
    public Inputs over(Days range) {
        return new Inputs(tape, contract, others, account, strategies, terms, range, heartbeats, rolls);
    }

    /** The same under other terms. */
    public Inputs under(Terms others) {
        return new Inputs(tape, contract, this.others, account, strategies, others, days, heartbeats, rolls);
    }

    /** The same of a joined tape. */
    public Inputs rolling(Rolls months) {
        return new Inputs(tape, contract, others, account, strategies, terms, days, heartbeats, months);
    }

    /** The same of strategies that look at no other contract. */
    public static Inputs of(Tape tape, Contract contract, Account account, List<Strategy> strategies, Terms terms) {
        return of(tape, contract, Map.of(), account, strategies, terms);
    }

    /** The tape as somebody looks at all of it: of a join every month at the newest one's prices, else as it is. */
    public Tape seen() {
        return rolls.legs().isEmpty() ? tape : rolls.legs().getLast().seen();
    }

    /**
     * A contract that is traded.
     *
     * @param heartbeats times, ascending, at which its clock moves without a print
     */
    public record Traded(Contract contract, Tape tape, long[] heartbeats) {}

    /** Every contract that is traded: the run's own, then further ones of strategies, in the account's order. */
    public List<Traded> traded() {
        List<Traded> traded = new ArrayList<>();
        traded.add(new Traded(contract, tape, heartbeats));
        for (String symbol : account.fees().keySet()) {
            ContractTape other = others.get(symbol);
            if (other != null && strategies.stream().anyMatch(s -> s.contract().equals(symbol))) {
                traded.add(new Traded(other.contract(), other.tape(), sessionCloses(other.tape(), other.contract())));
            }
        }
        return traded;
    }

    /** The calendar of the account's days: that of the traded contract which it lists first. */
    public SessionCalendar accountCalendar() {
        List<String> listed = List.copyOf(account.fees().keySet());
        return traded().stream().map(Traded::contract).min(Comparator.comparingInt(c -> listed.indexOf(c.symbol())))
                .orElseThrow().calendar();
    }

    /** The contract that an owner trades; the person trades the run's own. */
    public Contract contract(Owner owner) {
        return owner instanceof Owner.Strategy(int index) ? contract(strategies.get(index).contract()) : contract;
    }

    private Contract contract(String symbol) {
        return symbol.equals(contract.symbol()) ? contract : others.get(symbol).contract();
    }

    /** Prints of the tape until the last evaluated day ends. */
    public int prints() {
        return prints(contract, tape);
    }

    /** The same of a contract's prints, or of what is walked in their place. */
    int prints(Contract of, Tape walked) {
        return days.prints(walked, of.calendar());
    }

    /** The last moment that is worked, nanoseconds; {@link Long#MIN_VALUE} without any. */
    public long end() {
        return traded().stream().mapToLong(this::end).max().orElseThrow();
    }

    private long end(Traded one) {
        int prints = prints(one.contract(), one.tape());
        long[] beats = worked(one);
        long end = prints == 0 ? Long.MIN_VALUE : one.tape().time(prints - 1);
        return beats.length == 0 ? end : Math.max(end, beats[beats.length - 1]);
    }

    @Override
    public long[] heartbeats() {
        return heartbeats.clone();
    }

    /** How many inputs a run in tick mode works: prints and heartbeats of every contract that is traded. */
    public int places() {
        return placesBefore(Long.MAX_VALUE);
    }

    /** How many of them come before an instant. @param time nanoseconds */
    public int placesBefore(long time) {
        int places = 0;
        for (Traded one : traded()) {
            int prints = prints(one.contract(), one.tape());
            places += time == Long.MAX_VALUE ? prints : Math.min(prints, one.tape().firstAt(time));
            places += (int) Arrays.stream(worked(one)).filter(beat -> beat < time).count();
        }
        return places;
    }

    /** The heartbeats that are worked: those until the last evaluated day ends. */
    long[] worked(Traded one) {
        long end = days.end(one.contract().calendar()).orElse(Long.MAX_VALUE);
        int beats = one.heartbeats().length;
        while (beats > 0 && one.heartbeats()[beats - 1] >= end) {
            beats--;
        }
        return Arrays.copyOf(one.heartbeats(), beats);
    }

    /** The same where bars are walked: each has closed before the next one opens, and the clock comes to the tape's end. */
    long[] worked(BarSteps steps) {
        long end = days.end(contract.calendar()).orElse(Long.MAX_VALUE);
        LongStream closes = Arrays.stream(steps.closings()).filter(close -> close < end && close <= end());
        int walked = prints(contract, steps.tape());
        boolean goesOn = prints() > 0 && (walked == 0 || tape.time(prints() - 1) > steps.tape().time(walked - 1));
        LongStream last = goesOn ? LongStream.of(tape.time(prints() - 1)) : LongStream.empty();
        return LongStream.concat(LongStream.concat(Arrays.stream(worked(traded().getFirst())), closes), last).sorted()
                .distinct()
                .toArray();
    }

    /** The print on which a position is left since the range ends: the last one of it that lies in a session; empty without. */
    OptionalInt lastInRange(Contract of, Tape walked) {
        if (days.last().isEmpty()) {
            return OptionalInt.empty();
        }
        int print = prints(of, walked) - 1;
        while (print >= 0 && !inSession(of, walked.time(print))) {
            print--;
        }
        return print < 0 ? OptionalInt.empty() : OptionalInt.of(print);
    }

    /** Prints until the last evaluated day ends that lie in no session. */
    int outsideSessions() {
        int prints = prints();
        int outside = 0;
        for (int print = 0; print < prints;) {
            Optional<Session> session = contract.calendar().current(tape.time(print));
            int open = Math.min(prints, session.map(s -> tape.firstAt(s.open(), 0)).orElse(prints));
            outside += Math.max(0, open - print);
            print = Math.max(open, print);
            if (session.isPresent() && print < prints) {
                print = Math.min(prints, tape.firstAt(session.get().close()));
            }
        }
        return outside;
    }

    /** Whether a time lies in a session. */
    boolean inSession(long time) {
        return inSession(contract, time);
    }

    private static boolean inSession(Contract of, long time) {
        return of.calendar().current(time).filter(session -> session.contains(time)).isPresent();
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
