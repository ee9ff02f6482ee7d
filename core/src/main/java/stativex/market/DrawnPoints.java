package stativex.market;

/**
 * Something drawn as a document states it: prices as decimal text, which become ticks with their contract.
 *
 * @param kind level, slope or marker
 * @param time nanoseconds; of a level meaningless, likewise {@code time2} and {@code price2} of all but slopes
 */
public record DrawnPoints(String kind, String name, long time, String price, long time2, String price2) {

    /** @throws IllegalArgumentException when a price is off the contract's grid or the kind is none */
    public Drawing on(Contract contract) {
        return switch (kind) {
            case "level" -> new Drawing.Level(name, contract.price(price));
            case "slope" ->
                new Drawing.Slope(name, time, contract.price(price), time2, contract.price(price2));
            case "marker" -> new Drawing.Marker(name, time, contract.price(price));
            default -> throw new IllegalArgumentException("expected level, slope or marker, found " + kind);
        };
    }
}
