package stativex.rule;

import java.time.DayOfWeek;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Supplier;
import stativex.study.Frame;
import stativex.study.Mirror;

/** Conditions about values: how they compare, cross and move, a study's yes or no, hours. */
final class Conditions {
    private Conditions() {}

    /** How two values are compared. */
    enum Relation {
        ABOVE, BELOW, AT_LEAST, AT_MOST, EQUAL, UNLIKE;

        /** The same of both values exchanged. */
        Relation turned() {
            return switch (this) {
                case ABOVE -> BELOW;
                case BELOW -> ABOVE;
                case AT_LEAST -> AT_MOST;
                case AT_MOST -> AT_LEAST;
                case EQUAL, UNLIKE -> this;
            };
        }

        static Relation of(String words) {
            return switch (words) {
                case ">", "is above" -> ABOVE;
                case "<", "is below" -> BELOW;
                case ">=", "is at least" -> AT_LEAST;
                case "<=", "is at most" -> AT_MOST;
                case "=" -> EQUAL;
                case "!=", "is not" -> UNLIKE;
                default -> throw new IllegalStateException("no relation " + words);
            };
        }
    }

    /** Truth of a comparison whose sides are there, absent else. */
    private static byte judge(double a, double b, boolean holds) {
        return (byte) (Double.isNaN(a) || Double.isNaN(b) ? Truth.ABSENT : holds ? Truth.TRUE : Truth.FALSE);
    }

    /** Whether a > b: the sign of their difference, which no branch has to foretell. */
    private static byte above(double a, double b) {
        // adding 0 makes -0 a plain 0: equal values are not above each other
        double rest = b - a + 0.0;
        return Double.isNaN(rest) ? judge(a, b, a > b) : (byte) (Double.doubleToRawLongBits(rest) >>> 63);
    }

    private static Explanation compared(String text, int truth, Value left, Value right, int bar) {
        List<Explanation.Term> terms = new ArrayList<>();
        terms.add(new Explanation.Term(left.text(), left.amount(bar)));
        terms.add(new Explanation.Term(right.text(), right.amount(bar)));
        for (Explanation.Term term : left.terms(bar)) {
            addNew(terms, term);
        }
        for (Explanation.Term term : right.terms(bar)) {
            addNew(terms, term);
        }
        String absence = left.absence(bar).isEmpty() ? right.absence(bar) : left.absence(bar);
        Optional<Explanation.Amount> missed = truth == Truth.FALSE
                ? Optional.of((left instanceof Values.Literal ? right : left).apart(bar,
                        (left instanceof Values.Literal ? left : right).at(bar)))
                : Optional.empty();
        return new Explanation(text, truth, terms, missed, OptionalInt.empty(), truth == Truth.ABSENT ? absence : "",
                List.of());
    }

    private static void addNew(List<Explanation.Term> terms, Explanation.Term term) {
        if (terms.stream().noneMatch(t -> t.text().equals(term.text()))) {
            terms.add(term);
        }
    }

    static final class Comparison extends Condition {
        private final Value left;
        private final Relation relation;
        private final Value right;

        Comparison(String text, Value left, Relation relation, Value right) {
            super(text);
            this.left = left;
            this.relation = relation;
            this.right = right;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            double[] x = left.operand();
            double[] y = right.operand();
            int i = left.step();
            int j = right.step();
            switch (relation) {
                case ABOVE -> {
                    for (int bar = from; bar < to; bar++) {
                        truth[bar] = above(x[bar * i], y[bar * j]);
                    }
                }
                case BELOW -> {
                    for (int bar = from; bar < to; bar++) {
                        truth[bar] = above(y[bar * j], x[bar * i]);
                    }
                }
                case AT_LEAST -> {
                    for (int bar = from; bar < to; bar++) {
                        truth[bar] = (byte) Truth.not(above(y[bar * j], x[bar * i]));
                    }
                }
                case AT_MOST -> {
                    for (int bar = from; bar < to; bar++) {
                        truth[bar] = (byte) Truth.not(above(x[bar * i], y[bar * j]));
                    }
                }
                case EQUAL -> {
                    for (int bar = from; bar < to; bar++) {
                        truth[bar] = judge(x[bar * i], y[bar * j], x[bar * i] == y[bar * j]);
                    }
                }
                case UNLIKE -> {
                    for (int bar = from; bar < to; bar++) {
                        truth[bar] = judge(x[bar * i], y[bar * j], x[bar * i] != y[bar * j]);
                    }
                }
            }
        }

