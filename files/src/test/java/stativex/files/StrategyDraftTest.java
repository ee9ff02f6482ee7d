package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.Test;
import stativex.engine.SignalPlan;
import stativex.interlock.SignalPeriod;
import stativex.engine.Strategy;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.Drawing;
import stativex.market.Money;
import stativex.market.SessionCalendar;
import stativex.market.Side;
import stativex.order.Order;
import stativex.study.StudyDefinition;

/** A strategy while it is worked on: incomplete, changed field by field, nothing lost. */
public class StrategyDraftTest {
    private final Contract contract = new Contract("TDL", "Tidal Power index", "NZD", new BigDecimal("0.25"),
            Money.parse("6.25"), 1,
            new SessionCalendar(ZoneOffset.UTC, Map.of(DayOfWeek.MONDAY, List.of(new SessionCalendar.Hours("Day",
                    LocalTime.of(1, 0), 0, LocalTime.of(2, 0), 0))), Map.of()),
            Optional.empty());

    private static List<String> places(StrategyDraft draft, Contract on) {
        return draft.problems(on, List.of()).stream().map(p -> p.place()).toList();
    }

    @Test
    public void anEmptyOneSaysWhatIsMissing() {
        StrategyDraft draft = StrategyDraft.empty("Neap", "TDL");
        assertEquals(places(draft, contract), List.of("long", "exit"));
        StrategyDraft ruled = draft.withRule(Side.LONG, "close > opn");
        assertEquals(places(ruled, contract), List.of("long.rule", "exit"));
        assertEquals(ruled.problems(contract, List.of()).getFirst().from(), 8);
        assertEquals(ruled.withRule(Side.LONG, ""), draft, "a side that is emptied is no side");
    }

    @Test
    public void everyFieldIsReadBackAsItWasWritten() {
        StrategyDraft draft = StrategyDraft.empty("Neap", "TDL").withRule(Side.LONG, "close > drift")
                .withRule(Side.SHORT, "close < drift").withOrder(Side.LONG, Order.Type.LIMIT)
                .withPrice(Side.LONG, Optional.of("close - 1 tick"))
                .withPrice(Side.SHORT, Optional.of("close + 1 tick"))
                .withStudies(List.of(StudyDefinition.of("drift", "ema", "length", "34").taking("high")))
                .withGoodFor(Side.LONG, new Strategy.GoodFor.Bars(3)).withQuantity(Side.LONG, 2).withMaximumPosition(6)
                .withEvaluate(SignalPlan.Evaluate.EVERY_TRADE).withConfirmation(Optional.of(2))
                .withMost(Optional.of(new SignalPlan.Most(1, SignalPeriod.SESSION)))
                .withFilters(List.of(new SignalPlan.Filter("wide", false, Optional.of("high > low"), Optional.empty())))
                .withGrades(Side.LONG, List.of(new Strategy.Grade("strong", "delta > 9")), List.of("strong"))
                .withSeries("trend", new BarType.Renko(3, 6));
        draft = EntrySetup.withMarketAfter(EntrySetup.withReprice(draft, Side.LONG, true), Side.LONG, Optional.of(20));
        draft = EntrySetup.withReverse(draft, true);
        for (BarType type : List.of(new BarType.Ticks(300), new BarType.Volume(500), new BarType.Range(9),
                new BarType.Time(1_500_000_000L), new BarType.Renko(2, 5), BarType.Period.WEEK)) {
            assertEquals(draft.withBars(type).bars().orElseThrow().type(), type);
        }
        SignalPlan plan = draft.signals().orElseThrow();
        assertEquals(plan.studies(), draft.studies());
        assertEquals(plan.studies().getFirst().words(), "EMA 34 of high");
        assertEquals(plan.confirmWithin(), Optional.of(2));
        assertEquals(plan.most().orElseThrow().period(), SignalPeriod.SESSION);
        assertEquals(plan.filters().getFirst().on(), false);
        assertEquals(plan.series().getFirst().bars().type(), new BarType.Renko(3, 6));
        Strategy.Entry entry = draft.entry(Side.LONG).orElseThrow();
        assertEquals(entry, new Strategy.Entry(Order.Type.LIMIT, 2, new Strategy.GoodFor.Bars(3), true,
                Optional.of(20), false, 0, Strategy.Risk.NONE));
        assertTrue(draft.adds() && draft.maximumPosition() == 6 && EntrySetup.reverses(draft));
        assertEquals(draft.side(Side.LONG).orElseThrow().enters(), List.of("strong"));
        assertEquals(places(draft, contract), List.of("exit"));
        assertEquals(draft.entry(Side.SHORT), draft.entry(Side.LONG));
        // a side of its own begins with what both have, and then stands alone
        StrategyDraft apart = draft.withOwnEntry(Side.SHORT, true).withOrder(Side.SHORT, Order.Type.MARKET)
                .withQuantity(Side.SHORT, 5);
        assertEquals(apart.entry(Side.LONG), draft.entry(Side.LONG));
        assertEquals(apart.price(Side.LONG), Optional.of("close - 1 tick"));
        assertEquals(apart.price(Side.SHORT), Optional.empty());
        assertEquals(apart.entry(Side.SHORT).orElseThrow(),
                new Strategy.Entry(Order.Type.MARKET, 5, new Strategy.GoodFor.Day()));
        assertEquals(apart.quantity(), 5);
        assertEquals(apart.side(Side.SHORT).orElseThrow().entry(), apart.entry(Side.SHORT));
        assertEquals(places(apart, contract), List.of("exit"));
        assertEquals(apart.withOwnEntry(Side.SHORT, false).entry(Side.SHORT), draft.entry(Side.LONG));
        // a market entry has no price and does not rest
        StrategyDraft market = draft.withOrder(Side.LONG, Order.Type.MARKET);
        assertEquals(market.price(Side.LONG), Optional.empty());
        assertEquals(places(market, contract), List.of("exit"));
    }

