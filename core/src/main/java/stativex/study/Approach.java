package stativex.study;

import java.util.List;
import java.util.Optional;
import stativex.market.ContractSink;
import stativex.market.Period;

/**
 * Approach of a level: once a print was {@code away} ticks or more above it the long side is armed; the first print after
 * that within {@code near} ticks of it fires, and the side has to be armed anew, as it has to when a print lies further
 * beyond: the price ran through the level without coming near it. Below it the short side, mirrored.
 * Followed print by print, against the level as it stood when the bar began. Common practice, no source.
 */
final class Approach extends Study implements ContractSink {
    static final StudyKind KIND = new StudyKind("approach", "Level approach",
            "the price comes back to a level after it was well away", Optional.of(BarField.CLOSE),
            List.of(StudyField.ticks("away", 20, "how far the price must have been away first"),
                    StudyField.ticks("near", 5, "how near it must come then"),
                    StudyField.period("over which its counts run", Period.SESSION, Period.DAY, Period.WEEK,
                            Period.MONTH)),
            false,
            "`.long` fires at a print within `near` of the level once one was `away` above it, not at one that ran through it, `.short` mirrored; `.longs`, `.shorts` times in this period; common practice",
            Approach::new);

    private final OutputColumn fromAbove = flag("long", "short");
    private final OutputColumn fromBelow = flag("short", "long");
    private final OutputColumn longs = output(
            new OutputColumn.Shape("longs", Unit.NUMBER, true, Mirror.SAME, "shorts"));
    private final OutputColumn shorts = output(
            new OutputColumn.Shape("shorts", Unit.NUMBER, true, Mirror.SAME, "longs"));
    private final OutputColumn armedAbove = flag("armed_above", "armed_below");
    private final OutputColumn armedBelow = flag("armed_below", "armed_above");
    private final OutputColumn starts = memory();
    private final OutputColumn input;
    private final Frame frame;
    private final int away;
    private final int near;
    private final Period period;
    private double level;
    private boolean above;
    private boolean below;
    private int firedLong;
    private int firedShort;

    Approach(StudyInputs in) {
        this.frame = in.frame();
        this.input = in.of();
        this.away = in.whole("away");
        this.near = in.whole("near");
        this.period = in.period();
        if (input.unit() != Unit.LEVEL) {
            throw new IllegalArgumentException("expected a price to approach, found " + input.unit().words());
        }
        if (near >= away) {
            throw new IllegalArgumentException("expected near below away (" + away + " ticks), found " + near);
        }
    }

    @Override
    public void take(int print, long contracts) {
        double over = frame.tape().price(print) - level;
        above |= over >= away;
        below |= over <= -away;
        boolean there = Math.abs(over) <= near;
        if (above && over <= near) {
            above = false;
            firedLong += there ? 1 : 0;
        }
        if (below && over >= -near) {
            below = false;
            firedShort += there ? 1 : 0;
        }
    }

    @Override
    void compute(int from, int to) {
        double[] begins = starts.values();
        for (int row = from; row < to; row++) {
            begins[row] = frame.periodStart(period, row, begins);
            boolean anew = row == 0 || begins[row] != begins[row - 1];
            level = row == 0 || Double.isNaN(input.values()[row - 1]) ? input.values()[row] : input.values()[row - 1];
            above = row > 0 && armedAbove.values()[row - 1] == 1;
            below = row > 0 && armedBelow.values()[row - 1] == 1;
            firedLong = 0;
            firedShort = 0;
            boolean absent = Double.isNaN(level);
            if (!absent) {
                frame.contracts(row, this);
            }
            fromAbove.values()[row] = absent ? Double.NaN : Math.min(1, firedLong);
            fromBelow.values()[row] = absent ? Double.NaN : Math.min(1, firedShort);
            longs.values()[row] = (anew ? 0 : longs.values()[row - 1]) + firedLong;
            shorts.values()[row] = (anew ? 0 : shorts.values()[row - 1]) + firedShort;
            armedAbove.values()[row] = above ? 1 : 0;
            armedBelow.values()[row] = below ? 1 : 0;
        }
    }
}
