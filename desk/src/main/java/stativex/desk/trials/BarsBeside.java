package stativex.desk.trials;

import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.order.TrialMode;
import stativex.trial.Assumed;
import stativex.trial.Run;
import stativex.trial.Summary;

/** What the same trial comes to when bars are walked instead of prints, one press away: how far a coarse look would have been off. */
final class BarsBeside extends VBox {
    private final Button ask = new Button("Walk the bars instead");
    private final Label words = Form.wrapped("");

    BarsBeside(TrialQueue queue, TrialQueue.Result result) {
        super(4);
        setPadding(new javafx.geometry.Insets(10, 0, 0, 0));
        Label heading = new Label("By bars");
        heading.getStyleClass().add("heading");
        ask.setId("trial-bars");
        words.setId("trial-bars-words");
        words.setText("Every print was walked. Walked by bars, with the way inside each assumed, it comes to something"
                + " else:");
        ask.setOnAction(e -> {
            ask.setDisable(true);
            queue.beside(result.run().inputs().under(result.run().inputs().terms().in(TrialMode.BAR)),
                    bars -> words.setText(words(result.report().summary(), bars)), problem -> {
                        words.setText(problem);
                        ask.setDisable(false);
                    });
        });
        getChildren().addAll(heading, words, ask);
    }

    private static String words(Summary ticks, Run run) {
        Summary bars = Summary.of(run);
        Assumed assumed = run.assumed().orElseThrow();
        return "By bars: net " + Format.signedMoney(bars.net()) + ", " + difference(bars.net() - ticks.net())
                + " than print by print; " + trades(bars.trades() - ticks.trades()) + "; deepest drawdown "
                + Format.money(-bars.deepestDrawdown()) + ". Assumed: "
                + String.join(", ", List.of("the stop before the target in " + assumed.stopsCounted() + " bars",
                        "the way in " + assumed.equalExtremes() + " bars with equal extremes",
                        "through for " + assumed.queueFills() + " fills in a queue",
                        "the volume of " + assumed.localStops() + " local stops"))
                + ".";
    }

    private static String difference(long money) {
        return Format.money(Math.abs(money)) + (money < 0 ? " worse" : " better");
    }

    private static String trades(int more) {
        return more == 0 ? "as many trades" : Math.abs(more) + (more > 0 ? " trades more" : " trades fewer");
    }
}
