package stativex.desk.run;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Optional;
import java.util.function.LongConsumer;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.util.StringConverter;
import stativex.desk.look.Format;
import stativex.link.Replay;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.TapeTime;

/** Play, pause, step, speed, jump: the replay's controls along the lower edge. */
public final class ReplayBar extends HBox {
    private static final List<Double> SPEEDS = List.of(1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0, 200.0, 500.0, 1000.0,
            Replay.AS_FAST_AS_POSSIBLE);
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("H:mm[:ss]");
    private static final DateTimeFormatter DATE_AND_CLOCK = DateTimeFormatter.ofPattern("yyyy-MM-dd H:mm[:ss]");

    private final Contract contract;
    private final LongConsumer jump;
    private final Button play = new Button("Play");
    private final Button step = new Button("Step");
    private final ChoiceBox<Double> speed = new ChoiceBox<>(FXCollections.observableArrayList(SPEEDS));
    private final TextField time = new TextField();
    private final Label message = new Label();
    private final HBox question = new HBox(8);
    private final ProgressBar progress = new ProgressBar(0);
    private final Label worked = new Label();
    private Replay replay;
    private Replay.View view;
    private long asked;

    /**
     * @param jump goes to a time, ahead or back; going back has been confirmed
     * @param live goes to a live day in place of a replay
     */
    public ReplayBar(Contract contract, LongConsumer jump, Runnable live) {
        this.contract = contract;
        this.jump = jump;
        getStyleClass().add("replay-bar");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(8);
        play.setId("play");
        play.setMinWidth(64);
        play.setOnAction(e -> {
            if (view.playing() || view.jumpTo().isPresent()) {
                replay.pause();
            } else {
                replay.play();
            }
        });
        step.setId("step");
        step.setTooltip(new Tooltip("Works one more print."));
        step.setOnAction(e -> replay.step());
        speed.setId("speed");
        speed.setPrefWidth(150);
        speed.setAccessibleText("Speed of the replay");
        speed.setConverter(new StringConverter<>() {
            @Override
            public String toString(Double value) {
                return speedWords(value == null ? 1 : value);
            }

            @Override
            public Double fromString(String text) {
                throw new IllegalStateException("speeds are chosen, not typed");
            }
        });
        speed.setOnAction(e -> {
            if (replay != null && speed.getValue() != null && speed.getValue() != view.speed()) {
                replay.speed(speed.getValue());
            }
        });
        time.setId("jump-time");
        time.setPrefColumnCount(9);
        time.setPromptText("09:45");
        time.setAccessibleText("Time to jump to, in exchange time");
        time.setTooltip(
                new Tooltip("A time of this trading day such as 09:45, or 2026-09-24 09:45, in exchange time."));
        time.setOnAction(e -> go());
        Button go = new Button("Jump");
        go.setId("jump");
        go.setOnAction(e -> go());
        message.setId("message");
        message.getStyleClass().add("warn-text");
        worked.getStyleClass().add("figures");
        progress.setPrefWidth(120);
        progress.setAccessibleText("Part of the tape that has been worked");
        Button again = new Button("Start again");
        again.setId("start-again");
        again.setOnAction(e -> {
            ask(false);
            jump.accept(asked);
        });
        Button stay = new Button("Stay here");
        stay.setId("stay");
        stay.setOnAction(e -> ask(false));
        question.setAlignment(Pos.CENTER_LEFT);
        question.getChildren().addAll(
                new Label("That is earlier: start again from the first print, everything off?"), again, stay);
        Label to = new Label("to");
        HBox gap = new HBox();
        HBox.setHgrow(gap, Priority.ALWAYS);
        message.setMinWidth(0);
        worked.setMinWidth(USE_PREF_SIZE);
        Button goLive = new Button("Go live…");
        goLive.setId("go-live");
        goLive.setMinWidth(USE_PREF_SIZE);
        goLive.setTooltip(new Tooltip("Links to a venue; this replay stops where it stands"));
        goLive.setOnAction(e -> live.run());
        getChildren().addAll(play, step, speed, to, time, go, message, gap, progress, worked, goLive);
    }

    static String speedWords(double value) {
        return value == Replay.AS_FAST_AS_POSSIBLE
                ? "as fast as possible"
                : "×" + Format.grouped(Long.toString((long) value));
    }

    private void ask(boolean shown) {
        getChildren().remove(question);
        if (shown) {
            getChildren().add(6, question);
        }
    }

    private void go() {
        message.setText("");
        ask(false);
        Optional<Long> wanted = read(time.getText().strip());
        if (wanted.isEmpty()) {
            message.setText("expected a time such as 09:45");
            return;
        }
        if (wanted.get() < view.clock()) {
            asked = wanted.get();
            ask(true);
        } else {
            jump.accept(wanted.get());
        }
    }

    private Optional<Long> read(String text) {
        ZoneId zone = contract.calendar().zone();
        try {
            return Optional.of(TapeTime.first(LocalDateTime.parse(text, DATE_AND_CLOCK), zone));
        } catch (DateTimeException notADate) {
            try {
                return Optional.of(inTradingDay(LocalTime.parse(text, CLOCK), zone));
            } catch (DateTimeException nothing) {
                return Optional.empty();
            }
        }
    }

    /** A time of day inside the trading day at hand, which may have begun the evening before. */
    private long inTradingDay(LocalTime clock, ZoneId zone) {
        LocalDate date = contract.calendar().tradingDate(view.clock())
                .orElse(TapeTime.in(zone, view.clock()).toLocalDate());
        List<Session> sessions = contract.calendar().sessions(date);
        long evening = TapeTime.first(date.minusDays(1).atTime(clock), zone);
        boolean inside = !sessions.isEmpty() && evening >= sessions.getFirst().open();
        return inside ? evening : TapeTime.first(date.atTime(clock), zone);
    }

    /** Shows what a replay has reached. */
    public void show(Replay shownReplay, Replay.View shown) {
        replay = shownReplay;
        view = shown;
        boolean running = shown.playing() || shown.jumpTo().isPresent();
        play.setText(running ? "Pause" : "Play");
        play.setDisable(shown.atEnd() && !running);
        step.setDisable(running || shown.atEnd());
        if (!speed.isShowing() && (speed.getValue() == null || speed.getValue() != shown.speed())) {
            speed.setValue(shown.speed());
        }
        progress.setProgress(shown.length() == 0 ? 1 : (double) shown.worked() / shown.length());
        worked.setText(shown.atEnd()
                ? "at its end"
                : shown.jumpTo().isPresent()
                        ? "running to " + Format.clock(shown.jumpTo().get(), contract.calendar().zone())
                        : "print " + Format.grouped(Integer.toString(Math.max(0, shown.snapshot().print() + 1))));
        shown.problem().ifPresent(message::setText);
    }
}
