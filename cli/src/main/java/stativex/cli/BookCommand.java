package stativex.cli;

import java.io.PrintWriter;
import java.util.List;
import java.util.Locale;
import java.util.OptionalLong;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;
import stativex.account.Account;
import stativex.evidence.BookReading;
import stativex.evidence.FreeTrial;
import stativex.evidence.InterlockPrice;
import stativex.files.BadInput;
import stativex.files.ResultWords;
import stativex.files.RuleWords;
import stativex.market.Money;
import stativex.market.TapeTime;
import stativex.trial.Inputs;
import stativex.trial.PastTrades;
import stativex.trial.Run;

/** What a rulebook would have said of every day of a trial. */
@Command(name = "book", mixinStandardHelpOptions = true, sortOptions = false, description = "Runs a trial without the account's limits and says, day by day, what its lines and its rulebook would have said. A day ends where a line is reached.")
final class BookCommand implements Callable<Integer> {
    @Mixin
    private FreeFiles files;

    @Option(names = "--interlocks", description = "instead: what each interlock of a trial with the account's limits saved or cost, its declined signals followed as would-be trades")
    private boolean interlocks;

    @Spec
    private CommandSpec spec;

    BookCommand() {}

    @Override
    public Integer call() {
        return new StoredTapes(spec).mending(interlocks ? this::prices : this::read);
    }

    private int prices() {
        Inputs given = files.inputs();
        Inputs inputs = new Inputs(given.tape(), given.contract(), given.others(), files.judged(given),
                given.strategies(), given.terms(), given.days(), given.heartbeats(), given.rolls());
        PrintWriter out = spec.commandLine().getOut();
        out.println("reason,declined,would_be_trades,saved");
        PastTrades past = new PastTrades(inputs.tape(), inputs.contract(), inputs.account(), inputs.terms());
        InterlockPrice.of(Run.trial(inputs), past, () -> false).orElseThrow()
                .forEach(price -> out.println(String.join(",", List.of(ResultWords.of(price.reason()),
                        Integer.toString(price.declined()), Integer.toString(price.trades()),
                        Money.text(price.saved())))));
        return 0;
    }

    private int read() {
        Inputs inputs = files.inputs();
        Account account = files.judged(inputs);
        BookReading reading = reading(inputs, account);
        PrintWriter out = spec.commandLine().getOut();
        out.println("date,balance,result,high,low,floor,floor_after,end,line,guard,at,target,payout");
        reading.days().forEach(day -> out.println(String.join(",", List.of(day.date().toString(),
                Money.text(day.balance()), Money.text(day.result()), Money.text(day.high()), Money.text(day.low()),
                money(day.floor()), money(day.floorAfter()), RuleWords.of(day),
                day.line().map(ResultWords::of).orElse("").toLowerCase(Locale.ROOT), day.guarded() ? "guard" : "",
                day.at().isPresent() ? TapeTime.instant(day.at().getAsLong()).toString() : "",
                day.passed() ? "met" : "", day.payout() > 0 ? Money.text(day.payout()) : ""))));
        PrintWriter notes = spec.commandLine().getErr();
        notes.println("stativex: note: " + account.rulebook().name() + " over " + reading.days().size() + " days: "
                + (reading.daysToTarget().isPresent()
                        ? "target met on day " + reading.daysToTarget().getAsInt()
                        : "target not met")
                + reading.over().map(day -> ", over on " + day.date() + " (" + RuleWords.of(day) + ")").orElse(""));
        reading.rules().forEach(rule -> notes.println("stativex: note: " + RuleWords.name(rule.rule()) + ": "
                + RuleWords.said(rule.rule()) + ": " + RuleWords.of(rule.state()) + ", " + RuleWords.stands(rule)));
        return 0;
    }

    private static BookReading reading(Inputs inputs, Account account) {
        try {
            return BookReading.of(FreeTrial.run(inputs, 1), account);
        } catch (IllegalArgumentException e) {
            throw new BadInput(e.getMessage(), e);
        }
    }

    private static String money(OptionalLong amount) {
        return amount.isPresent() ? Money.text(amount.getAsLong()) : "";
    }
}
