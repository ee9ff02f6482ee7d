package stativex.rule;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.SplittableRandom;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.market.Aggressor;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.study.Computed;
import stativex.study.Studies;
import stativex.study.StudyDefinition;
import stativex.trial.Given;

/** What helps to write a rule: mirror, rename, rows, completion. */
public class WritingTest {
    private static final List<StudyDefinition> STUDIES = List.of(Studies.read("mean = vwap"),
            Studies.read("pull = rsi 5"), Studies.read("reach = atr 4"), Studies.read("push = score 8"),
            Studies.read("chan = donchian 6"), Studies.read("top = ema 3 of high"), Studies.read("drift = ema 4"),
            Studies.read("trend = supertrend 4"), Studies.read("macd = macd fast 3 slow 6 signal 2"),
            Studies.read("dir = adx 4"), Studies.read("turn = swing 2"), Studies.read("fit = regression 6"));
    private final Program program = RulesTest.program(STUDIES, 10, 12, 12, 11, 13, 12, 14, 13);

    @DataProvider
    public Object[][] mirrors() {
        return new Object[][]{{"close > open", "close < open"}, {"high > mean.upper", "low < mean.lower"},
                {"close > mean.upper + 4 ticks", "close < mean.lower - 4 ticks"},
                {"close - open >= 2 ticks", "close - open <= -2 ticks"}, {"pull < 30", "pull > 70"},
                {"pull rises through 20.5", "pull falls through 79.5"}, {"delta > 500", "delta < -500"},
                {"push < -2 on any of the last 4 bars", "push > 2 on any of the last 4 bars"},
                {"delta > volume * 0.3", "delta < -(volume * 0.3)"}, {"reach > 4 ticks", "reach > 4 ticks"},
                {"drift is falling over 10 bars", "drift is rising over 10 bars"}, {"drift flat", "drift flat"},
                {"trend.rising", "trend.falling"}, {"not trend.rising", "not trend.falling"},
                {"close rises through chan.upper 1 bar before", "close falls through chan.lower 1 bar before"},
                {"max(open, close) < high", "min(open, close) > low"},
                {"abs(close - open) > reach", "abs(close - open) > reach"},
                {"close > low + (high - low) * 0.8", "close < high + (low - high) * 0.8"},
                {"time is from 09:45 to 11:30", "time is from 09:45 to 11:30"},
                {"times (close > open) since session open > 2", "times (close < open) since session open > 2"},
                {"close > close when (pull < 30) first became true",
                        "close < close when (pull > 70) first became true"},
                {"close > open for the first time since (pull < 20)",
                        "close < open for the first time since (pull > 80)"},
                {"dir.up > dir.down and dir > 20", "dir.down > dir.up and dir > 20"},
                {"close > session.high + 0.25", "close < session.low - 0.25"},
                {"highest 5 of high > open 2 bars before", "lowest 5 of low < open 2 bars before"},
                {"sum 3 of delta > 20", "sum 3 of delta < -20"},
                {"pull is between 20 and 40", "pull is between 60 and 80"},
                {"close between low and middle", "close is between middle and high"},
                {"delta between 2 and volume", "delta is between -volume and -2"},
                {"rank 4 of volume = 1 and Friday", "rank 4 of volume = 1 and Friday"},
                {"(close > open) 2 bars before", "(close < open) 2 bars before"}, {"close != open", "close != open"},
                {"after 10:00 and before 9:30", "after 10:00 and before 9:30"},
                {"between 9:45 and 11:30 in UTC", "between 9:45 and 11:30 in UTC"},
                {"median 3 of pull < 30", "median 3 of pull > 70"},
                {"macd > macd.signal", "macd < macd.signal"},
                {"bars since (high > turn.high) < 3", "bars since (low < turn.low) < 3"},
                {"mark turn.top stands within 4 bars", "mark turn.bottom stands within 4 bars"},
                {"mark turn pointing up  stands within 3 bars", "mark turn pointing down stands within 3 bars"},
                {"mark turn shaped chevron stands on this bar", "mark turn shaped chevron stands on this bar"},
                {"close > open # why\n  and (delta > 0 or pull < 50)",
                        "close < open # why\n  and (delta < 0 or pull > 50)"}};
    }

    @Test(dataProvider = "mirrors")
    public void aRuleIsMirrored(String rule, String expected) {
        Mirroring.Result result = program.mirrored(rule);
        assertEquals(result.text(), expected);
        assertEquals(result.left(), List.of());
        program.condition(result.text());
    }

    @Test
    public void whatHasNoOtherSideStaysAndIsSaid() {
        Mirroring.Result result = program
                .mirrored("close > 3.25 and delta > 0 and close > drawn \"Harbour wall\" and top > open");
        assertEquals(result.text(), "close > 3.25 and delta < 0 and close > drawn \"Harbour wall\" and top > open");
        assertEquals(result.left(), List.of("close > 3.25: a fixed price",
                "close > drawn \"Harbour wall\": what is drawn has no other side",
                "top > open: top has no other side"));
        assertEquals(program.mirroredLevel("low - 2 ticks").text(), "high + 2 ticks");
        assertEquals(program.mirroredLevel("mean.lower").text(), "mean.upper");
        assertEquals(program.mirroredLevel("3.25").left().size(), 1);
    }

    /** A law: on a mirrored tape the mirrored rule is true exactly where the rule is true on the tape. */
    @Test
    public void aMirroredRuleOnAMirroredTapeSaysTheSame() {
        for (long seed = 1; seed <= 20; seed++) {
            Tape tape = Computed.walk(seed, 1200);
            Program there = program(tape);
            Program mirrored = program(mirror(tape));
            for (Object[] row : mirrors()) {
                Condition a = there.condition((String) row[0]);
                Condition b = mirrored.condition((String) row[1]);
                for (int bar = 0; bar < there.rows(); bar++) {
                    assertEquals(b.at(bar), a.at(bar), row[0] + " at " + bar + " of tape " + seed);
                }
            }
        }
    }

