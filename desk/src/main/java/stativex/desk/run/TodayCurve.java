package stativex.desk.run;

import java.util.Optional;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.desk.draw.Sketch;
import stativex.engine.Snapshot;

/** Equity through the trading day, bar by bar, against where the day began. */
final class TodayCurve extends Sketch {
    private Optional<Snapshot.AccountView> account = Optional.empty();

    void show(Snapshot.AccountView shown) {
        account = Optional.of(shown);
        setAccessibleText("Day result " + Format.signedMoney(shown.dayResult()));
        repaint();
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        if (account.isEmpty()) {
            return;
        }
        Snapshot.AccountView a = account.get();
        int from = a.dayCurve();
        int count = a.curve().count() - from + 1;
        double[] xs = new double[count];
        double[] ys = new double[count];
        long start = a.equity() - a.dayResult();
        long lowest = start;
        long highest = start;
        for (int i = 0; i < count; i++) {
            long equity = i == count - 1 ? a.equity() : a.curve().get(from + i);
            lowest = Math.min(lowest, equity);
            highest = Math.max(highest, equity);
        }
        double span = Math.max(100_000, highest - lowest);
        double top = 6;
        double tall = height - 12;
        for (int i = 0; i < count; i++) {
            long equity = i == count - 1 ? a.equity() : a.curve().get(from + i);
            xs[i] = count == 1 ? 0 : width * i / (count - 1);
            ys[i] = top + tall * (highest - equity) / span;
        }
        double zero = Math.round(top + tall * (highest - start) / span) + 0.5;
        pen.line(Palette.RULE, 1, 0, zero, width, zero);
        if (count > 1) {
            pen.path(Palette.INK, 1.4, xs, ys, count);
        } else {
            pen.text("No bar yet today.", Fonts.words(11), Palette.MUTED, 0, zero - 6);
        }
    }
}
