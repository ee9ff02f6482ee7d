package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.Rulebook;
import stativex.account.LosingRun;
import stativex.account.Guard;
import stativex.account.GiveBack;
import stativex.engine.Strategy;
import stativex.market.Money;

public class DocumentsTest {
    private static Strategy strategy(String text) {
        return Documents.strategy(text, "strategy.json", name -> Texts.PLAN).value();
    }

    private static Account account(String text) {
        return Documents.account(text, "account.json", name -> Texts.RULEBOOK).value();
    }

    @Test
    public void documentsAreRead() {
        Strategy strategy = strategy(Texts.STRATEGY);
        assertEquals(strategy.plan().words(), "stop 16 t · 1 at 14 t, 1 running · breakeven after 12 t, +1 t"
                + " · trail from 16 t, 12 t behind, every 4 t");
        assertEquals(strategy.windows().getFirst().lead(), 30_000_000_000L, "the default lead");
        Account account = account(Texts.ACCOUNT);
        assertEquals(account.own().dayLoss(), Optional.of(new Account.DayLoss(Money.parse("520"), true)),
                "guard is on");
        assertEquals(account.own().dayProfit(), Optional.empty(), "off is a switch, the amount may stay");
        assertEquals(account.fee("TDL"), Money.parse("2.15"));
    }

    @Test
    public void everyLineOfAnAccountIsRead() {
        String text = Texts.ACCOUNT.replace("\"dayProfit\"", """
                "giveBack": {"on": true, "fall": "300.00", "after": "200.00", "guard": {"on": true, "margin": "25.00"}},
                "losingRun": {"on": true, "trades": 3, "pauseMinutes": 45},
                "dayProfit\"""");
        String book = """
                {"document": "rulebook", "version": 1, "name": "Skerry", "rules": [
                  {"rule": "drawdown floor", "kind": "end of day", "allowance": "2000.00", "lockAt": "40100.00",
                   "guard": {"on": true, "marginTicks": 4}},
                  {"rule": "day loss", "amount": "1000.00", "from": "equity", "breaks": true}]}
                """;
        Documents.Read<Account> read = Documents.account(text, "account.json", name -> book);
        Account account = read.value();
        assertEquals(account.own().giveBack(), Optional.of(
                new GiveBack(Money.parse("300"), Money.parse("200"), new Guard(true, Money.parse("25"), 0))));
        assertEquals(account.own().losingRun(), Optional.of(new LosingRun(3, OptionalInt.of(45))));
        assertEquals(account.rulebook().rules(), List.of(
                new Rulebook.DrawdownFloor(Rulebook.Trails.END_OF_DAY, Money.parse("2000"),
                        Optional.of(Money.parse("40100")), new Guard(true, 0, 4)),
                new Rulebook.DayLoss(Money.parse("1000"), Rulebook.From.EQUITY, true, Guard.OFF)));
        // the window's few fields change what they show and leave the rest
        AccountSketch sketch = AccountSketch.of(read);
        Account again = new AccountSketch("Other", sketch.currency(), sketch.start(), sketch.fees(), "600", "",
                "Skerry",
                "1500", "", sketch.base(), sketch.lines()).read().value();
        assertEquals(again.own().giveBack(), account.own().giveBack());
        assertEquals(again.own().losingRun(), account.own().losingRun());
        assertEquals(again.own().dayLoss().orElseThrow(), new Account.DayLoss(Money.parse("600"), true));
        assertEquals(again.rulebook().floor().orElseThrow(), new Rulebook.DrawdownFloor(Rulebook.Trails.END_OF_DAY,
                Money.parse("1500"), Optional.empty(), new Guard(true, 0, 4)));
        assertEquals(again.rulebook().rules().getLast(), account.rulebook().rules().getLast());
        assertEquals(new AccountSketch("Other", sketch.currency(), sketch.start(), sketch.fees(), "", "", "Skerry", "",
                "", sketch.base(), sketch.lines()).read().value().rulebook().rules(),
                List.of(account.rulebook().rules().getLast()));
        assertEquals(List.copyOf(Documents.account(text.replaceFirst("\"fees\": \\[", "\"fees\": ["
                + "{\"contract\": \"ZZZ\", \"perSide\": \"1\"}, {\"contract\": \"AAA\", \"perSide\": \"1\"}, "),
                "account.json", name -> book).value().fees().keySet()), List.of("ZZZ", "AAA", "TDL"),
                "in the document's order");
    }

