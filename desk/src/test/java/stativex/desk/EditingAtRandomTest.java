package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import javafx.event.ActionEvent;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.testfx.util.WaitForAsyncUtils;
import org.testng.annotations.Test;
import stativex.files.StrategyDraft;
import stativex.files.StrategyFolder;

/**
 * Whatever a person presses, chooses and writes in the Rules stage, in whatever order: nothing fails, the state is said in
 * words, and what is shown is what is kept. {@code -Dstativex.steps} and {@code -Dstativex.seed} make it longer or another
 * one.
 */
public class EditingAtRandomTest extends DeskTest {
    private static final int STEPS = Integer.getInteger("stativex.steps", 90);
    private static final long SEED = Long.getLong("stativex.seed", 11);
    private static final List<String> TEXTS = List.of("close > open", "close >", "", "drift rises through mean",
            "mean.upper + 3 ticks", "close 1 bar before", "7", "-3 ticks", "forming trend.close > open",
            "trend.close > close", "x", "nonsense (", "close when (delta > 0) first became true", "12.5", "0",
            "bars since (close > open) > 3", "# only a comment", "1 = 1", "name with space", "trend", "99999999999");
    /** They leave the stage, or ask for a second press. */
    private static final List<String> LEFT_ALONE = List.of("strategy-remove", "strategy-run");

    private final SplittableRandom dice = new SplittableRandom(SEED);
    private final List<String> log = new ArrayList<>();

    private <T> T one(List<T> of) {
        return of.get(dice.nextInt(of.size()));
    }

    @Test
    public void nothingFailsAndNothingIsLost() {
        robot.push(KeyCode.SHORTCUT, KeyCode.DIGIT2);
        for (int step = 0; step < STEPS; step++) {
            log.add(fx(this::step));
            WaitForAsyncUtils.waitForFxEvents();
            until("after " + log, () -> !window.rulesStage().isBusy());
            WaitForAsyncUtils.waitForFxEvents();
            assertFalse(text("#rules-state").isBlank(), "a state in words after " + log);
            StrategyDraft draft = fx(() -> window.rulesStage().draft());
            List<StrategyDraft> kept = StrategyFolder.own().list().strategies();
            kept.stream().filter(one -> one.name().equals(draft.name())).findFirst()
                    .ifPresent(one -> assertEquals(one.text(), draft.text(), "what is kept, after " + log));
        }
    }

    /** Does something to a control that can be seen; says what. */
    private String step() {
        ListView<?> studies = (ListView<?>) window.rulesStage().lookup("#studies-list");
        if (dice.nextInt(12) == 0 && !studies.getItems().isEmpty()) {
            studies.getSelectionModel().select(dice.nextInt(studies.getItems().size()));
            return "choose a study";
        }
        Node node = one(window.rulesStage().lookupAll("*").stream().filter(EditingAtRandomTest::canBeUsed).toList());
        String words = one(TEXTS);
        String did = node.getId();
        switch (node) {
            case MenuButton menu -> one(menu.getItems()).fire();
            case ComboBox<?> box when box.isEditable() && dice.nextBoolean() -> {
                box.getEditor().setText(words);
                box.getEditor().fireEvent(new ActionEvent());
                did += " := " + words;
            }
            case ComboBox<?> box when !box.getItems().isEmpty() -> {
                box.getSelectionModel().select(dice.nextInt(box.getItems().size()));
                did += " := " + box.getValue();
            }
            case CodeArea area -> {
                area.replaceText(words);
                did += " := " + words;
            }
            case TextField field -> {
                field.requestFocus();
                field.setText(words);
                field.fireEvent(new ActionEvent());
                did += " := " + words;
            }
            case CheckBox box -> box.fire();
            case ToggleButton button -> button.fire();
            case Button button -> button.fire();
            default -> did += " is left alone";
        }
        return did;
    }

    private static boolean canBeUsed(Node node) {
        boolean control = node instanceof Button || node instanceof ComboBox || node instanceof TextField
                || node instanceof CheckBox || node instanceof ToggleButton || node instanceof MenuButton
                || node instanceof CodeArea;
        if (!control || node.isDisabled() || node.getId() == null || LEFT_ALONE.contains(node.getId())) {
            return false;
        }
        for (Node one = node; one != null; one = one.getParent()) {
            if (!one.isVisible()) {
                return false;
            }
        }
        return true;
    }
}
