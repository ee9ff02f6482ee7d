package stativex.market;

import java.util.Optional;

/** A former whose one forming bar is cut where the series restarts: bars that close by what they have counted. */
abstract class CountingFormer extends BarFormer {
    /** The forming bar; absent between bars. */
    Bar bar;

    CountingFormer(Tape tape) {
        super(tape);
    }

    /** Makes sure that a bar forms. */
    final void begin(Session session) {
        if (bar == null) {
            bar = new Bar(session.tradingDate());
        }
    }

    final void finish() {
        close(bar);
        bar = null;
    }

    @Override
    void closes(Session session, boolean restarts) {
        if (restarts && bar != null) {
            bar.closedAt = session.close();
            cut(bar);
            bar = null;
        }
    }

    @Override
    Optional<Bar> forming() {
        return Optional.ofNullable(bar);
    }
}
