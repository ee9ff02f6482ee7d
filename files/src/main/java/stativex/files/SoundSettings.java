package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * How loud the window's sounds are, and which of them are off.
 *
 * @param volume 0 (silent) to 100
 * @param off names of events without a sound
 */
public record SoundSettings(int volume, Set<String> off) {
    /** All of them, at a moderate volume. */
    public static final SoundSettings DEFAULT = new SoundSettings(50, Set.of());

    public SoundSettings {
        if (volume < 0 || volume > 100) {
            throw new IllegalArgumentException("expected a volume of 0 to 100, found " + volume);
        }
        off = Set.copyOf(off);
    }

    private static Path file() {
        return DataFolder.path().resolve("sounds.json");
    }

    /** The person's own; the default when there are none, or none that read. */
    public static SoundSettings read() {
        if (!Files.exists(file())) {
            return DEFAULT;
        }
        try {
            Field of = Field.root("sounds.json", Json.read(file()));
            List<String> off = new ArrayList<>();
            of.items("off").forEach(name -> off.add(name.text()));
            return new SoundSettings(of.at("volume").integer(), Set.copyOf(off));
        } catch (BadInput | IllegalArgumentException e) {
            return DEFAULT;
        }
    }

    /** Keeps them. @throws BadInput when they cannot be written */
    public void keep() {
        Map<String, Object> of = new LinkedHashMap<>();
        of.put("document", "sounds");
        of.put("version", 1);
        of.put("volume", volume);
        of.put("off", new ArrayList<>(new TreeSet<>(off)));
        WholeFile.writeOwn(file(), out -> out.write(Json.pretty(of)));
    }

    /** Whether an event is heard. */
    public boolean hears(String event) {
        return volume > 0 && !off.contains(event);
    }
}
