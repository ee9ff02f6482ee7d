package stativex.files.tape;

import static org.testng.Assert.assertEquals;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.files.Documents;
import stativex.files.Texts;
import stativex.market.Contract;
import stativex.market.TapeTime;

/** Fields read from bytes against java.time and BigDecimal. */
public class FieldTextTest {
    private final Contract contract = Documents.contract(Texts.CONTRACT, "contract.json").value();

    private FieldText text(TimeForm form, boolean loose, char mark) {
        return new FieldText(new TickLayout(';', true, List.of(), List.of(), form, Optional.of(ZoneOffset.UTC), mark,
                loose), contract);
    }

    private static long time(FieldText text, String value) {
        byte[] bytes = ("  " + value + ";1284.50;").getBytes(StandardCharsets.UTF_8);
        return text.time(bytes, 2, 2 + value.getBytes(StandardCharsets.UTF_8).length);
    }

    private static long price(FieldText text, String value) {
        // the bytes behind a field must not matter
        byte[] bytes = ("7" + value + "9.9;" + "x".repeat(8)).getBytes(StandardCharsets.UTF_8);
        return text.price(bytes, 1, 1 + value.length());
    }

    @Test
    public void timesOfEveryFormComeBack() {
        SplittableRandom dice = new SplittableRandom(1);
        for (TimeForm form : TimeForm.values()) {
            FieldText text = text(form, true, '.');
            for (int round = 0; round < 3000; round++) {
                long nanos = dice.nextLong(-2_000_000_000L, 4_000_000_000L) * TapeTime.SECOND;
                int decimals = dice.nextInt(10);
                long fraction = dice.nextLong((long) Math.pow(10, decimals));
                nanos += fraction * (long) Math.pow(10, 9 - decimals);
                String written;
                if (form.unit() > 0) {
                    written = BigDecimal.valueOf(nanos).divide(BigDecimal.valueOf(form.unit())).toPlainString();
                } else {
                    OffsetDateTime at = TapeTime.instant(nanos).atOffset(offset(dice));
                    String pattern = switch (form) {
                        case DAY_FIRST -> dice.nextBoolean() ? "dd.MM.uuuu" : "d/M/uuuu";
                        case MONTH_FIRST -> dice.nextBoolean() ? "MM/dd/uuuu" : "M-d-uuuu";
                        default -> dice.nextBoolean() ? "uuuu-MM-dd" : "uuuuMMdd";
                    };
                    String clock = dice.nextBoolean() ? "HH:mm:ss" : "HHmmss";
                    written = at
                            .format(DateTimeFormatter.ofPattern(pattern + (dice.nextBoolean() ? "'T'" : "' '") + clock,
                                    Locale.ROOT));
                    written += decimals == 0 ? "" : "." + String.format("%0" + decimals + "d", fraction);
                    written += at.getOffset().getTotalSeconds() == 0
                            ? dice.nextBoolean() ? "Z" : ""
                            : at.getOffset().getId().substring(0, 6);
                }
                assertEquals(time(text, written), nanos, form + ": " + written);
            }
        }
    }

    private static ZoneOffset offset(SplittableRandom dice) {
        return dice.nextBoolean()
                ? ZoneOffset.UTC
                : ZoneOffset.ofTotalSeconds(60 * dice.nextInt(-18 * 60, 18 * 60 + 1));
    }

    @DataProvider
    public Object[][] noTimes() {
        return new Object[][]{{"2026-09-24"}, {"2026-09-24T"}, {"2026-09-24T25:00:00Z"}, {"2026-09-24T09:60:00Z"},
                {"2026-09-24T09:45:61Z"}, {"2026-02-29T09:45:00Z"}, {"2026-13-01T09:45:00Z"}, {"2026-09-24T09:45:00.Z"},
                {"2026-09-24T09:45:00.1234567890Z"}, {"2026-09-24T09:45:00+19:00"}, {"2026-09-24T09:45:00+1"},
                {"2026-09-24T09:45:00Zulu"}, {"2026-09-24T0a:45:00Z"}, {"1500-01-01T00:00:00Z"},
                {"2300-01-01T00:00:00Z"}, {"9999999999999999999-09-24T09:45:00Z"}, {""}, {"T09:45:00Z"}, {"ZZZ"}};
    }

