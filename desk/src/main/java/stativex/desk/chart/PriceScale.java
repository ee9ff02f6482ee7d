package stativex.desk.chart;

import java.util.ArrayList;
import java.util.List;

/** Turns prices in ticks into pixels. */
public final class PriceScale {
    private final double top;
    private final double height;
    private final double highest;
    private final double lowest;

    /** Room above and below the prices for pins, pixels. */
    private static final double AIR = 30;

    /** A scale over the given prices, with room for pins above and below. */
    public PriceScale(double top, double height, double lowest, double highest) {
        double span = Math.max(8, highest - lowest);
        double middle = (highest + lowest) / 2;
        double half = span / 2 * height / Math.max(40, height - 2 * AIR);
        this.top = top;
        this.height = height;
        this.highest = middle + half;
        this.lowest = middle - half;
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
        List<Long> levels = new ArrayList<>();
        for (long level = first; level < highest; level += step) {
            levels.add(level);
        }
        return levels;
    }
}
