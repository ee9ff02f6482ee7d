package stativex.files;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/** The person's strategies, a document each, written as they are worked on. */
public final class StrategyFolder {
    private static final String ENDING = ".strategy.json";

    private final Path folder;

    public StrategyFolder(Path folder) {
        this.folder = folder;
    }

    /** The one among the person's data. */
    public static StrategyFolder own() {
        return new StrategyFolder(DataFolder.path().resolve("strategies"));
    }

    /**
     * What was found.
     *
     * @param unreadable files that are no strategy documents, each with what is wrong
     */
    public record Found(List<StrategyDraft> strategies, List<String> unreadable) {}

    /** Every strategy, by name of its file. @throws BadInput when the folder cannot be read */
    public Found list() {
        List<StrategyDraft> strategies = new ArrayList<>();
        List<String> unreadable = new ArrayList<>();
        if (Files.isDirectory(folder)) {
            try (Stream<Path> files = Files.list(folder)) {
                for (Path file : files.filter(f -> f.getFileName().toString().endsWith(ENDING)).sorted().toList()) {
                    try {
                        strategies.add(draft(file));
                    } catch (BadInput e) {
                        unreadable.add(e.getMessage());
                    }
                }
            } catch (IOException e) {
                throw new BadInput(folder + ": cannot be read: " + Causes.of(e), e);
            }
        }
        return new Found(List.copyOf(strategies), List.copyOf(unreadable));
    }

    private static StrategyDraft draft(Path file) {
        var document = Json.read(file);
        if (!document.path("document").asString("").equals("strategy")) {
            throw BadInput.at(file.toString(), "$.document", "expected \"strategy\"");
        }
        return StrategyDraft.of(document);
    }

    private Path file(String name) {
        String plain = name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
        // names that differ only in signs must not share a file
        String sign = plain.equals(name.toLowerCase(Locale.ROOT).replace(' ', '-'))
                ? ""
                : "-" + Integer.toHexString(name.hashCode());
        return folder.resolve((plain.isEmpty() ? "strategy" : plain) + sign + ENDING);
    }

    /** Writes a strategy, in one piece or not at all. @throws BadInput when it cannot be written */
    public void keep(StrategyDraft draft) {
        WholeFile.writeOwn(file(draft.name()), out -> out.write(draft.text()));
    }

    /** Keeps a strategy that is put to work as a version of its own, named by its fingerprint. */
    public void keepVersion(StrategyDraft draft, String version) {
        Path file = file(draft.name());
        String name = file.getFileName().toString();
        WholeFile.writeOwn(
                folder.resolve("versions").resolve(name.substring(0, name.length() - ENDING.length()) + "-" + version
                        + ENDING),
                out -> out.write(draft.text()));
    }

    /** Takes a strategy away; versions that were put to work stay. @throws BadInput when it cannot be */
    public void remove(String name) {
        try {
            Files.deleteIfExists(file(name));
        } catch (IOException e) {
            throw new BadInput(file(name) + ": cannot be taken away: " + Causes.of(e), e);
        }
    }
}
