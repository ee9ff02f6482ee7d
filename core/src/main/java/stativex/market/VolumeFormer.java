package stativex.market;

/** Volume V: a bar closes when its volume is V. A larger trade is split; each part counts as a trade in its bar. */
final class VolumeFormer extends BarFormer {
    private final long size;
    private Bar bar;

    VolumeFormer(Tape tape, BarType.Volume type) {
        super(tape);
        this.size = type.contracts();
    }

    @Override
    void take(int print, Session session) {
        long left = tape.size(print);
        refuse((left + (bar == null ? 0 : bar.volume)) / size);
        while (left > 0) {
            if (bar == null) {
                bar = new Bar(session.tradingDate());
            }
            long part = Math.min(left, size - bar.volume);
            bar.take(tape, print, part);
            left -= part;
            if (bar.volume == size) {
                close(bar);
                bar = null;
            }
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
