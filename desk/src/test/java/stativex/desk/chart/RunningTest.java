package stativex.desk.chart;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.desk.draw.SvgPen;
import stativex.engine.Decision;
import stativex.engine.Snapshot;
import stativex.engine.Trade;
import stativex.files.SessionFile;
import stativex.market.BarSeries;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.trial.Run;

/** What strategies do, on charts of other bars than theirs. */
public class RunningTest {
    private Contract contract;
    private Tape tape;
    private Snapshot snapshot;

    @BeforeClass
    public void run() {
        SessionFile.Set documents = Demo.documents();
        contract = documents.contract().value();
        tape = Demo.tape(contract);
        snapshot = Run.trial(documents.inputs(tape, Terms.DEFAULT)).engine().snapshot();
    }

    @DataProvider
    public Object[][] bars() {
        return new Object[][]{{new BarType.Ticks(150)}, {new BarType.Volume(900)}, {new BarType.Range(8)},
                {new BarType.Renko(3, 6)}, {new BarType.Time(300 * 1_000_000_000L)}};
    }

    private ChartModel model(BarSeries series) {
        return new ChartModel(ChartBars.history(contract, series, false), List.of(), Optional.empty(),
                Optional.empty());
    }

    private List<Pins.Pin> pins(ChartModel model) {
        Viewport viewport = new Viewport();
        viewport.plotWidth(1200);
        int count = model.bars().count();
        viewport.fit(count);
        PriceScale scale = PriceScale.fitting(6, 394, model.bars().lowest(0, count), model.bars().highest(0, count));
        Pins pins = new Pins();
        pins.draw(new SvgPen(1200, 500), new ChartSpace(model, ChartOptions.PLAIN, viewport, scale, 0, count - 1,
                1200, 400, 1350, 500));
        return IntStream.range(0, count).boxed().flatMap(bar -> java.util.stream.Stream.iterate(
                pins.next(bar, Optional.empty()), Optional::isPresent, pin -> pins.next(bar, pin))
                .map(Optional::orElseThrow)).toList();
    }

    /** The one bar, counted from the left, whose prints reach a print. */
    private static int holding(BarSeries series, int print) {
        int bar = 0;
        while (bar < series.count() && series.last(bar) < print) {
            bar++;
        }
        return bar;
    }

    @Test(dataProvider = "bars")
    public void everyTradeStandsAtTheBarsThatHoldItsPrints(BarType type) {
        BarSeries series = SeriesBuilder.all(tape, contract.calendar(), BarSettings.of(type));
        List<ChartModel.StrategyLayer> running = ChartModel.running(snapshot);
        List<Pins.Pin> pins = pins(model(series).with(running));
        int trades = 0;
        for (ChartModel.StrategyLayer layer : running) {
            for (Trade trade : layer.trades()) {
                trades++;
                String entered = "Trade " + trade.number() + ": " + trade.side().word();
                assertTrue(pins.stream().anyMatch(pin -> pin.bar() == holding(series, trade.entryPrint())
                        && pin.words().getFirst().startsWith(entered)), entered);
                String left = "Trade " + trade.number() + " left";
                assertTrue(pins.stream().anyMatch(pin -> pin.bar() == holding(series, trade.exitPrint())
                        && pin.words().getFirst().startsWith(left)), left);
            }
        }
        assertTrue(trades > 0);
        long declined = running.stream().flatMap(layer -> layer.decisions().stream())
                .filter(d -> d.kind() == Decision.Kind.DECLINED || d.kind() == Decision.Kind.WOULD_BE
                        || d.kind() == Decision.Kind.REJECTED)
                .count();
        assertEquals(pins.size(), 2 * trades + declined);
        assertEquals(pins(model(series)), List.of(), "without what runs there is none");
    }

    @Test
    public void nothingIsDrawnAnewForWhatLooksTheSame() {
        BarSeries series = SeriesBuilder.all(tape, contract.calendar(), BarSettings.of(new BarType.Ticks(400)));
        List<ChartModel.StrategyLayer> running = ChartModel.running(snapshot);
        ChartModel model = model(series).with(running);
        assertTrue(model.looksLike(ChartModel.running(snapshot)));
        assertFalse(model.looksLike(List.of()));
        assertFalse(model(series).looksLike(running));
        ChartModel.StrategyLayer one = running.getFirst();
        ChartModel.StrategyLayer fewer = new ChartModel.StrategyLayer(one.view(),
                one.trades().subList(0, one.trades().size() - 1), one.decisions(), one.entries());
        assertFalse(model.looksLike(running.stream().map(l -> l == one ? fewer : l).collect(Collectors.toList())));
        ChartView chart = new ChartView(new Viewport());
        chart.show(model(series));
        chart.running(running);
        ChartModel shown = chart.model().orElseThrow();
        assertEquals(shown.running(), running);
        chart.running(ChartModel.running(snapshot));
        assertTrue(chart.model().orElseThrow() == shown);
        chart.running(List.of());
        assertEquals(chart.model().orElseThrow().running(), List.of());
    }
}
