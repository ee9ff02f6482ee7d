package stativex.market;

/** Range R: a trade that would make high − low exceed R closes the bar before it and opens the next one. */
final class RangeFormer extends BarFormer {
    private final long range;
    private Bar bar;

    RangeFormer(Tape tape, BarType.Range type) {
        super(tape);
        this.range = type.ticks();
    }

    @Override
    void take(int print, Session session) {
        long price = tape.price(print);
        if (bar != null && Math.max(bar.high, price) - Math.min(bar.low, price) > range) {
            close(bar);
            bar = null;
        }
        if (bar == null) {
            bar = new Bar(session.tradingDate());
        }
        bar.take(tape, print, tape.size(print));
    }

    @Override
    void closes(Session session, boolean restarts) {
        if (restarts && bar != null) {
            cut(bar);
            bar = null;
        }
    }
}
