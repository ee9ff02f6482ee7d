package stativex.files;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.evidence.Intervals;
import stativex.market.Money;
import stativex.trial.Inputs;
import stativex.trial.Run;
import tools.jackson.databind.JsonNode;

/**
 * Trials that were made, each in a folder of its number with everything that repeats it: the document of the trial (a session whose
 * strategies are engaged before the first print), its results and its report. A trial whose document has no end was cut off and does
 * not count.
 */
public final class TrialFolder {
    static final Pattern NUMBER = Pattern.compile("[0-9]{4,9}");
    static final String DOCUMENT = "trial.session";
    static final String SUMMARY = "summary.json";

    private final Path folder;

    /** @param folder may not exist yet */
    public TrialFolder(Path folder) {
        this.folder = folder;
    }

    /** That of the person's data folder. */
    public static TrialFolder own() {
        return new TrialFolder(DataFolder.path().resolve("trials"));
    }

    /**
     * A trial as the list shows it.
     *
     * @param strategy name of its first strategy, and how many others there are; {@code versions} of all their documents
     * @param from first trading day that was worked; empty without one
     * @param net money after fees
     */
    public record Kept(int number, Path folder, String strategy, List<String> versions, String contract,
            Optional<LocalDate> from, Optional<LocalDate> to, int trades, long net) {
        public Kept {
            versions = List.copyOf(versions);
        }

        /** What repeats it. */
        public Path document() {
            return folder.resolve(DOCUMENT);
        }
    }

    /** Whole trials, the newest first. */
    public List<Kept> list() {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try {
            return new TrialIndex(folder, TrialFolder::kept).list();
        } catch (IOException e) {
            throw new BadInput(folder + ": cannot be read: " + Causes.of(e), e);
        }
    }

    private static Optional<Kept> kept(Path one) {
        try {
            if (!ended(one.resolve(DOCUMENT))) {
                return Optional.empty();
            }
            JsonNode summary = Json.read(one.resolve(SUMMARY));
            JsonNode strategies = summary.path("strategies");
            String others = strategies.size() > 1 ? " and " + (strategies.size() - 1) + " more" : "";
            JsonNode days = summary.path("days");
            return Optional.of(new Kept(Integer.parseInt(one.getFileName().toString()), one,
                    strategies.path(0).path("name").asString("") + others,
                    strategies.valueStream().map(s -> s.path("version").asString("")).toList(),
                    summary.path("contract").asString(""), date(days, 0), date(days, days.size() - 1),
                    summary.path("trades").asInt(), Money.parse(summary.path("net").asString("0"))));
        } catch (BadInput | IllegalArgumentException e) {
            // what was left half written, or changed by hand, is no trial
            return Optional.empty();
        }
    }

    private static Optional<LocalDate> date(JsonNode days, int at) {
        return at < 0 || at >= days.size()
                ? Optional.empty()
                : Optional.of(LocalDate.parse(days.get(at).path("date").asString("")));
    }

    private static boolean ended(Path document) {
        if (!Files.exists(document)) {
            return false;
        }
        List<String> lines = InputJournal.read(document);
        return !lines.isEmpty() && lines.getLast().contains("\"end\"");
    }

    /**
     * Keeps a finished trial.
     *
     * @param tape how it is named
     * @param seal what its report says about unseen dates
     * @throws BadInput when the folder cannot be written
     */
    public Kept keep(Run run, SessionFile.Set documents, String tape, Intervals.Settings drawn, String seal) {
        Path one = fresh();
        ResultFiles.write(one, run, new ResultFiles.Extras(false, Optional.of(drawn), seal));
        Inputs inputs = run.inputs();
        try (SessionFile.Recorder recorder = new SessionFile.Recorder(one.resolve(DOCUMENT), tape, documents, inputs)) {
            for (int i = 0; i < inputs.strategies().size(); i++) {
                recorder.command(0, new Command.SetMode(i, Mode.ENGAGED));
            }
            recorder.end(run.length());
        }
        return kept(one).orElseThrow(() -> new BadInput(one + ": expected the trial just written"));
    }

    private Path fresh() {
        int highest = 0;
        if (Files.isDirectory(folder)) {
            try (Stream<Path> folders = Files.list(folder)) {
                highest = folders.map(one -> one.getFileName().toString()).filter(NUMBER.asMatchPredicate())
                        .mapToInt(Integer::parseInt).max().orElse(0);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        return folder.resolve(String.format("%04d", highest + 1));
    }

    /** What a repeated trial says. @param documents it was made with */
    public record Repeated(Run run, SessionFile.Set documents, List<String> differences) {
        public Repeated {
            differences = List.copyOf(differences);
        }

        /** Whether every file is the same, byte for byte. */
        public boolean same() {
            return differences.isEmpty();
        }
    }

    /**
     * Runs a kept trial again and holds it against what was kept beside its document.
     *
     * @param document {@code trial.session}, or the folder that holds it
     * @throws BadInput when it cannot be read, or its tape is another one
     */
    public static Repeated again(Path document, SessionFile.TapeSource tapes) {
        return again(document, tapes, session -> {
        });
    }

    /** The same. @param allowed looks at what was read before it is run, and throws where it may not be */
    public static Repeated again(Path document, SessionFile.TapeSource tapes, Consumer<SessionFile.Session> allowed) {
        Path file = Files.isDirectory(document) ? document.resolve(DOCUMENT) : document;
        SessionFile.Session session = SessionFile.read(file, tapes);
        allowed.accept(session);
        Run run = session.run();
        List<String> differences = new ArrayList<>();
        Path beside = file.toAbsolutePath().getParent();
        compare(beside.resolve("fills.csv"), ResultRows.fills(run), differences);
        compare(beside.resolve("trades.csv"), ResultRows.trades(run), differences);
        compare(beside.resolve("decisions.csv"), ResultRows.decisions(run), differences);
        compare(beside.resolve("days.csv"), ResultRows.days(run), differences);
        if (!differences.isEmpty() && !session.engine().equals(ResultFiles.engineVersion())) {
            differences.addFirst("it was made by engine " + session.engine() + ", this is "
                    + ResultFiles.engineVersion());
        }
        return new Repeated(run, session.documents(), differences);
    }

    private static void compare(Path file, List<List<String>> rows, List<String> differences) {
        try {
            List<String> kept = Files.readAllLines(file);
            List<String> now = ResultFiles.text(rows).lines().toList();
            for (int i = 0; i < Math.max(kept.size(), now.size()); i++) {
                String before = i < kept.size() ? kept.get(i) : "nothing";
                String after = i < now.size() ? now.get(i) : "nothing";
                if (!before.equals(after)) {
                    differences.add(file.getFileName() + ", line " + (i + 1) + ": was " + Causes.found(before)
                            + ", is " + Causes.found(after));
                    return;
                }
            }
        } catch (IOException e) {
            differences.add(file.getFileName() + ": cannot be read: " + Causes.of(e));
        }
    }
}
