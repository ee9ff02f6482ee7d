package stativex.desk.tape;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.Pane;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.TapeTime;

/** A week of a calendar as it really runs: a row for each date in the exchange's zone, sessions as blocks, days of 23 and 25 hours said. */
final class WeekPicture extends Pane {
    private static final double ROW = 34;
    private static final double LEFT = 104;
    private static final double TOP = 22;

    /**
     * Where a session begins or ends, on a date that has the week's usual hours.
     *
     * @param open it begins there, else it ends
     */
    record Edge(String session, LocalDate tradingDate, boolean open) {}

    private static final double NEAR = 5;
    private static final int STEP_MINUTES = 15;

    private Optional<Edge> held = Optional.empty();
    private final Canvas canvas = new Canvas();
    private Optional<SessionCalendar> calendar = Optional.empty();
    private LocalDate monday = LocalDate.EPOCH;

    /** @param dragged told of an edge and the time of day it was dragged to */
    WeekPicture(BiConsumer<Edge, LocalTime> dragged) {
        getChildren().add(canvas);
        setId("contract-week-picture");
        setOnMouseMoved(e -> setCursor(edge(e.getX(), e.getY()).isPresent() ? Cursor.H_RESIZE : Cursor.DEFAULT));
        setOnMousePressed(e -> held = edge(e.getX(), e.getY()));
        setOnMouseDragged(e -> held.ifPresent(edge -> dragged.accept(edge, clock(e.getX()))));
        setOnMouseReleased(e -> held = Optional.empty());
        setMinHeight(TOP + 7 * ROW + 4);
        setPrefHeight(TOP + 7 * ROW + 4);
        setMinWidth(300);
        setAccessibleText("The week's sessions");
        Tooltip.install(this, new Tooltip("Drag the open or the close of a session"));
    }

    /** Shows the week that begins on a Monday; nothing while the calendar does not read. */
    void show(Optional<SessionCalendar> of, LocalDate from) {
        calendar = of;
        monday = from;
        setAccessibleText(words());
        draw();
    }

    /** The same in words, for one who does not see it. */
    String words() {
        return calendar.map(of -> monday.datesUntil(monday.plusDays(7)).map(date -> date + ": "
                + (of.sessions(date).isEmpty()
                        ? "no session"
                        : of.sessions(date).stream()
                                .map(session -> session.name() + " " + at(session.open(), of.zone()) + " to "
                                        + at(session.close(), of.zone()))
                                .collect(Collectors.joining(", "))))
                .collect(Collectors.joining("\n"))).orElse("no calendar yet");
    }

    private static String at(long time, ZoneId zone) {
        return TapeTime.in(zone, time).toLocalTime().withNano(0).toString();
    }

    /** The edge under a pixel. */
    private Optional<Edge> edge(double x, double y) {
        int row = (int) Math.floor((y - TOP) / ROW);
        if (calendar.isEmpty() || row < 0 || row > 6) {
            return Optional.empty();
        }
        SessionCalendar of = calendar.get();
        LocalDate date = monday.plusDays(row);
        for (LocalDate trading = date.minusDays(1); !trading.isAfter(date.plusDays(1)); trading = trading.plusDays(1)) {
            if (of.exceptions().contains(trading)) {
                continue;
            }
            for (Session session : of.sessions(trading)) {
                if (Math.abs(x(of, date, session.open()) - x) <= NEAR) {
                    return Optional.of(new Edge(session.name(), trading, true));
                }
                if (Math.abs(x(of, date, session.close()) - x) <= NEAR) {
                    return Optional.of(new Edge(session.name(), trading, false));
                }
            }
        }
        return Optional.empty();
    }

    /** Where a time stands in a date's row; outside of it for another date's. */
    private double x(SessionCalendar of, LocalDate date, long time) {
        long begin = TapeTime.first(date.atStartOfDay(), of.zone());
        long end = TapeTime.first(date.plusDays(1).atStartOfDay(), of.zone());
        return time < begin || time >= end ? Double.NaN : LEFT + width() * (time - begin) / (end - begin);
    }

    private double width() {
        return canvas.getWidth() - LEFT - 8;
    }

    /** The time of day under a pixel, to a quarter of an hour. */
    private LocalTime clock(double x) {
        long minutes = Math.round((x - LEFT) / width() * 24 * 60 / STEP_MINUTES) * STEP_MINUTES;
        return LocalTime.of(0, 0).plusMinutes(Math.clamp(minutes, 0, 24 * 60 - 5));
    }

    @Override
    protected void layoutChildren() {
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
        draw();
    }

    private void draw() {
        GraphicsContext g = canvas.getGraphicsContext2D();
        double width = width();
        g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
        if (calendar.isEmpty() || width < 50) {
            return;
        }
        SessionCalendar of = calendar.get();
        g.setFont(Fonts.words(11));
        g.setFill(Palette.MUTED);
        for (int hour = 0; hour <= 24; hour += 6) {
            g.fillText(Integer.toString(hour), LEFT + width * hour / 24 - (hour == 24 ? 14 : hour == 0 ? 0 : 7), 12);
        }
        for (int i = 0; i < 7; i++) {
            row(g, of, monday.plusDays(i), TOP + i * ROW, width);
        }
    }

    private void row(GraphicsContext g, SessionCalendar of, LocalDate date, double y, double width) {
        long begin = TapeTime.first(date.atStartOfDay(), of.zone());
        long end = TapeTime.first(date.plusDays(1).atStartOfDay(), of.zone());
        long hours = Duration.ofNanos(end - begin).toHours();
        g.setFill(Palette.INK);
        g.fillText(Format.day(date), 0, y + 15);
        if (hours != 24) {
            g.setFill(Palette.MUTED);
            g.fillText(hours + " hours", 0, y + 28);
        }
        g.setStroke(Palette.RULE);
        g.strokeRect(LEFT + 0.5, Math.round(y) + 4.5, width, ROW - 10);
        boolean any = false;
        for (LocalDate of0 = date.minusDays(1); !of0.isAfter(date.plusDays(1)); of0 = of0.plusDays(1)) {
            for (Session session : of.sessions(of0)) {
                long from = Math.max(begin, session.open());
                long to = Math.min(end, session.close());
                if (from < to) {
                    any = true;
                    double x = LEFT + width * (from - begin) / (end - begin);
                    double wide = width * (to - from) / (end - begin);
                    g.setFill(Palette.SLATE);
                    g.fillRect(x, y + 5, wide, ROW - 11);
                    if (wide > 44) {
                        g.setFill(Palette.CHART);
                        g.fillText(session.name(), x + 5, y + 20, wide - 8);
                    }
                }
            }
        }
        if (!any) {
            g.setFill(Palette.MUTED);
            g.fillText("no session", LEFT + 6, y + 20);
        }
    }
}
