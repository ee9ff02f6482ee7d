package stativex.desk.tape;

import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import stativex.files.BadInput;
import stativex.files.ContractSketch;
import stativex.files.DocumentFolder;
import stativex.files.Documents;
import stativex.market.Contract;

/** The person's contracts: made, copied, changed, removed, found by symbol or name. */
final class ContractShelf extends VBox {
    private final DocumentFolder<Contract> folder;
    private final ZoneId own;
    private final BiConsumer<ContractSketch, String> open;
    private final ListView<Documents.Read<Contract>> list = new ListView<>();
    private final TextField search = new TextField();
    private final Button change = new Button("Change…");
    private final Button copy = new Button("Copy…");
    private final Button remove = new Button("Remove");
    private final Label said = new Label();

    /** @param open shows the fields of a contract under a title */
    ContractShelf(DocumentFolder<Contract> folder, ZoneId own, BiConsumer<ContractSketch, String> open) {
        super(6);
        this.folder = folder;
        this.own = own;
        this.open = open;
        Label heading = new Label("Contracts");
        heading.getStyleClass().add("heading");
        search.setId("contract-search");
        search.setPromptText("find");
        search.setAccessibleText("Find a contract by symbol or name");
        search.setPrefColumnCount(7);
        search.textProperty().addListener((o, before, now) -> refresh());
        HBox.setHgrow(search, Priority.ALWAYS);
        list.setId("contracts");
        list.setAccessibleText("Contracts");
        list.setPlaceholder(new Label("None of your own yet."));
        list.setPrefHeight(112);
        list.setMinHeight(70);
        list.setCellFactory(view -> new Cell());
        list.getSelectionModel().selectedItemProperty().addListener((o, before, now) -> enable());
        Button make = new Button("New…");
        make.setId("contract-new");
        make.setOnAction(e -> open.accept(ContractSketch.empty(own.getId()), "A new contract"));
        change.setId("contract-change");
        change.setOnAction(e -> edit(false));
        copy.setId("contract-copy");
        copy.setOnAction(e -> edit(true));
        remove.setId("contract-remove");
        remove.setOnAction(e -> remove());
        said.setId("contract-said");
        said.getStyleClass().add("problem");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        HBox head = new HBox(8, heading, search);
        head.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        getChildren().addAll(head, list, new HBox(5, make, change), new HBox(5, copy, remove), said);
        refresh();
    }

    private static final class Cell extends ListCell<Documents.Read<Contract>> {
        @Override
        protected void updateItem(Documents.Read<Contract> item, boolean empty) {
            super.updateItem(item, empty);
            setText(empty || item == null ? null : item.value().symbol() + "  " + item.value().name());
        }
    }

    /** Reads the folder anew. */
    void refresh() {
        try {
            DocumentFolder.Found<Contract> found = folder.list();
            String wanted = search.getText().strip().toLowerCase(java.util.Locale.ROOT);
            Optional<String> chosen = chosen().map(one -> one.value().symbol());
            list.getItems()
                    .setAll(found.documents().stream().filter(one -> (one.value().symbol() + " " + one.value().name())
                            .toLowerCase(java.util.Locale.ROOT).contains(wanted)).toList());
            list.getItems().stream().filter(one -> chosen.equals(Optional.of(one.value().symbol()))).findFirst()
                    .ifPresent(list.getSelectionModel()::select);
            said.setText(String.join("\n", found.unreadable()));
        } catch (BadInput e) {
            said.setText(e.getMessage());
        }
        enable();
    }

    /** Every contract there is. */
    List<Documents.Read<Contract>> all() {
        try {
            return folder.list().documents();
        } catch (BadInput e) {
            said.setText(e.getMessage());
            return List.of();
        }
    }

    private Optional<Documents.Read<Contract>> chosen() {
        return Optional.ofNullable(list.getSelectionModel().getSelectedItem());
    }

    private void enable() {
        boolean none = chosen().isEmpty();
        change.setDisable(none);
        copy.setDisable(none);
        remove.setDisable(none);
        remove.setText("Remove");
    }

    private void edit(boolean asCopy) {
        chosen().ifPresent(contract -> {
            if (!ContractSketch.holds(contract)) {
                said.setText(contract.value().symbol()
                        + " has special dates that the fields here cannot hold: change its document.");
                return;
            }
            ContractSketch sketch = ContractSketch.of(contract);
            open.accept(asCopy ? sketch.withSymbol(sketch.symbol() + " copy") : sketch,
                    (asCopy ? "A copy of " : "Contract ") + contract.value().symbol());
        });
    }

    /** Keeps a contract that was made or changed. Returns whether it could be kept. */
    boolean keep(Documents.Read<Contract> contract) {
        try {
            folder.keep(contract);
            refresh();
            list.getItems().stream().filter(one -> one.value().symbol().equals(contract.value().symbol())).findFirst()
                    .ifPresent(list.getSelectionModel()::select);
            return true;
        } catch (BadInput e) {
            said.setText(e.getMessage());
            return false;
        }
    }

    private void remove() {
        chosen().ifPresent(contract -> {
            if (remove.getText().equals("Remove")) {
                remove.setText("Remove " + contract.value().symbol() + "?");
                return;
            }
            try {
                folder.remove(contract.value().symbol());
            } catch (BadInput e) {
                said.setText(e.getMessage());
            }
            refresh();
        });
    }
}
