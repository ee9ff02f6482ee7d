package stativex.desk.sound;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.SessionFile;
import stativex.files.SoundSettings;
import stativex.market.TapeTime;
import stativex.order.Terms;
import stativex.trial.Run;

/** What is heard of the demo's day, without a device. */
public class SoundsTest {
    private final List<Sound> played = new ArrayList<>();
    private Sounds sounds;
    private Run run;
    private long clock;

    @BeforeMethod
    public void begin() {
        SoundSettings.DEFAULT.keep();
        played.clear();
        sounds = new Sounds((sound, volume) -> {
            assertEquals(volume.intValue(), 50);
            played.add(sound);
        });
        SessionFile.Set documents = Demo.documents();
        run = new Run(documents.inputs(Demo.tape(documents.contract().value()), Terms.DEFAULT));
        run.toTime(Demo.begin(documents.contract().value()), Integer.MAX_VALUE);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        hear(Optional.empty());
    }

    private void hear(Optional<Long> jump) {
        clock += TapeTime.SECOND;
        sounds.hear(run.engine().snapshot(), jump.isPresent(), 0, clock);
    }

    /** So many prints in pictures of fifty. */
    private void play(int prints) {
        for (int i = 0; i < prints; i += 50) {
            run.toPlace(run.place() + 50);
            hear(Optional.empty());
        }
    }

    @Test
    public void entryStopAndExitAreHeardInTheirOrder() {
        play(14_000);
        assertEquals(played.getFirst(), Sound.ENTRY);
        assertTrue(played.contains(Sound.STOP) && played.contains(Sound.EXIT), played.toString());
        assertTrue(played.indexOf(Sound.EXIT) > played.indexOf(Sound.ENTRY));
    }

    @Test
    public void aLockIsHeardBeforeAllElse() {
        run.command(new Command.FlatAndLock());
        hear(Optional.empty());
        assertEquals(played, List.of(Sound.LOCKED));
    }

    @Test
    public void anAlarmIsHeardOnceWhateverElseIsHeard() {
        run.command(new Command.FlatAndLock());
        hear(Optional.empty());
        sounds.hear(run.engine().snapshot(), false, 1, clock + 1);
        sounds.hear(run.engine().snapshot(), false, 1, clock + 60 * TapeTime.SECOND);
        assertEquals(played, List.of(Sound.LOCKED, Sound.ALARM));
    }

    @Test
    public void nothingIsHeardOfAJumpOrOfWhatIsOff() {
        run.toPlace(run.place() + 14_000);
        hear(Optional.of(1L));
        hear(Optional.empty());
        assertEquals(played, List.of());
        new SoundSettings(50, java.util.Set.of("locked")).keep();
        sounds = new Sounds((sound, volume) -> played.add(sound));
        hear(Optional.empty());
        run.command(new Command.FlatAndLock());
        hear(Optional.empty());
        assertTrue(!played.contains(Sound.LOCKED), played.toString());
        assertEquals(SoundSettings.read().off(), java.util.Set.of("locked"));
    }

    @Test
    public void twoSoundsAtOnceAreOne() {
        run.command(new Command.FlatAndLock());
        clock -= TapeTime.SECOND;
        hear(Optional.empty());
        int first = played.size();
        clock -= TapeTime.SECOND;
        play(50);
        assertTrue(first <= 1 && played.size() <= first + 1, played.toString());
    }

    @Test
    public void eachIsAShortToneThatSwellsAndEndsSoftly() {
        for (Sound sound : Sound.values()) {
            byte[] samples = sound.samples(50);
            assertTrue(samples.length / 2 < Sound.RATE * 0.6, sound + " is short");
            int loudest = 0;
            for (int i = 0; i < samples.length; i += 2) {
                loudest = Math.max(loudest, Math.abs((short) (samples[i] & 255 | samples[i + 1] << 8)));
            }
            assertTrue(loudest > 4_000 && loudest < 16_384, sound + " at " + loudest);
            for (byte sample : sound.samples(0)) {
                assertEquals(sample, 0);
            }
        }
    }
}