    @Test
    public void furtherLinesReadAsTheyWereWritten() {
        AccountSketch bare = AccountSketch.practice("NZD", "TDL");
        assertEquals(bare.read().value().rulebook().rules(), List.of());
        AccountLines lines = new AccountLines("static", "4", "900.00", "equity", true, "300.00", "200.00", "3", "",
                "16:00",
                "Pacific/Auckland", new AccountLines.Quiet(
                        "2026-09-24T02:30:00Z Tide table | NZ | high\n2026-09-25T02:30:00Z Kelp prices", "5", "10",
                        "cancel"));
        Documents.Read<Account> read = bare
                .filled("Skerry", "NZD", "50000.00", bare.fees(), "", "", "Skerry", "2000.00", "",
                        lines)
                .read();
        assertEquals(AccountSketch.of(read).lines(), lines);
        assertEquals(read.value().rulebook().floor().orElseThrow(), new Rulebook.DrawdownFloor(Rulebook.Trails.STATIC,
                Money.parse("2000"), Optional.empty(), new Guard(true, 0, 4)));
        assertEquals(read.value().own().quietTimes().releases().getFirst().impact(), "high");
        assertEquals(AccountSketch.of(read).filled("Skerry", "NZD", "50000.00", bare.fees(), "", "", "Skerry", "", "",
                AccountLines.NONE).read().value(),
                bare.filled("Skerry", "NZD", "50000.00", bare.fees(), "", "", "Skerry", "", "", AccountLines.NONE)
                        .read()
                        .value(),
                "all of them taken off again");
        Documents.Read<Account> off = Documents.account(
                Json.line(read.document()).replace("\"on\":true,\"fall\"", "\"on\":false,\"fall\""), "off",
                other -> other);
        assertEquals(off.value().own().giveBack(), Optional.empty());
        AccountSketch again = AccountSketch.of(off);
        assertEquals(again.lines().giveFall(), "");
        assertEquals(again.read().document(), off.document(), "what is switched off keeps its figures");
        for (String[] wrong : new String[][]{{"x", "guard of the floor"}, {"-1", "margin"}}) {
            String said = expectThrows(BadInput.class,
                    () -> bare.filled("Skerry", "NZD", "50000.00", bare.fees(), "", "",
                            "Skerry", "2000.00", "",
                            new AccountLines("static", wrong[0], "", "balance", false, "", "", "", "", "", "",
                                    AccountLines.NONE.quiet()))
                            .read())
                    .getMessage();
            assertTrue(said.contains(wrong[1]), said);
        }
    }

    @DataProvider
    public Object[][] books() {
        return new Object[][]{
                {"{\"rule\": \"drawdown floor\", \"kind\": \"static\", \"allowance\": \"100\", \"lockAt\": \"40000\"}",
                        "a static floor does not rise"},
                {"{\"rule\": \"drawdown floor\", \"kind\": \"end of day\", \"allowance\": \"100\", \"lockAt\": \"39000\"}",
                        "a lock level of start"},
                {"{\"rule\": \"day loss\", \"amount\": \"0\"}", "above 0"},
                {"{\"rule\": \"day loss\", \"amount\": \"5\", \"kind\": \"static\"}", "kind: unknown field"},
                {"{\"rule\": \"day loss\", \"amount\": \"5\", \"guard\": {\"on\": true, \"margin\": \"-1\"}}",
                        "margin of 0 or more"},
                {"{\"rule\": \"day loss\", \"amount\": \"5\"}, {\"rule\": \"day loss\", \"amount\": \"6\"}",
                        "the rule \"day loss\""},
                {"{\"rule\": \"moon phase\"}", "rule"}};
    }

    @Test(dataProvider = "books")
    public void whatIsWrongWithARulebookIsSaid(String rules, String words) {
        String said = expectThrows(BadInput.class, () -> Documents.account(Texts.ACCOUNT, "account.json",
                name -> "{\"document\": \"rulebook\", \"version\": 1, \"name\": \"b\", \"rules\": [" + rules + "]}"))
                .getMessage();
        assertTrue(said.contains(words), said);
    }

    @Test
    public void aVersionIsAFingerprintOfTheContent() {
        String spaced = Texts.STRATEGY.replace(": ", " :   ");
        assertEquals(strategy(spaced).version(), strategy(Texts.STRATEGY).version(), "layout does not count");
        assertNotEquals(strategy(Texts.STRATEGY.replace("\"size\": 2", "\"size\": 3")).version(),
                strategy(Texts.STRATEGY).version());
    }

