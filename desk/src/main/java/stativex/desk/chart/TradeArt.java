package stativex.desk.chart;

import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.market.Side;

/** The open trade: average, stop and targets as labelled lines right of the bars. */
final class TradeArt {
    private TradeArt() {}

    static void draw(Pen pen, ChartSpace s, Snapshot.PositionView p) {
        LabelStack labels = new LabelStack();
        boolean isLong = p.side() == Side.LONG;
        double average = (double) p.averageSum() / p.averageQuantity();
        labels.add((isLong ? "LONG " : "SHORT ") + p.open() + " @ " + Format.grouped(
                s.bars().contract().meanText(p.averageSum(), p.averageQuantity())),
                isLong ? Palette.LONG : Palette.SHORT,
                isLong ? Palette.LONG : Palette.SHORT_TEXT, s.scale().y(average), true);
        p.stop().ifPresent(stop -> {
            long now = distance(p, stop);
            long initial = s.model().openTrade().flatMap(t -> t.initialStop()).orElse(0L);
            String from = -initial == now ? "" : Format.ticks(-initial) + " → ";
            labels.add("STOP " + p.open() + "  " + from + Format.ticks(now), Palette.TRIP, Palette.TRIP,
                    s.scale().y(stop), false);
        });
        for (Snapshot.OrderView target : p.targets()) {
            long price = target.price().orElseThrow();
            labels.add("TARGET " + target.rest() + "  " + Format.ticks(distance(p, price)), Palette.INK, Palette.INK,
                    s.scale().y(price), true);
        }
        double newest = s.viewport().x(s.bars().count());
        // the lines begin right of the studies' names, where those stand beside the newest bar
        double from = newest + (s.left() > 0 ? 6 : 80);
        labels.draw(pen, Fonts.figures(11), Math.min(from, s.plot() - 40), s.plot() - 4, 2, s.priceHeight());
    }

    private static long distance(Snapshot.PositionView p, long price) {
        return Math.floorDiv(p.side().sign() * (price * p.averageQuantity() - p.averageSum()), p.averageQuantity());
    }
}
