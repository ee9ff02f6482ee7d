package stativex.study;

/**
 * What becomes of a value when the market is mirrored (every price p is −p, buyers are sellers): how a rule for one side
 * is made from the other's.
 */
public sealed interface Mirror {
    /** Stays as it is: volume, an average range. */
    record Same() implements Mirror {}

    /** Changes its sign: a price, a delta, a slope. */
    record Negative() implements Mirror {}

    /** Is {@code whole} less itself: an RSI, with 100. */
    record Rest(double whole) implements Mirror {}

    /** Nobody can say: a fixed price, something drawn. */
    record Unknown() implements Mirror {}

    Mirror SAME = new Same();
    Mirror NEGATIVE = new Negative();
    Mirror UNKNOWN = new Unknown();
}
