package stativex.market;

/** Takes the contracts of bars, print by print, or whole prints a stretch at a time. */
public interface ContractSink {
    /** @param contracts of the print that belong to the bar: all of them, or its part of a split one */
    void take(int print, long contracts);

    /** Takes every contract of the prints {@code from} to {@code to}, the last one not included. */
    default void takeWhole(Tape tape, int from, int to) {
        for (int print = from; print < to; print++) {
            take(print, tape.size(print));
        }
    }
}
