package stativex.exit;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import stativex.market.Contract;
import stativex.market.Side;

/**
 * Where a plan's stop stands by how far a trade has gone in favour, had it gone there in a line, and what of it can be taken hold of. Worked
 * by the class that moves the stop of a real trade. All in ticks from the entry, in favour above 0.
 *
 * @param steps from the entry on; empty without a stop
 * @param handles points that can be dragged, in the order of {@link ExitTerms}
 * @param furthest how far the map goes
 */
public record StopMap(List<Step> steps, List<Handle> handles, long furthest) {
    private static final long LEAST = 40;
    private static final int PERCENT_DECIMALS = 4;

    /** Once the best is {@code best} or more, the stop stands at {@code level}. */
    public record Step(long best, long level, StopOrigin origin) {}

    /** What a handle stands for. */
    public enum Kind {
        STOP, BREAKEVEN, TRAIL, TARGET
    }

    /**
     * @param index of the trail step or target, from 0; else 0
     * @param best of what it waits for; a target's distance
     * @param level where the stop then goes; a target's distance
     * @param acrossBy the person may change {@link #best}; {@code upBy} {@link #level}
     */
    public record Handle(Kind kind, int index, long best, long level, boolean acrossBy, boolean upBy) {}

    /**
     * A trade that a map is drawn for.
     *
     * @param price of its entry, ticks
     * @param readings studies at the bar that led to it
     */
    public record Entry(Side side, Contract contract, long price, int quantity, Readings readings) {}

    public StopMap {
        steps = List.copyOf(steps);
        handles = List.copyOf(handles);
    }

    /** The map of a plan; empty while a study that its distances need is not there. */
    public static Optional<StopMap> of(ExitTerms terms, Entry entry) {
        if (!PlanRun.complete(terms, entry.readings())) {
            return Optional.empty();
        }
        PlanFigures figures = figures(terms, entry);
        List<Handle> handles = handles(terms, figures, entry);
        long furthest = LEAST;
        for (Handle handle : handles) {
            furthest = Math.max(furthest, handle.best() + Math.max(10, handle.best() / 4));
        }
        for (PlanFigures.Trail trail : figures.trail) {
            furthest = Math.max(furthest, trail.activate() + Math.max(trail.distance(), 5 * trail.step()));
        }
        return Optional.of(new StopMap(steps(terms, figures, entry, furthest), handles, furthest));
    }

    private static PlanFigures figures(ExitTerms terms, Entry entry) {
        return new PlanFigures(terms, entry.side(), entry.contract(), entry.price(), entry.quantity(),
                entry.quantity(), entry.readings());
    }

    /** A trade that goes in favour tick by tick. */
    private static List<Step> steps(ExitTerms terms, PlanFigures figures, Entry entry, long furthest) {
        ExitTerms alike = new ExitTerms(terms.stop(), terms.targets(), terms.breakeven(), terms.trail(),
                ExitTerms.Judged.EVERY_PRINT, terms.leaves());
        int sign = entry.side().sign();
        StopPath path = new StopPath(alike, figures, entry.side(), new Average(entry.price(), 1), entry.quantity());
        List<Step> steps = new ArrayList<>();
        if (path.hasLevel()) {
            path.read(entry.readings());
            steps.add(new Step(0, sign * (path.levelTicks() - entry.price()), path.origin()));
            for (long best = 1; best <= furthest; best++) {
                if (path.print(entry.price() + sign * best, false)) {
                    steps.add(new Step(best, sign * (path.levelTicks() - entry.price()), path.origin()));
                }
            }
        }
        return steps;
    }

    private static List<Handle> handles(ExitTerms terms, PlanFigures figures, Entry entry) {
        List<Handle> handles = new ArrayList<>();
        terms.stop().ifPresent(stop -> handles.add(new Handle(Kind.STOP, 0, 0,
                entry.side().sign() * (figures.stop(new Average(entry.price(), 1), entry.quantity()) - entry.price()),
                false, moves(stop.distance()))));
        terms.breakeven().flatMap(b -> b.after().filter(StopMap::moves).map(after -> new Handle(Kind.BREAKEVEN, 0,
                figures.breakevenAfter, figures.breakevenOffset, true, moves(b.offset()))))
                .ifPresent(handles::add);
        for (int i = 0; i < terms.trail().size(); i++) {
            ExitTerms.TrailStep step = terms.trail().get(i);
            long from = Math.max(0, figures.ticks(step.activate()));
            long behind = Math.max(1, figures.ticks(step.distance()));
            handles.add(new Handle(Kind.TRAIL, i, from, from - behind, true, true));
        }
        for (int i = 0; i < terms.targets().size(); i++) {
            if (terms.targets().get(i).distance().isPresent()) {
                long distance = entry.side().sign()
                        * (figures.target(i, new Average(entry.price(), 1), entry.readings()) - entry.price());
                handles.add(new Handle(Kind.TARGET, i, distance, distance,
                        moves(terms.targets().get(i).distance().get()), false));
            }
        }
        return handles;
    }

