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

    static void draw(Pen pen, ChartModel m, Viewport viewport, PriceScale scale, int first, int last, double height) {
        int style = 0;
        List<Double> taken = new ArrayList<>();
        for (Snapshot.StudyView study : m.strategy().studies()) {
            if (study.unit() == Unit.LEVEL) {
                study(pen, m, viewport, study, scale, first, Math.min(last, m.closed() - 1), style++ % DASHES.length,
                        height,
                        taken);
            }
        }
    }

    private static void study(Pen pen, ChartModel m, Viewport viewport, Snapshot.StudyView study, PriceScale scale,
            int first, int last,
            int style,
            double height, List<Double> taken) {
        int from = Math.max(0, first - 1);
        double[] xs = new double[Math.max(1, last - from + 1)];
        double[] ys = new double[xs.length];
        int count = 0;
        for (int bar = from; bar <= last; bar++) {
            double value = study.values().get(bar);
            if (study.anchored() && m.begins(bar) && count > 0) {
                line(pen, xs, ys, count, style);
                count = 0;
            }
            if (!Double.isNaN(value)) {
                xs[count] = viewport.centre(bar);
                ys[count++] = scale.y(value);
            }
        }
        if (count == 0) {
            return;
        }
        line(pen, xs, ys, count, style);
        double end = ys[count - 1];
        String arrow = end < 0 ? " ↑" : end > height ? " ↓" : "";
        double y = Math.clamp(end, 10, height - 4);
        while (isTaken(taken, y)) {
            y += end > height / 2 ? -13 : 13;
        }
        taken.add(y);
        pen.text(study.name() + arrow, Fonts.words(10.5), Palette.MUTED, viewport.x(last + 1) + viewport.barWidth() + 6,
                y + 4);
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
