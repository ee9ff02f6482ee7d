package stativex.desk.trials;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.files.SearchFolder;
import stativex.files.TrialFolder;

/** What is being tried, the searches and the kept trials, a row each. */
final class TrialList extends VBox {
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("d MMM", Locale.ENGLISH);

    /** What a row leads to. */
    interface Acts {
        void open(TrialFolder.Kept one);

        void open(SearchFolder.Kept one);

        void tick(int number, boolean on);

        void pause(TrialQueue.Job job, boolean on);

        void cancel(TrialQueue.Job job);
    }

    /**
     * What is listed.
     *
     * @param running number of the search that is at work
     * @param trial the one that is open; likewise {@code search}
     */
    record Shown(List<TrialQueue.Job> jobs, List<SearchFolder.Kept> searches, Optional<Integer> running,
            List<TrialFolder.Kept> trials, Set<Integer> ticked, Optional<Integer> trial, Optional<Integer> search) {}

    private final Acts acts;

    TrialList(Acts acts) {
        this.acts = acts;
        setId("trials-list");
    }

    void show(Shown shown) {
        List<Node> rows = new ArrayList<>();
        shown.jobs().forEach(job -> rows.add(row(job)));
        shown.searches().forEach(one -> rows.add(row(one, shown)));
        shown.trials().forEach(one -> rows.add(row(one, shown)));
        if (rows.isEmpty()) {
            rows.add(Form.muted("None yet."));
        }
        getChildren().setAll(rows);
    }

    private Node row(TrialQueue.Job job) {
        Label name = new Label(job.wanted.name());
        name.getStyleClass().add("fact");
        String words = switch (job.state) {
            case WAITING -> "waiting";
            case RUNNING -> (job.isPaused() ? "paused at " : "") + Math.round(100 * job.done) + " %"
                    + (job.isPaused() ? "" : job.left(System.nanoTime()).map(s -> " · " + s + " s left").orElse(""));
            case FAILED -> job.problem;
            case DONE, CANCELLED -> "";
        };
        Label state = Form.wrapped(words);
        ProgressBar bar = new ProgressBar(job.done);
        bar.setMaxWidth(Double.MAX_VALUE);
        bar.setPrefHeight(6);
        Button pause = small("trial-pause", job.isPaused() ? "Go on" : "Pause",
                () -> acts.pause(job, !job.isPaused()));
        Button cancel = small("trial-cancel", job.state == TrialQueue.State.FAILED ? "Close" : "Cancel",
                () -> acts.cancel(job));
        HBox line = new HBox(4, state, gap(), pause, cancel);
        line.setAlignment(Pos.CENTER_LEFT);
        Form.show(pause, job.state == TrialQueue.State.RUNNING);
        VBox box = new VBox(3, name, bar, line);
        Form.show(bar, job.state == TrialQueue.State.RUNNING);
        box.setPadding(new Insets(6, 4, 6, 8));
        return box;
    }

    private Node row(SearchFolder.Kept one, Shown shown) {
        Label name = new Label("Search " + one.number() + "  " + one.spec().name());
        name.getStyleClass().add("fact");
        Label words = Form.muted(shown.running().equals(Optional.of(one.number()))
                ? "running"
                : Format.grouped(Long.toString(one.spec().space().count())) + " variants"
                        + (one.whole() ? "" : ", not through"));
        VBox row = new VBox(2, name, words);
        row.setId("search-" + one.number());
        row.setAccessibleText(name.getText() + ", " + words.getText());
        row.setOnKeyPressed(e -> opens(e, () -> acts.open(one)));
        row.setOnMouseClicked(e -> acts.open(one));
        return listed(row, shown.search().equals(Optional.of(one.number())));
    }

    private Node row(TrialFolder.Kept one, Shown shown) {
        boolean ticked = shown.ticked().contains(one.number());
        CheckBox tick = new CheckBox();
        tick.setId("trial-tick-" + one.number());
        tick.setSelected(ticked);
        tick.setAccessibleText("Compare trial " + one.number());
        tick.setOnAction(e -> acts.tick(one.number(), tick.isSelected()));
        Label name = new Label(one.number() + "  " + one.strategy());
        name.getStyleClass().add("fact");
        Label contract = Form.muted(one.contract());
        Label range = Form.muted(range(one));
        Label net = new Label(Format.signedMoney(one.net()));
        net.getStyleClass().add("fact");
        net.setMinWidth(Region.USE_PREF_SIZE);
        VBox words = new VBox(2, new HBox(4, name, gap(), contract), new HBox(4, range, gap(), net));
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox row = new HBox(6, tick, words);
        row.setId("trial-" + one.number());
        row.setAccessibleText("Trial " + one.number() + ", " + one.strategy() + ", " + range.getText() + ", net "
                + net.getText());
        row.setOnMouseClicked(e -> acts.open(one));
        row.setOnKeyPressed(e -> {
            opens(e, () -> acts.open(one));
            if (e.getCode() == KeyCode.SPACE) {
                acts.tick(one.number(), !ticked);
                e.consume();
            }
        });
        return listed(row, shown.trial().equals(Optional.of(one.number())));
    }

    private static Node listed(Region row, boolean chosen) {
        row.getStyleClass().add("trial-row");
        if (chosen) {
            row.getStyleClass().add("chosen");
        }
        row.setFocusTraversable(true);
        return row;
    }

    private static void opens(javafx.scene.input.KeyEvent e, Runnable open) {
        if (e.getCode() == KeyCode.ENTER) {
            open.run();
            e.consume();
        }
    }

    private static Region gap() {
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        return gap;
    }

    private static Button small(String id, String words, Runnable act) {
        Button button = new Button(words);
        button.setId(id);
        button.getStyleClass().add("small");
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(e -> act.run());
        return button;
    }

    /** {@code 2 Mar – 14 Aug}. */
    static String range(TrialFolder.Kept one) {
        return one.from().map(DATE::format).orElse("no day")
                + one.to().map(day -> " – " + DATE.format(day)).orElse("");
    }
}
