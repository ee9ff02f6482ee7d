package stativex.market;

import java.util.Optional;

/** Makes bars of one type out of the prints it is given, in order. What it closes goes to its series. */
abstract class BarFormer {
    /** One print may close no more bars than this; a setting that wants more is refused. */
    static final int MOST_BY_ONE_PRINT = 100_000;

    final Tape tape;
    final BarSeries series;
    private boolean fresh;

    BarFormer(Tape tape) {
        this.tape = tape;
        this.series = new BarSeries(tape);
    }

    /** The bar that is forming; empty between bars, and for bricks, whose prices are set when they close. */
    Optional<Bar> forming() {
        return Optional.empty();
    }

    /** A session that makes bars opens. */
    final void opens(Session session, boolean restarted) {
        fresh |= restarted;
        sessionOpens(session);
    }

    void sessionOpens(Session session) {
        // most bars do not care
    }

    /** Takes a print that lies in the session opened last. */
    abstract void take(int print, Session session);

    /** Takes the prints {@code from} to {@code to}, the last one not included, all in one session. */
    void takeRun(int from, int to, Session session) {
        for (int print = from; print < to; print++) {
            while (nextClose() <= tape.time(print)) {
                clock();
            }
            take(print, session);
        }
    }

    /**
     * The session opened last closes.
     *
     * @param restarts the series begins anew with the next session
     */
    abstract void closes(Session session, boolean restarts);

    /** When the clock of the tape next closes a bar inside a session; {@link TapeTime#NEVER} if it does not. */
    long nextClose() {
        return TapeTime.NEVER;
    }

    /** The clock has reached {@link #nextClose()}. */
    void clock() {
        throw new IllegalStateException("no bar closes by the clock");
    }

    final void close(Bar bar) {
        if (fresh) {
            bar.marks |= Bar.FRESH;
            fresh = false;
        }
        series.append(bar);
    }

    final void cut(Bar bar) {
        if (!bar.isEmpty()) {
            bar.marks |= Bar.CUT;
            close(bar);
        }
    }

    static void refuse(long bars) {
        if (bars > MOST_BY_ONE_PRINT) {
            throw new IllegalArgumentException("one print would close more than " + MOST_BY_ONE_PRINT
                    + " bars: expected a larger bar size");
        }
    }
}
