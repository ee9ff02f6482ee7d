package stativex.study;

/** A named column of values, one for each closed bar of a series; NaN stands for an absent value. */
public interface Output {
    Unit unit();

    /** The value at a closed bar; NaN when absent. */
    double at(int bar);
}