    @DataProvider
    public Object[][] problems() {
        return new Object[][]{
                {"strategy", "\"quantity\": 2", "\"quantity\": \"2\"",
                        "strategy.json, $.entry.quantity: expected a whole number"},
                {"strategy", "\"quantity\": 2", "\"quantity\": 0", "$.entry.quantity: expected 1 or more, found 0"},
                {"strategy", "\"entry\"", "\"entri\"", "$.entri: unknown field"},
                {"strategy", "\"size\": 2", "\"size\": 2, \"colour\": 1", "$.signal.colour: unknown field"},
                {"strategy", "\"order\": \"market\"", "\"order\": \"hope\"",
                        "expected one of [\"market\",\"limit\",\"stop\",\"stop-limit\"]"},
                {"strategy", "\"Monday\"", "\"Mon\"", "$.windows[0].days[0]: expected one of"},
                {"strategy", "\"from\": \"09:45\"", "\"from\": \"9.45\"", "$.windows[0].from: expected a time of day"},
                {"strategy", "Pacific/Auckland", "Atlantis/Harbour", "$.windows[0].zone: expected an IANA zone"},
                {"strategy", "\"length\": 2", "\"lenght\": 2",
                        "lenght: unknown field for the study ema: it has length"},
                {"strategy", "\"length\": 2", "\"length\": 0", "$.studies[0].length: expected a whole number from 1"},
                {"strategy", "\"length\": 2", "\"ink\": \"red\"",
                        "$.studies[0].ink: expected one of ink, teal, moss, olive, mauve, found red"},
                {"strategy", "\"study\": \"ema\", \"of\": \"close\", \"length\": 2",
                        "\"study\": \"formula\", \"of\": \"close\", \"length\": 2",
                        "$.studies[0].length: unknown field for a formula"},
                {"strategy", "\"study\": \"ema\"", "\"study\": \"emma\"", "$.studies[0].study: expected one of"},
                {"strategy", "\"size\": 2", "\"size\": 2.5", "$.signal.size: expected a whole number"},
                {"strategy", "\"size\": 2", "\"turn\": 2", "$.signal: expected the field \"size\" for tick bars"},
                {"strategy", "\"tick\", \"size\": 2", "\"day\", \"size\": 2", "week and month bars have no size"},
                {"strategy", "{\"rule\": \"close > open\"}",
                        "{\"rule\": \"close > open\", \"grades\": [{\"name\": \"plain\", \"rule\": \"delta > 0\"}]}",
                        "$.long: expected at least one grade that may enter"},
                {"strategy", "\"exitFile\": \"plan.json\"", "\"once\": true",
                        "expected either exit or exitFile, found neither"},
                {"strategy", "\"contract\": \"TDL\",", "\"contract\": \"TDL\", \"contract\": \"MTD\",", "Duplicate"},
                {"strategy", "\"signal\": {", "\"signal\": [", "strategy.json, line 3, column"},
                {"account", "\"amount\": \"520.00\"", "\"amount\": 520", "$.dayLoss.amount: expected a text in quotes"},
                {"account", "\"start\": \"40000.00\"", "\"start\": \"40 000\"", "$.start: expected a plain decimal"},
                {"account", "\"perSide\": \"2.15\"", "\"perSide\": \"-2.15\"", "expected a fee of 0 or more"},
                {"account", "\"40000.00\"", "\"90000.00\"", "lock level"},
                {"contract", "\"tickValue\": \"6.25\"", "\"tickValue\": \"6.25001\"",
                        "$.tickValue: expected an amount in whole ten-thousandths"},
                {"contract", "\"tickSize\": \"0.25\"", "\"tickSize\": \"0\"", "tick size above 0"},
                {"contract", "\"close\": \"17:00\"", "\"close\": \"08:00\"", "closes at or before its open"},
                {"contract", "\"sessions\": [{\"name\": \"Day\", \"open\": \"08:30\", \"close\": \"17:00\"}]}]",
                        "\"sessions\": []}, {\"days\": [\"Tuesday\"], \"sessions\": []}]",
                        "$.calendar.week[1]: Tuesday stands twice, there and in $.calendar.week[0]"},
                {"contract", "\"Tuesday\"]", "\"Tuesday\", \"Monday\"]",
                        "$.calendar.week[0].days[2]: Monday stands twice, there and in $.calendar.week[0].days[0]"},
                {"contract", "\"zone\": \"Pacific/Auckland\",",
                        "\"zone\": \"Pacific/Auckland\", \"exceptions\": [{\"date\": \"2026-10-26\", \"sessions\": []},"
                                + "{\"date\": \"2026-10-26\", \"sessions\": []}],",
                        "$.calendar.exceptions[1]: the date 2026-10-26 stands twice, there and in"
                                + " $.calendar.exceptions[0]"},
                {"contract", "[{\"name\": \"Day\", \"open\": \"08:30\", \"close\": \"17:00\"}]",
                        "[{\"name\": \"Day\", \"open\": \"08:30\", \"close\": \"12:00\"},"
                                + "{\"name\": \"Day\", \"open\": \"13:00\", \"close\": \"17:00\"}]",
                        "sessions[1]: the session name \"Day\" stands twice, there and in"
                                + " $.calendar.week[0].sessions[0]"},
                {"account", "[{\"contract\": \"TDL\", \"perSide\": \"2.15\"}]",
                        "[{\"contract\": \"TDL\", \"perSide\": \"2.15\"}, {\"contract\": \"TDL\", \"perSide\": \"1\"}]",
                        "$.fees[1]: the fee of TDL stands twice, there and in $.fees[0]"},
                {"account", "\"rulebookFile\": \"rules.json\"", "\"dayProfit\": {\"on\": false, \"amount\": \"1\"}",
                        "Duplicate"},
                {"account", ",\n  \"rulebookFile\": \"rules.json\"", "",
                        "expected either rulebook or rulebookFile, found neither"},
                {"strategy", "\"long\": {\"rule\"", "\"drawings\": [{\"kind\": \"level\", \"name\": \"shelf\","
                        + " \"price\": \"1284.25\"}, {\"kind\": \"level\", \"name\": \"shelf\", \"price\": \"1284.50\"}],"
                        + " \"long\": {\"rule\"",
                        "$.drawings[1]: the drawn name \"shelf\" stands twice, there and in $.drawings[0]"},
                {"plan", "\"offsetTicks\": 1", "\"offsetTicks\": 12",
                        "$.exit.breakeven: expected a breakeven offset below its trigger"},
                {"plan", "\"ticks\": 14", "\"ticks\": 0", "targets[0].ticks: expected 1 or more"}};
    }

