package stativex.desk.trials;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.IntConsumer;
import javafx.scene.input.KeyCode;
import javafx.scene.text.Font;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.engine.Trade;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.trial.TradeFacts;

/** The worst against a trade beside the best for it, a mark each: filled won, hollow lost. Clicking one leads to its trade. */
final class ExcursionView extends Sketch {
    private static final Font FIGURES = Fonts.figures(11);
    private static final Font WORDS = Fonts.words(11);
    private static final double LEFT = 46;
    private static final double BOTTOM = 40;

    private final IntConsumer chosen;
    private List<TradeFacts> trades = List.of();
    private List<PlanLine> lines = List.of();
    private OptionalInt selected = OptionalInt.empty();
    private double wide = 1;
    private double high = 1;
    private long mostAgainst;
    private long mostFor;

    /** @param chosen told of the trade that was clicked, by its place in the list */
    ExcursionView(IntConsumer chosen) {
        this.chosen = chosen;
        setFocusTraversable(true);
        setOnMouseClicked(e -> {
            requestFocus();
            nearest(e.getX(), e.getY()).ifPresent(this::choose);
        });
        setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.LEFT || e.getCode() == KeyCode.RIGHT) {
                step(e.getCode() == KeyCode.RIGHT ? 1 : -1);
                e.consume();
            }
        });
    }

    /**
     * Where the exit plan acts.
     *
     * @param ticks from the entry, above 0
     * @param against against the trade; else for it
     */
    record PlanLine(String words, long ticks, boolean against) {}

    /** The lines of a plan whose distances are ticks, alike on both sides; others stand elsewhere for each trade. */
    static List<PlanLine> lines(ExitPlan plan) {
        List<PlanLine> lines = new ArrayList<>();
        if (plan.longTerms().equals(plan.shortTerms())) {
            ExitTerms terms = plan.longTerms();
            terms.stop().flatMap(stop -> ticks(stop.distance()))
                    .ifPresent(ticks -> lines.add(new PlanLine("stop " + ticks, ticks, true)));
            terms.breakeven().flatMap(ExitTerms.Breakeven::after).flatMap(ExcursionView::ticks)
                    .ifPresent(ticks -> lines.add(new PlanLine("breakeven " + ticks, ticks, false)));
            terms.targets().stream().flatMap(target -> target.distance().stream()).flatMap(d -> ticks(d).stream())
                    .distinct().forEach(ticks -> lines.add(new PlanLine("target " + ticks, ticks, false)));
        }
        return lines;
    }

    private static Optional<Long> ticks(Distance distance) {
        return distance instanceof Distance.Ticks(long ticks) && ticks > 0 ? Optional.of(ticks) : Optional.empty();
    }

    /** @param plan where it acts, as far as that is the same for every trade */
    void show(List<TradeFacts> shown, List<PlanLine> plan) {
        trades = shown;
        lines = List.copyOf(plan);
        selected = OptionalInt.empty();
        mostAgainst = Math.max(Math.max(4, trades.stream().mapToLong(t -> t.trade().mae()).max().orElse(0)),
                most(true));
        mostFor = Math.max(Math.max(4, trades.stream().mapToLong(t -> t.trade().mfe()).max().orElse(0)), most(false));
        setAccessibleText(words());
        repaint();
    }

    private long most(boolean against) {
        return lines.stream().filter(line -> line.against() == against).mapToLong(PlanLine::ticks).max().orElse(0);
    }

    /** Where the mark of a trade stands, for whoever clicks it. */
    javafx.geometry.Point2D mark(int trade) {
        return localToScreen(x(trades.get(trade).trade()), y(trades.get(trade).trade()));
    }

    void select(int trade) {
        selected = OptionalInt.of(trade);
        setAccessibleText(words(trades.get(trade)));
        repaint();
    }

    private void choose(int trade) {
        select(trade);
        chosen.accept(trade);
    }

    private void step(int by) {
        if (!trades.isEmpty()) {
            choose(Math.floorMod(selected.orElse(by > 0 ? -1 : 0) + by, trades.size()));
        }
    }

    private Optional<Integer> nearest(double x, double y) {
        Optional<Integer> nearest = Optional.empty();
        double best = 12 * 12;
        for (int i = 0; i < trades.size(); i++) {
            double dx = x(trades.get(i).trade()) - x;
            double dy = y(trades.get(i).trade()) - y;
            if (dx * dx + dy * dy < best) {
                best = dx * dx + dy * dy;
                nearest = Optional.of(i);
            }
        }
        return nearest;
    }

    private double x(Trade trade) {
        return LEFT + (wide - LEFT - 20) * trade.mae() / mostAgainst;
    }

    private double y(Trade trade) {
        return high - BOTTOM - (high - BOTTOM - 22) * trade.mfe() / mostFor;
    }

    private static String words(TradeFacts facts) {
        Trade trade = facts.trade();
        return "Trade of " + Format.day(facts.tradingDay()) + ", " + trade.side().word() + ", net "
                + Format.signedMoney(trade.net()) + ", " + Format.ticks(-trade.mae()) + " against, "
                + Format.ticks(trade.mfe()) + " for it";
    }

    /** How many losers had been in front by a third of the largest excursion first. */
    String words() {
        long losers = trades.stream().filter(t -> t.trade().net() < 0).count();
        long ahead = Math.max(1, mostFor / 3);
        long had = trades.stream().filter(t -> t.trade().net() < 0 && t.trade().mfe() >= ahead).count();
        return trades.isEmpty()
                ? "No trade."
                : losers == 0
                        ? trades.size() + " trades, none lost."
                        : had + " of the " + losers + " losers had first been " + Format.ticks(ahead) + " or better.";
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        wide = width;
        high = height;
        pen.fill(Palette.CHART, 0, 0, width, height);
        double base = height - BOTTOM;
        pen.line(Palette.INK, 1, LEFT, 8, LEFT, base);
        pen.line(Palette.INK, 1, LEFT, base, width - 12, base);
        pen.text("best for it", WORDS, Palette.MUTED, LEFT + 6, 14);
        pen.rightAligned("worst against it", WORDS, Palette.MUTED, width - 12, base + 28);
        axis(pen, base);
        for (PlanLine line : lines) {
            if (line.against()) {
                double x = LEFT + (wide - LEFT - 20) * line.ticks() / mostAgainst;
                pen.line(Palette.TRIP, 1.2, x, 8, x, base);
                pen.text(line.words(), WORDS, Palette.TRIP, x + 4, 14);
            } else {
                double y = base - (base - 22) * line.ticks() / mostFor;
                pen.line(Palette.INK, 1, LEFT, y, wide - 14, y, 4, 3);
                // targets on the right, breakeven in the middle: they may lie beside each other
                if (line.words().startsWith("breakeven")) {
                    pen.centred(line.words(), WORDS, Palette.INK, (LEFT + wide) / 2, y - 3);
                } else {
                    pen.rightAligned(line.words(), WORDS, Palette.INK, wide - 14, y - 3);
                }
            }
        }
        for (int i = 0; i < trades.size(); i++) {
            Trade trade = trades.get(i).trade();
            boolean won = trade.net() > 0;
            boolean on = selected.equals(OptionalInt.of(i));
            pen.disc(won ? Palette.INK : Palette.CHART, Palette.INK, x(trade), y(trade), on ? 5.5 : 3.2);
            if (on) {
                pen.frame(Palette.INK, x(trade) - 8, y(trade) - 8, 16, 16);
            }
        }
        pen.disc(Palette.INK, Palette.INK, LEFT + 6, height - 9, 3);
        pen.text("won", WORDS, Palette.MUTED, LEFT + 14, height - 5);
        pen.disc(Palette.CHART, Palette.INK, LEFT + 52, height - 9, 3);
        pen.text("lost", WORDS, Palette.MUTED, LEFT + 60, height - 5);
    }

    private void axis(Pen pen, double base) {
        long step = step(mostFor);
        for (long at = step; at <= mostFor; at += step) {
            double y = base - (base - 22) * at / mostFor;
            pen.fill(Palette.FAINT, LEFT + 1, y, wide - LEFT - 14, 1);
            pen.rightAligned("+" + at + " t", FIGURES, Palette.MUTED, LEFT - 5, y + 4);
        }
        step = step(mostAgainst);
        for (long at = 0; at <= mostAgainst; at += step) {
            pen.centred(at == 0 ? "0" : Format.ticks(-at), FIGURES, Palette.MUTED,
                    LEFT + (wide - LEFT - 20) * at / mostAgainst, base + 14);
        }
    }

    private static long step(long most) {
        long step = 1;
        for (long factor : new long[]{1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 5000}) {
            step = factor;
            if (most / factor <= 5) {
                break;
            }
        }
        return step;
    }
}
