package stativex.desk.live;

import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.function.Function;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.engine.Strategy;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.LiveFolder;
import stativex.files.SessionFile;
import stativex.link.Addresses;
import stativex.link.LiveDay;

/** Where the venue is, which strategies go along, and whether a day that was begun goes on. */
public final class LinkForm extends VBox {
    private final SessionFile.Set documents;
    private final Function<LiveDay.Setup, CompletableFuture<Void>> begins;
    private final TextField venue = new TextField("127.0.0.1:4404");
    private final List<CheckBox> strategies = new ArrayList<>();
    private final CheckBox lockstep = new CheckBox("it keeps step with us (a stand-in that was started so)");
    private final CheckBox goOn = new CheckBox();
    private final TextField alarm = new TextField();
    private final Button link = new Button("Link");
    private final Label problem = new Label();
    private Optional<Path> begun = Optional.empty();

    /**
     * @param documents at hand
     * @param begins begins a day; it may take a while, and fail
     * @param closed it is not shown any more
     */
    public LinkForm(SessionFile.Set documents, Function<LiveDay.Setup, CompletableFuture<Void>> begins,
            Runnable closed) {
        super(10);
        this.documents = documents;
        this.begins = begins;
        setId("link-form");
        getStyleClass().add("ticket");
        setMaxSize(440, Region.USE_PREF_SIZE);
        Label title = new Label("A live day");
        title.getStyleClass().add("title");
        Label what = new Label(
                "Links to a venue that speaks FIX 4.4, such as the stand-in exchange (./stativex exchange)."
                        + " Prints come from there. Orders are held back until you switch them on.");
        what.setWrapText(true);
        what.setMinHeight(USE_PREF_SIZE);
        venue.setId("venue");
        venue.setAccessibleText("Host and port of the venue");
        venue.setTooltip(new Tooltip("Host and port, such as 127.0.0.1:4404"));
        venue.setPrefColumnCount(16);
        lockstep.setId("venue-lockstep");
        GridPane fields = new GridPane(10, 8);
        fields.addRow(0, new Label("Venue"), venue);
        fields.addRow(1, new Label("Account"), new Label(documents.account().value().name()));
        fields.addRow(2, new Label("Contract"), new Label(documents.contract().value().symbol()));
        VBox which = new VBox(4);
        for (Documents.Read<Strategy> one : documents.strategies()) {
            CheckBox box = new CheckBox(one.value().name());
            boolean fits = one.value().contract().equals(documents.contract().value().symbol())
                    && one.value().signals().others(documents.contract().value()).isEmpty();
            box.setSelected(fits);
            box.setDisable(!fits);
            box.setId("along-" + strategies.size());
            box.setOnAction(e -> look());
            strategies.add(box);
            which.getChildren().add(box);
            if (!fits) {
                box.setText(one.value().name() + " (looks at another contract: not live yet)");
            }
        }
        fields.addRow(3, new Label("Strategies"), which);
        alarm.setId("alarm-program");
        alarm.setPromptText("none");
        alarm.setAccessibleText("A program of your own that is run with the words of each alarm");
        alarm.setTooltip(
                new Tooltip("A program of your own that is run with the words of each alarm as its one argument,"
                        + " so that a phone can ring"));
        fields.addRow(4, new Label("On an alarm run"), alarm);
        goOn.setId("go-on");
        goOn.setSelected(true);
        goOn.setWrapText(true);
        problem.setId("link-problem");
        problem.getStyleClass().add("problem");
        problem.setWrapText(true);
        problem.setMinHeight(USE_PREF_SIZE);
        link.setId("link");
        link.getStyleClass().add("primary");
        link.setDefaultButton(true);
        link.setOnAction(e -> begin());
        Button cancel = new Button("Not now");
        cancel.setId("link-cancel");
        cancel.setOnAction(e -> closed.run());
        HBox buttons = new HBox(8, link, cancel);
        buttons.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(title, what, fields, lockstep, goOn, problem, buttons);
        addEventHandler(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                closed.run();
                e.consume();
            }
        });
        look();
    }

    /** The field that is filled in first. */
    public TextField first() {
        return venue;
    }

    private SessionFile.Set chosen() {
        List<Documents.Read<Strategy>> along = new ArrayList<>();
        for (int i = 0; i < strategies.size(); i++) {
            if (strategies.get(i).isSelected()) {
                along.add(documents.strategies().get(i));
            }
        }
        return new SessionFile.Set(documents.contract(), documents.account(), along);
    }

    /** Whether a day of these documents was begun. */
    private void look() {
        begun = LiveFolder.own().begun(chosen());
        goOn.setVisible(begun.isPresent());
        goOn.setManaged(begun.isPresent());
        begun.ifPresent(file -> goOn.setText("go on with the day that was begun, " + LiveFolder.name(file)
                + ": its orders and locks hold, strategies take no entries until they are engaged again"));
    }

    private void begin() {
        problem.setText("");
        try {
            SessionFile.Set along = chosen();
            if (along.strategies().isEmpty()) {
                throw new BadInput("expected at least one strategy to go along");
            }
            InetSocketAddress at = Addresses.read("the venue", venue.getText().strip());
            Path journal = begun.filter(file -> goOn.isSelected()).orElseGet(() -> LiveFolder.own().fresh());
            link.setDisable(true);
            link.setText("Linking …");
            begins.apply(new LiveDay.Setup(along, at, lockstep.isSelected(), journal,
                    Optional.of(alarm.getText().strip()).filter(text -> !text.isEmpty()).map(Path::of)))
                    .whenComplete((done, why) -> Platform.runLater(() -> ended(why)));
        } catch (BadInput | IllegalArgumentException e) {
            problem.setText(e.getMessage());
        }
    }

    private void ended(Throwable why) {
        link.setDisable(false);
        link.setText("Link");
        if (why != null) {
            problem.setText(String.valueOf((why.getCause() == null ? why : why.getCause()).getMessage()));
        }
    }
}
