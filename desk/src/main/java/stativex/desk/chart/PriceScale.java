package stativex.desk.chart;

import java.util.List;

/** Turns prices in ticks into pixels. */
public final class PriceScale {
    private final double top;
    private final double height;
    private final double highest;
    private final double lowest;

    /** A scale over the given prices, with a little air above and below. */
    public PriceScale(double top, double height, double lowest, double highest) {
        double span = Math.max(8, highest - lowest);
        double middle = (highest + lowest) / 2;
        this.top = top;
        this.height = height;
        this.highest = middle + span * 0.56;
        this.lowest = middle - span * 0.56;
    }

    public double y(double ticks) {
        return top + (highest - ticks) / (highest - lowest) * height;
    }

    public double price(double y) {
        return highest - (y - top) / height * (highest - lowest);
    }

    public boolean shows(double ticks) {
        return ticks > lowest && ticks < highest;
    }

    /** Round tick levels for grid lines, at least {@code pixels} apart. */
    public List<Long> grid(double pixels) {
        long step = 1;
        while (step * height / (highest - lowest) < pixels) {
            step *= 2;
        }
        long first = Math.ceilDiv((long) Math.ceil(lowest), step) * step;
        java.util.ArrayList<Long> levels = new java.util.ArrayList<>();
        for (long level = first; level < highest; level += step) {
            levels.add(level);
        }
        return levels;
    }
}