    private static Program program(Tape tape) {
        Program program = RulesTest.program(List.of(), STUDIES, tape);
        assertEquals(program.rows(), SeriesBuilder.all(tape, Given.calendar(), BarSettings.of(new BarType.Ticks(2)))
                .count());
        return program;
    }

    private static Tape mirror(Tape tape) {
        TapeBuilder mirrored = new TapeBuilder(tape.count());
        for (int i = 0; i < tape.count(); i++) {
            Aggressor other = switch (tape.aggressor(i)) {
                case BUYER -> Aggressor.SELLER;
                case SELLER -> Aggressor.BUYER;
                default -> Aggressor.UNKNOWN;
            };
            mirrored.add(tape.time(i), -tape.price(i), tape.size(i), Tape.NONE, Tape.NONE,
                    java.util.Optional.of(other));
        }
        return mirrored.build();
    }

    @Test
    public void renamingAStudyRenamesItInRules() {
        assertEquals(Renaming.name("mean.upper > mean # the mean\nand meaning > top.mean", "mean", "tide"),
                "tide.upper > tide # the mean\nand meaning > top.mean");
        assertEquals(Renaming.name("close > time.bars and time is from 09:00 to 10:00", "time", "hour"),
                "close > hour.bars and time is from 09:00 to 10:00");
        assertEquals(Renaming.drawn("close > drawn \"Wall\" and open > drawn \"Wall 2\"", "Wall", "Mole"),
                "close > drawn \"Mole\" and open > drawn \"Wall 2\"");
    }

    @Test
    public void rowsAndTextAreOne() {
        String text = "close > mean.upper # far\nand push < -2 on any of the last 4 bars\nand drift is falling over 10 bars\nand (close > open or delta > 0)\nand trend.rising";
        RuleRows rows = RuleRows.of(text);
        assertEquals(rows.rows().stream().map(r -> r.parts().map(p -> p.left() + "|" + p.relation() + "|" + p.right()
                + "|" + p.timing()).orElse("text: " + r.text())).toList(),
                List.of("close|is above|mean.upper|", "push|is below|-2|on any of the last 4 bars",
                        "drift|is falling|10 bars|", "text: (close > open or delta > 0)", "trend.rising|holds||"));
        RuleRows.Parts changed = new RuleRows.Parts("close", "is at most", "mean.lower", "on each of the last 2 bars");
        String other = rows.with(0, changed.text());
        assertTrue(other.startsWith("close <= mean.lower on each of the last 2 bars # far\nand push"), other);
        assertEquals(RuleRows.of(other).rows().getFirst().parts().orElseThrow(), changed);
        assertTrue(rows.adding("delta > 0").endsWith("\nand trend.rising\nand delta > 0"));
        assertEquals(rows.without(4), text.substring(0, text.indexOf("\nand trend")));
        assertTrue(rows.without(0).startsWith("push < -2"), rows.without(0));
        assertTrue(rows.without(1).startsWith("close > mean.upper # far\nand drift")
                || rows.without(1).startsWith("close > mean.upper # far and drift"), rows.without(1));
        assertEquals(RuleRows.of("a > b or c > d").rows().size(), 1);
        assertEquals(RuleRows.of("a > b or c > d").adding("e > f"), "(a > b or c > d)\nand e > f");
        assertEquals(RuleRows.of("# nothing yet").rows(), List.of());
        assertEquals(RuleRows.of("# nothing yet").adding("close > open"), "# nothing yet\nclose > open");
        assertEquals(RuleRows.of("close > open").without(0), "");
    }

    @Test
    public void removingRowsInAnyOrderNeverBreaksTheRule() {
        SplittableRandom dice = new SplittableRandom(4);
        String[] parts = {"close > open", "(close > open or delta > 0)", "not trend.rising", "pull < 30 # low\n",
                "drift is falling over 2 bars", "push > 1 on any of the last 2 bars"};
        for (int round = 0; round < 200; round++) {
            String text = "";
            for (int i = 0; i < 5; i++) {
                text = RuleRows.of(text).adding(parts[dice.nextInt(parts.length)].replace("# low\n", ""));
                text += dice.nextInt(3) == 0 ? " # note " + i + "\n" : "";
            }
            while (!RuleRows.of(text).rows().isEmpty()) {
                int before = RuleRows.of(text).rows().size();
                text = RuleRows.of(text).without(dice.nextInt(before));
                assertEquals(RuleRows.of(text).rows().size(), before - 1, text);
            }
        }
    }

    @Test
    public void wordsAreCompletedAndExplained() {
        Assistance help = new Assistance(program);
        String text = "close > mea";
        List<Assistance.Suggestion> found = help.suggestions(text, text.length());
        assertEquals(found.stream().map(Assistance.Suggestion::text).toList(),
                List.of("mean", "mean.upper", "mean.lower", "mean.deviation"));
        assertEquals(found.get(1).help(), "upper of VWAP session");
        assertTrue(help.suggestions("close ris", 9).stream().anyMatch(s -> s.text().equals("rises through")));
        assertEquals(help.help(text + "n.upper", 12).orElseThrow(), "upper of VWAP session");
        assertEquals(help.help(text, 2).orElseThrow(), "last price of the bar");
        assertTrue(help.help("a rises through b", 4).orElseThrow().contains("was not above it"));
        assertTrue(help.help("close > open", 6).isEmpty());
    }
}
