package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.engine.SignalPlan;
import stativex.engine.Sizing;
import stativex.interlock.SignalPeriod;
import stativex.engine.Strategy;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.order.Order;
import stativex.study.StudyDefinition;

/**
 * Laws of working on a strategy: whatever is done to it in whatever order, a change touches nothing but what it is about,
 * what is written is read back, and asking what is wrong never fails.
 */
public class DraftLawsTest {
    private static final List<String> TEXTS = List.of("close > open", "close >", "", "nonsense (", "delta < 0 # calm",
            "not close > drift", "drift rises through close", "\"", "close when (delta > 0) first became true",
            "x".repeat(300), "trend.close > 1", "Größe > 3", "tide.upper - 2 ticks", "7", "-3 ticks");
    private final Contract contract = Documents.contract(Texts.CONTRACT, "contract.json").value();
    private SplittableRandom dice;

    private <T> T one(List<T> of) {
        return of.get(dice.nextInt(of.size()));
    }

    private <T> Optional<T> maybe(T value) {
        return dice.nextBoolean() ? Optional.of(value) : Optional.empty();
    }

    /** Everything that can be asked of a draft, by name. */
    private static Map<String, Object> facts(StrategyDraft draft) {
        Map<String, Object> facts = new LinkedHashMap<>();
        facts.put("name", draft.name());
        facts.put("contract", draft.contract());
        for (Side side : Side.values()) {
            facts.put("rule " + side, draft.rule(side));
            facts.put("price " + side, draft.price(side));
            facts.put("entry " + side, draft.entry(side));
            facts.put("apart " + side, draft.hasOwnEntry(side));
            facts.put("grades " + side, draft.grades(side));
            facts.put("enters " + side, draft.enters(side));
        }
        facts.put("bars", draft.bars());
        facts.put("studies", draft.studies());
        facts.put("series", draft.series());
        facts.put("filters", draft.filters());
        facts.put("maximum", draft.maximumPosition());
        facts.put("adds", draft.adds());
        facts.put("evaluate", draft.evaluate());
        facts.put("confirmation", draft.confirmation());
        facts.put("most", draft.most());
        facts.put("reverses", EntrySetup.reverses(draft));
        facts.put("two-sided", EntrySetup.twoSided(draft));
        facts.put("cuts", EntrySetup.cuts(draft));
        facts.put("exit", draft.exitPlan());
        return facts;
    }

    private record Done(String what, StrategyDraft draft, List<String> touched) {
        Done(String what, StrategyDraft draft, String... touched) {
            this(what, draft, List.of(touched));
        }
    }

    private BarType bars() {
        return one(List.of(new BarType.Ticks(dice.nextInt(1, 900)), new BarType.Volume(dice.nextInt(1, 900)),
                new BarType.Range(dice.nextInt(1, 90)), new BarType.Time(150_000_000L * dice.nextInt(1, 900)),
                new BarType.Renko(3, dice.nextInt(3, 12)), BarType.Period.DAY, BarType.Period.MONTH));
    }

    /** What a change of a side's entry touches: the other side, too, unless it stands apart. */
    private static List<String> entries(StrategyDraft d, Side side, boolean priced) {
        List<String> touched = new ArrayList<>(List.of("maximum"));
        for (Side each : Side.values()) {
            if (each == side || !d.hasOwnEntry(side) && !d.hasOwnEntry(each)) {
                touched.add("entry " + each);
                if (priced) {
                    touched.add("price " + each);
                }
            }
        }
        return touched;
    }

