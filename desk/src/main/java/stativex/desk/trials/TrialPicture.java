package stativex.desk.trials;

import java.time.LocalDate;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.evidence.EquityCurve;
import stativex.market.Money;

/**
 * Equity of one trial or of several, and below how far each lies under its best so far. Days are as wide as each other. Lines are ink,
 * told apart by their dashes and their names at the end.
 */
final class TrialPicture extends Sketch {
    private static final Font FIGURES = Fonts.figures(11);
    private static final Font WORDS = Fonts.words(11);
    private static final double[][] DASHES = {{}, {7, 3}, {2, 3}, {10, 3, 2, 3}, {4, 4}, {1, 2}};
    private static final double GUTTER = 96;
    private static final double LEFT = 8;

    /** A line. @param name at its end */
    record Line(String name, List<EquityCurve.Day> days) {}

    /**
     * The range on the other side of a seal: the line goes on over it where it was opened, and it is hatched where it was not.
     *
     * @param dates of it
     */
    record Unseen(List<LocalDate> dates, Optional<List<EquityCurve.Day>> opened) {
        Unseen {
            dates = List.copyOf(dates);
        }
    }

    private List<Line> lines = List.of();
    private Optional<Unseen> unseen = Optional.empty();
    private String instead = "No trial yet: choose a strategy on the left and press Try it.";

    /** @param beyond the other side of the seal, of a single line */
    void show(List<Line> shown, Optional<Unseen> beyond) {
        unseen = beyond;
        lines = shown.stream().map(line -> new Line(line.name(), Stream.concat(line.days().stream(),
                beyond.flatMap(Unseen::opened).stream().flatMap(List::stream)).toList())).toList();
        instead = "";
        setAccessibleText("Equity " + String.join("; ", lines.stream().map(TrialPicture::words).toList())
                + beyond.map(range -> "; " + range.dates().size() + " days "
                        + (range.opened().isPresent() ? "unseen when it was fitted" : "sealed")).orElse(""));
        repaint();
    }

    void say(String words) {
        lines = List.of();
        unseen = Optional.empty();
        instead = words;
        setAccessibleText(words);
        repaint();
    }

    private static String words(Line line) {
        Path path = Path.of(line.days(), line.days().stream().map(EquityCurve.Day::date).toList());
        return line.name() + " ends at " + Format.signedMoney(path.last()) + ", deepest drawdown "
                + Format.money(-path.deepest());
    }

    /** Points of a line: x in days from the left, equity and how far it lies under its best. */
    private record Path(List<Double> xs, List<Long> equity, List<Long> under) {
        static Path of(List<EquityCurve.Day> days, List<LocalDate> axis) {
            List<Double> xs = new ArrayList<>(List.of(0.0));
            List<Long> equity = new ArrayList<>(List.of(0L));
            List<Long> under = new ArrayList<>(List.of(0L));
            long begun = 0;
            long best = 0;
            for (EquityCurve.Day day : days) {
                int at = axis.indexOf(day.date());
                long last = 0;
                if (!day.pieces().isEmpty()) {
                    long from = day.pieces().getFirst().time();
                    long span = Math.max(1, day.pieces().getLast().time() - from);
                    for (EquityCurve.Piece piece : day.pieces()) {
                        double x = at + 0.05 + 0.9 * (piece.time() - from) / span;
                        for (long value : new long[]{piece.high(), piece.low(), piece.last()}) {
                            best = Math.max(best, begun + value);
                            xs.add(x);
                            equity.add(begun + value);
                            under.add(begun + value - best);
                        }
                        last = piece.last();
                    }
                }
                begun += last;
                xs.add(at + 1.0);
                equity.add(begun);
                under.add(begun - best);
            }
            return new Path(xs, equity, under);
        }

        long last() {
            return equity.getLast();
        }

        long deepest() {
            return under.stream().mapToLong(v -> v).min().orElse(0);
        }
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        if (lines.isEmpty()) {
            pen.text(instead, Fonts.words(12), Palette.MUTED, 14, 30);
            return;
        }
        List<LocalDate> axis = Stream.concat(lines.stream().flatMap(line -> line.days().stream())
                .map(EquityCurve.Day::date),
                unseen.stream().filter(range -> range.opened().isEmpty())
                        .flatMap(range -> range.dates().stream()))
                .distinct().sorted().toList();
        List<Path> paths = lines.stream().map(line -> Path.of(line.days(), axis)).toList();
        double right = width - GUTTER;
        double wide = (right - LEFT) / Math.max(1, axis.size());
        double bottom = height - 22;
        double split = Math.round(bottom * 0.68);
        long low = paths.stream().flatMap(p -> p.equity().stream()).mapToLong(v -> v).min().orElse(0);
        long high = paths.stream().flatMap(p -> p.equity().stream()).mapToLong(v -> v).max().orElse(0);
        long deepest = paths.stream().mapToLong(Path::deepest).min().orElse(0);
        Scale equity = new Scale(low, Math.max(high, low + Money.UNIT), 24, split - 8);
        Scale under = new Scale(Math.min(deepest, -Money.UNIT), 0, split + 26, bottom - 6);
        unseen.ifPresent(range -> unseen(pen, range, axis, new double[]{wide, right, bottom}));
        dates(pen, axis, wide, bottom);
        List<Double> tags = new ArrayList<>();
        pen.fill(Palette.RULE, 0, split, width, 1);
        lines(pen, equity, right, 5);
        lines(pen, under, right, 2);
        pen.text(unseen.isPresent() ? "fitted on" : "equity, print by print", WORDS, Palette.MUTED, LEFT + 6, 16);
        pen.text("under its best so far", WORDS, Palette.MUTED, LEFT + 6, split + 18);
        for (int i = 0; i < paths.size(); i++) {
            Path path = paths.get(i);
            double[] xs = path.xs().stream().mapToDouble(x -> LEFT + x * wide).toArray();
            if (paths.size() == 1) {
                shade(pen, path, under, wide);
            }
            draw(pen, xs, path.under(), under, Palette.SLATE, 1, DASHES[i]);
            draw(pen, xs, path.equity(), equity, Palette.INK, 1.4, DASHES[i]);
            double at = equity.at(path.last()) + 4;
            while (taken(tags, at)) {
                at -= 13;
            }
            tags.add(at);
            String figure = Format.signedMoney(path.last());
            pen.text(paths.size() == 1 ? figure : lines.get(i).name() + " " + figure, Fonts.bold(11), Palette.INK,
                    right + 6, at);
        }
        grid(pen, equity, right, 5, tags);
        grid(pen, under, right, 2, List.of());
    }

