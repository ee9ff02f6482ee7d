package stativex.desk.sound;

/** What is heard, the most urgent first: each a few short tones of our own. */
public enum Sound {
    ALARM("alarm", new double[]{880, 587, 880, 587}, 140), LOCKED("locked", new double[]{392, 294, 196}, 170), EXIT(
            "exit", new double[]{659, 494}, 90), ENTRY("entry",
                    new double[]{494, 659},
                    90), NEAR("near a line", new double[]{440, 440, 440}, 70), STOP("stop moved",
                            new double[]{880}, 60), DECLINED("declined", new double[]{220}, 120);

    /** Samples a second, one channel of 16 bits. */
    static final int RATE = 22_050;

    private final String words;
    private final double[] hertz;
    private final int milliseconds;

    Sound(String words, double[] hertz, int milliseconds) {
        this.words = words;
        this.hertz = hertz;
        this.milliseconds = milliseconds;
    }

    /** Such as {@code stop moved}. */
    public String words() {
        return words;
    }

    /**
     * The tones one after the other, each rising and falling softly.
     *
     * @param volume 0 to 100
     * @return samples of 16 bits, little-endian
     */
    byte[] samples(int volume) {
        int each = RATE * milliseconds / 1000;
        byte[] bytes = new byte[2 * each * hertz.length];
        for (int tone = 0; tone < hertz.length; tone++) {
            for (int i = 0; i < each; i++) {
                double swell = Math.sin(Math.PI * i / each);
                double value = Math.sin(2 * Math.PI * hertz[tone] * i / RATE) * swell * volume / 100 * 0.5;
                short sample = (short) Math.round(value * Short.MAX_VALUE);
                int at = 2 * (tone * each + i);
                bytes[at] = (byte) sample;
                bytes[at + 1] = (byte) (sample >> 8);
            }
        }
        return bytes;
    }
}
