package stativex.trial;

import java.util.List;
import java.util.OptionalDouble;
import stativex.engine.Trade;
import stativex.market.Contract;

/**
 * How the trades of a plan lie about. Money in ten-thousandths, distances in ticks, times in nanoseconds.
 *
 * @param trades how many
 * @param won with a net above 0
 * @param netPerTrade half away from zero; 0 without a trade
 * @param rs of each trade in R, ascending; none of a plan without a stop
 * @param mae median, likewise the following; 0 without a trade
 */
public record Spread(int trades, int won, long netPerTrade, List<Double> rs, long mae, long mfe, long time) {
    public Spread {
        rs = List.copyOf(rs);
    }

    /** @param fee money per contract and side */
    public static Spread of(List<Trade> trades, Contract contract, long fee) {
        long sum = trades.stream().mapToLong(Trade::net).sum();
        int count = trades.size();
        long mean = count == 0 ? 0 : Summary.halfAway(sum, count);
        return new Spread(count, (int) trades.stream().filter(trade -> trade.net() > 0).count(), mean,
                trades.stream().map(trade -> trade.inR(contract, fee)).filter(OptionalDouble::isPresent)
                        .map(OptionalDouble::getAsDouble).sorted().toList(),
                median(trades.stream().mapToLong(Trade::mae).sorted().toArray()),
                median(trades.stream().mapToLong(Trade::mfe).sorted().toArray()),
                median(trades.stream().mapToLong(trade -> trade.exitTime() - trade.entryTime()).sorted().toArray()));
    }

    /** Of an even number the lower of the middle two. */
    private static long median(long[] sorted) {
        return sorted.length == 0 ? 0 : sorted[(sorted.length - 1) / 2];
    }

    /** Mean R; empty without a stop or a trade. */
    public OptionalDouble meanR() {
        return rs.stream().mapToDouble(Double::doubleValue).average();
    }
}
