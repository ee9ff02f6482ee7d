package stativex.cli;

import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Option;
import stativex.account.Account;
import stativex.account.Rulebook;
import stativex.demo.Demo;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.SessionFile;
import stativex.market.Contract;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.trial.Inputs;

/** Files of a trial that is judged afterwards: its account's limits and rulebook are off while it runs. */
final class FreeFiles {
    @Option(names = "--tape", paramLabel = "FILE|NAME", required = true, description = "ticks: a CSV or Parquet file, the name of a stored tape, or the word demo")
    private String tape;

    @Option(names = "--contract", paramLabel = "FILE.json", required = true, description = "contract document")
    private Path contract;

    @Option(names = "--strategy", paramLabel = "FILE.json", required = true, description = "strategy document; several may be given")
    private List<Path> strategies;

    @Option(names = "--account", paramLabel = "FILE.json", required = true, description = "account document: its fees, limits and rulebook")
    private Path account;

    @Option(names = "--rulebook", paramLabel = "FILE.json", description = "a rulebook document in place of the account's own")
    private Path rulebook;

    @Option(names = "--realism", paramLabel = "through|queue|touch", defaultValue = "through", description = "when resting limits fill (${DEFAULT-VALUE})")
    private String realism;

    @Option(names = "--from", paramLabel = "DATE", description = "first trading day; as early as the tape allows if left out")
    private LocalDate from;

    @Option(names = "--to", paramLabel = "DATE", description = "last trading day; to the tape's end if left out")
    private LocalDate to;

    @ArgGroup(exclusive = false, multiplicity = "0..*")
    private List<TrialCommand.Further> further = new ArrayList<>();

    /** What is to be run. */
    Inputs inputs() {
        Realism fills = realism(realism);
        Documents.Read<Contract> of = Documents.contract(contract);
        SessionFile.Set documents = new SessionFile.Set(of, Documents.account(account),
                strategies.stream().map(Documents::strategy).toList(), TrialCommand.Further.open(further));
        TrialCommand.complete(documents);
        return documents
                .inputs(Demo.open(tape, Optional.of(of.value()), false).tape(), new Terms(fills, 0, 0))
                .over(Seals.fit(tape, documents, TrialCommand.days(from, to, of.value())));
    }

    /** @throws BadInput when there is none of that name */
    static Realism realism(String named) {
        return Arrays.stream(Realism.values()).filter(word -> word.word().equals(named)).findFirst()
                .orElseThrow(() -> new BadInput("--realism: expected through, queue or touch, found " + named));
    }

    /** What is said of unseen dates. */
    String seal(Inputs inputs) {
        return Seals.words(tape, inputs.contract());
    }

    /** The account that is judged. */
    Account judged(Inputs inputs) {
        if (rulebook == null) {
            return inputs.account();
        }
        Rulebook book = Documents.rulebook(rulebook);
        try {
            return inputs.account().with(book);
        } catch (IllegalArgumentException e) {
            throw new BadInput(rulebook + ": " + e.getMessage(), e);
        }
    }
}
