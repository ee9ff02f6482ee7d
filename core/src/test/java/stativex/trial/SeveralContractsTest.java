package stativex.trial;

import static org.testng.Assert.assertEquals;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.OwnLimits;
import stativex.account.Guard;
import stativex.account.Rulebook;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.evidence.Basket;
import stativex.exit.ExitPlan;
import stativex.market.ContractTape;
import stativex.market.Money;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Fill;
import stativex.order.Realism;
import stativex.order.Terms;

/** Two contracts on one account. Expected values are worked by hand from SEMANTICS, "Several contracts". */
public class SeveralContractsTest {
    private static final long OPEN = Given.at(0, "01:40:00");

    /** Single contracts: tenths of a second after the open, and a price. */
    private static Tape tape(long... tenthsAndPrices) {
        TapeBuilder tape = new TapeBuilder(tenthsAndPrices.length / 2);
        for (int i = 0; i < tenthsAndPrices.length; i += 2) {
            tape.add(OPEN + tenthsAndPrices[i] * Given.SECOND / 10, tenthsAndPrices[i + 1], 1, Tape.NONE, Tape.NONE);
        }
        return tape.build();
    }

    /** Buys once, one contract, on the first bar of two prints that closes above its open. */
    private static Strategy strategy(String name, String contract, ExitPlan plan) {
        Given.Draft draft = Given.strategy().onlyLong("close > open");
        draft.name = name;
        draft.contract = contract;
        draft.once = true;
        draft.plan = plan;
        // the session was joined late: bars by the clock do not mind
        draft.barType = Optional.of(new stativex.market.BarType.Time(2 * Given.SECOND));
        return draft.build();
    }

    private static Run run(Tape tidal, Tape swell, Optional<Account.DayLoss> loss, Optional<Long> profit, Terms terms,
            int slippage) {
        Map<String, Long> fees = new LinkedHashMap<>();
        fees.put("TDL", 2 * Money.UNIT);
        fees.put("SWL", 2 * Money.UNIT);
        Account account = new Account("Gannet Row 40K", "NZD", 40_000 * Money.UNIT, fees, OwnLimits.day(loss, profit),
                new Rulebook("none", List.of()));
        Run run = new Run(Inputs.of(tidal, Given.contract(slippage),
                Map.of("SWL", new ContractTape(Given.other(slippage), swell)), account,
                List.of(strategy("Ebb fade", "TDL", Given.plan(10)), strategy("Slack water", "SWL", Given.plan(10))),
                terms));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        run.command(new Command.SetMode(1, Mode.ENGAGED));
        while (!run.atEnd()) {
            run.step();
        }
        run.finish();
        return run;
    }

    private static List<String> fills(Run run) {
        return run.engine().log().fills().stream().map(SeveralContractsTest::line).toList();
    }

    private static String line(Fill f) {
        return run(f) + " " + (f.time() - OPEN) * 10 / Given.SECOND + " " + (f.buy() ? "buy " : "sell ") + f.price()
                + " "
                + Said.reason(f.reason());
    }

    private static String run(Fill f) {
        return f.owner().equals(new stativex.order.Owner.Strategy(0)) ? "TDL" : "SWL";
    }

    /** The swell's print at 20.5 reaches the day profit; the tidal leave is sent then and accepted three seconds later. */
    @Test
    public void whatAnotherContractsPrintMakesLeaveIsSentAtThatPrintsTime() {
        Tape tidal = tape(0, 100, 10, 101, 20, 101, 60, 101, 200, 101, 220, 102, 230, 103, 240, 104);
        Tape swell = tape(0, 200, 10, 201, 20, 201, 60, 201, 205, 240, 260, 240);
        Run run = run(tidal, swell, Optional.empty(), Optional.of(200 * Money.UNIT),
                new Terms(Realism.THROUGH, 3 * Given.SECOND), 0);
        assertEquals(fills(run), List.of("TDL 60 buy 101 entry", "SWL 60 buy 201 entry", "TDL 240 sell 104 day profit",
                "SWL 260 sell 240 day profit"));
        Basket basket = Basket.of(run).orElseThrow();
        assertEquals(basket.parts().stream().map(part -> part.contract().symbol() + " " + part.days() + " "
                + part.trades() + " " + part.net() + " " + part.averageCost().getAsLong()).toList(),
                List.of("TDL [335000] 1 335000 -335000", "SWL [2885000] 1 2885000 40000"),
                "3 ticks of 12.50 and 39 of 7.50, fees of 4 off each; the wait to leave brought 37.50");
    }

    /** Over two nights: what is held is marked at the last print inside a session before the next day's first open. */
    @Test
    public void whatIsHeldOverNightIsMarkedInItsOwnContract() {
        long day = 24 * 36_000L;
        // the last one before the next open lies outside the session
        Tape tidal = tape(0, 100, 10, 101, 20, 101, 60, 101, 200, 105, 5 * 36_000L, 90, day, 103, day + 10, 103);
        Tape swell = tape(0, 200, 10, 200, 20, 200, day, 200);
        Run run = run(tidal, swell, Optional.empty(), Optional.empty(), Terms.DEFAULT, 0);
        Basket basket = Basket.of(run).orElseThrow();
        List<Long> results = run.engine().days().days().stream().map(d -> d.result()).toList();
        assertEquals(results.size(), 2);
        assertEquals(basket.parts().getFirst().days(), results, "nothing was traded in the other");
        assertEquals(basket.parts().getLast().days(), List.of(0L, 0L));
        assertEquals(basket.correlation().getFirst().getLast(), java.util.OptionalDouble.empty());
    }

    /**
     * Nine ticks against both: −114.50 and −69.50, fees and slippage in them. To close them costs 14.50 and 9.50, the margin of four
     * ticks is 80: −184 − 24 is no more than −280 + 80.
     */
    @Test
    public void aGuardCountsWhatClosingAllContractsCosts() {
        Tape tidal = tape(0, 100, 10, 101, 20, 101, 60, 101, 100, 93, 140, 93);
        Tape swell = tape(0, 200, 10, 201, 20, 201, 60, 201, 120, 193, 130, 193);
        Run run = run(tidal, swell, Optional.of(new Account.DayLoss(280 * Money.UNIT, new Guard(true, 0, 4))),
                Optional.empty(), Terms.DEFAULT, 1);
        assertEquals(fills(run), List.of("TDL 60 buy 102 entry", "SWL 60 buy 202 entry", "SWL 130 sell 192 day loss",
                "TDL 140 sell 92 day loss"));
        Run without = run(tidal, swell, Optional.of(new Account.DayLoss(280 * Money.UNIT, new Guard(true, 0, 3))),
                Optional.empty(), Terms.DEFAULT, 1);
        assertEquals(fills(without).stream().filter(f -> f.contains("day loss")).toList(), List.of(),
                "three ticks are 60: −208 is more than −220");
    }
}
