package stativex.desk.chart;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.desk.draw.SvgPen;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.files.SessionFile;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.Drawing;
import stativex.market.SeriesBuilder;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.VolumeByPrice;
import stativex.order.Terms;
import stativex.rule.Truth;
import stativex.rule.TruthColumn;
import stativex.study.Studies;
import stativex.study.StudyDefinition;
import stativex.trial.Run;

/** What a chart computes before anything is painted. */
public class ChartTest {
    private SessionFile.Set documents;
    private Contract contract;
    private Tape tape;
    private BarSeries series;

    @BeforeClass
    public void bars() {
        documents = Demo.documents();
        contract = documents.contract().value();
        tape = Demo.tape(contract);
        series = SeriesBuilder.all(tape, contract.calendar(), BarSettings.of(new BarType.Ticks(400)));
    }

    private ChartSpace space(ChartBars bars, double width, double height) {
        Viewport viewport = new Viewport();
        viewport.plotWidth(width);
        viewport.show(50, bars.count() - 1);
        int first = viewport.firstBar();
        int last = bars.count() - 1;
        PriceScale scale = PriceScale.fitting(6, height - 6, bars.lowest(first, last + 1),
                bars.highest(first, last + 1));
        return new ChartSpace(new ChartModel(bars, List.of(), Optional.empty(), Optional.empty()), ChartOptions.PLAIN,
                viewport, scale, first, last, width, height, width + 74, height + 80);
    }

    @Test
    public void studiesOfAHistoryAreThoseOfTheLiveEngineBitForBit() {
        Run run = Run.trial(documents.inputs(tape, Terms.DEFAULT));
        Snapshot.StrategyView live = run.engine().snapshot().strategies().getFirst();
        List<Snapshot.StudyView> history = HistoryStudies.of(live.strategy().signals().studies(), series,
                documents.contract().value().tickSize()).lines();
        assertEquals(series.count(), live.bars().count());
        assertEquals(history.size(), live.studies().size());
        for (int i = 0; i < history.size(); i++) {
            assertEquals(history.get(i).name(), live.studies().get(i).name());
            assertEquals(history.get(i).unit(), live.studies().get(i).unit());
            for (int bar = 0; bar < series.count(); bar++) {
                assertEquals(Double.doubleToLongBits(history.get(i).values().get(bar)),
                        Double.doubleToLongBits(live.studies().get(i).values().get(bar)),
                        history.get(i).name() + " " + bar);
            }
        }
    }

    @Test
    public void liveBarsAndAHistoryShowTheSame() {
        Run run = Run.trial(documents.inputs(tape, Terms.DEFAULT));
        Snapshot.StrategyView live = run.engine().snapshot().strategies().getFirst();
        ChartBars one = ChartBars.live(contract, tape, live.bars(), live.forming());
        ChartBars other = ChartBars.history(contract, series, false);
        assertEquals(one.count(), other.count());
        SplittableRandom dice = new SplittableRandom(1);
        for (int round = 0; round < 300; round++) {
            int from = dice.nextInt(one.count());
            int to = dice.nextInt(from + 1, one.count() + 1);
            assertEquals(other.highest(from, to), one.highest(from, to));
            assertEquals(other.lowest(from, to), one.lowest(from, to));
            assertEquals(other.mostVolume(from, to), one.mostVolume(from, to));
            assertEquals(other.before(from), one.before(from), "bar " + from);
            assertEquals(other.tradingDate(from), one.tradingDate(from));
            assertEquals(other.volumeByPrice(from).rows(), one.volumeByPrice(from).rows());
            assertEquals(one.barAt(one.end(from)), from);
            int print = dice.nextInt(tape.count());
            assertEquals(other.barOf(print), one.barOf(print));
        }
    }

    @Test
    public void breaksAreSessionsAndGaps() {
        ChartBars bars = ChartBars.history(contract, series, false);
        List<Integer> sessions = new ArrayList<>();
        for (int bar = 0; bar < bars.count(); bar++) {
            if (bars.before(bar) == ChartBars.Break.SESSION) {
                sessions.add(bar);
            }
            assertFalse(bars.before(bar) == ChartBars.Break.GAP, "the demo has no gaps");
        }
        assertEquals(sessions.size(), 10, "five days of two sessions");
        // leave half an hour of the last day out
        int from = tape.firstAt(bars.start(1100));
        int to = tape.firstAt(tape.time(from) + 30 * 60_000_000_000L);
        Tape gappy = Tape.joined(List.of(new Tape.Part(tape, 0, from, 0), new Tape.Part(tape, to, tape.count(), 0)));
        ChartBars other = ChartBars.history(contract,
                SeriesBuilder.all(gappy, contract.calendar(), BarSettings.of(new BarType.Ticks(1))), false);
        int gaps = 0;
        for (int bar = 0; bar < other.count(); bar++) {
            gaps += other.before(bar) == ChartBars.Break.GAP ? 1 : 0;
        }
        assertEquals(gaps, 1);
    }

