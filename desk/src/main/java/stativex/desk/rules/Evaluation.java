package stativex.desk.rules;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import stativex.desk.chart.ChartBars;
import stativex.desk.chart.ChartModel;
import stativex.desk.chart.Readout;
import stativex.engine.Flickers;
import stativex.engine.SideRules;
import stativex.engine.SignalPlan;
import stativex.engine.Snapshot;
import stativex.engine.Strategy;
import stativex.engine.StrategyProblems;
import stativex.files.StrategyDraft;
import stativex.files.tape.FurtherTapes;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.SeriesBuilder;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.rule.Blueprint;
import stativex.rule.Explanation;
import stativex.rule.Program;
import stativex.rule.Truth;
import stativex.rule.Worked;
import stativex.study.StudyDefinition;
import stativex.study.StudyProblem;

/**
 * What a strategy under work says of a tape: its bars and studies, for each side whose rule reads the lanes and where it
 * would enter, and everything that is missing or wrong. The program in it belongs to whoever holds the evaluation.
 *
 * @param chart bars, studies and marks of would-be entries
 * @param others charts of the further series, by name and bars
 * @param contracts that those look at beside the one that is traded, by symbol
 * @param sides those whose rules read
 * @param lanes of the sides
 * @param doubts what can hardly be meant, once nothing is missing or wrong
 */