    @Test(dataProvider = "noTimes")
    public void whatIsNoTimeIsRefused(String value) {
        for (boolean loose : new boolean[]{true, false}) {
            assertEquals(time(text(TimeForm.YEAR_FIRST, loose, '.'), value), FieldText.BAD, value);
        }
    }

    @Test
    public void ourOwnFilesAreReadStrictly() {
        FieldText strict = text(TimeForm.YEAR_FIRST, false, '.');
        assertEquals(time(strict, "2026-09-24T09:45:00Z"), TapeTime.nanos(Instant.parse("2026-09-24T09:45:00Z")));
        for (String value : List.of("2026-09-24 09:45:00Z", "2026/09/24T09:45:00Z", "20260924T09:45:00Z",
                "2026-09-24T094500Z", "2026-09-24T9:45:00Z")) {
            assertEquals(time(strict, value), FieldText.BAD, value);
        }
    }

    @Test
    public void pricesAreExactWhateverStandsBehindThem() {
        SplittableRandom dice = new SplittableRandom(2);
        FieldText point = text(TimeForm.YEAR_FIRST, true, '.');
        FieldText comma = text(TimeForm.YEAR_FIRST, true, ',');
        for (int round = 0; round < 20_000; round++) {
            BigDecimal value = BigDecimal.valueOf(dice.nextLong(-100_000_000, 100_000_000), dice.nextInt(0, 5));
            BigDecimal[] parts = value.divideAndRemainder(contract.tickSize());
            long expected = parts[1].signum() == 0 ? parts[0].longValueExact() : FieldText.OFF_GRID;
            String plain = value.toPlainString();
            assertEquals(price(point, plain), expected, plain);
            assertEquals(price(comma, plain.replace('.', ',')), expected, plain);
        }
    }

    @DataProvider
    public Object[][] noPrices() {
        return new Object[][]{{"1e3"}, {"1,284.50"}, {"."}, {"-"}, {"+-1"}, {"1."}, {".5"}, {"1.2.3"}, {" 1"}, {"0x10"},
                {"123456789012345678"}, {"NaN"}, {"1284.25 "}, {"12٣"}};
    }

    @Test(dataProvider = "noPrices")
    public void whatIsNoPriceIsRefused(String value) {
        assertEquals(price(text(TimeForm.YEAR_FIRST, true, '.'), value), FieldText.BAD, value);
    }

    @Test
    public void eightDigitsAtOnce() {
        SplittableRandom dice = new SplittableRandom(3);
        for (int round = 0; round < 10_000; round++) {
            int number = dice.nextInt(100_000_000);
            byte[] bytes = String.format("%08d", number).getBytes(StandardCharsets.US_ASCII);
            assertEquals(EightBytes.digits(bytes, 0), number);
            int place = dice.nextInt(8);
            byte other = (byte) dice.nextInt(256);
            bytes[place] = other;
            boolean digit = other >= '0' && other <= '9';
            assertEquals(EightBytes.digits(bytes, 0) >= 0, digit, "byte " + other);
        }
    }

    @Test
    public void equalBytesAreFoundExactly() {
        SplittableRandom dice = new SplittableRandom(4);
        for (int round = 0; round < 10_000; round++) {
            byte[] bytes = new byte[8];
            byte wanted = (byte) dice.nextInt(256);
            long expected = 0;
            for (int i = 0; i < 8; i++) {
                // neighbours of the wanted byte are what a careless test would take for it
                bytes[i] = (byte) (wanted + dice.nextInt(-1, 2));
                expected |= bytes[i] == wanted ? 0x80L << 8 * i : 0;
            }
            assertEquals(EightBytes.equal(EightBytes.at(bytes, 0), EightBytes.all(wanted)), expected);
        }
    }
}
