package stativex.market;

/** Volume V: a bar closes when its volume is V. A larger trade is split; each part counts as a trade in its bar. */
final class VolumeFormer extends CountingFormer {
    private final long size;

    VolumeFormer(Tape tape, BarType.Volume type) {
        super(tape);
        this.size = type.contracts();
    }

    @Override
    void take(int print, Session session) {
        long left = tape.size(print);
        refuse((left + (bar == null ? 0 : bar.volume)) / size);
        while (left > 0) {
            begin(session);
            long part = Math.min(left, size - bar.volume);
            bar.take(tape, print, part);
            left -= part;
            if (bar.volume == size) {
                finish();
            }
        }
    }

    /** The same, all prints that fit a bar whole at a time: a test holds it equal to {@link #take}. */
    @Override
    void takeRun(int from, int to, Session session) {
        int print = from;
        while (print < to) {
            begin(session);
            TapeBlock block = tape.holding(print);
            int end = Math.min(to, block.first() + block.count());
            int fills = block.fills(print, end, size - bar.volume);
            if (fills > print) {
                bar.takeAll(tape, print, fills);
            }
            if (fills < end) {
                take(fills, session);
                fills++;
            }
            print = fills;
        }
    }
}
