package stativex.market;

import java.util.Optional;

/**
 * Time: intervals from the session's open, [start, end), the end cut at the session's close; an interval without a trade
 * makes no bar. A bar closes at its end, before any print stamped at or after it.
 */
final class TimeFormer extends BarFormer {
    private final long length;
    private Bar bar;
    private long start;
    private long end;

    TimeFormer(Tape tape, BarType.Time type) {
        super(tape);
        this.length = type.nanos();
    }

    @Override
    void take(int print, Session session) {
        if (bar == null) {
            bar = new Bar(session.tradingDate());
            start = session.open() + (tape.time(print) - session.open()) / length * length;
            end = start + length;
        }
        bar.take(tape, print, tape.size(print));
        bar.start = start;
    }

    /** The same, an interval's prints at a time. */
    @Override
    void takeRun(int from, int to, Session session) {
        int print = from;
        while (print < to) {
            if (bar != null && end <= tape.time(print)) {
                clock();
            }
            take(print, session);
            int after = Math.min(to, tape.firstAt(end, print));
            if (after > print + 1) {
                bar.takeAll(tape, print + 1, after);
            }
            print = Math.max(after, print + 1);
        }
    }

    @Override
    long nextClose() {
        return bar == null ? TapeTime.NEVER : end;
    }

    @Override
    void clock() {
        finish(end, false);
    }

    @Override
    void closes(Session session, boolean restarts) {
        if (bar != null) {
            finish(Math.min(end, session.close()), end > session.close());
        }
    }

    private void finish(long at, boolean unfinished) {
        bar.end = at;
        bar.closedAt = at;
        if (unfinished) {
            cut(bar);
        } else {
            close(bar);
        }
        bar = null;
    }

    @Override
    Optional<Bar> forming() {
        return Optional.ofNullable(bar);
    }
}
