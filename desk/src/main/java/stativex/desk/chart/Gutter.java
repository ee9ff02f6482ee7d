package stativex.desk.chart;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Palette;

/**
 * The one column beside a chart that holds all text: a row has its name left and its figure right and stands at the height of its price;
 * rows that would overlap are pushed apart and tied to their price by a thin elbow.
 */
final class Gutter {
    /** Its width; lanes under the chart keep it free too. */
    static final double WIDTH = 150;
    private static final double ROW = 18;
    private static final double GAP = 2;
    private static final double ELBOW = 14;
    private static final Font PLAIN = Fonts.words(10.5);
    private static final Font BOLD = Fonts.bold(10.5);

    /** How a row looks. */
    enum Look {
        /** Muted words. */
        PLAIN,
        /** In a frame of its own colour. */
        FRAMED,
        /** White on ink, across the whole column. */
        SOLID
    }

    /** @param y pixel of the price it belongs to */
    private record Row(String name, String figure, double y, Look look, Color edge, Color ink) {}

    private final List<Row> rows = new ArrayList<>();
    private double[] places = {};
    private double height = ROW;

    /** A line's name with its value. */
    void plain(String name, String figure, double y, Color ink) {
        rows.add(new Row(name, figure, y, Look.PLAIN, ink, ink));
    }

    /** A tag in its colour: an order, a position. */
    void framed(String name, String figure, double y, Color edge, Color ink) {
        rows.add(new Row(name, figure, y, Look.FRAMED, edge, ink));
    }

    /** The last price. */
    void solid(String name, String figure, double y) {
        rows.add(new Row(name, figure, y, Look.SOLID, Palette.INK, Palette.CHART));
    }

    /** Finds every row its place between two heights. */
    void settle(double top, double bottom) {
        rows.sort(Comparator.comparingDouble(Row::y));
        height = Math.clamp((bottom - top) / Math.max(1, rows.size()) - GAP, 9, ROW);
        places = new double[rows.size()];
        double free = top;
        for (int i = 0; i < places.length; i++) {
            places[i] = Math.max(free, rows.get(i).y() - height / 2);
            free = places[i] + height + GAP;
        }
        double limit = bottom;
        for (int i = places.length - 1; i >= 0; i--) {
            places[i] = Math.min(places[i], limit - height);
            limit = places[i] - GAP;
        }
    }

    /** Whether a figure of the axis at a height would meet no row. */
    boolean isFree(double y) {
        for (double place : places) {
            if (y > place - 8 && y < place + height + 8) {
                return false;
            }
        }
        return true;
    }

    /** Draws the rows of a column that begins at {@code left}. */
    void draw(Pen pen, double left, double width) {
        for (int i = 0; i < places.length; i++) {
            Row row = rows.get(i);
            double top = Math.round(places[i]);
            double middle = top + Math.floor(height / 2) + 0.5;
            double y = Math.round(row.y()) + 0.5;
            double x = left + ELBOW;
            if (row.look() != Look.SOLID || Math.abs(middle - y) > 1) {
                double knee = left + 5;
                pen.line(row.edge(), 1, left, y, knee, y);
                pen.line(row.edge(), 1, knee, y, x - 3, middle);
                pen.line(row.edge(), 1, x - 3, middle, x, middle);
            }
            double base = top + Math.round(height / 2) + 4;
            double right = width - 8;
            switch (row.look()) {
                case PLAIN -> {
                    // the name is shown as far as the figure leaves it room
                }
                case FRAMED -> {
                    pen.fill(Palette.CHART, x, top, width - x - 3, height);
                    pen.frame(row.edge(), x, top, width - x - 3, height);
                }
                case SOLID -> pen.fill(Palette.INK, x, top, width - x, height);
            }
            Font font = row.look() == Look.PLAIN ? PLAIN : BOLD;
            pen.rightAligned(row.figure(), font, row.ink(), right, base);
            pen.text(fit(pen, row.name(), font, right - pen.width(row.figure(), font) - x - 12), font, row.ink(), x + 6,
                    base);
        }
    }

    /** A text with an ellipsis where there is no room for all of it. */
    static String fit(Pen pen, String text, Font font, double width) {
        if (pen.width(text, font) <= width) {
            return text;
        }
        String shorter = text;
        while (shorter.length() > 1 && pen.width(shorter + "…", font) > width) {
            shorter = shorter.substring(0, shorter.length() - 1);
        }
        return shorter.length() > 1 ? shorter + "…" : "";
    }
}
