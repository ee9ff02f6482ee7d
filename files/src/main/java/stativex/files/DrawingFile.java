package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import stativex.market.Contract;
import stativex.market.Drawing;
import stativex.market.DrawnPoints;
import stativex.market.TapeTime;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/** What a person drew on the charts of a contract, one JSON document for each contract. */
public final class DrawingFile {
    private final Path file;
    private final Contract contract;

    /** @param folder of all drawings, need not exist yet */
    public DrawingFile(Path folder, Contract contract) {
        this.file = folder.resolve(contract.symbol().replaceAll("[^\\p{L}\\p{N}._-]", "_") + ".drawings.json");
        this.contract = contract;
    }

    /** The person's own, in the data folder. */
    public static DrawingFile own(Contract contract) {
        return new DrawingFile(DataFolder.path().resolve("drawings"), contract);
    }

    /**
     * What is kept; nothing if there is no file yet.
     *
     * @throws BadInput when the file cannot be read
     */
    public List<Drawing> read() {
        List<Drawing> drawings = new ArrayList<>();
        if (!Files.exists(file)) {
            return drawings;
        }
        try {
            for (JsonNode entry : Json.read(file).required("drawings")) {
                Drawing drawn = points(entry).on(contract);
                int before = drawings.stream().map(Drawing::name).toList().indexOf(drawn.name());
                if (before >= 0) {
                    throw new IllegalArgumentException(
                            "the drawn name \"" + drawn.name() + "\" stands twice, in $.drawings["
                                    + before + "] and $.drawings[" + drawings.size() + "]: expected it once");
                }
                drawings.add(drawn);
            }
            return drawings;
        } catch (JacksonException | IllegalArgumentException | DateTimeException | ArithmeticException e) {
            throw new BadInput(file + ": " + e.getMessage(), e);
        }
    }

    /** Something drawn as a document states it. */
    static DrawnPoints points(JsonNode entry) {
        String kind = entry.required("kind").asString();
        if (!java.util.Set.of("level", "slope", "marker").contains(kind)) {
            throw new IllegalArgumentException("expected level, slope or marker, found " + kind);
        }
        boolean timed = !kind.equals("level");
        boolean second = kind.equals("slope");
        return new DrawnPoints(kind, entry.required("name").asString(), timed ? time(entry, "time") : 0,
                entry.required("price").asString(), second ? time(entry, "time2") : 0,
                second ? entry.required("price2").asString() : "");
    }

    private static long time(JsonNode entry, String field) {
        return TapeTime.nanos(Instant.parse(entry.required(field).asString()));
    }

    /** Something drawn as it stands in documents. */
    static Map<String, Object> entry(Drawing drawing, Contract contract) {
        Map<String, Object> entry = new LinkedHashMap<>();
        switch (drawing) {
            case Drawing.Level level -> {
                entry.put("kind", "level");
                entry.put("price", contract.text(level.price()));
            }
            case Drawing.Slope slope -> {
                entry.put("kind", "slope");
                entry.put("time", TapeTime.instant(slope.time1()).toString());
                entry.put("price", contract.text(slope.price1()));
                entry.put("time2", TapeTime.instant(slope.time2()).toString());
                entry.put("price2", contract.text(slope.price2()));
            }
            case Drawing.Marker marker -> {
                entry.put("kind", "marker");
                entry.put("time", TapeTime.instant(marker.time()).toString());
                entry.put("price", contract.text(marker.price()));
            }
        }
        entry.put("name", drawing.name());
        return entry;
    }

    /** Keeps them, in one piece or not at all. */
    public void write(List<Drawing> drawings) {
        List<Object> entries = new ArrayList<>(drawings.stream().map(drawing -> entry(drawing, contract)).toList());
        Map<String, Object> document = new LinkedHashMap<>();
        document.put("document", "drawings");
        document.put("version", 1);
        document.put("contract", contract.symbol());
        document.put("drawings", entries);
        WholeFile.writeOwn(file, out -> out.write(Json.pretty(document)));
    }
}
