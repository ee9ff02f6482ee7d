package stativex.files;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;

/**
 * The person's documents of one kind, a file each, found by a name of their own such as a contract's symbol. Written whole or not at
 * all, readable by the person alone.
 */
public final class DocumentFolder<T> {
    private final Path folder;
    private final String ending;
    private final Function<Path, Documents.Read<T>> reader;
    private final Function<T, String> name;

    private DocumentFolder(Path folder, String ending, Function<Path, Documents.Read<T>> reader,
            Function<T, String> name) {
        this.folder = folder;
        this.ending = ending;
        this.reader = reader;
        this.name = name;
    }

    /** Contracts by symbol. */
    public static DocumentFolder<stativex.market.Contract> contracts(Path folder) {
        return new DocumentFolder<>(folder, ".contract.json", Documents::contract, stativex.market.Contract::symbol);
    }

    /** The person's own contracts, in the data folder. */
    public static DocumentFolder<stativex.market.Contract> contracts() {
        return contracts(DataFolder.path().resolve("contracts"));
    }

    /** Accounts by name, each with its rulebook inside. */
    public static DocumentFolder<stativex.account.Account> accounts(Path folder) {
        return new DocumentFolder<>(folder, ".account.json", Documents::account, stativex.account.Account::name);
    }

    /** The person's own accounts, in the data folder. */
    public static DocumentFolder<stativex.account.Account> accounts() {
        return accounts(DataFolder.path().resolve("accounts"));
    }

    /** Exit plans by name. */
    public static DocumentFolder<stativex.exit.ExitPlan> exitPlans(Path folder) {
        return new DocumentFolder<>(folder, ".exit-plan.json", Documents::exitPlan, stativex.exit.ExitPlan::name);
    }

    /** The person's own exit plans, in the data folder. */
    public static DocumentFolder<stativex.exit.ExitPlan> exitPlans() {
        return exitPlans(DataFolder.path().resolve("exit-plans"));
    }

    /** Rulebooks by name. */
    public static DocumentFolder<stativex.account.Rulebook> rulebooks(Path folder) {
        return new DocumentFolder<>(folder, ".rulebook.json", Documents::rulebookDocument,
                stativex.account.Rulebook::name);
    }

    /** The person's own rulebooks, in the data folder. */
    public static DocumentFolder<stativex.account.Rulebook> rulebooks() {
        return rulebooks(DataFolder.path().resolve("rulebooks"));
    }

    /** What was found. @param unreadable files that do not read, each with what is wrong */
    public record Found<T>(List<Documents.Read<T>> documents, List<String> unreadable) {}

    /** Every document, by name. @throws BadInput when the folder cannot be read */
    public Found<T> list() {
        List<Documents.Read<T>> documents = new ArrayList<>();
        List<String> unreadable = new ArrayList<>();
        if (Files.isDirectory(folder)) {
            try (Stream<Path> files = Files.list(folder)) {
                for (Path file : files.filter(f -> f.getFileName().toString().endsWith(ending)).sorted().toList()) {
                    try {
                        documents.add(reader.apply(file));
                    } catch (BadInput e) {
                        unreadable.add(e.getMessage());
                    }
                }
            } catch (IOException e) {
                throw new BadInput(folder + ": cannot be read: " + Causes.of(e), e);
            }
        }
        documents.sort((a, b) -> String.CASE_INSENSITIVE_ORDER.compare(name.apply(a.value()), name.apply(b.value())));
        return new Found<>(List.copyOf(documents), List.copyOf(unreadable));
    }

    /** The one of a name; empty if there is none that reads. */
    public Optional<Documents.Read<T>> find(String wanted) {
        return list().documents().stream().filter(one -> name.apply(one.value()).equals(wanted)).findFirst();
    }

    /** Keeps a document; one of its name gives way. @throws BadInput when it cannot be written */
    public void keep(Documents.Read<T> document) {
        JsonNode whole = document.document();
        WholeFile.writeOwn(file(name.apply(document.value())), out -> out.write(Json.pretty(whole)));
    }

    /**
     * Keeps a document; one of its name goes to the versions, under the name with a fingerprint.
     *
     * @param fingerprint of the one that gives way
     * @throws BadInput when it cannot be written
     */
    public void keepBesideOlder(Documents.Read<T> document, Function<T, String> fingerprint) {
        find(name.apply(document.value())).ifPresent(older -> WholeFile.writeOwn(
                folder.resolve("versions").resolve(plain(name.apply(older.value())) + "-"
                        + fingerprint.apply(older.value()) + ending),
                out -> out.write(Json.pretty(older.document()))));
        keep(document);
    }

    /** Documents of a name that gave way to newer ones. */
    public List<Documents.Read<T>> older(String of) {
        return new DocumentFolder<>(folder.resolve("versions"), ending, reader, name).list().documents().stream()
                .filter(one -> name.apply(one.value()).equals(of)).toList();
    }

    /** Takes one away. @throws BadInput when it cannot be */
    public void remove(String wanted) {
        try {
            Files.deleteIfExists(file(wanted));
        } catch (IOException e) {
            throw new BadInput(file(wanted) + ": cannot be taken away: " + Causes.of(e), e);
        }
    }

    private Path file(String of) {
        return folder.resolve(plain(of) + ending);
    }

    /** A name for a file of what has a name of any letters: names that differ only in signs or in capitals do not share one. */
    static String plain(String of) {
        String plain = of.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
        String sign = plain.equals(of) ? "" : "-" + Integer.toHexString(of.hashCode());
        return (plain.isEmpty() ? "document" : plain) + sign;
    }
}
