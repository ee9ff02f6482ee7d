package stativex.engine;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.ContractLimits;
import stativex.account.DayLimits;
import stativex.account.ForThePerson;
import stativex.account.LineKind;
import stativex.account.OwnLimits;
import stativex.account.Rulebook;
import stativex.interlock.SessionWindow;
import stativex.market.Money;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Order;
import stativex.order.Terms;
import stativex.trial.Given;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.Said;

/** What a lock comes to, limits changed in a run, and what interlocks do with the person's own orders. Worked by hand from SEMANTICS. */
public class LimitsInARunTest {
    private static final long OPEN = Given.at(0, "01:00:00");

    /** Buys on a bar of two prints that closes above its open, one contract at 12.50 a tick, 2.00 a side, a stop far away. */
    private static Given.Draft draft() {
        Given.Draft draft = Given.strategy();
        draft.onlyLong("close > open");
        return draft;
    }

    private static Run run(Account account, Given.Draft draft, Tape tape) {
        Run run = new Run(Inputs.of(tape, Given.contract(0), account, List.of(draft.build()), Terms.DEFAULT));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        return run;
    }

    private static void steps(Run run, int steps) {
        for (int i = 0; i < steps; i++) {
            run.step();
        }
    }

    private static Account account(ForThePerson person, Optional<Long> loss, List<Rulebook.Rule> rules) {
        Account account = Given.account(loss.map(amount -> new Account.DayLoss(amount, false)), Optional.empty(),
                rules);
        return account.with(account.own().with(person));
    }

    private static ForThePerson person(ForThePerson.Of of, ForThePerson.Response response, boolean along) {
        return new ForThePerson(Map.of(of, response), along, ForThePerson.Near.DEFAULT);
    }

    private static Command.Enter buy(int quantity, boolean anyway) {
        return new Command.Enter(Side.LONG, Order.Type.MARKET, quantity, Tape.NONE, Tape.NONE, OptionalInt.of(0),
                anyway);
    }

    @Test
    public void aGapBeyondALineIsToldToTheCent() {
        // in at 101; −2.00 − 9 × 12.50 at 92: beyond a day loss of 60; out at 90: −137.50 − 4.00
        Run run = run(Given.account(), draft(), Given.tape(OPEN, 100, 101, 101, 92, 90, 95));
        steps(run, 3);
        run.command(new Command.ChangeLimits(loss(60)));
        run.toPlace(run.length());
        run.finish();
        Lock lock = run.engine().locks().getFirst();
        assertEquals(run.engine().locks().size(), 1);
        assertEquals(lock.line(), LineKind.DAY_LOSS);
        assertEquals(Money.text(lock.at()), "-60.00");
        assertEquals(Money.text(lock.reached()), "-114.50");
        assertEquals(Money.text(lock.ended()), "-141.50");
        assertEquals(Money.text(lock.beyond()), "81.50");
    }

    @Test
    public void aGuardKeepsWhatItSays() {
        // closing costs 2.00: at 97 the result is −52.00, less 2.00 is at the line of 54: the guard acts, out at 97 for −54.00
        Run run = run(Given.account(), draft(), Given.tape(OPEN, 100, 101, 101, 97, 97, 97));
        steps(run, 3);
        run.command(new Command.ChangeLimits(OwnLimits
                .day(Optional.of(new Account.DayLoss(54 * Money.UNIT, true)), Optional.empty())));
        run.toPlace(run.length());
        run.finish();
        Lock lock = run.engine().locks().getFirst();
        assertTrue(lock.guarded());
        assertEquals(Money.text(lock.beyond()), "0.00");
        assertEquals(Money.text(lock.ended()), "-54.00");
    }

