package stativex.rule;

import java.util.List;
import stativex.study.OutputColumn;
import stativex.study.Step;
import stativex.study.Unit;

/** A value in a rule, a column of one for each bar; NaN stands for absent and passes through arithmetic. */
public abstract class Value implements Step {
    private final String text;
    private final OutputColumn column;

    Value(String text, OutputColumn column) {
        this.text = text;
        this.column = column;
    }

    Value(String text, Unit unit) {
        this(text, new OutputColumn(new OutputColumn.Shape(text, unit, stativex.study.Mirror.UNKNOWN)));
    }

    @Override
    public void reserve(int rows) {
        column.room(rows);
    }

    /** The words it was written with, spaces made single. */
    public String text() {
        return text;
    }

    public Unit unit() {
        return column.unit();
    }

    /** Whose ticks it counts; {@link Ticks#ANY} when it is no price and no distance. */
    final Ticks ticks() {
        return unit() == Unit.LEVEL || unit() == Unit.DISTANCE ? counted() : Ticks.ANY;
    }

    /** Whose ticks it counts if it is a price or a distance. */
    Ticks counted() {
        return Ticks.OWN;
    }

    /** The value at a bar with what it means. */
    Explanation.Amount amount(int bar) {
        return new Explanation.Amount(at(bar), unit(), ticks().foreign());
    }

    /** How far the value is from another one of its kind. */
    Explanation.Amount apart(int bar, double other) {
        return new Explanation.Amount(Math.abs(at(bar) - other), unit() == Unit.LEVEL ? Unit.DISTANCE : unit(),
                ticks().foreign());
    }

    public OutputColumn column() {
        return column;
    }

    /** The value at a bar that was computed. */
    public double at(int bar) {
        return column.at(bar);
    }

    /** A value for each bar. */
    double[] values() {
        return column.values();
    }

    /** The values, bar {@code b} at {@code b * step()}: of a number that is the same at every bar only one. */
    double[] operand() {
        return values();
    }

    int step() {
        return 1;
    }

    /** The named values it is made of, for those who want to see every number. */
    List<Explanation.Term> terms(int bar) {
        return List.of(new Explanation.Term(text, amount(bar)));
    }

    /** Why it is absent at a bar; empty if it is not. */
    String absence(int bar) {
        return Double.isNaN(at(bar)) ? text + " is absent" : "";
    }
}
