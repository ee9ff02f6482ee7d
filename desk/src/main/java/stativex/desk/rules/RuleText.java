package stativex.desk.rules;

import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.TraversalDirection;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.event.MouseOverTextEvent;
import org.fxmisc.richtext.model.StyleSpans;
import org.fxmisc.richtext.model.StyleSpansBuilder;
import stativex.rule.Assistance;
import stativex.rule.Language;
import stativex.rule.Program;
import stativex.rule.RuleProblem;
import stativex.study.BarField;

/**
 * A rule as text: words of the language, names, numbers and comments look different, what is wrong is underlined with its
 * reason below, Ctrl+Space (or typing) offers what may stand there, and resting on a word says what it means.
 */
final class RuleText extends VBox {
    private static final KeyCombination RIGHT_FORM = new KeyCodeCombination(KeyCode.ENTER, KeyCombination.ALT_DOWN);
    private static final KeyCombination ASK = new KeyCodeCombination(KeyCode.SPACE, KeyCombination.SHORTCUT_DOWN);
    private static final Pattern WORDS = Pattern.compile("(?<comment>#[^\\n]*)|(?<string>\"[^\"\\n]*\")"
            + "|(?<number>\\b[0-9]+(\\.[0-9]+)?\\b)|(?<name>[a-zA-Z_][a-zA-Z_0-9.]*)");

    private final CodeArea area = new CodeArea();
    private final Label said = new Label();
    private final ListView<Assistance.Suggestion> offers = new ListView<>();
    private final Popup popup = new Popup();
    private final Tooltip help = new Tooltip();
    private Optional<Assistance> assistance = Optional.empty();
    private List<RuleProblem> problems = List.of();
    /** The text in the right form, when what is wrong is known. */
    private Optional<String> offer = Optional.empty();
    private boolean showing;

    /** @param edited told the text after each change by hand */
    RuleText(Consumer<String> edited) {
        getStyleClass().add("rule-text");
        area.setId("rule-text");
        area.setWrapText(true);
        area.setAccessibleText("The rule as text. Ctrl+Space offers words.");
        area.textProperty().addListener((o, before, now) -> {
            paint();
            if (!showing) {
                edited.accept(now);
            }
        });
        area.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        area.addEventHandler(KeyEvent.KEY_TYPED, e -> offer(false));
        area.setMouseOverTextDelay(Duration.ofMillis(400));
        area.addEventHandler(MouseOverTextEvent.MOUSE_OVER_TEXT_BEGIN, this::explain);
        area.addEventHandler(MouseOverTextEvent.MOUSE_OVER_TEXT_END, e -> help.hide());
        area.focusedProperty().addListener((o, before, now) -> {
            if (!now) {
                popup.hide();
            }
        });
        said.setId("rule-said");
        said.getStyleClass().add("problem");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        offers.setId("rule-offers");
        offers.setFocusTraversable(false);
        offers.setPrefSize(290, 150);
        offers.setCellFactory(list -> new Offer());
        offers.setOnMouseClicked(e -> take());
        VBox box = new VBox(offers);
        box.getStyleClass().add("offers");
        popup.getContent().add(box);
        popup.setAutoHide(true);
        area.setPrefHeight(104);
        area.setMinHeight(104);
        getChildren().addAll(area, said);
        setSpacing(3);
    }

    /** A word and what it means. */
    private static final class Offer extends ListCell<Assistance.Suggestion> {
        @Override
        protected void updateItem(Assistance.Suggestion item, boolean empty) {
            super.updateItem(item, empty);
            if (empty || item == null) {
                setGraphic(null);
                return;
            }
            Label word = new Label(item.text());
            word.getStyleClass().add("offer-word");
            word.setMinWidth(USE_PREF_SIZE);
            Label meaning = new Label(item.help());
            meaning.getStyleClass().add("muted");
            setGraphic(new HBox(8, word, meaning));
        }
    }

    /** Shows a text that was made elsewhere. */
    void show(String text) {
        if (!area.getText().equals(text)) {
            showing = true;
            int caret = area.getCaretPosition();
            area.replaceText(text);
            area.moveTo(Math.min(caret, text.length()));
            showing = false;
        }
    }

    /** What may be said, from the program that now stands. */
    void know(Program program) {
        assistance = Optional.of(new Assistance(program));
    }

