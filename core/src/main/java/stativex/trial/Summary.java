package stativex.trial;

import java.time.LocalDate;
import java.util.Comparator;
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
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.TapeTime;

/**
 * The results of a run. Money in ten-thousandths; ratios are doubles. Definitions: SEMANTICS, "Results".
 *
 * @param decisions count by kind, in order of first appearance; likewise {@code declined} by reason
 */
public record Summary(Count count, Result result, Ratios ratios, Equity equity, Map<Decision.Kind, Integer> decisions,
        Map<Reason, Integer> declined) {

    /** @param wins trades with net &gt; 0 */
    public record Count(int trades, int wins) {}

    /**
     * @param slippage money lost to the slippage setting; {@code gaps} to quotes and gaps
     * @param averageTrade net ÷ trades, half away from zero; empty without trades
     * @param killingCost extra cost per contract, both sides together, at which net becomes zero, rounded down; empty unless net is
     *     above 0
     */
    public record Result(long gross, long fees, long net, long slippage, long gaps, long largestLoss,
            OptionalLong averageTrade, Optional<Long> killingCost) {}

    /**
     * @param winRate trades with net &gt; 0 ÷ all; empty without trades
     * @param profitFactor Σ net of winners ÷ Σ |net| of losers; empty without losses
     * @param payoff mean net of winners ÷ mean |net| of losers; empty without either
     * @param expectancyR mean of net ÷ R; empty without trades that have a stop
     */
    public record Ratios(OptionalDouble winRate, OptionalDouble profitFactor, OptionalDouble payoff,
            OptionalDouble expectancyR) {}

    /** Drawdowns of equity, and its days. */
    public record Equity(long deepestDrawdown, Longest longest, List<DayBook.Day> days) {
        public Equity {
            days = List.copyOf(days);
        }
    }

    /**
     * The longest drawdown, from the last print at a peak to the first at or above it again.
     *
     * @param from time of the peak, nanoseconds; {@code time} until it was reached again, 0 without a drawdown
     * @param tradingDays that it touches, first and last included
     * @param unfinished it lasted until the end of the range
     */
    public record Longest(long from, long time, int tradingDays, boolean unfinished) {
        private static Longest of(DayBook days, SessionCalendar calendar) {
            long from = days.longestFrom();
            long time = days.longestDrawdown();
            return new Longest(from, time, time == 0 ? 0 : touched(calendar, from, from + time),
                    days.isLongestUnfinished());
        }

        private static int touched(SessionCalendar calendar, long from, long to) {
            LocalDate last = date(calendar, to);
            int touched = 0;
            for (LocalDate day = date(calendar, from); !day.isAfter(last); day = day.plusDays(1)) {
                touched += calendar.sessions(day).isEmpty() ? 0 : 1;
            }
            return touched;
        }

        /** The trading day of a moment; outside of sessions that of the one before. */
        private static LocalDate date(SessionCalendar calendar, long time) {
            return calendar.tradingDate(time).or(() -> calendar.before(time).map(Session::tradingDate))
                    .orElseGet(() -> TapeTime.in(calendar.zone(), time).toLocalDate());
        }
    }

    public int trades() {
        return count.trades();
    }

    public int wins() {
        return count.wins();
    }

    public OptionalDouble winRate() {
        return ratios.winRate();
    }

    public OptionalDouble profitFactor() {
        return ratios.profitFactor();
    }

    public OptionalDouble payoff() {
        return ratios.payoff();
    }

    public OptionalDouble expectancyR() {
        return ratios.expectancyR();
    }

    public long gross() {
        return result.gross();
    }

    public long fees() {
        return result.fees();
    }

    public long net() {
        return result.net();
    }

    public long slippage() {
        return result.slippage();
    }

    public long gaps() {
        return result.gaps();
    }

    public long largestLoss() {
        return result.largestLoss();
    }

    public OptionalLong averageTrade() {
        return result.averageTrade();
    }

    public Optional<Long> killingCost() {
        return result.killingCost();
    }

    public long deepestDrawdown() {
        return equity.deepestDrawdown();
    }

    public Longest longestDrawdown() {
        return equity.longest();
    }

    public List<DayBook.Day> days() {
        return equity.days();
    }

    /** The day with the lowest result; of equal ones the first. */
    public Optional<DayBook.Day> worstDay() {
        return days().stream().min(Comparator.comparingLong(DayBook.Day::result));
    }

    /** The day with the highest result; of equal ones the last. */
    public Optional<DayBook.Day> bestDay() {
        return days().stream().max(Comparator.comparingLong(DayBook.Day::result));
    }

    /** Summarises a finished run. */
    public static Summary of(Run run) {
        Engine engine = run.engine();
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
            Contract contract = run.inputs().contract(trade.owner());
            OptionalDouble inR = trade.inR(contract, run.inputs().account().fee(contract.symbol()));
            if (inR.isPresent()) {
                sumR += inR.getAsDouble();
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
        OptionalDouble payoff = wins == 0 || losses == 0
                ? OptionalDouble.empty()
                : ratio((double) won / wins, (double) lost / losses);
        return new Summary(new Count(count, wins),
                new Result(gross, fees, net, slippage, gaps, largestLoss,
                        count == 0 ? OptionalLong.empty() : OptionalLong.of(halfAway(net, count)),
                        net <= 0 ? Optional.empty() : Optional.of(Math.floorDiv(net, contracts))),
                new Ratios(ratio(wins, count), ratio(won, lost), payoff,
                        withR == 0 ? OptionalDouble.empty() : OptionalDouble.of(sumR / withR)),
                new Equity(engine.days().deepestDrawdown(),
                        Longest.of(engine.days(), run.inputs().contract().calendar()), engine.days().days()),
                decisions, declined);
    }

    /** a ÷ b, rounded half away from zero: alike for gains and losses. */
    static long halfAway(long a, long b) {
        return Long.signum(a) * ((2 * Math.abs(a) + b) / (2 * b));
    }

    private static OptionalDouble ratio(double a, double b) {
        return b == 0 ? OptionalDouble.empty() : OptionalDouble.of(a / b);
    }
}
