package stativex.engine;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import stativex.exit.ExitTerms;
import stativex.interlock.SessionWindow;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.SeriesBuilder;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;
import stativex.rule.Program;
import stativex.rule.RuleProblem;

/** What in a complete strategy can hardly be meant: conditions that never hold or always do, windows in which nothing can happen. */
public final class StrategyDoubts {
    /** A Monday, from which a year of windows is looked at; any would do. */
    private static final LocalDate BEGIN = LocalDate.of(2026, 1, 5);
    private static final int DAYS = 371;

    private final List<StrategyProblems.Problem> doubts = new ArrayList<>();

    private StrategyDoubts() {}

    /** @param others further contracts that its series may name */
    public static List<StrategyProblems.Problem> of(Strategy strategy, Contract contract, List<Contract> others) {
        StrategyDoubts found = new StrategyDoubts();
        found.rules(strategy, contract, others);
        for (int i = 0; i < strategy.windows().size(); i++) {
            found.window("windows[" + i + "]", strategy.windows().get(i), contract);
        }
        found.targets(strategy);
        return List.copyOf(found.doubts);
    }

    private void rules(Strategy strategy, Contract contract, List<Contract> others) {
        Tape empty = new TapeBuilder(0).build();
        Map<String, ContractTape> tapes = others.stream()
                .collect(Collectors.toMap(Contract::symbol, other -> new ContractTape(other, empty)));
        SignalPlan plan = strategy.signals();
        Program program = new Program(plan.blueprint(contract, tapes),
                new SeriesBuilder(empty, contract.calendar(), plan.bars()).series());
        for (Side side : Side.values()) {
            strategy.side(side).ifPresent(rule -> {
                rule(program, side.word() + ".rule", rule.rule());
                for (int i = 0; i < rule.grades().size(); i++) {
                    rule(program, side.word() + ".grades[" + i + "].rule", rule.grades().get(i).rule());
                }
            });
        }
        for (int i = 0; i < plan.filters().size(); i++) {
            String place = "filters[" + i + "].";
            plan.filters().get(i).longRule().ifPresent(rule -> rule(program, place + "long", rule));
            plan.filters().get(i).shortRule().ifPresent(rule -> rule(program, place + "short", rule));
        }
    }

    private void rule(Program program, String place, String text) {
        for (RuleProblem doubt : program.doubts(text)) {
            doubts.add(new StrategyProblems.Problem(place, doubt.getMessage(), doubt.from(), doubt.to()));
        }
    }

    private void window(String place, SessionWindow window, Contract contract) {
        long longest = 0;
        boolean met = false;
        for (int i = 0; i < DAYS && !met; i++) {
            LocalDate date = BEGIN.plusDays(i);
            if (window.days().contains(date.getDayOfWeek())) {
                long from = TapeTime.first(date.atTime(window.from()), window.zone());
                boolean next = !window.to().isAfter(window.from());
                long to = TapeTime.first((next ? date.plusDays(1) : date).atTime(window.to()), window.zone());
                longest = Math.max(longest, to - from);
                Optional<Session> session = contract.calendar().current(from);
                met = session.isPresent() && session.get().open() < to;
            }
        }
        if (!met) {
            doubts.add(new StrategyProblems.Problem(place,
                    "window \"" + window.name() + "\" meets no session of " + contract.symbol()));
        } else if (window.end() == SessionWindow.End.FLATTEN && window.lead() >= longest) {
            doubts.add(new StrategyProblems.Problem(place,
                    "window \"" + window.name() + "\" lets nothing enter: its lead of "
                            + window.lead() / TapeTime.SECOND + " s is as long as the window"));
        }
    }

    private static int legs(ExitTerms terms) {
        return terms.targets().stream().mapToInt(ExitTerms.Target::quantity).sum();
    }

    private void targets(Strategy strategy) {
        int legs = Math.max(legs(strategy.plan().longTerms()), legs(strategy.plan().shortTerms()));
        if (legs > strategy.maximumPosition()) {
            doubts.add(new StrategyProblems.Problem("exit.targets", "the targets sum to " + legs
                    + " contracts, more than the largest position of " + strategy.maximumPosition()));
        }
    }
}
