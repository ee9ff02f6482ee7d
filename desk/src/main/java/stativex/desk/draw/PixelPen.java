package stativex.desk.draw;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.Text;

/**
 * A pen on an array of pixels: several times faster than a canvas where a chart has thousands of shapes. Edges between
 * pixels are smoothed by how much of a pixel they cover. Text goes to a canvas that lies above; a shape drawn over text
 * takes the text away. Not safe for several threads.
 */
public final class PixelPen implements Pen {
    private record Measured(String text, Font font) {}

    private record Box(double x, double y, double width, double height) {
        boolean meets(double otherX, double otherY, double otherWidth, double otherHeight) {
            return otherX < x + width && x < otherX + otherWidth && otherY < y + height && y < otherY + otherHeight;
        }
    }

    private static final double THIN = 7;

    private final int[] pixels;
    private final int width;
    private final int height;
    private final double scale;
    private final GraphicsContext words;
    private final List<Box> written = new ArrayList<>();
    private final List<int[]> clips = new ArrayList<>();
    private final Map<Measured, Double> widths;
    private final Text ruler = new Text();
    private int left;
    private int top;
    private int right;
    private int bottom;

    /**
     * @param pixels ARGB with colours multiplied by alpha, row by row
     * @param scale pixels for each unit of the coordinates
     * @param words takes texts, in units
     */
    PixelPen(int[] pixels, int width, int height, double scale, GraphicsContext words) {
        this.pixels = pixels;
        this.width = width;
        this.height = height;
        this.scale = scale;
        this.words = words;
        this.widths = new HashMap<>();
        right = width;
        bottom = height;
    }

    /** Begins an empty picture. */
    void clear() {
        Arrays.fill(pixels, 0);
        written.clear();
        clips.clear();
        left = 0;
        top = 0;
        right = width;
        bottom = height;
        words.clearRect(0, 0, width / scale, height / scale);
    }

    private static int argb(Color color) {
        int alpha = (int) Math.round(color.getOpacity() * 255);
        double by = color.getOpacity() * 255;
        return alpha << 24 | (int) Math.round(color.getRed() * by) << 16 | (int) Math.round(color.getGreen() * by) << 8
                | (int) Math.round(color.getBlue() * by);
    }

    /** Lays a colour over a pixel; {@code cover} 0 to 256. */
    private void blend(int place, int color, int cover) {
        int alpha = (color >>> 24) * cover >> 8;
        if (alpha >= 255) {
            pixels[place] = color;
            return;
        }
        int under = pixels[place];
        int rest = 255 - alpha;
        // two colour parts at a time; +128 and the second shift divide by 255 with rounding
        int oddUnder = (under >>> 8 & 0xFF00FF) * rest + 0x800080;
        int evenUnder = (under & 0xFF00FF) * rest + 0x800080;
        oddUnder = oddUnder + (oddUnder >>> 8 & 0xFF00FF) >>> 8 & 0xFF00FF;
        evenUnder = evenUnder + (evenUnder >>> 8 & 0xFF00FF) >>> 8 & 0xFF00FF;
        int odd = (color >>> 8 & 0xFF00FF) * cover >>> 8 & 0xFF00FF;
        int even = (color & 0xFF00FF) * cover >>> 8 & 0xFF00FF;
        pixels[place] = (odd + oddUnder << 8) + even + evenUnder;
    }

    @Override
    public void fill(Color color, double x, double y, double wide, double high) {
        if (wide <= 0 || high <= 0) {
            return;
        }
        if (!written.isEmpty() && color.isOpaque()) {
            unwrite(x, y, wide, high);
        }
        cover(argb(color), x * scale, y * scale, (x + wide) * scale, (y + high) * scale);
    }

    /** Text that a shape covers goes, as a whole; a thin line passes under it. */
    private void unwrite(double x, double y, double wide, double high) {
        if (wide < THIN || high < THIN) {
            return;
        }
        for (int i = written.size() - 1; i >= 0; i--) {
            Box box = written.get(i);
            if (box.meets(x, y, wide, high)) {
                words.clearRect(box.x() - 1, box.y(), box.width() + 2, box.height());
                written.remove(i);
            }
        }
    }

