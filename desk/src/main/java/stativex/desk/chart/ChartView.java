package stativex.desk.chart;

import stativex.desk.draw.Pen;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.Cursor;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.desk.draw.Sketch;
import stativex.engine.Snapshot;
import stativex.engine.Trade;
import stativex.market.Side;

/**
 * The trading chart: bars as ink on paper, studies as lines, the open trade with its stop and targets, pins, volume, price
 * and time axes, a crosshair. The wheel zooms at the cursor, a drag pans, a double click goes back to the newest bar; by
 * keyboard the arrows move the crosshair, + and − zoom, End follows, Escape hides the crosshair.
 */
public final class ChartView extends Sketch {
    /** Width of the price axis; whatever stands under the chart keeps it free too. */
    public static final double AXIS = 74;
    private static final double TIME_AXIS = 20;
    private static final double VOLUME = 52;

    private final Viewport viewport;
    private final Pins pins = new Pins();
    private final List<Runnable> watchers = new ArrayList<>();
    private Optional<ChartModel> model = Optional.empty();
    private Optional<Pins.Pin> opened = Optional.empty();
    private int cursorBar = -1;
    private double cursorY = Double.NaN;
    private double dragX;
    private boolean dragged;

    /** @param viewport shared with what is drawn under the chart */
    public ChartView(Viewport viewport) {
        this.viewport = viewport;
        setFocusTraversable(true);
        getStyleClass().add("chart");
        setAccessibleText("Chart. Arrow keys move bar by bar.");
        setCursor(Cursor.CROSSHAIR);
        addEventHandler(MouseEvent.MOUSE_MOVED, e -> point(e.getX(), e.getY()));
        addEventHandler(MouseEvent.MOUSE_EXITED, e -> point(-1, Double.NaN));
        addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            requestFocus();
            dragX = e.getX();
            dragged = false;
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, e -> {
            if (dragged || Math.abs(e.getX() - dragX) > 3) {
                dragged = true;
                viewport.drag(e.getX() - dragX, bars());
                dragX = e.getX();
                changed();
            }
        });
        addEventHandler(MouseEvent.MOUSE_CLICKED, this::click);
        addEventHandler(ScrollEvent.SCROLL, e -> {
            viewport.zoom(Math.pow(1.0015, e.getDeltaY()), e.getX());
            changed();
            e.consume();
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
    }

    /** Called whenever view or crosshair moved by hand. */
    public void onMove(Runnable watcher) {
        watchers.add(watcher);
    }

    /** The bar under the crosshair; empty when there is none. */
    public Optional<Integer> cursorBar() {
        return cursorBar >= 0 && cursorBar < bars() ? Optional.of(cursorBar) : Optional.empty();
    }

    public void show(ChartModel shown) {
        model = Optional.of(shown);
        repaint();
    }

    private int bars() {
        return model.map(ChartModel::bars).orElse(0);
    }

    private void changed() {
        repaint();
        watchers.forEach(Runnable::run);
    }

    private void point(double x, double y) {
        cursorBar = x < 0 || x > viewport.plotWidth() ? -1 : Math.min(viewport.barAt(x), bars() - 1);
        cursorY = y;
        changed();
    }

    private void click(MouseEvent e) {
        if (e.getClickCount() == 2) {
            viewport.follow();
        } else if (!dragged) {
            opened = pins.at(e.getX(), e.getY());
        }
        changed();
    }

    private void key(KeyEvent e) {
        switch (e.getCode()) {
            case LEFT, RIGHT -> {
                int step = (e.getCode() == javafx.scene.input.KeyCode.LEFT ? -1 : 1) * (e.isShiftDown() ? 10 : 1);
                cursorBar = Math.clamp(cursorBar < 0 ? bars() - 1 : (long) cursorBar + step, 0,
                        Math.max(0, bars() - 1));
                cursorY = Double.NaN;
                viewport.reveal(cursorBar, bars());
            }
            case PLUS, EQUALS, ADD -> viewport.zoom(1.2, viewport.plotWidth());
            case MINUS, SUBTRACT -> viewport.zoom(1 / 1.2, viewport.plotWidth());
            case HOME -> viewport.drag(viewport.plotWidth(), bars());
            case END -> viewport.follow();
            case ESCAPE -> {
                cursorBar = -1;
                cursorY = Double.NaN;
                opened = Optional.empty();
            }
            default -> {
                return;
            }
        }
        e.consume();
        changed();
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        double plot = width - AXIS;
        double priceHeight = height - TIME_AXIS - VOLUME - 8;
        pen.fill(Palette.CHART, 0, 0, width, height);
        viewport.plotWidth(plot);
        if (model.isEmpty() || bars() == 0) {
            pen.text("No bar yet: press Play.", Fonts.words(13), Palette.MUTED, 14, 24);
            return;
        }
        ChartModel m = model.get();
        boolean position = m.strategy().position().isPresent();
        viewport.newest(m.bars(), position ? 262 : 104);
        int first = viewport.firstBar();
        int last = Math.min(m.bars() - 1, viewport.barAt(plot));
        PriceScale scale = scale(m, first, last, priceHeight);
        grid(pen, m, scale, plot, width);
        breaks(pen, m, first, last, priceHeight);
        volume(pen, m, first, last, height - TIME_AXIS - VOLUME);
        pen.clip(0, 0, plot, priceHeight + 4);
        bars(pen, m, scale, first, last);
        StudyLines.draw(pen, m, viewport, scale, first, last, priceHeight);
        pins.draw(pen, m, viewport, scale, first, last);
        pen.unclip();
        m.strategy().position().ifPresent(p -> trade(pen, m, p, scale, plot, priceHeight));
        m.lastPrice()
                .ifPresent(price -> tag(pen, Format.price(m.contract(), price), scale.y(price), plot, width, true));
        times(pen, m, first, last, height, plot);
        crosshair(pen, m, scale, priceHeight, height, width);
        opened.ifPresent(pin -> pins.callout(pen, pin, plot));
    }

    private static PriceScale scale(ChartModel m, int first, int last, double height) {
        long lowest = Long.MAX_VALUE;
        long highest = Long.MIN_VALUE;
        for (int bar = first; bar <= last; bar++) {
            lowest = Math.min(lowest, m.low(bar));
            highest = Math.max(highest, m.high(bar));
        }
        if (lowest > highest) {
            lowest = m.low(m.bars() - 1);
            highest = m.high(m.bars() - 1);
        }
        if (m.strategy().position().isPresent()) {
            Snapshot.PositionView p = m.strategy().position().get();
            for (Snapshot.OrderView target : p.targets()) {
                lowest = Math.min(lowest, target.price().orElse(lowest));
                highest = Math.max(highest, target.price().orElse(highest));
            }
            for (Trade.StopPoint stop : m.strategy().trade().map(Trade::stops).orElse(List.of())) {
                lowest = Math.min(lowest, stop.level());
                highest = Math.max(highest, stop.level());
            }
        }
        return new PriceScale(6, height - 6, lowest, highest);
    }

    private static void grid(Pen pen, ChartModel m, PriceScale scale, double plot, double width) {
        for (long level : scale.grid(44)) {
            double y = Math.round(scale.y(level));
            pen.fill(Palette.FAINT, 0, y, plot, 1);
            // the tag of the last price stands there instead
            if (m.lastPrice().isEmpty() || Math.abs(scale.y(m.lastPrice().get()) - y) > 15) {
                pen.rightAligned(Format.price(m.contract(), level), Fonts.figures(11), Palette.MUTED, width - 8, y + 4);
            }
        }
        pen.fill(Palette.RULE, plot, 0, 1, 4000);
    }

    private void breaks(Pen pen, ChartModel m, int first, int last, double height) {
        for (int bar = Math.max(1, first); bar <= last; bar++) {
            if (m.begins(bar)) {
                double x = Math.round(viewport.x(bar)) + 0.5;
                pen.line(Palette.RULE, 1, x, 0, x, height, 3, 3);
            }
        }
    }

    private void volume(Pen pen, ChartModel m, int first, int last, double top) {
        long most = 1;
        for (int bar = first; bar <= last; bar++) {
            most = Math.max(most, m.volume(bar));
        }
        double body = body();
        for (int bar = first; bar <= last; bar++) {
            double h = Math.max(1, Math.round((VOLUME - 12) * m.volume(bar) / most));
            pen.fill(Palette.SOFT, Math.round(viewport.centre(bar) - body / 2), top + VOLUME - h, body, h);
        }
        pen.fill(Palette.RULE, 0, top + VOLUME, viewport.plotWidth(), 1);
        pen.text("volume, most " + Format.grouped(Long.toString(most)), Fonts.words(10), Palette.MUTED, 8, top + 8);
    }

    /** Width of a bar's body, odd so that its wick stands in the middle. */
    private double body() {
        double width = Math.max(1, Math.floor(viewport.barWidth() * 0.66));
        return width % 2 == 0 ? width - 1 : width;
    }

    private void bars(Pen pen, ChartModel m, PriceScale scale, int first, int last) {
        double body = body();
        for (int bar = first; bar <= last; bar++) {
            double left = Math.round(viewport.centre(bar) - body / 2);
            double high = Math.round(scale.y(m.high(bar)));
            double low = Math.round(scale.y(m.low(bar)));
            double open = Math.round(scale.y(m.open(bar)));
            double close = Math.round(scale.y(m.close(bar)));
            double top = Math.min(open, close);
            double height = Math.max(1, Math.abs(open - close));
            double middle = left + Math.floor(body / 2);
            if (body < 3) {
                pen.fill(Palette.SLATE, middle, high, 1, Math.max(1, low - high));
            } else if (m.close(bar) >= m.open(bar)) {
                pen.fill(Palette.SLATE, middle, high, 1, top - high);
                pen.fill(Palette.SLATE, middle, top + height, 1, Math.max(0, low - top - height));
                pen.frame(Palette.SLATE, left, top, body, Math.max(2, height));
            } else {
                pen.fill(Palette.SLATE, middle, high, 1, Math.max(1, low - high));
                pen.fill(Palette.SLATE, left, top, body, height);
            }
        }
    }

    private void trade(Pen pen, ChartModel m, Snapshot.PositionView p, PriceScale scale, double plot, double height) {
        LabelStack labels = new LabelStack();
        boolean isLong = p.side() == Side.LONG;
        double average = (double) p.averageSum() / p.averageQuantity();
        labels.add((isLong ? "LONG " : "SHORT ") + p.open() + " @ " + Format.grouped(
                m.contract().meanText(p.averageSum(), p.averageQuantity())), isLong ? Palette.LONG : Palette.SHORT,
                isLong ? Palette.LONG : Palette.SHORT_TEXT, scale.y(average), true);
        p.stop().ifPresent(stop -> {
            long now = distance(p, stop);
            long initial = m.strategy().trade().flatMap(t -> t.initialStop()).orElse(0L);
            String from = -initial == now ? "" : Format.ticks(-initial) + " → ";
            labels.add("STOP " + p.open() + "  " + from + Format.ticks(now), Palette.TRIP, Palette.TRIP, scale.y(stop),
                    false);
        });
        for (Snapshot.OrderView target : p.targets()) {
            long price = target.price().orElseThrow();
            labels.add("TARGET " + target.rest() + "  " + Format.ticks(distance(p, price)), Palette.INK, Palette.INK,
                    scale.y(price), true);
        }
        double newest = viewport.x(m.bars());
        // the lines begin right of the studies' names
        labels.draw(pen, Fonts.figures(11), Math.min(newest + 80, plot - 40), plot - 4, 2, height);
    }

    private static long distance(Snapshot.PositionView p, long price) {
        return Math.floorDiv(p.side().sign() * (price * p.averageQuantity() - p.averageSum()), p.averageQuantity());
    }

    private static void tag(Pen pen, String text, double y, double plot, double width, boolean solid) {
        double top = Math.round(y) - 9;
        pen.fill(solid ? Palette.INK : Palette.SLATE, plot + 1, top, width - plot - 1, 18);
        pen.rightAligned(text, Fonts.figures(11), Palette.CHART, width - 8, top + 13);
    }

    private void times(Pen pen, ChartModel m, int first, int last, double height, double plot) {
        double free = 4;
        for (int bar = first; bar <= last; bar++) {
            boolean begins = m.begins(bar);
            double x = viewport.centre(bar);
            if (begins || x > free + 54) {
                String text = Format.minute(m.start(bar), m.zone());
                double w = pen.width(text, Fonts.figures(10.5));
                if (x - w / 2 > free && x + w / 2 < plot) {
                    pen.fill(Palette.RULE, Math.round(x), height - TIME_AXIS, 1, 4);
                    pen.centred(text, Fonts.figures(10.5), Palette.MUTED, x, height - 5);
                    free = x + w / 2;
                }
            }
        }
    }

    private void crosshair(Pen pen, ChartModel m, PriceScale scale, double priceHeight, double height, double width) {
        if (cursorBar().isEmpty()) {
            return;
        }
        double x = Math.round(viewport.centre(cursorBar)) + 0.5;
        pen.line(Palette.SLATE, 1, x, 0, x, height - TIME_AXIS, 2, 2);
        String time = Format.clock(m.start(cursorBar), m.zone());
        double w = pen.width(time, Fonts.figures(10.5)) + 10;
        double left = Math.clamp(x - w / 2, 0, Math.max(0, viewport.plotWidth() - w));
        pen.fill(Palette.SLATE, left, height - TIME_AXIS + 1, w, TIME_AXIS - 3);
        pen.text(time, Fonts.figures(10.5), Palette.CHART, left + 5, height - 6);
        if (cursorY > 0 && cursorY < priceHeight) {
            double y = Math.round(cursorY) + 0.5;
            pen.line(Palette.SLATE, 1, 0, y, viewport.plotWidth(), y, 2, 2);
            tag(pen, Format.price(m.contract(), Math.round(scale.price(cursorY))), y, viewport.plotWidth(), width,
                    false);
        }
    }
}
