package stativex.rule;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import stativex.market.BarSeries;
import stativex.market.ContractTape;
import stativex.market.SeriesBuilder;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.study.Frame;
import stativex.study.OutputColumn;
import stativex.study.Step;

/**
 * A further series, as it stood at the moment each signal bar was evaluated: it has taken the prints up to that moment
 * and closed what it closes, before the strategy looks. Of another contract's tape only what is stamped before counts,
 * since the order of equal times is not known; once a whole session of that contract has passed without a print its values
 * are absent, since its tape has ended or lacks it, and so are those of bars that depend on every print while a session of
 * it lacks some. Its forming bar is computed only when somebody watches it.
 */
final class OtherSeries implements Step {
    /** A column of this series whose forming value is written to one of the signal series. */
    private record Watched(OutputColumn from, OutputColumn to) {}

    /**
     * All of it over the whole history of the signal series.
     *
     * @param closed bars that had closed at each signal bar, or why nothing is known
     */
    record History(BarSeries bars, int[] closed) {}

    /** In place of a count of closed bars: a whole session has passed without a print. */
    private static final int STALE = -1;
    /** Likewise: the session lacks prints, and the bars depend on every one. */
    private static final int LACKING = -2;

    private final Frame signal;
    /** Empty when the whole history is known already. */
    private final Optional<SeriesBuilder> builder;
    private final BarSeries bars;
    private final Tape tape;
    private final SessionCalendar calendar;
    private final boolean own;
    private final boolean everyPrint;
    private final Scope scope;
    private final List<Watched> watched = new ArrayList<>();
    private int[] closed = new int[64];
    private int next;
    /** From this moment on what was taken says nothing any more. */
    private long staleFrom = TapeTime.NEVER;
    private Optional<Session> session = Optional.empty();
    private boolean lacking;

    /** @param known its whole history; empty: it is worked bar by bar */
    OtherSeries(Program program, Blueprint.SeriesDefinition definition, Frame signal, Optional<History> known) {
        this.signal = signal;
        Optional<ContractTape> other = definition.contract().map(program.blueprint().others()::get);
        this.own = other.isEmpty();
        this.everyPrint = definition.bars().type().needsEveryPrint();
        this.tape = other.map(ContractTape::tape).orElse(signal.tape());
        this.calendar = other.map(o -> o.contract().calendar()).orElse(signal.calendar());
        this.builder = known.isPresent()
                ? Optional.empty()
                : Optional.of(new SeriesBuilder(tape, calendar, definition.bars(), program.blueprint().since()));
        this.bars = known.map(History::bars).orElseGet(() -> builder.orElseThrow().series());
        known.ifPresent(history -> closed = history.closed());
        this.scope = new Scope(program, definition.name(), new Frame(bars, calendar));
    }

    /** All of it, once every signal bar is taken. */
    History history() {
        return new History(bars, closed);
    }

    /** Why nothing is known of it at a signal bar, in words; empty text when something is, or no bar has closed yet. */
    String absence(int row) {
        return switch (closed[row]) {
            case STALE -> "its tape has no print of a whole session, or has ended";
            case LACKING -> "its tape lacks prints of this session";
            default -> "";
        };
    }

    Scope scope() {
        return scope;
    }

    BarSeries bars() {
        return bars;
    }

    /** The forming value of {@code from} is to be written to {@code to}. */
    void watch(OutputColumn from, OutputColumn to) {
        watched.add(new Watched(from, to));
    }

    /** Bars that had closed when a signal bar was evaluated; 0 where nothing is known. */
    int closed(int row) {
        return Math.max(0, closed[row]);
    }

    @Override
    public void take(int from, int to) {
        if (builder.isPresent()) {
            advance(builder.get(), from, to);
        }
        scope.take(bars.count());
    }

    private void advance(SeriesBuilder builder, int from, int to) {
        if (to > closed.length) {
            closed = Arrays.copyOf(closed, Math.max(to, closed.length * 2));
        }
        for (int i = 0; i < watched.size(); i++) {
            watched.get(i).to().room(to);
        }
        for (int row = from; row < to; row++) {
            advance(builder, row);
            int count = bars.count();
            closed[row] = signal.moment(row) >= staleFrom ? STALE : lacking ? LACKING : count;
            if (!watched.isEmpty()) {
                scope.take(count);
                look(builder, row, closed[row] < 0);
            }
        }
    }

    private void advance(SeriesBuilder builder, int row) {
        long moment = signal.moment(row);
        int until = own ? signal.printsTaken(row) : tape.firstAt(moment);
        if (until > next) {
            builder.prints(next, until);
            next = until;
            if (!own) {
                reached(tape.time(until - 1));
            }
        }
        if (next > 0 && (!own || signal.byClock(row))) {
            builder.heartbeat(moment);
        }
    }

    /** Another contract's prints are taken up to {@code time}. */
    private void reached(long time) {
        if (session.filter(held -> held.contains(time)).isEmpty()) {
            session = calendar.current(time);
            boolean inside = session.filter(held -> held.contains(time)).isPresent();
            // the close of the first session that has opened since
            staleFrom = session.flatMap(held -> inside ? calendar.after(held) : session).map(Session::close)
                    .orElse(TapeTime.NEVER);
            lacking = everyPrint && inside && session.filter(this::lacksPrints).isPresent();
        }
    }

    private boolean lacksPrints(Session held) {
        return tape.incomplete(held)
                || bars.begin() < tape.count() && held.contains(tape.time(bars.begin()))
                        && calendar.late(held.open(), tape.time(bars.begin()));
    }

    private void look(SeriesBuilder builder, int row, boolean unknown) {
        Optional<BarSeries.Forming> forming = unknown ? Optional.empty() : builder.forming();
        forming.ifPresent(bar -> scope.takeForming(bar, signal.moment(row)));
        for (int i = 0; i < watched.size(); i++) {
            Watched w = watched.get(i);
            w.to().values()[row] = forming.isPresent() ? w.from().values()[bars.count()] : Double.NaN;
        }
    }
}
