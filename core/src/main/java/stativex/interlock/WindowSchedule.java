package stativex.interlock;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import stativex.market.TapeTime;

/**
 * When a strategy's windows are open. Windows that overlap or touch make one stretch; its end action is the strongest of
 * theirs and is done at the end of the last of them. Source: SEMANTICS, "Interlocks".
 */
public final class WindowSchedule {
    /** A window that covers this many days without a break is taken as never ending. */
    private static final int HORIZON_DAYS = 40;
    private static final long DAY = 86_400 * TapeTime.SECOND;

    private final List<SessionWindow> windows;

    public WindowSchedule(List<SessionWindow> windows) {
        this.windows = List.copyOf(windows);
    }

    /** Whether there are no windows, so that every hour is allowed. */
    public boolean always() {
        return windows.isEmpty();
    }

    /** One occurrence of one window. */
    public record Occurrence(SessionWindow window, long from, long to) {}

    /**
     * Windows that cover one another, as one.
     *
     * @param from inside
     * @param to outside
     * @param end strongest end action of its windows
     * @param lastEntry no entry from this time on: <em>to</em>, or the lead before it when the end flattens
     */
    public record Stretch(List<Occurrence> of, long from, long to, SessionWindow.End end, long lastEntry) {
        public boolean allows(long time) {
            return from <= time && time < lastEntry;
        }

        /** The next moment after {@code time} at which one of its windows begins, it takes its last entry, or ends. */
        public long nextMoment(long time) {
            long next = lastEntry > time ? lastEntry : to;
            for (Occurrence window : of) {
                next = window.from() > time ? Math.min(next, window.from()) : next;
            }
            return next;
        }

        /** {@code Morning}, or several joined by a plus sign. */
        public String name() {
            return String.join(" + ", of.stream().map(o -> o.window().name()).distinct().toList());
        }
    }

    /** The occurrences that overlap [from, to), in order of their beginning; empty ones are left out. */
    public List<Occurrence> occurrences(long from, long to) {
        List<Occurrence> found = new ArrayList<>();
        for (SessionWindow window : windows) {
            LocalDate last = TapeTime.in(window.zone(), to).toLocalDate();
            for (LocalDate date = TapeTime.in(window.zone(), from).toLocalDate().minusDays(1); !date
                    .isAfter(last); date = date
                            .plusDays(1)) {
                if (!window.days().contains(date.getDayOfWeek())) {
                    continue;
                }
                LocalDate endDate = window.to().isAfter(window.from()) ? date : date.plusDays(1);
                long begins = TapeTime.first(date.atTime(window.from()), window.zone());
                long ends = TapeTime.first(endDate.atTime(window.to()), window.zone());
                if (begins < ends && ends > from && begins < to) {
                    found.add(new Occurrence(window, begins, ends));
                }
            }
        }
        found.sort(Comparator.comparingLong(Occurrence::from));
        return found;
    }

    /** The stretch that contains {@code time} or is the next to begin; empty when none does within some weeks. */
    public Optional<Stretch> at(long time) {
        if (windows.isEmpty()) {
            return Optional.empty();
        }
        // few days tell nearly always; windows that cover one another for long want more of them
        for (int days = 3; days < HORIZON_DAYS; days *= 2) {
            Optional<Stretch> found = within(time, days);
            if (found.isPresent() && found.get().to() < time + (days - 1) * DAY) {
                return found;
            }
        }
        return within(time, HORIZON_DAYS);
    }

    private Optional<Stretch> within(long time, int days) {
        List<Occurrence> current = new ArrayList<>();
        long to = Long.MIN_VALUE;
        // one day back, so that a stretch begun before is whole from the window that covers this moment on
        for (Occurrence o : occurrences(time - DAY, time + days * DAY)) {
            if (!current.isEmpty() && o.from() > to) {
                if (to > time) {
                    return Optional.of(stretch(current, to));
                }
                current.clear();
            }
            current.add(o);
            to = current.size() == 1 ? o.to() : Math.max(to, o.to());
        }
        return to > time && !current.isEmpty() ? Optional.of(stretch(current, to)) : Optional.empty();
    }

    private static Stretch stretch(List<Occurrence> of, long to) {
        SessionWindow.End end = SessionWindow.End.STOP_ENTERING;
        long lead = 0;
        for (Occurrence o : of) {
            if (o.window().end().compareTo(end) > 0) {
                end = o.window().end();
            }
            if (o.window().end() == SessionWindow.End.FLATTEN) {
                lead = Math.max(lead, o.window().lead());
            }
        }
        long from = of.getFirst().from();
        long lastEntry = end == SessionWindow.End.FLATTEN ? Math.max(from, to - lead) : to;
        return new Stretch(List.copyOf(of), from, to, end, lastEntry);
    }
}
