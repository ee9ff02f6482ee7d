package stativex.desk.chart;

/**
 * Which bars are in view: how wide a bar is and which one stands at the right edge. Shared by everything drawn under one
 * another. Follows the newest bar until the person moves away from it.
 */
public final class Viewport {
    private static final double NARROWEST = 0.0004;
    private static final double WIDEST = 200;
    private static final double USUAL = 8;

    private double barWidth = USUAL;
    private double rightBar;
    private boolean following = true;
    private double plotWidth = 600;

    /** Starts at the newest bar. */
    public Viewport() {}

    /** Right end of the area that holds bars, pixels. */
    public void plotWidth(double pixels) {
        plotWidth = Math.max(50, pixels);
    }

    public double plotWidth() {
        return plotWidth;
    }

    public double barWidth() {
        return barWidth;
    }

    public boolean following() {
        return following;
    }

    /** Goes back to the newest bar. */
    public void follow() {
        following = true;
    }

    /** While following: the newest bar stands {@code margin} pixels from the right edge. */
    public void newest(double bars, double margin) {
        if (following) {
            rightBar = bars + margin / barWidth;
        }
    }

    /** Left edge of a bar, pixels. */
    public double x(double bar) {
        return plotWidth - (rightBar - bar) * barWidth;
    }

    public double centre(double bar) {
        return x(bar) + barWidth / 2;
    }

    /** The bar under a pixel; may lie outside the series. */
    public int barAt(double x) {
        return (int) Math.floor(rightBar - (plotWidth - x) / barWidth);
    }

    /** The first bar of which a part is in view. */
    public int firstBar() {
        return Math.max(0, barAt(0));
    }

    /** The first bar that counts as seen: its middle is in view. */
    public int firstSeen() {
        return Math.max(0, barAt(barWidth / 2));
    }

    /** The last of so many bars that counts as seen; below {@link #firstSeen()} when none is. */
    public int lastSeen(int bars) {
        return Math.min(bars - 1, barAt(plotWidth - barWidth / 2));
    }

    /** Zooms so that the bar under {@code x} stays there. */
    public void zoom(double factor, double x) {
        double bar = rightBar - (plotWidth - x) / barWidth;
        barWidth = Math.clamp(barWidth * factor, NARROWEST, WIDEST);
        if (!following) {
            rightBar = bar + (plotWidth - x) / barWidth;
        }
    }

    /** Moves by pixels; to the right shows earlier bars. */
    public void drag(double pixels, double bars) {
        rightBar -= pixels / barWidth;
        following = false;
        rightBar = Math.min(rightBar, bars + plotWidth / barWidth * 0.7);
        rightBar = Math.max(rightBar, Math.min(bars, 5));
    }

    /** Shows {@code count} bars, the last of them at the right edge, and stays there. */
    public void show(double count, double last) {
        following = false;
        barWidth = Math.clamp(plotWidth / Math.max(1, count), NARROWEST, WIDEST);
        rightBar = last + 1;
    }

    /** Shows a bar at the right edge, as wide as bars are, and stays there. */
    public void endWith(double bar) {
        following = false;
        rightBar = bar + 1;
    }

    /** The newest {@code count} bars, none wider than usual, {@code margin} pixels from the right edge; follows. */
    public void followAll(double count, double margin) {
        following = true;
        barWidth = Math.clamp((plotWidth - margin) / Math.max(1, count), NARROWEST, USUAL);
    }

    /** All bars, from edge to edge. */
    public void fit(double bars) {
        show(bars + 1, bars);
    }

    /** Brings a bar into view. */
    public void reveal(int bar, double bars) {
        if (x(bar) < 0) {
            drag(4 - x(bar), bars);
        } else if (x(bar) + barWidth > plotWidth) {
            drag(plotWidth - x(bar) - barWidth - 4, bars);
        }
    }
}
