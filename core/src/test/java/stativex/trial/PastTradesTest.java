package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.engine.Strategy;
import stativex.engine.Trade;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.exit.Leave;
import stativex.exit.StopOrigin;
import stativex.interlock.SessionWindow;
import stativex.market.BarType;
import stativex.market.Money;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Terms;

public class PastTradesTest {
    private static final long OPEN = Given.at(0, "01:00:00");

    private static PastTrades past(Tape tape) {
        return new PastTrades(tape, Given.contract(1), Given.account(), Terms.DEFAULT);
    }

    private static Tape random(long seed) {
        SplittableRandom random = new SplittableRandom(seed);
        // two days with their breaks, and prints outside of sessions
        TapeBuilder tape = new TapeBuilder(3000);
        long price = 4000;
        long time = OPEN;
        for (int i = 0; i < 3000; i++) {
            price += random.nextInt(-3, 4);
            tape.add(time, price, random.nextInt(1, 5), Tape.NONE, Tape.NONE);
            time += random.nextInt(0, 60) == 0 ? 1200 * Given.SECOND : random.nextLong(0, 8 * Given.SECOND);
        }
        return tape.build();
    }

    private static Given.Draft draft(BarType bars) {
        Given.Draft draft = Given.strategy();
        draft.barType = Optional.of(bars);
        draft.quantity = 2;
        draft.plan = new ExitPlan("Two-step runner", "1", Optional.of(new Distance.Ticks(24)),
                List.of(Given.target(1, 18), new ExitTerms.Target(1, Optional.empty())),
                Optional.of(new ExitTerms.Breakeven(12, 1)), List.of(new ExitTerms.TrailStep(16, 10, 2)));
        return draft;
    }

    @Test
    public void isTheTradeThatTheStrategyHad() {
        int compared = 0;
        for (long seed = 0; seed < 100; seed++) {
            Tape tape = random(seed);
            BarType bars = seed % 3 == 0
                    ? new BarType.Ticks(20)
                    : seed % 3 == 1 ? new BarType.Range(6) : new BarType.Time(15 * Given.SECOND);
            Given.Draft draft = draft(bars);
            if (seed % 4 == 3) {
                // rules that ask for the position are judged bar by bar
                draft.longSide = Optional.of(Given.rule("close > open and not bars since entry > 100000"));
            }
            Strategy strategy = draft.build();
            Run run = Run.trial(Inputs.of(tape, Given.contract(1), Given.account(), List.of(strategy), Terms.DEFAULT));
            PastTrades past = past(tape);
            for (Trade trade : run.engine().log().trades()) {
                int bar = run.engine().log().decisions().stream()
                        .filter(d -> d.side().equals(Optional.of(trade.side())) && d.print() <= trade.entryPrint())
                        .filter(d -> Said.decision(d).startsWith("taken"))
                        .reduce((a, b) -> b).orElseThrow().bar();
                PastTrades.Outcome outcome = past.at(strategy, Map.of(), trade.side(), bar);
                Trade again = outcome.trade().orElseThrow(() -> new AssertionError(outcome.declined().toString()));
                assertEquals(again.span(), trade.span());
                assertEquals(again.amounts(), trade.amounts());
                assertEquals(again.stops(), trade.stops());
                assertEquals(again.mae(), trade.mae());
                assertEquals(again.mfe(), trade.mfe());
                assertEquals(outcome.fills().stream().map(f -> f.price()).toList(),
                        run.engine().log().fills().stream()
                                .filter(f -> f.print() >= trade.entryPrint() && f.print() <= trade.exitPrint())
                                .map(f -> f.price()).toList());
                compared++;
            }
        }
        assertTrue(compared > 300, compared + " trades");
    }

    @Test
    public void anyBarAnySideWhateverTheRulesSay() {
        Given.Draft draft = draft(new BarType.Ticks(2)).onlyLong("close > open + 1000 ticks");
        draft.windows = List.of(Given.window("Late", "01:30", "01:40", SessionWindow.End.FLATTEN, 0));
        Tape tape = Given.tape(OPEN, 100, 100, 100, 90, 80, 76, 74, 70);
        PastTrades.Outcome outcome = past(tape).at(draft.build(), Map.of(), Side.SHORT, 0);
        Trade trade = outcome.trade().orElseThrow();
        // in at 100 less a tick of slippage; 1 at 18 in favour; breakeven, then a trail; the rest at the tape's end
        assertEquals(trade.entryPrint(), 2);
        assertEquals(trade.entrySum(), 2 * 99);
        assertEquals(outcome.fills().stream().map(Said::fill).toList().get(0), "2 sell 2 at 99 entry");
        assertEquals(trade.stops().getFirst(), new Trade.StopPoint(2, 123, StopOrigin.STOP));
        assertTrue(trade.stops().stream().anyMatch(s -> s.origin() == StopOrigin.TRAIL));
        assertTrue(trade.net() > 0);
    }

