package stativex.desk.chart;

import java.util.List;
import java.util.Optional;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.market.VolumeByPrice;

/**
 * Flow bars: a bar opened up into seller volume (left) and buyer volume (right) at each price, as density of ink; figures
 * where there is room. The price of most volume is framed, the delta stands below. Open to close is a narrow bar at the left.
 */
final class FlowArt {
    /** Bars narrower than this are drawn as plain bars. */
    static final double NARROWEST = 26;
    private static final double WITH_FIGURES = 66;
    private static final double STICK = 5;
    /** Ink stays readable on this shade: contrast 4.5 to 1. */
    private static final double DARKEST = 0.5;

    private FlowArt() {}

    static boolean fits(ChartSpace s) {
        return s.options().flow() && s.viewport().barWidth() >= NARROWEST;
    }

    static void draw(Pen pen, ChartSpace s) {
        double tick = s.scale().pixels();
        boolean figures = s.viewport().barWidth() >= WITH_FIGURES;
        // prices that would be too low to see or read share a cell
        long together = (long) Math.max(1, Math.ceil((figures ? 12 : 3) / tick));
        long most = 1;
        for (int bar = s.first(); bar <= s.last(); bar++) {
            for (Cell cell : cells(s.bars().volumeByPrice(bar), together)) {
                most = Math.max(most, Math.max(cell.bought, cell.sold));
            }
        }
        for (int bar = s.first(); bar <= s.last(); bar++) {
            bar(pen, s, bar, together, most, figures);
        }
    }

    private static final class Cell {
        final long low;
        long bought;
        long sold;
        long all;

        Cell(long low) {
            this.low = low;
        }
    }

    private static List<Cell> cells(VolumeByPrice volume, long together) {
        List<Cell> cells = new java.util.ArrayList<>();
        for (VolumeByPrice.Row row : volume.rows()) {
            long low = Math.floorDiv(row.price(), together) * together;
            if (cells.isEmpty() || cells.getLast().low != low) {
                cells.add(new Cell(low));
            }
            Cell cell = cells.getLast();
            cell.bought += row.bought();
            cell.sold += row.sold();
            cell.all += row.volume();
        }
        return cells;
    }

    private static void bar(Pen pen, ChartSpace s, int bar, long together, long most, boolean figures) {
        double left = Math.round(s.viewport().x(bar) + 3);
        double right = Math.round(s.viewport().x(bar + 1) - 3);
        stick(pen, s, bar, left);
        double from = left + STICK + 2;
        double middle = Math.round((from + right) / 2);
        Optional<VolumeByPrice.Row> point = s.bars().volumeByPrice(bar).most();
        double bottom = 0;
        for (Cell cell : cells(s.bars().volumeByPrice(bar), together)) {
            double top = Math.round(s.scale().y(cell.low + together - 0.5));
            double foot = Math.round(s.scale().y(cell.low - 0.5));
            double high = Math.max(1, foot - top - 1);
            pen.fill(shade(cell.sold, most), from, top, middle - from, high);
            pen.fill(shade(cell.bought, most), middle + 1, top, right - middle - 1, high);
            bottom = Math.max(bottom, foot);
            if (point.isPresent() && point.get().price() >= cell.low && point.get().price() < cell.low + together) {
                pen.frame(Palette.INK, from - 1, top - 1, right - from + 2, high + 2);
            }
            if (figures && high >= 10) {
                double base = top + high / 2 + 3.5;
                pen.rightAligned(Long.toString(cell.sold), Fonts.figures(9.5), Palette.INK, middle - 4, base);
                pen.text(Long.toString(cell.bought), Fonts.figures(9.5), Palette.INK, middle + 5, base);
            }
        }
        if (s.bars().volume(bar) > 0) {
            String delta = Format.signed(s.bars().delta(bar));
            double unknown = s.bars().unknown(bar);
            under(pen, s, bar, List.of("Δ " + delta, delta), Fonts.figures(10), Palette.INK, bottom + 13);
            if (unknown > 0.05) {
                String share = Math.round(100 * unknown) + " %";
                under(pen, s, bar, List.of(share + " unknown", share + " ?"), Fonts.words(9), Palette.WARN_TEXT,
                        bottom + 25);
            }
        }
    }

    /** The first of these texts that is no wider than the bar; else none, so that neighbours never run together. */
    private static void under(Pen pen, ChartSpace s, int bar, List<String> texts, Font font, Color ink, double base) {
        double left = s.viewport().x(bar);
        double right = s.viewport().x(bar + 1);
        texts.stream().filter(text -> pen.width(text, font) <= right - left).findFirst()
                .ifPresent(text -> pen.centred(text, font, ink, (left + right) / 2, base));
    }

    private static void stick(Pen pen, ChartSpace s, int bar, double left) {
        double open = Math.round(s.scale().y(s.bars().open(bar)));
        double close = Math.round(s.scale().y(s.bars().close(bar)));
        double high = Math.round(s.scale().y(s.bars().high(bar)));
        double low = Math.round(s.scale().y(s.bars().low(bar)));
        pen.fill(Palette.SLATE, left + 2, high, 1, Math.max(1, low - high));
        double top = Math.min(open, close);
        double height = Math.max(2, Math.abs(open - close));
        pen.fill(Palette.SLATE, left, top, STICK, height);
        if (s.bars().close(bar) >= s.bars().open(bar) && height > 2) {
            pen.fill(Palette.CHART, left + 1, top + 1, STICK - 2, height - 2);
        }
    }

    private static double density(long volume, long most) {
        return volume == 0 ? 0 : 0.06 + (DARKEST - 0.06) * Math.sqrt((double) volume / most);
    }

    private static Color shade(long volume, long most) {
        return Palette.CHART.interpolate(Palette.INK, density(volume, most));
    }
}
