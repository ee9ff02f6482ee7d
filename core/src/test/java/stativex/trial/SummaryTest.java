package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.engine.DayBook;
import stativex.engine.Trade;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Terms;

/** The figures of a summary against a plain second reading of its trades, and by examples. Source: SEMANTICS, "Results". */
public class SummaryTest {
    private static final long FEE = 20_000;

    private static Run run(long seed) {
        SplittableRandom dice = new SplittableRandom(seed);
        long[] prices = new long[dice.nextInt(20, 400)];
        long price = 1000;
        for (int i = 0; i < prices.length; i++) {
            prices[i] = price;
            price += dice.nextInt(-3, 4);
        }
        Tape tape = Given.tape(Given.at(0, "01:00:00"), prices);
        Given.Draft draft = Given.strategy();
        draft.bars = dice.nextInt(1, 4);
        draft.quantity = dice.nextInt(1, 4);
        draft.plan = dice.nextInt(8) == 0
                ? new stativex.exit.ExitPlan("plan", "1", Optional.empty(), List.of(Given.target(9, 4)),
                        Optional.empty(),
                        List.of())
                : Given.plan(dice.nextInt(2, 9), Given.target(1, dice.nextInt(1, 9)));
        return Run.trial(Inputs.of(tape, Given.contract(dice.nextInt(2)), Given.account(), List.of(draft.build()),
                Terms.DEFAULT));
    }

    private static BigDecimal money(long amount) {
        return BigDecimal.valueOf(amount);
    }

    private static double ratio(BigDecimal a, BigDecimal b) {
        return a.divide(b, MathContext.DECIMAL128).doubleValue();
    }

    @Test
    public void figuresAgreeWithAPlainReadingOfTheTrades() {
        int lossless = 0;
        int negative = 0;
        for (long seed = 1; seed <= 400; seed++) {
            Run run = run(seed);
            List<Trade> trades = run.engine().log().trades();
            Summary s = Summary.of(run);
            List<Long> nets = trades.stream().map(t -> t.gross() - t.fees()).toList();
            long net = nets.stream().mapToLong(Long::longValue).sum();
            List<Long> won = nets.stream().filter(n -> n > 0).toList();
            List<Long> lost = nets.stream().filter(n -> n < 0).toList();
            BigDecimal gain = money(won.stream().mapToLong(Long::longValue).sum());
            BigDecimal loss = money(-lost.stream().mapToLong(Long::longValue).sum());
            String at = "seed " + seed;
            assertEquals(s.trades(), trades.size(), at);
            assertEquals(s.net(), net, at);
            assertEquals(s.wins(), won.size(), at);
            if (!trades.isEmpty()) {
                assertEquals(s.winRate().orElseThrow(), (double) won.size() / trades.size(), at);
                assertEquals(s.averageTrade().orElseThrow(), money(net)
                        .divide(money(trades.size()), 0, RoundingMode.HALF_UP).longValueExact(), at);
            }
            assertEquals(s.profitFactor().isEmpty(), lost.isEmpty(), at);
            if (!lost.isEmpty()) {
                assertEquals(s.profitFactor().orElseThrow(), ratio(gain, loss), 1e-12, at);
                assertEquals(s.largestLoss(), -lost.stream().mapToLong(Long::longValue).min().orElseThrow(), at);
            }
            assertEquals(s.payoff().isEmpty(), won.isEmpty() || lost.isEmpty(), at);
            if (s.payoff().isPresent()) {
                double meanWon = ratio(gain, money(won.size()));
                double meanLost = ratio(loss, money(lost.size()));
                assertEquals(s.payoff().getAsDouble(), meanWon / meanLost, 1e-9, at);
            }
            expectancy(run, s, at);
            long contracts = trades.stream().mapToLong(Trade::quantity).sum();
            assertEquals(s.killingCost(), net > 0
                    ? Optional.of(money(net).divide(money(contracts), 0, RoundingMode.FLOOR).longValueExact())
                    : Optional.empty(), at);
            assertEquals(s.worstDay().map(DayBook.Day::result),
                    s.days().stream().map(DayBook.Day::result).min(Long::compare), at);
            assertEquals(s.bestDay().map(DayBook.Day::result),
                    s.days().stream().map(DayBook.Day::result).max(Long::compare), at);
            assertEquals(s.days().stream().mapToLong(DayBook.Day::result).sum(), net, "day results sum to the net");
            lossless += lost.isEmpty() && !trades.isEmpty() ? 1 : 0;
            negative += net < 0 ? 1 : 0;
        }
        assertTrue(lossless > 3 && negative > 50, lossless + " without a loss, " + negative + " with one");
    }

