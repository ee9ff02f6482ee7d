package stativex.desk.limits;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.Rulebook;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Form;
import stativex.desk.look.Palette;
import stativex.evidence.BookReading;
import stativex.files.RuleWords;

/** The rules of a book, each with what it says and how it stands: a shape for its state, and words. */
final class RuleCards extends VBox {
    RuleCards() {
        super(6);
        setId("rule-cards");
    }

    /** Rules that nobody has held against anything yet. */
    void show(Rulebook book) {
        getChildren().clear();
        book.rules().forEach(rule -> getChildren().add(card(rule, BookReading.State.CLEAR, "")));
        nothing();
    }

    void show(BookReading reading) {
        getChildren().clear();
        reading.rules().forEach(
                standing -> getChildren().add(card(standing.rule(), standing.state(), RuleWords.stands(standing))));
        nothing();
    }

    private void nothing() {
        if (getChildren().isEmpty()) {
            getChildren().add(Form.muted("This book has no rule yet."));
        }
    }

    private static HBox card(Rulebook.Rule rule, BookReading.State state, String stands) {
        Label name = new Label(RuleWords.name(rule));
        name.getStyleClass().add("fact");
        Label said = new Label(spaced(RuleWords.said(rule)));
        said.getStyleClass().add("muted");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        VBox words = new VBox(1, name, said);
        if (!stands.isEmpty()) {
            Label now = new Label(spaced(stands));
            now.setWrapText(true);
            now.setMinHeight(USE_PREF_SIZE);
            now.getStyleClass().add(switch (state) {
                case NEAR -> "near";
                case BROKEN -> "tripped-text";
                case CLEAR, MET -> "figures";
            });
            words.getChildren().add(now);
        }
        HBox.setHgrow(words, Priority.ALWAYS);
        Mark mark = new Mark(state);
        HBox card = new HBox(8, mark, words);
        card.setAlignment(Pos.TOP_LEFT);
        card.getStyleClass().add("rule-card");
        card.setAccessibleText(RuleWords.name(rule) + ": " + RuleWords.of(state) + ". " + RuleWords.said(rule) + ". "
                + stands);
        return card;
    }

    /** Groups of thousands, as everywhere on the screen. */
    static String spaced(String text) {
        return java.util.regex.Pattern.compile("\\d{4,}(?=[.,\\s]|$)").matcher(text)
                .replaceAll(m -> stativex.desk.look.Format.grouped(m.group()));
    }

    /** A circle for clear, a triangle for near, a filled square for met, a cross for broken. */
    private static final class Mark extends Sketch {
        private final BookReading.State state;

        Mark(BookReading.State state) {
            this.state = state;
            setMinSize(16, 18);
            setPrefSize(16, 18);
            setMaxSize(16, 18);
        }

        @Override
        protected void paint(Pen pen, double width, double height) {
            switch (state) {
                case CLEAR -> pen.disc(Palette.PANEL, Palette.SLATE, 7, 9, 5);
                case NEAR -> pen.polygon(Palette.WARN, Palette.WARN, new double[]{1, 13, 7}, new double[]{14, 14, 3});
                case MET -> pen.fill(Palette.SLATE, 2, 4, 11, 11);
                case BROKEN -> {
                    pen.line(Palette.TRIP, 3, 2, 4, 12, 14);
                    pen.line(Palette.TRIP, 3, 12, 4, 2, 14);
                }
            }
        }
    }

    /** As high as its cards. */
    static Region gap() {
        Region gap = new Region();
        VBox.setVgrow(gap, Priority.ALWAYS);
        return gap;
    }
}
