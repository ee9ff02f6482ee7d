package stativex.market;

/** Range R: a trade that would make high − low exceed R closes the bar before it and opens the next one. */
final class RangeFormer extends CountingFormer {
    private final long range;

    RangeFormer(Tape tape, BarType.Range type) {
        super(tape);
        this.range = type.ticks();
    }

    @Override
    void take(int print, Session session) {
        long price = tape.price(print);
        if (bar != null && Math.max(bar.high, price) - Math.min(bar.low, price) > range) {
            finish();
        }
        begin(session);
        bar.take(tape, print, tape.size(print));
    }
}