    /** Fills a rectangle in pixels, its edges by the part of the pixel they cover. */
    private void cover(int color, double x0, double y0, double x1, double y1) {
        int fromX = Math.max(left, (int) Math.floor(x0 + 1e-6));
        int toX = Math.min(right, (int) Math.ceil(x1 - 1e-6));
        int fromY = Math.max(top, (int) Math.floor(y0 + 1e-6));
        int toY = Math.min(bottom, (int) Math.ceil(y1 - 1e-6));
        boolean solid = color >>> 24 == 255;
        for (int y = fromY; y < toY; y++) {
            double coverY = Math.min(y + 1, y1) - Math.max(y, y0);
            int row = y * width;
            for (int x = fromX; x < toX; x++) {
                double cover = coverY * (Math.min(x + 1, x1) - Math.max(x, x0));
                if (solid && cover > 0.999) {
                    int end = Math.min(toX, (int) Math.floor(x1 + 1e-6));
                    if (coverY > 0.999 && end > x) {
                        Arrays.fill(pixels, row + x, row + end, color);
                        x = end - 1;
                        continue;
                    }
                }
                blend(row + x, color, (int) Math.round(cover * 256));
            }
        }
    }

    @Override
    public void frame(Color color, double x, double y, double wide, double high) {
        fill(color, x, y, wide, 1);
        fill(color, x, y + high - 1, wide, 1);
        fill(color, x, y + 1, 1, high - 2);
        fill(color, x + wide - 1, y + 1, 1, high - 2);
    }

    @Override
    public void line(Color color, double thick, double x1, double y1, double x2, double y2, double... dashes) {
        if (dashes.length == 0 && (x1 == x2 || y1 == y2)) {
            if (x1 == x2) {
                fill(color, x1 - thick / 2, Math.min(y1, y2), thick, Math.abs(y2 - y1));
            } else {
                fill(color, Math.min(x1, x2), y1 - thick / 2, Math.abs(x2 - x1), thick);
            }
            return;
        }
        segment(argb(color), thick, x1, y1, x2, y2, dashes, 0);
    }

    @Override
    public void path(Color color, double thick, double[] xs, double[] ys, int count, double... dashes) {
        int ink = argb(color);
        double done = 0;
        for (int i = 1; i < count; i++) {
            segment(ink, thick, xs[i - 1], ys[i - 1], xs[i], ys[i], dashes, done);
            done += Math.hypot(xs[i] - xs[i - 1], ys[i] - ys[i - 1]);
        }
    }

    /**
     * A straight piece, column by column or row by row, whichever it crosses more of; each is covered by the line's thickness
     * across it. Pieces one after another share no column, so that a path is as dark at its joints as elsewhere.
     *
     * @param done length of the path before it, for dashes
     */
    private void segment(int color, double thick, double x1, double y1, double x2, double y2, double[] dashes,
            double done) {
        double total = 0;
        for (double dash : dashes) {
            total += dash;
        }
        boolean flat = Math.abs(x2 - x1) >= Math.abs(y2 - y1);
        double a1 = (flat ? x1 : y1) * scale;
        double a2 = (flat ? x2 : y2) * scale;
        double b1 = (flat ? y1 : x1) * scale;
        double b2 = (flat ? y2 : x2) * scale;
        double along = a2 - a1;
        if (along == 0) {
            return;
        }
        double slope = (b2 - b1) / along;
        double longer = Math.sqrt(1 + slope * slope);
        double half = thick * scale * longer / 2;
        int least = flat ? left : top;
        int most = flat ? right : bottom;
        int from = Math.max(least, (int) Math.ceil(Math.min(a1, a2) - 0.5));
        int to = Math.min(most - 1, (int) Math.ceil(Math.max(a1, a2) - 0.5) - 1);
        for (int a = from; a <= to; a++) {
            double way = a + 0.5 - a1;
            if (total > 0 && isGap(dashes, total, done + Math.abs(way) * longer / scale)) {
                continue;
            }
            double middle = b1 + slope * way;
            column(color, flat, a, middle - half, middle + half);
        }
    }

    private static boolean isGap(double[] dashes, double total, double at) {
        double rest = at % total;
        for (int i = 0; i < dashes.length; i++) {
            rest -= dashes[i];
            if (rest < 0) {
                return i % 2 == 1;
            }
        }
        return false;
    }

