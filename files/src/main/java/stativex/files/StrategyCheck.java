package stativex.files;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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
     * @return one line for each thing; none: it is complete
     * @throws BadInput when the file cannot be read as JSON at all
     */
    public static List<String> problems(Path file, Contract contract) {
        JsonNode document = Json.read(file);
        List<String> problems = new ArrayList<>(Schemas.problems(Schemas.Kind.STRATEGY, document, file.toString())
                .stream().map(BadInput::getMessage).toList());
        if (!problems.isEmpty()) {
            return problems;
        }
        Field root = Field.root(file.toString(), document);
        if (!root.at("contract").text().equals(contract.symbol())) {
            problems.add(root.at("contract").problem("the strategy trades " + root.at("contract").text()
                    + ", the contract given is " + contract.symbol()).getMessage());
        }
        Optional<SignalPlan> plan = read(problems, () -> StrategyReader.signals(root));
        Optional<Strategy.Entry> entry = read(problems, () -> StrategyReader.entry(root.at("entry")));
        Optional<Optional<Strategy.SideRule>> longSide = read(problems,
                () -> root.maybe("long").map(StrategyReader::side));
        Optional<Optional<Strategy.SideRule>> shortSide = read(problems,
                () -> root.maybe("short").map(StrategyReader::side));
        if (plan.isPresent() && longSide.isPresent() && shortSide.isPresent() && entry.isPresent()) {
            StrategyProblems.of(plan.get(), longSide.get(), shortSide.get(),
                    entry.get().type() != stativex.order.Order.Type.MARKET, contract)
                    .forEach(problem -> problems.add(BadInput.at(file.toString(), "$." + problem.place(),
                            problem.what()).getMessage()));
        }
        if (!document.has("exit") && !document.has("exitFile")) {
            problems.add(BadInput.at(file.toString(), "$", "no exit plan chosen").getMessage());
        } else if (problems.isEmpty()) {
            // what only the whole can be wrong about
            read(problems, () -> {
                Strategy strategy = Documents.strategy(file).value();
                strategy.plan().stop().ifPresent(stop -> stop.distance(contract));
                return strategy;
            });
        }
        return problems;
    }

    private static <T> Optional<T> read(List<String> problems, java.util.function.Supplier<T> reader) {
        try {
            return Optional.of(reader.get());
        } catch (BadInput | IllegalArgumentException e) {
            problems.add(e.getMessage());
            return Optional.empty();
        }
    }
}
