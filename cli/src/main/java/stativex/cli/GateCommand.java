package stativex.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import stativex.demo.Demo;
import stativex.engine.Strategy;
import stativex.evidence.ForwardGate;
import stativex.evidence.Intervals;
import stativex.files.BadInput;
import stativex.files.ForwardDays;
import stativex.files.SessionFile;
import stativex.files.TrialFolder;
import stativex.market.Money;
import stativex.trial.Run;

/** Judges the days on which a version was engaged by what its trial promised. */
@Command(name = "gate", mixinStandardHelpOptions = true, sortOptions = false, description = "Holds the whole days on which a version was engaged against its trial, at the close of days 10, 20, 30, 60 and 90: pass, fail, or not yet. Recorded replays are a rehearsal: only days live on a simulated account count.")
final class GateCommand implements Callable<Integer> {
    @Option(names = "--trial", paramLabel = "FILE", required = true, description = "the kept trial (trial.session or its folder) that the band is drawn from: of the unseen range if that was opened")
    private Path trial;

    @Option(names = "--session", paramLabel = "FILE", required = true, description = "a recorded session with the same version; several may be given")
    private List<Path> sessions;

    @Option(names = "--resamples", paramLabel = "N", defaultValue = "2000", description = "drawings of the trial's days (${DEFAULT-VALUE})")
    private int resamples;

    @Option(names = "--seed", paramLabel = "N", defaultValue = "1", description = "of the drawings (${DEFAULT-VALUE})")
    private long seed;

    @Spec
    private CommandSpec spec;

    GateCommand() {}

    @Override
    public Integer call() {
        return new StoredTapes(spec).mending(this::judged);
    }

    private int judged() {
        TrialFolder.Repeated kept = TrialFolder.again(trial, Demo::tape, Seals::check);
        List<Strategy> strategies = kept.run().inputs().strategies();
        if (strategies.size() != 1) {
            throw new BadInput(trial + ": expected a trial of one strategy, found " + strategies.size());
        }
        Strategy strategy = strategies.getFirst();
        TreeMap<LocalDate, ForwardGate.Day> days = new TreeMap<>();
        List<LocalDate> left = new ArrayList<>();
        for (Path file : sessions) {
            SessionFile.Session session = SessionFile.read(file, Demo::tape);
            ForwardDays.Found found = of(file, session, strategy.version());
            for (ForwardGate.Day day : found.days()) {
                if (days.putIfAbsent(day.date(), day) != null) {
                    throw new BadInput(file + ": expected each day once, found " + day.date() + " again");
                }
            }
            left.addAll(found.left());
        }
        print(strategy, kept.run(), ForwardGate.judge(ForwardGate.days(kept.run()), List.copyOf(days.values()),
                new Intervals.Settings(resamples, Intervals.Settings.DEFAULT.meanBlock(), seed)), left);
        return 0;
    }

    private static ForwardDays.Found of(Path file, SessionFile.Session session, String version) {
        try {
            return ForwardDays.of(session, version);
        } catch (BadInput e) {
            throw new BadInput(file + ": " + e.getMessage(), e);
        }
    }

    private void print(Strategy strategy, Run trial, ForwardGate.Standing standing, List<LocalDate> left) {
        PrintWriter out = spec.commandLine().getOut();
        List<stativex.engine.DayBook.Day> of = trial.engine().days().days();
        out.println(strategy.name() + " " + strategy.version() + " against its trial of "
                + (of.isEmpty() ? "no day" : of.getFirst().date() + " to " + of.getLast().date()));
        out.println("day,date,trades,net,net_at_1,net_at_5,verdict");
        for (ForwardGate.Judgement one : standing.judgements()) {
            out.println(String.join(",", List.of(Integer.toString(one.day()), one.date().toString(),
                    Integer.toString(one.trades()), Money.text(one.net()),
                    one.band().map(band -> Money.text(band.fail())).orElse(""),
                    one.band().map(band -> Money.text(band.pass())).orElse(""), word(one.verdict()))));
        }
        String next = standing.next().isPresent()
                ? ", judged next at the close of day " + standing.next().getAsLong()
                : "";
        out.println(word(standing.verdict()) + " after " + standing.days() + " days" + next
                + (standing.worthless().isPresent()
                        ? String.format(Locale.ROOT, "; a worthless version would have passed %.1f %% of the time",
                                100 * standing.worthless().getAsDouble())
                        : ""));
        if (!left.isEmpty()) {
            out.println("not counted, since it was not engaged for the whole day: "
                    + String.join(", ", left.stream().map(LocalDate::toString).toList()));
        }
        out.println("These days are replays: a rehearsal. Only days live on a simulated account count.");
    }

    private static String word(ForwardGate.Verdict verdict) {
        return switch (verdict) {
            case PASS -> "pass";
            case FAIL -> "fail";
            case NOT_YET -> "not yet";
        };
    }
}
