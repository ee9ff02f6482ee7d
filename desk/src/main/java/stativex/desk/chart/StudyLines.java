package stativex.desk.chart;

import java.util.Optional;
import stativex.desk.draw.Pen;
import java.util.List;
import javafx.scene.paint.Color;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.study.Unit;

/** Studies that are prices, as ink: six patterns of dash and weight; their names and values stand in the gutter. */
final class StudyLines {
    static final double[][] DASHES = {{}, {7, 3}, {2, 3}, {7, 3, 2, 3}, {12, 4}, {4, 4}};
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

    /** A row for each, with its value at a bar; without one at the last that has a value. */
    static void rows(ChartSpace s, Gutter gutter, Optional<Integer> cursor) {
        for (Snapshot.StudyView study : drawn(s)) {
            int last = Math.min(cursor.orElse(s.last()), study.values().count() - 1);
            while (cursor.isEmpty() && last >= s.first() && Double.isNaN(study.values().get(last))) {
                last--;
            }
            Color ink = Palette.ink(study.ink(), Palette.MUTED);
            double value = last >= 0 && last >= s.first() ? study.values().get(last) : Double.NaN;
            if (!Double.isNaN(value)) {
                double y = s.scale().y(value);
                boolean above = y < 0;
                boolean below = y > s.priceHeight();
                gutter.plain(study.name() + (above ? " ↑" : below ? " ↓" : ""),
                        Readout.value(s.bars().contract(), study.unit(), value), Math.clamp(y, 4, s.priceHeight() - 4),
                        ink);
            } else if (cursor.isPresent()) {
                gutter.plain(study.name(), "absent", s.priceHeight() - 4, ink);
            }
        }
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
}
