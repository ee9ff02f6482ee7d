package stativex.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import stativex.account.Account;
import stativex.account.Rulebook;
import stativex.engine.Engine;
import stativex.engine.SignalPlan;
import stativex.engine.Strategy;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.interlock.SessionWindow;
import stativex.interlock.SignalPeriod;
import stativex.market.BarType;
import stativex.market.Money;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Order;
import stativex.study.StudyDefinition;

/** Random tapes, strategies and accounts for tests that hold two ways to run them against each other, and all that a run gives. */
final class RandomDay {
    private RandomDay() {}

    static Tape tape(SplittableRandom dice) {
        int count = dice.nextInt(200, 900);
        boolean quotes = dice.nextBoolean();
        TapeBuilder tape = new TapeBuilder(count);
        long time = Given.at(0, "01:00:00") + dice.nextInt(90) * Given.SECOND;
        long price = dice.nextInt(5) == 0 ? 0 : 1000;
        int pace = dice.nextInt(2, 60);
        int jumps = dice.nextInt(8, 60);
        int steps = dice.nextInt(1, 4);
        for (int i = 0; i < count; i++) {
            long bid = quotes && dice.nextInt(9) > 0 ? price - dice.nextInt(2) : Tape.NONE;
            tape.add(time, price, 1 + dice.nextInt(dice.nextInt(9) == 0 ? 40 : 4), bid,
                    bid == Tape.NONE ? Tape.NONE : bid + 1 + dice.nextInt(2));
            price += dice.nextInt(-steps, steps + 1) + (dice.nextInt(jumps) == 0 ? dice.nextInt(-25, 26) : 0);
            time += dice.nextInt(4) == 0 ? 0 : dice.nextLong(2L * pace * Given.SECOND);
            long second = Math.floorMod(time / Given.SECOND, 86_400L);
            if (second > 4 * 3600 + 300) {
                time += (86_400 - second + 3540 + dice.nextInt(120)) * Given.SECOND;
            } else if (dice.nextInt(80) == 0) {
                time += 1200 * Given.SECOND;
            }
        }
        return tape.build();
    }

    private static BarType bars(SplittableRandom dice) {
        return switch (dice.nextInt(7)) {
            case 0, 1 -> new BarType.Ticks(dice.nextInt(1, 9));
            case 2 -> new BarType.Volume(dice.nextInt(2, 30));
            case 3 -> new BarType.Range(dice.nextInt(2, 9));
            case 4 -> new BarType.Time(dice.nextInt(5, 900) * Given.SECOND);
            case 5 -> BarType.Period.DAY;
            default -> {
                int step = dice.nextInt(1, 4);
                yield new BarType.Renko(step, (long) step * dice.nextInt(1, 3));
            }
        };
    }

