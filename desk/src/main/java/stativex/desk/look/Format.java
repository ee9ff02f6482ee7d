package stativex.desk.look;

import java.time.Duration;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.TapeTime;

/** Figures as the screen shows them: a thin space between thousands, a true minus, ticks as {@code t}. */
public final class Format {
    private static final char THIN = '\u2009';
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm:ss");
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEE d MMM", java.util.Locale.ENGLISH);
    private static final DateTimeFormatter MINUTE = DateTimeFormatter.ofPattern("HH:mm");

    private Format() {}

    /** A plain decimal text with thin spaces and a true minus. */
    public static String grouped(String plain) {
        boolean negative = plain.startsWith("-");
        String digits = negative ? plain.substring(1) : plain;
        int point = digits.indexOf('.');
        StringBuilder text = new StringBuilder(digits);
        for (int i = (point < 0 ? digits.length() : point) - 3; i > 0; i -= 3) {
            text.insert(i, THIN);
        }
        return (negative ? "−" : "") + text;
    }

    public static String price(Contract contract, long ticks) {
        return grouped(contract.text(ticks));
    }

    /** A study value in ticks, as a price with the contract's decimals. */
    public static String price(Contract contract, double ticks) {
        return grouped(contract.tickSize().multiply(java.math.BigDecimal.valueOf(ticks))
                .setScale(contract.decimals(), java.math.RoundingMode.HALF_UP).toPlainString());
    }

    public static String money(long money) {
        return grouped(Money.text(money));
    }

    public static String signedMoney(long money) {
        return (money > 0 ? "+" : "") + money(money);
    }

    public static String signed(long value) {
        return (value > 0 ? "+" : "") + grouped(Long.toString(value));
    }

    public static String ticks(long ticks) {
        return signed(ticks) + " t";
    }

    /** Tenths as one decimal: 21 is {@code 2.1}. */
    public static String tenths(long tenths) {
        return grouped(java.math.BigDecimal.valueOf(tenths, 1).toPlainString());
    }

    /** A plain value with that many decimals. */
    public static String decimal(double value, int decimals) {
        return grouped(java.math.BigDecimal.valueOf(value).setScale(decimals, java.math.RoundingMode.HALF_UP)
                .toPlainString());
    }

    public static String clock(long nanos, ZoneId zone) {
        return TapeTime.in(zone, nanos).format(CLOCK);
    }

    public static String minute(long nanos, ZoneId zone) {
        return TapeTime.in(zone, nanos).format(MINUTE);
    }

    /** To the nearest minute: {@code 1 h 32 min}. */
    public static String duration(long nanos) {
        Duration d = Duration.ofNanos(Math.max(0, nanos)).plusSeconds(30);
        return d.toHours() > 0 ? d.toHours() + " h " + d.toMinutesPart() + " min" : d.toMinutes() + " min";
    }

    /** The city of a zone: {@code Pacific/Auckland} is {@code Auckland}. */
    public static String city(ZoneId zone) {
        String id = zone.getId();
        return id.substring(id.lastIndexOf('/') + 1).replace('_', ' ');
    }

    /** A trading date: {@code Thu 24 Sep}. */
    public static String day(java.time.LocalDate date) {
        return DAY.format(date);
    }
}
