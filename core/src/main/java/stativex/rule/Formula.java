package stativex.rule;

import stativex.study.OutputColumn;
import stativex.study.Step;

/** A study that is a value worked out from others, under a name of its own. */
final class Formula implements Step {
    private final OutputColumn input;
    private final OutputColumn output;

    Formula(OutputColumn input) {
        this.input = input;
        this.output = new OutputColumn(new OutputColumn.Shape("", input.unit(), input.anchored(), input.mirror(), ""));
    }

    OutputColumn column(Scope scope) {
        scope.add(this);
        return output;
    }

    @Override
    public void take(int from, int to) {
        System.arraycopy(input.values(), from, output.room(to), from, to - from);
    }
}
