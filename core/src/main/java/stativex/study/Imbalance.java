package stativex.study;

import java.util.List;
import java.util.Optional;
import stativex.market.VolumeByPrice;

/**
 * Contracts of buyers and sellers at the prices inside a bar. A price is out of balance upward when its buyers have at
 * least {@code ratio} times the contracts that sellers have one tick below, and at least {@code least} of them; downward
 * mirrored, against buyers one tick above. Both prices lie inside the bar; nothing traded at the other counts as none.
 * Stacked are neighbouring prices that are out of balance the same way. A bar that forms is counted anew at each print.
 * Common practice, no source.
 */
final class Imbalance extends Study {
    static final StudyKind KIND = new StudyKind("imbalance", "Imbalance",
            "buyers against sellers at the prices inside a bar", Optional.empty(),
            List.of(new StudyField("ratio", new StudyField.Number(0, 1000), "3", "×",
                    "how many times the other side's contracts"),
                    new StudyField("least", new StudyField.Whole(1, 1_000_000), "10", "contracts",
                            "a side with fewer contracts at a price does not count")),
            false,
            "`.up` prices whose buyers have `ratio` times the sellers' contracts a tick below, `.down` mirrored; `.stacked_up`, `.stacked_down` the most of them side by side; `.most` price of most volume; `.bought_high`, `.sold_high`, `.bought_low`, `.sold_low` contracts at the bar's highest and lowest price traded; 1 bar; absent in a bar without contracts; common practice",
            Imbalance::new);

    private final OutputColumn up = number("up", "down");
    private final OutputColumn down = number("down", "up");
    private final OutputColumn stackedUp = number("stacked_up", "stacked_down");
    private final OutputColumn stackedDown = number("stacked_down", "stacked_up");
    private final OutputColumn boughtHigh = number("bought_high", "sold_low");
    private final OutputColumn soldHigh = number("sold_high", "bought_low");
    private final OutputColumn boughtLow = number("bought_low", "sold_high");
    private final OutputColumn soldLow = number("sold_low", "bought_high");
    private final OutputColumn most = level("most", "most");
    private final Frame frame;
    private final double ratio;
    private final int least;

    Imbalance(StudyInputs in) {
        this.frame = in.frame();
        this.ratio = in.number("ratio");
        this.least = in.whole("least");
    }

    private OutputColumn number(String name, String counterpart) {
        return output(new OutputColumn.Shape(name, Unit.NUMBER, false, Mirror.SAME, counterpart));
    }

    @Override
    void compute(int from, int to) {
        for (int row = from; row < to; row++) {
            int bar = row;
            show(row, VolumeByPrice.of(frame.tape(), sink -> frame.contracts(bar, sink)));
        }
    }

    private void show(int row, VolumeByPrice volumes) {
        List<VolumeByPrice.Row> prices = volumes.rows();
        if (prices.isEmpty()) {
            outputs().forEach(output -> output.values()[row] = Double.NaN);
            return;
        }
        most.values()[row] = volumes.most().orElseThrow().price();
        boughtHigh.values()[row] = prices.getLast().bought();
        soldHigh.values()[row] = prices.getLast().sold();
        boughtLow.values()[row] = prices.getFirst().bought();
        soldLow.values()[row] = prices.getFirst().sold();
        Stack upward = new Stack();
        Stack downward = new Stack();
        for (int i = 0; i < prices.size(); i++) {
            VolumeByPrice.Row here = prices.get(i);
            if (i > 0) {
                upward.take(here.price(), here.bought(), beside(prices.get(i - 1), here).sold());
            }
            if (i < prices.size() - 1) {
                downward.take(here.price(), here.sold(), beside(prices.get(i + 1), here).bought());
            }
        }
        up.values()[row] = upward.all;
        down.values()[row] = downward.all;
        stackedUp.values()[row] = upward.longest;
        stackedDown.values()[row] = downward.longest;
    }

    /** The neighbouring row, or an empty one when nothing was traded a tick away. */
    private static VolumeByPrice.Row beside(VolumeByPrice.Row other, VolumeByPrice.Row here) {
        return Math.abs(other.price() - here.price()) == 1 ? other : new VolumeByPrice.Row(other.price(), 0, 0, 0);
    }

    /** Counts prices out of balance one way, from the lowest price up. */
    private final class Stack {
        private int all;
        private int longest;
        private int run;
        private long last;

        void take(long price, long ours, long theirs) {
            if (ours >= least && ours >= ratio * theirs) {
                run = run > 0 && price == last + 1 ? run + 1 : 1;
                last = price;
                all++;
                longest = Math.max(longest, run);
            }
        }
    }
}
