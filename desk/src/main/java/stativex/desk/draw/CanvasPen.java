package stativex.desk.draw;

import java.util.HashMap;
import java.util.Map;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.Text;

/** A pen on a canvas. Upright and level lines are drawn as rectangles, which the software renderer does much faster. */
public final class CanvasPen implements Pen {
    private record Measured(String text, Font font) {}

    private final GraphicsContext g;
    private final Map<Measured, Double> widths = new HashMap<>();
    private final Text ruler = new Text();

    public CanvasPen(GraphicsContext g) {
        this.g = g;
    }

    @Override
    public void fill(Color color, double x, double y, double width, double height) {
        g.setFill(color);
        g.fillRect(x, y, width, height);
    }

    @Override
    public void frame(Color color, double x, double y, double width, double height) {
        g.setFill(color);
        g.fillRect(x, y, width, 1);
        g.fillRect(x, y + height - 1, width, 1);
        g.fillRect(x, y, 1, height);
        g.fillRect(x + width - 1, y, 1, height);
    }

    @Override
    public void line(Color color, double width, double x1, double y1, double x2, double y2, double... dashes) {
        if (dashes.length == 0 && (x1 == x2 || y1 == y2)) {
            g.setFill(color);
            if (x1 == x2) {
                g.fillRect(x1 - width / 2, Math.min(y1, y2), width, Math.abs(y2 - y1));
            } else {
                g.fillRect(Math.min(x1, x2), y1 - width / 2, Math.abs(x2 - x1), width);
            }
            return;
        }
        stroke(color, width, dashes);
        g.strokeLine(x1, y1, x2, y2);
    }

    @Override
    public void path(Color color, double width, double[] xs, double[] ys, int count, double... dashes) {
        stroke(color, width, dashes);
        g.strokePolyline(xs, ys, count);
    }

    private void stroke(Color color, double width, double[] dashes) {
        g.setStroke(color);
        g.setLineWidth(width);
        g.setLineDashes(dashes);
    }

    @Override
    public void disc(Color fill, Color edge, double x, double y, double radius) {
        g.setFill(fill);
        g.fillOval(x - radius, y - radius, 2 * radius, 2 * radius);
        stroke(edge, 1.2, new double[0]);
        g.strokeOval(x - radius, y - radius, 2 * radius, 2 * radius);
    }

    @Override
    public void polygon(Color fill, Color edge, double[] xs, double[] ys) {
        g.setFill(fill);
        g.fillPolygon(xs, ys, xs.length);
        stroke(edge, 1.2, new double[0]);
        g.strokePolygon(xs, ys, xs.length);
    }

    @Override
    public void text(String text, Font font, Color color, double x, double y) {
        g.setFont(font);
        g.setFill(color);
        g.fillText(text, Math.round(x), Math.round(y));
    }

    @Override
    public double width(String text, Font font) {
        if (widths.size() > 4000) {
            widths.clear();
        }
        return widths.computeIfAbsent(new Measured(text, font), m -> {
            ruler.setFont(m.font());
            ruler.setText(m.text());
            return ruler.getLayoutBounds().getWidth();
        });
    }

    @Override
    public void clip(double x, double y, double width, double height) {
        g.save();
        g.beginPath();
        g.rect(x, y, width, height);
        g.clip();
    }

    @Override
    public void unclip() {
        g.restore();
    }
}
