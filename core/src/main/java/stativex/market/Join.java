package stativex.market;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Contract months joined into one series. Each month is in force from the first open of its roll day on; the months' real
 * prices stay, and a view for charts moves earlier months by the differences at the rolls between.
 */
public final class Join {
    /** A month's tape. */
    public record Month(String name, Contract contract, Tape tape) {}

    /**
     * A change from one month to the next.
     *
     * @param date trading date from which the newer month is in force
     * @param open its first open, nanoseconds
     * @param print index of the newer month's first print in the joined tape
     * @param adjustment last print of the newer month less that of the older one before the open, ticks; empty when one of
     *        them has no print before it
     */
    public record Roll(LocalDate date, long open, String from, String to, int print, Optional<Long> adjustment) {}

    /**
     * What trading needs of a month that comes into force by a roll, or that begins a series.
     *
     * @param date trading date of the roll; empty for the first month
     * @param open its first open, nanoseconds; {@link Long#MIN_VALUE} for the first month
     * @param seen the joined tape as far as this month is in force, earlier ones moved to its prices by the rolls up to it
     * @param before price of this month's last print before the open, ticks; {@link Tape#NONE} for the first month
     * @param lastTradingDay of this month
     */
    public record Leg(String name, Optional<LocalDate> date, long open, Tape seen, long before,
            Optional<LocalDate> lastTradingDay) {}

    private final List<Month> months;
    private final List<Roll> rolls;
    private final List<Tape.Part> parts;

    private Join(List<Month> months, List<Roll> rolls, List<Tape.Part> parts) {
        this.months = List.copyOf(months);
        this.rolls = List.copyOf(rolls);
        this.parts = List.copyOf(parts);
    }

    /**
     * @param months oldest first, at least two
     * @param dates trading date from which each month but the first is in force
     * @throws IllegalArgumentException when the months do not fit together, a date is no trading date or out of order, or a
     *         month has no print while it is in force
     */
    public static Join of(List<Month> months, List<LocalDate> dates) {
        if (months.size() < 2 || dates.size() != months.size() - 1) {
            throw new IllegalArgumentException(
                    "expected two or more months and a roll day for each but the first, found "
                            + months.size() + " months and " + dates.size() + " roll days");
        }
        List<Roll> rolls = new ArrayList<>();
        List<Tape.Part> parts = new ArrayList<>();
        int from = 0;
        int print = 0;
        for (int i = 0; i < months.size(); i++) {
            Month month = months.get(i);
            int to = month.tape().count();
            long open = 0;
            if (i < dates.size()) {
                Month next = months.get(i + 1);
                fit(month, next);
                open = open(next, dates.get(i));
                to = month.tape().firstAt(open);
            }
            if (to <= from) {
                throw new IllegalArgumentException("expected prints of " + month.name()
                        + " while it is in force, found none: check the order of the months and the roll days");
            }
            parts.add(new Tape.Part(month.tape(), from, to, 0));
            print += to - from;
            if (i < dates.size()) {
                Month next = months.get(i + 1);
                from = next.tape().firstAt(open);
                Optional<Long> adjustment = from == 0
                        ? Optional.empty()
                        : Optional.of(next.tape().price(from - 1) - month.tape().price(to - 1));
                rolls.add(new Roll(dates.get(i), open, month.name(), next.name(), print, adjustment));
            }
        }
        return new Join(months, rolls, parts);
    }

    private static void fit(Month older, Month newer) {
        Contract a = older.contract();
        Contract b = newer.contract();
        if (a.tickSize().compareTo(b.tickSize()) != 0 || a.tickValue() != b.tickValue()
                || !a.currency().equals(b.currency())) {
            throw new IllegalArgumentException(
                    "expected months of one contract, found " + older.name() + " with ticks of "
                            + a.tickSize().toPlainString() + " worth " + Money.text(a.tickValue()) + " " + a.currency()
                            + " and "
                            + newer.name() + " with ticks of " + b.tickSize().toPlainString() + " worth "
                            + Money.text(b.tickValue()) + " " + b.currency());
        }
    }

    private static long open(Month month, LocalDate date) {
        List<Session> sessions = month.contract().calendar().sessions(date);
        if (sessions.isEmpty()) {
            throw new IllegalArgumentException("expected a trading date to roll on, found " + date
                    + ", which has no session in the calendar of " + month.name());
        }
        return sessions.getFirst().open();
    }

