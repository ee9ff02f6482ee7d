package stativex.desk.chart;

import stativex.desk.draw.Pen;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import stativex.desk.look.Fonts;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.study.Unit;

/**
 * Studies that are prices, as ink: six patterns of dash and weight, and the study's name at the line's end. Where the chart
 * keeps its left free for names they stand there, at the end where the line comes in, else beside the newest bar.
 */
final class StudyLines {
    static final double[][] DASHES = {{}, {7, 3}, {2, 3}, {7, 3, 2, 3}, {12, 4}, {4, 4}};
    private static final Font NAME = Fonts.words(10.5);
    private static final double[] WEIGHTS = {1.6, 1.1, 1.1, 1.1, 1.6, 1.6};

    private StudyLines() {}

    private static List<Snapshot.StudyView> drawn(ChartSpace s) {
        return s.model().studies().stream().filter(study -> study.unit() == Unit.LEVEL).toList();
    }

    static void draw(Pen pen, ChartSpace s) {
        int style = 0;
        for (Snapshot.StudyView study : drawn(s)) {
            line(pen, s, study, style++ % DASHES.length);
        }
    }

    static void names(Pen pen, ChartSpace s) {
        List<Double> taken = new ArrayList<>();
        boolean left = s.left() > 0;
        if (!left) {
            s.bars().nextCloses().ifPresent(next -> {
                taken.add(s.scale().y(next[0]) - 6);
                taken.add(s.scale().y(next[1]) + 8);
            });
        }
        List<Name> names = new ArrayList<>();
        for (Snapshot.StudyView study : drawn(s)) {
            int last = Math.min(s.last(), study.values().count() - 1);
            int end = left ? end(study, s.first(), last, 1) : end(study, last, s.first(), -1);
            if (end >= 0) {
                names.add(new Name(study.name(), Palette.ink(study.ink(), Palette.MUTED), end,
                        s.scale().y(study.values().get(end))));
            }
        }
        // from the edges to the middle, so that a stack of names keeps the order of its lines
        names.sort(Comparator.comparingDouble(n -> Math.min(n.y(), s.priceHeight() - n.y())));
        for (Name name : names) {
            String text = name.text() + (name.y() < 0 ? " ↑" : name.y() > s.priceHeight() ? " ↓" : "");
            double y = free(taken, Math.clamp(name.y(), 10, s.priceHeight() - 4), s.priceHeight());
            if (left) {
                double x = Math.max(s.left(), s.viewport().centre(name.bar())) - 6;
                pen.rightAligned(text, NAME, name.ink(), x, y + 4);
            } else {
                beside(pen, s, text, name.ink(), s.viewport().x(name.bar() + 1), y);
            }
        }
    }

    /** A study's name at the bar where its line ends. */
    private record Name(String text, Color ink, int bar, double y) {}

    /** The first bar from {@code from} on towards {@code to} that has a value; −1: none. */
    private static int end(Snapshot.StudyView study, int from, int to, int step) {
        for (int bar = from; step > 0 ? bar <= to : bar >= to; bar += step) {
            if (bar >= 0 && !Double.isNaN(study.values().get(bar))) {
                return bar;
            }
        }
        return -1;
    }

    private static double free(List<Double> taken, double wanted, double height) {
        double y = wanted;
        double step = wanted > height / 2 ? -13 : 13;
        while (isTaken(taken, y)) {
            y += step;
        }
        taken.add(y);
        return y;
    }

    private static void beside(Pen pen, ChartSpace s, String name, Color ink, double newest, double y) {
        double beside = newest + s.viewport().barWidth() + 6;
        double x = Math.min(beside, s.plot() - pen.width(name, NAME) - 4);
        if (x < beside - 20) {
            // no room right of the bars: the name stands on paper
            pen.fill(Palette.CHART, x - 3, y - 7, s.plot() - x + 3, 13);
        }
        pen.text(name, NAME, ink, x, y + 4);
    }

    /** A value far off the scale is clipped, never stretches it: an arrow at the name says where it is. */
    private static void line(Pen pen, ChartSpace s, Snapshot.StudyView study, int style) {
        Color ink = Palette.ink(study.ink(), Palette.MUTED);
        int step = s.step();
        int from = Math.max(0, s.first() - step);
        int last = Math.min(s.last(), study.values().count() - 1);
        double[] xs = new double[Math.max(1, (last - from) / step + 1)];
        double[] ys = new double[xs.length];
        int count = 0;
        for (int bar = from; bar <= last; bar += step) {
            double value = study.values().get(bar);
            boolean anew = study.anchored() && count > 0 && (step == 1
                    ? s.bars().before(bar) == ChartBars.Break.SESSION
                    : !s.bars().tradingDate(bar).equals(s.bars().tradingDate(bar - step)));
            if (anew || Double.isNaN(value)) {
                line(pen, ink, xs, ys, count, style);
                count = 0;
            }
            if (!Double.isNaN(value)) {
                xs[count] = s.viewport().centre(bar);
                ys[count++] = Math.clamp(s.scale().y(value), -10_000.0, 10_000.0);
            }
        }
        line(pen, ink, xs, ys, count, style);
    }

    private static void line(Pen pen, Color ink, double[] xs, double[] ys, int count, int style) {
        if (count > 1) {
            pen.path(ink, WEIGHTS[style], xs, ys, count, DASHES[style]);
        }
    }

    private static boolean isTaken(List<Double> taken, double y) {
        return taken.stream().anyMatch(t -> Math.abs(t - y) < 12);
    }
}
