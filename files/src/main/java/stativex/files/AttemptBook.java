package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import stativex.engine.DayBook;
import stativex.trial.Run;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Every variant of a strategy that was ever tried on a fit range, by hand or by search: {@code attempts.journal} of the data folder.
 * Nothing is ever taken out. Source: SEMANTICS, "Searches and evidence" (attempts).
 */
public final class AttemptBook {
    private final Path file;

    /** @param file may not exist yet */
    AttemptBook(Path file) {
        this.file = file;
    }

    /** That of the person's data folder. */
    public static AttemptBook own() {
        return new AttemptBook(DataFolder.path().resolve("attempts.journal"));
    }

    /** What of a strategy's document makes it another variant: rules, bars, entry, plan, limits; not names and notes. */
    public static String fingerprint(JsonNode strategy) {
        ObjectNode d = (ObjectNode) strategy.deepCopy();
        d.remove(List.of("name", "note"));
        if (d.get("exit") instanceof ObjectNode exit) {
            exit.remove(List.of("name", "note"));
        }
        return Documents.fingerprint(d);
    }

    /** Counts variants that were evaluated from one date to another. @throws BadInput when that cannot be written */
    public synchronized void add(String contract, String strategy, LocalDate from, LocalDate to,
            Collection<String> variants) {
        Map<String, Object> entry = entry(contract, strategy, from, to);
        entry.put("variants", List.copyOf(variants));
        try (InputJournal.Writer writer = InputJournal.Writer.onto(file)) {
            writer.append(entry);
        }
    }

    /** Counts the strategies of a finished trial over a fit range. @throws BadInput when that cannot be written */
    public void add(Run run, SessionFile.Set documents) {
        List<LocalDate> days = run.engine().days().days().stream().map(DayBook.Day::date).toList();
        if (!days.isEmpty()) {
            documents.strategies().forEach(one -> add(one.value().contract(), one.value().name(), days.getFirst(),
                    days.getLast(), List.of(fingerprint(one.document()))));
        }
    }

    /**
     * Counts conjunctions that were looked at for rules from examples. They are not known by name: the same one looked at twice counts
     * twice, which is the safer side.
     */
    public synchronized void addScored(String contract, String strategy, LocalDate from, LocalDate to, long scored) {
        Map<String, Object> entry = entry(contract, strategy, from, to);
        entry.put("scored", scored);
        try (InputJournal.Writer writer = InputJournal.Writer.onto(file)) {
            writer.append(entry);
        }
    }

    private static Map<String, Object> entry(String contract, String strategy, LocalDate from, LocalDate to) {
        Map<String, Object> entry = new LinkedHashMap<>();
        entry.put("contract", contract);
        entry.put("strategy", strategy);
        entry.put("from", from.toString());
        entry.put("to", to.toString());
        return entry;
    }

    /** A strategy was made as a copy of another one: what was tried of that one counts for it, too. */
    public synchronized void addCopy(String copy, String of) {
        if (copy.equals(of)) {
            return;
        }
        try (InputJournal.Writer writer = InputJournal.Writer.onto(file)) {
            writer.append(Map.of("copy", copy, "of", of));
        }
    }

    /**
     * Distinct variants of a strategy, and of any that it was copied from, that were evaluated on a date of this range.
     *
     * @throws BadInput when the book is damaged
     */
    public int count(String contract, String strategy, LocalDate from, LocalDate to) {
        if (!Files.exists(file)) {
            return 0;
        }
        List<Field> entries = new ArrayList<>();
        for (String text : InputJournal.read(file)) {
            entries.add(Field.root(file + ", line " + (entries.size() + 1), Json.parse(text, file.toString())));
        }
        Set<String> names = ancestors(strategy, entries);
        Set<String> distinct = new HashSet<>();
        long scored = 0;
        for (Field entry : entries) {
            if (!entry.has("copy") && entry.at("contract").text().equals(contract)
                    && names.contains(entry.at("strategy").text()) && !entry.at("to").date().isBefore(from)
                    && !entry.at("from").date().isAfter(to)) {
                if (entry.has("scored")) {
                    scored += entry.at("scored").longInteger(0, Long.MAX_VALUE);
                } else {
                    entry.list("variants").forEach(variant -> distinct.add(variant.text()));
                }
            }
        }
        return (int) Math.min(Integer.MAX_VALUE, distinct.size() + scored);
    }

    /** A strategy and all that it was copied from. */
    private static Set<String> ancestors(String strategy, List<Field> entries) {
        Set<String> names = new HashSet<>(Set.of(strategy));
        boolean more = true;
        while (more) {
            more = false;
            for (Field entry : entries) {
                more |= entry.has("copy") && names.contains(entry.at("copy").text())
                        && names.add(entry.at("of").text());
            }
        }
        return names;
    }
}
