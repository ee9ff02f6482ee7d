package stativex.rule;

import java.util.List;

/** A condition at a closed bar, in three-valued logic ({@link Truth}). */
public sealed interface Condition {
    /** {@link Truth} at the closed bar {@code bar}. */
    int at(int bar);

    /** The words it was written with, spaces made single. */
    String text();

    /** The conditions that must all hold: the lanes under a chart. */
    default List<Condition> parts() {
        return List.of(this);
    }

    enum Relation {
        ABOVE(">"), BELOW("<"), AT_LEAST(">="), AT_MOST("<="), EQUAL("=");

        private final String sign;

        Relation(String sign) {
            this.sign = sign;
        }

        public String sign() {
            return sign;
        }

        static Relation of(String sign) {
            for (Relation relation : values()) {
                if (relation.sign.equals(sign)) {
                    return relation;
                }
            }
            throw new IllegalStateException("no relation " + sign);
        }
    }

    record Comparison(Value left, Relation relation, Value right, String text) implements Condition {
        @Override
        public int at(int bar) {
            double a = left.at(bar);
            double b = right.at(bar);
            if (Double.isNaN(a) || Double.isNaN(b)) {
                return Truth.ABSENT;
            }
            return Truth.of(switch (relation) {
                case ABOVE -> a > b;
                case BELOW -> a < b;
                case AT_LEAST -> a >= b;
                case AT_MOST -> a <= b;
                case EQUAL -> a == b;
            });
        }
    }

    /** {@code a rises through b}: a > b now and a ≤ b one bar before; falling is mirrored. */
    record Cross(Value left, boolean rises, Value right, String text) implements Condition {
        @Override
        public int at(int bar) {
            int now = compare(left.at(bar), right.at(bar), true);
            int before = bar < 1 ? Truth.ABSENT : compare(left.at(bar - 1), right.at(bar - 1), false);
            return Truth.and(now, before);
        }

        private int compare(double a, double b, boolean beyond) {
            if (Double.isNaN(a) || Double.isNaN(b)) {
                return Truth.ABSENT;
            }
            boolean past = rises ? a > b : a < b;
            return Truth.of(past == beyond);
        }
    }

    record Not(Condition inner, String text) implements Condition {
        @Override
        public int at(int bar) {
            return Truth.not(inner.at(bar));
        }
    }

    record All(List<Condition> of, String text) implements Condition {
        @Override
        public int at(int bar) {
            int truth = Truth.TRUE;
            for (int i = 0; i < of.size(); i++) {
                truth = Truth.and(truth, of.get(i).at(bar));
            }
            return truth;
        }

        @Override
        public List<Condition> parts() {
            return of;
        }
    }

    record Any(List<Condition> of, String text) implements Condition {
        @Override
        public int at(int bar) {
            int truth = Truth.FALSE;
            for (int i = 0; i < of.size(); i++) {
                truth = Truth.or(truth, of.get(i).at(bar));
            }
            return truth;
        }
    }
}
