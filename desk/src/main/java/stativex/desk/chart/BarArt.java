package stativex.desk.chart;

import stativex.desk.draw.Pen;
import stativex.desk.look.Palette;

/** Bars as ink on paper: hollow rose, solid fell. Where several share a pixel, one line from their lowest to their highest. */
final class BarArt {
    private BarArt() {}

    static void draw(Pen pen, ChartSpace s) {
        if (s.viewport().barWidth() < 1) {
            columns(pen, s);
            return;
        }
        ChartBars bars = s.bars();
        double body = s.body();
        for (int bar = s.first(); bar <= s.last(); bar++) {
            double left = Math.round(s.viewport().centre(bar) - body / 2);
            double high = Math.round(s.scale().y(bars.drawnHigh(bar)));
            double low = Math.round(s.scale().y(bars.drawnLow(bar)));
            double open = Math.round(s.scale().y(bars.drawnOpen(bar)));
            double close = Math.round(s.scale().y(bars.drawnClose(bar)));
            double top = Math.min(open, close);
            double height = Math.max(1, Math.abs(open - close));
            double middle = left + Math.floor(body / 2);
            if (body < 3) {
                pen.fill(Palette.SLATE, middle, high, 1, Math.max(1, low - high));
            } else if (bars.drawnClose(bar) >= bars.drawnOpen(bar)) {
                pen.fill(Palette.SLATE, middle, high, 1, top - high);
                pen.fill(Palette.SLATE, middle, top + height, 1, Math.max(0, low - top - height));
                pen.frame(Palette.SLATE, left, top, body, Math.max(2, height));
            } else {
                pen.fill(Palette.SLATE, middle, high, 1, Math.max(1, low - high));
                pen.fill(Palette.SLATE, left, top, body, height);
            }
        }
    }

    private static void columns(Pen pen, ChartSpace s) {
        int from = s.first();
        for (int x = 0; x < s.plot() && from <= s.last(); x++) {
            int to = Math.min(s.last() + 1, s.viewport().barAt(x + 1));
            if (to > from) {
                double high = Math.round(s.scale().y(s.bars().highest(from, to)));
                double low = Math.round(s.scale().y(s.bars().lowest(from, to)));
                pen.fill(Palette.SLATE, x, high, 1, Math.max(1, low - high));
                from = to;
            }
        }
    }
}
