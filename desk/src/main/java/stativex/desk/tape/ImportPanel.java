package stativex.desk.tape;

import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.FilePicker;
import stativex.desk.look.Format;
import stativex.desk.look.NumberField;
import stativex.files.BadInput;
import stativex.files.ContractSketch;
import stativex.files.DocumentFolder;
import stativex.files.Documents;
import stativex.files.tape.Column;
import stativex.files.tape.ContractGuess;
import stativex.files.tape.LayoutGuess;
import stativex.files.tape.TapeImport;
import stativex.files.tape.TapeStore;
import stativex.files.tape.TickLayout;
import stativex.files.tape.TimeForm;
import stativex.files.tape.Words;
import stativex.market.Contract;
import stativex.market.TapeTime;

/**
 * Bringing a tick file in: what is guessed of it is shown and can be changed; reading shows progress and can be cancelled;
 * what is odd is shown before anything is kept.
 */
final class ImportPanel extends BorderPane {
    private static final int PREVIEW = 6;
    private static final String NO_MONTH = "none of them";
    private static final String OTHER = "from a document …";
    private static final String NEW = "a new one from this file …";

    private final TapeStore store;
    private final FilePicker picker;
    private final DocumentFolder<Contract> kept;
    private final Path file;
    private final Consumer<Optional<String>> closed;
    private final Map<String, Documents.Read<Contract>> contracts;
    private final ChoiceBox<String> contract = new ChoiceBox<>();
    private final ChoiceBox<String> month = new ChoiceBox<>();
    private final Label monthWord = new Label("Month");
    private final TextField name = new TextField();
    private final TextField zone = new TextField();
    private final NumberField gap = new NumberField("5", 3, "Minutes that count as a gap", java.math.BigDecimal.ONE);
    private final ChoiceBox<String> times = new ChoiceBox<>();
    private final VBox mapping = new VBox(6);
    private final VBox result = new VBox(8);
    private final Label problem = new Label();
    private final Button read = new Button("Read the file");
    private final Button cancel = new Button("Not now");
    private final ProgressBar progress = new ProgressBar(0);
    private final Label left = new Label();
    private List<ChoiceBox<String>> roles = new ArrayList<>();
    private Optional<LayoutGuess> guess = Optional.empty();
    private Optional<TapeImport> job = Optional.empty();
    private volatile boolean stop;
    private boolean reading;

    /**
     * @param known contracts to choose from, by symbol
     * @param kept where a contract that is made here goes
     * @param closed told when it is over: the name of the tape kept, or empty
     */
    ImportPanel(TapeStore store, Path file, Map<String, Documents.Read<Contract>> known,
            DocumentFolder<Contract> kept, FilePicker picker, Consumer<Optional<String>> closed) {
        this.kept = kept;
        this.store = store;
        this.file = file;
        this.picker = picker;
        this.closed = closed;
        this.contracts = new LinkedHashMap<>(known);
        getStyleClass().add("import");
        setId("import");
        String stem = file.getFileName().toString();
        name.setText(stem.contains(".") ? stem.substring(0, stem.lastIndexOf('.')) : stem);
        name.setId("import-name");
        name.setPrefColumnCount(18);
        contract.setId("import-contract");
        contract.getItems().setAll(contracts.keySet());
        contract.getItems().addAll(NEW, OTHER);
        likely().ifPresentOrElse(contract::setValue, contract.getSelectionModel()::selectFirst);
        contract.setOnAction(e -> chooseContract());
        times.setId("import-times");
        for (TimeForm form : TimeForm.values()) {
            times.getItems().add(form.example());
        }
        zone.setId("import-zone");
        times.setOnAction(e -> changed());
        zone.textProperty().addListener((o, before, now) -> changed());
        gap.textProperty().addListener((o, before, now) -> changed());
        problem.getStyleClass().add("problem");
        problem.setWrapText(true);
        problem.setId("import-problem");
        read.setId("import-read");
        read.getStyleClass().add("primary");
        read.setDefaultButton(true);
        read.setOnAction(e -> read());
        cancel.setId("import-cancel");
        cancel.setCancelButton(true);
        cancel.setOnAction(e -> cancel());
        progress.setPrefWidth(220);
        progress.setVisible(false);
        HBox minutes = new HBox(4, gap, new Label("min"));
        minutes.setAlignment(Pos.CENTER_LEFT);
        GridPane fields = new GridPane(10, 6);
        fields.addRow(0, new Label("Name"), name, new Label("Contract"), contract);
        fields.addRow(1, new Label("Gap from"), minutes, new Label("Local times in"), zone);
        month.setId("import-month");
        month.setAccessibleText("Month of the root whose prices these are");
        month.setOnAction(e -> changed());
        fields.addRow(2, new Region(), new Region(), monthWord, month);
        HBox buttons = new HBox(10, read, cancel, progress, left);
        buttons.setAlignment(Pos.CENTER_LEFT);
        Label title = new Label("Bring in " + file.getFileName());
        title.getStyleClass().add("title");
        VBox box = new VBox(10, title, fields, mapping, buttons, problem, result);
        box.getStyleClass().add("import-body");
        ScrollPane scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("cards");
        setCenter(scroll);
        guess();
    }

