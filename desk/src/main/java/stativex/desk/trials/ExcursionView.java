package stativex.desk.trials;

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
import stativex.trial.TradeFacts;

/** The worst against a trade beside the best for it, a mark each: filled won, hollow lost. Clicking one leads to its trade. */
final class ExcursionView extends Sketch {
    private static final Font FIGURES = Fonts.figures(11);
    private static final Font WORDS = Fonts.words(11);
    private static final double LEFT = 46;
    private static final double BOTTOM = 40;

    private final IntConsumer chosen;
    private List<TradeFacts> trades = List.of();
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

    void show(List<TradeFacts> shown) {
        trades = shown;
        selected = OptionalInt.empty();
        mostAgainst = Math.max(4, trades.stream().mapToLong(t -> t.trade().mae()).max().orElse(0));
        mostFor = Math.max(4, trades.stream().mapToLong(t -> t.trade().mfe()).max().orElse(0));
        setAccessibleText(words());
        repaint();
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