    /** Underlines what is wrong; empty: nothing is. */
    void problems(List<RuleProblem> found) {
        problems = found;
        offer = found.stream().flatMap(problem -> problem.offer().stream()).findFirst();
        said.setText(found.isEmpty()
                ? ""
                : found.getFirst().getMessage() + (offer.isPresent() ? " (Alt+Enter writes it)" : "")
                        + (found.size() > 1 ? "\nand " + (found.size() - 1) + " more" : ""));
        said.setVisible(!found.isEmpty());
        said.setManaged(!found.isEmpty());
        paint();
    }

    CodeArea area() {
        return area;
    }

    private void paint() {
        String text = area.getText();
        if (!text.isEmpty()) {
            area.setStyleSpans(0, words(text).overlay(wrong(text), (a, b) -> b.isEmpty() ? a : join(a, b)));
        }
    }

    private static Collection<String> join(Collection<String> a, Collection<String> b) {
        return java.util.stream.Stream.concat(a.stream(), b.stream()).toList();
    }

    private static StyleSpans<Collection<String>> words(String text) {
        StyleSpansBuilder<Collection<String>> spans = new StyleSpansBuilder<>();
        Matcher matcher = WORDS.matcher(text);
        int end = 0;
        while (matcher.find()) {
            spans.add(List.of("word"), matcher.start() - end);
            spans.add(List.of(matcher.group("comment") != null
                    ? "comment"
                    : matcher.group("name") == null
                            ? "number"
                            : isWord(matcher.group("name")) ? "keyword" : "word"),
                    matcher.end() - matcher.start());
            end = matcher.end();
        }
        spans.add(List.of("word"), text.length() - end);
        return spans.create();
    }

    private static boolean isWord(String name) {
        return Language.isReserved(name) && !BarField.isOne(name);
    }

    private StyleSpans<Collection<String>> wrong(String text) {
        StyleSpansBuilder<Collection<String>> spans = new StyleSpansBuilder<>();
        int end = 0;
        for (RuleProblem problem : problems) {
            int from = Math.clamp(problem.from(), end, Math.max(end, text.length() - 1));
            int to = Math.clamp(Math.max(problem.to(), from + 1), from, text.length());
            if (to > from) {
                spans.add(List.of(), from - end);
                spans.add(List.of("wrong"), to - from);
                end = to;
            }
        }
        spans.add(List.of(), text.length() - end);
        return spans.create();
    }

    private void key(KeyEvent e) {
        if (RIGHT_FORM.match(e)) {
            offer.ifPresent(area::replaceText);
            e.consume();
        } else if (ASK.match(e)) {
            offer(true);
            e.consume();
        } else if (popup.isShowing()) {
            switch (e.getCode()) {
                case DOWN -> offers.getSelectionModel().selectNext();
                case UP -> offers.getSelectionModel().selectPrevious();
                case ENTER, TAB -> take();
                case ESCAPE -> popup.hide();
                default -> {
                    return;
                }
            }
            e.consume();
        } else if (e.getCode() == KeyCode.TAB) {
            // Tab goes on to the next field, as everywhere in the window
            area.requestFocusTraversal(e.isShiftDown() ? TraversalDirection.PREVIOUS : TraversalDirection.NEXT);
            e.consume();
        }
    }

    private void offer(boolean asked) {
        int caret = area.getCaretPosition();
        int from = Assistance.wordStart(area.getText(), caret);
        List<Assistance.Suggestion> found = assistance.filter(a -> asked || caret > from)
                .map(a -> a.suggestions(area.getText(), caret)).orElse(List.of());
        boolean nothingNew = found.size() == 1 && found.getFirst().text().equals(area.getText(from, caret));
        Optional<Bounds> place = area.getCaretBounds();
        if (found.isEmpty() || nothingNew || place.isEmpty() || area.getScene() == null) {
            popup.hide();
            return;
        }
        offers.getItems().setAll(found);
        offers.getSelectionModel().selectFirst();
        popup.show(area, place.get().getMinX(), place.get().getMaxY() + 2);
    }

    private void take() {
        Assistance.Suggestion chosen = offers.getSelectionModel().getSelectedItem();
        popup.hide();
        if (chosen != null) {
            int caret = area.getCaretPosition();
            area.replaceText(Assistance.wordStart(area.getText(), caret), caret, chosen.text());
        }
    }

    private void explain(MouseOverTextEvent e) {
        Point2D at = e.getScreenPosition();
        problems.stream().filter(p -> p.from() <= e.getCharacterIndex() && e.getCharacterIndex() < p.to()).findFirst()
                .map(RuleProblem::getMessage)
                .or(() -> assistance.flatMap(a -> a.help(area.getText(), e.getCharacterIndex())))
                .ifPresent(words -> {
                    help.setText(words);
                    help.show(area, at.getX() + 8, at.getY() + 12);
                });
    }
}