    @Test
    public void aPlanThatLeavesOnTheOppositeSignalHearsTheOtherSide() {
        Given.Draft draft = draft(new BarType.Ticks(2));
        draft.plan = new ExitPlan("With the tide", "1",
                new ExitTerms(Optional.of(new ExitTerms.Stop(new Distance.Ticks(40), Optional.empty(),
                        Optional.empty())), List.of(), Optional.empty(), List.of(), ExitTerms.Judged.EVERY_PRINT,
                        List.of(new Leave.OppositeSignal())));
        Tape tape = Given.tape(OPEN, 100, 100, 100, 101, 101, 102, 102, 100, 100, 100);
        PastTrades.Outcome outcome = past(tape).at(draft.build(), Map.of(), Side.LONG, 0);
        assertEquals(outcome.trade().orElseThrow().exitPrint(), 8, "the bar of prints 6 and 7 fell");
    }

    @Test
    public void everySignalHasItsTrade() {
        Tape tape = random(5);
        Strategy strategy = draft(new BarType.Ticks(6)).build();
        PastTrades past = past(tape);
        List<Trade> trades = past.everySignal(strategy, Map.of(), () -> false).orElseThrow();
        int signals = past.signals(strategy, Map.of(), Side.LONG).size()
                + past.signals(strategy, Map.of(), Side.SHORT).size();
        assertTrue(trades.size() > 20 && trades.size() <= signals, trades.size() + " of " + signals);
        Spread spread = Spread.of(trades, Given.contract(1), 2 * Money.UNIT);
        assertEquals(spread.trades(), trades.size());
        assertEquals(spread.netPerTrade(), Math.round((double) trades.stream().mapToLong(Trade::net).sum()
                / trades.size()), 1);
        assertEquals(spread.rs().size(), trades.size());
        assertEquals(spread.won(), trades.stream().filter(t -> t.net() > 0).count());
        assertTrue(spread.mae() > 0 && spread.mfe() > 0 && spread.time() > 0);
        assertEquals(Spread.of(List.of(), Given.contract(1), 0), new Spread(0, 0, 0, List.of(), 0, 0, 0));
        assertEquals(past.everySignal(strategy, Map.of(), () -> true), Optional.empty());
    }

    @Test
    public void anEntryAfterTheLastPrintHasNoTrade() {
        Tape tape = Given.tape(OPEN, 100, 100, 100, 100);
        PastTrades.Outcome outcome = past(tape).at(draft(new BarType.Ticks(2)).build(), Map.of(), Side.LONG, 1);
        assertEquals(outcome.trade(), Optional.empty());
        assertEquals(outcome.fills(), List.of());
    }

    /** Bars of two prints; the entry is sent with the close of the third, at 104. */
    @Test
    public void anEntryAtAPriceIsALimitOrAStopByWhereItLies() {
        Tape tape = Given.tape(Given.at(0, "01:00:00"), 100, 101, 102, 103, 103, 104, 103, 101, 100, 108, 109, 110,
                130);
        Given.Draft draft = Given.strategy();
        draft.plan = Given.plan(50, Given.target(1, 20));
        PastTrades past = past(tape);
        PastTrades.Outcome limit = past.at(draft.build(), Map.of(), Side.LONG, 2, 101);
        assertEquals(limit.fills().stream().map(f -> f.print() + " " + f.price()).toList(), List.of("8 101", "12 121"),
                "100 is beyond the limit; 130 beyond the target");
        PastTrades.Outcome stop = past.at(draft.build(), Map.of(), Side.LONG, 2, 107);
        assertEquals(stop.fills().getFirst().print() + " " + stop.fills().getFirst().price(), "9 109",
                "108 reaches the stop, slippage 1");
        PastTrades.Outcome sold = past.at(draft.build(), Map.of(), Side.SHORT, 2, 107);
        assertEquals(sold.fills().getFirst().print() + " " + sold.fills().getFirst().price(), "9 107");
        PastTrades.Outcome never = past.at(draft.build(), Map.of(), Side.LONG, 2, 50);
        assertTrue(never.trade().isEmpty() && never.fills().isEmpty() && never.declined().isEmpty());
    }
}
