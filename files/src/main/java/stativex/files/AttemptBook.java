package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
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
        Map<String, Object> entry = new LinkedHashMap<>();
        entry.put("contract", contract);
        entry.put("strategy", strategy);
        entry.put("from", from.toString());
        entry.put("to", to.toString());
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

    /** Distinct variants of a strategy that were evaluated on a date of this range. @throws BadInput when the book is damaged */
    public int count(String contract, String strategy, LocalDate from, LocalDate to) {
        if (!Files.exists(file)) {
            return 0;
        }
        Set<String> distinct = new HashSet<>();
        int line = 0;
        for (String text : InputJournal.read(file)) {
            Field entry = Field.root(file + ", line " + ++line, Json.parse(text, file.toString()));
            if (entry.at("contract").text().equals(contract) && entry.at("strategy").text().equals(strategy)
                    && !entry.at("to").date().isBefore(from) && !entry.at("from").date().isAfter(to)) {
                entry.list("variants").forEach(variant -> distinct.add(variant.text()));
            }
        }
        return distinct.size();
    }
}
