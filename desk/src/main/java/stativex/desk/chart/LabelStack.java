package stativex.desk.chart;

import stativex.desk.draw.Pen;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import stativex.desk.look.Palette;

/** Boxes with words beside the price axis: each stands at its price, or as near as the others let it. */
final class LabelStack {
    private static final double HEIGHT = 18;
    private static final double GAP = 3;

    private record Label(String text, Color edge, Color ink, double y, boolean dashed) {}

    private final List<Label> labels = new ArrayList<>();

    /** @param y pixel of the price it belongs to */
    void add(String text, Color edge, Color ink, double y, boolean dashed) {
        labels.add(new Label(text, edge, ink, y, dashed));
    }

    /** Draws the boxes with their right ends at {@code right}, lines leading from {@code from} on. */
    void draw(Pen pen, Font font, double from, double right, double top, double bottom) {
        if (labels.isEmpty()) {
            return;
        }
        labels.sort(Comparator.comparingDouble(Label::y));
        double width = labels.stream().mapToDouble(l -> pen.width(l.text(), font)).max().orElse(0) + 14;
        double[] places = places(top, bottom);
        for (int i = 0; i < places.length; i++) {
            Label label = labels.get(i);
            double y = Math.round(label.y());
            double x = right - width;
            if (label.dashed()) {
                pen.line(label.edge(), 1, from, y + 0.5, x, y + 0.5, 4, 3);
            } else {
                pen.line(label.edge(), 1, from, y + 0.5, x, y + 0.5);
            }
            double box = Math.round(places[i]);
            if (Math.abs(box + HEIGHT / 2 - y) > 1) {
                pen.line(label.edge(), 1, x, Math.min(y, box + HEIGHT / 2), x, Math.max(y, box + HEIGHT / 2));
            }
            pen.fill(Palette.CHART, x, box, width, HEIGHT);
            pen.frame(label.edge(), x, box, width, HEIGHT);
            pen.text(label.text(), font, label.ink(), x + 7, box + 13);
        }
    }

    /** Tops of the boxes: pushed down from above, then back up from the bottom. */
    private double[] places(double top, double bottom) {
        double[] places = new double[labels.size()];
        double free = top;
        for (int i = 0; i < places.length; i++) {
            places[i] = Math.max(free, labels.get(i).y() - HEIGHT / 2);
            free = places[i] + HEIGHT + GAP;
        }
        double limit = bottom;
        for (int i = places.length - 1; i >= 0; i--) {
            places[i] = Math.min(places[i], limit - HEIGHT);
            limit = places[i] - GAP;
        }
        return places;
    }
}
