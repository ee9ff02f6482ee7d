package stativex.files.tape;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import stativex.files.BadInput;
import stativex.files.Json;
import stativex.files.WholeFile;
import stativex.market.Join;
import tools.jackson.databind.JsonNode;

/**
 * Joined series in a tape store: small documents that name the months' tapes and their roll days. No print is copied;
 * removing a month's tape leaves a join that says what is missing.
 */
public final class Joins {
    private static final String SUFFIX = ".join.json";

    private final TapeStore store;

    public Joins(TapeStore store) {
        this.store = store;
    }

    /** Names of the joins, in order. */
    public List<String> names() {
        return store.names(SUFFIX);
    }

    public boolean has(String name) {
        return names().contains(name);
    }

    /** The months' tapes as {@link Join} wants them. */
    public List<Join.Month> months(List<String> tapes) {
        return tapes.stream().map(name -> {
            TapeStore.Stored stored = store.open(name);
            return new Join.Month(name, stored.info().contract().value(), stored.tape());
        }).toList();
    }

    /**
     * Keeps a join.
     *
     * @param tapes months' tapes in the store, oldest first
     * @param dates roll days, one for each month but the first
     * @throws BadInput when the name is taken
     * @throws IllegalArgumentException when they do not fit together
     */
    public Join keep(String name, List<String> tapes, List<LocalDate> dates) {
        Join join = Join.of(months(tapes), dates);
        List<Object> months = new ArrayList<>();
        for (int i = 0; i < tapes.size(); i++) {
            Map<String, Object> month = new LinkedHashMap<>();
            month.put("tape", tapes.get(i));
            if (i > 0) {
                month.put("from", dates.get(i - 1).toString());
            }
            months.add(month);
        }
        Map<String, Object> document = new LinkedHashMap<>();
        document.put("document", "join");
        document.put("version", 1);
        document.put("months", months);
        Path file = store.file(name, SUFFIX);
        store.locked(() -> {
            if (Files.exists(file) || store.has(name)) {
                throw new BadInput("there is a tape or join named " + name + " already: choose another name");
            }
            WholeFile.write(file, out -> out.write(Json.pretty(document)), StandardCharsets.UTF_8);
            return null;
        });
        return join;
    }

    /** @throws BadInput when there is none of that name, or one of its tapes is missing or damaged */
    public Join open(String name) {
        Path file = store.file(name, SUFFIX);
        JsonNode document = Json.read(file);
        List<String> tapes = new ArrayList<>();
        List<LocalDate> dates = new ArrayList<>();
        try {
            for (JsonNode month : document.required("months")) {
                tapes.add(month.required("tape").asString());
                if (tapes.size() > 1) {
                    dates.add(LocalDate.parse(month.required("from").asString()));
                }
            }
            return Join.of(months(tapes), dates);
        } catch (tools.jackson.core.JacksonException | DateTimeException | IllegalArgumentException e) {
            throw new BadInput(file + ": " + e.getMessage(), e);
        }
    }

    /** Takes a join away; its months' tapes stay. */
    public void remove(String name) {
        Path file = store.file(name, SUFFIX);
        store.locked(() -> {
            try {
                Files.delete(file);
            } catch (IOException e) {
                throw new BadInput("no join named " + name + " in " + store.folder(), e);
            }
            return null;
        });
    }
}
