package stativex.desk.chart;

import java.util.ArrayList;
import java.util.List;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;

/**
 * Panels under the price: volume, delta, and one for each study that is no price. They leave the price half of the chart:
 * where that is not enough they become lower, and the last ones are left out, which the last that is there says.
 */
final class Panels {
    static final double VOLUME = 52;
    private static final double DELTA = 58;
    private static final double GAP = 8;

    private final boolean delta;
    private final List<StudyPanelArt> studies;
    private final List<Double> heights = new ArrayList<>();
    private int leftOut;

    private Panels(boolean delta, List<StudyPanelArt> studies) {
        this.delta = delta;
        this.studies = studies;
    }

    /** The panels of a chart whose price and panels together have a height. */
    static Panels fitting(ChartModel model, ChartOptions options, double height) {
        Panels panels = new Panels(options.delta(),
                options.studyPanels() ? StudyPanelArt.of(model.studies()) : List.of());
        panels.fit(height / 2 - VOLUME - GAP - (options.delta() ? DELTA : 0));
        return panels;
    }

    private void fit(double room) {
        double free = room;
        double more = 0;
        List<StudyPanelArt> there = new ArrayList<>();
        for (StudyPanelArt study : studies) {
            if (study.least() > free) {
                break;
            }
            there.add(study);
            free -= study.least();
            more += study.height() - study.least();
        }
        double share = Math.min(1, free / Math.max(1, more));
        there.forEach(study -> heights
                .add(Math.floor(study.least() + (study.height() - study.least()) * share)));
        leftOut = studies.size() - heights.size();
    }

    /** Height of all of them. */
    double height() {
        return GAP + VOLUME + (delta ? DELTA : 0) + heights.stream().mapToDouble(h -> h).sum();
    }

    void draw(Pen pen, ChartSpace s) {
        double at = s.priceHeight() + GAP;
        volume(pen, s, at);
        at += VOLUME;
        if (delta) {
            delta(pen, s, at);
            at += DELTA;
        }
        for (int i = 0; i < heights.size(); i++) {
            studies.get(i).draw(pen, s, at, heights.get(i));
            at += heights.get(i);
            pen.fill(Palette.RULE, 0, at, s.plot(), 1);
        }
        if (leftOut > 0) {
            pen.rightAligned(leftOut + (leftOut == 1 ? " study has" : " studies have") + " no room here",
                    Fonts.words(10), Palette.WARN_TEXT, s.plot() - 6, at - 4);
        }
    }

    /** A panel's name and figure in the gutter. */
    static void title(Pen pen, ChartSpace s, String name, String figure, double y) {
        double right = s.width() - 8;
        pen.rightAligned(figure, Fonts.words(10), Palette.MUTED, right, y);
        pen.text(Gutter.fit(pen, name, Fonts.words(10), right - pen.width(figure, Fonts.words(10)) - s.plot() - 26),
                Fonts.words(10), Palette.MUTED, s.plot() + 20, y);
    }

    private static void volume(Pen pen, ChartSpace s, double top) {
        long most = Math.max(1, s.bars().mostVolume(s.first(), s.last() + 1));
        double body = s.body();
        pen.clip(0, top, s.plot(), VOLUME);
        if (s.viewport().barWidth() < 1) {
            int from = s.first();
            for (int x = 0; x < s.plot() && from <= s.last(); x++) {
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
        title(pen, s, "volume", "most " + Format.grouped(Long.toString(most)), top + VOLUME - 6);
    }

    /** Buyers solid above the line, sellers hollow below it. */
    private static void delta(Pen pen, ChartSpace s, double top) {
        long most = 1;
        for (int bar = s.first(); bar <= s.last(); bar += s.step()) {
            most = Math.max(most, Math.abs(s.bars().delta(bar)));
        }
        double middle = Math.round(top + DELTA / 2 + 4);
        double reach = DELTA / 2 - 9;
        double body = s.body();
        pen.clip(0, top, s.plot(), DELTA);
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
        pen.fill(Palette.RULE, 0, middle, s.plot(), 1);
        pen.unclip();
        pen.fill(Palette.RULE, 0, top + DELTA, s.plot(), 1);
        title(pen, s, "delta", "most " + Format.grouped(Long.toString(most)), top + 12);
    }
}
