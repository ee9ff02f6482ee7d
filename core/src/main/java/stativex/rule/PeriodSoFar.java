package stativex.rule;

import java.util.Arrays;
import java.util.Optional;
import stativex.market.Period;
import stativex.study.BarField;
import stativex.study.OutputColumn;
import stativex.study.Step;

/** A figure of a period's closed bars so far: {@code session.high}, the highest price of the session up to this bar. */
final class PeriodSoFar implements Step {
    private final BarField field;
    private final OutputColumn starts;
    private final OutputColumn figures;
    private final OutputColumn column;

    private PeriodSoFar(String period, BarField field, OutputColumn starts, OutputColumn figures) {
        this.field = field;
        this.starts = starts;
        this.figures = figures;
        String counterpart = field == BarField.HIGH ? "low" : field == BarField.LOW ? "high" : field.word();
        this.column = new OutputColumn(new OutputColumn.Shape(period + "." + field.word(), figures.unit(), true,
                figures.mirror(), period + "." + counterpart));
    }

    /** The figure behind a name such as {@code week.low}; empty when the name stands for none. */
    static Optional<OutputColumn> of(Scope scope, String name) {
        String[] parts = name.split("\\.", -1);
        if (parts.length != 2) {
            return Optional.empty();
        }
        Optional<Period> period = Arrays.stream(Period.values()).filter(p -> p.word().equals(parts[0])).findFirst();
        Optional<BarField> field = Arrays.stream(BarField.values())
                .filter(f -> f.word().equals(parts[1]) && switch (f) {
                    case OPEN, HIGH, LOW, CLOSE, VOLUME -> true;
                    default -> false;
                }).findFirst();
        if (period.isEmpty() || field.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(scope.add(new PeriodSoFar(parts[0], field.get(), scope.starts(period.get()),
                scope.frame().field(field.get()))).column);
    }

    @Override
    public void reserve(int rows) {
        column.room(rows);
    }

    @Override
    public void take(int from, int to) {
        double[] y = column.room(to);
        double[] x = figures.values();
        double[] start = starts.values();
        for (int bar = from; bar < to; bar++) {
            boolean first = bar == 0 || start[bar] != start[bar - 1];
            y[bar] = first ? x[bar] : switch (field) {
                case OPEN -> y[bar - 1];
                case HIGH -> Math.max(y[bar - 1], x[bar]);
                case LOW -> Math.min(y[bar - 1], x[bar]);
                case VOLUME -> y[bar - 1] + x[bar];
                default -> x[bar];
            };
        }
    }
}
