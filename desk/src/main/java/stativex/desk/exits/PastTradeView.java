package stativex.desk.exits;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Optional;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.engine.Trade;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Fill;
import stativex.order.Order;

/** A trade that might have been: its prints, where the stop stood, each fill; and what stood at the print under the pointer. */
final class PastTradeView extends Sketch {
    private static final double LEFT = 10;
    private static final double RIGHT = 66;
    private static final double EDGE = 16;

    private final Tape tape;
    private final Contract contract;
    private Optional<Tried> tried = Optional.empty();
    private int from;
    private int to;
    private long low;
    private long high;
    private Optional<Integer> scrubbed = Optional.empty();

    PastTradeView(Tape tape, Contract contract) {
        this.tape = tape;
        this.contract = contract;
        setId("past-trade");
        setFocusTraversable(true);
        addEventHandler(MouseEvent.MOUSE_MOVED, e -> scrub(Optional.of(print(e.getX()))));
        addEventHandler(MouseEvent.MOUSE_EXITED, e -> scrub(Optional.empty()));
        addEventHandler(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.LEFT || e.getCode() == KeyCode.RIGHT) {
                int by = Math.max(1, (to - from) / (e.isShiftDown() ? 20 : 200));
                scrub(Optional.of(Math.clamp(scrubbed.orElse(from) + (long) (e.getCode() == KeyCode.LEFT ? -by : by),
                        from, to)));
                e.consume();
            }
        });
        focusedProperty().addListener((o, before, now) -> repaint());
    }

    private void scrub(Optional<Integer> print) {
        scrubbed = print.filter(p -> trade().isPresent());
        setAccessibleText(scrubbed.map(this::words).orElse("A past trade"));
        repaint();
    }

    private Optional<Trade> trade() {
        return tried.flatMap(t -> t.outcome().trade());
    }

    /** Shows what came of it; empty while nothing did. */
    void show(Optional<Tried> of) {
        tried = of;
        scrubbed = Optional.empty();
        trade().ifPresent(trade -> {
            int around = Math.max(40, (trade.exitPrint() - trade.entryPrint()) / 8);
            from = Math.max(0, trade.entryPrint() - around);
            to = Math.min(tape.count() - 1, trade.exitPrint() + around);
            low = Long.MAX_VALUE;
            high = Long.MIN_VALUE;
            for (int print = from; print <= to; print++) {
                low = Math.min(low, tape.price(print));
                high = Math.max(high, tape.price(print));
            }
            trade.stops().forEach(stop -> {
                low = Math.min(low, stop.level());
                high = Math.max(high, stop.level());
            });
            long margin = Math.max(2, (high - low) / 14);
            low -= margin;
            high += margin;
        });
        repaint();
    }

    private double x(double print) {
        return LEFT + (getWidth() - LEFT - RIGHT) * (print - from) / Math.max(1, to - from);
    }

    private double y(double price) {
        return EDGE + (getHeight() - 2 * EDGE) * (high - price) / Math.max(1, high - low);
    }

    private int print(double x) {
        return Math.clamp(Math.round(from + (x - LEFT) / (getWidth() - LEFT - RIGHT) * (to - from)), from, to);
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        if (trade().isEmpty()) {
            return;
        }
        Trade trade = trade().get();
        boolean isLong = trade.side() == Side.LONG;
        double average = (double) trade.entrySum() / trade.quantity();
        double y = Math.round(y(average)) + 0.5;
        pen.line(isLong ? Palette.LONG : Palette.SHORT, 1, x(trade.entryPrint()), y, width - RIGHT, y, 4, 3);
        prices(pen, width);
        stops(pen, trade);
        for (Fill fill : tried.orElseThrow().outcome().fills()) {
            boolean entry = fill.role() == Order.Role.ENTRY;
            pen.disc(entry ? isLong ? Palette.LONG : Palette.SHORT : Palette.CHART,
                    fill.role() == Order.Role.STOP ? Palette.TRIP : entry ? Palette.CHART : Palette.INK,
                    x(fill.print()), y(fill.price()), 4.5);
        }
        scale(pen, width, average, trade);
        scrubbed.ifPresent(print -> {
            double at = Math.round(x(print)) + 0.5;
            pen.line(Palette.SLATE, 1, at, 0, at, height);
            String words = words(print);
            double wide = pen.width(words, Fonts.figures(11));
            double left = Math.clamp(at + 6, 0, Math.max(0, width - wide - 12));
            pen.fill(Palette.CHART, left, 1, wide + 12, 17);
            pen.frame(Palette.RULE, left, 1, wide + 12, 17);
            pen.text(words, Fonts.figures(11), Palette.INK, left + 6, 13);
        });
    }

    private void scale(Pen pen, double width, double average, Trade trade) {
        pen.text(Format.price(contract, average), Fonts.figures(11), Palette.INK, width - RIGHT + 6, y(average) + 4);
        long last = trade.stops().isEmpty() ? Math.round(average) : trade.stops().getLast().level();
        if (Math.abs(y(last) - y(average)) > 13) {
            pen.text(Format.price(contract, last), Fonts.figures(11), Palette.TRIP, width - RIGHT + 6, y(last) + 4);
        }
        ZoneId zone = contract.calendar().zone();
        String begin = Format.clock(tape.time(trade.entryPrint()), zone);
        String clock = Format.clock(tape.time(trade.exitPrint()), zone);
        LocalDate date = TapeTime.in(zone, tape.time(trade.exitPrint())).toLocalDate();
        String end = TapeTime.in(zone, tape.time(trade.entryPrint())).toLocalDate().equals(date)
                ? clock
                : Format.day(date) + " " + clock;
        double right = x(trade.exitPrint()) + pen.width(end, Fonts.words(10)) / 2;
        pen.text(begin, Fonts.words(10), Palette.MUTED, Math.max(2, x(trade.entryPrint()) - 24), getHeight() - 3);
        pen.rightAligned(end, Fonts.words(10), Palette.MUTED,
                Math.max(right, x(trade.entryPrint()) + 2 * pen.width(end, Fonts.words(10))), getHeight() - 3);
    }

    /** For each column of pixels from its lowest to its highest print. */
    private void prices(Pen pen, double width) {
        int columns = (int) (width - LEFT - RIGHT);
        if (to - from < columns) {
            double[] xs = new double[2 * (to - from + 1)];
            double[] ys = new double[xs.length];
            for (int print = from; print <= to; print++) {
                int at = 2 * (print - from);
                xs[at] = x(print);
                ys[at] = y(tape.price(print));
                xs[at + 1] = x(Math.min(to, print + 1));
                ys[at + 1] = ys[at];
            }
            pen.path(Palette.SLATE, 1, xs, ys, xs.length);
            return;
        }
        long before = tape.price(from);
        for (int column = 0; column < columns; column++) {
            int first = print(LEFT + column);
            int until = Math.min(to, print(LEFT + column + 1));
            long lowest = before;
            long highest = before;
            for (int print = first; print <= until; print++) {
                lowest = Math.min(lowest, tape.price(print));
                highest = Math.max(highest, tape.price(print));
            }
            before = tape.price(until);
            pen.fill(Palette.SLATE, LEFT + column, y(highest), 1, Math.max(1, y(lowest) - y(highest)));
        }
    }

    private void stops(Pen pen, Trade trade) {
        int count = trade.stops().size();
        double[] xs = new double[2 * count];
        double[] ys = new double[2 * count];
        for (int i = 0; i < count; i++) {
            Trade.StopPoint stop = trade.stops().get(i);
            int until = i + 1 < count ? trade.stops().get(i + 1).print() : trade.exitPrint();
            xs[2 * i] = x(stop.print());
            xs[2 * i + 1] = x(until);
            ys[2 * i] = y(stop.level());
            ys[2 * i + 1] = ys[2 * i];
        }
        pen.path(Palette.TRIP, 2, xs, ys, 2 * count);
    }

    /** Time, price, result in ticks and stop at a print. */
    private String words(int print) {
        Trade trade = trade().orElseThrow();
        String words = Format.clock(tape.time(print), contract.calendar().zone()) + "  "
                + Format.price(contract, tape.price(print));
        if (print < trade.entryPrint() || print > trade.exitPrint()) {
            return words;
        }
        long quantity = trade.quantity();
        long sign = trade.side().sign();
        long now = Math.floorDiv(sign * (tape.price(print) * quantity - trade.entrySum()), quantity);
        String stop = trade.stops().stream().filter(s -> s.print() <= print).reduce((a, b) -> b)
                .map(s -> " · stop " + Format.ticks(
                        Math.floorDiv(sign * (s.level() * quantity - trade.entrySum()), quantity)))
                .orElse("");
        return words + " · " + Format.ticks(now) + stop;
    }
}
