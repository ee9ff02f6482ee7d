package stativex.rule;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.market.BarSeries;
import stativex.market.Drawing;
import stativex.market.Tape;
import stativex.study.BarField;
import stativex.study.StudyDefinition;

/**
 * What programs have worked over a whole history, for the next program on the same bars: studies that did not change and
 * bars of further series are there at once. What the last two programs used is kept, and never written again. Safe for
 * several threads.
 */
public final class Worked {
    /**
     * What the columns of a study depend on.
     *
     * @param bars the signal series
     * @param others what else it can take by name; empty when it takes nothing but the bars it sits on
     */
    private record StudyKey(Same<BarSeries> bars, Optional<SeriesKey> on, StudyDefinition definition,
            List<Object> others) {}

    private record SeriesKey(Same<BarSeries> signal, Blueprint.SeriesDefinition definition,
            Optional<Same<Tape>> of) {}

    /** One and the same object, not one that is equal to it. */
    private record Same<T>(T one) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Same<?> same && same.one == one;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(one);
        }
    }

    private Map<Object, Object> last = new HashMap<>();
    private Map<Object, Object> before = new HashMap<>();

    /** Nothing yet. */
    public Worked() {}

    /** Takes over what a program has worked; it has taken every bar of its series. */
    public void keep(Program program) {
        if (program.rows() < program.bars().count()) {
            throw new IllegalStateException("the program has not taken every bar");
        }
        Map<Object, Object> now = new HashMap<>();
        program.worked((series, built) -> now.put(key(program, series, built.definition()), built),
                (definition, history) -> now.put(key(program, definition), history));
        synchronized (this) {
            before = last;
            last = now;
        }
    }

    private synchronized Optional<Object> find(Object key) {
        return Optional.ofNullable(last.getOrDefault(key, before.get(key)));
    }

    /** The columns of a study of a series; an empty name is the signal series. */
    Optional<Scope.Built> study(Program program, String series, StudyDefinition definition) {
        return find(key(program, series, definition)).map(Scope.Built.class::cast);
    }

    /** The bars of a further series. */
    Optional<OtherSeries.History> series(Program program, Blueprint.SeriesDefinition definition) {
        return find(key(program, definition)).map(OtherSeries.History.class::cast);
    }

    private static Object key(Program program, String series, StudyDefinition definition) {
        Blueprint blueprint = program.blueprint();
        boolean alone = definition.of().filter(of -> !BarField.isOne(of)).isEmpty();
        List<Drawing> drawings = blueprint.drawings();
        return new StudyKey(new Same<>(program.bars()),
                program.definition(series).map(on -> key(program, on)), definition,
                alone ? List.of() : List.of(blueprint.studies(), blueprint.series(), drawings));
    }

    private static SeriesKey key(Program program, Blueprint.SeriesDefinition definition) {
        return new SeriesKey(new Same<>(program.bars()), definition,
                definition.contract().map(program.blueprint().others()::get)
                        .map(other -> new Same<>(other.tape())));
    }
}