    @Test
    public void aStudysNewNameStandsEverywhere() {
        StrategyDraft draft = StrategyDraft.empty("Neap", "TDL")
                .withStudies(List.of(StudyDefinition.of("mean", "vwap"),
                        StudyDefinition.of("top", StudyDefinition.FORMULA).taking("mean.upper + 2 ticks")))
                .withRule(Side.LONG, "close > mean.upper and meaning > 1").withOrder(Side.LONG, Order.Type.STOP)
                .withPrice(Side.LONG, Optional.of("mean + 1 tick"))
                .withFilters(List.of(new SignalPlan.Filter("f", true, Optional.empty(), Optional.of("low < mean"))));
        StrategyDraft renamed = draft.renamed("mean", "tide");
        assertEquals(renamed.rule(Side.LONG), "close > tide.upper and meaning > 1");
        assertEquals(renamed.price(Side.LONG).orElseThrow(), "tide + 1 tick");
        assertEquals(renamed.studies().get(1).of().orElseThrow(), "tide.upper + 2 ticks");
        assertEquals(renamed.signals().orElseThrow().filters().getFirst().shortRule().orElseThrow(), "low < tide");
        assertEquals(renamed.renamed("tide", "mean"), draft);
    }

    @Test
    public void drawnThingsThatRulesNameGoAlong() {
        List<Drawing> drawn = List.of(new Drawing.Level("Wall", 5000), new Drawing.Level("Other", 1));
        StrategyDraft draft = StrategyDraft.empty("Neap", "TDL").withRule(Side.LONG, "close > drawn \"Wall\"");
        StrategyDraft with = draft.withDrawings(drawn, contract);
        assertEquals(with.signals().orElseThrow().drawings().stream().map(d -> d.on(contract)).toList(),
                drawn.subList(0, 1));
        // moved on the chart it moves here; taken away there it stays
        StrategyDraft moved = with.withDrawings(List.of(new Drawing.Level("Wall", 5001)), contract);
        assertEquals(moved.signals().orElseThrow().drawings().getFirst().price(), "1250.25");
        assertEquals(moved.withDrawings(List.of(), contract), moved);
        assertEquals(moved.withRule(Side.LONG, "close > open").withDrawings(drawn, contract).text(),
                StrategyDraft.empty("Neap", "TDL").withRule(Side.LONG, "close > open").text());
    }

