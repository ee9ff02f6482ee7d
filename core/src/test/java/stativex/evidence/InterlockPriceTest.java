package stativex.evidence;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.engine.Decision;
import stativex.engine.Strategy;
import stativex.engine.Trade;
import stativex.interlock.Reason;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Order;
import stativex.order.Terms;
import stativex.trial.Given;
import stativex.trial.Inputs;
import stativex.trial.PastTrades;
import stativex.trial.Run;

/** Would-be trades: what was taken comes to the same when it is followed alone, and declined signals are summed by their interlock. */
public class InterlockPriceTest {
    private static Tape tape(SplittableRandom dice) {
        TapeBuilder tape = new TapeBuilder(700);
        long time = Given.at(0, "01:00:01");
        long price = 1000;
        for (int i = 0; i < 700; i++) {
            tape.add(time, price, 1 + dice.nextInt(3), Tape.NONE, Tape.NONE);
            price += dice.nextInt(-2, 3);
            time += dice.nextLong(9 * Given.SECOND);
        }
        return tape.build();
    }

    private static Given.Draft draft(SplittableRandom dice) {
        Given.Draft draft = Given.strategy();
        draft.bars = dice.nextInt(2, 6);
        draft.type = List.of(Order.Type.MARKET, Order.Type.LIMIT, Order.Type.STOP).get(dice.nextInt(3));
        String away = draft.type == Order.Type.LIMIT ? "-" : "+";
        String other = draft.type == Order.Type.LIMIT ? "+" : "-";
        boolean priced = draft.type != Order.Type.MARKET;
        draft.longSide = Optional.of(priced
                ? Given.rule("close > open", "close " + away + " 1 tick")
                : Given.rule("close > open"));
        draft.shortSide = Optional.of(priced
                ? Given.rule("close < open", "close " + other + " 1 tick")
                : Given.rule("close < open"));
        draft.goodFor = dice.nextBoolean() ? new Strategy.GoodFor.Day() : new Strategy.GoodFor.Bars(2);
        draft.plan = Given.plan(dice.nextInt(4, 15), Given.target(1, dice.nextInt(3, 15)));
        return draft;
    }

    @Test
    public void whatWasTakenComesToTheSameAlone() {
        int compared = 0;
        for (int seed = 1; seed <= 60; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            Inputs inputs = Inputs.of(tape(dice), Given.contract(1), Given.account(), List.of(draft(dice).build()),
                    Terms.DEFAULT);
            Run run = Run.trial(inputs);
            PastTrades past = new PastTrades(inputs.tape(), inputs.contract(), inputs.account(), inputs.terms());
            List<Decision> taken = run.engine().log().decisions().stream()
                    .filter(d -> d.outcome() instanceof Decision.Taken).toList();
            for (Trade trade : run.engine().log().trades()) {
                Optional<Decision> signal = taken.stream().filter(d -> d.print() < trade.entryPrint())
                        .reduce((a, b) -> b);
                if (signal.isPresent() && trade.exitTime() < inputs.tape().time(inputs.tape().count() - 1)) {
                    Trade alone = past.wouldBe(inputs.strategies().getFirst(), Map.of(), trade.side(),
                            signal.get().bar()).trade().orElseThrow();
                    assertEquals(List.of(alone.entryPrint(), alone.exitPrint(), alone.net()),
                            List.of(trade.entryPrint(), trade.exitPrint(), trade.net()), "seed " + seed);
                    compared++;
                }
            }
        }
        assertTrue(compared > 600, compared + " trades");
    }

    @Test
    public void declinedSignalsAreSummedByTheirInterlock() {
        SplittableRandom dice = new SplittableRandom(3);
        Given.Draft draft = draft(dice);
        draft.tradesADay = Optional.of(1);
        Inputs inputs = Inputs.of(tape(dice), Given.contract(1), Given.account(), List.of(draft.build()),
                Terms.DEFAULT);
        Run run = Run.trial(inputs);
        PastTrades past = new PastTrades(inputs.tape(), inputs.contract(), inputs.account(), inputs.terms());
        List<InterlockPrice> prices = InterlockPrice.of(run, past, () -> false).orElseThrow();
        long net = 0;
        int trades = 0;
        int declined = 0;
        for (Decision d : run.engine().log().decisions()) {
            if (d.declinedFor(Reason.TRADES_A_DAY)) {
                Optional<Trade> trade = past.wouldBe(inputs.strategies().getFirst(), Map.of(), d.side().orElseThrow(),
                        d.bar()).trade();
                net += trade.map(Trade::net).orElse(0L);
                trades += trade.isPresent() ? 1 : 0;
                declined++;
            }
        }
        assertTrue(declined > 20, declined + " declined");
        InterlockPrice price = prices.stream().filter(p -> p.reason() == Reason.TRADES_A_DAY).findFirst()
                .orElseThrow();
        assertEquals(price, new InterlockPrice(Reason.TRADES_A_DAY, declined, trades, net));
        assertEquals(price.saved(), -net);
        assertEquals(new ArrayList<>(prices).stream().map(InterlockPrice::reason).sorted().toList(),
                prices.stream().map(InterlockPrice::reason).toList(), "in the order in which they are asked");
        assertTrue(InterlockPrice.of(run, past, () -> true).isEmpty(), "given up");
    }
}
