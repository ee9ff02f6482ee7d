package stativex.rule;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import stativex.market.BarSeries;
import stativex.market.Drawing;
import stativex.study.Frame;
import stativex.study.MarkColumn;
import stativex.study.OutputColumn;
import stativex.study.StudyDefinition;
import stativex.study.StudyProblem;
import stativex.study.Unit;

/**
 * The studies and rules of one strategy, made ready for one signal series: columns filled by steps in a fixed order,
 * without a look-up or an allocation per bar. Only what a rule uses is computed. The same steps work a whole history at
 * once and a live series bar by bar. Not safe for several threads.
 */
public final class Program {
    private final Blueprint blueprint;
    private final Optional<Worked> worked;
    private final Scope signal;
    private final Map<String, OtherSeries> others = new HashMap<>();
    private final Map<Fact, Values.PositionFact> facts = new HashMap<>();

    /** What the engine tells of a strategy: of its position, absent while there is none, and of its trades. */
    public enum Fact {
        /** Bars since the entry. */
        BARS_SINCE_ENTRY("bars since entry", Unit.NUMBER),
        /** Ticks in favour of the average at the last price, below 0 against. */
        OPEN_RESULT("open result", Unit.DISTANCE),
        /** Most ticks in favour so far. */
        BEST_EXCURSION("best excursion", Unit.DISTANCE),
        /** Most ticks against so far. */
        WORST_EXCURSION("worst excursion", Unit.DISTANCE),
        /** Bars closed since the one that holds the fill which ended the last trade; absent before the first has ended. */
        BARS_SINCE_EXIT("bars since exit", Unit.NUMBER),
        /** Minutes since that fill. */
        MINUTES_SINCE_EXIT("minutes since exit", Unit.NUMBER),
        /** Net of the last trade that has ended, money. */
        LAST_RESULT("last result", Unit.NUMBER),
        /** The same in times what it risked; absent when it had no stop. */
        LAST_RESULT_IN_R("last result in R", Unit.NUMBER),
        /** Trades with a net below 0 since the last one without. */
        LOSSES_IN_A_ROW("losses in a row", Unit.NUMBER),
        /** Trades opened in this trading day. */
        TRADES_TODAY("trades today", Unit.NUMBER),
        /** Result of this trading day, open result included, after fees, money. */
        RESULT_TODAY("result today", Unit.NUMBER);

        /** Whether it is known without a position. */
        boolean ofTrades() {
            return ordinal() >= BARS_SINCE_EXIT.ordinal();
        }

        private final String words;
        private final Unit unit;

        Fact(String words, Unit unit) {
            this.words = words;
            this.unit = unit;
        }

        public String words() {
            return words;
        }
    }

    /** A study as it stands. */
    public record StudyOutput(StudyDefinition definition, OutputColumn column) {
        /** Whether the chart shows it. */
        public boolean isShown() {
            return definition.shows(column.name());
        }

        /** Its name in rules: {@code mean.upper}. */
        public String name() {
            return column.name().isEmpty() ? definition.name() : definition.name() + "." + column.name();
        }
    }

    /** A kind of mark that a study draws. */
    public record MarkOutput(StudyDefinition definition, MarkColumn column) {
        /** Its name in rules: {@code turn.top}. */
        public String name() {
            return column.name().isEmpty() ? definition.name() : definition.name() + "." + column.name();
        }
    }

    /**
     * @param bars the signal series; it may grow
     * @throws StudyProblem when a name is used twice or cannot be used
     */
    public Program(Blueprint blueprint, BarSeries bars) {
        this(blueprint, bars, Optional.empty());
    }

    /**
     * The same on the whole history of a series that does not grow and whose forming bar nobody asks for.
     *
     * @param worked what earlier programs on it have worked
     */
    public Program(Blueprint blueprint, BarSeries bars, Worked worked) {
        this(blueprint, bars, Optional.of(worked));
    }

    private Program(Blueprint blueprint, BarSeries bars, Optional<Worked> worked) {
        this.blueprint = blueprint;
        this.worked = worked;
        this.signal = new Scope(this, "", new Frame(bars, blueprint.calendar()));
        checkNames();
    }

    /** The columns of a study if they are worked already. */
    Optional<Scope.Built> worked(String series, StudyDefinition definition) {
        return worked.flatMap(kept -> kept.study(this, series, definition));
    }

    /** Tells of every study with its series, and of every further series, that is worked. */
    void worked(BiConsumer<String, Scope.Built> studies,
            BiConsumer<Blueprint.SeriesDefinition, OtherSeries.History> series) {
        signal.studies().forEach(built -> studies.accept("", built));
        others.forEach((name, other) -> {
            other.scope().studies().forEach(built -> studies.accept(name, built));
            series.accept(definition(name).orElseThrow(), other.history());
        });
    }

