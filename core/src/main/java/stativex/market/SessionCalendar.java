package stativex.market;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * The sessions of a contract by trading date: a weekly pattern plus exceptions by date. The trading day D lasts from
 * its first session's open to the first open of the next trading day, pauses included.
 */
public final class SessionCalendar {
    /** How many days without a session are searched before the calendar counts as ended. */
    private static final int LONGEST_GAP_DAYS = 60;

    /**
     * A session as written in a calendar.
     *
     * @param openOffset days to add to the trading date for the open (−1 = the evening before)
     * @param closeOffset likewise for the close
     */
    public record Hours(String name, LocalTime open, int openOffset, LocalTime close, int closeOffset) {}

    private final ZoneId zone;
    private final Map<DayOfWeek, List<Hours>> week;
    private final Map<LocalDate, List<Hours>> exceptions;
    private final long lateAfter;
    /**
     * The session that was asked for last, and the sessions of some dates. Written by any thread without care: each is immutable,
     * and another one in its place only costs a search.
     */
    private Optional<Session> asked = Optional.empty();
    private final Day[] recent = new Day[RECENT];

    private static final int RECENT = 64;

    private record Day(LocalDate date, List<Session> sessions) {}

    /** A first session counts as incomplete when its first print comes more than {@link Session#LATE} after its open. */
    public SessionCalendar(ZoneId zone, Map<DayOfWeek, List<Hours>> week, Map<LocalDate, List<Hours>> exceptions) {
        this(zone, week, exceptions, Session.LATE);
    }

    /**
     * @param week sessions by day of week of the trading date; a day left out has none
     * @param exceptions sessions by trading date, in place of the weekly ones; an empty list is a closed date
     * @param lateAfter nanoseconds after its open from which a first session's first print makes it incomplete, 0 or more
     * @throws IllegalArgumentException when a session ends before it begins or two overlap
     */
    public SessionCalendar(ZoneId zone, Map<DayOfWeek, List<Hours>> week, Map<LocalDate, List<Hours>> exceptions,
            long lateAfter) {
        if (lateAfter < 0) {
            throw new IllegalArgumentException("expected 0 seconds or more until a first print is late");
        }
        this.lateAfter = lateAfter;
        this.zone = zone;
        this.week = Map.copyOf(week);
        this.exceptions = Map.copyOf(exceptions);
        week.values().forEach(SessionCalendar::checkHours);
        exceptions.values().forEach(SessionCalendar::checkHours);
        LocalDate monday = LocalDate.of(2026, 1, 5);
        check(monday, monday.plusDays(8));
        for (LocalDate date : exceptions.keySet()) {
            check(date.minusDays(1), date.plusDays(1));
        }
        if (week.values().stream().allMatch(List::isEmpty)) {
            throw new IllegalArgumentException("expected at least one session in the week, found none");
        }
    }

    private static void checkHours(List<Hours> sessions) {
        for (Hours h : sessions) {
            boolean closes = h.closeOffset() != h.openOffset()
                    ? h.closeOffset() > h.openOffset()
                    : h.close().isAfter(h.open());
            if (!closes) {
                throw new IllegalArgumentException("session " + h.name() + " closes at or before its open");
            }
        }
    }

    private void check(LocalDate from, LocalDate to) {
        long end = Long.MIN_VALUE;
        for (LocalDate date = from; !date.isAfter(to); date = date.plusDays(1)) {
            for (Session session : sessions(date)) {
                if (session.open() < end) {
                    throw new IllegalArgumentException(
                            "session " + session.name() + " of " + date + " overlaps the one before it");
                }
                end = session.close();
            }
        }
    }

    public ZoneId zone() {
        return zone;
    }

    /** Whether a first print of a first session, or of a period, at {@code time} comes too late after the open. */
    public boolean late(long open, long time) {
        return time - open > lateAfter;
    }

    /** Dates that are not as their weekday. */
    public Set<LocalDate> exceptions() {
        return exceptions.keySet();
    }

    /** The sessions that a date would have if it were no exception, as written. */
    public List<Hours> usual(LocalDate date) {
        return week.getOrDefault(date.getDayOfWeek(), List.of());
    }

