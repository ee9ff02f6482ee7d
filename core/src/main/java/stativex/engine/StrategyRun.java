package stativex.engine;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.interlock.WindowSchedule;
import stativex.market.Contract;
import stativex.market.LongColumn;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.market.TickBars;
import stativex.order.Bracket;
import stativex.order.Order;
import stativex.rule.Condition;
import stativex.rule.RuleProblem;
import stativex.rule.Rules;
import stativex.rule.Truth;
import stativex.rule.Value;
import stativex.study.StudySet;

/** One strategy at work: its series, studies and rules, its switches, its windows and its trade. */
final class StrategyRun {
    /** One side's rule, made ready. */
    static final class SideRun {
        final Condition rule;
        final Optional<Value> price;
        /** Truth of each part of the rule and, last, of the rule as a whole; one value for each closed bar. */
        final LongColumn[] lanes;
        boolean on = true;

        SideRun(Condition rule, Optional<Value> price) {
            this.rule = rule;
            this.price = price;
            this.lanes = new LongColumn[rule.parts().size() + 1];
            for (int i = 0; i < lanes.length; i++) {
                lanes[i] = new LongColumn();
            }
        }

        /** Evaluates every lane at a closed bar; returns the truth of the whole rule. */
        int evaluate(int bar) {
            List<Condition> parts = rule.parts();
            for (int i = 0; i < parts.size(); i++) {
                lanes[i].add(parts.get(i).at(bar));
            }
            int truth = rule.at(bar);
            lanes[parts.size()].add(truth);
            return truth;
        }
    }

    final int index;
    final Strategy strategy;
    final TickBars bars;
    final StudySet studies;
    final Map<Side, SideRun> sides = new EnumMap<>(Side.class);
    final WindowSchedule schedule;
    Mode mode = Mode.OFF;
    boolean once;
    Optional<WindowSchedule.Stretch> stretch = Optional.empty();
    /** When the windows next ask for something: their beginning, the last entry, the end. */
    long windowClock = TapeTime.NEVER;
    /** A window ended with a flatten; holds until the next one begins. */
    boolean windowFlat;
    Bracket bracket;
    Optional<OpenTrade> trade = Optional.empty();
    int tradesToday;
    int daysSeen;
    /** A bar closed with this print and waits for its evaluation. */
    boolean barClosed;

    /** @throws IllegalArgumentException naming strategy, side and place of what is wrong */
    StrategyRun(int index, Strategy strategy, Contract contract, Tape tape) {
        this.index = index;
        this.strategy = strategy;
        this.once = strategy.once();
        this.bars = new TickBars(tape, strategy.ticksPerBar());
        this.studies = new StudySet(strategy.studies(), bars.series());
        this.schedule = new WindowSchedule(strategy.windows());
        strategy.plan().stop().ifPresent(stop -> stop.distance(contract));
        Rules rules = new Rules(studies, contract.tickSize());
        for (Side side : Side.values()) {
            strategy.side(side).ifPresent(rule -> sides.put(side, side(side, rule, rules)));
        }
        bracket = new Bracket(index, Side.LONG);
    }

    private SideRun side(Side side, Strategy.SideRule rule, Rules rules) {
        boolean market = strategy.entry().type() == Order.Type.MARKET;
        if (market == rule.price().isPresent()) {
            throw new IllegalArgumentException(side.word() + ": " + (market
                    ? "a market entry takes no price, found \"" + rule.price().get() + "\""
                    : "expected a price for a " + strategy.entry().type().word() + " entry, found none"));
        }
        Condition condition;
        try {
            condition = rules.condition(rule.rule());
        } catch (RuleProblem e) {
            throw new IllegalArgumentException(side.word() + " rule, " + e.getMessage(), e);
        }
        try {
            return new SideRun(condition, rule.price().map(rules::level));
        } catch (RuleProblem e) {
            throw new IllegalArgumentException(side.word() + " price, " + e.getMessage(), e);
        }
    }

    boolean isOn(Side side) {
        return sides.containsKey(side) && sides.get(side).on;
    }

    /** Whether an entry of the current bracket is still working. */
    boolean entering() {
        return bracket.entering() > 0;
    }

    boolean idle() {
        return trade.isEmpty() && !entering();
    }

    /** Whether the trading day counts for evaluation, or only feeds the studies. */
    boolean historyLoaded() {
        return daysSeen > strategy.historyDays();
    }

    /** Finds the stretch of windows that counts from {@code time} on. */
    void windowsFrom(long time) {
        stretch = schedule.at(time);
        nextWindowClock(time);
    }

    /** The next moment after {@code time} at which the stretch begins, takes its last entry or ends. */
    void nextWindowClock(long time) {
        windowClock = TapeTime.NEVER;
        if (stretch.isPresent()) {
            WindowSchedule.Stretch s = stretch.get();
            windowClock = s.from() > time ? s.from() : s.lastEntry() > time ? s.lastEntry() : s.to();
        }
    }

    boolean windowAllows(long time) {
        return schedule.always() || stretch.isPresent() && stretch.get().allows(time);
    }

    /** Rule fires at the bar just evaluated. */
    static boolean fires(int truth) {
        return truth == Truth.TRUE;
    }
}