        @Override
        Optional<Boolean> constant() {
            if (left.text().equals(right.text())) {
                return Optional.of(switch (relation) {
                    case AT_LEAST, AT_MOST, EQUAL -> true;
                    case ABOVE, BELOW, UNLIKE -> false;
                });
            }
            Optional<Boolean> found = bounded(left, relation, right);
            return found.isPresent() ? found : bounded(right, relation.turned(), left);
        }

        /** A value that is mirrored as {@code whole − itself} lies between 0 and that whole. */
        private static Optional<Boolean> bounded(Value value, Relation relation, Value number) {
            if (!(number instanceof Values.Literal literal)
                    || !(value instanceof Values.Named && value.column().mirror() instanceof Mirror.Rest rest)) {
                return Optional.empty();
            }
            boolean beyond = literal.number() > rest.whole();
            boolean below = literal.number() < 0;
            boolean top = literal.number() == rest.whole();
            boolean bottom = literal.number() == 0;
            return switch (relation) {
                case ABOVE -> beyond || top ? Optional.of(false) : below ? Optional.of(true) : Optional.empty();
                case AT_LEAST -> beyond ? Optional.of(false) : below || bottom ? Optional.of(true) : Optional.empty();
                case BELOW -> below || bottom ? Optional.of(false) : beyond ? Optional.of(true) : Optional.empty();
                case AT_MOST -> below ? Optional.of(false) : beyond || top ? Optional.of(true) : Optional.empty();
                case EQUAL -> beyond || below ? Optional.of(false) : Optional.empty();
                case UNLIKE -> beyond || below ? Optional.of(true) : Optional.empty();
            };
        }

        @Override
        public Explanation explain(int bar) {
            return compared(text(), at(bar), left, right, bar);
        }
    }

    /** At least one value and at most another. */
    static final class Within extends Condition {
        private final Comparison least;
        private final Comparison most;
        private final boolean empty;

        Within(String text, Value value, Value low, Value high) {
            super(text);
            least = new Comparison(text, value, Relation.AT_LEAST, low);
            most = new Comparison(text, value, Relation.AT_MOST, high);
            empty = low instanceof Values.Literal a && high instanceof Values.Literal b && a.number() > b.number();
        }

        @Override
        Optional<Boolean> constant() {
            return empty || least.constant().equals(Optional.of(false)) || most.constant().equals(Optional.of(false))
                    ? Optional.of(false)
                    : Optional.empty();
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            least.take(from, to);
            most.take(from, to);
            for (int bar = from; bar < to; bar++) {
                truth[bar] = (byte) Truth.and(least.at(bar), most.at(bar));
            }
        }

        @Override
        public Explanation explain(int bar) {
            return (least.at(bar) == at(bar) ? least : most).explain(bar);
        }
    }

    /** The bar's trading date is a weekday. */
    static final class OnDay extends Condition {
        private final DayOfWeek day;
        private final Frame frame;

        OnDay(String text, DayOfWeek day, Frame frame) {
            super(text);
            this.day = day;
            this.frame = frame;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            for (int bar = from; bar < to; bar++) {
                truth[bar] = (byte) frame.tradingDate(bar).map(date -> Truth.of(date.getDayOfWeek() == day))
                        .orElse(Truth.ABSENT).intValue();
            }
        }

        @Override
        public Explanation explain(int bar) {
            return Explanation.of(text(), at(bar), List.of()).noting(frame.tradingDate(bar)
                    .map(date -> "it is " + date.getDayOfWeek().getDisplayName(TextStyle.FULL, Locale.ENGLISH))
                    .orElse("the bar lies in no trading day"));
        }
    }

    /** {@code a rises through b}: a > b now and a ≤ b one bar before; falling is mirrored. */
    static final class Cross extends Condition {
        private final Value left;
        private final boolean rises;
        private final Value right;

        @Override
        Optional<Boolean> constant() {
            return left.text().equals(right.text()) ? Optional.of(false) : Optional.empty();
        }

