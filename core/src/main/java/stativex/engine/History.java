package stativex.engine;

import java.time.LocalDate;
import java.util.Optional;
import stativex.market.SessionCalendar;
import stativex.market.Tape;

/**
 * Where a strategy's history begins and its evaluation with it. SEMANTICS, "Evaluation moments": every run loads exactly so many
 * trading days before the first evaluated one; a tape that begins later is used with the mark that the history is short.
 *
 * @param days trading days that only feed the studies
 * @param since prints before this time are left out, nanoseconds; {@link Long#MIN_VALUE}: none
 * @param first first evaluated trading day; empty: the one after the tape's first {@code days}
 * @param isShort the tape begins after the history should
 */
public record History(int days, long since, Optional<LocalDate> first, boolean isShort) {
    /** How far back a calendar is searched for the days. */
    private static final int LONGEST_DAYS = 20_000;

    /**
     * @param days trading days before the first evaluated one
     * @param first first evaluated trading day, if the run names one
     */
    static History of(int days, Optional<LocalDate> first, SessionCalendar calendar, Tape tape) {
        if (first.isEmpty()) {
            boolean late = days > 0 && tape.count() > 0 && calendar.tradingDate(tape.time(0))
                    .filter(date -> calendar.late(calendar.sessions(date).getFirst().open(), tape.time(0))).isPresent();
            return new History(days, Long.MIN_VALUE, Optional.empty(), late);
        }
        LocalDate date = first.get();
        int left = days;
        for (int back = 1; left > 0 && back < LONGEST_DAYS; back++) {
            date = first.get().minusDays(back);
            left -= calendar.sessions(date).isEmpty() ? 0 : 1;
        }
        LocalDate begins = date;
        long open = calendar.sessions(begins).isEmpty()
                ? calendar.dayAfter(begins).orElseThrow(
                        () -> new IllegalArgumentException("no session follows the first evaluated day " + begins))
                        .open()
                : calendar.sessions(begins).getFirst().open();
        int print = tape.firstAt(open);
        boolean late = days > 0 && (print == tape.count() || print == 0 && calendar.late(open, tape.time(0)));
        return new History(days, open, first, late);
    }

    /** @param begun trading days that have begun so far, this one included */
    boolean evaluates(Optional<LocalDate> date, int begun) {
        return first.isPresent()
                ? date.filter(day -> !day.isBefore(first.get())).isPresent()
                : begun > days;
    }
}