    @Test
    public void bricksSayWhereTheNextOneCloses() {
        BarSeries bricks = SeriesBuilder.all(tape, contract.calendar(), BarSettings.of(new BarType.Renko(3, 6)));
        long[] next = ChartBars.history(contract, bricks, false).nextCloses().orElseThrow();
        long close = bricks.close(bricks.count() - 1);
        assertTrue(next[0] - close == 3 && close - next[1] == 6 || next[0] - close == 6 && close - next[1] == 3);
        assertEquals(ChartBars.history(contract, series, false).nextCloses(), Optional.empty());
    }

    @Test
    public void heikinAshiIsDrawnAndRealPricesStay() {
        ChartBars bars = ChartBars.history(contract, series, true);
        int bar = 100;
        assertEquals(bars.drawnClose(bar),
                ((double) series.open(bar) + series.high(bar) + series.low(bar) + series.close(bar)) / 4, 0);
        assertEquals(bars.close(bar), series.close(bar));
    }

    /** A chevron for each turning point in view, a diamond for each bar on which a formula holds; nothing when not shown. */
    @Test
    public void marksOfStudiesAreDrawn() {
        StudyDefinition pin = StudyDefinition.of("pin", StudyDefinition.FORMULA, StudyDefinition.MARK, "plain")
                .taking("close > open + 6 ticks");
        StudyDefinition turn = Studies.read("turn = swing 3");
        HistoryStudies made = HistoryStudies.of(List.of(turn, pin), series, contract.tickSize());
        assertEquals(made.marks().stream().map(Snapshot.MarkView::name).toList(),
                List.of("turn.top", "turn.bottom", "pin"));
        long tops = IntStream.range(0, series.count()).filter(bar -> made.marks().getFirst().ago().get(bar) >= 0)
                .count();
        assertTrue(tops > 10, "only " + tops);
        int plain = paths(new HistoryStudies(made.lines(), List.of()));
        assertTrue(paths(made) > plain + 2, "marks are drawn");
        assertEquals(HistoryStudies.of(List.of(Studies.read("turn = swing 3 show none")), series,
                contract.tickSize()).marks(), List.of());
    }

    private int paths(HistoryStudies made) {
        ChartView chart = new ChartView(new Viewport());
        chart.show(new ChartModel(ChartBars.history(contract, series, false), made.lines(), Optional.empty(),
                Optional.empty()).drawing(made.marks()));
        SvgPen pen = new SvgPen(1000, 600);
        chart.paint(pen, 1000, 600);
        return pen.document().split("<polyline", -1).length;
    }

    /** However many studies there are and however low the chart is, it is painted, and half of it is for prices. */
    @Test
    public void studiesLeaveRoomForPrices() {
        List<StudyDefinition> studies = Stream.of("day = previous day", "floor = approach of day.low",
                "roof = approach of day.high", "pull = stochastic 14", "gate = range minutes 30", "turn = divergence 3",
                "pace = macd 12", "hour = clock", "way = adx 14").map(Studies::read).toList();
        List<Snapshot.StudyView> views = HistoryStudies.of(studies, series, contract.tickSize()).lines();
        ChartModel model = new ChartModel(ChartBars.history(contract, series, false), views, Optional.empty(),
                Optional.empty());
        for (double wide : List.of(640.0, 900.0)) {
            ChartView chart = new ChartView(new Viewport());
            chart.options(ChartOptions.PLAIN.withStudyPanels(true));
            chart.show(model);
            for (double height = 20; height < 1200; height += 37) {
                SvgPen pen = new SvgPen(wide, height);
                chart.paint(pen, wide, height);
                Panels panels = Panels.fitting(model, chart.options(), height);
                assertTrue(panels.height() <= Math.max(height / 2, 61), panels.height() + " of " + height);
                assertEquals(pen.document().contains("no room here"), height < 790, "at " + height);
            }
        }
        // one panel for a study, a row for each yes or no, the main output by the study's name
        ChartView chart = new ChartView(new Viewport());
        chart.options(ChartOptions.PLAIN.withStudyPanels(true));
        chart.show(model);
        SvgPen pen = new SvgPen(640, 1600);
        chart.paint(pen, 640, 1600);
        for (String words : List.of(">pull, signal<", ">floor: longs, shorts<", ">floor.armed_above<",
                ">gate.complete<",
                ">turn.bullish<")) {
            assertTrue(pen.document().contains(words), words);
        }
    }