    /**
     * The trading date after the first on which more of the newer month was traded than of the older one: known at that
     * day's close, acted on with the next day's open.
     *
     * @throws IllegalArgumentException when that never happens on their tapes
     */
    public static LocalDate byVolume(Month older, Month newer) {
        Map<LocalDate, Long> before = volumes(older);
        for (Map.Entry<LocalDate, Long> day : volumes(newer).entrySet()) {
            if (before.containsKey(day.getKey()) && day.getValue() > before.get(day.getKey())) {
                return older.contract().calendar().dayAfter(day.getKey()).map(Session::tradingDate)
                        .orElseThrow(() -> new IllegalArgumentException("no trading date follows " + day.getKey()));
            }
        }
        throw new IllegalArgumentException("the volume of " + newer.name() + " never exceeds that of " + older.name()
                + " on a day that both tapes have");
    }

    private static Map<LocalDate, Long> volumes(Month month) {
        BarSeries days = SeriesBuilder.all(month.tape(), month.contract().calendar(),
                BarSettings.of(BarType.Period.DAY));
        Map<LocalDate, Long> volumes = new LinkedHashMap<>();
        for (int day = 0; day < days.count(); day++) {
            volumes.put(days.tradingDate(day), days.volume(day));
        }
        return volumes;
    }

    /**
     * The trading date that lies {@code days} trading days before the older month's last one.
     *
     * @throws IllegalArgumentException when its contract states no last trading day, or {@code days} is below 0
     */
    public static LocalDate beforeExpiry(Month older, int days) {
        LocalDate date = older.contract().lastTradingDay().orElseThrow(() -> new IllegalArgumentException(
                "the contract of " + older.name() + " states no last trading day"));
        if (days < 0) {
            throw new IllegalArgumentException("expected 0 or more days before the last trading day, found " + days);
        }
        int left = days;
        int idle = 0;
        while (left > 0 && idle < 60) {
            date = date.minusDays(1);
            boolean traded = !older.contract().calendar().sessions(date).isEmpty();
            left -= traded ? 1 : 0;
            idle = traded ? 0 : idle + 1;
        }
        return date;
    }

    public List<Month> months() {
        return months;
    }

    /** The rolls, oldest first. */
    public List<Roll> rolls() {
        return rolls;
    }

    /** The newest month's contract. */
    public Contract contract() {
        return months.getLast().contract();
    }

    /** All months at their real prices. */
    public Tape tape() {
        return Tape.joined(parts);
    }

    private static long adjustment(Roll roll) {
        return roll.adjustment().orElseThrow(() -> new IllegalArgumentException("the roll of " + roll.date()
                + " cannot be adjusted: " + roll.to() + " has no print before it"));
    }

    /**
     * Earlier months moved so that all join the newest one: for looking, never for orders.
     *
     * @throws IllegalArgumentException when a roll has no adjustment
     */
    public Tape backAdjusted() {
        List<Tape.Part> moved = new ArrayList<>();
        long shift = 0;
        for (int i = parts.size() - 1; i >= 0; i--) {
            if (i < rolls.size()) {
                shift = Math.addExact(shift, adjustment(rolls.get(i)));
            }
            Tape.Part part = parts.get(i);
            moved.addFirst(new Tape.Part(part.tape(), part.from(), part.to(), shift));
        }
        return Tape.joined(moved);
    }

    /**
     * The months in the order in which they come into force, each as studies see the series while it is.
     *
     * @throws IllegalArgumentException when a roll has no adjustment
     */
    public List<Leg> legs() {
        List<Leg> legs = new ArrayList<>();
        for (int month = 0; month < months.size(); month++) {
            List<Tape.Part> moved = new ArrayList<>();
            long shift = 0;
            for (int i = month; i >= 0; i--) {
                shift = i < month ? Math.addExact(shift, adjustment(rolls.get(i))) : 0;
                Tape.Part part = parts.get(i);
                moved.addFirst(new Tape.Part(part.tape(), part.from(), part.to(), shift));
            }
            Optional<Roll> by = month == 0 ? Optional.empty() : Optional.of(rolls.get(month - 1));
            Tape.Part own = parts.get(month);
            legs.add(new Leg(months.get(month).name(), by.map(Roll::date), by.map(Roll::open).orElse(Long.MIN_VALUE),
                    Tape.joined(moved), by.isPresent() ? own.tape().price(own.from() - 1) : Tape.NONE,
                    months.get(month).contract().lastTradingDay()));
        }
        return legs;
    }
}
