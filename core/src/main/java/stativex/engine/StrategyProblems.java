package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.SeriesBuilder;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.rule.Program;
import stativex.rule.RuleProblem;
import stativex.study.StudyProblem;

/** Everything that is missing or wrong in what a strategy looks at and judges, each with its place. */
public final class StrategyProblems {
    /**
     * @param place as in its document: {@code long.rule}, {@code filters[0].short}, {@code studies[2].of}
     * @param from where the wrong words begin in a rule's text, from 0; −1 if it is no rule
     */
    public record Problem(String place, String what, int from, int to) {
        Problem(String place, String what) {
            this(place, what, -1, -1);
        }

        /** With its place in words. */
        public String text() {
            return place + ": " + what;
        }
    }

    private final List<Problem> problems = new ArrayList<>();

    private StrategyProblems() {}

    /**
     * Checks against empty tapes; no price is looked at.
     *
     * @param entry of the sides that have none of their own
     * @param others further contracts that its series may name
     */
    public static List<Problem> of(SignalPlan plan, Optional<Strategy.SideRule> longSide,
            Optional<Strategy.SideRule> shortSide, Strategy.Entry entry, Contract contract, List<Contract> others) {
        StrategyProblems found = new StrategyProblems();
        found.check(plan, longSide, shortSide, entry, contract, others);
        return List.copyOf(found.problems);
    }

    /**
     * What is wrong with the studies and rules that a strategy's exit plan takes; the strategy itself has no problem.
     *
     * @param others further contracts that its series may name
     */
    public static List<Problem> ofPlan(Strategy strategy, Contract contract, List<Contract> others) {
        Tape empty = new TapeBuilder(0).build();
        SignalPlan signals = strategy.signals();
        BarSeries none = new SeriesBuilder(empty, contract.calendar(), signals.bars()).series();
        Map<String, ContractTape> tapes = others.stream()
                .collect(Collectors.toMap(Contract::symbol, other -> new ContractTape(other, empty)));
        Program program = new Program(signals.blueprint(contract, tapes), none);
        List<Problem> problems = new ArrayList<>();
        for (Side side : Side.values()) {
            if (strategy.side(side).isPresent()) {
                try {
                    new PlanRules(program, side, strategy.plan().terms(side));
                } catch (IllegalArgumentException e) {
                    problems.add(new Problem("exit", e.getMessage()));
                }
            }
        }
        return problems;
    }

    private void check(SignalPlan plan, Optional<Strategy.SideRule> longSide, Optional<Strategy.SideRule> shortSide,
            Strategy.Entry entry, Contract contract, List<Contract> others) {
        Tape empty = new TapeBuilder(0).build();
        BarSeries none = new SeriesBuilder(empty, contract.calendar(), plan.bars()).series();
        Map<String, ContractTape> tapes = others.stream()
                .collect(Collectors.toMap(Contract::symbol, other -> new ContractTape(other, empty)));
        Program program;
        try {
            program = new Program(plan.blueprint(contract, tapes), none);
        } catch (StudyProblem e) {
            problems.add(study(plan, e));
            return;
        } catch (IllegalArgumentException e) {
            problems.add(new Problem("drawings", e.getMessage()));
            return;
        }
        program.studyProblems().values().forEach(e -> problems.add(study(plan, e)));
        if (longSide.isEmpty() && shortSide.isEmpty()) {
            problems.add(new Problem("long", "no rule yet, for long or for short"));
        }
        longSide.ifPresent(side -> side(program, Side.LONG, side, entry));
        shortSide.ifPresent(side -> side(program, Side.SHORT, side, entry));
        for (int i = 0; i < plan.filters().size(); i++) {
            String place = "filters[" + i + "].";
            SignalPlan.Filter filter = plan.filters().get(i);
            filter.longRule().ifPresent(rule -> rule(program, place + "long", rule));
            filter.shortRule().ifPresent(rule -> rule(program, place + "short", rule));
        }
    }

    private static Problem study(SignalPlan plan, StudyProblem e) {
        for (int i = 0; i < plan.studies().size(); i++) {
            if (plan.studies().get(i).name().equals(e.study())) {
                return new Problem("studies[" + i + "]" + (e.field().isEmpty() ? "" : "." + e.field()), e.what());
            }
        }
        for (int i = 0; i < plan.series().size(); i++) {
            if (plan.series().get(i).name().equals(e.study())) {
                return new Problem("series[" + i + "]." + e.field(), e.what());
            }
        }
        return new Problem("studies", e.getMessage());
    }

    private void side(Program program, Side side, Strategy.SideRule rule, Strategy.Entry both) {
        boolean priced = rule.entry().orElse(both).priced();
        rule(program, side.word() + ".rule", rule.rule());
        for (int i = 0; i < rule.grades().size(); i++) {
            rule(program, side.word() + ".grades[" + i + "].rule", rule.grades().get(i).rule());
        }
        if (priced && rule.price().isEmpty()) {
            problems.add(new Problem(side.word() + ".price", "no price yet for a limit or stop entry"));
        }
        if (!priced && rule.price().isPresent()) {
            problems.add(new Problem(side.word() + ".price", "a market entry takes no price"));
        }
        if (priced && rule.price().isPresent()) {
            try {
                program.level(rule.price().get());
            } catch (RuleProblem e) {
                add(side.word() + ".price", e);
            }
        }
    }

    private void rule(Program program, String place, String text) {
        if (text.isBlank()) {
            problems.add(new Problem(place, "no condition yet"));
            return;
        }
        program.problems(text).forEach(e -> add(place, e));
    }

    private void add(String place, RuleProblem e) {
        problems.add(new Problem(place, e.getMessage(), e.from(), e.to()));
    }
}
