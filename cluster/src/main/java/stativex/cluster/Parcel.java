package stativex.cluster;

import java.io.IOException;
import java.io.Serializable;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.UUID;
import stativex.files.SearchFolder;
import stativex.files.SearchSpec;
import stativex.files.VariantTrials;
import stativex.market.Aggressor;
import stativex.market.Tape;
import stativex.market.TapeBuilder;

/** A search as it goes to other machines: its documents as they are written, and its tape column by column. */
final class Parcel implements Serializable {
    private static final long serialVersionUID = 1;

    private final String id = UUID.randomUUID().toString();
    private final LinkedHashMap<String, String> documents;
    private final long[][] columns;
    private final byte[] aggressors;
    private final ArrayList<String> incomplete = new ArrayList<>();

    /** @param tape that the search is over */
    Parcel(SearchSpec spec, Tape tape) {
        this.documents = documents(spec);
        int count = tape.count();
        this.columns = new long[7][count];
        this.aggressors = new byte[count];
        for (int i = 0; i < count; i++) {
            columns[0][i] = tape.time(i);
            columns[1][i] = tape.price(i);
            columns[2][i] = tape.size(i);
            columns[3][i] = tape.bid(i);
            columns[4][i] = tape.ask(i);
            columns[5][i] = tape.bidSize(i);
            columns[6][i] = tape.askSize(i);
            aggressors[i] = (byte) tape.aggressor(i).ordinal();
        }
        tape.incomplete().forEach(session -> incomplete.add(session.date() + "/" + session.name()));
    }

    private static LinkedHashMap<String, String> documents(SearchSpec spec) {
        try {
            Path folder = Files.createTempDirectory("stativex-parcel");
            Path written = new SearchFolder(folder).add(spec).folder();
            LinkedHashMap<String, String> documents = new LinkedHashMap<>();
            try (var files = Files.list(written)) {
                for (Path file : files.sorted().toList()) {
                    documents.put(file.getFileName().toString(), Files.readString(file));
                    Files.delete(file);
                }
            }
            Files.delete(written);
            Files.delete(folder);
            return documents;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Another one for each search. */
    String id() {
        return id;
    }

    /** Unpacks it, on whatever machine it came to. */
    VariantTrials trials() {
        try {
            Path folder = Files.createTempDirectory("stativex-search");
            for (Map.Entry<String, String> document : documents.entrySet()) {
                Files.writeString(folder.resolve(document.getKey()), document.getValue());
            }
            SearchSpec spec = SearchSpec.read(folder.resolve("spec.json"));
            for (String document : documents.keySet()) {
                Files.delete(folder.resolve(document));
            }
            Files.delete(folder);
            return new VariantTrials(spec, tape());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Tape tape() {
        TapeBuilder tape = new TapeBuilder(aggressors.length);
        List<Aggressor> words = List.of(Aggressor.values());
        for (int i = 0; i < aggressors.length; i++) {
            tape.add(columns[0][i], columns[1][i], columns[2][i], columns[3][i], columns[4][i], columns[5][i],
                    columns[6][i], Optional.of(words.get(aggressors[i])));
        }
        TreeSet<Tape.SessionName> sessions = new TreeSet<>();
        for (String session : incomplete) {
            int at = session.indexOf('/');
            sessions.add(new Tape.SessionName(LocalDate.parse(session.substring(0, at)), session.substring(at + 1)));
        }
        return tape.build().withIncomplete(sessions);
    }
}
