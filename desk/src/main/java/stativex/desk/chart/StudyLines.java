package stativex.desk.chart;

import stativex.desk.draw.Pen;
import java.util.ArrayList;
import java.util.List;
import stativex.desk.look.Fonts;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.study.Unit;

/** Studies that are prices, as ink: six patterns of dash and weight, and the study's name at the line's end. */
final class StudyLines {
    private static final double[][] DASHES = {{}, {7, 3}, {2, 3}, {7, 3, 2, 3}, {12, 4}, {4, 4}};
    private static final double[] WEIGHTS = {1.6, 1.1, 1.1, 1.1, 1.6, 1.6};

    private StudyLines() {}

    static void draw(Pen pen, ChartSpace s) {
        int style = 0;
        List<Double> taken = new ArrayList<>();
        s.bars().nextCloses().ifPresent(next -> {
            taken.add(s.scale().y(next[0]) - 6);
            taken.add(s.scale().y(next[1]) + 8);
        });
        for (Snapshot.StudyView study : s.model().studies()) {
            if (study.unit() == Unit.LEVEL) {
                study(pen, s, study, style++ % DASHES.length, taken);
            }
        }
    }

    /** A value far off the scale is clipped, never stretches it: an arrow at the name says where it is. */
    private static void study(Pen pen, ChartSpace s, Snapshot.StudyView study, int style, List<Double> taken) {
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
                line(pen, xs, ys, count, style);
                count = 0;
            }
            if (!Double.isNaN(value)) {
                xs[count] = s.viewport().centre(bar);
                ys[count++] = Math.clamp(s.scale().y(value), -10_000.0, 10_000.0);
            }
        }
        if (count == 0) {
            return;
        }
        line(pen, xs, ys, count, style);
        double end = ys[count - 1];
        String arrow = end < 0 ? " ↑" : end > s.priceHeight() ? " ↓" : "";
        double y = Math.clamp(end, 10, s.priceHeight() - 4);
        while (isTaken(taken, y)) {
            y += end > s.priceHeight() / 2 ? -13 : 13;
        }
        taken.add(y);
        double beside = s.viewport().x(last + 1) + s.viewport().barWidth() + 6;
        String name = study.name() + arrow;
        double x = Math.min(beside, s.plot() - pen.width(name, Fonts.words(10.5)) - 4);
        if (x < beside - 20) {
            // no room right of the bars: the name stands on paper
            pen.fill(Palette.CHART, x - 3, y - 7, s.plot() - x + 3, 13);
        }
        pen.text(name, Fonts.words(10.5), Palette.MUTED, x, y + 4);
    }

    private static void line(Pen pen, double[] xs, double[] ys, int count, int style) {
        if (count > 1) {
            pen.path(Palette.MUTED, WEIGHTS[style], xs, ys, count, DASHES[style]);
        }
    }

    private static boolean isTaken(List<Double> taken, double y) {
        return taken.stream().anyMatch(t -> Math.abs(t - y) < 12);
    }
}