    @Test
    public void aLockOfThePastDayChangesNoMore() {
        TapeBuilder tape = new TapeBuilder(12);
        long[] prices = {100, 101, 101, 92, 90, 90};
        for (int day = 0; day < 2; day++) {
            for (int i = 0; i < prices.length; i++) {
                tape.add(Given.at(day, "01:00:00") + i * Given.SECOND, prices[i] + (day == 1 ? -i / 3 : 0), 1,
                        Tape.NONE,
                        Tape.NONE);
            }
        }
        Run run = run(account(ForThePerson.DEFAULT, Optional.of(13_000 * Money.UNIT), List.of()), draft(),
                tape.build());
        for (int day = 0; day < 2; day++) {
            while (run.engine().market().worked < 6 * day + 2) {
                run.step();
            }
            run.command(new Command.ChangeLimits(loss(60)));
            while (run.engine().market().worked < 6 * day + 5) {
                run.step();
            }
            run.command(new Command.ChangeLimits(loss(13_000)));
        }
        run.toPlace(run.length());
        run.finish();
        assertEquals(run.engine().locks().stream().map(lock -> Money.text(lock.ended())).toList(),
                run.engine().days().days().stream().map(day -> Money.text(day.result())).toList(),
                "each day's lock ended with that day's result");
        assertEquals(run.engine().locks().size(), 2);
    }

    @Test
    public void eachLockHasItsOwnResult() {
        Run run = run(Given.account(), draft(), Given.tape(OPEN, 100, 101, 101, 92, 93, 93));
        steps(run, 3);
        run.command(new Command.ChangeLimits(loss(100).with(Map.of("TDL",
                new ContractLimits(new DayLimits(Optional.of(new Account.DayLoss(80 * Money.UNIT, false)),
                        Optional.empty()), Optional.empty(), Optional.empty())))));
        run.toPlace(run.length());
        run.finish();
        assertEquals(run.engine().locks().stream().map(l -> l.line() + " " + Money.text(l.beyond())).toList(),
                List.of("DAY_LOSS 4.00", "CONTRACT_DAY_LOSS 24.00"), "out at 93: −104.00");
    }

    private static OwnLimits loss(int amount) {
        return OwnLimits.day(Optional.of(new Account.DayLoss(amount * Money.UNIT, false)), Optional.empty());
    }

    @Test
    public void tighterLimitsHoldAtOnceAndLooserOnesFromTheNextDay() {
        TapeBuilder tape = new TapeBuilder(12);
        for (int day = 0; day < 2; day++) {
            for (int i = 0; i < 6; i++) {
                tape.add(Given.at(day, "01:00:00") + i * Given.SECOND, i == 0 ? 100 : i < 3 ? 101 : 97 - i, 1,
                        Tape.NONE,
                        Tape.NONE);
            }
        }
        Run run = run(account(ForThePerson.DEFAULT, Optional.of(13_000 * Money.UNIT), List.of()), draft(),
                tape.build());
        steps(run, 3);
        run.command(new Command.ChangeLimits(loss(40)));
        run.command(new Command.ChangeLimits(loss(500)));
        steps(run, 1);
        assertEquals(run.engine().locks().size(), 1,
                "in at 101, at 94 it is −89.50: the 40 asked for today still hold");
        assertEquals(run.engine().account().own().dayLoss().orElseThrow().amount(), 40 * Money.UNIT);
        run.toPlace(run.length());
        run.finish();
        assertEquals(run.engine().account().own().dayLoss().orElseThrow().amount(), 500 * Money.UNIT);
        assertEquals(run.engine().locks().size(), 1, "500 are not reached on the next day");
    }

    @Test
    public void ofTwoLimitsTheTighterHoldsForTheRestOfTheDay() {
        OwnLimits wide = new OwnLimits(Optional.of(new Account.DayLoss(900, false)), Optional.of(700L),
                Optional.of(new stativex.account.GiveBack(300, 500, stativex.account.Guard.OFF)),
                Optional.of(new stativex.account.LosingRun(4, OptionalInt.of(10))), Optional.of(9),
                stativex.account.QuietTimes.NONE, Map.of(), ForThePerson.DEFAULT);
        OwnLimits other = new OwnLimits(Optional.of(new Account.DayLoss(1000, true)), Optional.empty(),
                Optional.of(new stativex.account.GiveBack(400, 200, stativex.account.Guard.OFF)),
                Optional.of(new stativex.account.LosingRun(6, OptionalInt.empty())), Optional.of(3),
                stativex.account.QuietTimes.NONE, Map.of("TDL", new ContractLimits(DayLimits.NONE, Optional.of(2),
                        Optional.of(5))),
                ForThePerson.DEFAULT);
        OwnLimits both = wide.tightenedBy(other);
        assertEquals(both.dayLoss(), Optional.of(new Account.DayLoss(900, true)));
        assertEquals(both.dayProfit(), Optional.of(700L), "switched off it holds until tomorrow");
        assertEquals(both.giveBack(), Optional.of(new stativex.account.GiveBack(300, 200,
                stativex.account.Guard.OFF)));
        assertEquals(both.losingRun(), Optional.of(new stativex.account.LosingRun(4, OptionalInt.empty())));
        assertEquals(both.tradesADay(), Optional.of(3));
        assertEquals(both.contracts(), other.contracts());
    }

