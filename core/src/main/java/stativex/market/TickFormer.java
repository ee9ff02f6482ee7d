package stativex.market;

/** Tick N: a bar closes with its N-th trade. */
final class TickFormer extends BarFormer {
    private final int size;
    private Bar bar;

    TickFormer(Tape tape, BarType.Ticks type) {
        super(tape);
        this.size = type.trades();
    }

    @Override
    void take(int print, Session session) {
        if (bar == null) {
            bar = new Bar(session.tradingDate());
        }
        bar.take(tape, print, tape.size(print));
        if (bar.trades == size) {
            close(bar);
            bar = null;
        }
    }

    /** The same, a bar's prints at a time: a test holds it equal to {@link #take}. */
    @Override
    void takeRun(int from, int to, Session session) {
        int print = from;
        while (print < to) {
            if (bar == null) {
                bar = new Bar(session.tradingDate());
            }
            int end = Math.min(to, print + size - bar.trades);
            bar.takeAll(tape, print, end);
            if (bar.trades == size) {
                close(bar);
                bar = null;
            }
            print = end;
        }
    }

    @Override
    void closes(Session session, boolean restarts) {
        if (restarts && bar != null) {
            cut(bar);
            bar = null;
        }
    }
}
