package stativex.desk.live;

import java.util.List;
import javafx.scene.paint.Color;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.link.Joining;
import stativex.market.Contract;
import stativex.market.Side;

/** A position on a line of prices: where it began, where the price is now, where a plan's stop and targets would stand. */
final class PriceLine extends Sketch {
    private static final double LABELS = 16;

    private Contract contract;
    private Joining.Found found;
    private long last;
    private List<Joining.Line> orders = List.of();

    PriceLine() {
        setMinHeight(52);
        setPrefHeight(52);
        setMaxHeight(52);
        setVisible(false);
        setManaged(false);
    }

    void show(Contract of, Joining.Found there, long lastPrice, List<Joining.Line> wouldBe) {
        contract = of;
        found = there;
        last = lastPrice;
        orders = wouldBe.stream().filter(one -> one.price().isPresent()).toList();
        setAccessibleText("Prices: now " + Format.price(contract, last) + orders.stream()
                .map(one -> ", " + one.kind() + " " + Format.price(contract, one.price().getAsLong()))
                .reduce("", String::concat));
        repaint();
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        if (contract == null) {
            return;
        }
        double entry = (double) found.averageSum() / found.averageQuantity();
        double low = Math.min(entry, last);
        double high = Math.max(entry, last);
        for (Joining.Line one : orders) {
            low = Math.min(low, one.price().getAsLong());
            high = Math.max(high, one.price().getAsLong());
        }
        double pad = Math.max(2, (high - low) * 0.1);
        double from = low - pad;
        double scale = width / (high + pad - from);
        double y = 26;
        pen.line(Palette.MUTED, 1, 0, y, width, y);
        Color side = found.side() == Side.LONG ? Palette.LONG : Palette.SHORT;
        double a = (entry - from) * scale;
        double b = (last - from) * scale;
        pen.fill(side, Math.min(a, b), y - 3, Math.max(1, Math.abs(b - a)), 6);
        double taken = -1;
        if (Math.abs(b - a) > 44) {
            mark(pen, side, a, "entry", entry, width);
        }
        mark(pen, Palette.INK, b, "now", last, width);
        taken = b;
        for (Joining.Line one : orders) {
            double x = (one.price().getAsLong() - from) * scale;
            if (Math.abs(x - taken) > 30) {
                mark(pen, one.kind().equals("stop") ? Palette.TRIP : Palette.INK, x,
                        one.kind().equals("stop") ? "plan's stop" : "target", one.price().getAsLong(), width);
            }
        }
    }

    private void mark(Pen pen, Color ink, double x, String word, double price, double width) {
        pen.line(ink, 2, x, 18, x, 34);
        String figure = Format.price(contract, price);
        text(pen, word, ink, x, LABELS - 3, width);
        text(pen, figure, ink, x, 48, width);
    }

    private static void text(Pen pen, String text, Color ink, double x, double y, double width) {
        double wide = pen.width(text, Fonts.words(11));
        pen.text(text, Fonts.words(11), ink, Math.max(0, Math.min(width - wide, x - wide / 2)), y);
    }
}
