package stativex.files;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import stativex.market.BarSettings;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Looks of charts: kept under names for any contract, and the last one of each contract, which comes back by itself. A file each,
 * written whole or not at all.
 */
public final class ChartLooks {
    private static final String ENDING = ".look.json";
    private static final int LONGEST_NAME = 60;

    private final Path folder;

    ChartLooks(Path folder) {
        this.folder = folder;
    }

    /** The person's own, in the data folder. */
    public static ChartLooks own() {
        return new ChartLooks(DataFolder.path().resolve("looks"));
    }

    /** Those with names, by name; a file that does not read is left alone. @throws BadInput when the folder cannot be read */
    public Map<String, ChartSetup> named() {
        Map<String, ChartSetup> named = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
        if (Files.isDirectory(folder)) {
            try (Stream<Path> files = Files.list(folder)) {
                for (Path file : files.filter(f -> f.getFileName().toString().endsWith(ENDING)).toList()) {
                    read(file).ifPresent(look -> named.put(look.name(), look.setup()));
                }
            } catch (IOException e) {
                throw new BadInput(folder + ": cannot be read: " + Causes.of(e), e);
            }
        }
        return named;
    }

    /**
     * Keeps a look; one of its name gives way.
     *
     * @throws IllegalArgumentException when the name is none
     * @throws BadInput when it cannot be written
     */
    public void keep(String name, ChartSetup setup) {
        if (name.isBlank() || name.length() > LONGEST_NAME) {
            throw new IllegalArgumentException(
                    "expected a name of 1 to " + LONGEST_NAME + " characters, found "
                            + (name.isBlank() ? "none" : name.length()));
        }
        write(file(name), name, setup);
    }

    /** Takes a look away. @throws BadInput when it cannot be */
    public void remove(String name) {
        try {
            Files.deleteIfExists(file(name));
        } catch (IOException e) {
            throw new BadInput(file(name) + ": cannot be taken away: " + Causes.of(e), e);
        }
    }

    /** How a contract's chart last looked; empty when it has not been looked at, or that does not read. */
    public Optional<ChartSetup> last(String symbol) {
        return read(lastFile(symbol)).map(Look::setup);
    }

    /** Keeps how a contract's chart looks. @throws BadInput when it cannot be written */
    public void keepLast(String symbol, ChartSetup setup) {
        write(lastFile(symbol), symbol, setup);
    }

    private Path file(String name) {
        return folder.resolve(DocumentFolder.plain(name) + ENDING);
    }

    private Path lastFile(String symbol) {
        return folder.resolve("last").resolve(DocumentFolder.plain(symbol) + ENDING);
    }

    private record Look(String name, ChartSetup setup) {}

    private static Optional<Look> read(Path file) {
        if (!Files.exists(file)) {
            return Optional.empty();
        }
        try {
            Field root = Field.root(file.toString(), Json.read(file));
            return Optional.of(new Look(root.at("name").text(), new ChartSetup(StrategyReader.bars(root.at("chart")),
                    flag(root, "heikinAshi"), root.items("studies").stream().map(StrategyReader::study).toList(),
                    new ChartSetup.Drawn(flag(root, "flow"), flag(root, "ticks"), flag(root, "delta"),
                            flag(root, "panels"), root.maybe("zone").map(Field::text).map(ZoneId::of)))));
        } catch (BadInput | IllegalArgumentException | DateTimeException e) {
            return Optional.empty();
        }
    }

    private static boolean flag(Field root, String name) {
        return root.maybe(name).map(Field::flag).orElse(false);
    }

    private static void write(Path file, String name, ChartSetup setup) {
        ObjectNode root = Json.MAPPER.createObjectNode();
        root.put("document", "chart look").put("version", 1).put("name", name);
        bars(root.putObject("chart"), setup.bars());
        ChartSetup.Drawn drawn = setup.drawn();
        root.put("heikinAshi", setup.heikinAshi()).put("flow", drawn.flow()).put("ticks", drawn.ticks())
                .put("delta", drawn.delta()).put("panels", drawn.panels());
        drawn.zone().ifPresent(zone -> root.put("zone", zone.getId()));
        var studies = root.putArray("studies");
        setup.studies().forEach(study -> StrategyDraft.put(studies.addObject(), study));
        JsonNode whole = root;
        WholeFile.writeOwn(file, out -> out.write(Json.pretty(whole)));
    }

    private static void bars(ObjectNode of, BarSettings bars) {
        StrategyDraft.put(of, bars.type());
        of.put("restart", bars.restart().name().toLowerCase(Locale.ROOT));
        bars.anchor().ifPresent(anchor -> of.put("anchor", anchor.toString()));
        if (!bars.sessions().isEmpty()) {
            var sessions = of.putArray("sessions");
            bars.sessions().stream().sorted().forEach(sessions::add);
        }
    }
}
