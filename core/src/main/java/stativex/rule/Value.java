package stativex.rule;

import stativex.study.Output;
import stativex.study.Unit;

/** A value in a rule at a closed bar; NaN stands for absent and passes through arithmetic. */
public sealed interface Value {
    double at(int bar);

    Unit unit();

    /** How many earlier bars it looks at. */
    int reach();

    record Literal(double value, Unit unit) implements Value {
        @Override
        public double at(int bar) {
            return value;
        }

        @Override
        public int reach() {
            return 0;
        }
    }

    record Named(Output output) implements Value {
        @Override
        public double at(int bar) {
            return output.at(bar);
        }

        @Override
        public Unit unit() {
            return output.unit();
        }

        @Override
        public int reach() {
            return 0;
        }
    }

    /** The value {@code bars} bars before; absent before the first bar. */
    record Earlier(Value value, int bars) implements Value {
        @Override
        public double at(int bar) {
            return bar < bars ? Double.NaN : value.at(bar - bars);
        }

        @Override
        public Unit unit() {
            return value.unit();
        }

        @Override
        public int reach() {
            return bars + value.reach();
        }
    }

    /** Arithmetic; division by zero is absent. */
    record Arithmetic(char operator, Value left, Value right, Unit unit) implements Value {
        @Override
        public double at(int bar) {
            double a = left.at(bar);
            double b = right.at(bar);
            double result = switch (operator) {
                case '+' -> a + b;
                case '-' -> a - b;
                case '*' -> a * b;
                default -> b == 0 ? Double.NaN : a / b;
            };
            return Double.isInfinite(result) ? Double.NaN : result;
        }

        @Override
        public int reach() {
            return Math.max(left.reach(), right.reach());
        }
    }
}
