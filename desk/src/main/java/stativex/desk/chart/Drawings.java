package stativex.desk.chart;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.market.Drawing;

/**
 * What the person drew on a chart: painted, found under the mouse, moved, named. Every change is told to whoever keeps
 * them. Ink only: drawn things mean nothing to the automation unless a rule names them.
 */
public final class Drawings {
    private static final double NEAR = 6;

    private final List<Drawing> drawings;
    private final Consumer<List<Drawing>> keeper;
    private final Deque<List<Drawing>> before = new ArrayDeque<>();
    private List<Drawing> kept;
    private int selected = -1;

    /** @param keeper is given all of them after each change */
    public Drawings(List<Drawing> drawings, Consumer<List<Drawing>> keeper) {
        this.drawings = new ArrayList<>(drawings);
        this.keeper = keeper;
        this.kept = List.copyOf(drawings);
    }

    /** Tells of a change, and remembers what was before it. */
    private void keep() {
        before.push(kept);
        kept = all();
        keeper.accept(kept);
    }

    /** Takes the last change back. Returns whether there was one. */
    boolean undo() {
        if (before.isEmpty()) {
            return false;
        }
        kept = before.pop();
        drawings.clear();
        drawings.addAll(kept);
        selected = -1;
        keeper.accept(kept);
        return true;
    }

    /** Whether a change can be taken back. */
    public boolean canUndo() {
        return !before.isEmpty();
    }

    public List<Drawing> all() {
        return List.copyOf(drawings);
    }

    public Optional<Drawing> selected() {
        return selected < 0 ? Optional.empty() : Optional.of(drawings.get(selected));
    }

    /** Adds one with a name that no other has, and selects it. */
    public void add(Drawing drawing) {
        String kind = drawing.name();
        int number = 1;
        while (has(kind + " " + number)) {
            number++;
        }
        drawings.add(drawing.named(kind + " " + number));
        selected = drawings.size() - 1;
        keep();
    }

    private boolean has(String name) {
        return drawings.stream().anyMatch(d -> d.name().equals(name));
    }

    /** Renames the selected one; a name that is empty or taken is refused with the reason. */
    public Optional<String> rename(String name) {
        if (selected < 0 || drawings.get(selected).name().equals(name)) {
            return Optional.empty();
        }
        if (name.isBlank()) {
            return Optional.of("a name is needed");
        }
        if (has(name)) {
            return Optional.of("there is one of that name already");
        }
        drawings.set(selected, drawings.get(selected).named(name));
        keep();
        return Optional.empty();
    }

    /** Takes the selected one away. */
    public void remove() {
        if (selected >= 0) {
            drawings.remove(selected);
            selected = -1;
            keep();
        }
    }

    /** Selects the next one, the first after the last. */
    void selectNext() {
        selected = drawings.isEmpty() ? -1 : (selected + 1) % drawings.size();
    }

    void deselect() {
        selected = -1;
    }

    /** Selects what lies under a pixel. Returns whether there is something. */
    boolean select(ChartSpace s, double x, double y) {
        selected = -1;
        for (int i = 0; i < drawings.size(); i++) {
            if (isNear(s, drawings.get(i), x, y)) {
                selected = i;
            }
        }
        return selected >= 0;
    }

    private static boolean isNear(ChartSpace s, Drawing drawing, double x, double y) {
        return switch (drawing) {
            case Drawing.Level level -> Math.abs(s.scale().y(level.price()) - y) < NEAR;
            case Drawing.Marker marker ->
                Math.hypot(x(s, marker.time()) - x, s.scale().y(marker.price()) - y) < NEAR + 4;
            case Drawing.Slope slope -> {
                double x1 = x(s, slope.time1());
                double x2 = x(s, slope.time2());
                double y1 = s.scale().y(slope.price1());
                double y2 = s.scale().y(slope.price2());
                double at = x2 == x1 ? y1 : y1 + (y2 - y1) * (x - x1) / (x2 - x1);
                yield x > Math.min(x1, x2) - NEAR && Math.abs(at - y) < NEAR;
            }
        };
    }

    /**
     * Moves the selected one as the mouse went from one pixel to another: a line near one of its two points moves that point,
     * elsewhere the whole. Kept by {@link #moved()}.
     */
    void drag(ChartSpace s, double fromX, double fromY, double toX, double toY) {
        long ticks = Math.round(s.scale().price(toY)) - Math.round(s.scale().price(fromY));
        int bars = s.viewport().barAt(toX) - s.viewport().barAt(fromX);
        boolean first = true;
        boolean second = true;
        if (selected().orElse(null) instanceof Drawing.Slope slope) {
            double one = Math.hypot(x(s, slope.time1()) - fromX, s.scale().y(slope.price1()) - fromY);
            double two = Math.hypot(x(s, slope.time2()) - fromX, s.scale().y(slope.price2()) - fromY);
            first = one < 12 || two >= 12;
            second = two < 12 && one >= 12 || one >= 12;
        }
        move(s, ticks, bars, first, second);
    }

