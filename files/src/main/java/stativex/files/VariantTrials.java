package stativex.files;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import stativex.engine.DayBook;
import stativex.engine.Strategy;
import stativex.market.Histories;
import stativex.market.Tape;
import stativex.rule.Worked;
import stativex.search.Space;
import stativex.search.Tried;
import stativex.trial.Days;
import stativex.trial.Inputs;
import stativex.trial.Run;

/**
 * The variants of a search, each a trial of its own. Bars are made once for all of them; whoever tries several hands his studies on.
 * Safe for several threads.
 */
public final class VariantTrials {
    /**
     * A wanted evaluation.
     *
     * @param number of the variant in the search, from 1; {@code grid} in the grid, from 0
     * @param from place of its first day, from 0; {@code to} of its last one
     */
    public record Task(int number, long grid, int from, int to) {}

    /**
     * What came of one.
     *
     * @param whole whether it was evaluated over the whole fit range
     * @param tried empty where its document is refused, {@code problem} says why
     */
    public record Outcome(int number, long grid, boolean whole, Optional<Tried> tried, String problem) {}

    private final SearchSpec spec;
    private final Space space;
    private final Inputs base;
    private final List<LocalDate> days;
    private final Histories histories = new Histories();

    /**
     * @param tape that the spec names
     * @throws BadInput when the documents do not fit one another, or the fit range has no day
     */
    public VariantTrials(SearchSpec spec, Tape tape) {
        this.spec = spec;
        this.space = spec.space();
        int[] none = new int[space.ranges().size()];
        this.base = new SessionFile.Set(spec.contract(), spec.account(), List.of(spec.variant(none)))
                .inputs(tape, spec.trial().terms()).over(spec.trial().days());
        this.days = Run.trial(base).engine().days().days().stream().map(DayBook.Day::date).toList();
        if (days.isEmpty()) {
            throw new BadInput("expected days of the tape in the fit range, found none");
        }
    }

    /** What is searched. */
    public Space space() {
        return space;
    }

    /** The fit range. */
    public List<LocalDate> days() {
        return days;
    }

    /** Every day of the fit range, for a variant. */
    public Task whole(int number, long grid) {
        return new Task(number, grid, 0, days.size() - 1);
    }

    /** Tries one. @param worked studies of those tried before */
    public Outcome of(Task task, Worked worked) {
        boolean whole = task.from() == 0 && task.to() == days.size() - 1;
        try {
            Documents.Read<Strategy> strategy = spec.variant(space.places(task.grid()));
            Inputs inputs = new Inputs(base.tape(), base.contract(), base.others(), base.account(),
                    List.of(strategy.value()), base.terms(), whole ? base.days() : range(task), base.heartbeats(),
                    base.rolls());
            Tried tried = Tried.of(Run.trial(new Run(inputs, histories, worked)));
            return new Outcome(task.number(), task.grid(), whole, Optional.of(tried), "");
        } catch (BadInput | IllegalArgumentException e) {
            return new Outcome(task.number(), task.grid(), whole, Optional.empty(), e.getMessage());
        }
    }

    /** Days by their places; the range's own beginning stays as it is. */
    private Days range(Task task) {
        return new Days(task.from() == 0 ? base.days().first() : Optional.of(days.get(task.from())),
                Optional.of(days.get(task.to())));
    }
}