    /** Where the fit range ends. @param at width of a day, right and lower end of the picture */
    private static void unseen(Pen pen, Unseen range, List<LocalDate> axis, double[] at) {
        int first = (int) axis.stream().filter(date -> date.isBefore(range.dates().getFirst())).count();
        double x = Math.round(LEFT + first * at[0]);
        double tall = at[2];
        if (range.opened().isPresent()) {
            pen.fill(Palette.FAINT, x, 0, at[1] - x, tall);
            pen.text("unseen", Fonts.bold(11), Palette.INK, x + 6, 16);
        } else {
            pen.hatch(Palette.SOFT, x, 0, at[1] - x, tall);
            double wide = pen.width(NEVER, WORDS) + 12;
            pen.fill(Palette.CHART, x + 6, 6, wide, 34);
            pen.frame(Palette.RULE, x + 6, 6, wide, 34);
            pen.text("sealed", Fonts.bold(11), Palette.INK, x + 12, 19);
            pen.text(NEVER, WORDS, Palette.MUTED, x + 12, 33);
        }
        pen.fill(Palette.INK, x, 0, 1, tall);
    }

    private static final String NEVER = "never looked at";

    private static boolean taken(List<Double> tags, double at) {
        return tags.stream().anyMatch(other -> Math.abs(other - at) < 13);
    }

    private static void shade(Pen pen, Path path, Scale under, double wide) {
        int count = path.xs().size();
        double[] xs = new double[count + 2];
        double[] ys = new double[count + 2];
        for (int i = 0; i < count; i++) {
            xs[i] = LEFT + path.xs().get(i) * wide;
            ys[i] = under.at(path.under().get(i));
        }
        xs[count] = xs[count - 1];
        ys[count] = under.at(0);
        xs[count + 1] = xs[0];
        ys[count + 1] = under.at(0);
        pen.polygon(Palette.SOFT, Palette.SOFT, xs, ys);
    }

    private static void draw(Pen pen, double[] xs, List<Long> values, Scale scale, Color color, double width,
            double[] dashes) {
        pen.path(color, width, xs, values.stream().mapToDouble(scale::at).toArray(), xs.length, dashes);
    }

    private static void dates(Pen pen, List<LocalDate> axis, double wide, double bottom) {
        double free = 0;
        for (int i = 0; i < axis.size(); i++) {
            double x = LEFT + i * wide;
            LocalDate date = axis.get(i);
            boolean month = i == 0 || date.getMonth() != axis.get(i - 1).getMonth();
            if (wide >= 12 || month) {
                pen.fill(Palette.FAINT, Math.round(x), 0, 1, bottom);
            }
            String words = (wide >= 40 ? date.getDayOfMonth() + " " : "")
                    + date.getMonth().getDisplayName(TextStyle.SHORT, Locale.ENGLISH);
            if ((wide >= 40 || month) && x >= free) {
                pen.text(words, FIGURES, Palette.MUTED, x + 4, bottom + 15);
                free = x + pen.width(words, FIGURES) + 12;
            }
        }
    }

    private static void lines(Pen pen, Scale y, double right, int most) {
        for (long at : y.marks(most)) {
            pen.fill(at == 0 ? Palette.RULE : Palette.FAINT, LEFT, y.at(at), right - LEFT, 1);
        }
    }

    /** Axis figures stand in the gutter wherever a row is free. */
    private static void grid(Pen pen, Scale y, double right, int most, List<Double> tags) {
        for (long at : y.marks(most)) {
            if (!taken(tags, y.at(at) + 4)) {
                pen.text(Format.money(at).replaceFirst("[.]00$", ""), FIGURES, Palette.MUTED, right + 6, y.at(at) + 4);
            }
        }
    }

    private record Scale(long low, long high, double top, double bottom) {
        double at(long money) {
            return Math.round(bottom - (bottom - top) * (money - low) / Math.max(1, high - low));
        }

        /** Round figures between its ends. */
        List<Long> marks(int most) {
            long step = Money.UNIT;
            long[] factors = {2, 5, 10};
            for (int i = 0; (high - low) / step > most; i++) {
                step = Money.UNIT * (long) Math.pow(10, i / 3) * factors[i % 3];
            }
            List<Long> marks = new ArrayList<>();
            for (long at = Math.ceilDiv(low, step) * step; at <= high; at += step) {
                marks.add(at);
            }
            return marks;
        }
    }
}
