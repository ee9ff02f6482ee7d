package stativex.desk.chart;

import stativex.desk.draw.Pen;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.ToIntFunction;
import javafx.scene.paint.Color;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.engine.Decision;
import stativex.engine.Trade;
import stativex.files.ResultWords;
import stativex.files.Sentences;
import stativex.interlock.Reason;
import stativex.market.Side;

/**
 * Pins on the chart: an entry is a numbered violet disc, its exit the same number in a square, joined by the stop's path;
 * a declined entry is a hollow disc with the reason's letter, a would-be entry a hollow triangle pointing its way. Pins
 * stand clear of the bars, below lows for long and above highs for short.
 */
final class Pins {
    private static final double RADIUS = 8;
    /** How far a pin reaches beside the middle of its bar. */
    static final double REACH = RADIUS + 1;

    /** A pin as drawn at a bar, with the words a click on it shows. */
    record Pin(int bar, double x, double y, List<String> words) {
        private boolean same(Pin other) {
            return bar == other.bar && words.equals(other.words);
        }
    }

    private final List<Pin> drawn = new ArrayList<>();
    private final Map<Integer, Integer> below = new HashMap<>();
    private final Map<Integer, Integer> above = new HashMap<>();

    /** The pin under a pixel. */
    Optional<Pin> at(double x, double y) {
        return drawn.stream().filter(p -> Math.hypot(p.x() - x, p.y() - y) <= RADIUS + 3).findFirst();
    }

    /** A pin where it is drawn now. */
    Optional<Pin> again(Pin pin) {
        return drawn.stream().filter(pin::same).findFirst();
    }

    /** The first pin of a bar; the one after the given if that is one of them, none after the last. */
    Optional<Pin> next(int bar, Optional<Pin> after) {
        List<Pin> here = drawn.stream().filter(p -> p.bar() == bar).toList();
        int told = after.map(pin -> here.stream().map(pin::same).toList().indexOf(true)).orElse(-1);
        return here.stream().skip(told + 1).findFirst();
    }

    void draw(Pen pen, ChartSpace s) {
        drawn.clear();
        below.clear();
        above.clear();
        s.model().strategy().ifPresent(layer -> layer(pen, s, layer, Decision::bar));
        // on other bars than its own a decision stands where the print was that it followed
        s.model().running().forEach(layer -> layer(pen, s, layer, d -> s.bars().barOf(d.print())));
        for (ChartModel.Mark mark : s.model().marks()) {
            if (mark.bar() >= s.first() && mark.bar() <= s.last()) {
                boolean isLong = mark.side() == Side.LONG;
                double x = s.viewport().centre(mark.bar());
                double y = place(s, mark.bar(), isLong);
                triangle(pen, x, y, isLong);
                drawn.add(new Pin(mark.bar(), x, y, List.of("would enter " + mark.side().word(),
                        Format.clock(s.bars().end(mark.bar()), s.bars().zone()))));
            }
        }
    }

    private static void triangle(Pen pen, double x, double y, boolean up) {
        double tip = up ? -7 : 7;
        pen.polygon(Palette.CHART, Palette.INK, new double[]{x - 6, x, x + 6},
                new double[]{y - tip * 0.7, y + tip, y - tip * 0.7});
    }

    private void layer(Pen pen, ChartSpace s, ChartModel.StrategyLayer layer, ToIntFunction<Decision> place) {
        for (Trade trade : layer.trades()) {
            trade(pen, s, trade, s.first(), s.last(), false);
        }
        layer.view().trade().ifPresent(trade -> trade(pen, s, trade, s.first(), s.last(), true));
        for (Decision d : layer.decisions()) {
            int bar = place.applyAsInt(d);
            if (bar >= s.first() && bar <= s.last()) {
                decision(pen, s, d, bar);
            }
        }
    }

    private void trade(Pen pen, ChartSpace s, Trade trade, int first, int last,
            boolean open) {
        int from = s.bars().barOf(trade.entryPrint());
        int to = s.bars().barOf(trade.exitPrint());
        if (to < first || from > last) {
            return;
        }
        staircase(pen, s, trade);
        boolean isLong = trade.side() == Side.LONG;
        String number = Integer.toString(trade.number());
        double y = place(s, from, isLong);
        double x = s.viewport().centre(from);
        pen.disc(Palette.AUTOMATION, Palette.AUTOMATION, x, y, RADIUS);
        pen.centred(number, Fonts.bold(10.5), Color.WHITE, x, y + 4);
        String price = Format.grouped(s.bars().contract().meanText(trade.entrySum(), trade.quantity()));
        drawn.add(new Pin(from, x, y,
                List.of("Trade " + number + ": " + trade.side().word() + " " + trade.quantity() + " @ "
                        + price, Format.clock(trade.entryTime(), s.bars().zone()) + ", by automation")));
        if (!open) {
            double exitY = place(s, to, !isLong);
            double exitX = s.viewport().centre(to);
            pen.fill(Palette.CHART, exitX - RADIUS, exitY - RADIUS, 2 * RADIUS, 2 * RADIUS);
            pen.frame(Palette.AUTOMATION, exitX - RADIUS, exitY - RADIUS, 2 * RADIUS, 2 * RADIUS);
            pen.centred(number, Fonts.bold(10.5), Palette.AUTOMATION, exitX, exitY + 4);
            drawn.add(new Pin(to, exitX, exitY, List.of(
                    "Trade " + number + " left: " + trade.exitReason().map(ResultWords::of).orElse(""),
                    Format.clock(trade.exitTime(), s.bars().zone()) + ", mean "
                            + Format.grouped(s.bars().contract().meanText(trade.exitSum(), Math.max(1, trade.left()))),
                    "net " + Format.signedMoney(trade.net()) + ", best " + Format.ticks(trade.mfe()) + ", worst "
                            + Format.ticks(-trade.mae()))));
        }
    }