    @Test
    public void theFolderKeepsEachUnderItsName() throws IOException {
        Path place = Files.createTempDirectory("strategies");
        StrategyFolder folder = new StrategyFolder(place);
        StrategyDraft one = StrategyDraft.empty("Ebb fade", "TDL");
        StrategyDraft other = StrategyDraft.empty("Ebb-fade!", "TDL");
        folder.keep(one);
        folder.keep(other);
        Files.writeString(place.resolve("half.strategy.json"), "{\"document\": ");
        StrategyFolder.Found found = folder.list();
        assertEquals(List.copyOf(found.strategies()).size(), 2);
        assertTrue(found.strategies().contains(one) && found.strategies().contains(other));
        assertTrue(found.unreadable().getFirst().contains("half.strategy.json"), found.unreadable().toString());
        folder.keepVersion(one, "0a1b");
        folder.remove("Ebb fade");
        assertEquals(folder.list().strategies(), List.of(other));
        assertTrue(Files.exists(place.resolve("versions/ebb-fade-0a1b.strategy.json")));
    }

    /** While something in it is wrong, changing the rest loses nothing, and what is wrong stays to be mended. */
    @Test
    public void whatCannotBeReadStaysWhileTheRestIsChanged() {
        String text = Texts.STRATEGY.replace("\"studies\": [", "\"studies\": [{\"name\": \"odd\", \"study\": \"ema\","
                + " \"length\": 0}, {\"study\": 7}, ")
                .replace("\"entry\"", "\"filters\": [{\"name\": \"calm\", \"long\":"
                        + " \"delta > 0\"}, {\"long\": 5}, {\"name\": \"late\", \"on\": false, \"short\": \"delta < 0\"}],"
                        + " \"series\": [{\"name\": \"trend\", \"bars\": \"tick\"}, {\"name\": \"wide\", \"bars\": \"tick\","
                        + " \"size\": 90}], \"confirmWithinBars\": 3, \"evaluate\": \"every trade\","
                        + " \"signalsPerPeriod\": {\"most\": 2, \"period\": \"session\"}, \"entry\"")
                .replace("{\"rule\": \"close > open\"}",
                        "{\"rule\": \"close > open\", \"grades\": [{\"name\": \"plain\","
                                + " \"rule\": \"delta > 1\"}, {\"name\": 3}], \"enters\": [\"plain\"]}");
        StrategyDraft draft = StrategyDraft.of(Json.parse(text, "draft"));
        assertEquals(draft.signals(), Optional.empty(), "as a whole it does not read");
        assertEquals(draft.studies().stream().map(StudyDefinition::name).toList(), List.of("odd", "drift"));
        assertEquals(draft.filters().stream().map(SignalPlan.Filter::name).toList(), List.of("calm", "late"));
        assertEquals(draft.series().stream().map(s -> s.name()).toList(), List.of("wide"));
        assertEquals(draft.grades(Side.LONG).size(), 1);
        assertEquals(draft.evaluate(), SignalPlan.Evaluate.EVERY_TRADE);
        assertEquals(draft.confirmation(), Optional.of(3));
        assertEquals(draft.most().orElseThrow().signals(), 2);
        StrategyDraft changed = draft.withStudies(List.of(draft.studies().get(1).named("tide")))
                .withFilters(List.of(draft.filters().get(1)))
                .withSeriesBars("wide", new BarType.Ticks(70)).withSeriesContract("wide", Optional.of("MNH"))
                .withSeriesBars("none", new BarType.Ticks(1))
                .withGrades(Side.LONG, List.of(new Strategy.Grade("strong", "delta > 9")), List.of("strong"));
        assertEquals(changed.studies().stream().map(StudyDefinition::name).toList(), List.of("tide"));
        assertTrue(changed.text().contains("\"study\" : 7") || changed.text().contains("\"study\": 7"), changed.text());
        assertTrue(changed.text().contains("\"long\" : 5") || changed.text().contains("\"long\": 5"), changed.text());
        assertEquals(changed.filters(), List.of(draft.filters().get(1)));
        assertEquals(changed.series().getFirst().contract(), Optional.of("MNH"));
        assertEquals(changed.series().getFirst().bars().type(), new BarType.Ticks(70));
        assertEquals(changed.grades(Side.LONG).getFirst().name(), "strong");
        assertEquals(changed.enters(Side.LONG), List.of("strong"));
        assertEquals(changed.withoutSeries("wide").withoutSeries("none").series(), List.of());
        assertTrue(changed.withoutSeries("wide").text().contains("\"trend\""));
        assertFalse(changed.problems(Documents.contract(Texts.CONTRACT, "contract").value(), List.of()).isEmpty());
    }
}
