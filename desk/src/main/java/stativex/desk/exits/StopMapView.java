package stativex.desk.exits;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Point2D;
import javafx.geometry.Rectangle2D;
import javafx.scene.Cursor;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.exit.ExitTerms;
import stativex.exit.StopMap;

/**
 * The stop map: across, the best excursion so far; up, where the stop then stands. Handles are dragged by the mouse, or chosen with
 * Enter and moved with the arrow keys.
 */
final class StopMapView extends Sketch {
    private static final double LEFT = 56;
    private static final double RIGHT = 22;
    private static final double TOP = 34;
    private static final double BOTTOM = 40;
    private static final double HANDLE = 6;

    /** Told where a handle is dragged to. */
    interface Dragged {
        /** @param best across, in ticks; {@code level} up */
        void to(StopMap.Handle handle, long best, long level);
    }

    private final Dragged dragged;
    private final Runnable released;
    private Optional<StopMap> map = Optional.empty();
    private Optional<ExitTerms> terms = Optional.empty();
    private String why = "";
    private int chosen;
    private boolean holds;
    /** Scales stay as they were while a handle is held. */
    private long across = 40;
    private long low = -10;
    private long high = 10;

    /** @param released told when a drag ends, or after a key */
    StopMapView(Dragged dragged, Runnable released) {
        this.dragged = dragged;
        this.released = released;
        setId("stop-map");
        setFocusTraversable(true);
        Tooltip.install(this, new Tooltip("Drag a handle. Or choose one with Enter and move it with the arrow keys."));
        addEventHandler(MouseEvent.MOUSE_MOVED, e -> setCursor(near(e.getX(), e.getY()) >= 0
                ? Cursor.HAND
                : Cursor.DEFAULT));
        addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            requestFocus();
            int at = near(e.getX(), e.getY());
            if (at >= 0) {
                chosen = at;
                holds = true;
                repaint();
            }
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, e -> {
            if (holds) {
                move(best(e.getX()), level(e.getY()));
            }
        });
        addEventHandler(MouseEvent.MOUSE_RELEASED, e -> {
            if (holds) {
                holds = false;
                released.run();
            }
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        focusedProperty().addListener((o, before, now) -> repaint());
    }

    private void key(KeyEvent e) {
        List<StopMap.Handle> handles = handles();
        if (handles.isEmpty() || e.isShortcutDown()) {
            return;
        }
        int by = e.isShiftDown() ? 5 : 1;
        StopMap.Handle now = handles.get(Math.min(chosen, handles.size() - 1));
        boolean moves = switch (e.getCode()) {
            case LEFT -> moved(now, -by, 0);
            case RIGHT -> moved(now, by, 0);
            case UP -> moved(now, 0, by);
            case DOWN -> moved(now, 0, -by);
            default -> false;
        };
        if (e.getCode() == KeyCode.ENTER) {
            chosen = (chosen + 1) % handles.size();
            setAccessibleText(words());
            repaint();
        }
        if (moves || e.getCode() == KeyCode.ENTER) {
            e.consume();
        }
    }

    private boolean moved(StopMap.Handle handle, long across1, long up) {
        // a target moves by either pair of keys; a stop is further down, a target further up
        move(handle.best() + across1 + (handle.kind() == StopMap.Kind.TARGET ? up : 0), handle.level() + up);
        released.run();
        return true;
    }

    private void move(long best, long level) {
        List<StopMap.Handle> handles = handles();
        if (chosen < handles.size()) {
            StopMap.Handle handle = handles.get(chosen);
            if (handle.acrossBy() || handle.upBy()) {
                dragged.to(handle, handle.acrossBy() ? best : handle.best(), handle.upBy() ? level : handle.level());
            }
        }
    }

    private List<StopMap.Handle> handles() {
        return map.map(StopMap::handles).orElse(List.of());
    }

    private int near(double x, double y) {
        List<StopMap.Handle> handles = handles();
        for (int i = 0; i < handles.size(); i++) {
            StopMap.Handle handle = handles.get(i);
            boolean there = handle.kind() == StopMap.Kind.TARGET
                    ? Math.abs(x(handle.best()) - x) <= HANDLE
                    : Math.hypot(x(handle.best()) - x, y(handle.level()) - y) <= HANDLE + 4;
            if (there && (handle.acrossBy() || handle.upBy())) {
                return i;
            }
        }
        return -1;
    }

    /** Where a handle stands on screen, for one who drags it. */
    Point2D place(StopMap.Handle handle) {
        return new Point2D(x(handle.best()), handle.kind() == StopMap.Kind.TARGET ? TOP + 30 : y(handle.level()));
    }

    /** What is shown; empty while nothing is. */
    Optional<StopMap> map() {
        return map;
    }

    /**
     * Shows a plan.
     *
     * @param why there is no map, while there is none
     */
    void show(Optional<ExitTerms> plan, Optional<StopMap> of, String why) {
        terms = plan;
        map = of;
        this.why = why;
        if (!holds) {
            across = map.map(StopMap::furthest).orElse(40L);
            low = -10;
            high = 10;
            map.ifPresent(m -> {
                m.steps().forEach(step -> {
                    low = Math.min(low, step.level());
                    high = Math.max(high, step.level());
                });
                m.handles().stream().filter(h -> h.kind() != StopMap.Kind.TARGET).forEach(h -> {
                    low = Math.min(low, h.level());
                    high = Math.max(high, h.level());
                });
            });
            long margin = Math.max(4, (high - low) / 8);
            low -= margin;
            high += margin;
        }
        chosen = Math.min(chosen, Math.max(0, handles().size() - 1));
        setAccessibleText(words());
        repaint();
    }

    /** The same in words. */
    private String words() {
        StringBuilder words = new StringBuilder("Stop map. ");
        map.ifPresent(m -> m.steps()
                .forEach(s -> words.append("from ").append(s.best()).append(" ticks the stop stands at ")
                        .append(Format.signed(s.level())).append("; ")));
        if (chosen < handles().size()) {
            words.append("chosen: ").append(label(handles().get(chosen)));
        }
        return words.toString();
    }

    private double x(long best) {
        return LEFT + (getWidth() - LEFT - RIGHT) * best / across;
    }

    private double y(long level) {
        return TOP + (getHeight() - TOP - BOTTOM) * (high - level) / (high - low);
    }

    private long best(double x) {
        return Math.clamp(Math.round((x - LEFT) / (getWidth() - LEFT - RIGHT) * across), 0, across);
    }

    private long level(double y) {
        return Math.clamp(Math.round(high - (y - TOP) / (getHeight() - TOP - BOTTOM) * (high - low)), low, high);
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        if (map.isEmpty()) {
            pen.text(why, Fonts.words(12), Palette.MUTED, LEFT, TOP + 20);
            return;
        }
        grid(pen, width, height);
        StopMap of = map.get();
        if (!of.steps().isEmpty()) {
            stairs(pen, of);
        }
        List<Rectangle2D> taken = new ArrayList<>();
        for (int i = 0; i < of.handles().size(); i++) {
            handle(pen, of.handles().get(i), isFocused() && i == chosen, taken, width, height);
        }
    }

    private void grid(Pen pen, double width, double height) {
        long up = step(high - low, (height - TOP - BOTTOM) / 34);
        for (long level = Math.ceilDiv(low, up) * up; level <= high; level += up) {
            double y = Math.round(y(level));
            pen.fill(level == 0 ? Palette.INK : Palette.FAINT, LEFT, y, width - LEFT - RIGHT, 1);
            pen.rightAligned(Format.signed(level), Fonts.figures(11), Palette.MUTED, LEFT - 8, y + 4);
        }
        long along = step(across, (width - LEFT - RIGHT) / 70);
        for (long best = 0; best <= across; best += along) {
            pen.centred(Long.toString(best), Fonts.figures(11), Palette.MUTED, x(best), height - BOTTOM + 16);
        }
        pen.rightAligned("best so far, ticks", Fonts.words(10.5), Palette.MUTED, width - RIGHT, height - 8);
        pen.text("stop, ticks from the entry", Fonts.words(10.5), Palette.MUTED, 8, 14);
        // where the stop would meet the price that is furthest in favour
        long to = Math.min(across, high);
        pen.line(Palette.RULE, 1, x(0), y(0), x(to), y(to), 3, 4);
        pen.rightAligned("price = stop", Fonts.words(10), Palette.MUTED, x(to) - 8, y(to) + 10);
    }

    /** A round distance of which at most so many fit. */
    private static long step(long range, double fit) {
        long step = 1;
        for (int i = 0; range / (double) step > Math.max(1, fit); i++) {
            step = switch (i % 3) {
                case 0 -> step * 2;
                case 1 -> step / 2 * 5;
                default -> step * 2;
            };
        }
        return step;
    }

    private void stairs(Pen pen, StopMap of) {
        double[] xs = new double[2 * of.steps().size()];
        double[] ys = new double[xs.length];
        int count = 0;
        for (int i = 0; i < of.steps().size(); i++) {
            StopMap.Step step = of.steps().get(i);
            if (step.best() > across) {
                break;
            }
            long until = i + 1 < of.steps().size() ? Math.min(across, of.steps().get(i + 1).best()) : across;
            xs[count] = x(step.best());
            ys[count++] = y(step.level());
            xs[count] = x(until);
            ys[count++] = y(step.level());
        }
        pen.path(Palette.TRIP, 2, xs, ys, count);
    }

    private void handle(Pen pen, StopMap.Handle handle, boolean marked, List<Rectangle2D> taken, double width,
            double height) {
        double x = x(Math.min(handle.best(), across));
        String words = label(handle);
        if (handle.kind() == StopMap.Kind.TARGET) {
            pen.line(Palette.INK, marked ? 2 : 1, x, TOP - 4, x, height - BOTTOM, 4, 3);
            box(pen, words, x - pen.width(words, Fonts.words(11)) / 2 - 6, TOP - 14, taken, width);
            return;
        }
        double y = y(handle.level());
        if (!handle.acrossBy() && !handle.upBy()) {
            pen.fill(Palette.TRIP, x - 4, y - 4, 8, 8);
        } else {
            pen.disc(Palette.CHART, Palette.TRIP, x, y, HANDLE);
            if (marked) {
                pen.disc(Palette.TRIP, Palette.TRIP, x, y, HANDLE - 3);
            }
        }
        box(pen, words, x + 12, y + 8, taken, width);
    }

    /** A framed label, moved down until it covers no other one. */
    private void box(Pen pen, String words, double left, double top, List<Rectangle2D> taken, double width) {
        double wide = pen.width(words, Fonts.words(11)) + 12;
        double x = Math.clamp(left, LEFT + 2, Math.max(LEFT + 2, width - RIGHT - wide));
        double y = top;
        Rectangle2D place = new Rectangle2D(x, y, wide, 19);
        for (int tries = 0; tries < 8 && taken.stream().anyMatch(place::intersects); tries++) {
            y += 22;
            place = new Rectangle2D(x, y, wide, 19);
        }
        taken.add(place);
        pen.fill(Palette.CHART, x, y, wide, 18);
        pen.frame(Palette.RULE, x, y, wide, 18);
        pen.text(words, Fonts.words(11), Palette.INK, x + 6, y + 13);
    }

    private String label(StopMap.Handle handle) {
        ExitTerms of = terms.orElseThrow();
        return switch (handle.kind()) {
            case STOP -> "stop " + of.stop().orElseThrow().distance().words();
            case BREAKEVEN -> "breakeven after " + of.breakeven().orElseThrow().after().orElseThrow().words() + ", to "
                    + Format.signed(handle.level());
            case TRAIL -> {
                ExitTerms.TrailStep step = of.trail().get(handle.index());
                yield "trail from " + step.activate().words() + ", " + step.distance().words() + " behind, every "
                        + step.step().words();
            }
            case TARGET -> {
                ExitTerms.Target target = of.targets().get(handle.index());
                yield "target " + (handle.index() + 1) + ": " + target.quantity() + " at "
                        + target.distance().orElseThrow().words();
            }
        };
    }
}