    private void checkNames() {
        Set<String> taken = new LinkedHashSet<>();
        for (Blueprint.SeriesDefinition series : blueprint.series()) {
            check(series.name(), taken, "series");
            series.contract().filter(symbol -> !blueprint.others().containsKey(symbol)).ifPresent(symbol -> {
                throw new StudyProblem(series.name(), "contract", "there is no tape of " + symbol + " here");
            });
        }
        for (StudyDefinition study : blueprint.studies()) {
            check(study.name(), taken, "study");
            study.on().filter(on -> blueprint.series().stream().noneMatch(s -> s.name().equals(on))).ifPresent(on -> {
                throw new StudyProblem(study.name(), "on", "expected the name of a series"
                        + (blueprint.series().isEmpty()
                                ? ", but there is none beside the signal series"
                                : ": " + String.join(", ",
                                        blueprint.series().stream().map(Blueprint.SeriesDefinition::name).toList()))
                        + "; found \"" + on + "\"");
            });
        }
    }

    private static void check(String name, Set<String> taken, String what) {
        if (!name.matches("[a-zA-Z_][a-zA-Z_0-9]*") || Language.isReserved(name)) {
            throw new StudyProblem(name, "name", "expected a name of letters, digits and _ that is no word of the rule"
                    + " language, found \"" + name + "\"");
        }
        if (!taken.add(name)) {
            throw new StudyProblem(name, "name", what + " name \"" + name + "\" is used twice");
        }
    }

    Blueprint blueprint() {
        return blueprint;
    }

    /** Whose ticks prices and distances of a series count; an empty name is the signal series. */
    Ticks ticks(String series) {
        return definition(series).flatMap(Blueprint.SeriesDefinition::contract).map(Ticks::new).orElse(Ticks.OWN);
    }

    /** Size of such a tick, as prices in rules are written. */
    BigDecimal tickSize(Ticks ticks) {
        return ticks.foreign().map(symbol -> blueprint.others().get(symbol).contract().tickSize())
                .orElse(blueprint.tickSize());
    }

    /** The signal series. */
    public BarSeries bars() {
        return signal.frame().bars();
    }

    /** Rows of the signal series that are computed. */
    public int rows() {
        return signal.rows();
    }

    /** A condition, computed from now on and for every row so far. @throws RuleProblem with its place */
    public Condition condition(String text) {
        try {
            return new Compiler(signal).condition(text);
        } catch (StackOverflowError e) {
            throw new RuleProblem(1, 1, 0, text.length(), "the rule is nested too deeply");
        }
    }

    /** A value. @throws RuleProblem with its place */
    public Value value(String text) {
        return new Compiler(signal).value(text);
    }

    /** A price for an order, such as {@code close - 4 ticks}. @throws RuleProblem with its place */
    public Value level(String text) {
        return new Compiler(signal).level(text);
    }

    /** Every thing that is wrong with a condition, in the order of its text. */
    public List<RuleProblem> problems(String text) {
        try {
            return new Compiler(signal).problems(text);
        } catch (RuleProblem e) {
            return List.of(e);
        }
    }

    /** Conditions whose words alone say that they never hold, or always do. @throws RuleProblem when the text is no rule */
    public List<RuleProblem> doubts(String text) {
        return new Compiler(signal).doubts(text);
    }

    /** The rule of the other side. @throws RuleProblem when the text is no rule */
    public Mirroring.Result mirrored(String text) {
        condition(text);
        return Mirroring.condition(new Compiler(signal), text);
    }

    /** The entry price of the other side. @throws RuleProblem when the text is no price */
    public Mirroring.Result mirroredLevel(String text) {
        level(text);
        return Mirroring.level(new Compiler(signal), text);
    }

    /** All of them must hold. */
    public Condition all(List<Condition> conditions) {
        return conditions.size() == 1
                ? conditions.getFirst()
                : signal.add(new Combined.Joined("all of them", List.copyOf(conditions), true));
    }

    /** One of them must hold. */
    public Condition any(List<Condition> conditions) {
        return conditions.size() == 1
                ? conditions.getFirst()
                : signal.add(new Combined.Joined("any of them", List.copyOf(conditions), false));
    }

    /** The condition held at one of the {@code within} bars before, and this bar is the first to trade beyond its close. */
    public Condition confirmed(Condition of, boolean up, int within) {
        String words = "trades beyond its close within " + within + (within == 1 ? " bar" : " bars");
        return signal.add(new Combined.Confirmed(words, of, up, within,
                signal.frame().field(stativex.study.BarField.CLOSE),
                signal.frame().field(up ? stativex.study.BarField.HIGH : stativex.study.BarField.LOW)));
    }

