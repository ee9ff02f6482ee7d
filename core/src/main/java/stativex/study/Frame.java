package stativex.study;

import java.time.LocalDate;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.market.BarSeries;
import stativex.market.ContractSink;
import stativex.market.Period;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.Tape;

/**
 * The bars of one series as studies see them: columns of doubles, of the figures that are used, and behind the closed bars
 * room for one that is forming. Every row knows its session: the one that its last print lies in.
 */
public final class Frame implements Step {
    private final BarSeries bars;
    private final SessionCalendar calendar;
    private final Map<BarField, OutputColumn> columns = new EnumMap<>(BarField.class);
    private BarField[] fields = {};
    private OutputColumn[] used = {};
    private long[] sessions = new long[64];
    private Session session;
    private Optional<BarSeries.Forming> forming = Optional.empty();
    /** Closed rows whose session is known: it is looked up when somebody asks. */
    private int located;
    private long formingOpen;
    private long formingMoment;
    private int formingRow = -1;
    private int taken;

    public Frame(BarSeries bars, SessionCalendar calendar) {
        this.bars = bars;
        this.calendar = calendar;
    }

    public BarSeries bars() {
        return bars;
    }

    public Tape tape() {
        return bars.tape();
    }

    public SessionCalendar calendar() {
        return calendar;
    }

    /** A figure of every bar; computed from now on. */
    public OutputColumn field(BarField field) {
        return columns.computeIfAbsent(field, f -> {
            OutputColumn column = new OutputColumn(f.shape());
            fields = java.util.Arrays.copyOf(fields, fields.length + 1);
            used = java.util.Arrays.copyOf(used, used.length + 1);
            fields[fields.length - 1] = f;
            used[used.length - 1] = column;
            f.fill(column.room(taken), bars, 0, taken);
            if (formingRow >= 0) {
                column.room(formingRow + 1)[formingRow] = f.of(forming.orElseThrow());
            }
            return column;
        });
    }

    /** Takes the closed bars {@code from} to {@code to}. */
    @Override
    public void take(int from, int to) {
        formingRow = -1;
        taken = to;
        for (int i = 0; i < fields.length; i++) {
            fields[i].fill(used[i].room(to), bars, from, to);
        }
    }

    @Override
    public void reserve(int rows) {
        for (int i = 0; i < used.length; i++) {
            used[i].room(rows);
        }
    }

    /** Puts a bar that is not closed behind the closed ones, as it stands at {@code now}. */
    public void takeForming(BarSeries.Forming bar, long now) {
        formingRow = bars.count();
        forming = Optional.of(bar);
        for (int i = 0; i < fields.length; i++) {
            used[i].room(formingRow + 1)[formingRow] = fields[i].of(bar);
        }
        formingOpen = openOf(tape().time(bar.last()));
        formingMoment = now;
    }

    private void locate(int rows) {
        if (rows > sessions.length) {
            sessions = java.util.Arrays.copyOf(sessions, Math.max(rows, sessions.length * 2));
        }
        for (; located < rows; located++) {
            sessions[located] = openOf(tape().time(bars.last(located)));
        }
    }

    private long openOf(long time) {
        return sessionAt(time).map(Session::open).orElse(time);
    }

    /** The session that contains {@code time}, or the next one. */
    Optional<Session> sessionAt(long time) {
        if (session == null || !session.contains(time)) {
            session = calendar.current(time).orElse(null);
        }
        return Optional.ofNullable(session);
    }

    /** Open of the session that a row's last print lies in, nanoseconds. */
    public long sessionOpen(int row) {
        if (row == formingRow) {
            return formingOpen;
        }
        if (row >= located) {
            locate(row + 1);
        }
        return sessions[row];
    }

    /** The trading date that a row's last print lies in; empty when it lies in no session. */
    public Optional<LocalDate> tradingDate(int row) {
        return sessionAt(sessionOpen(row)).map(Session::tradingDate);
    }

    /** Prints that had been taken when a row was completed, or so far if it forms. */
    public int printsTaken(int row) {
        return row == formingRow ? forming.orElseThrow().last() + 1 : bars.printsTaken(row);
    }

    /** Whether the clock completed a row, not a print. */
    public boolean byClock(int row) {
        return row != formingRow && bars.closedAt(row) != Tape.NONE;
    }

    /** When a row was completed: its closing moment, or for a forming one the time of its last print. */
    public long moment(int row) {
        return row == formingRow ? formingMoment : bars.moment(row);
    }

    int first(int row) {
        return row == formingRow ? forming.orElseThrow().first() : bars.first(row);
    }

    int last(int row) {
        return row == formingRow ? forming.orElseThrow().last() : bars.last(row);
    }

    /** Whether the series began anew with this row. */
    boolean fresh(int row) {
        return row != formingRow && bars.fresh(row);
    }

    /** Every contract of a row, print by print. */
    void contracts(int row, ContractSink sink) {
        if (row == formingRow) {
            bars.contracts(forming.orElseThrow(), sink);
        } else {
            bars.contracts(row, sink);
        }
    }

    /** When the period that a row's session belongs to begins, nanoseconds. */
    long periodStart(Period period, int row) {
        long open = sessionOpen(row);
        return sessionAt(open).map(held -> period.start(calendar, held)).orElse(open);
    }

    /** The same for a row as for the row before, whenever both are in one session: asked once a session. */
    public long periodStart(Period period, int row, double[] before) {
        return row > 0 && sessionOpen(row) == sessionOpen(row - 1) ? (long) before[row - 1] : periodStart(period, row);
    }

    /** The contracts of a row whose prints are not before {@code start}. */
    void contractsSince(int row, long start, ContractSink sink) {
        if (tape().time(first(row)) >= start) {
            contracts(row, sink);
        } else {
            contracts(row, (print, contracts) -> {
                if (tape().time(print) >= start) {
                    sink.take(print, contracts);
                }
            });
        }
    }

    /** The sessions of the period before the one that a row lies in; empty when the tape does not hold them whole. */
    List<Session> wholeBefore(Period period, int row) {
        List<Session> before = sessionAt(sessionOpen(row)).map(held -> period.before(calendar, held)).orElse(List.of());
        return !before.isEmpty() && holds(before.getFirst().open(), before) ? before : List.of();
    }

    /** Whether the tape holds prints from {@code start} on, and none of these sessions lacks any. */
    boolean holds(long start, List<Session> sessions) {
        return bars.begin() < tape().count() && !calendar.late(start, tape().time(bars.begin()))
                && sessions.stream().noneMatch(tape()::incomplete);
    }
}
