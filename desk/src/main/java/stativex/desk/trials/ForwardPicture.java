package stativex.desk.trials;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.text.Font;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.evidence.ForwardGate;

/** The sum of the trades day by day, the days of judgement, and what the trial says so many trades may sum to. */
final class ForwardPicture extends Sketch {
    private static final Font FIGURES = Fonts.figures(10);
    private static final double RIGHT = 64;

    private final ForwardPart.Found found;
    private final List<Long> sums = new ArrayList<>(List.of(0L));
    private final int days;

    ForwardPicture(ForwardPart.Found found) {
        this.found = found;
        found.forward().forEach(day -> sums.add(sums.getLast() + day.nets().stream().mapToLong(n -> n).sum()));
        this.days = ForwardGate.DAYS.stream().filter(day -> day >= found.forward().size()).findFirst()
                .orElse(ForwardGate.DAYS.getLast());
        setAccessibleText(found.forward().size() + " days forward sum to " + Format.signedMoney(sums.getLast()));
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        long low = Math.min(0, sums.stream().mapToLong(v -> v).min().orElse(0));
        long high = Math.max(1, sums.stream().mapToLong(v -> v).max().orElse(1));
        for (ForwardGate.Band band : found.bands()) {
            low = Math.min(low, band.fail());
            high = Math.max(high, band.pass());
        }
        double bottom = height - 18;
        double scale = (bottom - 8) / (high - low);
        long least = low;
        for (int day : ForwardGate.DAYS) {
            if (day <= days) {
                double x = x(day, width);
                pen.fill(Palette.RULE, x, 0, 1, bottom);
                pen.centred("day " + day, FIGURES, Palette.MUTED, Math.min(x, width - RIGHT), height - 5);
            }
        }
        pen.fill(Palette.RULE, 4, Math.round(bottom - (0 - least) * scale), width - RIGHT - 4, 1);
        // below the lower end it fails, from the upper one on it may pass: of as many trades as there are by then
        int at = found.forward().size();
        for (ForwardGate.Band band : found.bands()) {
            double x = x(at, width);
            double fail = bottom - (band.fail() - least) * scale;
            double pass = bottom - (band.pass() - least) * scale;
            pen.fill(Palette.SOFT, x - 3, pass, 7, Math.max(1, fail - pass));
            pen.text("fails below", FIGURES, Palette.MUTED, x + 8, Math.clamp(fail + 3, 10, bottom));
        }
        double[] xs = new double[sums.size()];
        double[] ys = new double[sums.size()];
        for (int i = 0; i < xs.length; i++) {
            xs[i] = x(i, width);
            ys[i] = bottom - (sums.get(i) - least) * scale;
        }
        pen.path(Palette.INK, 1.3, xs, ys, xs.length);
        pen.disc(Palette.INK, Palette.INK, xs[xs.length - 1], ys[ys.length - 1], 2.5);
    }

    private double x(int day, double width) {
        return Math.round(4 + (width - RIGHT - 4) * day / days);
    }
}
