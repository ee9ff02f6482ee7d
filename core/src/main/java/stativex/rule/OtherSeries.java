package stativex.rule;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import stativex.market.BarSeries;
import stativex.market.SeriesBuilder;
import stativex.market.Tape;
import stativex.study.Frame;
import stativex.study.OutputColumn;
import stativex.study.Step;

/**
 * A further series, as it stood at the moment each signal bar was evaluated: it has taken the prints up to that moment
 * and closed what it closes, before the strategy looks. Of another contract's tape only what is stamped before counts,
 * since the order of equal times is not known. Its forming bar is computed only when somebody watches it.
 */
final class OtherSeries implements Step {
    /** A column of this series whose forming value is written to one of the signal series. */
    private record Watched(OutputColumn from, OutputColumn to) {}

    private final Frame signal;
    private final SeriesBuilder builder;
    private final Tape tape;
    private final boolean own;
    private final Scope scope;
    private final List<Watched> watched = new ArrayList<>();
    private int[] closed = new int[64];
    private int next;

    OtherSeries(Program program, Blueprint.SeriesDefinition definition, Frame signal) {
        this.signal = signal;
        Optional<Blueprint.Source> source = definition.contract()
                .map(symbol -> program.blueprint().tapes().get(symbol));
        this.own = source.isEmpty();
        this.tape = source.map(Blueprint.Source::tape).orElse(signal.tape());
        var calendar = source.map(Blueprint.Source::calendar).orElse(signal.calendar());
        this.builder = new SeriesBuilder(tape, calendar, definition.bars());
        this.scope = new Scope(program, definition.name(), new Frame(builder.series(), calendar));
    }

    Scope scope() {
        return scope;
    }

    BarSeries bars() {
        return builder.series();
    }

    /** The forming value of {@code from} is to be written to {@code to}. */
    void watch(OutputColumn from, OutputColumn to) {
        watched.add(new Watched(from, to));
    }

    /** Bars that had closed when a signal bar was evaluated. */
    int closed(int row) {
        return closed[row];
    }

    @Override
    public void take(int from, int to) {
        if (to > closed.length) {
            closed = Arrays.copyOf(closed, Math.max(to, closed.length * 2));
        }
        for (int i = 0; i < watched.size(); i++) {
            watched.get(i).to().room(to);
        }
        for (int row = from; row < to; row++) {
            advance(row);
            closed[row] = builder.series().count();
            if (!watched.isEmpty()) {
                scope.take(closed[row]);
                look(row);
            }
        }
        scope.take(builder.series().count());
    }

    private void advance(int row) {
        long moment = signal.moment(row);
        int until = own ? signal.printsTaken(row) : tape.firstAt(moment);
        if (until > next) {
            builder.prints(next, until);
            next = until;
        }
        if (next > 0 && (!own || signal.byClock(row))) {
            builder.heartbeat(moment);
        }
    }

    private void look(int row) {
        Optional<BarSeries.Forming> forming = builder.forming();
        forming.ifPresent(bar -> scope.takeForming(bar, signal.moment(row)));
        for (int i = 0; i < watched.size(); i++) {
            Watched w = watched.get(i);
            w.to().values()[row] = forming.isPresent() ? w.from().values()[closed[row]] : Double.NaN;
        }
    }
}
