package stativex.files;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Writes files that belong together to a folder, all or none. They are first written to a folder beside their place and forced to disk.
 * Where there is no folder yet, that one is moved to its place; else it is moved into the folder as a whole, then the earlier files are
 * taken away and the new ones put in their places. Whoever is killed while doing so leaves a whole set, which the next one puts in place;
 * what a killed one left half written is swept.
 */
public final class WholeFolder {
    private static final String READY = ".stativex-ready";
    private static final Pattern PART = Pattern.compile("\\..*\\.([0-9]+)\\.stativex-part");

    private WholeFolder() {}

    /**
     * Writes text files, UTF-8.
     *
     * @throws BadInput when the place cannot be written, or is no folder
     */
    public static void write(Path folder, Map<String, WholeFile.Content> files) {
        try {
            Path place = place(folder);
            Files.createDirectories(place.getParent());
            sweep(place.getParent());
            boolean into = Files.exists(place);
            if (into) {
                sweep(place);
                finish(place, files.keySet());
            }
            Path part = (into ? place : place.getParent())
                    .resolve("." + place.getFileName() + "." + ProcessHandle.current().pid() + ".stativex-part");
            try {
                Files.createDirectory(part);
                for (Map.Entry<String, WholeFile.Content> file : files.entrySet()) {
                    WholeFile.write(part.resolve(file.getKey()), file.getValue(), StandardCharsets.UTF_8);
                }
                if (into) {
                    Files.move(part, place.resolve(READY), StandardCopyOption.ATOMIC_MOVE);
                    finish(place, files.keySet());
                } else {
                    Files.move(part, place, StandardCopyOption.ATOMIC_MOVE);
                }
            } catch (BadInput e) {
                // what failed was written to a place that nobody knows
                throw new BadInput(folder + ": cannot be written: " + Causes.of(e.getCause()), e);
            } finally {
                remove(part);
            }
        } catch (IOException | UncheckedIOException e) {
            throw new BadInput(folder + ": cannot be written: " + Causes.of(e), e);
        }
    }

    private static Path place(Path folder) throws IOException {
        Path place = folder.toAbsolutePath().normalize();
        if (Files.exists(place)) {
            if (!Files.isDirectory(place)) {
                throw new BadInput(folder + ": expected a folder, found a file, pipe or device");
            }
            place = place.toRealPath();
        }
        if (place.getFileName() == null) {
            throw new BadInput(folder + ": expected a folder for the results alone, found the root of all files");
        }
        return place;
    }

    /** Puts a whole set that lies ready inside the folder in place. */
    private static void finish(Path folder, Set<String> names) throws IOException {
        Path ready = folder.resolve(READY);
        if (!Files.isDirectory(ready)) {
            return;
        }
        for (String name : names) {
            Path file = ready.resolve(name);
            if (Files.exists(file)) {
                Plain.checkPlace(folder.resolve(name));
                Files.deleteIfExists(folder.resolve(name));
            }
        }
        for (String name : names) {
            Path file = ready.resolve(name);
            if (Files.exists(file)) {
                Files.move(file, folder.resolve(name), StandardCopyOption.ATOMIC_MOVE);
            }
        }
        remove(ready);
    }

    /** Takes away what copies that live no more left half written. */
    private static void sweep(Path folder) throws IOException {
        List<Path> dead = new ArrayList<>();
        try (DirectoryStream<Path> inside = Files.newDirectoryStream(folder, ".*.stativex-part")) {
            for (Path part : inside) {
                Matcher name = PART.matcher(part.getFileName().toString());
                if (name.matches() && (name.group(1).length() > 10
                        || ProcessHandle.of(Long.parseLong(name.group(1))).filter(ProcessHandle::isAlive).isEmpty())) {
                    dead.add(part);
                }
            }
        }
        for (Path part : dead) {
            remove(part);
        }
    }

    private static void remove(Path folder) throws IOException {
        if (Files.isDirectory(folder)) {
            try (Stream<Path> inside = Files.list(folder)) {
                for (Path file : inside.toList()) {
                    Files.deleteIfExists(file);
                }
            }
            Files.deleteIfExists(folder);
        }
    }
}
