package stativex.desk.draw;

import java.util.Locale;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.Text;

/** A pen that writes Scalable Vector Graphics (SVG 1.1, W3C), so that a chart can be kept as a picture of any size. */
public final class SvgPen implements Pen {
    private final StringBuilder body = new StringBuilder();
    private final double width;
    private final double height;
    private final Text ruler = new Text();
    private int clips;

    public SvgPen(double width, double height) {
        this.width = width;
        this.height = height;
    }

    /** The whole document. */
    public String document() {
        return "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\""
                + n(width)
                + "\" height=\"" + n(height) + "\" viewBox=\"0 0 " + n(width) + " " + n(height) + "\">\n" + body
                + "</svg>\n";
    }

    private static String n(double value) {
        String text = String.format(Locale.ROOT, "%.2f", value);
        return text.endsWith(".00") ? text.substring(0, text.length() - 3) : text;
    }

    private static String color(String attribute, Color color) {
        return " " + attribute + "=\"" + String.format(Locale.ROOT, "#%02X%02X%02X", Math.round(color.getRed() * 255),
                Math.round(color.getGreen() * 255), Math.round(color.getBlue() * 255)) + "\""
                + (color.isOpaque() ? "" : " " + attribute + "-opacity=\"" + n(color.getOpacity()) + "\"");
    }

    private static String dashes(double... dashes) {
        if (dashes.length == 0) {
            return "";
        }
        StringBuilder text = new StringBuilder(" stroke-dasharray=\"");
        for (double dash : dashes) {
            text.append(n(dash)).append(' ');
        }
        return text.toString().stripTrailing() + "\"";
    }

    @Override
    public void fill(Color color, double x, double y, double wide, double high) {
        if (wide > 0 && high > 0) {
            body.append("<rect x=\"").append(n(x)).append("\" y=\"").append(n(y)).append("\" width=\"").append(n(wide))
                    .append("\" height=\"").append(n(high)).append('"').append(color("fill", color)).append("/>\n");
        }
    }

    @Override
    public void frame(Color color, double x, double y, double wide, double high) {
        body.append("<rect x=\"").append(n(x + 0.5)).append("\" y=\"").append(n(y + 0.5)).append("\" width=\"")
                .append(n(Math.max(0, wide - 1))).append("\" height=\"").append(n(Math.max(0, high - 1)))
                .append("\" fill=\"none\"").append(color("stroke", color)).append("/>\n");
    }

    @Override
    public void line(Color color, double thick, double x1, double y1, double x2, double y2, double... dashes) {
        body.append("<line x1=\"").append(n(x1)).append("\" y1=\"").append(n(y1)).append("\" x2=\"").append(n(x2))
                .append("\" y2=\"").append(n(y2)).append('"').append(color("stroke", color)).append(" stroke-width=\"")
                .append(n(thick)).append('"').append(dashes(dashes)).append("/>\n");
    }

    @Override
    public void path(Color color, double thick, double[] xs, double[] ys, int count, double... dashes) {
        body.append("<polyline fill=\"none\"").append(color("stroke", color)).append(" stroke-width=\"")
                .append(n(thick))
                .append('"').append(dashes(dashes)).append(" points=\"");
        points(xs, ys, count);
        body.append("\"/>\n");
    }

    private void points(double[] xs, double[] ys, int count) {
        for (int i = 0; i < count; i++) {
            body.append(i == 0 ? "" : " ").append(n(xs[i])).append(',').append(n(ys[i]));
        }
    }

    @Override
    public void disc(Color fill, Color edge, double x, double y, double radius) {
        body.append("<circle cx=\"").append(n(x)).append("\" cy=\"").append(n(y)).append("\" r=\"").append(n(radius))
                .append('"').append(color("fill", fill)).append(color("stroke", edge))
                .append(" stroke-width=\"1.2\"/>\n");
    }

    @Override
    public void polygon(Color fill, Color edge, double[] xs, double[] ys) {
        body.append("<polygon").append(color("fill", fill)).append(color("stroke", edge))
                .append(" stroke-width=\"1.2\" points=\"");
        points(xs, ys, xs.length);
        body.append("\"/>\n");
    }

    @Override
    public void text(String text, Font font, Color color, double x, double y) {
        body.append("<text x=\"").append(n(x)).append("\" y=\"").append(n(y)).append("\" font-family=\"")
                .append(escaped(font.getFamily())).append(", sans-serif\" font-size=\"").append(n(font.getSize()))
                .append('"').append(font.getStyle().contains("Bold") ? " font-weight=\"bold\"" : "")
                .append(color("fill", color)).append(" xml:space=\"preserve\">").append(escaped(text))
                .append("</text>\n");
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\"", "&quot;");
    }

    @Override
    public double width(String text, Font font) {
        ruler.setFont(font);
        ruler.setText(text);
        return ruler.getLayoutBounds().getWidth();
    }

    @Override
    public void clip(double x, double y, double wide, double high) {
        clips++;
        body.append("<clipPath id=\"c").append(clips).append("\"><rect x=\"").append(n(x)).append("\" y=\"")
                .append(n(y))
                .append("\" width=\"").append(n(Math.max(0, wide))).append("\" height=\"").append(n(Math.max(0, high)))
                .append("\"/></clipPath>\n<g clip-path=\"url(#c").append(clips).append(")\">\n");
    }

    @Override
    public void unclip() {
        body.append("</g>\n");
    }
}
