package stativex.market;

/** Tick N: a bar closes with its N-th trade. */
final class TickFormer extends CountingFormer {
    private final int size;

    TickFormer(Tape tape, BarType.Ticks type) {
        super(tape);
        this.size = type.trades();
    }

    @Override
    void take(int print, Session session) {
        begin(session);
        bar.take(tape, print, tape.size(print));
        if (bar.trades == size) {
            finish();
        }
    }

    /** The same, a bar's prints at a time: a test holds it equal to {@link #take}. */
    @Override
    void takeRun(int from, int to, Session session) {
        int print = from;
        while (print < to) {
            begin(session);
            int end = Math.min(to, print + size - bar.trades);
            bar.takeAll(tape, print, end);
            if (bar.trades == size) {
                finish();
            }
            print = end;
        }
    }
}
