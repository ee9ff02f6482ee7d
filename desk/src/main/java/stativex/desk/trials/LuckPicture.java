package stativex.desk.trials;

import java.util.OptionalDouble;
import javafx.scene.text.Font;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.evidence.BestOfMany;
import stativex.evidence.DayStatistics;

/** Where the best of so many worthless rules would fall, and where the chosen variant and the lone peak stand. Sharpe ratios of a year. */
final class LuckPicture extends Sketch {
    private static final Font WORDS = Fonts.words(11);
    private static final Font FIGURES = Fonts.figures(10);
    private static final double YEAR = Math.sqrt(DayStatistics.YEAR);
    private static final double EDGE = 8;

    private final double atRandom;
    private final long attempts;
    private final OptionalDouble chosen;
    private final OptionalDouble peak;

    /** @param atRandom of a day, above 0; {@code chosen} and {@code peak} of a day, where they have one */
    LuckPicture(double atRandom, long attempts, OptionalDouble chosen, OptionalDouble peak) {
        this.atRandom = atRandom;
        this.attempts = attempts;
        this.chosen = chosen;
        this.peak = peak;
        setAccessibleText("The best of " + attempts + " worthless rules falls about "
                + Format.decimal(atRandom * YEAR, 2) + " a year" + words(", chosen ", chosen)
                + words(", peak ", peak));
    }

    private static String words(String name, OptionalDouble ratio) {
        return ratio.isPresent() ? name + Format.decimal(ratio.getAsDouble() * YEAR, 2) : "";
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        double low = Math.min(-0.2 * atRandom, Math.min(chosen.orElse(0), peak.orElse(0)));
        double high = Math.max(2.4 * atRandom, Math.max(chosen.orElse(0), peak.orElse(0)) * 1.1);
        double scale = (width - 2 * EDGE) / (high - low);
        double bottom = height - 18;
        double top = 34;
        int points = (int) Math.max(2, width - 2 * EDGE);
        double[] xs = new double[points + 2];
        double[] ys = new double[points + 2];
        double most = 0;
        for (int i = 0; i < points; i++) {
            xs[i] = EDGE + i;
            ys[i] = BestOfMany.density(atRandom, attempts, low + i / scale);
            most = Math.max(most, ys[i]);
        }
        for (int i = 0; i < points; i++) {
            ys[i] = bottom - (bottom - top) * ys[i] / most;
        }
        xs[points] = xs[points - 1];
        xs[points + 1] = EDGE;
        ys[points] = bottom;
        ys[points + 1] = bottom;
        pen.polygon(Palette.SOFT, Palette.SOFT, xs, ys);
        pen.fill(Palette.RULE, EDGE, bottom, width - 2 * EDGE, 1);
        double mean = EDGE + (atRandom - low) * scale;
        pen.line(Palette.MUTED, 1, mean, top - 4, mean, bottom, 3, 3);
        double zero = EDGE - low * scale;
        pen.centred("0", FIGURES, Palette.MUTED, zero, height - 5);
        pen.centred(Format.decimal(atRandom * YEAR, 2), FIGURES, Palette.MUTED, Math.max(zero + 24, mean), height - 5);
        boolean same = chosen.isPresent() && peak.isPresent() && chosen.getAsDouble() == peak.getAsDouble();
        if (!same) {
            peak.ifPresent(at -> mark(pen, EDGE + (at - low) * scale, bottom, 11, false, "peak", width));
        }
        chosen.ifPresent(at -> mark(pen, EDGE + (at - low) * scale, bottom, 25, true,
                same ? "chosen, the peak" : "chosen", width));
    }

    private static void mark(Pen pen, double x, double bottom, double row, boolean filled, String word, double width) {
        pen.line(Palette.INK, 1, x, row, x, bottom);
        pen.disc(filled ? Palette.INK : Palette.CHART, Palette.INK, x, row, 4);
        double wide = pen.width(word, WORDS);
        pen.text(word, filled ? Fonts.bold(11) : WORDS, Palette.INK, x + 8 + wide > width - 4 ? x - 10 - wide : x + 8,
                row + 4);
    }
}
