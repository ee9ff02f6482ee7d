package stativex.study;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.market.BarSeries;

/** The studies of one strategy on its signal series, and every name that its rules may use. */
public final class StudySet {
    private final List<Study> studies = new ArrayList<>();
    private final Map<String, OutputColumn> columns = new LinkedHashMap<>();
    private final Map<String, Output> names = new LinkedHashMap<>();

    /** @throws IllegalArgumentException naming the study that is wrong */
    public StudySet(List<StudyDefinition> definitions, BarSeries bars) {
        for (BarField field : BarField.values()) {
            names.put(field.word(), field.of(bars));
        }
        for (StudyDefinition definition : definitions) {
            if (names.containsKey(definition.name())) {
                throw new IllegalArgumentException("study name \"" + definition.name() + "\" is used twice");
            }
            Study study = make(definition, bars);
            studies.add(study);
            study.outputs().forEach((output, column) -> {
                String name = output.isEmpty() ? definition.name() : definition.name() + "." + output;
                columns.put(name, column);
                names.put(name, column);
            });
        }
    }

    private Study make(StudyDefinition definition, BarSeries bars) {
        try {
            return switch (definition) {
                case StudyDefinition.EmaOf ema -> new Ema(
                        output(ema.of()).orElseThrow(() -> new IllegalArgumentException(
                                "expected the name of a bar figure or of a study above, found \"" + ema.of() + "\"")),
                        ema.length());
                case StudyDefinition.AtrOf atr -> new Atr(bars, atr.length());
                case StudyDefinition.VwapOf vwap -> new SessionVwap(bars, vwap.deviations());
            };
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("study \"" + definition.name() + "\": " + e.getMessage(), e);
        }
    }

    /** The output under a name such as {@code close}, {@code mean} or {@code mean.upper}. */
    public Optional<Output> output(String name) {
        return Optional.ofNullable(names.get(name));
    }

    /** Every name that a rule may use, bar figures first. */
    public List<String> names() {
        return List.copyOf(names.keySet());
    }

    /** The study columns by name, in the order of definition. */
    public Map<String, OutputColumn> columns() {
        return columns;
    }

    public void sessionOpens() {
        for (int i = 0; i < studies.size(); i++) {
            studies.get(i).sessionOpens();
        }
    }

    /** Every study takes the closed bar, in order of definition. */
    public void take(int bar) {
        for (int i = 0; i < studies.size(); i++) {
            studies.get(i).take(bar);
        }
    }
}
