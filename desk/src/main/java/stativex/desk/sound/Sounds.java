package stativex.desk.sound;

import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import javafx.geometry.Pos;
import javafx.scene.control.CheckBox;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Slider;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import stativex.engine.Snapshot;
import stativex.files.BadInput;
import stativex.files.SoundSettings;

/** The window's sounds: what has happened is heard once, one sound at a time; volume and a switch for each event. */
public final class Sounds {
    /** Less than this between two sounds is noise, nanoseconds. */
    private static final long APART = 150_000_000L;

    private SoundWatch watch = new SoundWatch();
    private final BiConsumer<Sound, Integer> player;
    private SoundSettings settings = SoundSettings.read();
    private long last = Long.MIN_VALUE;

    /** Sounds on the computer's own device. */
    public Sounds() {
        this(new Speaker()::play);
    }

    /** @param player plays a sound at a volume */
    public Sounds(BiConsumer<Sound, Integer> player) {
        this.player = player;
    }

    /**
     * Hears a picture of a replay or of a live day.
     *
     * @param jumps the replay jumps: nothing is heard
     * @param alarms how many stand
     * @param now nanoseconds of any clock
     */
    public void hear(Snapshot snapshot, boolean jumps, int alarms, long now) {
        if (jumps) {
            watch.skip(snapshot);
            return;
        }
        Optional<Sound> heard = watch.heard(snapshot, alarms).filter(sound -> settings.hears(sound.words()));
        if (heard.isPresent()
                && (last == Long.MIN_VALUE || now - last >= APART || heard.get() == Sound.ALARM)) {
            last = now;
            player.accept(heard.get(), settings.volume());
        }
    }

    /** Another run is shown: what has happened in it already is not heard. */
    public void begin() {
        watch = new SoundWatch();
    }

    public SoundSettings settings() {
        return settings;
    }

    private void keep(SoundSettings next) {
        settings = next;
        try {
            next.keep();
        } catch (BadInput e) {
            // they hold for this window; the next one begins with those before
        }
    }

    /** The menu in the top bar. */
    public MenuButton menu() {
        MenuButton menu = new MenuButton("Sound");
        menu.setId("sound");
        menu.setAccessibleText("Sounds: volume, and which events are heard");
        menu.setTooltip(new Tooltip("Sounds: volume, and which events are heard"));
        Slider volume = new Slider(0, 100, settings.volume());
        volume.setId("sound-volume");
        volume.setAccessibleText("Volume of the sounds");
        volume.setBlockIncrement(10);
        volume.valueProperty().addListener((o, before, value) -> {
            if (!volume.isValueChanging()) {
                keep(new SoundSettings(value.intValue(), settings.off()));
            }
        });
        volume.valueChangingProperty().addListener((o, before, changing) -> {
            if (!changing) {
                keep(new SoundSettings((int) volume.getValue(), settings.off()));
            }
        });
        HBox loud = new HBox(8, new Label("Volume"), volume);
        loud.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(6, loud);
        for (Sound sound : Sound.values()) {
            CheckBox on = new CheckBox(sound.words());
            on.setId("sound-" + sound.words().replace(' ', '-'));
            on.setSelected(!settings.off().contains(sound.words()));
            on.setOnAction(e -> {
                Set<String> off = new HashSet<>(settings.off());
                if (on.isSelected()) {
                    off.remove(sound.words());
                    player.accept(sound, settings.volume());
                } else {
                    off.add(sound.words());
                }
                keep(new SoundSettings(settings.volume(), off));
            });
            box.getChildren().add(on);
        }
        CustomMenuItem item = new CustomMenuItem(box, false);
        menu.getItems().add(item);
        return menu;
    }
}
