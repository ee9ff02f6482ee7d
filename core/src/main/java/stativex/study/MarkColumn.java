package stativex.study;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Marks of one kind that a study draws, at most one with each bar: on that bar or on an earlier one, since some are known only
 * later. What was drawn stays.
 */
public final class MarkColumn {
    /** In place of bars before: a bar with which no mark was drawn. */
    public static final double NONE = -1;

    /** What a mark looks like. */
    public enum Form {
        CHEVRON, DIAMOND;

        public String word() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }

        public static Optional<Form> of(String word) {
            return Arrays.stream(values()).filter(form -> form.word().equals(word)).findFirst();
        }

        /** The words of all forms. */
        public static List<String> words() {
            return Arrays.stream(values()).map(Form::word).toList();
        }
    }

    /** Which way it points, if it does. */
    public enum Way {
        UP, DOWN, NONE
    }

    /**
     * @param name of the mark within its study; empty for the only one
     * @param counterpart name of the mark that takes its place when the market is mirrored; empty: there is none
     */
    public record Shape(String name, Form form, Way way, Optional<String> counterpart) {}

    private final Shape shape;
    private final OutputColumn ago;
    private final OutputColumn price;

    /**
     * @param ago by bar: how many bars before it the mark stands that was drawn with it, {@link #NONE}; NaN while nobody knows
     * @param price by bar: of the mark that was drawn with it, ticks
     */
    public MarkColumn(Shape shape, OutputColumn ago, OutputColumn price) {
        this.shape = shape;
        this.ago = ago;
        this.price = price;
    }

    public Shape shape() {
        return shape;
    }

    public String name() {
        return shape.name();
    }

    public OutputColumn ago() {
        return ago;
    }

    public OutputColumn price() {
        return price;
    }

    /** A mark is drawn with bar {@code row}, on the bar {@code before} bars before it. */
    void draw(int row, int before, double at) {
        ago.values()[row] = before;
        price.values()[row] = at;
    }

    /** No mark is drawn with bar {@code row}. */
    void none(int row) {
        ago.values()[row] = NONE;
        price.values()[row] = Double.NaN;
    }

    /** Nobody knows whether one would be drawn with bar {@code row}. */
    void absent(int row) {
        ago.values()[row] = Double.NaN;
        price.values()[row] = Double.NaN;
    }
}