    /** Moves the selected one by ticks and bars. */
    void move(ChartSpace s, long ticks, int bars, boolean first, boolean second) {
        if (selected < 0) {
            return;
        }
        drawings.set(selected, switch (drawings.get(selected)) {
            case Drawing.Level level -> new Drawing.Level(level.name(), level.price() + ticks);
            case Drawing.Marker marker -> new Drawing.Marker(marker.name(), time(s, marker.time(), bars),
                    marker.price() + ticks);
            case Drawing.Slope slope -> new Drawing.Slope(slope.name(),
                    first ? time(s, slope.time1(), bars) : slope.time1(), slope.price1() + (first ? ticks : 0),
                    second ? time(s, slope.time2(), bars) : slope.time2(), slope.price2() + (second ? ticks : 0));
        });
    }

    /** The selected one was moved: it is kept. */
    void moved() {
        keep();
    }

    private static long time(ChartSpace s, long time, int bars) {
        if (bars == 0) {
            return time;
        }
        int bar = Math.clamp((long) s.bars().barAt(time) + bars, 0, s.bars().count() - 1);
        return s.bars().start(bar);
    }

    private static double x(ChartSpace s, long time) {
        return s.viewport().centre(s.bars().barAt(time));
    }

    void draw(Pen pen, ChartSpace s) {
        long newest = s.bars().end(s.bars().count() - 1);
        for (int i = 0; i < drawings.size(); i++) {
            if (drawings.get(i) instanceof Drawing.Marker m && (m.time() > newest || x(s, m.time()) < 0)
                    || drawings.get(i) instanceof Drawing.Slope l && Math.max(l.time1(), l.time2()) > newest) {
                // a replay has not come that far, or the bars in view begin later
                continue;
            }
            boolean bold = i == selected;
            double weight = bold ? 2 : 1;
            switch (drawings.get(i)) {
                case Drawing.Level level -> {
                    double y = Math.round(s.scale().y(level.price())) + 0.5;
                    pen.line(Palette.INK, weight, 0, y, s.plot(), y);
                }
                case Drawing.Marker marker -> {
                    double x = x(s, marker.time());
                    double y = s.scale().y(marker.price());
                    pen.polygon(bold ? Palette.INK : Palette.CHART, Palette.INK, new double[]{x, x + 5, x, x - 5},
                            new double[]{y - 6, y, y + 6, y});
                    name(pen, marker.name(), x + 9, y + 4);
                }
                case Drawing.Slope slope -> slope(pen, s, slope, weight, bold);
            }
        }
    }

    private static void slope(Pen pen, ChartSpace s, Drawing.Slope slope, double weight, boolean bold) {
        double x1 = x(s, slope.time1());
        double x2 = x(s, slope.time2());
        double y1 = s.scale().y(slope.price1());
        double y2 = s.scale().y(slope.price2());
        double end = Math.max(s.plot(), x2);
        double y = x2 == x1 ? y2 : y1 + (y2 - y1) * (end - x1) / (x2 - x1);
        pen.line(Palette.INK, weight, x1, y1, x2 == x1 ? x2 : end, y);
        if (bold) {
            pen.frame(Palette.INK, x1 - 3, y1 - 3, 7, 7);
            pen.frame(Palette.INK, x2 - 3, y2 - 3, 7, 7);
        }
    }

    /** A row for each line, with its price where the bars end. */
    void rows(ChartSpace s, Gutter gutter) {
        long newest = s.bars().end(s.bars().count() - 1);
        for (Drawing drawing : drawings) {
            switch (drawing) {
                case Drawing.Level level -> row(s, gutter, level.name(), level.price());
                case Drawing.Slope slope -> {
                    double x1 = x(s, slope.time1());
                    double x2 = x(s, slope.time2());
                    double y = s.scale().y(slope.price1()) + (s.scale().y(slope.price2()) - s.scale().y(slope.price1()))
                            * (s.plot() - x1) / (x2 - x1);
                    if (Math.max(slope.time1(), slope.time2()) <= newest && x1 != x2) {
                        row(s, gutter, slope.name(), Math.round(s.scale().price(y)));
                    }
                }
                case Drawing.Marker ignored -> {
                    // its name stands beside it
                }
            }
        }
    }

    private static void row(ChartSpace s, Gutter gutter, String name, long price) {
        if (s.scale().shows(price)) {
            gutter.plain(name, Format.price(s.bars().contract(), price), s.scale().y(price), Palette.INK);
        }
    }

    /** A name on paper of its own, so that it can be read over bars and lines. */
    private static void name(Pen pen, String name, double x, double y) {
        pen.fill(Palette.CHART, x - 2, y - 10, pen.width(name, Fonts.words(10.5)) + 4, 13);
        pen.text(name, Fonts.words(10.5), Palette.INK, x, y);
    }
}
