package stativex.market;

/** Takes the contracts of bars, print by print. */
public interface ContractSink {
    /** @param contracts of the print that belong to the bar: all of them, or its part of a split one */
    void take(int print, long contracts);
}
