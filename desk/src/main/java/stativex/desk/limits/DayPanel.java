package stativex.desk.limits;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.TextStyle;
import java.time.zone.ZoneOffsetTransition;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.Account;
import stativex.desk.look.Format;
import stativex.interlock.SessionWindow;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.TapeTime;

/** The trading day with its head and its sentences: which day, what the picked window says, what is quiet. */
final class DayPanel extends VBox {
    /** Whose hours they are. */
    interface Hours {
        /** The windows were changed, and stay so. */
        void keep(List<SessionWindow> windows);

        /** A window was picked. */
        void picked();
    }

    private final Contract contract;
    private final ZoneId own;
    private final Hours hours;
    private final Label title = new Label();
    private final Label said = new Label();
    private final Label quiet = new Label();
    private final DayPicture picture;
    private List<SessionWindow> windows = List.of();
    private Account account;
    private String strategy = "";
    private LocalDate date;
    private int picked;

    /** @param first the day that is shown first */
    DayPanel(Contract contract, ZoneId own, LocalDate first, Hours hours) {
        this.contract = contract;
        this.own = own;
        this.date = first;
        this.hours = hours;
        this.picture = new DayPicture(contract, own, new DayPicture.Edits() {
            @Override
            public void changed(int window, SessionWindow next, boolean done) {
                List<SessionWindow> all = new ArrayList<>(windows);
                all.set(window, next);
                windows = List.copyOf(all);
                picked = window;
                if (done) {
                    hours.keep(windows);
                }
                show();
            }

            @Override
            public void picked(int window) {
                picked = window;
                hours.picked();
                show();
            }
        });
        Label heading = new Label("Trading day");
        heading.getStyleClass().add("title");
        heading.setMinWidth(USE_PREF_SIZE);
        title.setId("limits-day");
        title.getStyleClass().add("muted");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(10, heading, title, gap,
                button("limits-before", "‹", "The trading day before", () -> move(-1)),
                button("limits-after", "›", "The next trading day", () -> move(1)),
                button("limits-change", "Clock change",
                        "The trading day at which clocks change next, the exchange's or yours", this::toChange),
                button("limits-weekdays", "Copy to weekdays", "The picked window holds from Monday to Friday",
                        this::toWeekdays));
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("chart-head");
        picture.setId("limits-day-picture");
        picture.setPrefHeight(168);
        picture.setMinHeight(130);
        said.setId("limits-day-said");
        quiet.setId("limits-quiet-said");
        quiet.getStyleClass().add("near");
        VBox words = new VBox(1, said, quiet);
        words.setStyle("-fx-padding: 2 14 6 14");
        getChildren().addAll(head, picture, words);
    }

    private static Button button(String id, String words, String help, Runnable act) {
        Button button = new Button(words);
        button.setId(id);
        button.getStyleClass().add("small");
        button.setMinWidth(USE_PREF_SIZE);
        button.setTooltip(new Tooltip(help));
        button.setAccessibleText(help);
        button.setOnAction(e -> act.run());
        return button;
    }

    /** Shows the hours of a strategy on an account. */
    void show(String whose, List<SessionWindow> of, Account on) {
        strategy = whose;
        windows = List.copyOf(of);
        account = on;
        picked = Math.min(picked, windows.size() - 1);
        show();
    }

    /** The first instant of the day that is shown. */
    long opens() {
        return contract.calendar().sessions(date).getFirst().open();
    }

    LocalDate date() {
        return date;
    }

    void focusPicture() {
        picture.requestFocus();
    }

    Optional<Point2D> edge(int window, boolean end) {
        return picture.edge(window, end);
    }

    private void show() {
        picture.show(date, windows, account, picked);
        ZoneId zone = contract.calendar().zone();
        double long24 = picture.hours();
        title.setText(Format.day(date) + " · " + Format.decimal(long24, long24 == Math.rint(long24) ? 0 : 1) + " h"
                + changeSaid(zone) + (zone.equals(own) ? "" : changeSaid(own)));
        said.setText(sentence());
        quiet.setText(picture.quietSentence());
    }

    /** Whether clocks of a zone change within a week, or have changed since a few days. */
    private String changeSaid(ZoneId zone) {
        ZoneOffsetTransition change = zone.getRules()
                .nextTransition(date.minusDays(3).atStartOfDay(zone).toInstant());
        if (change == null || !change.getDateTimeBefore().toLocalDate().isBefore(date.plusDays(8))) {
            return "";
        }
        LocalDate on = change.getDateTimeBefore().toLocalDate();
        return (zone.equals(contract.calendar().zone()) ? " · clocks " : " · your clocks ")
                + (on.isBefore(date) ? "changed on " : "change on ")
                + on.getDayOfWeek().getDisplayName(TextStyle.FULL, Locale.ENGLISH);
    }

    private String sentence() {
        if (picked < 0 || picked >= windows.size()) {
            return windows.isEmpty()
                    ? strategy + " may enter in every hour of every session."
                    : "Drag an edge, or type in the fields on the right.";
        }
        SessionWindow w = windows.get(picked);
        return "Drag an edge, or type: " + w.name() + " from " + w.from() + " to " + w.to() + ", " + days(w) + ", "
                + Format.city(w.zone()) + "; " + switch (w.end()) {
                    case FLATTEN -> "ends flat, " + w.lead() / TapeTime.SECOND + " s early";
                    case CANCEL -> "cancels resting entries at its end";
                    case STOP_ENTERING -> "stops entering at its end";
                };
    }

    private static String days(SessionWindow w) {
        return w.days().equals(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY))
                ? "Monday to Friday"
                : String.join(" ", w.days().stream().sorted()
                        .map(d -> d.getDisplayName(TextStyle.SHORT, Locale.ENGLISH)).toList());
    }

    private void move(int by) {
        LocalDate next = date.plusDays(by);
        for (int i = 0; i < 60 && contract.calendar().sessions(next).isEmpty(); i++) {
            next = next.plusDays(by);
        }
        if (!contract.calendar().sessions(next).isEmpty()) {
            date = next;
            show();
        }
    }

    /** The first trading day that the next change of clocks, the exchange's or the person's, touches or comes before. */
    private void toChange() {
        Instant after = TapeTime.in(contract.calendar().zone(), contract.calendar().sessions(date).getLast().close())
                .toInstant();
        Optional<Instant> change = Stream.of(contract.calendar().zone(), own)
                .map(zone -> zone.getRules().nextTransition(after)).filter(Objects::nonNull)
                .map(ZoneOffsetTransition::getInstant).min(Instant::compareTo);
        if (change.isEmpty()) {
            said.setText("The clocks of neither zone change.");
            return;
        }
        LocalDate at = date;
        for (int i = 0; i < 400; i++) {
            List<Session> sessions = contract.calendar().sessions(at);
            if (!sessions.isEmpty() && TapeTime.nanos(change.get()) < sessions.getLast().close()) {
                date = at;
                show();
                return;
            }
            at = at.plusDays(1);
        }
    }

    private void toWeekdays() {
        if (picked < 0 || picked >= windows.size()) {
            return;
        }
        SessionWindow w = windows.get(picked);
        List<SessionWindow> all = new ArrayList<>(windows);
        all.set(picked, new SessionWindow(w.name(), EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY), w.from(), w.to(),
                w.zone(), w.end(), w.lead(), w.limits()));
        hours.keep(all);
    }
}
