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
        return List.of(new Explanation.Term(text, new Explanation.Amount(at(bar), unit())));
    }

    /** Why it is absent at a bar; empty if it is not. */
    String absence(int bar) {
        return Double.isNaN(at(bar)) ? text + " is absent" : "";
    }
}
