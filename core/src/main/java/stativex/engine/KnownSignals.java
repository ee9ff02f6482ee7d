package stativex.engine;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import stativex.market.BarSeries;
import stativex.market.BarSteps;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Histories;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.rule.Program;
import stativex.rule.Truth;
import stativex.rule.TruthColumn;
import stativex.rule.Worked;

/**
 * Bars and rules of a whole tape, worked column by column before the run and read only as far as it has come: what closes later is
 * there, but nobody looks at it. Rules that ask for facts of the position are judged bar by bar all the same.
 */
final class KnownSignals extends Signals {
    private final BarSeries series;
    /** What is walked in place of the prints. */
    private final Optional<BarSteps> steps;
    private final Supplier<SeriesBuilder> making;
    private final boolean asksForPosition;
    private final List<TruthColumn.View> truths;
    /** The print that closes each bar; {@link #BY_CLOCK} where none does. */
    private final int[] closings;
    private int closed;
    private int judged;
    /** The next bar at or after this one was looked for, and found at {@link #firing}. */
    private int firing = -1;

    private static final int BY_CLOCK = -1;

    /** @param making begins to make the same bars */
    private KnownSignals(BarSeries series, Optional<BarSteps> steps, Program program, Strategy strategy,
            Supplier<SeriesBuilder> making) {
        super(program, strategy);
        this.series = series;
        this.steps = steps;
        this.making = making;
        this.asksForPosition = program.asksForPosition();
        if (!asksForPosition) {
            program.take();
        }
        this.truths = asksForPosition
                ? List.of()
                : sides.values().stream().map(side -> side.whole().column().view(series.count())).toList();
        this.closings = new int[series.count()];
        for (int bar = 0; bar < closings.length; bar++) {
            closings[bar] = series.closedAt(bar) == Tape.NONE ? closing(bar) : BY_CLOCK;
        }
    }

    /** In bar mode a bar that no clock closes does so with its last step. */
    private int closing(int bar) {
        return steps.isPresent() ? steps.get().last(bar) : series.closingPrint(bar);
    }

    @Override
    int first(int bar) {
        return steps.isPresent() ? steps.get().first(bar) : series.first(bar);
    }

    @Override
    int last(int bar) {
        return steps.isPresent() ? steps.get().last(bar) : series.last(bar);
    }

    /**
     * @param histories bars that others have made of the tape
     * @param worked study columns that others have worked on them
     * @param from prints before this time are left out, nanoseconds; {@code until} is the last moment of the run
     * @param steps in bar mode
     * @throws IllegalArgumentException when other bars are walked than these
     */
    static KnownSignals of(Strategy strategy, Contract contract, Tape tape, Map<String, ContractTape> others,
            Histories histories, Worked worked, long from, long until, Optional<BarSteps> steps) {
        BarSeries series = histories.of(tape, contract.calendar(), strategy.signals().bars(), from, until);
        if (steps.isPresent() && steps.get().series() != series) {
            throw new IllegalArgumentException("bar mode walks one series of bars: expected the same signal bars and"
                    + " the same history as the first strategy");
        }
        Program program = new Program(strategy.signals().blueprint(contract, others).since(from), series, worked);
        KnownSignals signals = new KnownSignals(series, steps, program, strategy,
                () -> new SeriesBuilder(tape, contract.calendar(), strategy.signals().bars(), from));
        if (!signals.asksForPosition) {
            worked.keep(program);
        }
        return signals;
    }

    @Override
    BarSeries series() {
        return series;
    }

    @Override
    int closed() {
        return closed;
    }

    @Override
    int judged() {
        return judged;
    }

    @Override
    void judgeNext() {
        if (asksForPosition) {
            program.takeNext();
        }
        judged++;
    }

    private boolean byClock(int bar) {
        return closings[bar] == BY_CLOCK;
    }

    @Override
    void print(int print) {
        while (closed < closings.length && !byClock(closed) && closings[closed] <= print) {
            closed++;
        }
    }

    @Override
    void heartbeat(long time) {
        while (closed < series.count() && byClock(closed) && series.closedAt(closed) <= time) {
            closed++;
        }
    }

