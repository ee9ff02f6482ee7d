package stativex.desk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import javafx.scene.paint.Color;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;

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
                {Palette.MUTED, Palette.FAINT}};
    }

    @Test(dataProvider = "texts")
    public void textsCanBeRead(Color text, Color ground) {
        assertTrue(contrast(text, ground) >= 4.5, text + " on " + ground + ": " + contrast(text, ground));
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
