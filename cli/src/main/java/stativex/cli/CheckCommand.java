package stativex.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import stativex.demo.Demo;
import stativex.engine.Strategy;
import stativex.engine.StrategyDoubts;
import stativex.files.Documents;
import stativex.files.StrategyCheck;
import stativex.market.Contract;

/** Says whether a strategy is complete, or what is missing or wrong. */
@Command(name = "check", mixinStandardHelpOptions = true, sortOptions = false, description = "Says whether a strategy document is complete, or everything that is missing or wrong in it, with places. Exit code 0 if it is complete.")
final class CheckCommand implements Callable<Integer> {
    @Option(names = "--strategy", paramLabel = "FILE.json", required = true, description = "strategy document")
    private Path strategy;

    @Option(names = "--contract", paramLabel = "FILE.json", description = "contract it trades; the demo's TDL if left out")
    private Path contract;

    @Option(names = "--further-contract", paramLabel = "FILE.json", description = "contract that its series look at beside its own; several may be given")
    private List<Path> furtherContracts = new ArrayList<>();

    @Spec
    private CommandSpec spec;

    CheckCommand() {}

    @Override
    public Integer call() {
        Contract of = Optional.ofNullable(contract).map(file -> Documents.contract(file).value())
                .orElseGet(() -> Demo.documents().contract().value());
        List<Contract> others = new ArrayList<>(
                furtherContracts.stream().map(file -> Documents.contract(file).value()).toList());
        Main.eachOnce("--further-contract", others.stream().map(Contract::symbol).toList());
        if (contract == null && others.isEmpty()) {
            others.add(Demo.further().contract().value());
        }
        List<String> problems = StrategyCheck.problems(strategy, of, others);
        PrintWriter out = spec.commandLine().getOut();
        if (problems.isEmpty()) {
            Strategy complete = Documents.strategy(strategy).value();
            StrategyDoubts.of(complete, of, others)
                    .forEach(doubt -> out.println(strategy + ", $." + doubt.place() + ": note: " + doubt.what()));
            out.println(strategy + ": complete");
            return 0;
        }
        problems.forEach(out::println);
        out.println(strategy + ": not complete, " + problems.size()
                + (problems.size() == 1 ? " thing is" : " things are") + " missing or wrong");
        return 1;
    }
}
