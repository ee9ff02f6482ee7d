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

    /** The same, all prints that fit a bar at a time: a test holds it equal to {@link #take}. */
    @Override
    void takeRun(int from, int to, Session session) {
        int print = from;
        while (print < to) {
            if (bar == null) {
                take(print++, session);
                continue;
            }
            TapeBlock block = tape.holding(print);
            int end = Math.min(to, block.first() + block.count());
            int stretches = block.stretches(print, end, bar.low, bar.high, range);
            if (stretches > print) {
                bar.takeAll(tape, print, stretches);
            }
            if (stretches < end) {
                take(stretches, session);
                stretches++;
            }
            print = stretches;
        }
    }
}
