package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.ContractLimits;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.market.Money;
import stativex.market.TapeTime;

/** Limits and rulebooks as documents, as a person's fields, and back. */
public class LimitsDocumentsTest {
    private static final String EVERY_RULE = """
            {"document":"rulebook","version":1,"name":"Petrel Steps 60K","rules":[
             {"rule":"drawdown floor","kind":"end of day","allowance":"2400.00","lockAt":"40000.00","guard":{"on":true,"marginTicks":4}},
             {"rule":"day loss","amount":"900.00","from":"equity","breaks":true},
             {"rule":"size","most":2,"tiers":[{"fromProfit":"1200.00","most":3}],"micros":[{"contract":"MTD","counts":"1/8"}]},
             {"rule":"profit target","amount":"3600.00"},
             {"rule":"fewest days","days":6},
             {"rule":"consistency","percent":"40"},
             {"rule":"flat by","time":"16:45","zone":"Pacific/Auckland"},
             {"rule":"no overnight","leadSeconds":60},
             {"rule":"quiet times","minutesBefore":3,"minutesAfter":4},
             {"rule":"stop to target","ratio":"2.5"},
             {"rule":"holding time","seconds":10,"percent":"50"},
             {"rule":"payout","buffer":"2500.00","winningDays":5,"winningDay":"150.00","cap":"1500.00"}]}""";

    private static Documents.Read<Account> account(String rulebook, String more) {
        return Documents.account("""
                {"document":"account","version":1,"name":"Gannet Row 40K","currency":"NZD","start":"40000.00",
                 "fees":[{"contract":"TDL","perSide":"2.15"}],%s "rulebook":%s}""".formatted(more, rulebook),
                "account.json", name -> name);
    }

    private static final String QUIET = """
            "quietTimes":{"on":true,"minutesBefore":5,"minutesAfter":1,"action":"no entries",
             "releases":[{"time":"2026-09-24T02:30:00Z","title":"Tide table","impact":"high"}]},""";

