package stativex.desk.run;

import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.IntConsumer;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Format;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Snapshot;
import stativex.files.Sentences;
import stativex.engine.Strategy;
import stativex.market.Side;
import stativex.order.Owner;

/**
 * One strategy: off, watching or engaged; long, short, once; what it did today; its state in one sentence. Engaging is
 * confirmed once, on the card, showing what will be sent.
 */
final class StrategyCard extends VBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final PseudoClass ENGAGED = PseudoClass.getPseudoClass("engaged");

    private final int index;
    private final Consumer<Command> send;
    private final Optional<IntConsumer> engages;
    private final Map<Mode, ToggleButton> modes = new EnumMap<>(Mode.class);
    private final CheckBox longSide = new CheckBox("Long");
    private final CheckBox shortSide = new CheckBox("Short");
    private final CheckBox once = new CheckBox("Once");
    private final Label counts = new Label();
    private final Label sentence = new Label();
    private final Label engaging = new Label();
    private final Tooltip plan = new Tooltip();
    private final VBox question = new VBox(6);
    private final Button engage = new Button("Engage");
    private final VBox offQuestion = new VBox(6);
    private final Button keep = new Button("Keep its plan");
    private Strategy shown;
    private Mode mode = Mode.OFF;
    private boolean open;

    /**
     * @param select told the index when the card is chosen
     * @param send takes the person's commands
     * @param engages is asked in place of the card; empty: the card asks
     */
    StrategyCard(Snapshot.StrategyView view, IntConsumer select, Consumer<Command> send,
            Optional<IntConsumer> engages) {
        this.index = view.index();
        this.send = send;
        this.engages = engages;
        Strategy strategy = view.strategy();
        getStyleClass().add("card");
        setId("card-" + index);
        setFocusTraversable(true);
        setAccessibleText("Strategy " + strategy.name());
        setOnMousePressed(e -> select.accept(index));
        setOnKeyPressed(e -> {
            if (e.getTarget() == this && (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE)) {
                select.accept(index);
                e.consume();
            }
        });
        Label name = new Label(strategy.name());
        name.getStyleClass().add("heading");
        Label what = new Label(strategy.contract() + " · " + strategy.signals().bars().type().words());
        what.getStyleClass().add("muted");
        name.setMinWidth(Region.USE_PREF_SIZE);
        Tooltip.install(what, plan);
        HBox choice = new HBox();
        choice.getStyleClass().add("choice");
        for (Mode m : Mode.values()) {
            ToggleButton button = new ToggleButton(
                    m.word().substring(0, 1).toUpperCase(java.util.Locale.ROOT) + m.word().substring(1));
            button.setId(m.word() + "-" + index);
            button.getStyleClass().add("mode-" + m.word());
            button.setOnAction(e -> {
                select.accept(index);
                choose(m);
            });
            modes.put(m, button);
            choice.getChildren().add(button);
        }
        setUpSides(strategy);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox sides = new HBox(10, longSide, shortSide, gap, once);
        counts.getStyleClass().add("muted");
        sentence.setId("sentence-" + index);
        sentence.getStyleClass().add("sentence");
        sentence.setWrapText(true);
        sentence.setMinHeight(Region.USE_PREF_SIZE);
        setUpQuestion();
        planned(strategy);
        setUpOff();
        Region between = new Region();
        HBox.setHgrow(between, Priority.ALWAYS);
        HBox head = new HBox(6, name, between, what);
        head.setAlignment(Pos.BASELINE_LEFT);
        setSpacing(6);
        getChildren().addAll(head, choice, sides, counts, sentence);
    }

    private void setUpSides(Strategy strategy) {
        longSide.setId("long-" + index);
        shortSide.setId("short-" + index);
        once.setId("once-" + index);
        longSide.getStyleClass().add("long");
        shortSide.getStyleClass().add("short");
        longSide.setDisable(strategy.longSide().isEmpty());
        shortSide.setDisable(strategy.shortSide().isEmpty());
        once.setTooltip(new Tooltip("Once: a side switches itself off after its entry fills. Otherwise it repeats."));
        longSide.setOnAction(e -> send.accept(new Command.SetSide(index, Side.LONG, longSide.isSelected())));
        shortSide.setOnAction(e -> send.accept(new Command.SetSide(index, Side.SHORT, shortSide.isSelected())));
        once.setOnAction(e -> send.accept(new Command.SetOnce(index, once.isSelected())));
    }

    /** The person may change its plan while it runs. */
    private void planned(Strategy strategy) {
        plan.setText(strategy.plan().name() + ": " + strategy.plan().words());
        engaging.setText("Engage " + strategy.name() + "? Its next signal inside every interlock sends "
                + Sentences.orders(strategy)
                + ". Exit plan: " + strategy.plan().words() + ".");
    }

    private void setUpQuestion() {
        engaging.setWrapText(true);
        engaging.setMinHeight(Region.USE_PREF_SIZE);
        engage.setId("engage-" + index);
        engage.getStyleClass().add("engage");
        engage.setOnAction(e -> {
            question(false);
            send.accept(new Command.SetMode(index, Mode.ENGAGED));
        });
        Button cancel = new Button("Not now");
        cancel.setId("not-now-" + index);
        cancel.setOnAction(e -> {
            question(false);
            tick();
        });
        question.getStyleClass().add("question");
        question.getChildren().addAll(engaging, new HBox(8, engage, cancel));
    }

    private void choose(Mode chosen) {
        if (chosen == Mode.ENGAGED && mode != Mode.ENGAGED) {
            ask(false);
            if (engages.isPresent()) {
                engages.get().accept(index);
            } else {
                question(true);
                engage.requestFocus();
            }
        } else if (chosen == Mode.OFF && open) {
            question(false);
            ask(true);
            keep.requestFocus();
        } else {
            question(false);
            send.accept(new Command.SetMode(index, chosen));
        }
        tick();
    }

    /** Switching off with a trade open: its plan keeps it, it is left, or the person takes it. */
    private void setUpOff() {
        Label words = new Label("A trade is open. Switched off it enters nothing more; what of the trade?");
        words.setWrapText(true);
        words.setMinHeight(Region.USE_PREF_SIZE);
        keep.setId("off-keep-" + index);
        keep.setTooltip(new Tooltip("Its exit plan goes on until it is flat."));
        Button flatten = new Button("Flatten");
        flatten.setId("off-flatten-" + index);
        Button mine = new Button("Hand to me");
        mine.setId("off-hand-" + index);
        Button back = new Button("Stay on");
        back.setId("off-back-" + index);
        keep.setOnAction(e -> off());
        flatten.setOnAction(e -> {
            off();
            send.accept(new Command.Flatten(index));
        });
        mine.setOnAction(e -> {
            off();
            send.accept(new Command.HandOver(new Owner.Strategy(index), Owner.PERSON));
        });
        back.setOnAction(e -> ask(false));
        offQuestion.getStyleClass().add("question");
        offQuestion.getChildren().addAll(words, new HBox(6, keep, flatten), new HBox(6, mine, back));
    }

    private void off() {
        ask(false);
        send.accept(new Command.SetMode(index, Mode.OFF));
    }

    private void ask(boolean asked) {
        if (asked && !getChildren().contains(offQuestion)) {
            getChildren().add(2, offQuestion);
        } else if (!asked) {
            getChildren().remove(offQuestion);
        }
    }

    private void question(boolean asked) {
        if (asked && !getChildren().contains(question)) {
            getChildren().add(2, question);
        } else if (!asked) {
            getChildren().remove(question);
        }
    }

    /** Shows the mode that holds, whatever was pressed. */
    private void tick() {
        modes.forEach((m, button) -> button.setSelected(m == mode));
    }

    void show(Snapshot.StrategyView view, Sentences words, boolean selected) {
        if (view.strategy() != shown) {
            shown = view.strategy();
            planned(shown);
        }
        mode = view.mode();
        open = view.position().isPresent();
        if (!open) {
            ask(false);
        }
        tick();
        longSide.setSelected(view.longOn());
        shortSide.setSelected(view.shortOn());
        once.setSelected(view.once());
        counts.setText(view.today().taken() + " taken · " + view.today().declined() + " declined"
                + (view.today().wouldBe() > 0 ? " · " + view.today().wouldBe() + " would-be" : "")
                + (view.today().result() == 0 ? "" : " · " + Format.signedMoney(view.today().result()))
                + (view.standing().history().isShort() ? " · history short" : ""));
        sentence.setText(words.state(view.strategy().name(), view.state()));
        pseudoClassStateChanged(SELECTED, selected);
        pseudoClassStateChanged(ENGAGED, mode == Mode.ENGAGED);
    }
}
