package stativex.desk.exits;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.scene.paint.Color;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.exit.StopMap;
import stativex.market.Money;
import stativex.trial.Spread;

/** The plan on every signal: how its trades lie in R, beside another plan's, and net per trade with each handle elsewhere. */
final class EverySignalView extends Sketch {
    private static final double FIRST = -2;
    private static final double BIN = 0.5;
    private static final int BINS = 14;
    private static final double HEAD = 46;
    private static final double LEAST_STRIP = 27;
    private static final double MOST_STRIP = 36;
    private static final double LABEL = 66;

    private Optional<EverySignal> shown = Optional.empty();

    EverySignalView() {
        setId("every-signal");
        setAccessibleText("Every signal");
    }

    void show(Optional<EverySignal> of) {
        shown = of;
        setAccessibleText(of.map(EverySignalView::words).orElse("Every signal"));
        repaint();
    }

    private static String words(EverySignal of) {
        return "Every signal. " + words(of.plan().name(), of.mine()) + of.other()
                .map(o -> ". Beside it " + words(o.plan().name(), o.spread())).orElse("")
                + of.strips().stream().map(strip -> ". " + name(strip.handle()) + ": " + strip.cells().stream()
                        .map(cell -> "at " + cell.place() + " " + Format.signedMoney(cell.netPerTrade()) + " a trade"
                                + (cell.stands() ? " (now)" : ""))
                        .collect(Collectors.joining(", "))).collect(Collectors.joining());
    }

    private static String words(String plan, Spread of) {
        if (of.trades() == 0) {
            return plan + ": no signal that became a trade";
        }
        return plan + ": " + of.trades() + (of.trades() == 1 ? " trade" : " trades") + " · "
                + (of.netPerTrade() > 0 ? "+" : "") + Format.decimal((double) of.netPerTrade() / Money.UNIT, 2)
                + " each · "
                + Math.round(100.0 * of.won() / of.trades()) + " % won"
                + (of.meanR().isPresent()
                        ? " · mean " + (of.meanR().getAsDouble() > 0 ? "+" : "")
                                + Format.decimal(of.meanR().getAsDouble(), 2) + " R"
                        : "")
                + " · median worst " + Format.ticks(-of.mae()) + ", best " + Format.ticks(of.mfe()) + ", "
                + Format.duration(of.time());
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        if (shown.isEmpty()) {
            return;
        }
        EverySignal of = shown.get();
        pen.fill(Palette.LANE, 14, 6, 9, 9);
        pen.text(words(of.plan().name(), of.mine()), Fonts.words(11), Palette.INK, 29, 15);
        of.other().ifPresent(other -> {
            pen.frame(Palette.INK, 14, 24, 9, 9);
            pen.text(words(other.plan().name(), other.spread()), Fonts.words(11), Palette.INK, 29, 33);
        });
        double left = Math.max(220, width * 0.4);
        histogram(pen, of, left, height);
        strips(pen, of, left + 18, width - left - 30, height);
    }

    private void histogram(Pen pen, EverySignal of, double width, double height) {
        int[] mine = bins(of.mine().rs());
        int[] other = of.other().map(o -> bins(o.spread().rs())).orElse(new int[BINS]);
        int most = 1;
        for (int i = 0; i < BINS; i++) {
            most = Math.max(most, Math.max(mine[i], other[i]));
        }
        double bottom = height - 20;
        double wide = Math.floor((width - 28) / BINS);
        for (int i = 0; i < BINS; i++) {
            double x = 14 + i * wide;
            double high = Math.round((bottom - HEAD - 6) * mine[i] / most);
            pen.fill(Palette.LANE, x + 1, bottom - high, wide - 2, high);
            double outline = Math.round((bottom - HEAD - 6) * other[i] / most);
            if (outline > 0) {
                pen.frame(Palette.INK, x + 3, bottom - outline, wide - 6, outline);
            }
            double from = FIRST + i * BIN;
            if (from == Math.rint(from)) {
                pen.centred(Format.signed((long) from), Fonts.figures(10), Palette.MUTED, x, height - 6);
            }
        }
        pen.fill(Palette.INK, 14 - FIRST / BIN * wide, HEAD, 1, bottom - HEAD);
        pen.fill(Palette.RULE, 14, bottom, BINS * wide, 1);
        pen.rightAligned("R a trade", Fonts.words(10), Palette.MUTED, 14 + BINS * wide, HEAD + 8);
    }

    private static int[] bins(List<Double> rs) {
        int[] bins = new int[BINS];
        rs.forEach(r -> bins[Math.clamp((long) Math.floor((r - FIRST) / BIN), 0, BINS - 1)]++);
        return bins;
    }

    private void strips(Pen pen, EverySignal of, double left, double width, double height) {
        pen.text("what if: net a trade with a handle elsewhere, in ticks", Fonts.words(10), Palette.MUTED, left,
                HEAD + 8);
        long low = Long.MAX_VALUE;
        long high = Long.MIN_VALUE;
        for (EverySignal.Strip strip : of.strips()) {
            for (EverySignal.Cell cell : strip.cells()) {
                low = Math.min(low, cell.netPerTrade());
                high = Math.max(high, cell.netPerTrade());
            }
        }
        double y = HEAD + 14;
        double tall = Math.clamp(Math.floor((height - y) / Math.max(1, of.strips().size())), LEAST_STRIP, MOST_STRIP);
        for (EverySignal.Strip strip : of.strips()) {
            if (y + tall > height + 1) {
                break;
            }
            pen.text(name(strip.handle()), Fonts.words(11), Palette.INK, left, y + tall / 2 + 2);
            double wide = Math.floor((width - LABEL) / Math.max(1, strip.cells().size()));
            for (int i = 0; i < strip.cells().size(); i++) {
                EverySignal.Cell cell = strip.cells().get(i);
                double share = high == low ? 0.5 : (double) (cell.netPerTrade() - low) / (high - low);
                double x = left + LABEL + i * wide;
                Color fill = Palette.FAINT.interpolate(Palette.SLATE, share);
                pen.fill(fill, x, y, wide - 1, tall - 4);
                if (cell.stands()) {
                    pen.frame(Palette.INK, x - 1, y - 1, wide + 1, tall - 2);
                    pen.frame(Palette.INK, x, y, wide - 1, tall - 4);
                }
                Color ink = share > 0.55 ? Palette.CHART : Palette.INK;
                pen.centred(Long.toString(cell.place()), Fonts.bold(10.5), ink, x + wide / 2, y + tall / 2 - 4);
                pen.centred(Format.signed(Math.round((double) cell.netPerTrade() / Money.UNIT)), Fonts.figures(10), ink,
                        x + wide / 2, y + tall / 2 + 8);
            }
            y += tall;
        }
    }

    private static String name(StopMap.Handle handle) {
        return switch (handle.kind()) {
            case STOP -> "stop";
            case BREAKEVEN -> "breakeven";
            case TRAIL -> "trail " + (handle.index() + 1);
            case TARGET -> "target " + (handle.index() + 1);
        };
    }
}
