package stativex.desk.chart;

import java.util.ArrayList;
import java.util.List;

/** Turns prices in ticks into pixels. */
public final class PriceScale {
    /** Room above and below the prices for pins, pixels. */
    private static final double AIR = 30;

    private final double top;
    private final double height;
    private final double highest;
    private final double lowest;

    private PriceScale(double top, double height, double lowest, double highest) {
        this.top = top;
        this.height = height;
        this.lowest = lowest;
        this.highest = highest;
    }

    /** A scale over the given prices, with room for pins above and below. */
    static PriceScale fitting(double top, double height, double lowest, double highest) {
        double span = Math.max(8, highest - lowest);
        double middle = (highest + lowest) / 2;
        double half = span / 2 * height / Math.max(40, height - 2 * AIR);
        return new PriceScale(top, height, middle - half, middle + half);
    }

    /** The same area with other bounds, at least four ticks apart. */
    PriceScale between(double low, double high) {
        double half = Math.max(2, (high - low) / 2);
        double middle = (high + low) / 2;
        return new PriceScale(top, height, middle - half, middle + half);
    }

    /** Stretched about its middle; above 1 shows more prices. */
    PriceScale stretched(double factor) {
        double middle = (highest + lowest) / 2;
        double half = Math.min(1e12, (highest - lowest) / 2 * factor);
        return between(middle - half, middle + half);
    }

    /** Moved by pixels, down for positive ones. */
    PriceScale moved(double pixels) {
        double ticks = pixels / pixels();
        return between(lowest + ticks, highest + ticks);
    }

    double lowest() {
        return lowest;
    }

    double highest() {
        return highest;
    }

    /** Pixels a tick takes. */
    double pixels() {
        return height / (highest - lowest);
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

    /** Tick levels for grid lines, at least {@code pixels} apart, round as counted from {@code zero}. */
    public List<Long> grid(double pixels, long zero) {
        long step = 1;
        while (step * pixels() < pixels) {
            step *= 2;
        }
        long first = Math.ceilDiv((long) Math.ceil(lowest) - zero, step) * step + zero;
        List<Long> levels = new ArrayList<>();
        for (long level = first; level < highest; level += step) {
            levels.add(level);
        }
        return levels;
    }
}
