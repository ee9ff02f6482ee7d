package stativex.files;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import stativex.engine.SignalPlan;
import stativex.engine.Strategy;
import stativex.engine.StrategyProblems;
import stativex.market.Contract;
import tools.jackson.databind.JsonNode;

/** Says whether a strategy document is complete, or everything that is missing or wrong in it, with places. */
public final class StrategyCheck {
    private StrategyCheck() {}

    /**
     * @param contract the contract it trades, which prices in rules and distances in its plan are measured by
     * @param others further contracts that its series may name
     * @return one line for each thing; none: it is complete
     * @throws BadInput when the file cannot be read as JSON at all
     */
    public static List<String> problems(Path file, Contract contract, List<Contract> others) {
        return found(Json.read(file), file.toString(), name -> Documents.beside(file, name), contract,
                others).stream()
                .map(problem -> problem.place().isEmpty()
                        ? Causes.brief(problem.what())
                        : BadInput.at(file.toString(), "$." + problem.place(), problem.what()).getMessage())
                .toList();
    }

    /** The same of a document; a problem that names no place says file and place itself. */
    static List<StrategyProblems.Problem> found(JsonNode document, String file, Function<String, JsonNode> named,
            Contract contract, List<Contract> others) {
        List<StrategyProblems.Problem> problems = new ArrayList<>();
        Schemas.problems(Schemas.Kind.STRATEGY, document, file).forEach(e -> problems.add(said(e)));
        if (!problems.isEmpty()) {
            return problems;
        }
        Field root = Field.root(file, document);
        if (!root.at("contract").text().equals(contract.symbol())) {
            problems.add(new StrategyProblems.Problem("contract", "the strategy trades " + root.at("contract").text()
                    + ", the contract given is " + contract.symbol(), -1, -1));
        }
        Optional<SignalPlan> plan = read(problems, () -> StrategyReader.signals(root));
        Optional<Strategy.Entry> entry = read(problems, () -> StrategyReader.entry(root.at("entry")));
        Optional<Optional<Strategy.SideRule>> longSide = read(problems,
                () -> root.maybe("long").map(StrategyReader::side));
        Optional<Optional<Strategy.SideRule>> shortSide = read(problems,
                () -> root.maybe("short").map(StrategyReader::side));
        if (plan.isPresent() && longSide.isPresent() && shortSide.isPresent() && entry.isPresent()) {
            problems.addAll(StrategyProblems.of(plan.get(), longSide.get(), shortSide.get(),
                    entry.get(), contract, others));
        }
        if (!document.has("exit") && !document.has("exitFile")) {
            problems.add(new StrategyProblems.Problem("exit", "no exit plan chosen", -1, -1));
        } else if (problems.isEmpty()) {
            // what only the whole can be wrong about
            read(problems, () -> {
                Strategy strategy = Documents.strategy(document, file, named).value();
                strategy.plan().check(contract);
                return strategy;
            }).ifPresent(strategy -> problems.addAll(StrategyProblems.ofPlan(strategy, contract, others)));
        }
        return problems;
    }

    private static StrategyProblems.Problem said(RuntimeException e) {
        return new StrategyProblems.Problem("", e.getMessage(), -1, -1);
    }

    private static <T> Optional<T> read(List<StrategyProblems.Problem> problems, Supplier<T> reader) {
        try {
            return Optional.of(reader.get());
        } catch (BadInput | IllegalArgumentException e) {
            problems.add(said(e));
            return Optional.empty();
        }
    }
}
