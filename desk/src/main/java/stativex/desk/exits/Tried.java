package stativex.desk.exits;

import java.util.List;
import stativex.exit.StopMap;
import stativex.market.BarSeries;
import stativex.market.Side;
import stativex.trial.PastTrades;

/**
 * A plan tried on a bar of the tape.
 *
 * @param bars signal bars of the strategy
 * @param signals bars at which the side's rules would enter
 * @param entry the trade that the stop map is drawn for
 */
record Tried(BarSeries bars, List<Integer> signals, Side side, int bar, StopMap.Entry entry,
        PastTrades.Outcome outcome) {}
