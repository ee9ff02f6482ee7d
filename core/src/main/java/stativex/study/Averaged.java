package stativex.study;

import java.util.List;
import java.util.Optional;

/**
 * Heikin-Ashi prices as values: close (O + H + L + C) ÷ 4, open the mean of open and close of the bar before, high and low
 * include both; they begin afresh where the bars do. Source: SEMANTICS, "Bars".
 */
final class Averaged extends Study {
    static final StudyKind KIND = new StudyKind("heikin", "Heikin-Ashi", "averaged bars", Optional.empty(), List.of(),
            true, "`.open`, `.high`, `.low`, `.close` of the averaged bar; 1 bar", Averaged::new);

    private final OutputColumn open = output("open", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn high = level("high", "low");
    private final OutputColumn low = level("low", "high");
    private final OutputColumn close = output("close", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn o;
    private final OutputColumn h;
    private final OutputColumn l;
    private final OutputColumn c;
    private final Frame frame;

    Averaged(StudyInputs in) {
        this.frame = in.frame();
        this.o = in.field(BarField.OPEN);
        this.h = in.field(BarField.HIGH);
        this.l = in.field(BarField.LOW);
        this.c = in.field(BarField.CLOSE);
    }

    @Override
    void compute(int from, int to) {
        for (int row = from; row < to; row++) {
            boolean anew = row == 0 || frame.fresh(row);
            double last = (o.values()[row] + h.values()[row] + l.values()[row] + c.values()[row]) / 4;
            double first = anew
                    ? (o.values()[row] + c.values()[row]) / 2
                    : (open.values()[row - 1] + close.values()[row - 1]) / 2;
            open.values()[row] = first;
            close.values()[row] = last;
            high.values()[row] = Math.max(h.values()[row], Math.max(first, last));
            low.values()[row] = Math.min(l.values()[row], Math.min(first, last));
        }
    }
}
