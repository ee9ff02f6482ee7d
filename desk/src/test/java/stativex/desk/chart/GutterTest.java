package stativex.desk.chart;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.SplittableRandom;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.scene.text.Font;
import org.testng.annotations.Test;
import stativex.desk.draw.SvgPen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Palette;

/** The laws of the column beside a chart, on any rows. */
public class GutterTest {
    private static final double TOP = 2;

    /** A row as given: what stands as its figure, and its price's pixel. */
    private record Given(String figure, double y) {}

    private static double base(String document, String text) {
        Matcher m = Pattern.compile("<text x=\"[-0-9.]+\" y=\"([-0-9.]+)\"[^>]*>" + Pattern.quote(text) + "</text>")
                .matcher(document);
        assertTrue(m.find(), text + " is drawn");
        double y = Double.parseDouble(m.group(1));
        assertFalse(m.find(), text + " is drawn once");
        return y;
    }

    @Test
    public void rowsStandInTheOrderOfTheirPricesInsideAndApart() {
        SplittableRandom dice = new SplittableRandom(11);
        for (int round = 0; round < 500; round++) {
            double bottom = TOP + dice.nextInt(60, 700);
            int most = (int) ((bottom - TOP) / 11);
            Gutter gutter = new Gutter();
            List<Given> given = new ArrayList<>();
            for (int i = dice.nextInt(1, most + 1); i > 0; i--) {
                // crowded ones are the hard case; some prices lie outside
                double y = dice.nextBoolean() ? dice.nextDouble(-40, bottom + 40) : bottom / 2 + dice.nextDouble(5);
                given.add(new Given("f" + i, y));
                switch (dice.nextInt(3)) {
                    case 0 -> gutter.plain("name", "f" + i, y, Palette.INK);
                    case 1 -> gutter.framed("name", "f" + i, y, Palette.INK, Palette.INK);
                    default -> gutter.solid("name", "f" + i, y);
                }
            }
            gutter.settle(TOP, bottom);
            SvgPen pen = new SvgPen(Gutter.WIDTH, bottom);
            gutter.draw(pen, 0, Gutter.WIDTH);
            String document = pen.document();
            given.sort(Comparator.comparingDouble(Given::y));
            double before = Double.NEGATIVE_INFINITY;
            for (Given row : given) {
                double y = base(document, row.figure());
                assertTrue(y - before >= 10, "rows at " + before + " and " + y);
                assertTrue(y > TOP && y < bottom + 5, y + " of " + bottom);
                assertFalse(gutter.isFree(y - 4), "no figure of the axis at a row's height");
                before = y;
            }
        }
    }

    @Test
    public void aRowWithRoomStandsAtItsPrice() {
        Gutter gutter = new Gutter();
        gutter.plain("far", "above", 50, Palette.INK);
        gutter.plain("far", "below", 250, Palette.INK);
        gutter.settle(TOP, 400);
        SvgPen pen = new SvgPen(Gutter.WIDTH, 400);
        gutter.draw(pen, 0, Gutter.WIDTH);
        assertEquals(base(pen.document(), "above"), 54, 1);
        assertEquals(base(pen.document(), "below"), 254, 1);
        assertTrue(gutter.isFree(150));
        assertFalse(gutter.isFree(250));
    }

    @Test
    public void aTextThatDoesNotFitKeepsItsBeginning() {
        SvgPen pen = new SvgPen(10, 10);
        Font font = Fonts.words(10.5);
        for (String text : List.of("close > mean.upper", "x", "", "a name nobody would give a study of theirs")) {
            for (double width = 0; width < 260; width += 7) {
                String shown = Gutter.fit(pen, text, font, width);
                assertTrue(shown.isEmpty() || pen.width(shown, font) <= width, shown + " in " + width);
                assertTrue(shown.equals(text) || shown.isEmpty()
                        || shown.endsWith("…") && text.startsWith(shown.substring(0, shown.length() - 1)), shown);
                assertEquals(shown.equals(text), pen.width(text, font) <= width);
            }
        }
    }
}
