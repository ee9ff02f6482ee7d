package stativex.desk.sound;

import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.Clip;
import javax.sound.sampled.LineEvent;
import javax.sound.sampled.LineUnavailableException;

/** Plays a sound on the computer's own device; where there is none, or it is taken, it is quiet. */
final class Speaker {
    private static final AudioFormat FORMAT = new AudioFormat(Sound.RATE, 16, 1, true, false);

    private boolean missing;

    /** @param volume 0 to 100 */
    void play(Sound sound, int volume) {
        if (missing) {
            return;
        }
        byte[] samples = sound.samples(volume);
        Thread thread = new Thread(() -> open(samples), "sound");
        thread.setDaemon(true);
        thread.start();
    }

    private void open(byte[] samples) {
        try {
            Clip clip = AudioSystem.getClip();
            clip.addLineListener(event -> {
                if (event.getType() == LineEvent.Type.STOP) {
                    clip.close();
                }
            });
            clip.open(FORMAT, samples, 0, samples.length);
            clip.start();
        } catch (LineUnavailableException | IllegalArgumentException | SecurityException e) {
            // no device, or none for us: nothing depends on a sound
            missing = true;
        }
    }
}
