package stativex.desk.exits;

import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import stativex.desk.look.Form;
import stativex.exit.ExitPlan;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.DocumentFolder;

/**
 * The person's exit plans as documents of their own: keep the open one, take one for the open strategy, name it by its figures. Keeping
 * under a name that is taken asks; what gives way stays among the versions.
 */
final class PlanShelf extends VBox {
    private final DocumentFolder<ExitPlan> folder = DocumentFolder.exitPlans();
    private final Supplier<Optional<ExitPlan>> open;
    private final Consumer<ExitPlan> take;
    private final MenuButton kept = new MenuButton("Kept plans");
    private final Label said = new Label();
    private final VBox question = new VBox(6);
    private final Label asked = new Label();

    /**
     * @param open the plan that is worked on
     * @param take puts a plan in its place
     */
    PlanShelf(Supplier<Optional<ExitPlan>> open, Consumer<ExitPlan> take) {
        super(5);
        this.open = open;
        this.take = take;
        Button keep = button("plan-keep", "Keep", "Keeps this plan as a document of its own", this::keep);
        Button name = button("plan-name-figures", "Name by figures", "Names the plan by its figures",
                () -> open.get().ifPresent(plan -> take.accept(plan.named(plan.nameByFigures()))));
        kept.setId("plan-kept");
        kept.getStyleClass().addAll("small", "link");
        kept.setTooltip(new Tooltip("Plans that were kept; one that is chosen is taken for this strategy"));
        kept.setOnShowing(e -> list());
        said.setId("plan-shelf-said");
        said.setWrapText(true);
        said.getStyleClass().add("muted");
        asked.setWrapText(true);
        asked.setMinHeight(USE_PREF_SIZE);
        asked.setId("plan-keep-asked");
        question.getStyleClass().add("plan-question");
        question.getChildren().addAll(asked, new HBox(6,
                button("plan-keep-over", "Save over it", "The older one stays among the versions", () -> {
                    open.get().ifPresent(this::write);
                    ask(false);
                }), button("plan-keep-not", "Not now", "Nothing is written", () -> ask(false))));
        getChildren().addAll(Form.row(keep, kept, name), said);
        Form.show(said, false);
        list();
    }

    private static Button button(String id, String words, String help, Runnable act) {
        Button button = new Button(words);
        button.setId(id);
        button.getStyleClass().add("small");
        button.setMinWidth(USE_PREF_SIZE);
        button.setTooltip(new Tooltip(help));
        button.setOnAction(e -> act.run());
        return button;
    }

    private void keep() {
        ask(false);
        open.get().ifPresent(plan -> {
            Optional<ExitPlan> there = folder.find(plan.name()).map(Documents.Read::value);
            if (there.isEmpty()) {
                write(plan);
            } else if (there.get().words().equals(plan.words())) {
                say("This plan is kept already.");
            } else {
                say("");
                asked.setText("A plan named " + plan.name() + " is kept: " + there.get().words() + ". Save over it?");
                ask(true);
            }
        });
    }

    private void write(ExitPlan plan) {
        try {
            folder.keepBesideOlder(Documents.document(plan), ExitPlan::version);
            say("Kept as " + plan.name() + ".");
            list();
        } catch (BadInput e) {
            say(e.getMessage());
        }
    }

    private void ask(boolean shown) {
        getChildren().remove(question);
        if (shown) {
            getChildren().add(question);
        }
    }

    private void say(String words) {
        said.setText(words);
        Form.show(said, !words.isEmpty());
    }

    private void list() {
        kept.getItems().clear();
        DocumentFolder.Found<ExitPlan> found;
        try {
            found = folder.list();
        } catch (BadInput e) {
            say(e.getMessage());
            return;
        }
        for (Documents.Read<ExitPlan> one : found.documents()) {
            kept.getItems().add(item(one.value(), one.value().name()));
            folder.older(one.value().name())
                    .forEach(older -> kept.getItems()
                            .add(item(older.value(), "    earlier " + older.value().version())));
        }
        if (!found.unreadable().isEmpty()) {
            kept.getItems().add(new SeparatorMenuItem());
            found.unreadable().forEach(words -> {
                MenuItem item = new MenuItem(words);
                item.setDisable(true);
                kept.getItems().add(item);
            });
        }
        if (kept.getItems().isEmpty()) {
            MenuItem none = new MenuItem("none kept yet");
            none.setDisable(true);
            kept.getItems().add(none);
        }
    }

    private MenuItem item(ExitPlan plan, String name) {
        MenuItem item = new MenuItem(name + ": " + plan.words());
        item.setOnAction(e -> {
            take.accept(plan);
            say("Taken: " + plan.name() + ".");
        });
        return item;
    }
}
