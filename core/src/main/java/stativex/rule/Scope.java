package stativex.rule;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import stativex.market.Period;
import stativex.market.SessionCalendar;
import stativex.market.Words;
import stativex.study.BarField;
import stativex.study.Frame;
import stativex.study.MarkColumn;
import stativex.study.OutputColumn;
import stativex.study.Step;
import stativex.study.Studies;
import stativex.study.Study;
import stativex.study.StudyDefinition;
import stativex.study.StudyProblem;
import stativex.study.Unit;

/**
 * One series with what is computed on it: bar figures and studies by name, made when they are first asked for, and the
 * steps in the order in which they must be taken. What is added late catches up with the rows taken so far.
 */
final class Scope {
    /** Rows that all steps take before the next ones: what one step writes the next reads from a near cache. */
    private static final int AT_ONCE = 1024;

    /** A study as it is there: its definition and its outputs. */
    record Built(StudyDefinition definition, List<OutputColumn> outputs, List<MarkColumn> marks) {}

    private final Program program;
    private final String name;
    private final Frame frame;
    /** Whether its forming bar is looked at, so that its columns are its own. */
    private boolean watched;
    private final List<Step> steps = new ArrayList<>();
    private final Map<String, Built> studies = new LinkedHashMap<>();
    private final Map<Period, OutputColumn> starts = new HashMap<>();
    private final Map<String, OutputColumn> soFar = new HashMap<>();
    private final Map<String, Condition> conditions = new HashMap<>();
    private final Map<String, Value> values = new HashMap<>();
    private final Set<String> building = new LinkedHashSet<>();
    private int rows;
    private int formingRow = -1;

    /** @param name of the series; empty for the signal series */
    Scope(Program program, String name, Frame frame) {
        this.program = program;
        this.name = name;
        this.frame = frame;
    }

    /** Its forming bar will be looked at. */
    void watch() {
        watched = true;
    }

    /** The studies that were asked for. */
    Collection<Built> studies() {
        return studies.values();
    }

    Program program() {
        return program;
    }

    Frame frame() {
        return frame;
    }

    /** Whose ticks its prices and distances count. */
    Ticks ticks() {
        return program.ticks(name);
    }

    boolean isSignal() {
        return name.isEmpty();
    }

    SessionCalendar calendar() {
        return frame.calendar();
    }

    /** Rows of closed bars taken so far. */
    int rows() {
        return rows;
    }

    <T extends Step> T add(T step) {
        steps.add(step);
        if (rows > 0) {
            step.take(0, rows);
        }
        if (formingRow >= 0) {
            step.take(formingRow, formingRow + 1);
        }
        return step;
    }

    /** Takes closed bars up to {@code to}, the last one not included. */
    void take(int to) {
        formingRow = -1;
        if (to - rows > AT_ONCE) {
            frame.reserve(to);
            steps.forEach(step -> step.reserve(to));
        }
        while (rows < to) {
            int next = Math.min(to, rows + AT_ONCE);
            frame.take(rows, next);
            for (int i = 0; i < steps.size(); i++) {
                steps.get(i).take(rows, next);
            }
            rows = next;
        }
    }

    /** Takes a bar that is not closed yet, behind the closed ones. */
    void takeForming(stativex.market.BarSeries.Forming bar, long now) {
        frame.takeForming(bar, now);
        formingRow = rows;
        for (int i = 0; i < steps.size(); i++) {
            steps.get(i).take(rows, rows + 1);
        }
    }

    /** What was computed for the same words already. */
    Optional<Condition> known(String text) {
        return Optional.ofNullable(conditions.get(text));
    }

    Condition keep(String text, Condition condition) {
        conditions.put(text, add(condition));
        return condition;
    }

    Optional<Value> knownValue(String text) {
        return Optional.ofNullable(values.get(text));
    }

    Value keep(String text, Value value) {
        values.put(text, add(value));
        return value;
    }

    /** When the period of each row begins. */
    OutputColumn starts(Period period) {
        return starts.computeIfAbsent(period, p -> add(new PeriodStarts(frame, p)).column());
    }

    /** The definitions that sit on this series. */
    List<StudyDefinition> definitions() {
        return program.blueprint().studies().stream().filter(study -> study.on().orElse("").equals(name)).toList();
    }

    /** A bar figure or an output of a study of this series, under its name such as {@code close} or {@code mean.upper}. */
    Optional<OutputColumn> column(String text) {
        for (BarField field : BarField.values()) {
            if (field.word().equals(text)) {
                return Optional.of(frame.field(field));
            }
        }
        int dot = text.indexOf('.');
        String study = dot < 0 ? text : text.substring(0, dot);
        String output = dot < 0 ? "" : text.substring(dot + 1);
        Optional<StudyDefinition> named = definitions().stream().filter(d -> d.name().equals(study)).findFirst();
        if (named.isPresent()) {
            return study(named.get()).outputs().stream().filter(o -> o.name().equals(output)).findFirst();
        }
        if (!soFar.containsKey(text)) {
            PeriodSoFar.of(this, text).ifPresent(made -> soFar.put(text, made));
        }
        return Optional.ofNullable(soFar.get(text));
    }

