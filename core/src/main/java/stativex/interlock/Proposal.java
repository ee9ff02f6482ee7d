package stativex.interlock;

import stativex.market.Side;

/**
 * An entry that wants to pass.
 *
 * @param price of the order in ticks; {@link stativex.market.Tape#NONE} at the market, or while it is not known
 * @param bar whose signal it is; the last one closed while there is none
 * @param withClose its bar was judged at a session's close, or by what only that close brought
 * @param turns it turns an open position of the other side round, which counts as gone
 */
public record Proposal(Side side, long price, int bar, boolean withClose, boolean turns) {}
