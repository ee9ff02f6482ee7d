package stativex.desk.chart;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.scene.Cursor;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import stativex.desk.draw.NextFrame;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.draw.SvgPen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.engine.Trade;
import stativex.market.Drawing;

/**
 * The trading chart: bars as ink on paper or opened up into flow, studies as lines, the open trade with its stop and
 * targets, pins, drawn lines and markers, panels, price and time axes, a crosshair. The wheel zooms at the cursor, a drag
 * pans, dragging an axis stretches it, a double click on an axis fits it, on the chart goes back to the newest bar. By
 * keyboard the arrows move the crosshair, + and − zoom (with Ctrl the price axis), Home shows all bars, End follows, L, S
 * and M draw at the crosshair, O takes an order by its handle, N selects the next drawing, Alt with arrows moves it, Delete takes it away, Ctrl+Z takes the last change back,
 * Escape lets go.
 */
public final class ChartView extends Sketch {
    /** Width of the gutter; whatever stands under the chart keeps it free too. */
    public static final double AXIS = Gutter.WIDTH;
    /** However low the chart is, what it draws of prices has some height. */
    private static final double LEAST_PRICE = 24;

    /** What the next click draws. */
    public enum Tool {
        NONE, LEVEL, SLOPE, MARKER
    }

    /** Where a drag began. */
    private enum Area {
        CHART, PRICES, TIMES
    }

    private final Viewport viewport;
    private final Pins pins = new Pins();
    private final List<Runnable> watchers = new ArrayList<>();
    private final ChartLink.Follower follower = this::follow;
    private final NextFrame told = new NextFrame(this, () -> watchers.forEach(Runnable::run));
    private Optional<ChartModel> model = Optional.empty();
    private ChartOptions options = ChartOptions.PLAIN;
    private Panels panels;
    private Optional<ChartSpace> painted = Optional.empty();
    private Optional<PriceScale> held = Optional.empty();
    private Optional<Pins.Pin> opened = Optional.empty();
    private Optional<Drawings> drawings = Optional.empty();
    private Optional<ChartLink> link = Optional.empty();
    private Optional<OrderHandles> handles = Optional.empty();
    private Optional<Drawing.Marker> slopeBegun = Optional.empty();
    private Tool tool = Tool.NONE;
    private Area area = Area.CHART;
    private int cursorBar = -1;
    private double cursorY = Double.NaN;
    private double lastX;
    private double lastY;
    private boolean dragged;
    private boolean drawingHeld;
    private boolean dayWanted;

