package stativex.desk.limits;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import javafx.geometry.Point2D;
import javafx.scene.Cursor;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.text.Font;
import stativex.account.Account;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.interlock.SessionWindow;
import stativex.interlock.WindowSchedule;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.TapeTime;

/**
 * A trading day large, as it really runs, be it 23, 24 or 25 hours: exchange time above, the person's own below, windows as blocks whose
 * edges are dragged, quiet times hatched, and the time by which everything is flat. Keys: N picks the next window, arrows move it, with
 * Shift its end, with Alt its beginning.
 */
final class DayPicture extends Sketch {
    private static final long MINUTE = 60 * TapeTime.SECOND;
    private static final long HOUR = 60 * MINUTE;
    /** Steps of a drag and of the keys. */
    private static final int STEP = 5;
    private static final double LEFT = 74;
    private static final double NEAR = 6;
    /** What blocks leave free, above and below, for the words of lines. */
    private static final double FOOT = 30;
    private static final Font FIGURES = Fonts.figures(11);
    private static final Font NAME = Fonts.bold(11.5);
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT);

    /** What is done to a window. */
    interface Edits {
        /** @param done the drag has ended, or a key was pressed */
        void changed(int window, SessionWindow next, boolean done);

        void picked(int window);
    }

    private enum Grip {
        FROM, TO, BODY
    }

    private final Contract contract;
    private final ZoneId own;
    private final Edits edits;
    private LocalDate date;
    private List<SessionWindow> windows = List.of();
    private Optional<Account> account = Optional.empty();
    private int picked = -1;
    private long from;
    private long to;
    private Optional<Grip> grip = Optional.empty();
    private SessionWindow gripped;
    private long grippedAt;

    DayPicture(Contract contract, ZoneId own, Edits edits) {
        this.contract = contract;
        this.own = own;
        this.edits = edits;
        setFocusTraversable(true);
        setOnMousePressed(this::pressed);
        setOnMouseDragged(e -> drag(e.getX(), false));
        setOnMouseReleased(e -> {
            drag(e.getX(), true);
            grip = Optional.empty();
        });
        setOnMouseMoved(e -> setCursor(gripAt(e.getX(), e.getY())
                .map(g -> g.grip() == Grip.BODY ? Cursor.MOVE : Cursor.H_RESIZE).orElse(Cursor.DEFAULT)));
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        focusedProperty().addListener((o, before, now) -> repaint());
    }

    /** Shows a trading day. @param window the one that is picked; −1: none */
    void show(LocalDate day, List<SessionWindow> shown, Account of, int window) {
        date = day;
        windows = List.copyOf(shown);
        account = Optional.of(of);
        picked = window;
        List<Session> sessions = contract.calendar().sessions(day);
        if (!sessions.isEmpty()) {
            from = sessions.getFirst().open();
            ZonedDateTime begins = TapeTime.in(contract.calendar().zone(), from);
            to = TapeTime.first(begins.toLocalDateTime().plusDays(1), contract.calendar().zone());
            to = Math.max(to, sessions.getLast().close());
        }
        setAccessibleText("Trading day " + day + ". " + sentence() + ". N picks the next window, arrows move it, with"
                + " Shift its end, with Alt its beginning.");
        repaint();
    }

    /** Hours of the day that is shown. */
    double hours() {
        return (double) (to - from) / HOUR;
    }

    private double at(long time) {
        return LEFT + (getWidth() - LEFT - 16) * (time - from) / (to - from);
    }

    private long time(double x) {
        return from + Math.round((x - LEFT) / (getWidth() - LEFT - 16) * (to - from));
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        if (date == null || contract.calendar().sessions(date).isEmpty()) {
            pen.text("No session on this day.", Fonts.words(12), Palette.MUTED, LEFT, 30);
            return;
        }
        double top = 24;
        double tall = height - 24 - 22;
        pen.fill(Palette.SOFT, LEFT, top, width - LEFT - 16, tall);
        for (Session s : contract.calendar().sessions(date)) {
            pen.fill(Palette.FAINT, at(s.open()), top, at(s.close()) - at(s.open()), tall);
        }
        ZoneId zone = contract.calendar().zone();
        pen.text(Format.city(zone), Fonts.words(11), Palette.MUTED, 12, 16);
        pen.text(Format.city(own), Fonts.words(11), Palette.MUTED, 12, top + tall + 15);
        hours(pen, zone, top, tall, true);
        hours(pen, own, top, tall, false);
        List<WindowSchedule.Occurrence> all = occurrences();
        for (int i = 0; i < all.size(); i++) {
            window(pen, all.get(i), top, tall);
        }
        quiet(pen, top, tall);
        flat(pen, top, tall);
        for (int i = 0; i < all.size(); i++) {
            words(pen, all, i, top, tall);
        }
        if (isFocused()) {
            pen.frame(Palette.INK, 1, 1, width - 2, height - 2);
        }
    }

    private void hours(Pen pen, ZoneId zone, double top, double tall, boolean above) {
        double last = -100;
        for (long t = from - Math.floorMod(from, HOUR / 2); t <= to; t += HOUR / 2) {
            ZonedDateTime local = TapeTime.in(zone, t);
            if (t < from || local.getMinute() != 0) {
                continue;
            }
            double x = Math.round(at(t));
            if (above) {
                pen.fill(Palette.RULE, x, top, 1, tall);
            }
            if (x - last >= 36) {
                pen.centred(String.format(Locale.ROOT, "%02d", local.getHour()), FIGURES,
                        above ? Palette.INK : Palette.MUTED, Math.clamp(x, LEFT + 6, getWidth() - 22),
                        above ? 16 : top + tall + 15);
                last = x;
            }
        }
    }

    private List<WindowSchedule.Occurrence> occurrences() {
        return new WindowSchedule(windows).occurrences(from, to);
    }

    private int index(WindowSchedule.Occurrence of) {
        for (int i = 0; i < windows.size(); i++) {
            if (windows.get(i) == of.window()) {
                return i;
            }
        }
        return -1;
    }

    private void window(Pen pen, WindowSchedule.Occurrence one, double top, double tall) {
        double left = Math.round(Math.max(at(one.from()), LEFT));
        double right = Math.round(Math.min(at(one.to()), getWidth() - 16));
        pen.fill(Palette.CHART, left, top + 8, right - left, tall - FOOT);
        pen.frame(index(one) == picked ? Palette.INK : Palette.SLATE, left, top + 8, right - left, tall - FOOT);
        double edge = index(one) == picked ? 4 : 3;
        pen.fill(Palette.INK, left, top + 8, edge, tall - FOOT);
        pen.fill(Palette.INK, right - edge, top + 8, edge, tall - FOOT);
    }

    /** Name, times and what happens at the end: inside where there is room, else on the side that has more of it. */
    private void words(Pen pen, List<WindowSchedule.Occurrence> all, int which, double top, double tall) {
        WindowSchedule.Occurrence one = all.get(which);
        double left = Math.round(Math.max(at(one.from()), LEFT));
        double right = Math.round(Math.min(at(one.to()), getWidth() - 16));
        SessionWindow w = one.window();
        String end = switch (w.end()) {
            case FLATTEN -> "ends flat";
            case CANCEL -> "cancels";
            case STOP_ENTERING -> "stops";
        };
        String times = w.from().format(TIME) + "–" + w.to().format(TIME);
        double wide = Math.max(Math.max(pen.width(w.name(), NAME), pen.width(times, FIGURES)),
                pen.width(end, Fonts.words(11)));
        double free = (which + 1 < all.size() ? at(all.get(which + 1).from()) : getWidth() - 16) - right;
        double before = left - (which > 0 ? at(all.get(which - 1).to()) : LEFT);
        double x = right - left >= wide + 16 ? left + 9 : free >= before ? right + 6 : left - wide - 6;
        pen.text(w.name(), NAME, Palette.INK, x, top + 26);
        pen.text(times, FIGURES, Palette.MUTED, x, top + 41);
        pen.text(end, Fonts.words(11), Palette.INK, x, top + tall - 32);
        if (w.limits().any()) {
            pen.text(limits(w), Fonts.words(11), Palette.MUTED, x, top + tall - 47);
        }
    }

    private static String limits(SessionWindow w) {
        List<String> said = new ArrayList<>();
        w.limits().loss().ifPresent(loss -> said.add(Format.signedMoney(-loss)));
        w.limits().profit().ifPresent(profit -> said.add(Format.signedMoney(profit)));
        return String.join(" / ", said) + (w.limits().wholeDay() ? ", the day" : "");
    }

    private void quiet(Pen pen, double top, double tall) {
        for (QuietTimes.Quiet one : quietToday()) {
            double left = Math.max(LEFT, at(one.acts()));
            double wide = Math.max(3, at(one.to()) - left);
            pen.hatch(Palette.WARN, left, top, wide, tall);
        }
    }

    private List<QuietTimes.Quiet> quietToday() {
        return account.stream().flatMap(of -> of.own().quietTimes().times().stream())
                .filter(one -> one.to() > from && one.acts() < to).toList();
    }

    private Optional<Rulebook.FlatBy> flatBy() {
        return account.flatMap(of -> of.rulebook().of(Rulebook.FlatBy.class).findFirst());
    }

    private void flat(Pen pen, double top, double tall) {
        Optional<Long> by = flatBy().map(rule -> rule.actsFrom(from) + rule.lead());
        Optional<Long> night = account.flatMap(of -> of.rulebook().of(Rulebook.NoOvernight.class).findFirst())
                .map(rule -> contract.calendar().sessions(date).getLast().close());
        by.filter(time -> time <= to).ifPresent(time -> flat(pen, time,
                "flat by " + TIME.format(TapeTime.in(flatBy().orElseThrow().zone(), time)), top, tall));
        night.ifPresent(time -> flat(pen, time, "flat overnight", top, tall));
    }

    private void flat(Pen pen, long time, String words, double top, double tall) {
        double x = Math.round(at(time));
        pen.fill(Palette.TRIP, x - 1, top, 3, tall);
        double wide = pen.width(words, Fonts.words(11));
        pen.text(words, Fonts.words(11), Palette.TRIP, x - wide - 6, top + tall - 6);
    }

    /** The windows of the day and what is quiet on it, in words. */
    String sentence() {
        List<String> said = new ArrayList<>();
        occurrences().forEach(one -> said.add(one.window().name() + " from " + one.window().from().format(TIME) + " to "
                + one.window().to().format(TIME)));
        if (said.isEmpty()) {
            said.add(windows.isEmpty() ? "every hour of every session" : "no window on this day");
        }
        return String.join(", ", said);
    }

    /** What is quiet on the day, in words; empty when nothing is. */
    String quietSentence() {
        List<String> said = quietToday().stream().map(one -> one.release().title() + " "
                + TIME.format(TapeTime.in(contract.calendar().zone(), one.release().time()))
                + (one.release().impact().isEmpty() ? "" : " · " + one.release().impact())).toList();
        return said.isEmpty() ? "" : "quiet: " + String.join(", ", said);
    }

    // ------------------------------------------------------------------ editing

    private record Gripped(int window, Grip grip) {}

    private Optional<Gripped> gripAt(double x, double y) {
        if (date == null || y < 24 || y > getHeight() - 22) {
            return Optional.empty();
        }
        List<WindowSchedule.Occurrence> all = occurrences();
        for (WindowSchedule.Occurrence one : all) {
            if (Math.abs(x - at(one.from())) <= NEAR) {
                return Optional.of(new Gripped(index(one), Grip.FROM));
            }
            if (Math.abs(x - at(one.to())) <= NEAR) {
                return Optional.of(new Gripped(index(one), Grip.TO));
            }
        }
        return all.stream().filter(one -> at(one.from()) < x && x < at(one.to())).findFirst()
                .map(one -> new Gripped(index(one), Grip.BODY));
    }

    private void pressed(MouseEvent e) {
        requestFocus();
        gripAt(e.getX(), e.getY()).ifPresent(found -> {
            grip = Optional.of(found.grip());
            picked = found.window();
            gripped = windows.get(picked);
            grippedAt = time(e.getX());
            edits.picked(picked);
        });
    }

    private void drag(double x, boolean done) {
        grip.ifPresent(how -> {
            long moved = Math.round((double) (time(x) - grippedAt) / MINUTE);
            SessionWindow next = moved(gripped, how, moved);
            if (done || !next.equals(windows.get(picked))) {
                edits.changed(picked, next, done);
            }
        });
    }

    /** A window whose edge, or which as a whole, is moved by minutes, to the next step. */
    private static SessionWindow moved(SessionWindow of, Grip grip, long minutes) {
        LocalTime begins = grip == Grip.TO ? of.from() : stepped(of.from().plusMinutes(minutes));
        LocalTime ends = grip == Grip.FROM ? of.to() : stepped(of.to().plusMinutes(minutes));
        return begins.equals(ends)
                ? of
                : new SessionWindow(of.name(), of.days(), begins, ends, of.zone(), of.end(), of.lead(), of.limits());
    }

    private static LocalTime stepped(LocalTime time) {
        int minutes = time.getHour() * 60 + time.getMinute();
        return LocalTime.MIDNIGHT.plusMinutes(Math.round((double) minutes / STEP) * STEP);
    }

    private void key(KeyEvent e) {
        if (e.getCode() == KeyCode.N && !e.isShortcutDown()) {
            next().ifPresent(edits::picked);
            e.consume();
        } else if ((e.getCode() == KeyCode.LEFT || e.getCode() == KeyCode.RIGHT) && picked >= 0
                && picked < windows.size() && !e.isShortcutDown()) {
            Grip grips = e.isShiftDown() ? Grip.TO : e.isAltDown() ? Grip.FROM : Grip.BODY;
            edits.changed(picked, moved(windows.get(picked), grips, e.getCode() == KeyCode.LEFT ? -STEP : STEP), true);
            e.consume();
        }
    }

    private OptionalInt next() {
        List<Integer> today = occurrences().stream().map(this::index).distinct().toList();
        return today.isEmpty()
                ? OptionalInt.empty()
                : OptionalInt.of(today.get((today.indexOf(picked) + 1) % today.size()));
    }

    /** Where an edge of a window lies on the screen. @param end its end, else its beginning */
    Optional<Point2D> edge(int window, boolean end) {
        return occurrences().stream().filter(one -> index(one) == window).findFirst()
                .map(one -> localToScreen(at(end ? one.to() : one.from()), getHeight() / 2));
    }
}
