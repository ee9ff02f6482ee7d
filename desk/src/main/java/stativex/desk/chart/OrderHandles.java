package stativex.desk.chart;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.paint.Color;
import stativex.desk.draw.Pen;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.order.Order;

/**
 * The handles by which the person moves orders on a chart: a small box on each line near its tag. Drag it and let go; by keyboard O
 * takes the next one, Alt with Up and Down moves it a tick (with Shift ten), Enter sends it, Escape lets go. Nothing is sent before.
 */
final class OrderHandles {
    private static final double WIDTH = 18;
    private static final double HEIGHT = 12;
    private static final double FROM_GUTTER = 26;
    /** From the gutter to the middle of a handle. */
    static final double MIDDLE = FROM_GUTTER - WIDTH / 2;

    private final BiConsumer<Snapshot.OrderView, Long> moved;
    private Optional<Snapshot.OrderView> taken = Optional.empty();
    private long price;
    private boolean byMouse;
    private boolean asked;

    /** @param moved told an order and the price that the person wants for it */
    OrderHandles(BiConsumer<Snapshot.OrderView, Long> moved) {
        this.moved = moved;
    }

    private static List<Snapshot.OrderView> orders(ChartSpace s) {
        return s.model().hand().movable();
    }

    private static double left(ChartSpace s) {
        return s.plot() - FROM_GUTTER;
    }

    private static boolean holds(ChartSpace s, Snapshot.OrderView order, double x, double y) {
        double at = s.scale().y(order.price().orElseThrow());
        return Math.abs(y - at) <= HEIGHT / 2 + 2 && x >= left(s) - 3 && x <= s.plot();
    }

    /** Whether a handle lies under the mouse. */
    boolean at(ChartSpace s, double x, double y) {
        return orders(s).stream().anyMatch(order -> holds(s, order, x, y));
    }

    /** Takes the handle under the mouse. Returns whether there is one. */
    boolean press(ChartSpace s, double x, double y) {
        taken = orders(s).stream().filter(order -> holds(s, order, x, y))
                .min(Comparator.comparingDouble(order -> Math.abs(y - s.scale().y(order.price().orElseThrow()))));
        byMouse = taken.isPresent();
        taken.ifPresent(order -> price = order.price().orElseThrow());
        return byMouse;
    }

    /** Moves the handle that is held to a height. Returns whether one is. */
    boolean drag(ChartSpace s, double y) {
        if (byMouse) {
            price = Math.round(s.scale().price(y));
        }
        return byMouse;
    }

    /** Lets go: what has moved is told. */
    void release() {
        if (byMouse) {
            byMouse = false;
            send();
        }
    }

    /** What was wanted is a question now: it stays on the chart until that is answered. */
    void asks(Snapshot.OrderView order, long wanted) {
        taken = Optional.of(order);
        price = wanted;
        asked = true;
    }

    /** The question has been answered. */
    void answered() {
        taken = asked ? Optional.empty() : taken;
        asked = false;
    }

    private void send() {
        Optional<Snapshot.OrderView> order = taken;
        long to = price;
        taken = Optional.empty();
        order.filter(o -> o.price().orElseThrow() != to).ifPresent(o -> moved.accept(o, to));
    }

    /** Works a key. Returns whether it was one of these. */
    boolean key(ChartSpace s, KeyEvent e) {
        if (e.getCode() == KeyCode.O && !e.isShortcutDown() && !orders(s).isEmpty()) {
            next(orders(s));
            return true;
        }
        if (taken.isEmpty() || asked) {
            return false;
        }
        int ticks = e.getCode() == KeyCode.UP ? 1 : e.getCode() == KeyCode.DOWN ? -1 : 0;
        if (e.isAltDown() && ticks != 0) {
            price += (long) ticks * (e.isShiftDown() ? 10 : 1);
            return true;
        }
        if (e.getCode() == KeyCode.ENTER) {
            send();
            return true;
        }
        if (e.getCode() == KeyCode.ESCAPE) {
            taken = Optional.empty();
            return true;
        }
        return false;
    }

    private void next(List<Snapshot.OrderView> orders) {
        int now = -1;
        for (int i = 0; i < orders.size(); i++) {
            if (taken.isPresent() && orders.get(i).number() == taken.get().number()) {
                now = i;
            }
        }
        Snapshot.OrderView order = orders.get((now + 1) % orders.size());
        taken = Optional.of(order);
        price = order.price().orElseThrow();
    }

    /** What a reader of the screen is told of the handle that is taken. */
    Optional<String> words(ChartSpace s) {
        return taken.map(order -> order.role().name().toLowerCase(java.util.Locale.ROOT) + " at " + s.price(price));
    }

    void draw(Pen pen, ChartSpace s) {
        for (Snapshot.OrderView order : orders(s)) {
            if (s.scale().shows(order.price().orElseThrow())) {
                box(pen, s, order.price().orElseThrow(), ink(order));
            }
        }
        taken.filter(order -> order.price().orElseThrow() != price || !byMouse).ifPresent(order -> {
            double y = Math.round(s.scale().y(price)) + 0.5;
            pen.line(ink(order), 2, Math.max(0, s.plot() - 160), y, s.plot(), y);
            box(pen, s, price, ink(order));
            Axes.tag(pen, s, s.price(price), y);
        });
    }

    private static Color ink(Snapshot.OrderView order) {
        return order.role() == Order.Role.STOP
                ? Palette.TRIP
                : order.role() == Order.Role.TARGET ? Palette.INK : Palette.SLATE;
    }

    private static void box(Pen pen, ChartSpace s, double price, Color ink) {
        double y = Math.round(s.scale().y(price)) - HEIGHT / 2;
        pen.fill(Palette.CHART, left(s), y, WIDTH, HEIGHT);
        pen.frame(ink, left(s), y, WIDTH, HEIGHT);
        for (int i = 1; i <= 3; i++) {
            pen.line(ink, 1, left(s) + 4, y + i * 3 + 0.5, left(s) + WIDTH - 4, y + i * 3 + 0.5);
        }
    }
}