    /** Mean of net ÷ R; R = (initial stop in money + fees of both sides) × contracts entered, for trades that have a stop. */
    private static void expectancy(Run run, Summary s, String at) {
        List<Double> results = new ArrayList<>();
        for (Trade t : run.engine().log().trades()) {
            t.initialStop().ifPresent(ticks -> results
                    .add(ratio(money(t.gross() - t.fees()), money(t.quantity() * (ticks * 125_000 + 2 * FEE)))));
        }
        assertEquals(s.expectancyR().isEmpty(), results.isEmpty(), at);
        if (!results.isEmpty()) {
            assertEquals(s.expectancyR().orElseThrow(),
                    results.stream().mapToDouble(Double::doubleValue).average().orElseThrow(), 1e-9, at);
        }
    }

    /** Breakeven win rates of the trade: common practice, no source. */
    @Test
    public void payoffAndWinRateBelongTogether() {
        // target 60 and stop 30 ticks need 33.3 % before costs, target 10 and stop 15 need 60 %
        assertEquals(1 / (1 + 60.0 / 30), 0.333, 5e-4);
        assertEquals(1 / (1 + 10.0 / 15), 0.6, 1e-12);
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.plan = Given.plan(30, Given.target(1, 60));
        draft.tradesADay = Optional.of(3);
        // two losses of 30 and a gain of 60
        Run run = Run.trial(Inputs.of(
                Given.tape(Given.at(0, "01:00:00"), 998, 999, 1000, 970, 969, 970, 970, 940, 939, 940,
                        940, 1001, 1001, 1000),
                Given.contract(0), Given.account(), List.of(draft.build()), Terms.DEFAULT));
        Summary s = Summary.of(run);
        assertEquals(run.engine().log().trades().stream().map(Trade::gross).toList(),
                List.of(-30 * 125_000L, -30 * 125_000L, 60 * 125_000L));
        assertEquals(s.gross(), 0, "even before costs");
        assertEquals(s.winRate().orElseThrow(), 1 / 3.0);
        assertEquals(s.net(), -3 * 2 * FEE, "what is left is the fees");
        assertEquals(s.killingCost(), Optional.empty());
        assertEquals(s.deepestDrawdown(), 2 * (30 * 125_000L + 2 * FEE) + FEE, "after the third entry's fee");
        assertEquals(s.longestDrawdown().tradingDays(), 1);
        assertTrue(s.longestDrawdown().unfinished(), "the fees are never won back");
    }

    /** A loss on Friday that the trade of the next Tuesday wins back: it touches three trading days. */
    @Test
    public void theLongestDrawdownIsCountedInTradingDays() {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.plan = Given.plan(4, Given.target(1, 40));
        draft.tradesADay = Optional.of(1);
        TapeBuilder tape = new TapeBuilder(12);
        long[] lost = {998, 999, 1000, 1000, 990, 989};
        long[] won = {998, 999, 1000, 1000, 1050, 1051};
        for (int i = 0; i < 6; i++) {
            tape.add(Given.at(4, "01:00:00") + i * Given.SECOND, lost[i], 1, Tape.NONE, Tape.NONE);
        }
        for (int i = 0; i < 6; i++) {
            tape.add(Given.at(8, "01:00:00") + i * Given.SECOND, won[i], 1, Tape.NONE, Tape.NONE);
        }
        Run run = Run.trial(Inputs.of(tape.build(), Given.contract(0), Given.account(), List.of(draft.build()),
                Terms.DEFAULT));
        assertEquals(run.engine().log().trades().size(), 2);
        Summary.Longest longest = Summary.of(run).longestDrawdown();
        assertEquals(longest.from(), Given.at(4, "01:00:00") + Given.SECOND, "the last print before the fee");
        assertEquals(longest.from() + longest.time(), Given.at(8, "01:00:00") + 4 * Given.SECOND);
        assertEquals(longest.tradingDays(), 3, "Friday, Monday, Tuesday");
        assertTrue(!longest.unfinished());
    }
}
