package stativex.desk.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.FocusKeeper;
import stativex.files.StrategyDraft;
import stativex.files.tape.FurtherTapes;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.rule.Blueprint;

/** The further series of a strategy: other bars that studies and rules may look at. */
final class SeriesShelf extends VBox {
    private final Contract traded;
    private final FurtherTapes further;
    private final Consumer<UnaryOperator<StrategyDraft>> change;
    private final VBox rows = new VBox(4);
    private List<Blueprint.SeriesDefinition> shown = List.of();
    /** Contracts that a series may be of, the traded one first. */
    private List<String> contracts = List.of();

    /**
     * @param traded contract of the strategies
     * @param further tapes of other contracts
     * @param change takes a change of the strategy
     */
    SeriesShelf(Contract traded, FurtherTapes further, Consumer<UnaryOperator<StrategyDraft>> change) {
        super(4);
        this.traded = traded;
        this.further = further;
        this.change = change;
        Label heading = new Label("Series");
        heading.getStyleClass().add("heading");
        heading.setTooltip(new Tooltip("Other bars beside the signal series, each with a chart of its own"));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Button add = new Button("+ series");
        add.setId("series-add");
        add.getStyleClass().addAll("small", "link");
        add.setOnAction(e -> change.accept(d -> d.withSeries(free(d), new BarType.Ticks(1200))));
        getChildren().addAll(new HBox(heading, gap, add), rows);
    }

    private static String free(StrategyDraft draft) {
        String name = "trend";
        for (int i = 2; taken(draft, name); i++) {
            name = "trend" + i;
        }
        return name;
    }

    private static boolean taken(StrategyDraft draft, String name) {
        return draft.series().stream().anyMatch(s -> s.name().equals(name))
                || draft.studies().stream().anyMatch(s -> s.name().equals(name));
    }

    /** Looks anew which contracts there are tapes of. */
    void contracts() {
        List<String> all = new ArrayList<>(List.of(traded.symbol()));
        further.contracts().stream().map(Contract::symbol).filter(symbol -> !symbol.equals(traded.symbol()))
                .forEach(all::add);
        if (!contracts.equals(all)) {
            contracts = all;
            rebuild();
        }
    }

    /** Shows a strategy's series. */
    void show(StrategyDraft draft) {
        if (draft.series().equals(shown)) {
            return;
        }
        shown = draft.series();
        rebuild();
    }

    private void rebuild() {
        FocusKeeper.rebuild(rows, () -> {
            rows.getChildren().clear();
            for (int i = 0; i < shown.size(); i++) {
                rows.getChildren().add(row(i, shown.get(i)));
            }
        });
    }

    private VBox row(int index, Blueprint.SeriesDefinition series) {
        Label name = new Label(series.name());
        name.getStyleClass().add("fact");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Button remove = new Button("×");
        remove.setId("series-remove-" + index);
        remove.getStyleClass().addAll("small", "quiet");
        remove.setAccessibleText("Take the series " + series.name() + " away");
        remove.setOnAction(e -> change.accept(d -> d.withoutSeries(series.name())));
        BarChoice bars = new BarChoice("series-" + index,
                type -> change.accept(d -> d.withSeriesBars(series.name(), type)));
        bars.show(series.bars().type());
        HBox head = new HBox(6, name, gap, contract(index, series), remove);
        head.setAlignment(Pos.CENTER_LEFT);
        return new VBox(2, head, bars);
    }

    /** Whose bars they are; what a document names stays there even if there is no tape of it. */
    private ComboBox<String> contract(int index, Blueprint.SeriesDefinition series) {
        ComboBox<String> choice = new ComboBox<>();
        choice.setId("series-contract-" + index);
        choice.setAccessibleText("Contract of the series " + series.name());
        choice.getItems().setAll(contracts);
        series.contract().filter(symbol -> !contracts.contains(symbol)).ifPresent(choice.getItems()::add);
        choice.setValue(series.contract().orElse(traded.symbol()));
        choice.setTooltip(new Tooltip(series.contract().filter(symbol -> !symbol.equals(traded.symbol()))
                .map(symbol -> further.open(symbol).map(tape -> "from the tape \"" + tape.reference() + "\"")
                        .orElse("there is no tape of " + symbol + " here: bring one in in the Tape stage"))
                .orElse("the contract that is traded")));
        choice.setOnAction(e -> change.accept(d -> d.withSeriesContract(series.name(),
                Optional.of(choice.getValue()).filter(symbol -> !symbol.equals(traded.symbol())))));
        choice.setVisible(choice.getItems().size() > 1);
        choice.setManaged(choice.isVisible());
        return choice;
    }
}