    /** The contract whose symbol the file's name begins with. */
    private Optional<String> likely() {
        String stem = file.getFileName().toString().toUpperCase(java.util.Locale.ROOT);
        return contracts.keySet().stream().filter(symbol -> stem.startsWith(symbol.toUpperCase(java.util.Locale.ROOT)))
                .max(java.util.Comparator.comparingInt(String::length));
    }

    /** What was read was read in another way: it cannot be kept any more. */
    private void changed() {
        if (job.isPresent()) {
            close();
            result.getChildren().clear();
            read.setText("Read the file");
        }
    }

    private Documents.Read<Contract> contract() {
        if (contract.getValue() == null || !contracts.containsKey(contract.getValue())) {
            throw new BadInput("choose the contract of these prices, or make " + NEW);
        }
        return contracts.get(contract.getValue());
    }

    private void chooseContract() {
        changed();
        if (NEW.equals(contract.getValue())) {
            make();
        } else if (OTHER.equals(contract.getValue())) {
            picker.open("Contract document", "json").ifPresent(document -> {
                try {
                    Documents.Read<Contract> chosen = Documents.contract(document);
                    String words = chosen.value().symbol() + ", " + document.getFileName();
                    contracts.put(words, chosen);
                    contract.getItems().addFirst(words);
                    contract.setValue(words);
                } catch (BadInput e) {
                    problem.setText(e.getMessage());
                }
            });
        } else {
            guess();
        }
    }

    /** A contract is made from what the file shows, and completed by hand. */
    private void make() {
        String place = zone.getText().isBlank() ? ZoneId.systemDefault().getId() : zone.getText().strip();
        ContractSketch sketch = guess.map(found -> ContractGuess.of(file, found.layout(), place))
                .orElseGet(() -> ContractSketch.empty(place));
        Node body = getCenter();
        setCenter(new ContractPanel(sketch, "The contract of " + file.getFileName(), picker, made -> {
            setCenter(body);
            made.ifPresentOrElse(this::made, () -> contract.setValue(null));
        }));
    }

    private void made(Documents.Read<Contract> chosen) {
        String symbol = chosen.value().symbol();
        try {
            kept.keep(chosen);
            contracts.put(symbol, chosen);
            contract.getItems().remove(symbol);
            contract.getItems().addFirst(symbol);
            contract.setValue(symbol);
        } catch (BadInput e) {
            problem.setText(e.getMessage());
        }
    }

    /** The months of the contract; the one that the file's name says, else the front month at its first print. */
    private void months(Optional<LocalDate> begins) {
        List<Contract.Month> all = contracts.containsKey(contract.getValue())
                ? contract().value().listing().months()
                : List.of();
        month.getItems().setAll(NO_MONTH);
        month.getItems().addAll(all.stream().map(Contract.Month::name).toList());
        String stem = file.getFileName().toString();
        month.setValue(all.stream().map(Contract.Month::name).filter(stem::contains).findFirst()
                .or(() -> begins.flatMap(day -> contract().value().front(day)).map(Contract.Month::name))
                .orElse(NO_MONTH));
        month.setVisible(!all.isEmpty());
        month.setManaged(!all.isEmpty());
        monthWord.setVisible(!all.isEmpty());
        monthWord.setManaged(!all.isEmpty());
    }

