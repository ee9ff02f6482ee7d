package stativex.desk.rules;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.IntToLongFunction;
import java.util.stream.Collectors;
import javafx.geometry.Insets;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.look.Format;
import stativex.engine.SideRules;
import stativex.market.TapeTime;
import stativex.rule.Explanation;
import stativex.rule.Truth;

/** Why a side's rule was what it was at one bar: every condition with every number in it, and by how much it missed. */
final class WhyView extends VBox {
    private static final int DEEPEST = 8;

    private final ZoneId zone;
    private Function<Explanation.Amount, String> amounts = amount -> "";
    private final Label heading = new Label();
    private final Label sentence = new Label();
    private final VBox tree = new VBox(3);

    /** @param zone of the exchange */
    WhyView(ZoneId zone) {
        super(4);
        this.zone = zone;
        setId("why");
        getStyleClass().add("why");
        heading.getStyleClass().add("heading");
        heading.setId("why-heading");
        heading.setMinWidth(USE_PREF_SIZE);
        sentence.setId("why-sentence");
        sentence.getStyleClass().add("warn-text");
        ScrollPane scroll = new ScrollPane(tree);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("cards");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(new HBox(14, heading, sentence), scroll);
        nothing();
    }

    /** No bar is chosen. */
    void nothing() {
        heading.setText("Why, or why not");
        sentence.setText("");
        Label how = new Label(
                "Click a bar in the chart or a cell in the lanes: what held there, what did not, and by how much.");
        how.getStyleClass().add("muted");
        how.setWrapText(true);
        tree.getChildren().setAll(how);
    }

    /**
     * @param moments when a bar closed, nanoseconds
     * @param words of a number
     */
    void show(SideRules rules, int bar, IntToLongFunction moments, Function<Explanation.Amount, String> words) {
        amounts = words;
        List<Explanation> parts = rules.lanes().stream().limit(Math.max(1, rules.lanes().size() - 1))
                .map(lane -> lane.condition().explain(bar)).toList();
        int truth = rules.whole().at(bar);
        long moment = moments.applyAsLong(bar);
        heading.setText("Bar " + Format.day(TapeTime.in(zone, moment).toLocalDate()) + " " + Format.clock(moment, zone)
                + (truth == Truth.TRUE ? " — why" : " — why not"));
        sentence.setText(words(rules, bar, parts));
        sentence.setTooltip(new Tooltip(sentence.getText()));
        sentence.getStyleClass().setAll("label", truth == Truth.TRUE ? "muted" : "warn-text");
        tree.getChildren().clear();
        tree.getChildren().add(line(rules.side().word() + ": all of", "", truth, 0, false));
        parts.forEach(part -> add(part, 1, moments));
    }

    /** {@code 3 of 4 held; push missed by 0.6}. */
    private String words(SideRules rules, int bar, List<Explanation> parts) {
        long held = parts.stream().filter(part -> part.truth() == Truth.TRUE).count();
        if (rules.whole().at(bar) == Truth.TRUE) {
            String grade = rules.grade(bar).map(name -> ", grade " + name).orElse("");
            return "all " + parts.size() + " held" + grade;
        }
        List<String> missed = new ArrayList<>();
        for (Explanation failed : parts.stream().flatMap(part -> part.failed().stream()).toList()) {
            missed.add(failed.truth() == Truth.ABSENT
                    ? failed.text() + " is absent"
                    : failed.missed().map(by -> failed.text() + " " + missed(by))
                            .orElse(failed.text() + " did not hold"));
        }
        return held + " of " + parts.size() + " held; " + String.join("; ", missed);
    }

    private void add(Explanation why, int depth, IntToLongFunction moments) {
        tree.getChildren().add(line(why.text(), numbers(why, moments), why.truth(), depth, why.truth() != Truth.TRUE));
        if (depth < DEEPEST) {
            why.parts().forEach(part -> add(part, depth + 1, moments));
        }
    }

    /** {@code missed by 2.0 t}; where both values are the same there is nothing to miss by. */
    private String missed(Explanation.Amount by) {
        return by.value() == 0 ? "equal, must differ the right way" : "missed by " + amounts.apply(by);
    }

    private String numbers(Explanation why, IntToLongFunction moments) {
        List<String> said = new ArrayList<>();
        if (!why.terms().isEmpty()) {
            said.add(why.terms().stream().filter(term -> !term.text().matches("-?[0-9.]+( ticks?)?"))
                    .map(term -> term.text() + " " + amounts.apply(term.amount())).collect(Collectors.joining(", ")));
        }
        why.bar()
                .ifPresent(bar -> said.add("at " + Format.clock(moments.applyAsLong(bar), zone)));
        why.missed().ifPresent(by -> said.add(missed(by)));
        if (!why.note().isEmpty()) {
            said.add(why.note());
        }
        return String.join("; ", said);
    }

    private static Region line(String text, String numbers, int truth, int depth, boolean marked) {
        Label words = new Label(text);
        words.setMinWidth(USE_PREF_SIZE);
        Label figures = new Label(numbers);
        figures.getStyleClass().add("figures");
        figures.setWrapText(true);
        figures.setMinHeight(USE_PREF_SIZE);
        figures.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(figures, Priority.ALWAYS);
        Label verdict = new Label(truth == Truth.TRUE ? "yes" : truth == Truth.FALSE ? "no" : "absent");
        verdict.getStyleClass().add(truth == Truth.TRUE ? "verdict" : "verdict-no");
        verdict.setMinWidth(USE_PREF_SIZE);
        HBox box = new HBox(16, words, figures, verdict);
        box.getStyleClass().add(marked ? "why-failed" : "why-line");
        box.setPadding(new Insets(3, 8, 3, 8 + 14 * depth));
        return box;
    }
}
