package stativex.desk.chart;

import javafx.scene.paint.Color;
import stativex.desk.draw.Pen;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.files.ResultWords;
import stativex.market.Side;
import stativex.order.Owner;

/** The open trade and entries at rest: dashed from where bars end, each with a tag in the gutter. */
final class TradeArt {
    private TradeArt() {}

    /** Lines from the newest bar to the gutter. */
    static void draw(Pen pen, ChartSpace s) {
        s.model().positions().stream().map(ChartModel.Held::position).forEach(p -> {
            line(pen, s, (double) p.averageSum() / p.averageQuantity(), side(p.side() == Side.LONG), true);
            // what the broker holds is a whole line, what is held here a dashed one
            p.stop().ifPresent(stop -> line(pen, s, stop, Palette.TRIP, p.disaster().isPresent()));
            p.disaster().ifPresent(stop -> line(pen, s, stop, Palette.TRIP, false));
            p.targets().forEach(target -> line(pen, s, target.price().orElseThrow(), Palette.INK, true));
        });
        s.model().entries()
                .forEach(entry -> entry.price().ifPresent(price -> line(pen, s, price, ink(entry), true)));
    }

    /** Automation is violet; what the person sends has the colour of its side. */
    private static Color ink(Snapshot.OrderView entry) {
        return entry.owner().equals(Owner.PERSON) ? side(entry.buy()) : Palette.AUTOMATION;
    }

    private static Color side(boolean isLong) {
        return isLong ? Palette.LONG : Palette.SHORT;
    }

    private static void line(Pen pen, ChartSpace s, double price, Color color, boolean dashed) {
        double y = Math.round(s.scale().y(price)) + 0.5;
        double from = Math.min(s.viewport().x(s.bars().count()) + 2, s.plot() - 12);
        if (dashed) {
            pen.line(color, 1, from, y, s.plot(), y, 4, 3);
        } else {
            pen.line(color, 1, from, y, s.plot(), y);
        }
    }

    static void rows(ChartSpace s, Gutter gutter) {
        s.model().positions().forEach(view -> {
            Snapshot.PositionView p = view.position();
            boolean isLong = p.side() == Side.LONG;
            gutter.framed(
                    view.whose().isEmpty()
                            ? (isLong ? "LONG " : "SHORT ") + p.open()
                            : view.whose() + Format.signed(p.side().sign() * p.open()),
                    "@ " + Format.grouped(s.bars().contract().meanText(p.averageSum(), p.averageQuantity())),
                    height(s, (double) p.averageSum() / p.averageQuantity()), side(isLong),
                    isLong ? Palette.LONG : Palette.SHORT_TEXT);
            p.stop().ifPresent(stop -> {
                long now = distance(p, stop);
                long initial = view.trade().flatMap(t -> t.initialStop()).orElse(0L);
                String from = -initial == now ? "" : Format.signed(-initial) + " → ";
                gutter.framed(view.whose() + (p.disaster().isPresent() ? "STOP here" : "STOP"),
                        from + Format.ticks(now),
                        height(s, stop),
                        Palette.TRIP, Palette.TRIP);
            });
            p.disaster().ifPresent(price -> gutter.framed("DISASTER", Format.ticks(distance(p, price)),
                    height(s, price), Palette.TRIP, Palette.TRIP));
            for (Snapshot.OrderView target : p.targets()) {
                long price = target.price().orElseThrow();
                gutter.framed(view.whose() + "TARGET " + target.rest(), Format.ticks(distance(p, price)),
                        height(s, price),
                        Palette.INK,
                        Palette.INK);
            }
        });
        for (Snapshot.OrderView entry : s.model().entries()) {
            entry.price()
                    .ifPresent(price -> gutter.framed((entry.owner().equals(Owner.PERSON) ? "MINE " : "")
                            + (entry.buy() ? "BUY " : "SELL ") + entry.rest()
                            + (entry.owner().equals(Owner.PERSON) ? "" : " " + ResultWords.of(entry.type())),
                            Format.price(s.bars().contract(), price), height(s, price),
                            ink(entry),
                            entry.owner().equals(Owner.PERSON) && !entry.buy() ? Palette.SHORT_TEXT : ink(entry)));
        }
    }

    /** Where a price's tag belongs: at the edge when it lies outside what is in view. */
    private static double height(ChartSpace s, double price) {
        return Math.clamp(s.scale().y(price), 4, s.priceHeight() - 4);
    }

    private static long distance(Snapshot.PositionView p, long price) {
        return Math.floorDiv(p.side().sign() * (price * p.averageQuantity() - p.averageSum()), p.averageQuantity());
    }
}
