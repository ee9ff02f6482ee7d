package stativex.trial;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import stativex.engine.DayBook;
import stativex.engine.Decision;
import stativex.engine.Engine;
import stativex.engine.Trade;
import stativex.interlock.Reason;
import stativex.market.Contract;

/**
 * The results of a run. Money in ten-thousandths; ratios are doubles. Definitions: SEMANTICS, "Results".
 *
 * @param winRate trades with net &gt; 0 ÷ all; empty without trades
 * @param profitFactor Σ net of winners ÷ Σ |net| of losers; empty without losses
 * @param expectancyR mean of net ÷ R; empty without trades that have a stop
 * @param averageTrade net ÷ trades in ten-thousandths, half away from zero; empty without trades
 * @param killingCost extra cost per contract, both sides together, at which net becomes zero, ten-thousandths rounded down; empty
 *     unless net is above 0
 * @param declined count by reason, in order of first appearance
 */
public record Summary(int trades, int wins, OptionalDouble winRate, OptionalDouble profitFactor, long gross, long fees,
        long net, long slippage, long gaps, OptionalLong averageTrade, OptionalDouble payoff,
        OptionalDouble expectancyR, long largestLoss, long deepestDrawdown, long longestDrawdown,
        Optional<DayBook.Day> worstDay, Optional<DayBook.Day> bestDay, List<DayBook.Day> days,
        Optional<Long> killingCost, Map<Decision.Kind, Integer> decisions, Map<Reason, Integer> declined) {

    /** Summarises a finished run. */
    public static Summary of(Run run) {
        Engine engine = run.engine();
        Contract contract = run.inputs().contract();
        long fee = run.inputs().account().fee(contract.symbol());
        List<Trade> trades = engine.log().trades();
        long gross = 0;
        long fees = 0;
        long slippage = 0;
        long gaps = 0;
        long won = 0;
        long lost = 0;
        int wins = 0;
        int losses = 0;
        long largestLoss = 0;
        long contracts = 0;
        double sumR = 0;
        int withR = 0;
        for (Trade trade : trades) {
            gross += trade.gross();
            fees += trade.fees();
            slippage += trade.slippage();
            gaps += trade.gaps();
            contracts += trade.quantity();
            long net = trade.net();
            if (net > 0) {
                wins++;
                won += net;
            } else if (net < 0) {
                losses++;
                lost -= net;
                largestLoss = Math.max(largestLoss, -net);
            }
            if (trade.initialStop().isPresent()) {
                long risk = trade.quantity() * (contract.money(trade.initialStop().get(), 1) + 2 * fee);
                sumR += (double) net / risk;
                withR++;
            }
        }
        long net = gross - fees;
        int count = trades.size();
        Map<Decision.Kind, Integer> decisions = new LinkedHashMap<>();
        Map<Reason, Integer> declined = new LinkedHashMap<>();
        for (Decision decision : engine.log().decisions()) {
            decisions.merge(decision.kind(), 1, Integer::sum);
            if (decision.outcome() instanceof Decision.Declined why) {
                declined.merge(why.refusal().reason(), 1, Integer::sum);
            }
        }
        List<DayBook.Day> days = List.copyOf(engine.days().days());
        return new Summary(count, wins, ratio(wins, count), ratio(won, lost), gross, fees, net, slippage, gaps,
                count == 0 ? OptionalLong.empty() : OptionalLong.of(halfAway(net, count)),
                wins == 0 || losses == 0 ? OptionalDouble.empty() : ratio((double) won / wins, (double) lost / losses),
                withR == 0 ? OptionalDouble.empty() : OptionalDouble.of(sumR / withR), largestLoss,
                engine.days().deepestDrawdown(), engine.days().longestDrawdown(),
                days.stream().min((a, b) -> Long.compare(a.result(), b.result())),
                days.stream().max((a, b) -> Long.compare(a.result(), b.result())), days,
                net <= 0 ? Optional.empty() : Optional.of(Math.floorDiv(net, contracts)), decisions, declined);
    }

    /** a ÷ b, rounded half away from zero: alike for gains and losses. */
    private static long halfAway(long a, long b) {
        return Long.signum(a) * ((2 * Math.abs(a) + b) / (2 * b));
    }

    private static OptionalDouble ratio(double a, double b) {
        return b == 0 ? OptionalDouble.empty() : OptionalDouble.of(a / b);
    }
}
