package stativex.cli;

import java.io.PrintWriter;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;
import stativex.account.Account;
import stativex.account.LineKind;
import stativex.evidence.DayPath;
import stativex.evidence.FreeTrial;
import stativex.evidence.Odds;
import stativex.evidence.Paths;
import stativex.files.BadInput;
import stativex.files.OddsWords;
import stativex.trial.Inputs;

/** The chance of an account to reach its target before it is broken. */
@Command(name = "odds", mixinStandardHelpOptions = true, sortOptions = false, description = "Draws the days of a trial again and again and says how often the account would have met its rulebook's target before it was broken. One trial for each size.")
final class OddsCommand implements Callable<Integer> {
    @Mixin
    private FreeFiles files;

    @Option(names = "--sizes", paramLabel = "N,N", split = ",", defaultValue = "1", description = "times the strategies' contracts, a row each (${DEFAULT-VALUE})")
    private List<Integer> sizes;

    @Option(names = "--accounts", paramLabel = "N", defaultValue = "10000", description = "accounts that are drawn (${DEFAULT-VALUE})")
    private int accounts;

    @Option(names = "--days", paramLabel = "N", defaultValue = "60", description = "most days of an account (${DEFAULT-VALUE})")
    private int days;

    @Option(names = "--block", paramLabel = "DAYS", defaultValue = "5", description = "days that follow one another on average (${DEFAULT-VALUE})")
    private double block;

    @Option(names = "--resamples", paramLabel = "N", defaultValue = "200", description = "times the trial's days themselves are drawn, with 500 accounts each, for the interval (${DEFAULT-VALUE})")
    private int resamples;

    @Option(names = "--seed", paramLabel = "N", defaultValue = "1", description = "of the drawing (${DEFAULT-VALUE})")
    private long seed;

    @Spec
    private CommandSpec spec;

    OddsCommand() {}

    @Override
    public Integer call() {
        Odds.Settings settings;
        try {
            settings = new Odds.Settings(accounts, days, block, seed, resamples, 500);
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), e.getMessage(), e);
        }
        if (sizes.stream().anyMatch(size -> size < 1 || size > 1000)) {
            throw new ParameterException(spec.commandLine(), "--sizes: expected numbers from 1 to 1000");
        }
        return new StoredTapes(spec).mending(() -> drawn(settings));
    }

    private int drawn(Odds.Settings settings) {
        Inputs inputs = files.inputs();
        Account account = files.judged(inputs);
        PrintWriter out = spec.commandLine().getOut();
        out.println("size,passed,passed_5,passed_95,drawing_low,drawing_high,floor,day_loss,no_room,open,"
                + "median_days_to_pass,median_days_to_break");
        for (int size : sizes) {
            Odds odds = odds(inputs, account, size, settings);
            out.println(String.join(",", List.of(Integer.toString(size), share(odds.passed().share()),
                    odds.honest().map(h -> share(h.low())).orElse(""),
                    odds.honest().map(h -> share(h.high())).orElse(""), share(odds.passed().low()),
                    share(odds.passed().high()), of(odds, LineKind.DRAWDOWN_FLOOR), of(odds, LineKind.BOOK_DAY_LOSS),
                    share((double) odds.noRoom() / odds.accounts()), share((double) odds.open() / odds.accounts()),
                    days(odds.daysToPass()), days(odds.daysToBreak()))));
        }
        spec.commandLine().getErr().println("stativex: note: from days that are " + files.seal(inputs));
        OddsWords.notWorked(account).ifPresent(
                said -> spec.commandLine().getErr().println("stativex: note: " + said));
        return 0;
    }

    private static Odds odds(Inputs inputs, Account account, int size, Odds.Settings settings) {
        try {
            List<DayPath> paths = Paths.of(FreeTrial.run(inputs, size), account);
            return Odds.of(account, paths, settings, Odds.Progress.NONE).orElseThrow();
        } catch (IllegalArgumentException e) {
            throw new BadInput(e.getMessage(), e);
        }
    }

    private static String of(Odds odds, LineKind line) {
        return share((double) odds.broken().getOrDefault(line, 0) / odds.accounts());
    }

    private static String share(double share) {
        return String.format(Locale.ROOT, "%.4f", share);
    }

    private static String days(OptionalInt days) {
        return days.isPresent() ? Integer.toString(days.getAsInt()) : "";
    }
}
