package stativex.desk.exits;

import java.util.Optional;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.exit.ExitPlan;

/** Says where the strategy of the open plan runs with another one, and gives it this: from its next trade on, or at once. */
final class RunningPlanView extends VBox {
    private final RunningPlans running;
    private final Label words = new Label();
    private final Button next = new Button("From the next trade");
    private final Button open = new Button("The open trade too");
    private String strategy = "";
    private Optional<ExitPlan> plan = Optional.empty();

    RunningPlanView(RunningPlans running) {
        super(6);
        this.running = running;
        setId("running-plan");
        getStyleClass().add("plan-question");
        words.setId("running-plan-words");
        words.setWrapText(true);
        words.setMinHeight(USE_PREF_SIZE);
        next.setId("running-plan-next");
        next.setTooltip(new Tooltip("An open trade keeps the plan it began with"));
        open.setId("running-plan-open");
        open.setTooltip(new Tooltip("Its best so far counts, and its stop never becomes looser by it"));
        next.setOnAction(e -> use(false));
        open.setOnAction(e -> use(true));
        for (Button each : new Button[]{next, open}) {
            each.getStyleClass().add("small");
            each.setMinWidth(USE_PREF_SIZE);
        }
        getChildren().addAll(words, new HBox(6, next, open));
        Form.show(this, false);
    }

    private void use(boolean alsoOpen) {
        plan.ifPresent(made -> {
            try {
                running.use(strategy, made, alsoOpen);
                Form.show(this, false);
            } catch (IllegalArgumentException e) {
                words.setText(e.getMessage());
            }
        });
    }

    /** The plan that is worked on, and whose it is. */
    void show(String of, Optional<ExitPlan> made) {
        strategy = of;
        plan = made;
        refresh();
    }

    /** What runs may have changed. */
    void refresh() {
        Optional<RunningPlans.Running> there = running.of(strategy);
        boolean differs = plan.isPresent() && there.isPresent()
                && !(there.get().plan().longTerms().equals(plan.get().longTerms())
                        && there.get().plan().shortTerms().equals(plan.get().shortTerms()));
        if (differs != isVisible()) {
            Form.show(this, differs);
        }
        if (differs) {
            words.setText(strategy + " runs with " + there.get().plan().words() + (there.get().open()
                    ? ". A trade of it is open."
                    : "."));
            Form.show(open, there.get().open());
        }
    }
}
