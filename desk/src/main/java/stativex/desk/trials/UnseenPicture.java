package stativex.desk.trials;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.text.Font;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.files.SearchUnseen;
import stativex.search.Ranking;
import stativex.search.Tried;

/**
 * Net per trade on the fit range on the left, on the unseen one on the right: a line for each variant whose seal was opened, the chosen
 * one in ink. The best ones that were not opened are dots on the left alone.
 */
final class UnseenPicture extends Sketch {
    private static final Font WORDS = Fonts.words(11);
    private static final Font FIGURES = Fonts.figures(11);
    /** So many of the best have a dot. */
    private static final int DOTS = 20;

    private final List<Double> dots = new ArrayList<>();
    private final List<Line> lines = new ArrayList<>();

    /** Net per trade of a variant on both ranges, in money; none where it has no trade there: 0. */
    private record Line(double fitted, double unseen, boolean chosen) {}

    UnseenPicture(List<Ranking.Ranked> ranked, SearchUnseen unseen, Ranking.Ranked chosen) {
        ranked.stream().limit(DOTS).forEach(one -> dots.add(each(one.entry().tried())));
        for (Ranking.Ranked one : ranked) {
            unseen.of(one).ifPresent(tried -> lines.add(new Line(each(one.entry().tried()), each(tried),
                    one == chosen)));
        }
        StringBuilder words = new StringBuilder("Net per trade, fitted against unseen:");
        lines.forEach(line -> words.append(line.chosen ? " chosen " : " ").append(text(line.fitted)).append(" to ")
                .append(text(line.unseen)).append(';'));
        setAccessibleText(words.toString());
    }

    private static double each(Tried tried) {
        return tried.trades() == 0 ? 0 : tried.net() / 10_000.0 / tried.trades();
    }

    private static String text(double money) {
        return (money > 0 ? "+" : "") + Format.decimal(money, 2);
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        double low = 0;
        double high = 0;
        for (Line line : lines) {
            low = Math.min(low, Math.min(line.fitted, line.unseen));
            high = Math.max(high, Math.max(line.fitted, line.unseen));
        }
        for (double dot : dots) {
            low = Math.min(low, dot);
            high = Math.max(high, dot);
        }
        double left = 82;
        double right = width - 82;
        double top = 26;
        double bottom = height - 10;
        double base = low;
        double scale = (bottom - top) / Math.max(0.01, high - low);
        pen.centred("fitted", WORDS, Palette.MUTED, left, 14);
        pen.centred("unseen", WORDS, Palette.MUTED, right, 14);
        pen.fill(Palette.RULE, left, top, 1, bottom - top);
        pen.fill(Palette.RULE, right, top, 1, bottom - top);
        double zero = bottom - (0 - base) * scale;
        pen.line(Palette.RULE, 1, left, zero, right, zero, 2, 3);
        pen.rightAligned("0", FIGURES, Palette.MUTED, left - 8, zero + 4);
        for (double dot : dots) {
            pen.disc(Palette.CHART, Palette.MUTED, left, bottom - (dot - base) * scale, 2);
        }
        for (boolean chosen : new boolean[]{false, true}) {
            for (Line line : lines) {
                if (line.chosen == chosen) {
                    draw(pen, line, left, right, bottom - (line.fitted - base) * scale,
                            bottom - (line.unseen - base) * scale);
                }
            }
        }
    }

    private static void draw(Pen pen, Line line, double left, double right, double from, double to) {
        pen.line(line.chosen ? Palette.INK : Palette.MUTED, line.chosen ? 2 : 1, left, from, right, to);
        if (line.chosen) {
            pen.disc(Palette.INK, Palette.INK, left, from, 4);
            pen.disc(Palette.INK, Palette.INK, right, to, 4);
            pen.rightAligned(text(line.fitted), Fonts.bold(11), Palette.INK, left - 10, from + 4);
            pen.text(text(line.unseen), Fonts.bold(11), Palette.INK, right + 10, to + 4);
        }
    }
}
