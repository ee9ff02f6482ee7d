package stativex.exit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import stativex.market.Contract;
import stativex.market.Side;

/**
 * How trades are left, each side in its own way or both alike.
 *
 * @param version a fingerprint of its document, carried by every result
 */
public record ExitPlan(String name, String version, ExitTerms longTerms, ExitTerms shortTerms) {
    public ExitPlan {
        if (!longTerms.leavesByItself() || !shortTerms.leavesByItself()) {
            throw new IllegalArgumentException("expected a stop, a target or a way to leave, found none");
        }
    }

    /** Both sides alike. */
    public ExitPlan(String name, String version, ExitTerms terms) {
        this(name, version, terms, terms);
    }

    /** Both sides alike: a stop, targets, a breakeven move and trail steps, judged at every print. */
    public ExitPlan(String name, String version, Optional<Distance> stop, List<ExitTerms.Target> targets,
            Optional<ExitTerms.Breakeven> breakeven, List<ExitTerms.TrailStep> trail) {
        this(name, version, new ExitTerms(stop.map(d -> new ExitTerms.Stop(d, Optional.empty(), Optional.empty())),
                targets, breakeven, trail, ExitTerms.Judged.EVERY_PRINT, List.of()));
    }

    public ExitTerms terms(Side side) {
        return side == Side.LONG ? longTerms : shortTerms;
    }

    /** With other terms for a side, and for the other one where both are alike. */
    public ExitPlan with(Side side, ExitTerms terms) {
        boolean alike = longTerms.equals(shortTerms);
        return new ExitPlan(name, version, alike || side == Side.LONG ? terms : longTerms,
                alike || side == Side.SHORT ? terms : shortTerms);
    }

    /** @throws IllegalArgumentException when money for a contract is under a tick */
    public void check(Contract contract) {
        longTerms.check(contract);
        shortTerms.check(contract);
    }

    /**
     * A name made of its figures: {@code 16 · 14 36 · be 12 · tr 16-12-4}; where the sides differ that of the long one. Distances in
     * ticks have no unit.
     */
    public String nameByFigures() {
        List<String> parts = new ArrayList<>();
        longTerms.stop().ifPresent(stop -> parts.add(figure(stop.distance())));
        if (!longTerms.targets().isEmpty()) {
            parts.add(longTerms.targets().stream().map(t -> t.distance().map(ExitPlan::figure).orElse("run"))
                    .collect(Collectors.joining(" ")));
        }
        longTerms.breakeven().ifPresent(b -> parts.add("be " + b.after().map(ExitPlan::figure)
                .orElse(b.bars().isPresent() ? b.bars().getAsInt() + " bars" : "leg " + b.leg().orElse(1))));
        longTerms.trail().forEach(step -> parts.add(
                "tr " + figure(step.activate()) + "-" + figure(step.distance()) + "-" + figure(step.step())));
        return parts.isEmpty() ? name : String.join(" · ", parts);
    }

    private static String figure(Distance distance) {
        return distance instanceof Distance.Ticks(long ticks) ? Long.toString(ticks) : distance.words();
    }

    /** The same under another name. */
    public ExitPlan named(String other) {
        return new ExitPlan(other, version, longTerms, shortTerms);
    }

    /** In words; where the sides differ, both. */
    public String words() {
        return longTerms.equals(shortTerms)
                ? longTerms.words()
                : "long: " + longTerms.words() + "; short: " + shortTerms.words();
    }
}