    /** Takes every closed bar of the signal series that has not been taken. */
    public void take() {
        signal.take(bars().count());
    }

    /** Takes the next closed bar that has not been taken. */
    public void takeNext() {
        signal.take(signal.rows() + 1);
    }

    /** Takes the bar that is forming, behind the closed ones, at row {@link #rows()}; it may be taken again and again. */
    public void takeForming(BarSeries.Forming bar, long now) {
        if (worked.isPresent()) {
            throw new IllegalStateException("columns that were worked are never written again");
        }
        signal.takeForming(bar, now);
    }

    /** Tells that there is no position at a row, before that row is taken. */
    public void tellNoPosition(int row) {
        facts.forEach((fact, column) -> {
            if (!fact.ofTrades()) {
                column.tell(row, Double.NaN);
            }
        });
    }

    /** Tells a fact of the position at a row, before that row is taken. */
    public void tell(Fact fact, int row, double value) {
        Values.PositionFact column = facts.get(fact);
        if (column != null) {
            column.tell(row, value);
        }
    }

    /** Tells of a row what another program of the same rules was told. */
    public void tellAs(Program other, int row) {
        facts.forEach((fact, column) -> column.tell(row, other.facts.get(fact).at(row)));
    }

    /** Whether a rule asks for what only the run can tell: of the position, or of trades. */
    public boolean asksForPosition() {
        return !facts.isEmpty();
    }

    Value fact(Fact fact) {
        Values.PositionFact known = facts.get(fact);
        if (known == null) {
            known = signal.add(new Values.PositionFact(fact.words, fact.unit));
            facts.put(fact, known);
        }
        return known;
    }

    /** What somebody drew, by name. */
    Optional<Drawing> drawing(String name) {
        return blueprint.drawings().stream().filter(d -> d.name().equals(name)).findFirst();
    }

    /** A further series by name, made when first asked for. */
    Optional<OtherSeries> other(String name) {
        return definition(name).map(definition -> {
            OtherSeries known = others.get(name);
            if (known == null) {
                known = signal.add(new OtherSeries(this, definition, signal.frame(),
                        worked.flatMap(kept -> kept.series(this, definition))));
                others.put(name, known);
            }
            return known;
        });
    }

    /** The same, one more time: its forming bars are watched. */
    OtherSeries watched(String name) {
        OtherSeries watched = new OtherSeries(this, definition(name).orElseThrow(), signal.frame(), Optional.empty());
        watched.scope().watch();
        return watched;
    }

    Optional<Blueprint.SeriesDefinition> definition(String name) {
        return blueprint.series().stream().filter(series -> series.name().equals(name)).findFirst();
    }

    /** The bars of a further series, as far as they are taken. */
    public Optional<BarSeries> series(String name) {
        return other(name).map(OtherSeries::bars);
    }

    /** Every name that a rule may use, bar figures first. */
    public Set<String> names() {
        Set<String> names = new LinkedHashSet<>(signal.names());
        for (Blueprint.SeriesDefinition series : blueprint.series()) {
            other(series.name()).ifPresent(other -> other.scope().names().forEach(name -> names
                    .add(stativex.study.BarField.isOne(name) ? series.name() + "." + name : name)));
        }
        return names;
    }

    /** Every output of every study of a series, in the order of definition. @throws StudyProblem when one cannot be made */
    public List<StudyOutput> studies(String series) {
        Scope scope = series.isEmpty() ? signal : other(series).orElseThrow().scope();
        List<StudyOutput> outputs = new ArrayList<>();
        for (StudyDefinition definition : scope.definitions()) {
            for (OutputColumn column : scope.study(definition).outputs()) {
                outputs.add(new StudyOutput(definition, column));
            }
        }
        return outputs;
    }

    /** Every kind of mark that the studies of the signal series draw. */
    public List<MarkOutput> marks() {
        return signal.marks();
    }

    /** What is wrong with the studies, by study; empty if every one can be made. */
    public Map<String, StudyProblem> studyProblems() {
        Map<String, StudyProblem> problems = new LinkedHashMap<>();
        for (StudyDefinition definition : blueprint.studies()) {
            try {
                Scope scope = definition.on().isEmpty()
                        ? signal
                        : other(definition.on().get()).orElseThrow().scope();
                scope.study(definition);
            } catch (StudyProblem e) {
                problems.put(definition.name(), e);
            }
        }
        return problems;
    }
}
