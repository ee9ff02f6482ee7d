package stativex.rule;

import stativex.study.Mirror;
import stativex.study.OutputColumn;
import stativex.study.Step;
import stativex.study.Unit;

/** A study that is a value worked out from others, under a name of its own. */
final class Formula implements Step {
    private final OutputColumn input;
    private final OutputColumn output;

    Formula(OutputColumn input) {
        this.input = input;
        this.output = new OutputColumn(new OutputColumn.Shape("", input.unit(), input.anchored(), input.mirror(), ""));
    }

    /** A condition under a name of its own: yes, no or absent. */
    static final class Truths implements Step {
        private final Condition condition;
        private final OutputColumn output = new OutputColumn(
                new OutputColumn.Shape("", Unit.FLAG, false, Mirror.UNKNOWN, ""));

        Truths(Condition condition) {
            this.condition = condition;
        }

        OutputColumn column(Scope scope) {
            scope.add(this);
            return output;
        }

        @Override
        public void take(int from, int to) {
            double[] y = output.room(to);
            byte[] t = condition.truths();
            for (int bar = from; bar < to; bar++) {
                y[bar] = t[bar] == Truth.ABSENT ? Double.NaN : t[bar] == Truth.TRUE ? 1 : 0;
            }
        }
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
