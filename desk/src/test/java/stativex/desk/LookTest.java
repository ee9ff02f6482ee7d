package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.scene.paint.Color;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.study.StudyDefinition;

public class LookTest {
    /** Contrast ratio of WCAG 2.2, success criterion 1.4.3: relative luminance of sRGB, (L1 + 0.05) / (L2 + 0.05). */
    private static double contrast(Color a, Color b) {
        double la = luminance(a);
        double lb = luminance(b);
        return (Math.max(la, lb) + 0.05) / (Math.min(la, lb) + 0.05);
    }

    private static double luminance(Color c) {
        return 0.2126 * linear(c.getRed()) + 0.7152 * linear(c.getGreen()) + 0.0722 * linear(c.getBlue());
    }

    private static double linear(double v) {
        return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
    }

    @DataProvider
    public Object[][] texts() {
        return new Object[][]{{Palette.INK, Palette.PANEL}, {Palette.MUTED, Palette.PANEL},
                {Palette.MUTED, Palette.CHART},
                {Palette.SHORT_TEXT, Palette.CHART}, {Palette.LONG, Palette.CHART}, {Palette.WARN_TEXT, Palette.PANEL},
                {Palette.TRIP, Palette.PANEL}, {Palette.TRIP, Palette.CHART}, {Palette.AUTOMATION, Palette.PANEL},
                {Palette.CHART, Palette.SLATE}, {Palette.CHART, Palette.INK}, {Color.WHITE, Palette.AUTOMATION},
                {Palette.MUTED, Palette.FAINT},
                {Palette.TEAL, Palette.CHART}, {Palette.MOSS, Palette.CHART}, {Palette.OLIVE, Palette.CHART},
                {Palette.MAUVE, Palette.CHART}};
    }

    @Test(dataProvider = "texts")
    public void textsCanBeRead(Color text, Color ground) {
        assertTrue(contrast(text, ground) >= 4.5, text + " on " + ground + ": " + contrast(text, ground));
    }

    /** Muted, and far from each hue that means something; every word of the language has its own. */
    @Test
    public void tonesOfStudiesMeanNothing() {
        Set<Color> tones = StudyDefinition.INKS.stream().map(word -> Palette.ink(word, Palette.MUTED))
                .collect(Collectors.toSet());
        assertEquals(tones.size(), StudyDefinition.INKS.size());
        for (Color tone : tones) {
            assertTrue(tone.getSaturation() < 0.5, tone + ": " + tone.getSaturation());
            for (Color meaning : List.of(Palette.AUTOMATION, Palette.LONG, Palette.SHORT, Palette.WARN, Palette.TRIP)) {
                double apart = Math.abs(tone.getHue() - meaning.getHue());
                assertTrue(tone.equals(Palette.MUTED) || Math.min(apart, 360 - apart) > 15,
                        tone + " and " + meaning + ": " + apart);
            }
        }
    }

    @Test
    public void figuresAreWrittenAsTheDesignSays() {
        assertEquals(Format.grouped("-1234567.50"), "−1\u2009234\u2009567.50");
        assertEquals(Format.grouped("123"), "123");
        assertEquals(Format.signedMoney(2_125_000), "+212.50");
        assertEquals(Format.signedMoney(0), "0.00");
        assertEquals(Format.ticks(-16), "−16 t");
        assertEquals(Format.tenths(-6), "−0.6");
        assertEquals(Format.duration(5_520_000_000_000L), "1 h 32 min");
    }
}