    /**
     * A study with everything it takes, made when first asked for.
     *
     * @throws StudyProblem when it cannot be made
     */
    Built study(StudyDefinition definition) {
        Built built = studies.get(definition.name());
        if (built != null) {
            return built;
        }
        if (!building.add(definition.name())) {
            List<String> circle = new ArrayList<>(building);
            String words = String.join(" → ", circle.subList(circle.indexOf(definition.name()), circle.size()));
            throw new StudyProblem(definition.name(), "of", "takes itself: " + words + " → " + definition.name());
        }
        try {
            built = (watched ? Optional.<Built>empty() : program.worked(name, definition))
                    .orElseGet(() -> make(definition));
            studies.put(definition.name(), built);
            return built;
        } finally {
            building.remove(definition.name());
        }
    }

    private Built make(StudyDefinition definition) {
        Optional<OutputColumn> input;
        boolean formula = definition.kind().equals(StudyDefinition.FORMULA);
        try {
            input = definition.of().map(text -> formula && Reading.isCondition(text)
                    ? new Formula.Truths(new Compiler(this).condition(text)).column(this)
                    : input(definition, new Compiler(this).value(text)));
        } catch (RuleProblem e) {
            throw new StudyProblem(definition.name(), "of", e.getMessage(), e);
        }
        if (formula) {
            OutputColumn column = input.orElseThrow(() -> new StudyProblem(definition.name(), "of",
                    "expected a value in the rule language, found none"));
            return new Built(definition, List.of(new Formula(column).column(this)), marks(definition, column));
        }
        Study study = Studies.make(definition, frame, input);
        checkShown(definition, study.outputs());
        add(study);
        return new Built(definition, study.outputs(), study.marks());
    }

    /** The marks of a formula that is a yes or no, if it is to draw any. */
    private List<MarkColumn> marks(StudyDefinition definition, OutputColumn holds) {
        if (definition.mark().equals(StudyDefinition.MARKS.getFirst())) {
            return List.of();
        }
        if (holds.unit() != Unit.FLAG) {
            throw new StudyProblem(definition.name(), StudyDefinition.MARK,
                    "only a formula that is a yes or no draws marks, this one is " + holds.unit().words());
        }
        return List.of(new Formula.Marks(definition.mark(), holds, frame).column(this));
    }

    /** Every mark of the studies of this series that can be made. */
    List<Program.MarkOutput> marks() {
        List<Program.MarkOutput> marks = new ArrayList<>();
        for (StudyDefinition definition : definitions()) {
            try {
                if (!building.contains(definition.name())) {
                    study(definition).marks().forEach(mark -> marks.add(new Program.MarkOutput(definition, mark)));
                }
            } catch (StudyProblem e) {
                // said where that study is edited
                continue;
            }
        }
        return marks;
    }

    /** What a study takes, of the contract whose bars it sits on. */
    private OutputColumn input(StudyDefinition definition, Value value) {
        if (value.ticks().with(ticks()).isEmpty()) {
            throw new StudyProblem(definition.name(), "of", value.text() + " counts ticks of " + value.ticks().words()
                    + ", this series those of " + ticks().words() + ": expected a value of one contract"
                    + (isSignal() ? "; a study of the other's prices sits on that series" : ""));
        }
        return value.column();
    }

    private static void checkShown(StudyDefinition definition, List<OutputColumn> outputs) {
        String shown = definition.settings().getOrDefault(StudyDefinition.SHOW, "none");
        List<String> known = outputs.stream().map(o -> o.name().isEmpty() ? StudyDefinition.MAIN : o.name()).toList();
        for (String word : shown.split("\\+", -1)) {
            if (!known.contains(word) && !shown.equals("none")) {
                throw new StudyProblem(definition.name(), StudyDefinition.SHOW, "expected some of "
                        + String.join(", ", known) + " with + between them, or none; found " + word);
            }
        }
    }

    /** Every name that can be said of this series, studies that cannot be made left out. */
    Set<String> names() {
        Set<String> names = new LinkedHashSet<>();
        for (BarField field : BarField.values()) {
            names.add(field.word());
        }
        for (StudyDefinition definition : definitions()) {
            try {
                if (building.contains(definition.name())) {
                    continue;
                }
                for (OutputColumn output : study(definition).outputs()) {
                    names.add(output.name().isEmpty() ? definition.name() : definition.name() + "." + output.name());
                }
            } catch (StudyProblem e) {
                // said where that study is edited
                continue;
            }
        }
        return names;
    }

    /** Says that a name is unknown, and which are known. */
    String unknown(String text) {
        Set<String> known = new LinkedHashSet<>(isSignal() ? program.names() : names());
        Set<String> said = new TreeSet<>(known);
        said.removeIf(one -> one.contains(".") && !one.startsWith(text.split("\\.")[0] + "."));
        return "expected one of " + String.join(", ", known.stream().filter(said::contains).toList()) + "; found \""
                + text + "\"" + Words.didYouMean(text, known);
    }
}
