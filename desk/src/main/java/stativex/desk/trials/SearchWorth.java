package stativex.desk.trials;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.desk.look.HoldButton;
import stativex.engine.Strategy;
import stativex.evidence.DayStatistics;
import stativex.files.Documents;
import stativex.files.SealBook;
import stativex.files.SearchChoices;
import stativex.files.SearchRun;
import stativex.files.SearchSpec;
import stativex.files.SearchUnseen;
import stativex.search.Control;
import stativex.search.Ranking;
import stativex.search.Space;
import stativex.search.Tried;
import tools.jackson.databind.JsonNode;

/** What the best of a search is worth: luck, the chosen variant, the unseen dates, both sides joined, the walk forward. */
final class SearchWorth {
    private final Consumer<JsonNode> use;
    private final Consumer<List<JsonNode>> join;
    private final Consumer<Documents.Read<Strategy>> open;

    /**
     * @param use takes the document of a variant that is to be worked on
     * @param join takes those of a long and a short variant that are to be tried together
     * @param open opens the sealed dates for a variant
     */
    SearchWorth(Consumer<JsonNode> use, Consumer<List<JsonNode>> join, Consumer<Documents.Read<Strategy>> open) {
        this.use = use;
        this.join = join;
        this.open = open;
    }

    /** @param chosen places of the chosen variant */
    List<Node> nodes(SearchSpec spec, SearchJob.Result found, int[] chosen) {
        List<Node> nodes = new ArrayList<>();
        SearchRun.Judged judged = found.judged();
        Optional<Ranking.Ranked> of = judged.ranked().stream()
                .filter(one -> one.entry().grid() == found.run().space().number(chosen)).findFirst();
        luck(judged, of, nodes);
        chosen(spec, found, chosen, of, nodes);
        of.ifPresent(one -> found.unseen().ifPresent(unseen -> unseen(spec, found, unseen, one, chosen, nodes)));
        joined(spec, found, nodes);
        walked(found, nodes);
        return nodes;
    }

    private static void luck(SearchRun.Judged judged, Optional<Ranking.Ranked> of, List<Node> nodes) {
        nodes.add(SearchFields.heading("The honest corner"));
        double year = Math.sqrt(DayStatistics.YEAR);
        String attempts = Format.grouped(Integer.toString(judged.attempts()));
        OptionalDouble best = judged.bestAtRandom();
        nodes.add(Form.wrapped(best.isPresent()
                ? "Best of " + attempts + " worthless rules would show a Sharpe ratio of about "
                        + Format.decimal(best.getAsDouble() * year, 2) + " a year."
                : "Too few variants have a Sharpe ratio to say what luck alone would show."));
        if (best.isPresent() && best.getAsDouble() > 0) {
            LuckPicture picture = new LuckPicture(best.getAsDouble(), judged.attempts(),
                    of.map(one -> one.entry().tried().sharpe()).orElse(OptionalDouble.empty()),
                    SearchMap.peak(judged.ranked()).map(one -> one.entry().tried().sharpe())
                            .orElse(OptionalDouble.empty()));
            picture.setId("search-luck-picture");
            picture.setPrefHeight(112);
            nodes.add(picture);
            nodes.add(Form.wrapped("Shaded: where the best of " + attempts + " worthless rules falls."));
        }
        nodes.add(fact("search-luck", "Chance that the best is luck", judged.luck()
                .map(l -> Format.decimal(100 * l.chance(), 0) + " %").orElse("absent")));
        nodes.add(Form.wrapped(judged.luck()
                .map(l -> "Without any skill " + Format.decimal(100 * l.withoutSkill(), 0) + " %; "
                        + Format.grouped(Integer.toString(l.choices())) + " ways to halve " + l.days() * 16
                        + " days.")
                .orElse("It takes 16 blocks of 5 days, and two variants.")));
        nodes.add(fact("search-attempts", "Attempts on these dates so far",
                Format.grouped(Integer.toString(judged.attempts()))));
    }

    private void chosen(SearchSpec spec, SearchJob.Result found, int[] chosen, Optional<Ranking.Ranked> of,
            List<Node> nodes) {
        nodes.add(SearchFields.heading("Chosen"));
        nodes.add(Form.wrapped(found.run().space().words(chosen).replace("; ", " · ").replace("=", " ")));
        of.ifPresent(one -> {
            nodes.add(fact("", "Net", Format.signedMoney(one.entry().tried().net())));
            nodes.add(fact("", "Trades", Integer.toString(one.entry().tried().trades())));
            nodes.add(fact("", "Neighbours' score", SearchMap.text(one.neighbours())));
            nodes.add(fact("", "1 − deflated Sharpe ratio", one.deflated().isPresent()
                    ? Format.decimal(1 - one.deflated().getAsDouble(), 3)
                    : "absent"));
            int control = Control.place(found.run().space(), SearchChoices.FILTERS);
            if (control >= 0) {
                Control.of(found.run().space(), found.found().entries(), control).stream()
                        .filter(c -> c.with().grid() == one.entry().grid()).findFirst().ifPresent(c -> {
                            nodes.add(fact("search-control", "Against no filter", Format.signedMoney(c.net())));
                            nodes.add(fact("", "Trades against it", Format.signed(c.trades())));
                        });
            }
            if (!one.entry().tried().hasStop()) {
                Label no = Form.wrapped("Without a stop: shown, never offered for a run.");
                no.getStyleClass().setAll("label", "near");
                nodes.add(no);
            } else {
                Button take = new Button("Use the chosen one");
                take.setId("search-use");
                take.setOnAction(e -> use.accept(spec.variant(chosen).document()));
                nodes.add(take);
            }
        });
    }