    /** Where the stop stood, as a staircase from bar to bar. */
    private static void staircase(Pen pen, ChartSpace s, Trade trade) {
        List<Trade.StopPoint> stops = trade.stops();
        for (int i = 0; i < stops.size(); i++) {
            double y = Math.round(s.scale().y(stops.get(i).level())) + 0.5;
            double from = s.viewport().centre(s.bars().barOf(stops.get(i).print()));
            boolean last = i == stops.size() - 1;
            double to = s.viewport().centre(s.bars().barOf(last ? trade.exitPrint() : stops.get(i + 1).print()));
            if (last && to < from + 2) {
                to = from + s.viewport().barWidth() / 2;
            }
            pen.line(Palette.TRIP, 1.5, from, y, to, y);
            if (!last) {
                double next = Math.round(s.scale().y(stops.get(i + 1).level())) + 0.5;
                pen.line(Palette.TRIP, 1.5, to, y, to, next);
            }
        }
    }

    private void decision(Pen pen, ChartSpace s, Decision d, int bar) {
        if (d.kind() != Decision.Kind.DECLINED && d.kind() != Decision.Kind.WOULD_BE
                && d.kind() != Decision.Kind.REJECTED) {
            return;
        }
        boolean isLong = d.side().orElse(Side.LONG) == Side.LONG;
        double x = s.viewport().centre(bar);
        double y = place(s, bar, isLong);
        if (d.kind() == Decision.Kind.WOULD_BE) {
            triangle(pen, x, y, isLong);
        } else {
            pen.disc(Palette.CHART, Palette.INK, x, y, RADIUS);
            pen.centred(letter(d), Fonts.figures(10.5), Palette.INK, x, y + 3.5);
        }
        drawn.add(new Pin(bar, x, y, List.of(ResultWords.of(d.kind()) + " " + d.side().map(Side::word).orElse("")
                + (ResultWords.reason(d).isEmpty() ? "" : ": " + ResultWords.reason(d)),
                new Sentences(s.bars().contract().calendar().zone(), d.time()).decision(d),
                Format.clock(d.time(), s.bars().zone()))));
    }

    /** The letter of what became of a signal, as the guide explains it. */
    static String letter(Decision d) {
        return switch (d.outcome()) {
            case Decision.Declined declined -> letter(declined.refusal().reason());
            case Decision.Rejected ignored -> "r";
            case Decision.Taken ignored -> "";
            case Decision.WouldBe ignored -> "";
            case Decision.Locked ignored -> "k";
            case Decision.ReverseDropped ignored -> "";
            case Decision.ByHand ignored -> "";
            case Decision.Passed ignored -> "";
        };
    }

    /** Every reason has a letter of its own, but for the two that say the session is not to be traded. */
    static String letter(Reason reason) {
        return switch (reason) {
            case OUTSIDE_WINDOW -> "w";
            case LINE_CHECK -> "c";
            case LOCKED -> "k";
            case BROKEN -> "b";
            case ADDS_NOT_ALLOWED -> "a";
            case POSITION_LIMIT -> "m";
            case OPPOSITE_POSITION -> "o";
            case LEAVING -> "v";
            case TRADES_A_DAY -> "t";
            case SIGNALS_PER_PERIOD -> "p";
            case SIDE_OFF -> "s";
            case OFF -> "f";
            case NOT_CONNECTED -> "j";
            case SESSION_CLOSED, SESSION_INCOMPLETE -> "x";
            case LAST_TRADING_DAY -> "d";
            case FLAT_BY -> "l";
            case QUIET_TIME -> "n";
            case COOLING_DOWN -> "h";
            case SPREAD -> "q";
            case WARMING_UP -> "u";
            case RISK_CAP -> "z";
            case MOST_CONTRACTS -> "g";
        };
    }

    /** Clear of every bar that the pin would touch. */
    private double place(ChartSpace s, int bar, boolean under) {
        int already = (under ? below : above).merge(bar, 1, Integer::sum) - 1;
        double away = RADIUS + 5 + already * (2 * RADIUS + 2);
        int reach = (int) Math.ceil((RADIUS + 1) / s.viewport().barWidth());
        long extreme = under ? s.bars().low(bar) : s.bars().high(bar);
        for (int i = Math.max(0, bar - reach); i <= Math.min(s.bars().count() - 1, bar + reach); i++) {
            extreme = under ? Math.min(extreme, s.bars().low(i)) : Math.max(extreme, s.bars().high(i));
        }
        return Math.round(under ? s.scale().y(extreme) + away : s.scale().y(extreme) - away);
    }

    /** A box with a pin's words beside it. */
    void callout(Pen pen, Pin pin, double plot) {
        double width = pin.words().stream().mapToDouble(w -> pen.width(w, Fonts.words(11))).max().orElse(0) + 16;
        double height = pin.words().size() * 16 + 8;
        double x = pin.x() + 14 + width > plot ? pin.x() - 14 - width : pin.x() + 14;
        double y = Math.max(4, pin.y() - height / 2);
        pen.fill(Palette.CHART, x, y, width, height);
        pen.frame(Palette.AUTOMATION, x, y, width, height);
        for (int i = 0; i < pin.words().size(); i++) {
            pen.text(pin.words().get(i), Fonts.words(11), Palette.INK, x + 8, y + 17 + i * 16);
        }
    }
}
