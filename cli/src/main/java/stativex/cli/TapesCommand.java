package stativex.cli;

import java.io.PrintWriter;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import stativex.files.tape.Finding;
import stativex.files.tape.Findings;
import stativex.files.tape.Joins;
import stativex.files.tape.TapeInfo;
import stativex.files.tape.TapeStore;
import stativex.market.Contract;
import stativex.market.Join;
import stativex.market.Tape;
import stativex.market.TapeTime;

/** The tape store: what is in it, what is known of a tape, joins, checks, removal. */
@Command(name = "tapes", mixinStandardHelpOptions = true, description = "Lists, inspects, joins, checks and removes stored tapes.")
final class TapesCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    TapesCommand() {}

    /** Without a further word: the list. */
    @Override
    public Integer call() {
        return list();
    }

    private StoredTapes tapes() {
        return new StoredTapes(spec);
    }

    private PrintWriter out() {
        return spec.commandLine().getOut();
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "Every tape and join.")
    int list() {
        TapeStore store = tapes().store();
        List<TapeStore.Entry> entries = store.list();
        for (TapeStore.Entry entry : entries) {
            out().println(entry.name() + ": " + entry.stored().map(TapesCommand::line)
                    .orElseGet(() -> "cannot be opened: " + entry.problem().orElse("")));
        }
        Joins joins = new Joins(store);
        joins.names().forEach(name -> out().println(name + ": join"));
        if (entries.isEmpty() && joins.names().isEmpty()) {
            out().println(
                    "No tape yet in " + store.folder() + ". Bring one in: ./stativex import FILE --contract FILE.json");
        }
        return 0;
    }

    private static String line(TapeStore.Stored stored) {
        Tape tape = stored.tape();
        ZoneId zone = stored.info().contract().value().calendar().zone();
        return stored.info().contract().value().symbol() + ", " + tape.count() + " prints, "
                + TapeTime.in(zone, stored.firstTime()).toLocalDate() + " to "
                + TapeTime.in(zone, stored.lastTime()).toLocalDate() + ", " + stored.bytes() / 1_000_000
                + " MB";
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "What is known of a tape, or the rolls of a join.")
    int show(@Parameters(paramLabel = "NAME") String name) {
        TapeStore store = tapes().store();
        if (new Joins(store).has(name)) {
            rolls(new Joins(store).open(name));
            return 0;
        }
        TapeStore.Stored stored = tapes().mending(() -> store.open(name));
        TapeInfo info = stored.info();
        Contract contract = info.contract().value();
        out().println(name + ": " + line(stored));
        out().println("contract: " + contract.symbol() + ", " + contract.name() + ", tick "
                + contract.tickSize().toPlainString());
        out().println("source: " + info.source() + ", imported " + info.closing().imported());
        info.layout().ifPresent(layout -> out().println("read as: " + layout.words()));
        out().printf(Locale.ROOT, "bytes a print: %.1f%n", (double) stored.bytes() / stored.tape().count());
        if (!info.closing().incomplete().isEmpty()) {
            out().println("incomplete: " + String.join(", ",
                    info.closing().incomplete().stream().sorted().map(Tape.SessionName::text).toList()));
        }
        for (Finding kind : Finding.values()) {
            Findings found = info.closing().findings();
            if (found.count(kind) > 0) {
                out().println(kind.words() + ": " + found.count(kind) + (kind.bad() ? ", left out" : ""));
                found.places(kind).forEach(place -> out().println("  line " + place.line() + ": " + place.words()));
            }
        }
        return 0;
    }

    private void rolls(Join join) {
        out().println(join.months().getFirst().name() + " first");
        for (Join.Roll roll : join.rolls()) {
            out().println(roll.date() + ": " + roll.from() + " to " + roll.to() + ", " + roll.adjustment()
                    .map(ticks -> "adjustment " + ticks + " ticks (" + join.contract().text(ticks) + ")")
                    .orElse("no adjustment known"));
        }
    }

    @Command(name = "check", mixinStandardHelpOptions = true, description = "Reads every print of a tape; a damaged one is made again from its source.")
    int check(@Parameters(paramLabel = "NAME") String name) {
        out().println(tapes().mend(name) ? name + " was damaged and is whole again" : name + " is whole");
        return 0;
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Takes a tape or join out of the store; the file it came from stays.")
    int remove(@Parameters(paramLabel = "NAME") String name) {
        TapeStore store = tapes().store();
        if (new Joins(store).has(name)) {
            new Joins(store).remove(name);
        } else {
            store.remove(name);
        }
        out().println(name + " is removed");
        return 0;
    }

    /** How roll days are found. */
    static final class Rolls {
        @Option(names = "--on", paramLabel = "DATE", split = ",", description = "trading dates from which each next month is in force")
        private List<String> dates;

        @Option(names = "--by-volume", description = "the day after the newer month was first traded more than the older one")
        private boolean byVolume;

        @Option(names = "--before-expiry", paramLabel = "DAYS", description = "that many trading days before the older month's last trading day")
        private Integer days;
    }

    @Command(name = "join", mixinStandardHelpOptions = true, description = "Joins stored tapes of contract months into one series.")
    int join(@Parameters(paramLabel = "NAME", description = "what to call the join") String name,
            @Option(names = "--months", paramLabel = "NAME", split = ",", required = true, description = "the months' tapes, oldest first") List<String> months,
            @ArgGroup(multiplicity = "1") Rolls rolls) {
        Joins joins = new Joins(tapes().store());
        List<Join.Month> read = joins.months(months);
        List<LocalDate> dates = new ArrayList<>();
        if (rolls.dates != null) {
            for (String date : rolls.dates) {
                try {
                    dates.add(TapeTime.date(date));
                } catch (java.time.DateTimeException e) {
                    throw new ParameterException(spec.commandLine(),
                            "--on: expected dates such as 2026-09-14, found " + date, e);
                }
            }
        } else {
            for (int i = 1; i < read.size(); i++) {
                dates.add(rolls.byVolume
                        ? Join.byVolume(read.get(i - 1), read.get(i))
                        : Join.beforeExpiry(read.get(i - 1), rolls.days));
            }
        }
        rolls(joins.keep(name, months, dates));
        return 0;
    }
}
