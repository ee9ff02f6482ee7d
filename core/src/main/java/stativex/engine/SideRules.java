package stativex.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.market.Side;
import stativex.rule.Condition;
import stativex.rule.Program;
import stativex.rule.RuleProblem;
import stativex.rule.Value;

/**
 * One side of a strategy made ready: its rule with grades, filters and confirmation, the price of its entry, and a lane
 * for each thing that must hold, the last one for all of them.
 */
public final class SideRules {
    private final Side side;
    private final List<Lane> lanes;
    private final Condition whole;
    private final Optional<Value> price;
    private final List<Grade> grades;

    /** What must hold, under the name it is shown with. */
    public record Lane(String name, Condition condition) {}

    private record Grade(String name, Condition condition) {}

    /**
     * @param needsPrice whether the entry is a limit or stop, which has a price
     * @throws IllegalArgumentException saying which text is wrong, and where in it
     */
    public SideRules(Program program, Side side, Strategy.SideRule rule, SignalPlan plan, boolean needsPrice) {
        this.side = side;
        Condition base = condition(program, side.word() + " rule", rule.rule());
        List<Condition> all = new ArrayList<>(base.parts());
        List<Lane> shown = new ArrayList<>();
        base.parts().forEach(part -> shown.add(new Lane(part.text(), part)));
        this.grades = rule.grades().stream().map(grade -> new Grade(grade.name(),
                condition(program, side.word() + " grade \"" + grade.name() + "\"", grade.rule()))).toList();
        if (!grades.isEmpty()) {
            List<Grade> entering = grades.stream().filter(g -> rule.enters().contains(g.name())).toList();
            Condition any = program.any(entering.stream().map(Grade::condition).toList());
            all.add(any);
            shown.add(new Lane("grade " + String.join(" or ", entering.stream().map(Grade::name).toList()), any));
        }
        for (SignalPlan.Filter filter : plan.filters()) {
            if (filter.on() && filter.rule(side).isPresent()) {
                Condition held = condition(program, "filter \"" + filter.name() + "\"", filter.rule(side).get());
                all.add(held);
                shown.add(new Lane("filter " + filter.name(), held));
            }
        }
        Condition signal = all.size() == base.parts().size() ? base : program.all(all);
        if (plan.confirmWithin().isPresent()) {
            shown.add(new Lane("signal", signal));
            signal = program.confirmed(signal, side == Side.LONG, plan.confirmWithin().get());
        }
        this.whole = signal;
        shown.add(new Lane("all of them", whole));
        this.lanes = List.copyOf(shown);
        if (needsPrice != rule.price().isPresent()) {
            throw new IllegalArgumentException(side.word() + ": " + (needsPrice
                    ? "expected a price for a limit or stop entry, found none"
                    : "a market entry takes no price, found \"" + rule.price().orElse("") + "\""));
        }
        this.price = rule.price().map(text -> price(program, text));
    }

    private Value price(Program program, String text) {
        try {
            return program.level(text);
        } catch (RuleProblem e) {
            throw new IllegalArgumentException(side.word() + " price, " + e.getMessage(), e);
        }
    }

    private static Condition condition(Program program, String what, String text) {
        try {
            return program.condition(text);
        } catch (RuleProblem e) {
            throw new IllegalArgumentException(what + ", " + e.getMessage(), e);
        }
    }

    public Side side() {
        return side;
    }

    /** One for each thing that must hold; the last one is the rule as a whole. */
    public List<Lane> lanes() {
        return lanes;
    }

    /** Everything together. */
    public Condition whole() {
        return whole;
    }

    Optional<Value> price() {
        return price;
    }

    /** The first grade that holds at a bar; empty without grades. */
    public Optional<String> grade(int bar) {
        return grades.stream().filter(g -> g.condition().at(bar) == stativex.rule.Truth.TRUE).map(Grade::name)
                .findFirst();
    }
}