    /** @param viewport shared with what is drawn under the chart */
    public ChartView(Viewport viewport) {
        this.viewport = viewport;
        setFocusTraversable(true);
        getStyleClass().add("chart");
        setAccessibleText("Chart. Arrow keys move bar by bar.");
        setCursor(Cursor.CROSSHAIR);
        addEventHandler(MouseEvent.MOUSE_MOVED, e -> {
            setCursor(switch (area(e.getX(), e.getY())) {
                case CHART -> onHandle(e) ? Cursor.V_RESIZE : Cursor.CROSSHAIR;
                case PRICES -> Cursor.V_RESIZE;
                case TIMES -> Cursor.H_RESIZE;
            });
            point(e.getX(), e.getY());
        });
        addEventHandler(MouseEvent.MOUSE_EXITED, e -> point(-1, Double.NaN));
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::press);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::drag);
        addEventHandler(MouseEvent.MOUSE_RELEASED, e -> {
            if (drawingHeld && dragged) {
                drawings.ifPresent(Drawings::moved);
            }
            drawingHeld = false;
            handles.ifPresent(OrderHandles::release);
        });
        addEventHandler(MouseEvent.MOUSE_CLICKED, this::click);
        addEventHandler(ScrollEvent.SCROLL, e -> {
            double factor = Math.pow(1.0015, e.getDeltaY());
            if (area(e.getX(), e.getY()) == Area.PRICES) {
                stretch(1 / factor);
            } else {
                viewport.zoom(factor, e.getX());
            }
            changed();
            e.consume();
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
    }

    /** Called with the frame after view or crosshair moved by hand. */
    public void onMove(Runnable watcher) {
        watchers.add(watcher);
    }

    /** The bar under the crosshair; empty when there is none. */
    public Optional<Integer> cursorBar() {
        return cursorBar >= 0 && cursorBar < count() ? Optional.of(cursorBar) : Optional.empty();
    }

    public void show(ChartModel shown) {
        model = Optional.of(shown);
        repaint();
    }

    public Optional<ChartModel> model() {
        return model;
    }

    public ChartOptions options() {
        return options;
    }

    public void options(ChartOptions other) {
        options = other;
        repaint();
    }

    /** Lets the person move orders. @param moved told an order and the price that is wanted for it, ticks */
    public void movesOrders(BiConsumer<Snapshot.OrderView, Long> moved) {
        handles = Optional.of(new OrderHandles(moved));
    }

    /** Keeps what is wanted for an order on the chart while it is a question; empty: it has been answered. */
    public void asks(Optional<Snapshot.OrderView> order, long wanted) {
        handles.ifPresent(h -> order.ifPresentOrElse(o -> h.asks(o, wanted), h::answered));
        repaint();
    }

    private boolean onHandle(MouseEvent e) {
        return handles.isPresent() && painted.isPresent() && handles.get().at(painted.get(), e.getX(), e.getY());
    }

    /** Draws these, and lets the person draw and move them. */
    public void drawings(Drawings drawn) {
        drawings = Optional.of(drawn);
        repaint();
    }

    public Optional<Drawings> drawings() {
        return drawings;
    }

    public Tool tool() {
        return tool;
    }

    /** What the next click draws. */
    public void tool(Tool next) {
        tool = next;
        slopeBegun = Optional.empty();
    }

    /** Follows the crosshairs of the other charts in the link. */
    public void link(ChartLink with) {
        unlink();
        link = Optional.of(with);
        with.join(follower);
    }

    /** Leaves the link. */
    public void unlink() {
        link.ifPresent(l -> l.leave(follower));
        link = Optional.empty();
    }

    private void follow(String contract, Optional<Long> time) {
        if (!model.map(m -> m.bars().contract().symbol().equals(contract)).orElse(false)) {
            return;
        }
        pointAt(time);
        told.ask();
    }

    /** Puts the crosshair on the bar of a time; empty: takes it away. */
    public void pointAt(Optional<Long> time) {
        cursorBar = time.isPresent() && count() > 0 ? model.orElseThrow().bars().barAt(time.get()) : -1;
        cursorY = Double.NaN;
        repaint();
    }

    /** Shows what strategies on other bars of this chart's tape are doing; nothing for an empty list. */
    public void running(List<ChartModel.StrategyLayer> now) {
        if (model.isPresent() && !model.get().looksLike(now)) {
            show(model.get().with(now));
        }
    }

    /** Shows the last trading day, as a first look at a tape. */
    public void lastDay() {
        dayWanted = true;
        changed();
    }

    /** Whether the price axis fits the bars in view by itself. */
    public boolean fitsPrices() {
        return held.isEmpty();
    }

    /** Lets the price axis fit the bars in view again. */
    public void fitPrices() {
        held = Optional.empty();
        changed();
    }

    public Viewport viewport() {
        return viewport;
    }

    /** The price under the crosshair, ticks; empty when it points at none. */
    public Optional<Long> cursorPrice() {
        return Double.isNaN(cursorY) || cursorY < 0 || cursorBar().isEmpty()
                ? Optional.empty()
                : painted.map(s -> Math.round(s.scale().price(cursorY)));
    }

    /** The height at which a price is drawn, pixels from the top; empty before anything is. */
    public Optional<Double> height(long price) {
        return painted.map(s -> s.scale().y(price));
    }

    /** Where the handles of orders stand, pixels from the left. */
    public double handles() {
        return viewport.plotWidth() - OrderHandles.MIDDLE;
    }

    /** The chart as it stands, as a Scalable Vector Graphics document. */
    public String svg() {
        SvgPen pen = new SvgPen(Math.floor(getWidth()), Math.floor(getHeight()));
        paint(pen, Math.floor(getWidth()), Math.floor(getHeight()));
        return pen.document();
    }

    private int count() {
        return model.map(m -> m.bars().count()).orElse(0);
    }

    private void changed() {
        repaint();
        told.ask();
    }

    private Area area(double x, double y) {
        return x > viewport.plotWidth()
                ? Area.PRICES
                : y > getHeight() - Axes.height(options) ? Area.TIMES : Area.CHART;
    }

    private void point(double x, double y) {
        cursorBar = x < 0 || x > viewport.plotWidth() ? -1 : Math.min(viewport.barAt(x), count() - 1);
        cursorY = y;
        tellLink();
        changed();
    }

    private void tellLink() {
        model.ifPresent(m -> link.ifPresent(l -> l.point(follower, m.bars().contract().symbol(),
                cursorBar().map(bar -> m.bars().start(bar)))));
    }

    private void press(MouseEvent e) {
        requestFocus();
        lastX = e.getX();
        lastY = e.getY();
        dragged = false;
        area = area(e.getX(), e.getY());
        if (area == Area.CHART && painted.isPresent()
                && handles.map(h -> h.press(painted.get(), e.getX(), e.getY())).orElse(false)) {
            drawingHeld = false;
            changed();
            return;
        }
        drawingHeld = area == Area.CHART && tool == Tool.NONE && painted.isPresent()
                && drawings.map(d -> d.select(painted.get(), e.getX(), e.getY())).orElse(false);
        changed();
    }

    private void drag(MouseEvent e) {
        double dx = e.getX() - lastX;
        double dy = e.getY() - lastY;
        if (!dragged && Math.hypot(dx, dy) <= 3) {
            return;
        }
        dragged = true;
        if (handles.isPresent() && painted.isPresent() && handles.get().drag(painted.get(), e.getY())) {
            changed();
            return;
        }
        if (drawingHeld) {
            drawings.orElseThrow().drag(painted.orElseThrow(), lastX, lastY, e.getX(), e.getY());
        } else {
            switch (area) {
                case CHART -> {
                    viewport.drag(dx, count());
                    held = held.map(scale -> scale.moved(dy));
                }
                case PRICES -> stretch(Math.exp(dy / 150));
                case TIMES -> viewport.zoom(Math.exp(dx / 150), viewport.plotWidth());
            }
        }
        lastX = e.getX();
        lastY = e.getY();
        changed();
    }

    private void stretch(double factor) {
        held = held.or(() -> painted.map(ChartSpace::scale)).map(scale -> scale.stretched(factor));
    }

    private void click(MouseEvent e) {
        if (e.getClickCount() == 2) {
            switch (area(e.getX(), e.getY())) {
                case PRICES -> held = Optional.empty();
                case TIMES -> viewport.fit(count());
                case CHART -> viewport.follow();
            }
        } else if (!dragged && tool != Tool.NONE) {
            painted.ifPresent(s -> place(tool, viewport.barAt(e.getX()), Math.round(s.scale().price(e.getY()))));
        } else if (!dragged) {
            open(pins.at(e.getX(), e.getY()));
        }
        changed();
    }

    /** Draws at a bar and a price; a slope takes two calls. */
    private void place(Tool what, int bar, long price) {
        if (drawings.isEmpty() || count() == 0) {
            return;
        }
        long time = model.orElseThrow().bars().start(Math.clamp(bar, 0, count() - 1));
        Drawings drawn = drawings.get();
        switch (what) {
            case NONE -> {
                return;
            }
            case LEVEL -> drawn.add(new Drawing.Level("level", price));
            case MARKER -> drawn.add(new Drawing.Marker("marker", time, price));
            case SLOPE -> {
                if (slopeBegun.isEmpty()) {
                    slopeBegun = Optional.of(new Drawing.Marker("", time, price));
                    return;
                }
                Drawing.Marker begun = slopeBegun.get();
                drawn.add(new Drawing.Slope("slope", begun.time(), begun.price(), time, price));
            }
        }
        tool(Tool.NONE);
    }

    private void key(KeyEvent e) {
        if (handles.isPresent() && painted.isPresent() && handles.get().key(painted.get(), e)) {
            setAccessibleHelp(handles.get().words(painted.get()).orElse(null));
            e.consume();
            changed();
            return;
        }
        if (e.isAltDown() && drawings.flatMap(Drawings::selected).isPresent() && painted.isPresent()) {
            moveSelected(e);
            return;
        }
        switch (e.getCode()) {
            case LEFT, RIGHT -> {
                int step = (e.getCode() == KeyCode.LEFT ? -1 : 1) * (e.isShiftDown() ? 10 : 1);
                cursorBar = Math.clamp(cursorBar < 0 ? count() - 1 : (long) cursorBar + step, 0,
                        Math.max(0, count() - 1));
                cursorY = Double.NaN;
                viewport.reveal(cursorBar, count());
                tellLink();
            }
            case PLUS, EQUALS, ADD -> zoom(1.2, e.isShortcutDown());
            case MINUS, SUBTRACT -> zoom(1 / 1.2, e.isShortcutDown());
            case HOME -> viewport.fit(count());
            case END -> {
                viewport.follow();
                held = Optional.empty();
            }
            case SPACE -> open(pins.next(cursorBar, opened));
            case L -> placeAtCursor(Tool.LEVEL);
            case M -> placeAtCursor(Tool.MARKER);
            case S -> placeAtCursor(Tool.SLOPE);
            case N -> drawings.ifPresent(Drawings::selectNext);
            case Z -> {
                if (!e.isShortcutDown() || !drawings.map(Drawings::undo).orElse(false)) {
                    return;
                }
            }
            case DELETE, BACK_SPACE -> drawings.ifPresent(Drawings::remove);
            case ESCAPE -> {
                cursorBar = -1;
                cursorY = Double.NaN;
                open(Optional.empty());
                tool(Tool.NONE);
                drawings.ifPresent(Drawings::deselect);
            }
            default -> {
                return;
            }
        }
        e.consume();
        changed();
    }

    /** Shows a pin's words, for a screen reader too. */
    private void open(Optional<Pins.Pin> pin) {
        opened = pin;
        setAccessibleHelp(pin.map(p -> String.join(". ", p.words())).orElse(null));
    }

    private void zoom(double factor, boolean prices) {
        if (prices) {
            stretch(1 / factor);
        } else {
            viewport.zoom(factor, viewport.plotWidth());
        }
    }

    private void placeAtCursor(Tool what) {
        cursorBar().ifPresent(bar -> {
            if (tool != what) {
                tool(what);
            }
            place(what, bar, Double.isNaN(cursorY) || painted.isEmpty()
                    ? model.orElseThrow().bars().close(bar)
                    : Math.round(painted.get().scale().price(cursorY)));
        });
    }

    private void moveSelected(KeyEvent e) {
        int ticks = e.getCode() == KeyCode.UP ? 1 : e.getCode() == KeyCode.DOWN ? -1 : 0;
        int bars = e.getCode() == KeyCode.RIGHT ? 1 : e.getCode() == KeyCode.LEFT ? -1 : 0;
        if (ticks != 0 || bars != 0) {
            drawings.orElseThrow().move(painted.orElseThrow(), ticks, bars, true, true);
            drawings.orElseThrow().moved();
            e.consume();
            changed();
        }
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        viewport.plotWidth(width - AXIS);
        if (count() == 0) {
            pen.text("No bar yet.", Fonts.words(13), Palette.MUTED, 14, 24);
            painted = Optional.empty();
            return;
        }
        ChartSpace s = space(model.orElseThrow(), width, height);
        painted = Optional.of(s);
        Gutter gutter = gutter(s);
        Axes.prices(pen, s, gutter);
        Axes.breaks(pen, s);
        panels.draw(pen, s);
        pen.clip(0, 0, s.plot(), s.priceHeight() + 4);
        if (FlowArt.fits(s)) {
            FlowArt.draw(pen, s);
        } else {
            BarArt.draw(pen, s);
        }
        StudyLines.draw(pen, s);
        MarkArt.draw(pen, s);
        drawings.ifPresent(d -> d.draw(pen, s));
        pen.unclip();
        pen.clip(-Pins.REACH, 0, s.plot() + Pins.REACH, s.priceHeight() + 4);
        pins.draw(pen, s);
        TradeArt.draw(pen, s);
        s.bars().nextCloses().ifPresent(next -> nextCloses(pen, s, next));
        pen.unclip();
        gutter.draw(pen, s.plot(), s.width());
        Axes.times(pen, s);
        handles.ifPresent(h -> h.draw(pen, s));
        crosshair(pen, s);
        opened.flatMap(pins::again).ifPresent(pin -> pins.callout(pen, pin, s.plot()));
    }

    /** Every row that stands beside the prices. */
    private Gutter gutter(ChartSpace s) {
        Gutter gutter = new Gutter();
        StudyLines.rows(s, gutter, cursorBar());
        TradeArt.rows(s, gutter);
        drawings.ifPresent(d -> d.rows(s, gutter));
        s.bars().nextCloses().ifPresent(next -> {
            for (int i = 0; i < 2; i++) {
                if (s.scale().shows(next[i])) {
                    gutter.plain(i == 0 ? "next up" : "next down", Format.price(s.bars().contract(), next[i]),
                            s.scale().y(next[i]), Palette.SLATE);
                }
            }
        });
        s.model().lastPrice().filter(s.scale()::shows).ifPresent(
                price -> gutter.solid("last", Format.price(s.bars().contract(), price), s.scale().y(price)));
        gutter.settle(2, s.priceHeight());
        return gutter;
    }

    /** The two prices at which the brick under way can close. */
    private static void nextCloses(Pen pen, ChartSpace s, long[] next) {
        double from = s.viewport().x(s.bars().count()) + 4;
        for (long price : next) {
            double y = Math.round(s.scale().y(price)) + 0.5;
            if (from < s.plot() && s.scale().shows(price)) {
                pen.line(Palette.SLATE, 1, from, y, s.plot(), y, 4, 3);
            }
        }
    }

    private ChartSpace space(ChartModel m, double width, double height) {
        double plot = width - AXIS;
        panels = Panels.fitting(m, options, height - Axes.height(options));
        double priceHeight = Math.max(LEAST_PRICE, height - Axes.height(options) - panels.height());
        if (dayWanted) {
            viewport.followAll(m.bars().count() - m.bars().lastDay(), ROOM);
            dayWanted = false;
        }
        viewport.newest(m.bars().count(), ROOM);
        int first = viewport.firstBar();
        int last = Math.clamp(viewport.barAt(plot), 0, m.bars().count() - 1);
        first = Math.min(first, last);
        PriceScale scale = held.isPresent()
                ? PriceScale.fitting(6, priceHeight - 6, 0, 1).between(held.get().lowest(), held.get().highest())
                : fitting(m, first, last, priceHeight);
        return new ChartSpace(m, options, viewport, scale, first, last, plot, priceHeight, width, height);
    }

    /** What is kept free beside the newest bar: the brick or bar that comes next, and lines to tags. */
    private static final double ROOM = 12;

    /** Bars and the open trade decide what the price axis shows; studies far off do not. */
    private static PriceScale fitting(ChartModel m, int first, int last, double height) {
        double lowest = m.bars().lowest(first, last + 1);
        double highest = m.bars().highest(first, last + 1);
        for (ChartModel.Held view : m.strategy().isPresent() ? m.positions() : List.<ChartModel.Held>of()) {
            for (Snapshot.OrderView target : view.position().targets()) {
                double price = target.price().orElse(m.bars().close(last));
                lowest = Math.min(lowest, price);
                highest = Math.max(highest, price);
            }
            for (Trade.StopPoint stop : view.trade().map(Trade::stops).orElse(List.of())) {
                lowest = Math.min(lowest, stop.level());
                highest = Math.max(highest, stop.level());
            }
        }
        return PriceScale.fitting(6, height - 6, lowest, highest);
    }

    private void crosshair(Pen pen, ChartSpace s) {
        if (cursorBar().isEmpty()) {
            return;
        }
        double x = Math.round(viewport.centre(cursorBar)) + 0.5;
        pen.line(Palette.SLATE, 1, x, 0, x, s.height() - Axes.height(options), 2, 2);
        Axes.time(pen, s, cursorBar, x);
        if (cursorY > 0 && cursorY < s.priceHeight()) {
            double y = Math.round(cursorY) + 0.5;
            pen.line(Palette.SLATE, 1, 0, y, s.plot(), y, 2, 2);
            Axes.tag(pen, s, s.price(Math.round(s.scale().price(cursorY))), y);
            if (slopeBegun.isPresent()) {
                pen.line(Palette.INK, 1, viewport.centre(s.bars().barAt(slopeBegun.get().time())),
                        s.scale().y(slopeBegun.get().price()), x, y, 4, 3);
            }
        }
    }
}