    @Test
    public void dayBarsHaveNoGapsBetweenThem() {
        for (BarType type : List.of(BarType.Period.DAY, new BarType.Time(1800L * 1_000_000_000))) {
            ChartBars bars = ChartBars.history(contract, SeriesBuilder.all(tape, contract.calendar(),
                    BarSettings.of(type)), false);
            for (int bar = 0; bar < bars.count(); bar++) {
                assertFalse(bars.before(bar) == ChartBars.Break.GAP, type.words() + ", bar " + bar);
            }
        }
    }

    @Test
    public void zoomingKeepsTheBarUnderTheCursor() {
        SplittableRandom dice = new SplittableRandom(2);
        Viewport viewport = new Viewport();
        viewport.plotWidth(900);
        for (int round = 0; round < 1000; round++) {
            viewport.show(dice.nextInt(10, 5000), dice.nextInt(1000, 100_000));
            double x = dice.nextDouble(900);
            double bar = viewport.barAt(x);
            viewport.zoom(dice.nextDouble(0.8, 1.25), x);
            assertEquals(viewport.barAt(x), bar, 1);
        }
        viewport.fit(1_000_000);
        assertEquals(viewport.firstBar(), 0);
        assertTrue(viewport.barAt(900) >= 999_998);
        assertFalse(viewport.following());
        viewport.follow();
        viewport.newest(1000, 90);
        assertEquals(viewport.x(1000), 810, 1e-6);
    }

    @Test
    public void whatIsCountedIsWhatTheCellsShowAndTheyStandUnderTheirBars() {
        SplittableRandom dice = new SplittableRandom(5);
        byte[] truths = new byte[3000];
        dice.nextBytes(truths);
        for (int bar = 0; bar < truths.length; bar++) {
            truths[bar] = (byte) (truths[bar] > 90 ? Truth.TRUE : truths[bar] < -110 ? Truth.ABSENT : Truth.FALSE);
        }
        Snapshot.Lane all = new Snapshot.Lane("all", new TruthColumn.View(truths, truths.length));
        Pattern cell = Pattern.compile("<rect x=\"([-0-9.]+)\" y=\"[0-9.]+\" width=\"([0-9.]+)\" height=\"12\" fill=\""
                + String.format("#%.6s", Palette.AUTOMATION.toString().substring(2).toUpperCase(Locale.ROOT)) + "\"");
        for (int round = 0; round < 200; round++) {
            double width = dice.nextInt(300, 1500);
            Viewport viewport = new Viewport();
            viewport.plotWidth(width - ChartView.AXIS);
            viewport.show(dice.nextInt(3, 60), dice.nextInt(40, truths.length + 5));
            LanesView lanes = new LanesView(viewport);
            lanes.show(List.of(all), Side.LONG, Optional.empty(), Optional.empty());
            SvgPen pen = new SvgPen(width, 20);
            lanes.paint(pen, width, 20);
            int seen = 0;
            Matcher cells = cell.matcher(pen.document());
            while (cells.find()) {
                double middle = Double.parseDouble(cells.group(1)) + Double.parseDouble(cells.group(2)) / 2;
                assertTrue(middle > -1 && middle < viewport.plotWidth() + 1, "cell at " + middle);
                assertEquals(truths[viewport.barAt(middle)], Truth.TRUE);
                seen++;
            }
            int first = viewport.firstSeen();
            int last = viewport.lastSeen(truths.length);
            assertEquals(seen, all.held(first, last));
            assertTrue(pen.document().contains(">" + seen + " of " + (last - first + 1) + "<"), pen.document());
            viewport.reveal(Math.max(0, first - 7), truths.length);
            assertTrue(viewport.x(Math.max(0, first - 7)) >= -1e-6);
        }
    }

    @Test
    public void thePriceScaleTurnsPricesIntoPixelsAndBack() {
        SplittableRandom dice = new SplittableRandom(3);
        for (int round = 0; round < 500; round++) {
            double low = dice.nextInt(-5000, 5000);
            PriceScale scale = PriceScale.fitting(6, 400, low, low + dice.nextInt(0, 3000));
            double price = dice.nextDouble(-5000, 8000);
            assertEquals(scale.price(scale.y(price)), price, 1e-6);
            assertTrue(scale.y(low) < 406 && scale.y(low) > 6);
            assertEquals(scale.stretched(2).pixels(), scale.pixels() / 2, scale.pixels() / 1e6);
            assertEquals(scale.moved(10).y(price), scale.y(price) + 10, 1e-6);
            List<Long> grid = scale.grid(40, 7);
            for (int i = 1; i < grid.size(); i++) {
                assertTrue(scale.y(grid.get(i - 1)) - scale.y(grid.get(i)) >= 39.9);
                assertEquals(Math.floorMod(grid.get(i) - 7, grid.get(i) - grid.get(i - 1)), 0L, "round from 7 on");
            }
        }
    }