    @Test
    public void everyRuleReads() {
        Rulebook book = account(EVERY_RULE, QUIET).value().rulebook();
        assertEquals(book.rules().size(), 12);
        Rulebook.Size size = book.of(Rulebook.Size.class).findFirst().orElseThrow();
        assertEquals(size.at(1200 * Money.UNIT), 3);
        assertEquals(size.micros().get("MTD"), new Rulebook.Share(1, 8));
        assertEquals(book.of(Rulebook.Consistency.class).findFirst().orElseThrow().percent(), new BigDecimal("40"));
        assertEquals(book.of(Rulebook.NoOvernight.class).findFirst().orElseThrow().lead(), 60 * TapeTime.SECOND);
        assertEquals(book.of(Rulebook.Payout.class).findFirst().orElseThrow().cap(), Optional.of(1500 * Money.UNIT));
        book.rules().forEach(rule -> {
            assertFalse(RuleWords.name(rule).isBlank());
            assertFalse(RuleWords.said(rule).isBlank());
        });
        // what the book forbids is the wider of both, and flat
        QuietTimes quiet = account(EVERY_RULE, QUIET).value().own().quietTimes();
        QuietTimes.Quiet one = quiet.times().getFirst();
        assertEquals(quiet.action(), QuietTimes.Action.FLATTEN);
        assertEquals(one.to() - one.release().time(), 4 * 60 * TapeTime.SECOND);
        assertEquals(one.release().time() - one.acts(), (5 * 60 + 30) * TapeTime.SECOND);
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][]{
                {EVERY_RULE.replace("\"fromProfit\":\"1200.00\",\"most\":3", "\"fromProfit\":\"1200.00\",\"most\":3},"
                        + "{\"fromProfit\":\"1200.00\",\"most\":4"), "higher profit"},
                {EVERY_RULE.replace("\"lockAt\":\"40000.00\"", "\"lockAt\":\"37000.00\""), "lock"},
                {EVERY_RULE.replace("\"1/8\"", "\"an eighth\""), "such as 1/8"},
                {EVERY_RULE.replace("\"1/8\"", "\"1/0\""), "part of one"},
                {EVERY_RULE.replace("\"most\":2", "\"most\":0"), "1 or more"},
                {EVERY_RULE.replace("\"percent\":\"40\"", "\"percent\":\"140\""), "at most 100"},
                {EVERY_RULE.replace("Pacific/Auckland", "Pacific/Nowhere"), "IANA zone"},
                {EVERY_RULE.replace("\"fewest days\",\"days\":6", "\"fewest days\",\"days\":0"), "whole number from 1"},
                {EVERY_RULE.replace("\"rule\":\"no overnight\"", "\"rule\":\"no lunch\""), "no lunch"}};
    }

    @Test(dataProvider = "wrong")
    public void whatCanNotBeMeantIsRefusedInWords(String book, String words) {
        BadInput refused = expectThrows(BadInput.class, () -> account(book, QUIET));
        assertTrue(refused.getMessage().contains(words), refused.getMessage());
    }

    @Test
    public void aBookThatForbidsQuietTimesNeedsACalendar() {
        BadInput refused = expectThrows(BadInput.class, () -> account(EVERY_RULE, ""));
        assertTrue(refused.getMessage().contains("with releases, found none"), refused.getMessage());
    }

    @Test
    public void limitsOfContractsAreReadAndRefused() {
        String none = "{\"document\":\"rulebook\",\"version\":1,\"name\":\"none\",\"rules\":[]}";
        Account read = account(none, """
                "tradesADay":7,"contractLimits":[{"contract":"TDL","dayLoss":{"on":true,"amount":"300.00"},
                 "dayProfit":{"on":false,"amount":"10.00"},"tradesADay":3,"mostContracts":2}],""").value();
        assertEquals(read.own().tradesADay(), Optional.of(7));
        ContractLimits limits = read.limits("TDL");
        assertEquals(limits.day().loss().orElseThrow().amount(), 300 * Money.UNIT);
        assertFalse(limits.day().loss().orElseThrow().guard().on(), "a guard of theirs is off where nothing is said");
        assertEquals(limits.day().profit(), Optional.empty());
        assertEquals(List.of(limits.tradesADay().orElseThrow(), limits.most().orElseThrow()), List.of(3, 2));
        assertEquals(read.limits("MNH"), ContractLimits.NONE);
        BadInput unknown = expectThrows(BadInput.class,
                () -> account(none, "\"contractLimits\":[{\"contract\":\"MNH\"}],"));
        assertTrue(unknown.getMessage().contains("a contract with a fee"), unknown.getMessage());
        BadInput twice = expectThrows(BadInput.class,
                () -> account(none, "\"contractLimits\":[{\"contract\":\"TDL\"},{\"contract\":\"TDL\"}],"));
        assertTrue(twice.getMessage().contains("twice"), twice.getMessage());
    }

    @Test
    public void aBookGoesThroughItsFieldsUnchanged() {
        BookSketch sketch = BookSketch.of(Json.parse(EVERY_RULE, "book"));
        assertEquals(sketch.read().value(), account(EVERY_RULE, QUIET).value().rulebook());
        assertEquals(BookSketch.of(sketch.read().document()).read().value(), sketch.read().value());
        assertTrue(sketch.missing().isEmpty());
        // every kind begins with something that reads
        BookSketch all = BookSketch.empty("mine").with(
                BookSketch.kinds().stream().map(BookSketch.RuleSketch::of).toList());
        assertEquals(all.read().value().rules().size(), 12);
        BookSketch wrong = sketch.with(List.of(sketch.rules().get(2).with("tiers", "1200.00")));
        assertTrue(expectThrows(BadInput.class, wrong::read).getMessage().contains("expected pairs"));
        assertTrue(wrong.reads().isEmpty());
        assertTrue(expectThrows(BadInput.class, () -> sketch.named(" ").read()).getMessage().contains("name"));
    }

    @Test
    public void ownLimitsGoThroughTheirSwitches() {
        String none = "{\"document\":\"rulebook\",\"version\":1,\"name\":\"none\",\"rules\":[]}";
        Documents.Read<Account> account = account(none,
                "\"dayLoss\":{\"on\":true,\"amount\":\"520.00\",\"guard\":true},");
        Map<OwnLines.Kind, OwnLines.Limit> limits = new LinkedHashMap<>(OwnLines.of(account));
        assertEquals(limits.get(OwnLines.Kind.DAY_LOSS), new OwnLines.Limit(true, "520.00", ""));
        limits.put(OwnLines.Kind.DAY_LOSS, new OwnLines.Limit(false, "520.00", ""));
        limits.put(OwnLines.Kind.GIVE_BACK, new OwnLines.Limit(true, "100", "200"));
        limits.put(OwnLines.Kind.LOSING_RUN, new OwnLines.Limit(true, "3", ""));
        limits.put(OwnLines.Kind.TRADES, new OwnLines.Limit(true, "5", ""));
        Documents.Read<Account> next = OwnLines.with(account, limits);
        assertEquals(next.value().own().dayLoss(), Optional.empty(), "switched off");
        assertEquals(OwnLines.of(next).get(OwnLines.Kind.DAY_LOSS), new OwnLines.Limit(false, "520.00", ""));
        assertEquals(next.value().own().tradesADay(), Optional.of(5));
        assertEquals(next.value().own().losingRun().orElseThrow().trades(), 3);
        Map<OwnLines.Kind, OwnLines.Limit> ofContract = new LinkedHashMap<>(OwnLines.of(next, "TDL"));
        ofContract.put(OwnLines.Kind.CONTRACTS, new OwnLines.Limit(true, "2", ""));
        assertEquals(OwnLines.with(next, "TDL", ofContract).value().limits("TDL").most(), Optional.of(2));
        limits.put(OwnLines.Kind.DAY_PROFIT, new OwnLines.Limit(true, "-4", ""));
        assertTrue(expectThrows(BadInput.class, () -> OwnLines.with(account, limits)).getMessage()
                .startsWith("Day profit: expected an amount above 0"));
    }

    @Test
    public void calendarsAreAddedOnce() throws IOException {
        String none = "{\"document\":\"rulebook\",\"version\":1,\"name\":\"none\",\"rules\":[]}";
        QuietSketch quiet = QuietSketch.of(account(none, QUIET));
        Path file = Files.createTempDirectory("calendar").resolve("more.csv");
        Files.writeString(file, "time,title,country,impact\n2026-09-24T02:30:00Z,Tide table,NZ,high\n"
                + "2026-09-25T02:30:00Z,Tide table,NZ,low\n");
        QuietSketch both = quiet.with(file);
        assertEquals(both.releases().size(), 2, "of the same time and title one stays");
        assertEquals(both.with(file).releases().size(), 2);
        assertTrue(both.counted().startsWith("2 releases: "), both.counted());
        Account filtered = OwnLines.with(account(none, ""), both.filled(true, "2", "2", "cancel", "", "low", ""))
                .value();
        assertEquals(filtered.own().quietTimes().releases().size(), 1);
        assertTrue(expectThrows(BadInput.class,
                () -> OwnLines.with(account(none, ""), both.filled(true, "soon", "2", "cancel", "", "", "")))
                .getMessage().contains("minutes before"));
    }
}
