package stativex.rule;

import java.util.Optional;
import stativex.study.BarField;
import stativex.study.Frame;
import stativex.study.MarkColumn;
import stativex.study.Mirror;
import stativex.study.OutputColumn;
import stativex.study.Step;
import stativex.study.StudyDefinition;
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

    /** Marks where a yes or no holds. */
    static final class Marks implements Step {
        private final OutputColumn holds;
        private final OutputColumn at;
        private final MarkColumn mark;

        /** @param way one of {@link StudyDefinition#MARKS}, not none */
        Marks(String way, OutputColumn holds, Frame frame) {
            this.holds = holds;
            this.at = frame.field(switch (way) {
                case "up" -> BarField.LOW;
                case "down" -> BarField.HIGH;
                default -> BarField.CLOSE;
            });
            this.mark = new MarkColumn(new MarkColumn.Shape("",
                    way.equals("plain") ? MarkColumn.Form.DIAMOND : MarkColumn.Form.CHEVRON,
                    switch (way) {
                        case "up" -> MarkColumn.Way.UP;
                        case "down" -> MarkColumn.Way.DOWN;
                        default -> MarkColumn.Way.NONE;
                    }, Optional.empty()), column(Unit.NUMBER), column(Unit.LEVEL));
        }

        private static OutputColumn column(Unit unit) {
            return new OutputColumn(new OutputColumn.Shape("", unit, Mirror.UNKNOWN));
        }

        MarkColumn column(Scope scope) {
            scope.add(this);
            return mark;
        }

        @Override
        public void take(int from, int to) {
            double[] ago = mark.ago().room(to);
            double[] price = mark.price().room(to);
            double[] yes = holds.values();
            for (int bar = from; bar < to; bar++) {
                ago[bar] = Double.isNaN(yes[bar]) ? Double.NaN : yes[bar] != 0 ? 0 : MarkColumn.NONE;
                price[bar] = at.values()[bar];
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
