package stativex.desk.chart;

import stativex.desk.look.Format;

/**
 * Where things stand in one painting of a chart.
 *
 * @param first first bar in view, {@code last} the last one
 * @param plot right end of the area that holds bars
 * @param priceHeight height of the price area; panels lie below it
 * @param height of everything, the time axis at its foot
 */
record ChartSpace(ChartModel model, ChartOptions options, Viewport viewport, PriceScale scale, int first, int last,
        double plot, double priceHeight, double width, double height) {

    ChartBars bars() {
        return model.bars();
    }

    /** How many bars share a pixel: loops take one of so many. */
    int step() {
        return Math.max(1, (int) Math.floor(1 / viewport.barWidth()));
    }

    /** Width of a bar's body, odd so that its wick stands in the middle. */
    double body() {
        double wide = Math.max(1, Math.floor(viewport.barWidth() * 0.66));
        return wide % 2 == 0 ? wide - 1 : wide;
    }

    /** A price as the axis writes it. */
    String price(long level) {
        return options.ticks()
                ? Format.ticks(level - bars().close(bars().count() - 1))
                : Format.price(bars().contract(), level);
    }
}
