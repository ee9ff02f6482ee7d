package stativex.market;

/** The kinds of bars and their sizes. Meaning and closing moments: SEMANTICS, "Bars". */
public sealed interface BarType {
    /** As said on screen: {@code 400-tick bars}. */
    default String words() {
        return switch (this) {
            case Ticks t -> t.trades() + "-tick bars";
            case Volume v -> v.contracts() + "-volume bars";
            case Range r -> r.ticks() + "-tick range bars";
            case Time t -> java.math.BigDecimal.valueOf(t.nanos(), 9).stripTrailingZeros().toPlainString()
                    + "-second bars";
            case Renko r -> "renko " + r.step() + ":" + r.turn();
            case Period p -> p.name().toLowerCase(java.util.Locale.ROOT) + " bars";
        };
    }

    /** Whether a print that is missing makes every later bar of its session another one; by the clock it does not. */
    default boolean needsEveryPrint() {
        return !(this instanceof Time) && !(this instanceof Period);
    }

    /** Closes with its N-th trade. */
    record Ticks(int trades) implements BarType {
        public Ticks {
            atLeast(1, trades, "trades per bar");
        }
    }

    /** Closes when its volume is exactly that; a larger trade is split. */
    record Volume(long contracts) implements BarType {
        public Volume {
            atLeast(1, contracts, "contracts per bar");
        }
    }

    /** A trade that would make high − low exceed that many ticks opens the next bar. */
    record Range(long ticks) implements BarType {
        public Range {
            atLeast(1, ticks, "range in ticks");
        }
    }

    /** Time from the session's open, at least a millisecond. */
    record Time(long nanos) implements BarType {
        public Time {
            if (nanos < 1_000_000) {
                throw new IllegalArgumentException("expected 0.001 seconds or more, found "
                        + java.math.BigDecimal.valueOf(nanos, 9).stripTrailingZeros().toPlainString());
            }
        }
    }

    /** Bricks of {@code step} ticks that turn after {@code turn} ticks. */
    record Renko(long step, long turn) implements BarType {
        public Renko {
            atLeast(1, step, "step in ticks");
            if (turn < step) {
                throw new IllegalArgumentException("expected a turn of at least the step's " + step + " ticks, found "
                        + turn);
            }
        }
    }

    /** Whole trading dates. */
    enum Period implements BarType {
        DAY, WEEK, MONTH
    }

    private static void atLeast(long least, long value, String what) {
        if (value < least) {
            throw new IllegalArgumentException("expected " + what + " of " + least + " or more, found " + value);
        }
    }
}