    /** The contract as it is of the month that is chosen. */
    private Documents.Read<Contract> chosenMonth() {
        Documents.Read<Contract> root = contract();
        return root.value().listing().months().stream().filter(one -> one.name().equals(month.getValue())).findFirst()
                .map(one -> Documents.month(root, one.lastTradingDay())).orElse(root);
    }

    /** Looks at the file's first lines and shows what they most likely are. */
    private void guess() {
        problem.setText("");
        mapping.getChildren().clear();
        try {
            ZoneId assumed = contracts.containsKey(contract.getValue())
                    ? contract().value().calendar().zone()
                    : ZoneId.of("UTC");
            if (zone.getText().isBlank()) {
                zone.setText(assumed.getId());
            }
            if (TapeImport.isParquet(file)) {
                months(Optional.empty());
                mapping.getChildren().add(muted("Parquet: columns are taken by name; times without a zone are UTC."));
                return;
            }
            LayoutGuess found = LayoutGuess.of(file, assumed);
            guess = Optional.of(found);
            months(contracts.containsKey(contract.getValue())
                    ? found.begins(contract().value())
                            .flatMap(time -> contract().value().calendar().tradingDate(time))
                    : Optional.empty());
            times.setValue(found.layout().times().example());
            mapping.getChildren().add(muted(found.layout().words()));
            found.doubts().forEach(doubt -> mapping.getChildren().add(styled(doubt, "warn")));
            HBox form = new HBox(8, new Label("Times are written as"), times);
            form.setAlignment(Pos.CENTER_LEFT);
            mapping.getChildren().addAll(form, columns(found));
        } catch (BadInput e) {
            problem.setText(e.getMessage());
            read.setDisable(true);
        }
    }

    /** A table of the first rows, over each column what it is taken for. */
    private Node columns(LayoutGuess found) {
        GridPane table = new GridPane(0, 0);
        table.getStyleClass().add("preview");
        roles = new ArrayList<>();
        List<List<String>> rows = found.rows(PREVIEW);
        for (int c = 0; c < found.layout().names().size(); c++) {
            ChoiceBox<String> role = new ChoiceBox<>();
            role.setId("role-" + c);
            role.setAccessibleText("Column " + found.layout().names().get(c) + " holds");
            for (Column column : Column.values()) {
                role.getItems().add(column.word());
            }
            role.setPrefWidth(118);
            role.setValue(found.layout().columns().get(c).word());
            role.setOnAction(e -> changed());
            roles.add(role);
            table.add(role, c, 0);
            table.add(styled(found.layout().names().get(c), "preview-name"), c, 1);
            for (int r = 0; r < rows.size(); r++) {
                table.add(styled(c < rows.get(r).size() ? rows.get(r).get(c) : "", "preview-cell"), c, r + 2);
            }
        }
        ScrollPane wide = new ScrollPane(table);
        wide.setMinHeight(Region.USE_PREF_SIZE);
        wide.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        wide.getStyleClass().add("cards");
        return wide;
    }

    private static Label muted(String text) {
        return styled(text, "muted");
    }

    private static Label styled(String text, String style) {
        Label label = new Label(text);
        label.getStyleClass().add(style);
        return label;
    }

    /** @throws BadInput when a field holds nothing possible */
    private Optional<TickLayout> chosenLayout() {
        return guess.map(g -> {
            TickLayout layout = g.with(roles.stream().map(role -> Column.named(role.getValue())).toList())
                    .with(TimeForm.values()[times.getItems().indexOf(times.getValue())]);
            try {
                return layout.in(ZoneId.of(zone.getText().strip()));
            } catch (DateTimeException e) {
                throw new BadInput(
                        "local times: expected an IANA zone such as Pacific/Auckland, found " + zone.getText());
            }
        });
    }