    /** Names of sessions that the calendar has anywhere. */
    public Set<String> sessionNames() {
        Set<String> names = new LinkedHashSet<>();
        Stream.concat(week.values().stream(), exceptions.values().stream()).flatMap(List::stream)
                .forEach(hours -> names.add(hours.name()));
        return names;
    }

    /**
     * The sessions of a trading date in order; empty when it is no trading date. A session that is empty on it, inside a
     * missing hour, does not take place.
     */
    public List<Session> sessions(LocalDate date) {
        int place = Math.floorMod(date.toEpochDay(), RECENT);
        Day known = recent[place];
        if (known == null || !known.date().equals(date)) {
            known = new Day(date, List.copyOf(made(date)));
            recent[place] = known;
        }
        return known.sessions();
    }

    private List<Session> made(LocalDate date) {
        List<Hours> hours = exceptions.getOrDefault(date, week.getOrDefault(date.getDayOfWeek(), List.of()))
                .stream().filter(h -> open(date, h) < close(date, h)).toList();
        List<Session> sessions = new ArrayList<>(hours.size());
        for (int i = 0; i < hours.size(); i++) {
            Hours h = hours.get(i);
            sessions.add(new Session(date, h.name(), open(date, h), close(date, h), i == 0, i == hours.size() - 1));
        }
        return sessions;
    }

    private long open(LocalDate date, Hours h) {
        return TapeTime.first(date.plusDays(h.openOffset()).atTime(h.open()), zone);
    }

    private long close(LocalDate date, Hours h) {
        return TapeTime.first(date.plusDays(h.closeOffset()).atTime(h.close()), zone);
    }

    /** The session that contains {@code time}, else the next one. Empty when none follows within 60 days. */
    public Optional<Session> current(long time) {
        Optional<Session> same = asked;
        if (same.isPresent() && same.get().contains(time)) {
            return same;
        }
        Optional<Session> found = find(time);
        asked = found;
        return found;
    }

    private Optional<Session> find(long time) {
        LocalDate day = TapeTime.in(zone, time).toLocalDate();
        for (LocalDate date = day.minusDays(2); !date.isAfter(day.plusDays(LONGEST_GAP_DAYS)); date = date
                .plusDays(1)) {
            for (Session session : sessions(date)) {
                if (time < session.close()) {
                    return Optional.of(session);
                }
            }
        }
        return Optional.empty();
    }

    /** The last session that has closed by {@code time}. Empty when none has within 60 days. */
    public Optional<Session> before(long time) {
        LocalDate date = TapeTime.in(zone, time).toLocalDate().plusDays(1);
        for (int back = 0; back < 60; back++) {
            List<Session> day = sessions(date.minusDays(back));
            for (int i = day.size() - 1; i >= 0; i--) {
                if (day.get(i).close() <= time) {
                    return Optional.of(day.get(i));
                }
            }
        }
        return Optional.empty();
    }

    /** The session after {@code session}. */
    public Optional<Session> after(Session session) {
        return current(session.close());
    }

    /** The first session of the trading date after {@code date}. */
    public Optional<Session> dayAfter(LocalDate date) {
        for (int i = 1; i <= LONGEST_GAP_DAYS; i++) {
            List<Session> sessions = sessions(date.plusDays(i));
            if (!sessions.isEmpty()) {
                return Optional.of(sessions.getFirst());
            }
        }
        return Optional.empty();
    }

    /** The trading date whose trading day contains {@code time}, pauses included. */
    public Optional<LocalDate> tradingDate(long time) {
        Optional<Session> next = current(time);
        if (next.isEmpty() || next.get().open() <= time || !next.get().first()) {
            return next.map(Session::tradingDate);
        }
        LocalDate date = next.get().tradingDate();
        for (int i = 1; i <= LONGEST_GAP_DAYS; i++) {
            if (!sessions(date.minusDays(i)).isEmpty()) {
                return Optional.of(date.minusDays(i));
            }
        }
        return Optional.empty();
    }
}
