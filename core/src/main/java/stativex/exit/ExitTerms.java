package stativex.exit;

import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Stream;
import stativex.market.Contract;

/**
 * How trades of one side are left. Distances are from the trade's average entry price, in favour is above 0.
 *
 * @param stop empty: no stop, and every entry fails the line check while any line is on
 * @param targets in listed order; contracts go to them in that order
 * @param trail no two with the same activation in ticks
 * @param judged when breakeven and trail are judged
 * @param leaves at the market
 */
public record ExitTerms(Optional<Stop> stop, List<Target> targets, Optional<Breakeven> breakeven, List<TrailStep> trail,
        Judged judged, List<Leave> leaves) {

    /** Nothing leaves by itself: a position without a plan. */
    public static final ExitTerms NONE = new ExitTerms(Optional.empty(), List.of(), Optional.empty(), List.of(),
            Judged.EVERY_PRINT, List.of());

    /** The same for so many times the contracts. */
    public ExitTerms sized(int times) {
        return new ExitTerms(stop,
                targets.stream().map(t -> new Target(Math.multiplyExact(t.quantity(), times), t.distance())).toList(),
                breakeven, trail, judged,
                leaves.stream().map(leave -> leave instanceof Leave.Rule(String rule, OptionalInt quantity)
                        && quantity.isPresent()
                                ? new Leave.Rule(rule,
                                        OptionalInt.of(Math.multiplyExact(quantity.getAsInt(), times)))
                                : leave)
                        .toList());
    }

    /** Whether anything leaves by itself. */
    public boolean leavesByItself() {
        return stop.isPresent() || targets.stream().anyMatch(t -> t.distance().isPresent()) || !leaves.isEmpty();
    }

    /** When breakeven and trail are judged. */
    public enum Judged {
        EVERY_PRINT, BAR_CLOSE
    }

    /**
     * @param follow a price in the rule language that the stop takes at each bar close, where that tightens it
     * @param local held here, not at the broker
     */
    public record Stop(Distance distance, Optional<String> follow, Optional<Local> local) {
        public Stop {
            if (distance instanceof Distance.Risks) {
                throw new IllegalArgumentException("a stop cannot be given in R, which it makes itself");
            }
            positive(distance, "stop");
        }
    }

    /**
     * A stop that is held here: reached, it counts contracts, then leaves at the market.
     *
     * @param disaster ticks further out at which the broker holds a stop all the same
     * @param volume contracts at or beyond the level, from the print on that reaches it; 0: the first print
     */
    public record Local(long disaster, long volume) {
        public Local {
            atLeastOne(disaster, "distance of the disaster stop");
            if (volume < 0) {
                throw new IllegalArgumentException("expected a volume of 0 or more, found " + volume);
            }
        }
    }

    /**
     * @param quantity contracts, at least 1
     * @param distance empty for the runner, which has no target
     */
    public record Target(int quantity, Optional<Distance> distance) {
        public Target {
            atLeastOne(quantity, "target quantity");
            distance.ifPresent(d -> positive(d, "target"));
        }
    }

    /**
     * The stop goes to entry + {@code offset} with the first of its triggers.
     *
     * @param after the best excursion reaches this
     * @param bars so many bars since the entry, and a close beyond entry + offset
     * @param leg this target, from 1, is filled completely
     */
    public record Breakeven(Optional<Distance> after, OptionalInt bars, OptionalInt leg, Distance offset) {
        public Breakeven {
            if (after.isEmpty() && bars.isEmpty() && leg.isEmpty()) {
                throw new IllegalArgumentException(
                        "expected breakeven after a distance, some bars or a filled target, found none of them");
            }
            after.ifPresent(d -> positive(d, "breakeven trigger"));
            bars.ifPresent(n -> atLeastOne(n, "number of bars until breakeven"));
            leg.ifPresent(n -> atLeastOne(n, "target that leads to breakeven"));
            if (after.orElse(null) instanceof Distance.Ticks(long trigger)
                    && offset instanceof Distance.Ticks(long to) && to >= trigger) {
                throw new IllegalArgumentException(
                        "expected a breakeven offset below its trigger of " + trigger + " ticks, found " + to);
            }
        }

        /** After so many ticks in favour. */
        public Breakeven(long after, long offset) {
            this(Optional.of(new Distance.Ticks(after)), OptionalInt.empty(), OptionalInt.empty(),
                    new Distance.Ticks(offset));
        }
    }

    /**
     * Once the best excursion is {@code activate} or more, the stop follows {@code distance} behind, moving by whole
     * {@code step}s.
     */
    public record TrailStep(Distance activate, Distance distance, Distance step) {
        public TrailStep {
            if (Stream.of(activate, distance, step).anyMatch(Distance.Level.class::isInstance)) {
                throw new IllegalArgumentException("a trail step is no level of a study: expected distances");
            }
            if (activate instanceof Distance.Ticks(long ticks) && ticks < 0) {
                throw new IllegalArgumentException("expected a trail activation of 0 ticks or more, found " + ticks);
            }
            positive(distance, "trail distance");
            positive(step, "trail step");
        }

        /** In ticks. */
        public TrailStep(long activate, long distance, long step) {
            this(new Distance.Ticks(activate), new Distance.Ticks(distance), new Distance.Ticks(step));
        }
    }

    public ExitTerms {
        targets = List.copyOf(targets);
        trail = List.copyOf(trail);
        leaves = List.copyOf(leaves);
        Set<Long> seen = new HashSet<>();
        for (TrailStep step : trail) {
            if (step.activate() instanceof Distance.Ticks(long ticks) && !seen.add(ticks)) {
                throw new IllegalArgumentException("two trail steps activate at " + ticks + " ticks");
            }
        }
        if (targets.stream().filter(t -> t.distance().isEmpty()).count() > 1) {
            throw new IllegalArgumentException("expected at most one target without a distance (the runner)");
        }
        if (stop.isEmpty() && (breakeven.isPresent() || !trail.isEmpty())) {
            throw new IllegalArgumentException(
                    "expected a stop for the breakeven move and the trail to move, found none");
        }
        int legs = targets.size();
        breakeven.flatMap(b -> b.leg().isPresent() ? Optional.of(b.leg().getAsInt()) : Optional.empty())
                .filter(leg -> leg > legs).ifPresent(leg -> {
                    throw new IllegalArgumentException(
                            "breakeven waits for target " + leg + ", but there are " + legs);
                });
        if (stop.isEmpty() && distances(targets, breakeven, trail).anyMatch(Distance.Risks.class::isInstance)) {
            throw new IllegalArgumentException("R counts the stop's distance: expected a stop");
        }
    }

    private static Stream<Distance> distances(List<Target> targets, Optional<Breakeven> breakeven,
            List<TrailStep> trail) {
        return Stream.of(targets.stream().flatMap(t -> t.distance().stream()),
                breakeven.stream().flatMap(b -> Stream.concat(b.after().stream(), Stream.of(b.offset()))),
                trail.stream().flatMap(step -> Stream.of(step.activate(), step.distance(), step.step())))
                .flatMap(s -> s);
    }

    /** Every distance it states, the stop's first. */
    public Stream<Distance> distances() {
        return Stream.concat(stop.stream().map(Stop::distance), distances(targets, breakeven, trail));
    }

    /** Prices of the rule language that have to be there before a trade begins. */
    public Set<String> levels() {
        return texts(Distance.Level.class::isInstance);
    }

    /** Distances of the rule language, likewise. */
    public Set<String> widths() {
        return texts(Distance.Times.class::isInstance);
    }

    private Set<String> texts(Predicate<Distance> kind) {
        Set<String> texts = new LinkedHashSet<>();
        distances().filter(kind).forEach(d -> d.takes().ifPresent(texts::add));
        return texts;
    }

    /** The price that the stop follows, if it does. */
    public Optional<String> follow() {
        return stop.flatMap(Stop::follow);
    }

    /** Whether the stop is held here. */
    public Optional<Local> local() {
        return stop.flatMap(Stop::local);
    }

    public boolean leavesOnOppositeSignal() {
        return leaves.stream().anyMatch(Leave.OppositeSignal.class::isInstance);
    }

    public boolean leavesAtWindowEnd() {
        return leaves.stream().anyMatch(Leave.WindowEnd.class::isInstance);
    }

    /** Whether the close of a bar may change anything of a trade, or end it. */
    public boolean needsBars() {
        return follow().isPresent() || judged == Judged.BAR_CLOSE
                || breakeven.filter(b -> b.bars().isPresent()).isPresent() || !levels().isEmpty()
                || leaves.stream().anyMatch(leave -> switch (leave) {
                    case Leave.AfterBars ignored -> true;
                    case Leave.FirstCloseInProfit ignored -> true;
                    case Leave.Rule ignored -> true;
                    case Leave.OppositeSignal ignored -> false;
                    case Leave.WindowEnd ignored -> false;
                    case Leave.ClockTime ignored -> false;
                });
    }

    /** @throws IllegalArgumentException when money for a contract is under a tick */
    public void check(Contract contract) {
        distances().forEach(d -> {
            if (d instanceof Distance.PerContract(long money)) {
                atLeastOne(contract.ticksFor(Math.abs(money)), "number of ticks for " + d.words());
            }
        });
    }

    /** In words: {@code stop 24 t · 1 at 28 t, 1 running · breakeven after 20 t, +1 t · trail from 30 t, 20 t behind}. */
    public String words() {
        StringBuilder words = new StringBuilder(
                stop.map(s -> "stop " + s.distance().words()).orElse("no stop"));
        local().ifPresent(l -> words.append(" held here, ").append(l.disaster()).append(" t further out at the broker")
                .append(l.volume() > 0 ? ", counts " + l.volume() + " contracts" : ""));
        follow().ifPresent(study -> words.append(", follows ").append(study));
        for (int i = 0; i < targets.size(); i++) {
            Target target = targets.get(i);
            words.append(i == 0 ? " · " : ", ").append(target.quantity())
                    .append(target.distance().map(d -> " at " + d.words()).orElse(" running"));
        }
        breakeven.ifPresent(
                b -> words.append(" · breakeven ").append(triggers(b)).append(", ").append(signed(b.offset())));
        for (TrailStep t : trail) {
            words.append(" · trail from ").append(t.activate().words()).append(", ").append(t.distance().words())
                    .append(" behind");
            if (!t.step().equals(new Distance.Ticks(1))) {
                words.append(", every ").append(t.step().words());
            }
        }
        if (judged == Judged.BAR_CLOSE) {
            words.append(" · judged at bar closes");
        }
        leaves.forEach(leave -> words.append(" · ").append(leave.words()));
        return words.toString();
    }

    private static String triggers(Breakeven b) {
        Stream<String> all = Stream.of(b.after().map(d -> "after " + d.words()),
                b.bars().isPresent()
                        ? Optional.of("after " + b.bars().getAsInt() + (b.bars().getAsInt() == 1 ? " bar" : " bars"))
                        : Optional.<String>empty(),
                b.leg().isPresent() ? Optional.of("with target " + b.leg().getAsInt()) : Optional.<String>empty())
                .flatMap(Optional::stream);
        return String.join(" or ", all.toList());
    }

    private static String signed(Distance offset) {
        return offset instanceof Distance.Level || offset.words().startsWith("−") || offset.words().startsWith("-")
                ? offset.words()
                : "+" + offset.words();
    }

    private static void positive(Distance distance, String what) {
        switch (distance) {
            case Distance.Ticks t -> atLeastOne(t.ticks(), what.equals("stop") || what.startsWith("trail")
                    || what.startsWith("breakeven") ? what : what + " distance");
            case Distance.Price p -> above(p.price().signum(), what, p);
            case Distance.PerContract m -> above(Long.signum(m.money()), what, m);
            case Distance.WholePosition m -> above(Long.signum(m.money()), what, m);
            case Distance.Percent p -> above(p.percent().signum(), what, p);
            case Distance.Risks r -> above(r.times().signum(), what, r);
            case Distance.Times t -> above(t.times().signum(), what, t);
            case Distance.Level ignored -> {
                // wherever it stands
            }
        }
    }

    private static void above(int sign, String what, Distance distance) {
        if (sign <= 0) {
            throw new IllegalArgumentException("expected a " + what + " above 0, found " + distance.words());
        }
    }

    private static long atLeastOne(long value, String what) {
        if (value < 1) {
            throw new IllegalArgumentException("expected a " + what + " of 1 or more, found " + value);
        }
        return value;
    }
}
