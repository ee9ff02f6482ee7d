package stativex.desk.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.chart.Readout;
import stativex.desk.look.FocusScroll;
import stativex.engine.Snapshot;
import stativex.files.StrategyDraft;
import stativex.market.Contract;
import stativex.rule.Blueprint;
import stativex.study.StudyDefinition;

/** The studies of a strategy with their values, and the fields of the one that is chosen. */
final class StudyShelf extends VBox {
    private final Contract contract;
    private final Consumer<List<StudyDefinition>> changed;
    private final BiConsumer<String, String> renamed;
    private final ListView<StudyDefinition> list = new ListView<>();
    private final StudyPanel panel = new StudyPanel(this::replace, this::remove);
    private List<String> names = List.of();
    private List<String> series = List.of();
    private Optional<Evaluation> made = Optional.empty();
    private Optional<Integer> bar = Optional.empty();
    private boolean showing;

    /**
     * @param changed told all studies after a change
     * @param renamed told a study's name before and after
     */
    StudyShelf(Contract contract, Consumer<List<StudyDefinition>> changed, BiConsumer<String, String> renamed) {
        super(6);
        this.contract = contract;
        this.changed = changed;
        this.renamed = renamed;
        Label heading = new Label("Studies");
        heading.getStyleClass().add("heading");
        list.setId("studies-list");
        list.setAccessibleText("Studies of the strategy");
        list.setPlaceholder(new Label("No study yet."));
        list.setCellFactory(view -> new Cell());
        list.setPrefHeight(150);
        list.setMinHeight(80);
        list.getSelectionModel().selectedItemProperty().addListener((o, before, now) -> {
            if (now != null && !showing) {
                panel.show(now, names, series);
            }
        });
        Button add = new Button("+ study");
        add.setId("study-add");
        add.getStyleClass().addAll("small", "link");
        add.setOnAction(e -> add());
        ScrollPane scroll = new ScrollPane(panel);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("cards");
        FocusScroll.follow(scroll);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        getChildren().addAll(new HBox(heading, gap, add), list, scroll);
    }

    /** Name, value, and what it is. */
    private final class Cell extends ListCell<StudyDefinition> {
        @Override
        protected void updateItem(StudyDefinition item, boolean empty) {
            super.updateItem(item, empty);
            if (empty || item == null) {
                setGraphic(null);
                return;
            }
            Label name = new Label(item.name());
            name.getStyleClass().add("fact");
            Label value = new Label(valueOf(item));
            value.getStyleClass().add("figures");
            BorderPane first = new BorderPane(null, null, value, null, name);
            Label what = new Label(item.words());
            what.getStyleClass().add("muted");
            what.setMaxWidth(190);
            what.setTooltip(new Tooltip(item.words()));
            setGraphic(new VBox(1, first, what));
        }
    }

    private String valueOf(StudyDefinition study) {
        List<Snapshot.StudyView> views = made.map(m -> m.chart().studies()).orElse(List.of());
        for (Snapshot.StudyView view : views) {
            boolean mine = view.name().equals(study.name()) || view.name().startsWith(study.name() + ".");
            int at = Math.min(bar.orElse(Integer.MAX_VALUE), view.values().count() - 1);
            if (mine && at >= 0) {
                // of a study whose main output is not there or not drawn, which one it is
                String output = view.name().equals(study.name())
                        ? ""
                        : view.name().substring(study.name().length() + 1) + " ";
                return output + Readout.value(contract, view.unit(), view.values().get(at));
            }
        }
        return study.on().isEmpty()
                ? ""
                : made.map(m -> m.seen(study, bar.orElse(m.program().rows() - 1))).orElse("");
    }

    /** Shows a strategy's studies. */
    void show(StrategyDraft draft, List<String> known) {
        names = known;
        series = draft.series().stream().map(Blueprint.SeriesDefinition::name).toList();
        List<StudyDefinition> studies = draft.studies();
        if (!list.getItems().equals(studies)) {
            int index = list.getSelectionModel().getSelectedIndex();
            showing = true;
            list.getItems().setAll(studies);
            list.setPrefHeight(Math.clamp(studies.size() * 39 + 4, 84, 164));
            if (index >= 0 && index < studies.size() && panel.study().isPresent()) {
                list.getSelectionModel().select(index);
            }
            showing = false;
        }
        StudyDefinition selected = list.getSelectionModel().getSelectedItem();
        if (selected != null && panel.study().isPresent()) {
            panel.show(selected, names, series);
        }
    }

    /** Values at a bar; empty: the newest. */
    void values(Evaluation shown, Optional<Integer> at) {
        if (!bar.equals(at) || made.filter(m -> m == shown).isEmpty()) {
            made = Optional.of(shown);
            bar = at;
            list.refresh();
        }
    }

    /** Another strategy is shown: no study is chosen. */
    void close() {
        showing = true;
        list.getSelectionModel().clearSelection();
        showing = false;
        panel.close();
    }

    private void add() {
        List<StudyDefinition> all = new ArrayList<>(list.getItems());
        String name = "study";
        for (int i = 2; taken(name); i++) {
            name = "study" + i;
        }
        StudyDefinition made = StudyDefinition.of(name, "ema", "length", "21");
        all.add(made);
        panel.show(made, names, series);
        changed.accept(all);
        list.getSelectionModel().selectLast();
    }

    private boolean taken(String name) {
        return list.getItems().stream().anyMatch(s -> s.name().equals(name)) || series.contains(name);
    }

    private void replace(StudyDefinition before, StudyDefinition after) {
        if (!after.name().equals(before.name())) {
            renamed.accept(before.name(), after.name());
            return;
        }
        changed.accept(list.getItems().stream().map(s -> s.equals(before) ? after : s).toList());
    }

    private void remove(StudyDefinition study) {
        panel.close();
        showing = true;
        list.getSelectionModel().clearSelection();
        showing = false;
        changed.accept(list.getItems().stream().filter(s -> !s.equals(study)).toList());
    }
}
