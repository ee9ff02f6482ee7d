package stativex.study;

import stativex.market.DoubleColumn;

/** An output that a study fills, one value for each closed bar. */
public final class OutputColumn implements Output {
    private final Unit unit;
    private final boolean anchored;
    private final DoubleColumn values = new DoubleColumn();

    OutputColumn(Unit unit) {
        this(unit, false);
    }

    /** @param anchored starts afresh with each session, so that values on both sides of a session's open are unrelated */
    OutputColumn(Unit unit, boolean anchored) {
        this.unit = unit;
        this.anchored = anchored;
    }

    /** Whether it starts afresh with each session. */
    public boolean anchored() {
        return anchored;
    }

    void add(double value) {
        values.add(value);
    }

    @Override
    public Unit unit() {
        return unit;
    }

    @Override
    public double at(int bar) {
        return values.get(bar);
    }

    /** An immutable view, safe to hand to another thread. */
    public DoubleColumn.Prefix view() {
        return values.prefix();
    }
}
