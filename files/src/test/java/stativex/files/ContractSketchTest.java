package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.Session;

/** A contract as a person writes it down, and back. */
public class ContractSketchTest {
    private static final String SPECIAL = """
            2026-12-25 closed
            2026-12-24 closes 13:00
            2026-12-28 opens 10:00
            2026-12-29 has Day 09:00 to 12:00
            2027-01-01 has Night 20:00 the evening before to 01:30, Day 10:00 to 13:00, Late 22:00 to 02:00 the day after
            """;

    private static ContractSketch sketch(String months, String special) {
        return new ContractSketch("MNH", "Manuka Honey", "NZD", new ContractSketch.Prices("0.05", "5.00", "1", "1800"),
                new ContractSketch.Listing("", months), new ContractSketch.Hours("Pacific/Auckland", "60",
                        ContractSketch.patterns().get("Two sessions"), special));
    }

    private static List<String> names(Contract contract, String date) {
        return contract.calendar().sessions(LocalDate.parse(date)).stream().map(Session::name).toList();
    }

    @Test
    public void whatIsWrittenIsReadAndWrittenAgain() {
        Documents.Read<Contract> read = sketch("2026-09 until 2026-09-16\n2026-12, 2026-12-16\n", SPECIAL).read();
        Contract contract = read.value();
        assertEquals(contract.listing().margin().orElseThrow(), 1800 * Money.UNIT);
        assertEquals(names(contract, "2026-12-25"), List.of());
        assertEquals(names(contract, "2026-12-24"), List.of("Night", "Day"));
        assertEquals(names(contract, "2026-12-29"), List.of("Day"));
        assertEquals(names(contract, "2027-01-01"), List.of("Night", "Day", "Late"));
        assertEquals(contract.calendar().sessions(LocalDate.parse("2027-01-01")).getLast().close()
                - contract.calendar().sessions(LocalDate.parse("2027-01-01")).getLast().open(),
                4 * 3_600_000_000_000L);
        ContractSketch again = ContractSketch.of(read);
        assertEquals(again.hours().special(), SPECIAL);
        assertEquals(again.listing().months(), "2026-09 until 2026-09-16\n2026-12 until 2026-12-16\n");
        assertEquals(again.read().document(), read.document());
        assertTrue(ContractSketch.holds(read));
    }

    /** The front month at a date is the first that may still be entered. */
    @Test
    public void theFrontMonthIsFoundByDate() {
        Documents.Read<Contract> root = sketch("2026-09 until 2026-09-16\n2026-12 until 2026-12-16", "").read();
        Contract contract = root.value();
        assertEquals(contract.front(LocalDate.parse("2026-09-15")).map(Contract.Month::name), Optional.of("2026-09"));
        assertEquals(contract.front(LocalDate.parse("2026-09-16")).map(Contract.Month::name), Optional.of("2026-12"));
        assertEquals(contract.front(LocalDate.parse("2026-12-16")), Optional.empty());
        Contract december = Documents.month(root, LocalDate.parse("2026-12-16")).value();
        assertEquals(december.lastTradingDay(), Optional.of(LocalDate.parse("2026-12-16")));
        assertEquals(december.listing().months(), contract.listing().months());
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][]{{"2026-09", "", "months, line 1: expected a month and its last trading day"},
                {"2026-12 until 2026-12-16\n2026-09 until 2026-09-16", "", "in the order of their last trading days"},
                {"2026-09 until 2026-09-16\n2026-09 until 2026-10-16", "", "each month once"},
                {"2026-09 until 2026-09-31", "", "months[0].lastTradingDay"},
                {"", "2026-12-28 has Day 09:00", "special dates, line 1: expected sessions such as Day 10:00 to 13:00"},
                {"", "\n2026-12-28 has", "special dates, line 2: expected a date and closed"},
                {"", "2026-12-28 has Day 09:00 to 12:00, Day 13:00 to 14:00", "session name"},
                {"", "2026-12-28 has Day 12:00 to 09:00", "close"}};
    }

    @Test(dataProvider = "wrong")
    public void whatIsWrongIsSaid(String months, String special, String words) {
        RuntimeException e = expectThrows(RuntimeException.class, () -> sketch(months, special).read());
        assertTrue(e.getMessage().contains(words), e.getMessage());
    }
}
