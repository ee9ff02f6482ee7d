package stativex.desk.limits;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import stativex.account.LineKind;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.evidence.Odds;
import stativex.evidence.Share;
import stativex.files.ResultWords;

/** What becomes of the account: a bar for each end, the honest interval as a whisker, and the chance by size as a small curve. */
final class OddsView extends Sketch {
    private static final Font WORDS = Fonts.words(11.5);
    private static final double BARS = 178;
    private static final double ROW = 22;
    /** Width of the curve of sizes with its words. */
    private static final double CURVE = 190;

    private Optional<Odds> odds = Optional.empty();
    private int mostDays;
    private Map<Integer, Share> sizes = new TreeMap<>();
    private String instead = "";
    private String leftAside = "";

    /**
     * @param bySize chance to pass, by times the contracts
     * @param aside rules that are left aside
     */
    void show(Odds shown, int days, Map<Integer, Share> bySize, String aside) {
        leftAside = aside;
        odds = Optional.of(shown);
        mostDays = days;
        sizes = new TreeMap<>(bySize);
        instead = "";
        setAccessibleText("Odds. " + String.join("; ", rows(shown).stream().map(row -> row.words() + " "
                + percent(row.share())).toList()) + ". " + median(shown));
        repaint();
    }

    void say(String words) {
        odds = Optional.empty();
        instead = words;
        setAccessibleText(words);
        repaint();
    }

    private record Row(String words, double share, Color color, boolean hatched) {}

    private List<Row> rows(Odds of) {
        List<Row> rows = new ArrayList<>();
        rows.add(new Row("reaches the target first", of.passed().share(), Palette.SLATE, false));
        for (LineKind line : List.of(LineKind.DRAWDOWN_FLOOR, LineKind.BOOK_DAY_LOSS)) {
            if (of.broken().containsKey(line)) {
                rows.add(new Row("breaks the " + ResultWords.of(line).toLowerCase(Locale.ROOT).replace("book's ", ""),
                        (double) of.broken().get(line) / of.accounts(), Palette.TRIP, false));
            }
        }
        if (of.noRoom() > 0) {
            rows.add(new Row("no room before a guard", (double) of.noRoom() / of.accounts(), Palette.WARN, true));
        }
        rows.add(new Row("still open after " + mostDays + " days", (double) of.open() / of.accounts(), Palette.LANE,
                false));
        return rows;
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        if (odds.isEmpty()) {
            pen.text(instead, Fonts.words(12), Palette.MUTED, 14, 24);
            return;
        }
        Odds of = odds.get();
        List<Row> rows = rows(of);
        double room = width - BARS - CURVE - 130;
        double y = 6;
        for (Row row : rows) {
            pen.text(row.words(), WORDS, Palette.INK, 14, y + 13);
            double wide = Math.round(room * row.share());
            if (row.hatched()) {
                pen.hatch(row.color(), BARS, y + 3, wide, 12);
                pen.frame(row.color(), BARS, y + 3, Math.max(1, wide), 12);
            } else {
                pen.fill(row.color(), BARS, y + 3, Math.max(1, wide), 12);
            }
            double after = BARS + wide;
            if (row == rows.getFirst() && of.honest().isPresent()) {
                Share honest = of.honest().get();
                double low = BARS + room * honest.low();
                double high = BARS + room * honest.high();
                pen.line(Palette.INK, 1.5, low, y + 9, high, y + 9);
                pen.line(Palette.INK, 1.5, low, y + 4, low, y + 14);
                pen.line(Palette.INK, 1.5, high, y + 4, high, y + 14);
                after = Math.max(after, high);
            }
            pen.text(percent(row.share()) + (row == rows.getFirst()
                    ? of.honest().map(h -> "  " + percent(h.low()) + " to " + percent(h.high())).orElse("")
                    : ""), WORDS, Palette.INK, after + 8, y + 13);
            y += ROW;
        }
        pen.text(median(of), WORDS, Palette.INK, 14, y + 14);
        pen.text("bar: " + Format.grouped(Integer.toString(of.accounts())) + " drawn accounts, ± "
                + points(of.passed())
                + " points by the drawing; whisker: 5th to 95th percentile over the past days themselves",
                Fonts.words(10.5), Palette.MUTED, 14, y + 30);
        pen.text(leftAside, Fonts.words(10.5), Palette.MUTED, 14, y + 45);
        curve(pen, width - CURVE + 8, 8, CURVE - 34, y - 26);
    }

    private static String median(Odds of) {
        List<String> said = new ArrayList<>();
        of.daysToPass()
                .ifPresent(days -> said.add("median " + days + (days == 1 ? " day" : " days") + " to the target"));
        of.daysToBreak()
                .ifPresent(days -> said.add("median " + days + (days == 1 ? " day" : " days") + " to the break"));
        of.breaksMost().ifPresent(line -> said.add("breaks most: " + ResultWords.of(line).toLowerCase(Locale.ROOT)));
        return said.isEmpty() ? "neither passed nor broken" : String.join(" · ", said);
    }

    /** Half the drawing's interval in points, at least a tenth. */
    private static String points(Share share) {
        double half = 100 * (share.high() - share.low()) / 2;
        return half < 0.1 ? "0.1" : Format.decimal(half, half < 1 ? 1 : 0);
    }

    private static String percent(double share) {
        double of = 100 * share;
        return (of > 0 && of < 1 || of > 99 && of < 100 ? Format.decimal(of, 1) : Format.decimal(of, 0)) + " %";
    }

    private void curve(Pen pen, double x, double y, double width, double height) {
        if (sizes.size() < 2) {
            return;
        }
        pen.text("chance by size", Fonts.words(10.5), Palette.MUTED, x, y + 4);
        double top = y + 12;
        double bottom = y + height;
        pen.line(Palette.RULE, 1, x, bottom, x + width, bottom);
        int most = sizes.keySet().stream().max(Integer::compare).orElseThrow();
        int best = sizes.entrySet().stream().max(Map.Entry.comparingByValue((a, b) -> Double.compare(a.share(),
                b.share()))).map(Map.Entry::getKey).orElseThrow();
        double[] xs = new double[sizes.size()];
        double[] ys = new double[sizes.size()];
        int i = 0;
        for (Map.Entry<Integer, Share> size : sizes.entrySet()) {
            xs[i] = x + 6 + (width - 12) * (size.getKey() - 1) / Math.max(1, most - 1);
            ys[i] = bottom - (bottom - top) * size.getValue().share();
            i++;
        }
        pen.path(Palette.INK, 1.2, xs, ys, xs.length);
        i = 0;
        for (int size : sizes.keySet()) {
            pen.disc(size == best ? Palette.INK : Palette.CHART, Palette.INK, xs[i], ys[i], 3);
            pen.centred(size + "×", Fonts.figures(10.5), size == best ? Palette.INK : Palette.MUTED, xs[i],
                    bottom + 14);
            i++;
        }
    }
}
