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

    @Override
    void closes(Session session, boolean restarts) {
        if (restarts && bar != null) {
            cut(bar);
            bar = null;
        }
    }
}
