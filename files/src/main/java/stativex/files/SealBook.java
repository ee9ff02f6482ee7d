package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import stativex.market.SessionCalendar;
import stativex.trial.Days;

/**
 * Which trading dates of a contract nobody has looked at, and who opened them: {@code seals.json} of the data folder. A seal is made once
 * for a contract and never lifted; each opening, for one named version of a strategy, is counted for ever. It holds for stored tapes.
 * Source: SEMANTICS, "Searches and evidence".
 */
public final class SealBook {
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("d MMM", Locale.ENGLISH);

    private final Path file;

    /** @param file may not exist yet */
    SealBook(Path file) {
        this.file = file;
    }

    /** That of the person's data folder. */
    public static SealBook own() {
        return new SealBook(DataFolder.path().resolve("seals.json"));
    }

    /** Unseen trading dates of a contract, both ends included. */
    public record Seal(String contract, LocalDate from, LocalDate to) {
        public Seal {
            if (to.isBefore(from)) {
                throw new IllegalArgumentException("expected a sealed range that does not end before it begins");
            }
        }

        /** Whether a date lies in it. */
        public boolean holds(LocalDate date) {
            return !date.isBefore(from) && !date.isAfter(to);
        }

        /** The dates before it, of those asked for. @throws IllegalArgumentException when none is left */
        public Days fit(Days asked) {
            LocalDate last = from.minusDays(1);
            if (asked.first().filter(first -> !first.isBefore(from)).isPresent()) {
                throw new IllegalArgumentException(
                        "the dates from " + from + " on are sealed: expected days before them");
            }
            return new Days(asked.first(),
                    Optional.of(asked.last().filter(day -> day.isBefore(last)).orElse(last)));
        }

        /** Its first instant, nanoseconds; empty where its first date has no session. */
        public Optional<Long> begin(SessionCalendar calendar) {
            return unseen().begin(calendar);
        }

        /** Its own dates. */
        public Days unseen() {
            return new Days(Optional.of(from), Optional.of(to));
        }
    }

    /** Somebody looked: all dates of a seal, for one version. */
    public record Opening(String contract, LocalDate from, LocalDate to, String strategy, String version) {}

    private record Book(List<Seal> seals, List<Opening> openings) {}

    private Book read() {
        if (!Files.exists(file)) {
            return new Book(List.of(), List.of());
        }
        Field root = Field.root(file.toString(), Json.read(file));
        List<Seal> seals = new ArrayList<>();
        for (Field seal : root.items("seals")) {
            seals.add(seal.checked(() -> new Seal(seal.at("contract").text(), seal.at("from").date(),
                    seal.at("to").date())));
        }
        List<Opening> openings = new ArrayList<>();
        for (Field one : root.items("openings")) {
            openings.add(new Opening(one.at("contract").text(), one.at("from").date(), one.at("to").date(),
                    one.at("strategy").text(), one.at("version").text()));
        }
        return new Book(seals, openings);
    }

    /** The seal of a contract. @throws BadInput when the book does not read: nothing is looked at then */
    public Optional<Seal> of(String contract) {
        return read().seals().stream().filter(seal -> seal.contract().equals(contract)).findFirst();
    }

    /** Every seal. */
    public List<Seal> all() {
        return read().seals();
    }

    /** Seals dates of a contract. @throws BadInput when it has a seal already */
    public void seal(Seal seal) {
        Book book = read();
        if (book.seals().stream().anyMatch(one -> one.contract().equals(seal.contract()))) {
            throw new BadInput(seal.contract() + " has a seal already, and a seal is never changed");
        }
        List<Seal> seals = new ArrayList<>(book.seals());
        seals.add(seal);
        write(new Book(seals, book.openings()));
    }

    /** Counts an opening for a version; the same version opens it once. Returns how often it is open by now. */
    public int open(Seal seal, String strategy, String version) {
        Book book = read();
        if (!opened(book, seal, version)) {
            List<Opening> openings = new ArrayList<>(book.openings());
            openings.add(new Opening(seal.contract(), seal.from(), seal.to(), strategy, version));
            write(new Book(book.seals(), openings));
        }
        return openings(seal);
    }

    /** Whether a version has opened it. */
    public boolean opened(Seal seal, String version) {
        return opened(read(), seal, version);
    }

    /** Versions of a strategy that have opened it, by the name it had then. */
    public List<String> versions(Seal seal, String strategy) {
        return read().openings().stream().filter(one -> one.contract().equals(seal.contract())
                && one.from().equals(seal.from()) && one.strategy().equals(strategy)).map(Opening::version).toList();
    }

    /** Whether a kept trial looks at dates of a seal that nobody opened for its versions: it was made before the seal. */
    public boolean hides(Seal seal, TrialFolder.Kept trial) {
        return trial.to().filter(day -> !day.isBefore(seal.from())).isPresent()
                && !trial.versions().stream().allMatch(version -> opened(seal, version));
    }

    private static boolean opened(Book book, Seal seal, String version) {
        return book.openings().stream()
                .anyMatch(one -> one.contract().equals(seal.contract()) && one.version().equals(version)
                        && one.from().equals(seal.from()));
    }

    /** The most openings of any of its dates. */
    public int openings(Seal seal) {
        return (int) read().openings().stream()
                .filter(one -> one.contract().equals(seal.contract()) && !one.to().isBefore(seal.from())
                        && !one.from().isAfter(seal.to()))
                .count();
    }

    /** What is said of unseen dates under a result: {@code sealed 24 Sep – 29 Sep, opened twice}. @param seal empty: {@code not sealed} */
    public String words(Optional<Seal> seal) {
        return seal.map(of -> "sealed " + DATE.format(of.from()) + " – " + DATE.format(of.to()) + ", opened "
                + times(openings(of))).orElse("not sealed");
    }

    /** {@code never}, {@code once}, {@code 3 times}. */
    public static String times(int times) {
        return times == 1 ? "once" : times == 0 ? "never" : times + " times";
    }

    /** What is offered at a contract's first trial: the last third of its trading dates, rounded down; empty below three dates. */
    public static Optional<Seal> offered(String contract, List<LocalDate> dates) {
        int third = dates.size() / 3;
        return third == 0
                ? Optional.empty()
                : Optional.of(new Seal(contract, dates.get(dates.size() - third), dates.getLast()));
    }

    private void write(Book book) {
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("document", "seals");
        json.put("version", 1);
        json.put("seals", book.seals().stream().map(seal -> {
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("contract", seal.contract());
            one.put("from", seal.from().toString());
            one.put("to", seal.to().toString());
            return one;
        }).toList());
        json.put("openings", book.openings().stream().map(opening -> {
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("contract", opening.contract());
            one.put("from", opening.from().toString());
            one.put("to", opening.to().toString());
            one.put("strategy", opening.strategy());
            one.put("version", opening.version());
            return one;
        }).toList());
        WholeFile.writeOwn(file, out -> out.write(Json.pretty(json)));
    }
}
