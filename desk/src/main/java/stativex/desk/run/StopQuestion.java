package stativex.desk.run;

import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.Headroom;
import stativex.desk.look.Format;
import stativex.desk.look.HoldButton;
import stativex.engine.Command;
import stativex.engine.Snapshot;
import stativex.files.ResultWords;
import stativex.market.Contract;
import stativex.market.Side;

/** The question before a stop is loosened: where it stands, where it would stand, what the worst case becomes. */
final class StopQuestion extends VBox {
    /** What is asked about: an order and the price that is wanted for it. */
    record Asked(Snapshot.OrderView stop, Snapshot.PositionView position, long price) {}

    private final Contract contract;
    private final long fee;
    private final Label words = new Label();
    private final VBox figures = new VBox(2);
    private final Button keep = new Button();

    /** @param closed told when it has been answered */
    StopQuestion(Contract contract, long fee, Consumer<Command> send, Runnable closed) {
        super(8);
        this.contract = contract;
        this.fee = fee;
        setId("stop-question");
        getStyleClass().add("stop-question");
        setMaxSize(272, Region.USE_PREF_SIZE);
        setMinWidth(272);
        Label title = new Label("Loosen the stop?");
        title.getStyleClass().add("heading");
        words.setWrapText(true);
        words.setMinHeight(Region.USE_PREF_SIZE);
        words.setId("stop-question-words");
        keep.setId("stop-keep");
        keep.setOnAction(e -> {
            asked = Optional.empty();
            closed.run();
        });
        HoldButton loosen = new HoldButton("Hold to loosen", "Moves the stop further away.", () -> {
            asked.ifPresent(a -> send.accept(new Command.Move(a.stop().number(), a.price())));
            asked = Optional.empty();
            closed.run();
        });
        loosen.setId("stop-loosen");
        for (Button button : new Button[]{keep, loosen}) {
            HBox.setHgrow(button, Priority.ALWAYS);
            button.setMaxWidth(Double.MAX_VALUE);
        }
        getChildren().addAll(title, words, figures, new HBox(8, keep, loosen));
        addEventHandler(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                keep.fire();
                e.consume();
            }
        });
    }

    private Optional<Asked> asked = Optional.empty();

    /** Asks. @param nearest the loss line that is nearest; empty: there is none */
    void ask(Asked about, Optional<Headroom> nearest, long lastPrice) {
        asked = Optional.of(about);
        Snapshot.PositionView p = about.position();
        long now = ticks(p, about.stop().price().orElseThrow());
        long then = ticks(p, about.price());
        words.setText("It stands at " + Format.ticks(now) + ", you want it at " + Format.ticks(then)
                + ". The line check is asked when you loosen it.");
        long costNow = cost(p, about.stop().price().orElseThrow(), lastPrice);
        long costThen = cost(p, about.price(), lastPrice);
        figures.getChildren().setAll(line("worst case",
                Format.signedMoney(-costNow) + " → " + Format.signedMoney(-costThen)));
        nearest.ifPresent(h -> figures.getChildren().add(line("then left, " + ResultWords.of(h.line().kind()),
                Format.money(h.money() - costThen))));
        figures.getChildren().add(line("will be sent", (p.side() == Side.LONG ? "SELL " : "BUY ") + p.open() + " stop "
                + Format.price(contract, about.price())));
        keep.setText("Keep " + Format.ticks(now));
    }

    /** The button that leaves everything as it is. */
    Button keep() {
        return keep;
    }

    private static long ticks(Snapshot.PositionView p, long price) {
        return Math.floorDiv(p.side().sign() * (price * p.averageQuantity() - p.averageSum()), p.averageQuantity());
    }

    /** Money from the last price to a stop, with slippage and the exit's fee. */
    private long cost(Snapshot.PositionView p, long stop, long lastPrice) {
        long away = Math.max(0, p.side().sign() * (lastPrice - stop));
        return p.open() * (contract.money(away + contract.slippage(), 1) + fee);
    }

    private static HBox line(String word, String figure) {
        Label left = new Label(word);
        left.getStyleClass().add("muted");
        Label right = new Label(figure);
        right.getStyleClass().add("figures");
        right.setMinWidth(Region.USE_PREF_SIZE);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        return new HBox(6, left, gap, right);
    }
}
