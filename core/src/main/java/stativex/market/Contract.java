package stativex.market;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * A futures contract. Prices are whole numbers of ticks everywhere in the core; this record turns them from and to
 * decimal text.
 *
 * @param tickSize price of one tick, as written in its document (its decimals are the price's decimals)
 * @param tickValue money (ten-thousandths) one tick is worth for one contract
 * @param slippage ticks added against us to every market and triggered stop order
 * @param listing which month it is, and which there are
 */
public record Contract(String symbol, String name, String currency, BigDecimal tickSize, long tickValue, int slippage,
        SessionCalendar calendar, Listing listing) {

    /**
     * What is known of a contract beside its prices.
     *
     * @param lastTradingDay no entry from this trading date on
     * @param margin money that one contract binds, ten-thousandths
     * @param months of the same root, the earliest first
     */
    public record Listing(Optional<LocalDate> lastTradingDay, OptionalLong margin, List<Month> months) {
        /** Nothing is known. */
        public static final Listing NONE = new Listing(Optional.empty(), OptionalLong.empty(), List.of());

        public Listing {
            months = List.copyOf(months);
            if (margin.isPresent() && margin.getAsLong() <= 0) {
                throw new IllegalArgumentException(
                        "expected a margin above 0, found " + Money.text(margin.getAsLong()));
            }
            for (int i = 1; i < months.size(); i++) {
                Month before = months.get(i - 1);
                if (!before.lastTradingDay().isBefore(months.get(i).lastTradingDay())) {
                    throw new IllegalArgumentException("expected months in the order of their last trading days, found "
                            + months.get(i).name() + " behind " + before.name());
                }
            }
            if (months.stream().map(Month::name).distinct().count() < months.size()) {
                throw new IllegalArgumentException("expected each month once");
            }
        }
    }

    /** A month of a root. @param name such as 2026-12 */
    public record Month(String name, LocalDate lastTradingDay) {}

    /** A contract of which no margin and no months are known. */
    public Contract(String symbol, String name, String currency, BigDecimal tickSize, long tickValue, int slippage,
            SessionCalendar calendar, Optional<LocalDate> lastTradingDay) {
        this(symbol, name, currency, tickSize, tickValue, slippage, calendar,
                new Listing(lastTradingDay, OptionalLong.empty(), List.of()));
    }

    /** No entry from this trading date on. */
    public Optional<LocalDate> lastTradingDay() {
        return listing.lastTradingDay();
    }

    /** The month that is traded at a date: the earliest that may still be entered. Empty when none is known. */
    public Optional<Month> front(LocalDate date) {
        return listing.months().stream().filter(month -> date.isBefore(month.lastTradingDay())).findFirst();
    }

    public Contract {
        if (tickSize.signum() <= 0) {
            throw new IllegalArgumentException("expected a tick size above 0, found " + tickSize.toPlainString());
        }
        if (tickValue <= 0) {
            throw new IllegalArgumentException("expected a tick value above 0, found " + Money.text(tickValue));
        }
        if (slippage < 0) {
            throw new IllegalArgumentException("expected slippage of 0 ticks or more, found " + slippage);
        }
    }

    /** Decimals of a price's text. */
    public int decimals() {
        return Math.max(0, tickSize.scale());
    }

    /**
     * Reads a price.
     *
     * @return the price in ticks, zero and negative included
     * @throws IllegalArgumentException when the text is no plain decimal or lies off the tick grid
     */
    public long price(String text) {
        BigDecimal value = Decimals.plain(text);
        BigDecimal[] parts = value.divideAndRemainder(tickSize);
        if (parts[1].signum() != 0) {
            throw new IllegalArgumentException(
                    "expected a price on the tick grid of " + tickSize.toPlainString() + ", found " + text);
        }
        return parts[0].toBigInteger().longValueExact();
    }

    /** The price as written to files, with the tick size's decimals. */
    public String text(long ticks) {
        return tickSize.multiply(BigDecimal.valueOf(ticks)).setScale(decimals(), RoundingMode.UNNECESSARY)
                .toPlainString();
    }

    /**
     * The mean price {@code sum / quantity} ticks as text: on the grid with the tick size's decimals, off it with four
     * more, half away from zero.
     */
    public String meanText(long sum, long quantity) {
        if (sum % quantity == 0) {
            return text(sum / quantity);
        }
        return tickSize.multiply(new BigDecimal(BigInteger.valueOf(sum)))
                .divide(BigDecimal.valueOf(quantity), decimals() + 4, RoundingMode.HALF_UP).toPlainString();
    }

    /** Whole ticks that {@code money} per contract buys, rounded so that the distance is never further than asked. */
    public long ticksFor(long money) {
        return Math.floorDiv(money, tickValue);
    }

    /** Money that {@code ticks} are worth for {@code quantity} contracts. */
    public long money(long ticks, long quantity) {
        return Math.multiplyExact(Math.multiplyExact(ticks, quantity), tickValue);
    }
}