    /** A level stands where its study is, whatever one would have it. */
    private static boolean moves(Distance distance) {
        return !(distance instanceof Distance.Level);
    }

    /**
     * The plan with a handle dragged, each distance in the unit that it had.
     *
     * @param best where the handle is dragged to, across; {@code level} up
     * @throws IllegalArgumentException when that makes no plan
     */
    public static ExitTerms dragged(ExitTerms terms, Handle handle, long best, long level, Entry entry) {
        return switch (handle.kind()) {
            case STOP -> stop(terms, entry, Math.max(1, -level));
            case BREAKEVEN -> breakeven(terms, entry, Math.max(1, best), handle.upBy() ? level : handle.level());
            case TRAIL -> trail(terms, handle.index(), entry, Math.max(0, best), level);
            case TARGET -> target(terms, handle.index(), entry, Math.max(1, best));
        };
    }

    private static ExitTerms stop(ExitTerms terms, Entry entry, long ticks) {
        ExitTerms.Stop now = terms.stop().orElseThrow();
        return new ExitTerms(
                Optional.of(new ExitTerms.Stop(as(now.distance(), ticks, terms, entry), now.follow(), now.local())),
                terms.targets(), terms.breakeven(), terms.trail(), terms.judged(), terms.leaves());
    }

    private static ExitTerms breakeven(ExitTerms terms, Entry entry, long after, long offset) {
        ExitTerms.Breakeven now = terms.breakeven().orElseThrow();
        ExitTerms.Breakeven next = new ExitTerms.Breakeven(now.after().map(d -> as(d, after, terms, entry)), now.bars(),
                now.leg(), as(now.offset(), Math.min(offset, after - 1), terms, entry));
        return new ExitTerms(terms.stop(), terms.targets(), Optional.of(next), terms.trail(), terms.judged(),
                terms.leaves());
    }

    private static ExitTerms trail(ExitTerms terms, int index, Entry entry, long from, long level) {
        List<ExitTerms.TrailStep> steps = new ArrayList<>(terms.trail());
        ExitTerms.TrailStep now = steps.get(index);
        steps.set(index, new ExitTerms.TrailStep(as(now.activate(), from, terms, entry),
                as(now.distance(), Math.max(1, from - level), terms, entry), now.step()));
        return new ExitTerms(terms.stop(), terms.targets(), terms.breakeven(), steps, terms.judged(), terms.leaves());
    }

    private static ExitTerms target(ExitTerms terms, int index, Entry entry, long ticks) {
        List<ExitTerms.Target> targets = new ArrayList<>(terms.targets());
        ExitTerms.Target now = targets.get(index);
        targets.set(index,
                new ExitTerms.Target(now.quantity(), now.distance().map(d -> as(d, ticks, terms, entry))));
        return new ExitTerms(terms.stop(), targets, terms.breakeven(), terms.trail(), terms.judged(), terms.leaves());
    }

    /** So many ticks in a distance's unit. */
    private static Distance as(Distance unit, long ticks, ExitTerms terms, Entry entry) {
        BigDecimal wanted = BigDecimal.valueOf(ticks);
        return switch (unit) {
            case Distance.Ticks ignored -> new Distance.Ticks(ticks);
            case Distance.Price ignored -> new Distance.Price(wanted.multiply(entry.contract().tickSize()));
            case Distance.PerContract ignored -> new Distance.PerContract(entry.contract().money(ticks, 1));
            case Distance.WholePosition ignored ->
                new Distance.WholePosition(entry.contract().money(ticks, entry.quantity()));
            case Distance.Percent now -> entry.price() == 0
                    ? now
                    : new Distance.Percent(plain(wanted.movePointRight(2)
                            .divide(BigDecimal.valueOf(Math.abs(entry.price())), PERCENT_DECIMALS, RoundingMode.DOWN)));
            case Distance.Risks now -> figures(terms, entry).risk <= 0
                    ? now
                    : new Distance.Risks(plain(wanted.divide(BigDecimal.valueOf(figures(terms, entry).risk), 2,
                            RoundingMode.DOWN)));
            case Distance.Times now -> {
                double reading = entry.readings().at(now.study());
                yield reading > 0
                        ? new Distance.Times(plain(wanted.divide(BigDecimal.valueOf(reading), 2, RoundingMode.DOWN)),
                                now.study())
                        : now;
            }
            case Distance.Level now -> now;
        };
    }

    private static BigDecimal plain(BigDecimal number) {
        BigDecimal stripped = number.stripTrailingZeros();
        return stripped.scale() < 0 ? stripped.setScale(0) : stripped;
    }

    /** Where the stop stands once the best is {@code best}; empty without a stop. */
    public OptionalLong at(long best) {
        OptionalLong level = OptionalLong.empty();
        for (Step step : steps) {
            if (step.best() <= best) {
                level = OptionalLong.of(step.level());
            }
        }
        return level;
    }
}
