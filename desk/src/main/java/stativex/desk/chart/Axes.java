package stativex.desk.chart;

import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.market.TapeTime;

/** Grid, price axis, session breaks and gaps, time axes. */
final class Axes {
    static final double TIME = 20;
    private static final double LABEL = 54;

    private Axes() {}

    /** Height of the time axes. */
    static double height(ChartOptions options) {
        return options.own().isPresent() ? TIME + 14 : TIME;
    }

    static void prices(Pen pen, ChartSpace s, Gutter gutter) {
        pen.fill(Palette.PANEL, s.plot(), 0, s.width() - s.plot(), s.height());
        for (long level : s.scale().grid(44, s.options().ticks() ? s.bars().close(s.bars().count() - 1) : 0)) {
            double y = Math.round(s.scale().y(level));
            pen.fill(Palette.FAINT, 0, y, s.plot(), 1);
            // figures give way to tags
            if (gutter.isFree(y)) {
                pen.rightAligned(s.price(level), Fonts.figures(11), Palette.MUTED, s.width() - 8, y + 4);
            }
        }
        pen.fill(Palette.RULE, s.plot(), 0, 1, s.height());
    }

    /** A box with a price on the axis. */
    static void tag(Pen pen, ChartSpace s, String text, double y) {
        double top = Math.round(y) - 9;
        pen.fill(Palette.SLATE, s.plot() + 1, top, s.width() - s.plot() - 1, 18);
        pen.rightAligned(text, Fonts.figures(11), Palette.CHART, s.width() - 8, top + 13);
    }

    /** Dashed where a session begins, hatched where prints are missing inside one. */
    static void breaks(Pen pen, ChartSpace s) {
        double free = 0;
        for (int bar = Math.max(1, s.first()); bar <= s.last(); bar += s.step()) {
            ChartBars.Break before = before(s, bar);
            double x = Math.round(s.viewport().x(bar)) + 0.5;
            if (before == ChartBars.Break.SESSION && x > free) {
                pen.line(Palette.RULE, 1, x, 0, x, s.priceHeight(), 3, 3);
                free = x + 8;
            } else if (before == ChartBars.Break.GAP && x > 0) {
                double wide = Math.max(3, s.viewport().barWidth() * 0.34);
                pen.hatch(Palette.LANE, x - wide / 2, 0, wide, s.priceHeight());
                if (s.viewport().barWidth() > 4) {
                    pen.text("gap " + Format.duration(s.bars().start(bar) - s.bars().end(bar - 1)), Fonts.words(9.5),
                            Palette.MUTED, x + wide, s.priceHeight() - 4);
                }
            }
        }
    }

    private static ChartBars.Break before(ChartSpace s, int bar) {
        int step = s.step();
        if (step == 1) {
            return s.bars().before(bar);
        }
        return s.bars().tradingDate(bar).equals(s.bars().tradingDate(Math.max(0, bar - step)))
                ? ChartBars.Break.NONE
                : ChartBars.Break.SESSION;
    }

    static void times(Pen pen, ChartSpace s) {
        double top = s.height() - height(s.options());
        int count = s.last() - s.first() + 1;
        boolean days = count > 1 && s.bars().start(s.last()) - s.bars().start(s.first()) > 5 * 86_400 * TapeTime.SECOND;
        double free = 4;
        for (int bar = s.first(); bar <= s.last(); bar += s.step()) {
            boolean newDay = bar == 0
                    || !s.bars().tradingDate(bar).equals(s.bars().tradingDate(Math.max(0, bar - s.step())));
            double x = s.viewport().centre(bar);
            if (days && !newDay || x < free) {
                continue;
            }
            boolean begins = newDay || s.step() == 1 && s.bars().before(bar) == ChartBars.Break.SESSION;
            if (begins || x > free + LABEL) {
                String text = newDay && (days || s.viewport().barWidth() * count > 200)
                        ? Format.day(s.bars().tradingDate(bar))
                        : Format.minute(s.bars().start(bar), s.bars().zone());
                double w = pen.width(text, Fonts.figures(10.5));
                if (x - w / 2 > free && x + w / 2 < s.plot()) {
                    pen.fill(Palette.RULE, Math.round(x), top, 1, 4);
                    pen.centred(text, Fonts.figures(10.5), newDay ? Palette.INK : Palette.MUTED, x, top + 15);
                    if (s.options().own().isPresent()) {
                        pen.centred(Format.minute(s.bars().start(bar), s.options().own().get()), Fonts.figures(10),
                                Palette.MUTED, x, top + 29);
                    }
                    free = x + w / 2 + 6;
                }
            }
        }
        pen.text(Format.city(s.bars().zone()), Fonts.words(10), Palette.MUTED, s.plot() + 20, top + 15);
        s.options().own().ifPresent(
                zone -> pen.text(Format.city(zone), Fonts.words(10), Palette.MUTED, s.plot() + 20, top + 29));
    }

    /** The time under the crosshair. */
    static void time(Pen pen, ChartSpace s, int bar, double x) {
        double top = s.height() - height(s.options());
        String time = Format.clock(s.bars().start(bar), s.bars().zone());
        box(pen, s, time, x, top + 1, TIME - 3);
        s.options().own()
                .ifPresent(zone -> box(pen, s, Format.clock(s.bars().start(bar), zone), x, top + TIME - 1, 14));
    }

    private static void box(Pen pen, ChartSpace s, String text, double x, double top, double height) {
        double w = pen.width(text, Fonts.figures(10.5)) + 10;
        double left = Math.round(Math.clamp(x - w / 2, 0, Math.max(0, s.plot() - w)));
        pen.fill(Palette.SLATE, left, top, w, height);
        pen.text(text, Fonts.figures(10.5), Palette.CHART, left + 5, top + height - 4);
    }
}
