package stativex.exit;

/** What studies say at one bar, by their text in the rule language: in ticks where that means a price; NaN while absent. */
@FunctionalInterface
public interface Readings {
    double at(String text);
}