    @Test
    public void ownLinesStopAskOrWarn() {
        // the plan's stop of 8 ticks costs 100.00 + 4.00: more than the day loss of 60
        for (ForThePerson.Response response : ForThePerson.Response.values()) {
            Given.Draft draft = draft();
            draft.plan = Given.plan(8);
            Run run = new Run(Inputs.of(Given.tape(OPEN, 100, 100, 100), Given.contract(0),
                    account(person(ForThePerson.Of.OWN_LINES, response, false), Optional.of(60 * Money.UNIT),
                            List.of()),
                    List.of(draft.build()), Terms.DEFAULT));
            steps(run, 1);
            run.command(buy(1, false));
            run.command(buy(1, true));
            assertEquals(Said.decisions(run), switch (response) {
                case STOP -> List.of("0 declined line check", "0 declined line check");
                case ASK -> List.of("0 declined line check", "0 by hand line check", "0 taken");
                case WARN -> List.of("0 by hand line check", "0 taken", "0 by hand line check", "0 taken");
            }, response.name());
        }
    }

    @Test
    public void theRulebooksLinesAndSizesAlwaysStop() {
        Given.Draft draft = draft();
        draft.plan = Given.plan(8);
        Account account = account(new ForThePerson(Map.of(ForThePerson.Of.OWN_LINES, ForThePerson.Response.WARN,
                ForThePerson.Of.MOST_CONTRACTS, ForThePerson.Response.WARN), false, ForThePerson.Near.DEFAULT),
                Optional.of(60 * Money.UNIT),
                List.of(new Rulebook.Size(3, List.of(), Map.of()),
                        new Rulebook.DayLoss(150 * Money.UNIT, Rulebook.From.BALANCE, false,
                                stativex.account.Guard.OFF)));
        account = account.with(account.own().with(Map.of("TDL",
                new ContractLimits(DayLimits.NONE, Optional.empty(), Optional.of(1)))));
        Run run = new Run(Inputs.of(Given.tape(OPEN, 100, 100, 100), Given.contract(0), account,
                List.of(draft.build()), Terms.DEFAULT));
        steps(run, 1);
        run.command(buy(4, true));
        assertEquals(Said.decisions(run), List.of("0 by hand most contracts", "0 declined most contracts"),
                "the contract's own limit is passed, the rulebook's is not");
        run.command(buy(2, true));
        run.command(buy(1, true));
        assertEquals(Said.decisions(run).subList(2, 7), List.of("0 by hand most contracts", "0 by hand line check",
                "0 declined line check", "0 by hand line check", "0 taken"));
    }

    @Test
    public void thePersonsPositionLeavesAlongWhereThatIsSet() {
        for (boolean along : new boolean[]{true, false}) {
            Given.Draft draft = draft();
            draft.windows = List.of(Given.window("short", "01:00", "01:01", SessionWindow.End.FLATTEN, 30));
            TapeBuilder tape = new TapeBuilder(8);
            for (int i = 0; i < 8; i++) {
                tape.add(OPEN + i * 10 * Given.SECOND, 100, 1, Tape.NONE, Tape.NONE);
            }
            Run run = run(account(person(ForThePerson.Of.OWN_LINES, ForThePerson.Response.ASK, along),
                    Optional.empty(), List.of()), draft, tape.build());
            steps(run, 1);
            run.command(buy(1, false));
            run.toPlace(run.length());
            run.finish();
            assertEquals(Said.fills(run), along
                    ? List.of("1 buy 1 at 100 entry", "4 sell 1 at 100 window end")
                    : List.of("1 buy 1 at 100 entry", "7 sell 1 at 100 open at end"));
        }
    }
}
