package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Swing points: a bar whose high is above those of N bars before it and not below those of N bars after it is a swing
 * high, known only when those N bars have closed; lows mirrored. Common practice, no source.
 */
final class Swings extends Study {
    static final StudyKind KIND = new StudyKind("swing", "Swing", "the last turning points of the price",
            Optional.empty(),
            List.of(StudyField.bars("strength", 3, "bars on either side that a turning point stands out from")), true,
            "`.high`: last bar whose high is above those of N bars before and not below those of N after, known N bars later; `.low` mirrored; `.high_ago`, `.low_ago` bars since; marks `.top` and `.bottom` on the bars that turned; common practice",
            Swings::new);

    private final OutputColumn high = level("high", "low");
    private final OutputColumn low = level("low", "high");
    private final OutputColumn highAgo = output(
            new OutputColumn.Shape("high_ago", Unit.NUMBER, false, Mirror.SAME, "low_ago"));
    private final OutputColumn lowAgo = output(
            new OutputColumn.Shape("low_ago", Unit.NUMBER, false, Mirror.SAME, "high_ago"));
    private final MarkColumn top = mark("top", MarkColumn.Way.DOWN, "bottom");
    private final MarkColumn bottom = mark("bottom", MarkColumn.Way.UP, "top");
    private final OutputColumn highs;
    private final OutputColumn lows;
    private final int strength;

    Swings(StudyInputs in) {
        this.highs = in.field(BarField.HIGH);
        this.lows = in.field(BarField.LOW);
        this.strength = in.whole("strength");
    }

    /** Whether the bar N before {@code row} is a turning point, now that {@code row} has closed. */
    static boolean turns(double[] x, int row, int strength, boolean up) {
        int at = row - strength;
        if (at < strength) {
            return false;
        }
        for (int i = 1; i <= strength; i++) {
            boolean stands = up
                    ? x[at] > x[at - i] && x[at] >= x[at + i]
                    : x[at] < x[at - i] && x[at] <= x[at + i];
            if (!stands) {
                return false;
            }
        }
        return true;
    }

    @Override
    void compute(int from, int to) {
        for (int row = from; row < to; row++) {
            keep(row, highs.values(), high.values(), highAgo.values(), top, true);
            keep(row, lows.values(), low.values(), lowAgo.values(), bottom, false);
        }
    }

    private void keep(int row, double[] x, double[] level, double[] ago, MarkColumn mark, boolean up) {
        if (turns(x, row, strength, up)) {
            level[row] = x[row - strength];
            ago[row] = strength;
            mark.draw(row, strength, level[row]);
        } else {
            level[row] = row == 0 ? Double.NaN : level[row - 1];
            ago[row] = row == 0 ? Double.NaN : ago[row - 1] + 1;
            if (row < 2 * strength) {
                mark.absent(row);
            } else {
                mark.none(row);
            }
        }
    }
}
