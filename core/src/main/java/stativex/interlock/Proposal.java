package stativex.interlock;

import stativex.market.Side;

/**
 * An entry that wants to pass.
 *
 * @param price of the order in ticks; {@link stativex.market.Tape#NONE} at the market, or while it is not known
 * @param bar whose signal it is; the last one closed while there is none
 * @param withClose its bar was judged at a session's close, or by what only that close brought
 * @param joins what of the strategy's own it goes together with
 * @param quantity contracts, 0 or more; nobody can be asked for none
 */
public record Proposal(Side side, long price, int bar, boolean withClose, Joins joins, int quantity) {
    /** How it stands to what the strategy has at work. */
    public enum Joins {
        /** It comes beside it. */
        BESIDE,
        /** It turns an open position of the other side round, which counts as gone. */
        TURNS,
        /** It is the second half of a two-sided entry, whose first half has just been sent. */
        PAIRS
    }

    public boolean turns() {
        return joins == Joins.TURNS;
    }

    public boolean pairs() {
        return joins == Joins.PAIRS;
    }

    /** The same for fewer contracts. */
    public Proposal of(int contracts) {
        return new Proposal(side, price, bar, withClose, joins, contracts);
    }
}
