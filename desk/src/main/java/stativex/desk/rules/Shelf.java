package stativex.desk.rules;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.control.Button;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import stativex.demo.ReadyMade;
import stativex.engine.StrategyProblems;
import stativex.files.StrategyDraft;
import stativex.market.Contract;

/** The strategies: each with its bars and whether it is complete, or the first thing that is missing. */
final class Shelf extends VBox {
    private static final String TO_RUN = "Take to Run";

    private final Function<StrategyDraft, List<StrategyProblems.Problem>> checked;
    private final ListView<StrategyDraft> list = new ListView<>();
    private final Map<StrategyDraft, List<StrategyProblems.Problem>> known = new HashMap<>();
    private final TextField name = new TextField();
    private final Button toRun = new Button(TO_RUN);
    private final Button remove = new Button("Remove");
    private final Label said = new Label();
    private boolean showing;

    /**
     * @param checked says what is missing or wrong in a strategy
     * @param opened told the name of a strategy that was chosen
     * @param added told a new one
     * @param renamed told the new name of the chosen one
     * @param removed the chosen one is to go
     * @param run the chosen one is to go to the Run stage
     * @param running whether a strategy is engaged there or has a position, which that would end
     */
    Shelf(Function<StrategyDraft, List<StrategyProblems.Problem>> checked, Contract contract, Consumer<String> opened,
            Consumer<StrategyDraft> added, Consumer<String> renamed,
            Runnable removed, Runnable run, BooleanSupplier running) {
        super(6);
        this.checked = checked;
        Label heading = new Label("Strategies");
        heading.getStyleClass().add("heading");
        list.setId("strategies");
        list.setAccessibleText("Strategies");
        list.setPrefHeight(196);
        list.setMinHeight(120);
        list.setCellFactory(view -> new Cell());
        list.getSelectionModel().selectedItemProperty().addListener((o, before, now) -> {
            if (now != null && !showing) {
                sure(false);
                opened.accept(now.name());
            }
        });
        MenuButton begin = new MenuButton("New…");
        begin.setId("strategy-new");
        begin.setTooltip(new Tooltip("Begin empty, or from one that is ready made"));
        begin.setMinWidth(USE_PREF_SIZE);
        MenuItem empty = new MenuItem("Empty");
        empty.setOnAction(e -> added.accept(StrategyDraft.empty("New strategy", contract.symbol())));
        begin.getItems().add(empty);
        for (ReadyMade ready : ReadyMade.all()) {
            begin.getItems().add(item(ready, added));
        }
        name.setId("strategy-name");
        name.setAccessibleText("Name of the strategy");
        name.setOnAction(e -> renamed.accept(name.getText().strip()));
        name.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                renamed.accept(name.getText().strip());
            }
        });
        HBox.setHgrow(name, Priority.ALWAYS);
        toRun.setId("strategy-run");
        toRun.setTooltip(new Tooltip("Replays the tape with this strategy first; it must be complete"));
        toRun.setOnAction(e -> {
            if (running.getAsBoolean() && toRun.getText().equals(TO_RUN)) {
                toRun.setText("Restart the replay?");
            } else {
                toRun.setText(TO_RUN);
                run.run();
            }
        });
        toRun.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                toRun.setText(TO_RUN);
            }
        });
        remove.setId("strategy-remove");
        remove.setOnAction(e -> {
            if (remove.getText().equals("Remove")) {
                sure(true);
            } else {
                sure(false);
                removed.run();
            }
        });
        said.getStyleClass().add("problem");
        said.setId("strategy-said");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        getChildren().addAll(heading, list, new HBox(5, begin, name), new HBox(5, toRun, remove), said);
        say("");
    }

    private void sure(boolean asked) {
        remove.setText(asked ? "Really remove?" : "Remove");
    }

    private static CustomMenuItem item(ReadyMade ready, Consumer<StrategyDraft> added) {
        StrategyDraft draft = ready.draft();
        Label title = new Label(draft.name());
        Label about = new Label(ready.about());
        about.getStyleClass().add("muted");
        about.setWrapText(true);
        about.setPrefWidth(330);
        CustomMenuItem item = new CustomMenuItem(new VBox(1, title, about));
        item.setId("new-" + ready.file());
        item.setOnAction(e -> added.accept(draft));
        return item;
    }

    /** Three lines: the name, what it looks at, and whether it is complete. */
    private final class Cell extends ListCell<StrategyDraft> {
        @Override
        protected void updateItem(StrategyDraft item, boolean empty) {
            super.updateItem(item, empty);
            if (empty || item == null) {
                setGraphic(null);
                return;
            }
            Label title = new Label(item.name());
            title.getStyleClass().add("fact");
            Label under = new Label(item.contract() + " · "
                    + item.signals().map(plan -> plan.bars().type().words()).orElse("no bars"));
            under.getStyleClass().add("figures");
            List<StrategyProblems.Problem> problems = known.computeIfAbsent(item, checked);
            Label state = new Label(problems.isEmpty() ? "complete" : words(problems.getFirst()));
            state.getStyleClass().add(problems.isEmpty() ? "muted" : "held");
            state.setMaxWidth(190);
            VBox box = new VBox(1, title, under, state);
            setGraphic(box);
            setAccessibleText(item.name() + ", " + state.getText());
        }
    }

    /** A thing that is missing or wrong, in words. */
    static String words(StrategyProblems.Problem problem) {
        return problem.place().isEmpty() || problem.place().equals("exit")
                ? problem.what()
                : problem.place().replace(".rule", "").replace('.', ' ') + ": " + problem.what();
    }

    /** Shows all, one of them chosen. */
    void show(Collection<StrategyDraft> all, String chosen) {
        showing = true;
        list.getItems().setAll(all);
        list.getItems().stream().filter(d -> d.name().equals(chosen)).findFirst()
                .ifPresent(list.getSelectionModel()::select);
        showing = false;
    }

    /** The chosen one as it stands now, with what is missing or wrong. */
    void problems(StrategyDraft draft, List<StrategyProblems.Problem> problems) {
        if (known.size() > 500) {
            known.clear();
        }
        known.put(draft, problems);
        toRun.setDisable(!problems.isEmpty());
        showing = true;
        int index = list.getSelectionModel().getSelectedIndex();
        if (index >= 0 && list.getItems().get(index).name().equals(draft.name())) {
            list.getItems().set(index, draft);
            list.getSelectionModel().select(index);
        }
        showing = false;
        if (!name.isFocused()) {
            name.setText(draft.name());
        }
    }

    /** Says something; empty: nothing. */
    void say(String words) {
        said.setText(words);
        said.setVisible(!words.isEmpty());
        said.setManaged(!words.isEmpty());
    }
}
