package stativex.desk.chart;

import java.util.ArrayList;
import java.util.List;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.study.Unit;

/** Panels under the price: volume, delta, and one for each study that is no price. */
final class Panels {
    static final double VOLUME = 52;
    private static final double OTHER = 58;

    private Panels() {}

    /** Height of all panels. */
    static double height(ChartModel model, ChartOptions options) {
        return VOLUME + (options.delta() ? OTHER : 0) + OTHER * studies(model, options).size();
    }

    private static List<Snapshot.StudyView> studies(ChartModel model, ChartOptions options) {
        return options.studyPanels()
                ? model.studies().stream().filter(study -> study.unit() != Unit.LEVEL).toList()
                : List.of();
    }

    static void draw(Pen pen, ChartSpace s, double top) {
        double at = top;
        volume(pen, s, at);
        at += VOLUME;
        if (s.options().delta()) {
            delta(pen, s, at);
            at += OTHER;
        }
        for (Snapshot.StudyView study : studies(s.model(), s.options())) {
            study(pen, s, study, at);
            at += OTHER;
        }
    }

    private static void volume(Pen pen, ChartSpace s, double top) {
        long most = Math.max(1, s.bars().mostVolume(s.first(), s.last() + 1));
        double body = s.body();
        pen.clip(s.left(), top, s.plot() - s.left(), VOLUME);
        if (s.viewport().barWidth() < 1) {
            int from = s.first();
            for (int x = (int) s.left(); x < s.plot() && from <= s.last(); x++) {
                int to = Math.min(s.last() + 1, s.viewport().barAt(x + 1));
                if (to > from) {
                    double h = Math.max(1, Math.round((VOLUME - 12) * s.bars().mostVolume(from, to) / most));
                    pen.fill(Palette.SOFT, x, top + VOLUME - h, 1, h);
                    from = to;
                }
            }
        } else {
            for (int bar = s.first(); bar <= s.last(); bar++) {
                double h = Math.max(1, Math.round((VOLUME - 12) * s.bars().volume(bar) / most));
                pen.fill(Palette.SOFT, Math.round(s.viewport().centre(bar) - body / 2), top + VOLUME - h, body, h);
            }
        }
        pen.unclip();
        pen.fill(Palette.RULE, 0, top + VOLUME, s.plot(), 1);
        pen.text("volume, most " + Format.grouped(Long.toString(most)), Fonts.words(10), Palette.MUTED, 8, top + 8);
    }

    /** Buyers solid above the line, sellers hollow below it. */
    private static void delta(Pen pen, ChartSpace s, double top) {
        long most = 1;
        for (int bar = s.first(); bar <= s.last(); bar += s.step()) {
            most = Math.max(most, Math.abs(s.bars().delta(bar)));
        }
        double middle = Math.round(top + OTHER / 2 + 4);
        double reach = OTHER / 2 - 9;
        double body = s.body();
        pen.clip(s.left(), top, s.plot() - s.left(), OTHER);
        for (int bar = s.first(); bar <= s.last(); bar += s.step()) {
            long delta = s.bars().delta(bar);
            double h = Math.round(reach * Math.abs(delta) / most);
            double x = Math.round(s.viewport().centre(bar) - body / 2);
            if (delta > 0) {
                pen.fill(Palette.SLATE, x, middle - h, body, h);
            } else if (delta < 0 && body < 3) {
                pen.fill(Palette.LANE, x, middle + 1, body, h);
            } else if (delta < 0) {
                pen.frame(Palette.SLATE, x, middle + 1, body, Math.max(2, h));
            }
        }
        pen.fill(Palette.RULE, s.left(), middle, s.plot() - s.left(), 1);
        pen.unclip();
        foot(pen, s, top, "delta, most " + Format.grouped(Long.toString(most)));
    }

    private static void study(Pen pen, ChartSpace s, Snapshot.StudyView study, double top) {
        int last = Math.min(s.last(), study.values().count() - 1);
        double lowest = Double.POSITIVE_INFINITY;
        double highest = Double.NEGATIVE_INFINITY;
        for (int bar = s.first(); bar <= last; bar += s.step()) {
            double value = study.values().get(bar);
            if (!Double.isNaN(value)) {
                lowest = Math.min(lowest, value);
                highest = Math.max(highest, value);
            }
        }
        if (lowest <= highest) {
            double span = Math.max(1e-9, highest - lowest);
            List<double[]> points = new ArrayList<>();
            for (int bar = s.first(); bar <= last; bar += s.step()) {
                double value = study.values().get(bar);
                if (!Double.isNaN(value)) {
                    points.add(new double[]{s.viewport().centre(bar),
                            top + OTHER - 6 - (value - lowest) / span * (OTHER - 22)});
                }
            }
            pen.clip(s.left(), top, s.plot() - s.left(), OTHER);
            pen.path(Palette.ink(study.ink(), Palette.SLATE), 1.2, points.stream().mapToDouble(p -> p[0]).toArray(),
                    points.stream().mapToDouble(p -> p[1]).toArray(), points.size());
            pen.unclip();
            int places = study.unit() == Unit.DISTANCE ? 1 : 2;
            String unit = study.unit() == Unit.DISTANCE ? " t" : "";
            pen.rightAligned(Format.decimal(highest, places) + unit, Fonts.figures(9.5), Palette.MUTED, s.width() - 8,
                    top + 18);
            pen.rightAligned(Format.decimal(lowest, places) + unit, Fonts.figures(9.5), Palette.MUTED, s.width() - 8,
                    top + OTHER - 4);
        }
        foot(pen, s, top, study.name());
    }

    private static void foot(Pen pen, ChartSpace s, double top, String name) {
        pen.fill(Palette.RULE, 0, top + OTHER, s.plot(), 1);
        pen.text(name, Fonts.words(10), Palette.MUTED, 8, top + 12);
    }
}