    /** What it made of dates that it was not fitted on, if they were opened for it; else the way to open them. */
    private void unseen(SearchSpec spec, SearchJob.Result found, SearchUnseen unseen, Ranking.Ranked one, int[] chosen,
            List<Node> nodes) {
        nodes.add(SearchFields.heading("Fitted against unseen"));
        SealBook.Seal seal = unseen.seal();
        Optional<Tried> tried = unseen.of(one);
        String dates = Format.day(seal.from()) + " – " + Format.day(seal.to());
        if (tried.isPresent()) {
            nodes.add(fact("search-unseen", "Unseen net, " + tried.get().trades() + " trades",
                    Format.signedMoney(tried.get().net())));
            nodes.add(Form.wrapped("Of " + dates + ", opened " + SealBook.times(unseen.openings()) + "."));
        } else if (one.entry().tried().hasStop()) {
            Documents.Read<Strategy> variant = spec.variant(chosen);
            HoldButton hold = new HoldButton("Hold to open " + dates + " for this variant",
                    "It is opened for this variant alone, and counted for ever.", () -> open.accept(variant));
            hold.setId("search-open-seal");
            nodes.add(Form.wrapped("Sealed for this variant; opened " + SealBook.times(unseen.openings())
                    + " by others. Each look makes the unseen dates worth less."));
            nodes.add(hold);
        }
        if (!unseen.tried().isEmpty()) {
            UnseenPicture picture = new UnseenPicture(found.judged().ranked(), unseen, one);
            picture.setId("search-unseen-picture");
            picture.setPrefHeight(150);
            nodes.add(picture);
            nodes.add(Form.wrapped("Net per trade; a steep fall is a bad sign. Only what was opened has a line."));
        }
    }

    /** Where sides were tried apart: the best of each, tried together. */
    private void joined(SearchSpec spec, SearchJob.Result found, List<Node> nodes) {
        Space space = found.run().space();
        int sides = Control.place(space, SearchChoices.SIDES);
        if (sides < 0) {
            return;
        }
        List<Ranking.Ranked> best = new ArrayList<>();
        for (int side = 0; side < 2; side++) {
            int of = side;
            found.judged().ranked().stream().filter(one -> space.places(one.entry().grid())[sides] == of
                    && one.entry().tried().hasStop()).findFirst().ifPresent(best::add);
        }
        if (best.size() == 2) {
            nodes.add(SearchFields.heading("Joined"));
            nodes.add(Form.wrapped("The best long one, variant " + best.get(0).entry().number()
                    + ", and the best short one, variant " + best.get(1).entry().number() + ", as one trial."));
            Button together = new Button("Try both together");
            together.setId("search-joined");
            together.setOnAction(e -> join.accept(best.stream()
                    .map(one -> spec.variant(space.places(one.entry().grid())).document())
                    .toList()));
            nodes.add(together);
        }
    }

    /** What the best of each fit part made of the days behind it. */
    private static void walked(SearchJob.Result found, List<Node> nodes) {
        if (found.steps().isEmpty()) {
            return;
        }
        List<SearchRun.Step> steps = found.steps().get();
        nodes.add(SearchFields.heading("Walked forward"));
        long net = steps.stream().mapToLong(step -> step.tried().map(Tried::net).orElse(0L)).sum();
        int trades = steps.stream().mapToInt(step -> step.tried().map(Tried::trades).orElse(0)).sum();
        nodes.add(fact("search-walked", "On days none was fitted on", Format.signedMoney(net)));
        nodes.add(fact("", "Trades", Integer.toString(trades)));
        WalkPicture picture = new WalkPicture(steps);
        picture.setPrefHeight(110);
        nodes.add(picture);
        for (SearchRun.Step step : steps) {
            String last = step.testTo().equals(step.testFrom()) ? "" : " – " + Format.day(step.testTo());
            nodes.add(fact("", Format.day(step.testFrom()) + last + ", " + step.best()
                    .map(one -> "variant " + one.entry().number()).orElse("none"),
                    Format.signedMoney(step.tried().map(Tried::net).orElse(0L))));
        }
    }

    private static HBox fact(String id, String word, String figure) {
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label value = new Label(figure);
        value.getStyleClass().add("fact");
        if (!id.isEmpty()) {
            value.setId(id);
        }
        return new HBox(6, new Label(word), gap, value);
    }
}
