package stativex.files.tape;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.CRC32C;
import stativex.files.BadInput;
import stativex.files.Field;
import stativex.files.Json;
import stativex.files.WholeFile;
import stativex.market.Join;

/**
 * Joined series in a tape store: small documents that name the months' tapes and their roll days. No print is copied;
 * removing a month's tape leaves a join that says what is missing.
 */
public final class Joins {
    private static final String SUFFIX = ".join.json";
    /** Since version 2 a join carries its checksum. */
    private static final int VERSION = 2;

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
        document.put("version", VERSION);
        document.put("months", months);
        document.put("checksum", sum(months));
        Path file = store.fresh(name, SUFFIX);
        store.locked(() -> {
            if (Files.exists(file) || store.has(name)) {
                throw new BadInput("there is a tape or join named " + name + " already: choose another name");
            }
            WholeFile.writeOwn(file, out -> out.write(Json.pretty(document)));
            return null;
        });
        return join;
    }

    /** @throws BadInput when there is none of that name, or one of its tapes is missing or damaged */
    public Join open(String name) {
        Path file = store.file(name, SUFFIX);
        Field document = Field.root(file.toString(), Json.read(file));
        int version = document.at("version").integer();
        if (!document.at("document").text().equals("join") || version != 1 && version != VERSION) {
            throw new BadInput(file + ": expected a join of version 1 or " + VERSION);
        }
        if (version == VERSION && !document.at("checksum").text().equals(sum(document.at("months").node()))) {
            throw new BadInput(file + ": does not match its checksum: remove the join and make it again");
        }
        List<String> tapes = new ArrayList<>();
        List<LocalDate> dates = new ArrayList<>();
        for (Field month : document.list("months")) {
            tapes.add(month.at("tape").text());
            if (tapes.size() > 1) {
                dates.add(month.at("from").date());
            }
        }
        return document.checked(() -> Join.of(months(tapes), dates));
    }

    /** CRC-32C of the months as they stand in the document, without its layout. */
    private static String sum(Object months) {
        CRC32C sum = new CRC32C();
        sum.update(Json.line(months).getBytes(StandardCharsets.UTF_8));
        return String.format("%08x", sum.getValue());
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
