package stativex.desk.chart;

import javafx.scene.paint.Color;
import stativex.desk.draw.Pen;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.study.MarkColumn;

/** Marks that studies draw, in ink: chevrons that point at their price, diamonds on it; a provisional one is dashed. */
final class MarkArt {
    private static final double HALF = 4;
    private static final double CLEAR = 5;
    private static final double[] PROVISIONAL = {2, 2};
    private static final double[] SETTLED = {};

    private MarkArt() {}

    static void draw(Pen pen, ChartSpace s) {
        for (Snapshot.MarkView marks : s.model().drawn()) {
            Color ink = Palette.ink(marks.ink(), Palette.INK);
            int rows = Math.min(marks.ago().count(), s.bars().count());
            // one that stands in view may have been drawn with a later bar
            for (int row = Math.max(0, s.first()); row < rows && row <= s.last() + 100; row++) {
                double ago = marks.ago().get(row);
                if (ago >= 0) {
                    draw(pen, s, marks.shape(), ink, row - (int) ago, marks.price().get(row), SETTLED);
                }
            }
            marks.provisional().ifPresent(mark -> draw(pen, s, marks.shape(), ink, rows - mark.ago(), mark.price(),
                    PROVISIONAL));
        }
    }

    private static void draw(Pen pen, ChartSpace s, MarkColumn.Shape shape, Color ink, int bar, double price,
            double[] dashes) {
        if (bar < s.first() || bar > s.last()) {
            return;
        }
        double x = s.viewport().centre(bar);
        double y = s.scale().y(price);
        double way = shape.way() == MarkColumn.Way.UP ? 1 : -1;
        switch (shape.form()) {
            // its point just clear of the price
            case CHEVRON -> pen.path(ink, 1.6, new double[]{x - HALF, x, x + HALF},
                    new double[]{y + way * (CLEAR + HALF), y + way * CLEAR, y + way * (CLEAR + HALF)}, 3, dashes);
            case DIAMOND -> pen.path(ink, 1.6, new double[]{x, x + HALF, x, x - HALF, x},
                    new double[]{y - HALF, y, y + HALF, y, y - HALF}, 5, dashes);
        }
    }
}
