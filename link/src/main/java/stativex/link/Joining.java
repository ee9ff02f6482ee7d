package stativex.link;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Snapshot;
import stativex.engine.Strategy;
import stativex.exit.Average;
import stativex.exit.ExitTerms;
import stativex.exit.PlanRun;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.order.Owner;

/**
 * How a strategy that is to be engaged meets a position that is there already: what each way sends, and the commands that do it. Found is
 * what the broker holds beyond what is counted here, else what the person holds. Source: SEMANTICS, "Strategies, positions, ownership".
 */
public final class Joining {
    /** What to do about it. */
    public enum Way {
        /** Nothing is there: wait for a signal. */
        WAIT,
        /** The strategy guards it with its plan from now on. */
        TAKE_OVER,
        /** It leaves at the market, then the strategy waits for a signal. */
        CLOSE_FIRST,
        /** It is the person's, beside the strategy. */
        LEAVE
    }

    /**
     * A position that is there.
     *
     * @param counted whether it is the person's already; else only the broker has it
     * @param averageSum price that it counts from, as ticks times {@code averageQuantity}
     */
    public record Found(Side side, int contracts, boolean counted, long averageSum, long averageQuantity) {}

    /**
     * An order that would be sent.
     *
     * @param kind such as {@code stop}
     * @param price ticks; empty at the market, or where studies decide
     */
    public record Line(boolean buy, int quantity, String kind, OptionalLong price) {}

    /** One way, with what it would send now. */
    public record Choice(Way way, List<Line> sends, List<Command> commands) {
        public Choice {
            sends = List.copyOf(sends);
            commands = List.copyOf(commands);
        }
    }

    private Joining() {}

    /** What is there; empty: nothing. @param from price that a position which only the broker has counts from, ticks */
    public static Optional<Found> found(LiveDay.View view, long from) {
        Snapshot snapshot = view.snapshot();
        OptionalLong apart = view.standing().difference();
        if (apart.isPresent()) {
            Side side = apart.getAsLong() > 0 ? Side.LONG : Side.SHORT;
            return Optional.of(new Found(side, (int) Math.abs(apart.getAsLong()), false,
                    from, 1));
        }
        return snapshot.hand().position().filter(position -> position.open() > 0).map(position -> new Found(
                position.side(), position.open(), true, position.averageSum(), position.averageQuantity()));
    }

    /** The ways there are, the first one is proposed. @param index of the strategy; {@code from} as for {@link #found} */
    public static List<Choice> of(Contract contract, LiveDay.View view, int index, long from) {
        Snapshot snapshot = view.snapshot();
        Command engages = new Command.SetMode(index, Mode.ENGAGED);
        Optional<Found> there = found(view, from);
        if (there.isEmpty()) {
            return List.of(new Choice(Way.WAIT, List.of(), List.of(engages)));
        }
        Found found = there.get();
        Snapshot.StrategyView strategy = snapshot.strategies().get(index);
        List<Choice> choices = new ArrayList<>();
        List<Command> adopt = new ArrayList<>();
        if (!found.counted()) {
            adopt.add(new Command.Adopt(found.side().sign() * found.contracts(), from));
        }
        boolean alone = found.counted() || snapshot.hand().position().isEmpty();
        if (alone && strategy.position().isEmpty()) {
            choices.add(new Choice(Way.TAKE_OVER, guarding(contract, strategy.strategy(), found, snapshot, index),
                    with(adopt, new Command.HandOver(Owner.PERSON, new Owner.Strategy(index)), engages)));
        }
        if (alone) {
            choices.add(new Choice(Way.CLOSE_FIRST, List.of(new Line(found.side() == Side.SHORT, found.contracts(),
                    "at the market", OptionalLong.empty())),
                    with(adopt, new Command.Flatten(Owner.PERSON), engages)));
        }
        choices.add(new Choice(Way.LEAVE, List.of(), with(adopt, engages)));
        return List.copyOf(choices);
    }

    private static List<Command> with(List<Command> first, Command... then) {
        List<Command> all = new ArrayList<>(first);
        all.addAll(List.of(then));
        return all;
    }

    /** The plan's stop and targets for it, counted from its average. */
    private static List<Line> guarding(Contract contract, Strategy strategy, Found found, Snapshot snapshot,
            int index) {
        ExitTerms terms = strategy.plan().terms(found.side());
        boolean buy = found.side() == Side.SHORT;
        boolean exact = terms.levels().isEmpty() && terms.widths().isEmpty();
        List<Line> lines = new ArrayList<>();
        if (!exact) {
            OptionalLong away = snapshot.hand().planned().size() > index
                    && snapshot.hand().planned().get(index).containsKey(found.side())
                            ? OptionalLong.of(snapshot.hand().planned().get(index).get(found.side()))
                            : OptionalLong.empty();
            lines.add(new Line(buy, found.contracts(), "stop", away.isPresent()
                    ? OptionalLong.of(snapshot.lastPrice().orElse(0L) - found.side().sign() * away.getAsLong())
                    : OptionalLong.empty()));
            terms.targets().stream().filter(target -> target.distance().isPresent())
                    .forEach(target -> lines.add(new Line(buy, Math.min(target.quantity(), found.contracts()),
                            "limit, where the plan's studies put it", OptionalLong.empty())));
            return lines;
        }
        PlanRun plan = new PlanRun(terms, found.side(), contract,
                new Average(found.averageSum(), found.averageQuantity()), found.contracts(), text -> Double.NaN);
        PlanRun.Wishes wishes = plan.attached(found.contracts(), snapshot.lastPrice().orElse(0L), text -> Double.NaN);
        if (wishes.departure().isPresent()) {
            lines.add(new Line(buy, found.contracts(), "at the market: its stop is reached", OptionalLong.empty()));
            return lines;
        }
        wishes.stop().ifPresent(
                stop -> lines.add(new Line(buy, found.contracts(), "stop", OptionalLong.of(stop.level()))));
        wishes.targets().stream().filter(target -> target.added() > 0).forEach(
                target -> lines.add(new Line(buy, target.added(), "limit", OptionalLong.of(target.price()))));
        return lines;
    }
}