    /** Whether bars may be passed over that nobody acts on. */
    boolean canSkip() {
        return !asksForPosition;
    }

    /** Everything that has closed with a print, or by the clock at its time, is judged; nothing of it led to anything. */
    void skip(int print, long time) {
        int from = closed;
        int to = closings.length;
        while (from < to) {
            int middle = (from + to) >>> 1;
            boolean done = byClock(middle) ? series.closedAt(middle) <= time : closings[middle] <= print;
            from = done ? middle + 1 : from;
            to = done ? to : middle;
        }
        closed = from;
        judged = from;
    }

    @Override
    void standAs(Signals before, int print, long time) {
        if (canSkip()) {
            skip(print, time);
        } else {
            while (closed < closings.length
                    && (byClock(closed) ? series.closedAt(closed) <= time : closings[closed] <= print)) {
                closed++;
            }
            judgeAs(before);
        }
    }

    /** The next bar that may lead to anything. */
    private int nextThatMatters(int expiry) {
        return asksForPosition ? judged : Math.min(nextFiring(), Math.max(expiry, judged));
    }

    @Override
    long nextClock(int expiry) {
        int bar = nextThatMatters(expiry);
        return bar < closings.length && byClock(bar) ? series.closedAt(bar) : TapeTime.NEVER;
    }

    @Override
    int printAtNextClock(int expiry) {
        // the bar has every print of its session up to its end
        return last(nextThatMatters(expiry)) + 1;
    }

    @Override
    void catchUp(long time, int expiry, ClosedBars told) {
        if (closed < closings.length && byClock(closed) && series.closedAt(closed) <= time) {
            int until = nextThatMatters(expiry);
            while (closed < until && byClock(closed) && series.closedAt(closed) <= time) {
                told.closed(series.closedAt(closed), series.close(closed));
                closed++;
                judged = closed;
            }
        }
    }

    @Override
    int barHolding(int print) {
        boolean inNext = closed < series.count()
                ? first(closed) <= print
                : series.forming().filter(bar -> firstOf(bar) <= print).isPresent();
        boolean inClosed = closed > 0 && last(closed - 1) == print;
        return inClosed && (series.isRenko() || !inNext) ? closed - 1 : closed;
    }

    private int firstOf(BarSeries.Forming bar) {
        return steps.isPresent() ? steps.get().first(closings.length) : bar.first();
    }

    @Override
    boolean givesUpForming() {
        return closed == series.count() || series.fresh(closed);
    }

    @Override
    Optional<BarSeries.Forming> forming(int lastPrint, long now) {
        // nobody looks at a run of this kind but at its end: the bars are made once more, up to here
        SeriesBuilder again = making.get();
        again.prints(0, (steps.isPresent() && lastPrint >= 0 ? steps.get().lastPrintOf(lastPrint) : lastPrint) + 1);
        again.heartbeat(now);
        return again.forming();
    }

    @Override
    boolean judgeForming(long time) {
        return false;
    }

    @Override
    int nextPrintThatMatters(int expiry) {
        int bar = nextThatMatters(expiry);
        // what the clock closes is the clock's to look out for
        return bar < closings.length && !byClock(bar) ? closings[bar] : Integer.MAX_VALUE;
    }

    private int nextFiring() {
        if (firing < judged) {
            firing = series.count();
            for (int i = 0; i < truths.size(); i++) {
                firing = Math.min(firing, truths.get(i).next(Truth.TRUE, judged));
            }
        }
        return firing;
    }

    @Override
    void quiet(int last, long time, ClosedBars told) {
        while (closed < closings.length) {
            if (byClock(closed)) {
                if (series.closedAt(closed) > time) {
                    break;
                }
                told.closed(series.closedAt(closed), series.close(closed));
            } else {
                if (closings[closed] > last) {
                    break;
                }
                Tape tape = steps.isPresent() ? steps.get().tape() : series.tape();
                told.closed(tape.time(closings[closed]), tape.price(closings[closed]));
            }
            closed++;
            judged = closed;
        }
    }
}