    private Done step(StrategyDraft d) {
        Side side = one(List.of(Side.values()));
        String text = one(TEXTS);
        return switch (dice.nextInt(25)) {
            case 0 -> {
                // a side that is emptied and has nothing else is no side
                yield new Done("rule", d.withRule(side, text), "rule " + side);
            }
            case 1 -> new Done("price", d.withPrice(side, maybe(text)), "price " + side);
            case 2 -> new Done("bars", d.withBars(bars()), "bars");
            case 3 -> new Done("order", d.withOrder(side, one(List.of(Order.Type.values()))), entries(d, side, true));
            case 4 -> new Done("good for", d.withGoodFor(side, one(List.of(new Strategy.GoodFor.Day(),
                    new Strategy.GoodFor.UntilCancelled(), new Strategy.GoodFor.Bars(dice.nextInt(1, 9))))),
                    entries(d, side, false));
            case 5 -> new Done("quantity", d.withQuantity(side, dice.nextInt(1, 9)), entries(d, side, false));
            case 6 -> new Done("maximum", d.withMaximumPosition(d.quantity() + dice.nextInt(4)), "maximum", "adds");
            case 7 -> new Done("evaluate", d.withEvaluate(one(List.of(SignalPlan.Evaluate.values()))), "evaluate");
            case 8 -> new Done("confirmation", d.withConfirmation(maybe(dice.nextInt(1, 5))), "confirmation");
            case 9 -> new Done("most", d.withMost(maybe(new SignalPlan.Most(dice.nextInt(1, 4),
                    one(List.of(SignalPeriod.values()))))), "most");
            case 10 -> {
                List<StudyDefinition> studies = new ArrayList<>(d.studies());
                if (studies.isEmpty() || dice.nextInt(3) == 0) {
                    studies.add(
                            StudyDefinition.of("study" + studies.size(), one(List.of("ema", "vwap", "odd", "formula")),
                                    "length", one(List.of("14", "0", "x"))));
                } else if (dice.nextBoolean()) {
                    studies.remove(dice.nextInt(studies.size()));
                } else {
                    int at = dice.nextInt(studies.size());
                    studies.set(at, studies.get(at).taking(text));
                }
                yield new Done("studies", d.withStudies(studies), "studies");
            }
            case 11 -> new Done("series", d.withSeries("series" + d.series().size(), bars()), "series");
            case 12 -> new Done("series bars", d.withSeriesBars("series0", bars()), "series");
            case 13 -> new Done("series contract", d.withSeriesContract("series" + dice.nextInt(3), maybe("MNH")),
                    "series");
            case 14 -> new Done("series away", d.withoutSeries("series" + dice.nextInt(3)), "series");
            case 15 -> {
                List<SignalPlan.Filter> filters = new ArrayList<>(d.filters());
                if (filters.isEmpty() || dice.nextBoolean()) {
                    filters.add(new SignalPlan.Filter("filter" + filters.size(), dice.nextBoolean(), maybe(text),
                            maybe(text)));
                } else {
                    filters.remove(dice.nextInt(filters.size()));
                }
                yield new Done("filters", d.withFilters(filters), "filters");
            }
            case 16 -> {
                List<Strategy.Grade> grades = new ArrayList<>(d.grades(side));
                if (grades.isEmpty() || dice.nextBoolean()) {
                    grades.add(new Strategy.Grade(one(List.of("plain", "strong")), text));
                } else {
                    grades.removeFirst();
                }
                yield new Done("grades", d.withGrades(side, grades, List.of(one(List.of("plain", "strong", "odd")))),
                        "grades " + side, "enters " + side);
            }
            case 17 -> new Done("reverse", EntrySetup.withReverse(d, dice.nextBoolean()), "reverses");
            case 18 ->
                new Done("reprice", EntrySetup.withReprice(d, side, dice.nextBoolean()), entries(d, side, false));
            case 19 ->
                new Done("market after", EntrySetup.withMarketAfter(d, side, maybe(dice.nextInt(1, 90))),
                        entries(d, side, false));
            case 20 -> new Done("two-sided", EntrySetup.withTwoSided(d, dice.nextBoolean()), "two-sided");
            case 21 -> new Done("cuts", EntrySetup.withCuts(d, dice.nextBoolean()), "cuts", "maximum");
            case 22 -> new Done("limit", EntrySetup.withLimitTicks(d, side, dice.nextInt(4)), entries(d, side, false));
            case 23 -> new Done("risk", EntrySetup.withRisk(d, side, new Strategy.Risk(
                    maybe(dice.nextBoolean() ? new Sizing.Amount(250_0000) : new Sizing.Percent(BigDecimal.TEN)),
                    maybe(400_5000L))), entries(d, side, false));
            default -> new Done("apart", d.withOwnEntry(side, dice.nextBoolean()), List.of("apart " + side,
                    "entry " + side, "rule " + side, "price " + side, "maximum"));
        };
    }

    @Test
    public void aChangeTouchesNothingElseAndIsReadBack() {
        int incomplete = 0;
        int complete = 0;
        for (long seed = 1; seed <= 60; seed++) {
            dice = new SplittableRandom(seed);
            StrategyDraft draft = StrategyDraft.of(Json.parse(Texts.STRATEGY.replace("\"exitFile\": \"plan.json\"",
                    "\"exit\": " + Texts.PLAN), "draft"));
            List<String> log = new ArrayList<>();
            for (int round = 0; round < 60; round++) {
                Done done = step(draft);
                log.add(done.what());
                Map<String, Object> before = facts(draft);
                Map<String, Object> after = facts(done.draft());
                for (String fact : before.keySet()) {
                    if (!done.touched().contains(fact)) {
                        assertEquals(after.get(fact), before.get(fact), fact + ", seed " + seed + ": " + log);
                    }
                }
                StrategyDraft again = StrategyDraft.of(Json.parse(done.draft().text(), "again"));
                assertEquals(facts(again), after, "seed " + seed + ": " + log);
                assertEquals(again, done.draft());
                for (var problem : done.draft().problems(contract, List.of())) {
                    assertTrue(!problem.what().isBlank(), problem.place());
                    incomplete++;
                }
                if (done.draft().problems(contract, List.of()).isEmpty()) {
                    complete++;
                    assertEquals(done.draft().strategy().value().name(), done.draft().name());
                }
                draft = done.draft();
            }
        }
        assertTrue(incomplete > 1000 && complete > 40, incomplete + " problems, complete " + complete + " times");
    }
}
