package stativex.rule;

import java.util.List;
import java.util.Optional;
import stativex.study.Step;

/** A condition, {@link Truth} for each bar in three-valued logic. */
public abstract class Condition implements Step {
    private final String text;
    private final TruthColumn column = new TruthColumn();

    Condition(String text) {
        this.text = text;
    }

    /** The words it was written with, spaces made single. */
    public String text() {
        return text;
    }

    public TruthColumn column() {
        return column;
    }

    /** {@link Truth} at a bar that was evaluated. */
    public int at(int bar) {
        return column.at(bar);
    }

    final byte[] truths() {
        return column.values();
    }

    @Override
    public final void reserve(int rows) {
        column.room(rows);
    }

    @Override
    public final void take(int from, int to) {
        evaluate(column.room(to), from, to);
    }

    abstract void evaluate(byte[] truth, int from, int to);

    /** The conditions that must all hold: the lanes under a chart. */
    public List<Condition> parts() {
        return List.of(this);
    }

    /** What it is on every bar on which it is not absent, if its words alone tell that. */
    Optional<Boolean> constant() {
        return Optional.empty();
    }

    /** Why it was what it was at a bar. */
    public abstract Explanation explain(int bar);
}
