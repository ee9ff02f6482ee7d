package stativex.market;

/** Who crossed the spread to make a print. */
public enum Aggressor {
    UNKNOWN("unknown"), BUYER("buyer"), SELLER("seller");

    private final String word;

    Aggressor(String word) {
        this.word = word;
    }

    /** The word used in tick files. */
    public String word() {
        return word;
    }

    /**
     * Works out a missing aggressor. With a normal quote (bid below ask, or one side only) a price at or above the ask
     * is a buyer, at or below the bid a seller; otherwise the tick test against the last different price decides.
     *
     * @param bid ticks, or {@link Tape#NONE}
     * @param ask ticks, or {@link Tape#NONE}
     * @param lastDifferent the last different price earlier on the tape, or {@link Tape#NONE}
     */
    static Aggressor workOut(long price, long bid, long ask, long lastDifferent) {
        boolean normal = bid == Tape.NONE || ask == Tape.NONE || bid < ask;
        if (normal && ask != Tape.NONE && price >= ask) {
            return BUYER;
        }
        if (normal && bid != Tape.NONE && price <= bid) {
            return SELLER;
        }
        if (lastDifferent == Tape.NONE) {
            return UNKNOWN;
        }
        return price > lastDifferent ? BUYER : SELLER;
    }
}
