package stativex.search;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import stativex.engine.SignalPlan;
import stativex.evidence.Odds;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.rule.Condition;
import stativex.rule.Program;
import stativex.rule.Truth;
import stativex.rule.Worked;
import stativex.study.StudyDefinition;

/** Offers rules of up to three conditions that hold on the bars somebody marked. Source: SEMANTICS, "Searches and evidence". */
public final class ExampleRules {
    private ExampleRules() {}

    /**
     * A rule.
     *
     * @param text of it
     * @param studies that the strategy would need beside its own
     */
    public record Offer(String text, List<StudyDefinition> studies, Examples.Found found) {
        public Offer {
            studies = List.copyOf(studies);
        }
    }

    /** @param offers best first; {@code conditions} they are put together of; {@code scored} conjunctions: attempts */
    public record Result(List<Offer> offers, int conditions, long scored) {
        public Result {
            offers = List.copyOf(offers);
        }
    }

    /**
     * Searches.
     *
     * @param plan whose bars, series and studies conditions may speak of
     * @param bars its signal bars, none of them sealed
     * @param marks of these bars
     * @param weight of a false alarm against a hit
     * @return empty when it was cancelled
     */
    public static Optional<Result> search(SignalPlan plan, Contract contract, Map<String, ContractTape> others,
            BarSeries bars, Examples.Marks marks, BigDecimal weight, int keep, Odds.Progress progress) {
        Set<String> taken = new HashSet<>(plan.studies().stream().map(StudyDefinition::name).toList());
        plan.series().forEach(series -> taken.add(series.name()));
        List<StudyDefinition> usual = UsualConditions.studies(taken);
        List<StudyDefinition> all = new ArrayList<>(plan.studies());
        all.addAll(usual);
        SignalPlan wide = new SignalPlan(plan.bars(), plan.series(), all, plan.drawings(), List.of(), Optional.empty(),
                SignalPlan.Evaluate.BAR_CLOSE, Optional.empty());
        Worked worked = new Worked();
        Program first = new Program(wide.blueprint(contract, others), bars, worked);
        first.studies("");
        first.take();
        worked.keep(first);
        List<String> texts = UsualConditions.of(first, marks.from());
        Program second = new Program(wide.blueprint(contract, others), bars, worked);
        List<String> kept = new ArrayList<>();
        List<Condition> compiled = new ArrayList<>();
        for (String text : texts) {
            // a study of another contract's prices is compared with nothing here
            if (second.problems(text).isEmpty()) {
                kept.add(text);
                compiled.add(second.condition(text));
            }
        }
        second.take();
        List<String> names = new ArrayList<>();
        List<BitSet> truths = new ArrayList<>();
        Set<BitSet> seen = new LinkedHashSet<>();
        for (int i = 0; i < kept.size(); i++) {
            BitSet holds = new BitSet();
            for (int bar = marks.from(); bar < marks.bars(); bar++) {
                holds.set(bar, compiled.get(i).at(bar) == Truth.TRUE);
            }
            // what says the same on every bar is one condition
            if (!holds.isEmpty() && seen.add(holds)) {
                names.add(kept.get(i));
                truths.add(holds);
            }
        }
        return Examples.search(truths, marks, weight, keep, progress).map(found -> new Result(
                found.best().stream().map(one -> offer(one, names, usual)).toList(), names.size(), found.scored()));
    }

    private static Offer offer(Examples.Found found, List<String> names, List<StudyDefinition> usual) {
        String text = String.join("\nand ", found.conditions().stream().map(names::get).toList());
        return new Offer(text, usual.stream().filter(study -> Pattern
                .compile("(?<![\\w.])" + Pattern.quote(study.name()) + "(?!\\w)").matcher(text).find()).toList(),
                found);
    }
}