    private void column(int color, boolean upright, int at, double from, double to) {
        int first = Math.max(upright ? top : left, (int) Math.floor(from));
        int last = Math.min(upright ? bottom : right, (int) Math.ceil(to));
        for (int b = first; b < last; b++) {
            double cover = Math.min(b + 1, to) - Math.max(b, from);
            if (cover > 0) {
                blend(upright ? b * width + at : at * width + b, color, (int) Math.round(Math.min(1, cover) * 256));
            }
        }
    }

    @Override
    public void disc(Color fill, Color edge, double x, double y, double radius) {
        unwrite(x - radius, y - radius, 2 * radius, 2 * radius);
        circle(argb(edge), x, y, radius + 0.6);
        circle(argb(fill), x, y, radius - 0.6);
    }

    private void circle(int color, double x, double y, double radius) {
        double r = radius * scale;
        double cx = x * scale;
        double cy = y * scale;
        for (int py = Math.max(top, (int) (cy - r - 1)); py < Math.min(bottom, (int) (cy + r + 2)); py++) {
            for (int px = Math.max(left, (int) (cx - r - 1)); px < Math.min(right, (int) (cx + r + 2)); px++) {
                double inside = r + 0.5 - Math.hypot(px + 0.5 - cx, py + 0.5 - cy);
                if (inside > 0) {
                    blend(py * width + px, color, (int) Math.round(Math.min(1, inside) * 256));
                }
            }
        }
    }

    /** Four by four samples a pixel: polygons here are small. */
    @Override
    public void polygon(Color fill, Color edge, double[] xs, double[] ys) {
        int ink = argb(fill);
        int fromX = Math.max(left, (int) Math.floor(Arrays.stream(xs).min().orElse(0) * scale));
        int toX = Math.min(right, (int) Math.ceil(Arrays.stream(xs).max().orElse(0) * scale));
        int fromY = Math.max(top, (int) Math.floor(Arrays.stream(ys).min().orElse(0) * scale));
        int toY = Math.min(bottom, (int) Math.ceil(Arrays.stream(ys).max().orElse(0) * scale));
        for (int y = fromY; y < toY; y++) {
            for (int x = fromX; x < toX; x++) {
                int hits = 0;
                for (int sample = 0; sample < 16; sample++) {
                    hits += inside(xs, ys, (x + (sample % 4 + 0.5) / 4) / scale, (y + (sample / 4 + 0.5) / 4) / scale)
                            ? 1
                            : 0;
                }
                if (hits > 0) {
                    blend(y * width + x, ink, hits * 16);
                }
            }
        }
        for (int i = 0; i < xs.length; i++) {
            int next = (i + 1) % xs.length;
            segment(argb(edge), 1.2, xs[i], ys[i], xs[next], ys[next], new double[0], 0);
        }
    }

    /** Whether a ray to the right crosses the edges an odd number of times. */
    private static boolean inside(double[] xs, double[] ys, double x, double y) {
        boolean inside = false;
        for (int i = 0, j = xs.length - 1; i < xs.length; j = i++) {
            if (ys[i] > y != ys[j] > y && x < (xs[j] - xs[i]) * (y - ys[i]) / (ys[j] - ys[i]) + xs[i]) {
                inside = !inside;
            }
        }
        return inside;
    }

    @Override
    public void text(String text, Font font, Color color, double x, double y) {
        words.setFont(font);
        words.setFill(color);
        words.fillText(text, Math.round(x), Math.round(y));
        written.add(new Box(x, y - font.getSize(), width(text, font), font.getSize() * 1.3));
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
    public void clip(double x, double y, double wide, double high) {
        clips.add(new int[]{left, top, right, bottom});
        left = Math.max(left, (int) Math.round(x * scale));
        top = Math.max(top, (int) Math.round(y * scale));
        right = Math.max(left, Math.min(right, (int) Math.round((x + wide) * scale)));
        bottom = Math.max(top, Math.min(bottom, (int) Math.round((y + high) * scale)));
        words.save();
        words.beginPath();
        words.rect(x, y, wide, high);
        words.clip();
    }

    @Override
    public void unclip() {
        int[] before = clips.removeLast();
        left = before[0];
        top = before[1];
        right = before[2];
        bottom = before[3];
        words.restore();
    }
}
