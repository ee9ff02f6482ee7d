package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Divergence of price and a study: bearish when a swing high above the last one comes with a lower value of the study at
 * it, bullish when a swing low below the last one comes with a higher value. True at the bar at whose close the second
 * swing is known. Common practice, no source; swings as in {@code swing}.
 */
final class Divergence extends Study {
    static final StudyKind KIND = new StudyKind("divergence", "Divergence",
            "price makes a new swing, a study does not follow", Optional.of(BarField.DELTA),
            List.of(StudyField.bars("strength", 3, "strength of the swings"),
                    StudyField.bars("within", 60, "at most so many bars between both swings")),
            false,
            "`.bearish`: a swing high above the last one, the value of `of` at it below; `.bullish` mirrored; true at the close that makes the swing known; marks `.down` and `.up` at that swing; common practice",
            Divergence::new);

    private final OutputColumn bullish = flag("bullish", "bearish");
    private final OutputColumn bearish = flag("bearish", "bullish");
    private final MarkColumn up = mark("up", MarkColumn.Way.UP, "down");
    private final MarkColumn down = mark("down", MarkColumn.Way.DOWN, "up");
    private final OutputColumn lastHigh = memory();
    private final OutputColumn lastLow = memory();
    private final OutputColumn highs;
    private final OutputColumn lows;
    private final OutputColumn input;
    private final int strength;
    private final int within;

    Divergence(StudyInputs in) {
        this.highs = in.field(BarField.HIGH);
        this.lows = in.field(BarField.LOW);
        this.input = in.of();
        this.strength = in.whole("strength");
        this.within = in.whole("within");
    }

    @Override
    void compute(int from, int to) {
        for (int row = from; row < to; row++) {
            swing(row, highs.values(), lastHigh.values(), bearish.values(), down, true);
            swing(row, lows.values(), lastLow.values(), bullish.values(), this.up, false);
        }
    }

    private void swing(int row, double[] price, double[] last, double[] flag, MarkColumn mark, boolean up) {
        judge(row, price, last, flag, up);
        if (Double.isNaN(flag[row])) {
            mark.absent(row);
        } else if (flag[row] == 0) {
            mark.none(row);
        } else {
            mark.draw(row, strength, price[row - strength]);
        }
    }

    private void judge(int row, double[] price, double[] last, double[] flag, boolean up) {
        double before = row == 0 ? -1 : last[row - 1];
        last[row] = before;
        // known only from the first bar on that could have made a swing known
        flag[row] = row < 2 * strength ? Double.NaN : 0;
        if (!Swings.turns(price, row, strength, up)) {
            return;
        }
        int now = row - strength;
        last[row] = now;
        if (before >= 0 && now - before <= within) {
            int then = (int) before;
            double[] x = input.values();
            boolean further = up ? price[now] > price[then] : price[now] < price[then];
            boolean weaker = up ? x[now] < x[then] : x[now] > x[then];
            boolean absent = Double.isNaN(x[now]) || Double.isNaN(x[then]);
            flag[row] = !further ? 0 : absent ? Double.NaN : weaker ? 1 : 0;
        }
    }
}