    @Test
    public void drawingsAreFoundMovedAndNamed() {
        ChartBars bars = ChartBars.history(contract, series, false);
        ChartSpace s = space(bars, 800, 400);
        List<List<Drawing>> kept = new ArrayList<>();
        Drawings drawings = new Drawings(List.of(), kept::add);
        long price = bars.close(s.last());
        drawings.add(new Drawing.Level("level", price));
        drawings.add(
                new Drawing.Slope("slope", bars.start(s.first() + 10), price, bars.start(s.first() + 20), price + 8));
        drawings.add(new Drawing.Level("level", price + 4));
        assertEquals(drawings.all().stream().map(Drawing::name).toList(), List.of("level 1", "slope 1", "level 2"));
        double y = s.scale().y(price);
        assertTrue(drawings.select(s, 5, y));
        assertEquals(drawings.selected().orElseThrow().name(), "level 1");
        drawings.drag(s, 5, y, 5, s.scale().y(price - 10));
        drawings.moved();
        assertEquals(((Drawing.Level) kept.getLast().getFirst()).price(), price - 10);
        // near its second point only that one moves
        double x2 = s.viewport().centre(s.first() + 20);
        double y2 = s.scale().y(price + 8);
        assertTrue(drawings.select(s, x2, y2));
        drawings.drag(s, x2, y2, x2 + 2 * s.viewport().barWidth(), s.scale().y(price + 11));
        Drawing.Slope slope = (Drawing.Slope) drawings.all().get(1);
        assertEquals(slope.price1(), price);
        assertEquals(slope.price2(), price + 11);
        assertEquals(slope.time1(), bars.start(s.first() + 10));
        assertEquals(slope.time2(), bars.start(s.first() + 22));
        assertEquals(drawings.rename("level 2"), Optional.of("there is one of that name already"));
        assertEquals(drawings.rename(" "), Optional.of("a name is needed"));
        assertEquals(drawings.rename("lid"), Optional.empty());
        assertEquals(kept.getLast().get(1).name(), "lid");
        drawings.remove();
        assertEquals(drawings.all().size(), 2);
        assertTrue(drawings.undo());
        assertEquals(drawings.all().get(1).name(), "lid");
        assertTrue(drawings.undo());
        assertEquals(kept.getLast().get(1).name(), "slope 1", "the name goes back, and that is kept");
        assertFalse(drawings.select(s, 400, s.scale().y(price + 200)));
    }

    @Test
    public void linkedChartsFollowEachOther() {
        ChartLink link = new ChartLink();
        List<String> one = new ArrayList<>();
        List<String> two = new ArrayList<>();
        ChartLink.Follower first = (contract, time) -> one.add(contract + time);
        ChartLink.Follower second = (contract, time) -> two.add(contract + time);
        link.join(first);
        link.join(second);
        link.point(first, "TDL", Optional.of(5L));
        link.leave(second);
        link.point(first, "TDL", Optional.empty());
        assertEquals(one, List.of());
        assertEquals(two, List.of("TDLOptional[5]"));
    }

    @Test
    public void flowOfABarAddsUpToItsVolume() {
        BarSeries bars = SeriesBuilder.all(tape, contract.calendar(), BarSettings.of(new BarType.Volume(700)));
        ChartBars chart = ChartBars.history(contract, bars, false);
        for (int bar = 0; bar < bars.count(); bar += 7) {
            VolumeByPrice flow = chart.volumeByPrice(bar);
            assertEquals(flow.volume(), bars.volume(bar));
            assertEquals(flow.bought() - flow.sold(), chart.delta(bar));
            long most = flow.rows().stream().mapToLong(VolumeByPrice.Row::volume).max().orElseThrow();
            assertEquals(flow.most().orElseThrow().volume(), most);
        }
    }

    /** A pin's letter means one reason, and the guide explains it. */
    @Test
    public void everyReasonHasItsLetterInTheGuide() throws Exception {
        String guide = java.nio.file.Files.readString(java.nio.file.Path.of("..", "docs", "guide.md"));
        java.util.Map<String, stativex.interlock.Reason> letters = new java.util.HashMap<>();
        for (stativex.interlock.Reason reason : stativex.interlock.Reason.values()) {
            String letter = Pins.letter(reason);
            stativex.interlock.Reason before = letters.put(letter, reason);
            assertTrue(before == null || letter.equals("x"), letter + " stands for " + before + " and " + reason);
            assertTrue(guide.contains("| " + letter + " | "), letter + " is explained");
            assertNotEquals(letter, "r", "that is what the exchange refuses");
        }
    }
}