record Evaluation(StrategyDraft draft, ChartModel chart, Map<String, ChartModel> others,
        Map<String, ContractTape> contracts, Program program, Map<Side, SideRules> sides,
        Map<Side, List<Snapshot.Lane>> lanes, List<StrategyProblems.Problem> problems,
        List<StrategyProblems.Problem> doubts) {

    /** Makes evaluations of one tape; what was made and did not change stays for the next one. Used by one thread at a time. */
    static final class Maker {
        private static final int KEPT = 8;

        private final Contract contract;
        private final Tape tape;
        private final FurtherTapes further;
        private final Map<BarSettings, BarSeries> made = new HashMap<>();
        private final Worked worked = new Worked();

        Maker(Contract contract, Tape tape, FurtherTapes further) {
            this.contract = contract;
            this.tape = tape;
            this.further = further;
        }

        /** Empty while the document does not say what the strategy looks at. */
        Optional<Evaluation> evaluate(StrategyDraft draft) {
            return draft.signals().map(plan -> evaluate(draft, plan));
        }

        private BarSeries bars(BarSettings settings) {
            if (made.size() > KEPT) {
                made.clear();
            }
            return made.computeIfAbsent(settings, s -> SeriesBuilder.all(tape, contract.calendar(), s));
        }

        private Evaluation evaluate(StrategyDraft draft, SignalPlan plan) {
            BarSeries bars = bars(plan.bars());
            Map<String, ContractTape> contracts = further.of(plan, contract);
            List<Contract> known = contracts.values().stream().map(ContractTape::contract).toList();
            List<StrategyProblems.Problem> problems = draft.problems(contract, known);
            Program program = program(plan, blueprint -> new Program(blueprint, bars, worked), contracts);
            Map<Side, SideRules> sides = new EnumMap<>(Side.class);
            for (Side side : Side.values()) {
                draft.side(side).flatMap(rule -> rules(program, side, rule, plan))
                        .ifPresent(rules -> sides.put(side, rules));
            }
            Map<String, List<Program.StudyOutput>> outputs = new LinkedHashMap<>();
            outputs.put("", outputs(program, ""));
            plan.series().forEach(series -> program.series(series.name())
                    .ifPresent(there -> outputs.put(series.name(), outputs(program, series.name()))));
            program.take();
            worked.keep(program);
            int rows = program.rows();
            Map<Side, List<Snapshot.Lane>> lanes = new EnumMap<>(Side.class);
            List<ChartModel.Mark> marks = new ArrayList<>();
            sides.forEach((side, rules) -> {
                lanes.put(side, rules.lanes().stream()
                        .map(lane -> new Snapshot.Lane(lane.name(), lane.condition().column().view(rows))).toList());
                for (int bar = 0; bar < rows; bar++) {
                    if (rules.whole().at(bar) == Truth.TRUE) {
                        marks.add(new ChartModel.Mark(bar, side));
                    }
                }
            });
            Map<String, ChartModel> others = new LinkedHashMap<>();
            plan.series().stream().filter(series -> outputs.containsKey(series.name())).forEach(series -> {
                Optional<Contract> of = series.contract().map(contracts::get).map(ContractTape::contract);
                others.put(series.name() + "  " + of.map(other -> other.symbol() + "  ").orElse("")
                        + series.bars().type().words(),
                        chart(of.orElse(contract), program.series(series.name()).orElseThrow(),
                                outputs.get(series.name()), List.of()));
            });
            return new Evaluation(draft, chart(contract, bars, outputs.get(""), marks)
                    .drawing(Snapshot.MarkView.shown(program.marks(), rows, false)), others, contracts, program,
                    sides, lanes, problems, problems.isEmpty() ? draft.doubts(contract, known) : List.of());
        }

        private static ChartModel chart(Contract of, BarSeries bars, List<Program.StudyOutput> studies,
                List<ChartModel.Mark> marks) {
            return new ChartModel(ChartBars.history(of, bars, false),
                    Snapshot.StudyView.shown(studies, bars.count()),
                    Optional.empty(), Optional.empty(), List.copyOf(marks));
        }

        /**
         * The same with what signals did inside their bars: of a strategy that is judged on every trade.
         *
         * @param stop asked whether to give up; then empty
         */
        Optional<Evaluation> withFlickers(Evaluation of, BooleanSupplier stop) {
            SignalPlan plan = of.draft.signals().orElseThrow();
            SeriesBuilder builder = new SeriesBuilder(tape, contract.calendar(), plan.bars());
            Program own = program(plan, blueprint -> new Program(blueprint, builder.series()), of.contracts);
            List<SideRules> rules = of.sides.keySet().stream()
                    .flatMap(side -> rules(own, side, of.draft.side(side).orElseThrow(), plan).stream()).toList();
            return Flickers.find(tape, builder, own, rules, stop).map(found -> with(of, found));
        }

        private static Evaluation with(Evaluation of, Map<Side, Flickers.Found> found) {
            Map<Side, List<Snapshot.Lane>> lanes = new EnumMap<>(of.lanes);
            List<ChartModel.Mark> marks = new ArrayList<>();
            found.forEach((side, flickers) -> {
                // it enters the first time in a bar that its rule holds, whatever the close says
                for (int bar = 0; bar < flickers.raised().count(); bar++) {
                    if (flickers.raised().get(bar) == 1) {
                        marks.add(new ChartModel.Mark(bar, side));
                    }
                }
                List<Snapshot.Lane> all = new ArrayList<>(of.lanes.get(side));
                Snapshot.Lane whole = all.removeLast();
                all.add(new Snapshot.Lane(whole.text(), whole.truth(), Optional.of(flickers.raised()),
                        flickers.provisional(), OptionalInt.empty()));
                lanes.put(side, all);
            });
            ChartModel chart = new ChartModel(of.chart.bars(), of.chart.studies(), of.chart.lastPrice(),
                    of.chart.strategy(), List.copyOf(marks)).drawing(of.chart.drawn());
            return new Evaluation(of.draft, chart, of.others, of.contracts, of.program, of.sides, lanes, of.problems,
                    of.doubts);
        }

        /** Whether its signals can come and go inside a bar. */
        static boolean flickers(Evaluation of) {
            return !of.sides.isEmpty() && of.draft.signals()
                    .filter(plan -> plan.evaluate() == SignalPlan.Evaluate.EVERY_TRADE).isPresent();
        }

        /** A study that cannot be made is a problem of its own; the others are there. */
        private Program program(SignalPlan plan, Function<Blueprint, Program> maker,
                Map<String, ContractTape> contracts) {
            try {
                return maker.apply(plan.blueprint(contract, contracts));
            } catch (IllegalArgumentException e) {
                return maker.apply(SignalPlan.of(plan.bars(), List.of()).blueprint(contract, Map.of()));
            }
        }

        /** The price of an entry is checked by itself, so that lanes are there without it. */
        private static Optional<SideRules> rules(Program program, Side side, Strategy.SideRule rule, SignalPlan plan) {
            try {
                return Optional.of(new SideRules(program, side, new Strategy.SideRule(rule.rule(), Optional.empty(),
                        rule.grades(), rule.enters(), Optional.empty()), plan, false));
            } catch (IllegalArgumentException e) {
                return Optional.empty();
            }
        }

        private static List<Program.StudyOutput> outputs(Program program, String series) {
            try {
                return program.studies(series);
            } catch (StudyProblem e) {
                // said among the problems
                return List.of();
            }
        }
    }

    /** Whether nothing is missing or wrong. */
    boolean complete() {
        return problems.isEmpty();
    }

    /** What rules see at a bar of a study that sits on a further series, in words; empty text if it has no value to show. */
    String seen(StudyDefinition study, int bar) {
        String series = study.on().orElseThrow();
        try {
            // what is shown may be ahead of what was evaluated
            return bar < 0 || bar >= program.rows() || program.series(series).isEmpty()
                    ? ""
                    : program.studies(series).stream().filter(output -> output.definition().equals(study)).findFirst()
                            .map(output -> program.value(output.name()))
                            .map(value -> words(new Explanation.Amount(value.at(bar), value.unit(), draft.series()
                                    .stream().filter(one -> one.name().equals(series)).findFirst()
                                    .flatMap(one -> one.contract()).filter(contracts::containsKey))))
                            .orElse("");
        } catch (StudyProblem e) {
            // said among the problems
            return "";
        }
    }

    /** A number of a rule as it is read, a price in the decimals of its contract. */
    String words(Explanation.Amount amount) {
        return Readout.value(amount.contract().map(symbol -> contracts.get(symbol).contract())
                .orElse(chart.bars().contract()), amount.unit(), amount.value());
    }

    /** How often a lane held on the bars {@code from} to {@code to}, both included, and on how many it was judged. */
    static String held(Snapshot.Lane lane, int from, int to) {
        int last = Math.min(to, lane.truth().count() - 1);
        return lane.held(from, last) + " of " + Math.max(0, last - from + 1);
    }
}