    private void read() {
        close();
        result.getChildren().clear();
        problem.setText("");
        Documents.Read<Contract> of;
        Optional<TickLayout> layout;
        long pause;
        try {
            of = chosenMonth();
            layout = chosenLayout();
            pause = gap.number().map(m -> m.multiply(
                    java.math.BigDecimal.valueOf(60 * TapeTime.SECOND)).longValue())
                    .orElseThrow(() -> new BadInput("gap: expected minutes such as 5"));
        } catch (BadInput e) {
            problem.setText(e.getMessage());
            return;
        }
        reading(true);
        long begun = System.nanoTime();
        Thread.ofPlatform().daemon().name("import").start(() -> {
            try {
                TapeImport done = TapeImport.read(store, file, of, layout, pause, (at, all) -> {
                    if (stop) {
                        throw new CancellationException();
                    }
                    double share = all == 0 ? 1 : (double) at / all;
                    double seconds = (System.nanoTime() - begun) / 1e9;
                    Platform.runLater(() -> {
                        progress.setProgress(share);
                        left.setText(share > 0.02 && seconds > 1
                                ? Math.round(seconds * (1 - share) / share) + " s left"
                                : "");
                    });
                });
                Platform.runLater(() -> found(done, of.value()));
            } catch (CancellationException e) {
                Platform.runLater(() -> {
                    reading(false);
                    problem.setText("Cancelled; nothing was kept.");
                });
            } catch (RuntimeException e) {
                Platform.runLater(() -> {
                    reading(false);
                    problem.setText(e.getMessage());
                });
            }
        });
    }

    private void reading(boolean on) {
        reading = on;
        stop = false;
        progress.setVisible(on);
        progress.setProgress(0);
        left.setText("");
        read.setDisable(on);
        cancel.setText(on ? "Cancel" : "Not now");
    }

    /** Shows what was found, and asks whether to keep it. */
    private void found(TapeImport done, Contract of) {
        reading(false);
        job = Optional.of(done);
        read.setText("Read again");
        ZoneId clock = of.calendar().zone();
        TapeFacts facts = new TapeFacts(on -> {
        });
        facts.findings(done.findings(), false);
        CheckBox leaveOut = new CheckBox("Leave bad lines out ("
                + Format.grouped(Long.toString(done.findings().bad())) + ") and keep the rest");
        leaveOut.setId("import-leave-out");
        CheckBox lacking = new CheckBox("Decline signals in sessions that lack prints ("
                + done.findings().lacking().size() + ")");
        lacking.setId("import-lacking");
        lacking.setSelected(true);
        Button keep = new Button("Keep as tape");
        keep.setId("import-keep");
        keep.getStyleClass().add("primary");
        keep.setDisable(done.findings().bad() > 0);
        leaveOut.setOnAction(e -> keep.setDisable(!leaveOut.isSelected()));
        keep.setOnAction(e -> keep(leaveOut.isSelected(), lacking.isSelected()));
        result.getChildren().setAll(styled(Format.grouped(Integer.toString(done.prints())) + " prints from "
                + Words.at(done.firstTime(), clock) + " to " + Words.at(done.lastTime(), clock), "fact"));
        if (done.findings().bad() > 0) {
            result.getChildren().add(leaveOut);
        }
        if (!done.findings().lacking().isEmpty()) {
            result.getChildren().add(lacking);
        }
        result.getChildren().addAll(keep, facts);
    }

    private void keep(boolean leaveOut, boolean lacking) {
        TapeImport ready = job.orElseThrow();
        try {
            ready.keep(name.getText().strip(), leaveOut, lacking ? ready.findings().lacking() : Set.of());
            job = Optional.empty();
            closed.accept(Optional.of(name.getText().strip()));
        } catch (BadInput e) {
            // the file under work is gone with the attempt: it is read again before the next one
            job = Optional.empty();
            result.getChildren().clear();
            problem.setText(e.getMessage());
        }
    }

    private void cancel() {
        if (reading) {
            stop = true;
        } else {
            close();
            closed.accept(Optional.empty());
        }
    }

    /** Lets go of what was read and not kept. */
    private void close() {
        job.ifPresent(TapeImport::close);
        job = Optional.empty();
    }
}
