package stativex.desk.run;

import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.control.Tooltip;
import stativex.account.Headroom;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.files.ResultWords;
import stativex.desk.draw.Sketch;

/** What is left before each line: money, ticks, stop-outs, and a bar that shrinks. */
final class HeadroomView extends Sketch {
    private static final double ROW = 44;
    /** Where there are many lines, each without the words below its bar. */
    private static final double LOW_ROW = 29;
    private static final int MANY = 4;
    private static final double HEAD = 20;

    private List<Headroom> lines = List.of();
    private long dayStart;
    private final Tooltip help = new Tooltip();

    HeadroomView() {
        Tooltip.install(this, help);
    }

    /** @param start equity at the trading day's first instant: day lines are said against it */
    void show(List<Headroom> shown, long start) {
        if (!shown.equals(lines) || start != dayStart) {
            lines = shown;
            dayStart = start;
            double height = HEAD + row() * lines.size();
            setMinHeight(height);
            setPrefHeight(height);
            setAccessibleText("Headroom: " + lines.stream().map(HeadroomView::words).collect(Collectors.joining("; ")));
            help.setText(lines.stream().map(h -> words(h) + ", " + line(h)).collect(Collectors.joining("\n")));
            repaint();
        }
    }

    private double row() {
        return lines.size() < MANY ? ROW : LOW_ROW;
    }

    private static String words(Headroom h) {
        return ResultWords.of(h.line().kind()) + " " + Format.money(h.money()) + ", " + Format.ticks(h.ticks())
                + h.tenthsOfStopOuts().map(t -> ", " + Format.tenths(t) + " stop-outs").orElse("");
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        double ticks = width - 66;
        pen.rightAligned("money", Fonts.words(10.5), Palette.MUTED, ticks - 62, 12);
        pen.rightAligned("ticks", Fonts.words(10.5), Palette.MUTED, ticks, 12);
        pen.rightAligned("stop-outs", Fonts.words(10.5), Palette.MUTED, width, 12);
        for (int i = 0; i < lines.size(); i++) {
            Headroom h = lines.get(i);
            double y = HEAD + i * row();
            boolean reached = h.line().below() && h.money() <= 0;
            var ink = reached ? Palette.TRIP : h.near() ? Palette.WARN_TEXT : Palette.INK;
            if (reached) {
                pen.fill(Palette.TRIP, 0, y + 4, 10, 10);
            } else if (h.near()) {
                pen.polygon(Palette.WARN, Palette.WARN, new double[]{0, 5, 10}, new double[]{y + 13, y + 4, y + 13});
            }
            pen.text(ResultWords.brief(h.line().kind()), Fonts.words(12), ink, h.near() ? 15 : 0, y + 13);
            pen.rightAligned(Format.money(h.money()), Fonts.figures(11.5), ink, ticks - 62, y + 13);
            pen.rightAligned(Format.grouped(Long.toString(h.ticks())) + " t", Fonts.figures(11.5), ink, ticks, y + 13);
            pen.rightAligned(h.line().below() ? h.tenthsOfStopOuts().map(Format::tenths).orElse("no stop") : "",
                    Fonts.figures(11.5), ink, width, y + 13);
            double part = Math.clamp((double) h.money() / h.line().allowance(), 0, 1);
            pen.fill(Palette.SOFT, 0, y + 19, width, 7);
            pen.fill(h.near() ? Palette.WARN : Palette.SLATE, 0, y + 19, Math.round(width * part), 7);
            if (lines.size() < MANY) {
                pen.text(line(h), Fonts.figures(10), Palette.MUTED, 0, y + 38);
            }
        }
    }

    /** A day's line as a result, the floor as equity. */
    private String line(Headroom h) {
        if (h.line().kind().ofAPart()) {
            return "line at result " + Format.signedMoney(h.line().below()
                    ? -h.line().allowance()
                    : h.line().allowance());
        }
        return h.line().kind().ofTheDay()
                ? "line at day result " + Format.signedMoney(h.line().money() - dayStart)
                : "line at equity " + Format.money(h.line().money());
    }
}