        Cross(String text, Value left, boolean rises, Value right) {
            super(text);
            this.left = left;
            this.rises = rises;
            this.right = right;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            double[] x = left.values();
            double[] y = right.values();
            for (int bar = from; bar < to; bar++) {
                int now = rises ? above(x[bar], y[bar]) : above(y[bar], x[bar]);
                int before = bar == 0
                        ? Truth.ABSENT
                        : rises ? above(x[bar - 1], y[bar - 1]) : above(y[bar - 1], x[bar - 1]);
                truth[bar] = (byte) Truth.and(now, Truth.not(before));
            }
        }

        @Override
        public Explanation explain(int bar) {
            Explanation now = compared(text(), at(bar), left, right, bar);
            if (at(bar) == Truth.TRUE || bar == 0) {
                return bar == 0 ? now.noting("there is no bar before") : now;
            }
            boolean beyond = rises ? left.at(bar) > right.at(bar) : left.at(bar) < right.at(bar);
            if (at(bar) == Truth.FALSE && beyond) {
                return new Explanation(text(), at(bar), now.terms(), Optional.empty(), OptionalInt.empty(),
                        "it was " + (rises ? "above" : "below") + " one bar before already", List.of());
            }
            return now;
        }
    }

    /** Rising, falling or flat over N bars: x against x N bars before. */
    static final class Slope extends Condition {
        private final Value value;
        private final int way;
        private final int bars;

        /** @param way 1 rising, −1 falling, 0 flat */
        Slope(String text, Value value, int way, int bars) {
            super(text);
            this.value = value;
            this.way = way;
            this.bars = bars;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            double[] x = value.values();
            for (int bar = from; bar < to; bar++) {
                double before = bar < bars ? Double.NaN : x[bar - bars];
                truth[bar] = way > 0
                        ? above(x[bar], before)
                        : way < 0 ? above(before, x[bar]) : judge(x[bar], before, x[bar] == before);
            }
        }

        @Override
        public Explanation explain(int bar) {
            double earlier = bar < bars ? Double.NaN : value.at(bar - bars);
            return new Explanation(text(), at(bar),
                    List.of(new Explanation.Term(value.text(), value.amount(bar)),
                            new Explanation.Term(bars + (bars == 1 ? " bar" : " bars") + " before",
                                    new Explanation.Amount(earlier, value.unit(), value.ticks().foreign()))),
                    at(bar) == Truth.FALSE
                            ? Optional.of(value.apart(bar, earlier))
                            : Optional.empty(),
                    OptionalInt.empty(),
                    at(bar) != Truth.ABSENT
                            ? ""
                            : bar < bars
                                    ? "there is no bar " + bars + " bars before"
                                    : value.absence(bar),
                    List.of());
        }
    }

    /** A yes or no of a study. */
    static final class Flag extends Condition {
        private final Value value;
        private final Supplier<List<Value>> beside;

        /** @param beside what else its study says and takes, made only when somebody asks why */
        Flag(String text, Value value, Supplier<List<Value>> beside) {
            super(text);
            this.value = value;
            this.beside = beside;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            double[] x = value.values();
            for (int bar = from; bar < to; bar++) {
                truth[bar] = judge(x[bar], 0, x[bar] != 0);
            }
        }

        @Override
        public Explanation explain(int bar) {
            return new Explanation(text(), at(bar),
                    beside.get().stream().map(one -> new Explanation.Term(one.text(), one.amount(bar))).toList(),
                    Optional.empty(), OptionalInt.empty(), value.absence(bar), List.of());
        }
    }

    /** The bar's closing moment lies inside hours of a zone. */
    static final class Hours extends Condition {
        private final DailyHours hours;
        private final Frame frame;

        Hours(String text, DailyHours hours, Frame frame) {
            super(text);
            this.hours = hours;
            this.frame = frame;
        }

        @Override
        void evaluate(byte[] truth, int from, int to) {
            for (int bar = from; bar < to; bar++) {
                truth[bar] = (byte) Truth.of(hours.contains(frame.moment(bar)));
            }
        }

        @Override
        public Explanation explain(int bar) {
            return Explanation.of(text(), at(bar), List.of()).noting(hours.words(frame.moment(bar)));
        }
    }
}
