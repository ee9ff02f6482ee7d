package stativex.desk.trials;

import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.evidence.ForwardGate;

/** How the version of a trial went on: its whole days in recorded sessions against the band of its trial. */
final class ForwardPart extends VBox {
    private final Button ask = new Button("Rehearse over recorded replays");
    private final Label words = Form.wrapped("");

    ForwardPart(TrialQueue queue, TrialQueue.Result result) {
        super(4);
        setPadding(new javafx.geometry.Insets(10, 0, 0, 0));
        Label heading = new Label("Forward");
        heading.getStyleClass().add("heading");
        ask.setId("trial-forward");
        words.setId("trial-forward-words");
        words.setText(
                "Judged at the close of days 10, 20, 30, 60 and 90 by what this trial promises. Only days live on a"
                        + " simulated account will count; replays with this version are a rehearsal.");
        ask.setOnAction(e -> {
            ask.setDisable(true);
            queue.forward(result, this::show, problem -> {
                words.setText(problem);
                ask.setDisable(false);
            });
        });
        getChildren().addAll(heading, words, ask);
    }

    /** @param forward whole days that were found; {@code left} others with this version */
    record Found(ForwardGate.Standing standing, List<ForwardGate.Day> forward, int left, List<ForwardGate.Band> bands) {
        Found {
            forward = List.copyOf(forward);
            bands = List.copyOf(bands);
        }
    }

    private void show(Found found) {
        ForwardGate.Standing standing = found.standing();
        String next = standing.next().isPresent()
                ? ", judged next at the close of day " + standing.next().getAsLong()
                : "";
        String worthless = standing.worthless().isPresent()
                ? " A worthless version would have passed "
                        + Format.decimal(100 * standing.worthless().getAsDouble(), 1)
                        + " % of the time."
                : "";
        words.setText(switch (standing.verdict()) {
            case PASS -> "Pass";
            case FAIL -> "Fail";
            case NOT_YET -> "Not yet";
        } + " after " + standing.days() + (standing.days() == 1 ? " whole day" : " whole days") + next + "." + worthless
                + (found.left() > 0
                        ? " " + found.left() + (found.left() == 1 ? " day was" : " days were")
                                + " not engaged as a whole and left out."
                        : "")
                + " A rehearsal: it counts for nothing.");
        if (!found.forward().isEmpty()) {
            ForwardPicture picture = new ForwardPicture(found);
            picture.setId("trial-forward-picture");
            picture.setPrefHeight(120);
            getChildren().add(picture);
        }
    }
}
