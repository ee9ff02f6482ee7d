package stativex.market;

import java.util.Optional;

/** Tick N: a bar closes with its N-th trade. */
final class TickFormer extends CountingFormer {
    private final int size;
    /** Prints counted and not gathered yet: {@code from} to {@code to}, the last one not included. */
    private int from;
    private int to = -1;
    private int counted;

    TickFormer(Tape tape, BarType.Ticks type) {
        super(tape);
        this.size = type.trades();
    }

    /** Prints are only counted; a bar's figures are read from the tape when it closes, so a print costs next to nothing. */
    @Override
    void take(int print, Session session) {
        if (print != to) {
            gather();
            from = print;
            if (bar == null) {
                counted = 0;
            }
        }
        begin(session);
        to = print + 1;
        if (++counted == size) {
            gather();
            finish();
            counted = 0;
        }
    }

    private void gather() {
        if (from < to) {
            bar.takeAll(tape, from, to);
            from = to;
        }
    }

    @Override
    void closes(Session session, boolean restarts) {
        gather();
        super.closes(session, restarts);
        counted = bar == null ? 0 : counted;
    }

    @Override
    Optional<Bar> forming() {
        gather();
        return super.forming();
    }

    /** The same, a bar's prints at a time: a test holds it equal to {@link #take}. */
    @Override
    void takeRun(int first, int after, Session session) {
        gather();
        int print = first;
        while (print < after) {
            begin(session);
            int end = Math.min(after, print + size - bar.trades);
            bar.takeAll(tape, print, end);
            if (bar.trades == size) {
                finish();
            }
            print = end;
        }
        counted = bar == null ? 0 : bar.trades;
        from = after;
        to = after;
    }
}
