package stativex.market;

import java.time.temporal.IsoFields;
import java.util.Optional;
import java.util.function.IntConsumer;

/**
 * Builds a series of bars from a tape, print by print; building a whole history is the same, all prints at once. What ends
 * at E closes when the first event stamped at or after E arrives, before that event is taken. Not safe for several
 * threads.
 */
public final class SeriesBuilder {
    private final Tape tape;
    private final SessionCalendar calendar;
    private final BarSettings settings;
    private final BarFormer former;
    private boolean started;
    /** When something next happens by the clock. */
    private long next = Long.MIN_VALUE;
    private Optional<Session> session = Optional.empty();
    private boolean inside;
    private boolean used;
    private boolean restarted = true;
    private boolean untouched = true;

    public SeriesBuilder(Tape tape, SessionCalendar calendar, BarSettings settings) {
        this(tape, calendar, settings, Long.MIN_VALUE);
    }

    /** @param since prints before this time are left out, nanoseconds */
    public SeriesBuilder(Tape tape, SessionCalendar calendar, BarSettings settings, long since) {
        this.tape = tape;
        this.calendar = calendar;
        this.settings = settings;
        this.former = switch (settings.type()) {
            case BarType.Ticks type -> new TickFormer(tape, type);
            case BarType.Volume type -> new VolumeFormer(tape, type);
            case BarType.Range type -> new RangeFormer(tape, type);
            case BarType.Time type -> new TimeFormer(tape, type);
            case BarType.Renko type -> new RenkoFormer(tape, type);
            case BarType.Period type -> new PeriodFormer(tape, type, calendar, settings);
        };
        former.series.from(calendar, settings);
        former.series.since(since);
    }

    /** The bars of a whole tape; the last one stays forming and is left out. */
    public static BarSeries all(Tape tape, SessionCalendar calendar, BarSettings settings) {
        return all(tape, calendar, settings, print -> {
        });
    }

    /** @param progress told after each session how many prints are done; by throwing it ends the work */
    public static BarSeries all(Tape tape, SessionCalendar calendar, BarSettings settings, IntConsumer progress) {
        return some(tape, calendar, settings, Long.MIN_VALUE, tape.count(), progress);
    }

    /**
     * The same of a part of a tape.
     *
     * @param since prints before this time are left out, nanoseconds
     * @param until prints from this one on are left out
     */
    public static BarSeries some(Tape tape, SessionCalendar calendar, BarSettings settings, long since, int until,
            IntConsumer progress) {
        SeriesBuilder builder = new SeriesBuilder(tape, calendar, settings, since);
        int print = builder.former.series.begin();
        while (print < until) {
            print = builder.run(print, until);
            progress.accept(print);
        }
        return builder.ended();
    }

    /** The tape has ended: the closed bars, which know of the one that was forming. */
    BarSeries ended() {
        former.forming().ifPresent(former.series::forming);
        return former.series;
    }

    /** Takes the prints {@code from} to {@code to}, the last one not included, by stretches. */
    public void prints(int from, int to) {
        int print = Math.max(from, former.series.begin());
        while (print < to) {
            print = run(print, to);
        }
    }

    /** The bar that is forming; empty between bars, and for bricks. */
    public Optional<BarSeries.Forming> forming() {
        return former.forming().filter(bar -> !bar.isEmpty()).map(BarSeries.Forming::of);
    }

    /** Whether the next print that makes a bar begins the series anew: what formed before is over. */
    public boolean begunAnew() {
        return restarted;
    }

    /** When a bar next closes by the clock inside the session; {@link TapeTime#NEVER} if none does. */
    public long nextBar() {
        return inside ? former.nextClose() : TapeTime.NEVER;
    }

    /** The closed bars so far. */
    public BarSeries series() {
        return former.series;
    }

    /**
     * Takes the next print of the tape.
     *
     * @throws IllegalArgumentException when it would close more than 100 000 bars
     */
    public void print(int print) {
        if (print < former.series.begin()) {
            return;
        }
        heartbeat(tape.time(print));
        if (inside) {
            touch(print);
            if (used) {
                former.take(print, session.orElseThrow());
                next = Math.min(next, former.nextClose());
            }
        }
    }

    /** Takes {@code print} and all that follow in its session, or skips to the next session; returns the print after. */
    private int run(int print, int most) {
        heartbeat(tape.time(print));
        if (!inside) {
            return Math.min(most, session.isPresent() ? tape.firstAt(session.get().open()) : tape.count());
        }
        touch(print);
        int to = Math.min(most, tape.firstAt(session.orElseThrow().close()));
        if (used) {
            former.takeRun(print, to, session.get());
            next = Math.min(next, former.nextClose());
        }
        return to;
    }

    private void touch(int print) {
        if (untouched) {
            untouched = false;
            if (used && calendar.late(session.orElseThrow().open(), tape.time(print))
                    && former instanceof PeriodFormer period) {
                period.incomplete();
            }
        }
    }

    /** Tape time has reached {@code time}: what ends at or before it closes. */
    public void heartbeat(long time) {
        if (time >= next) {
            advance(time);
        }
    }

    private void advance(long time) {
        if (!started) {
            started = true;
            session = calendar.current(time);
        }
        while (session.isPresent()) {
            long close = inside ? session.get().close() : TapeTime.NEVER;
            long bar = inside ? former.nextClose() : TapeTime.NEVER;
            long open = inside ? TapeTime.NEVER : session.get().open();
            next = Math.min(close, Math.min(bar, open));
            if (next > time) {
                return;
            }
            if (next == open) {
                open();
            } else if (next == close) {
                close();
            } else {
                former.clock();
            }
        }
        next = TapeTime.NEVER;
    }

    private void open() {
        inside = true;
        used = settings.uses(session.orElseThrow());
        if (used) {
            former.opens(session.get(), restarted);
            if (tape.incomplete(session.get()) && former instanceof PeriodFormer period) {
                period.incomplete();
            }
            restarted = false;
        }
    }

    private void close() {
        Session ended = session.orElseThrow();
        if (used) {
            restarted = restartsAfter(ended);
            former.closes(ended, restarted);
        }
        inside = false;
        session = calendar.after(ended);
    }

    /** Whether the next session that makes bars begins anew. */
    private boolean restartsAfter(Session ended) {
        if (settings.type() instanceof BarType.Period) {
            return false;
        }
        return switch (settings.restart()) {
            case SESSION -> true;
            case NEVER -> false;
            case DAY -> nextUsed(ended).map(s -> !s.tradingDate().equals(ended.tradingDate())).orElse(true);
            case WEEK -> nextUsed(ended).map(s -> week(s) != week(ended)).orElse(true);
        };
    }

    private Optional<Session> nextUsed(Session ended) {
        Optional<Session> next = calendar.after(ended);
        while (next.isPresent() && !settings.uses(next.get())) {
            next = calendar.after(next.get());
        }
        return next;
    }

    private static long week(Session session) {
        return 100L * session.tradingDate().get(IsoFields.WEEK_BASED_YEAR)
                + session.tradingDate().get(IsoFields.WEEK_OF_WEEK_BASED_YEAR);
    }
}
