package stativex.study;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A study: takes bars in order and fills its outputs, one value for each bar; NaN stands for absent. Everything it has to
 * remember from bar to bar is kept as {@link Step} says. Values are doubles, in ticks where they mean a price.
 */
public abstract class Study implements Step {
    private final List<OutputColumn> outputs = new ArrayList<>();
    private final List<MarkColumn> marks = new ArrayList<>();
    private OutputColumn[] columns = {};
    private Study[] parts = {};

    Study() {}

    /** The outputs, the main one first; its name is empty. */
    public final List<OutputColumn> outputs() {
        return List.copyOf(outputs);
    }

    /** The marks it draws. */
    public final List<MarkColumn> marks() {
        return List.copyOf(marks);
    }

    @Override
    public final void take(int from, int to) {
        for (int i = 0; i < parts.length; i++) {
            parts[i].take(from, to);
        }
        for (int i = 0; i < columns.length; i++) {
            columns[i].room(to);
        }
        compute(from, to);
    }

    @Override
    public final void reserve(int rows) {
        for (int i = 0; i < parts.length; i++) {
            parts[i].reserve(rows);
        }
        for (int i = 0; i < columns.length; i++) {
            columns[i].room(rows);
        }
    }

    /** Fills the rows {@code from} to {@code to} of every column; there is room for them. */
    abstract void compute(int from, int to);

    /** An output that rules and chart may use. */
    final OutputColumn output(OutputColumn.Shape shape) {
        OutputColumn column = keep(shape);
        outputs.add(column);
        return column;
    }

    final OutputColumn output(String name, Unit unit, Mirror mirror) {
        return output(new OutputColumn.Shape(name, unit, mirror));
    }

    /** A price whose mirrored counterpart is another output: an upper band and a lower one. */
    final OutputColumn level(String name, String counterpart) {
        return output(new OutputColumn.Shape(name, Unit.LEVEL, false, Mirror.NEGATIVE, counterpart));
    }

    final OutputColumn flag(String name, String counterpart) {
        return output(new OutputColumn.Shape(name, Unit.FLAG, false, Mirror.SAME, counterpart));
    }

    /** Marks that point, whose mirrored counterpart is another one of the study's. */
    final MarkColumn mark(String name, MarkColumn.Way way, String counterpart) {
        MarkColumn mark = new MarkColumn(
                new MarkColumn.Shape(name, MarkColumn.Form.CHEVRON, way, Optional.of(counterpart)), memory(), memory());
        marks.add(mark);
        return mark;
    }

    /** What is remembered from bar to bar. */
    final OutputColumn memory() {
        return keep(new OutputColumn.Shape("memory", Unit.NUMBER, Mirror.UNKNOWN));
    }

    /** A study that this one is made of; computed before it. */
    final <T extends Study> T part(T study) {
        parts = java.util.Arrays.copyOf(parts, parts.length + 1);
        parts[parts.length - 1] = study;
        return study;
    }

    private OutputColumn keep(OutputColumn.Shape shape) {
        OutputColumn column = new OutputColumn(shape);
        columns = java.util.Arrays.copyOf(columns, columns.length + 1);
        columns[columns.length - 1] = column;
        return column;
    }

    final OutputColumn main() {
        return outputs.getFirst();
    }

    /** A main output that means what its input means: an average. */
    final OutputColumn.Shape like(OutputColumn input) {
        return new OutputColumn.Shape("", input.unit(), mirror(input));
    }

    /** An output beside such a main one, with a counterpart: a band. */
    final OutputColumn.Shape like(OutputColumn input, String name, String counterpart) {
        return new OutputColumn.Shape(name, input.unit(), false, mirror(input), counterpart);
    }

    /** A distance between values of an input that has a direction: up is above 0. */
    final OutputColumn.Shape signed(OutputColumn input, String name) {
        return new OutputColumn.Shape(name, apart(input),
                mirror(input) instanceof Mirror.Unknown ? Mirror.UNKNOWN : Mirror.NEGATIVE);
    }

    /** A width among values of an input. */
    final OutputColumn.Shape width(OutputColumn input, String name) {
        return new OutputColumn.Shape(name, apart(input), Mirror.SAME);
    }

    static Unit apart(OutputColumn input) {
        return input.unit() == Unit.LEVEL ? Unit.DISTANCE : input.unit();
    }

    /** Of one side's figure alone, such as high, the mirrored study would be another one. */
    static Mirror mirror(OutputColumn input) {
        return input.counterpart().equals(input.name()) ? input.mirror() : Mirror.UNKNOWN;
    }
}
