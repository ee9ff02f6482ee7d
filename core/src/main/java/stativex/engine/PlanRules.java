package stativex.engine;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import stativex.exit.ExitTerms;
import stativex.exit.Leave;
import stativex.exit.PlanRun;
import stativex.exit.Readings;
import stativex.market.Side;
import stativex.rule.Condition;
import stativex.rule.Program;
import stativex.rule.RuleProblem;
import stativex.rule.Truth;
import stativex.rule.Value;
import stativex.study.Unit;

/** One side's exit plan made ready: the studies that its distances take, and the rules it leaves on. */
public final class PlanRules {
    private record Ruled(Leave.Rule leave, Condition condition) {}

    private final ExitTerms terms;
    /** Whether it leaves on the other side's signal: asked at each of them. */
    final boolean leavesOnOppositeSignal;
    /** Whether the close of a bar may change anything of a trade: asked with each that begins. */
    final boolean needsBars;
    private final Map<String, Value> values = new HashMap<>();
    private final List<Ruled> leaves = new ArrayList<>();

    /** @throws IllegalArgumentException saying which text of the plan is wrong, and where in it */
    public PlanRules(Program program, Side side, ExitTerms terms) {
        this.terms = terms;
        this.leavesOnOppositeSignal = terms.leavesOnOppositeSignal();
        this.needsBars = terms.needsBars();
        String whose = "exit plan, " + side.word() + ", ";
        try {
            terms.levels().forEach(text -> values.put(text, program.level(text)));
            terms.follow().ifPresent(text -> values.put(text, program.level(text)));
            terms.widths().forEach(text -> values.put(text, width(program, text)));
            for (Leave leave : terms.leaves()) {
                if (leave instanceof Leave.Rule rule) {
                    leaves.add(new Ruled(rule, program.condition(rule.rule())));
                }
            }
        } catch (RuleProblem e) {
            throw new IllegalArgumentException(whose + e.getMessage(), e);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(whose + e.getMessage(), e);
        }
    }

    private PlanRules() {
        this.terms = ExitTerms.NONE;
        this.leavesOnOppositeSignal = false;
        this.needsBars = false;
    }

    /** No plan: nothing leaves by itself. */
    static PlanRules none() {
        return new PlanRules();
    }

    private static Value width(Program program, String text) {
        Value value = program.value(text);
        if (value.unit() != Unit.DISTANCE) {
            throw new IllegalArgumentException("expected a distance such as an average true range, but " + text + " is "
                    + value.unit().words());
        }
        return value;
    }

    ExitTerms terms() {
        return terms;
    }

    /** The same plan on another program over the same bars. */
    PlanRules on(Program program, Side side) {
        return new PlanRules(program, side, terms);
    }

    /** What the studies say at a bar that was judged; nothing before the first. */
    public Readings at(int bar) {
        return text -> bar < 0 ? Double.NaN : values.get(text).at(bar);
    }

    /** Whether every study that an entry at a bar's signal needs is there. */
    boolean complete(int bar) {
        return values.isEmpty() || PlanRun.complete(terms, at(bar));
    }

    /** Whether it takes any study. */
    boolean asksForStudies() {
        return !terms.levels().isEmpty() || !terms.widths().isEmpty();
    }

    /** Rules that are true at a row, closed or forming. */
    List<Leave.Rule> due(int row) {
        List<Leave.Rule> due = new ArrayList<>();
        for (int i = 0; i < leaves.size(); i++) {
            if (leaves.get(i).condition().at(row) == Truth.TRUE) {
                due.add(leaves.get(i).leave());
            }
        }
        return due;
    }

    boolean leavesByRule() {
        return !leaves.isEmpty();
    }
}