    @Test(dataProvider = "problems")
    public void problemsNameFilePathExpectedAndFound(String kind, String from, String to, String words) {
        BadInput problem = expectThrows(BadInput.class, () -> {
            switch (kind) {
                case "strategy" -> strategy(Texts.STRATEGY.replace(from, to));
                case "account" -> account(Texts.ACCOUNT.replace(from, to));
                case "contract" -> Documents.contract(Texts.CONTRACT.replace(from, to), "contract.json");
                default -> Documents.strategy(Texts.STRATEGY, "strategy.json", name -> Texts.PLAN.replace(from, to));
            }
        });
        assertTrue(problem.getMessage().contains(words), problem.getMessage());
        assertTrue(problem.getMessage().contains(".json"), problem.getMessage());
    }

    @Test
    public void whatTheReaderRefusesTheSchemaRefusesToo() {
        String without = Texts.ACCOUNT.replace(",\n  \"rulebookFile\": \"rules.json\"", "");
        assertNotEquals(without, Texts.ACCOUNT);
        assertTrue(Schemas.problems(Schemas.Kind.ACCOUNT, Json.parse(Texts.ACCOUNT, "a"), "a").isEmpty());
        assertTrue(Schemas.problems(Schemas.Kind.ACCOUNT, Json.parse(without, "a"), "a").stream()
                .anyMatch(problem -> problem.getMessage().contains("rulebook")), "an account names its rulebook");
    }

    @Test
    public void everyKindHasAPublishedSchema() {
        for (Schemas.Kind kind : Schemas.Kind.values()) {
            assertTrue(Schemas.text(kind).contains("https://json-schema.org/draft/2020-12/schema"));
        }
    }

    @Test
    public void howLateAFirstPrintMayBeIsReadFromTheContract() {
        var usual = Documents.contract(Texts.CONTRACT, "contract.json").value().calendar();
        var patient = Documents.contract(Texts.CONTRACT.replace("\"zone\": \"Pacific/Auckland\",",
                "\"zone\": \"Pacific/Auckland\", \"lateSeconds\": 300,"), "contract.json").value().calendar();
        long second = 1_000_000_000L;
        assertEquals(List.of(usual.late(0, 60 * second), usual.late(0, 61 * second), patient.late(0, 300 * second),
                patient.late(0, 301 * second)), List.of(false, true, false, true));
    }
}