    static Strategy strategy(SplittableRandom dice, String name) {
        Given.Draft draft = Given.strategy();
        draft.name = name;
        draft.barType = Optional.of(bars(dice));
        draft.studies = List.of(StudyDefinition.of("mean", "vwap", "deviations", "1"),
                StudyDefinition.of("slow", "ema", "length", "9"));
        int away = dice.nextInt(4);
        draft.type = Order.Type.values()[dice.nextInt(3)];
        String sign = draft.type == Order.Type.LIMIT ? "-" : "+";
        String other = draft.type == Order.Type.LIMIT ? "+" : "-";
        boolean priced = draft.type != Order.Type.MARKET;
        String up = List.of("close > open", "close rises through slow", "close > mean",
                "open result < 4 ticks or close > open", "losses in a row < 2 and close > open",
                "(minutes since exit > 3 or trades today = 0) and result today > -900").get(dice.nextInt(6));
        String down = List.of("close < open", "close falls through slow", "close < mean", "bars since entry > 2",
                "close < open and (bars since exit > 2 or last result > 0)").get(dice.nextInt(5));
        draft.longSide = Optional.of(priced ? Given.rule(up, "close " + sign + " " + away + " ticks") : Given.rule(up));
        draft.shortSide = Optional
                .of(priced ? Given.rule(down, "close " + other + " " + away + " ticks") : Given.rule(down));
        draft.quantity = dice.nextInt(1, 4);
        draft.maximum = draft.quantity * dice.nextInt(1, 4);
        draft.adds = dice.nextBoolean();
        draft.once = dice.nextInt(10) == 0;
        draft.history = dice.nextInt(6) == 0 ? 1 : 0;
        draft.tradesADay = dice.nextInt(4) == 0 ? Optional.of(dice.nextInt(1, 9)) : Optional.empty();
        draft.goodFor = List.of(new Strategy.GoodFor.Day(), new Strategy.GoodFor.UntilCancelled(),
                new Strategy.GoodFor.Bars(dice.nextInt(1, 4))).get(dice.nextInt(3));
        draft.most = dice.nextInt(5) == 0
                ? Optional.of(new SignalPlan.Most(2, SignalPeriod.values()[dice.nextInt(4)]))
                : Optional.empty();
        if (dice.nextInt(8) == 0 && !(draft.barType.get() instanceof BarType.Renko)) {
            draft.evaluate = SignalPlan.Evaluate.EVERY_TRADE;
        }
        if (dice.nextBoolean()) {
            draft.windows = List.of(Given.window("Early", "01:10", "01:40", SessionWindow.End.FLATTEN, 40),
                    Given.window("Next", "01:40", "01:55", SessionWindow.End.CANCEL, 0),
                    Given.window("Late", "03:05", "03:50", SessionWindow.End.FLATTEN, 20));
        }
        draft.plan = plan(dice);
        return draft.build();
    }

    private static ExitPlan plan(SplittableRandom dice) {
        List<ExitTerms.Target> targets = new ArrayList<>();
        for (int i = dice.nextInt(3); i > 0; i--) {
            targets.add(Given.target(dice.nextInt(1, 3), dice.nextInt(1, 30)));
        }
        int after = dice.nextInt(1, 14);
        List<ExitTerms.TrailStep> trail = new ArrayList<>();
        int activate = dice.nextInt(5);
        for (int i = dice.nextInt(3); i > 0; i--) {
            trail.add(new ExitTerms.TrailStep(activate, dice.nextInt(1, 25), dice.nextInt(1, 5)));
            activate += dice.nextInt(1, 9);
        }
        return new ExitPlan("plan", "1",
                Optional.of(dice.nextBoolean()
                        ? new Distance.Ticks(dice.nextInt(2, 30))
                        : new Distance.PerContract(dice.nextInt(13, 400) * Money.UNIT)),
                targets, dice.nextBoolean()
                        ? Optional.of(new ExitTerms.Breakeven(after, after - dice.nextInt(1, 6)))
                        : Optional.empty(),
                trail);
    }

    static Account account(SplittableRandom dice) {
        List<Rulebook.Rule> rules = dice.nextBoolean()
                ? List.of(new Rulebook.DrawdownFloor(dice.nextInt(300, 4000) * Money.UNIT,
                        dice.nextBoolean() ? Optional.of(40_000 * Money.UNIT) : Optional.empty()))
                : List.of();
        return Given.account(
                dice.nextBoolean()
                        ? Optional.of(new Account.DayLoss(dice.nextInt(200, 3000) * Money.UNIT, dice.nextBoolean()))
                        : Optional.empty(),
                dice.nextBoolean() ? Optional.of(dice.nextInt(200, 3000) * Money.UNIT) : Optional.empty(), rules);
    }

    static List<String> all(Engine engine) {
        List<String> all = new ArrayList<>();
        engine.log().decisions().forEach(d -> all.add(d.toString()));
        engine.log().fills().forEach(f -> all.add(f.toString()));
        engine.log().trades().forEach(t -> all.add(t.toString()));
        all.add(engine.accountState().toString());
        all.add(engine.days().days().toString());
        all.add("drawdown " + engine.days().deepestDrawdown() + " " + engine.days().longestDrawdown()
                + " from " + engine.days().longestFrom());
        all.add("outside " + engine.printsOutsideSessions() + " large "
                + engine.ordersLargerThanTheirPrint());
        for (int i = 0; i < engine.days().curve().count(); i++) {
            all.add(engine.days().curveTimes().get(i) + " " + engine.days().curve().get(i));
        }
        return all;
    }
}
