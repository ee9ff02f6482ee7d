package stativex.account;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import stativex.market.TapeTime;

/** The rules an account is held to, as data. Source: SEMANTICS, "Account rulebooks". */
public record Rulebook(String name, List<Rule> rules) {
    public Rulebook {
        rules = List.copyOf(rules);
    }

    public sealed interface Rule {}

    /** What a drawdown floor hangs from. */
    public enum Trails {
        /** The start. */
        STATIC,
        /** The highest balance at the end of a trading day, in force from the next one. */
        END_OF_DAY,
        /** The highest equity at any print. */
        INTRADAY
    }

    /**
     * The account is broken when equity ≤ floor.
     *
     * @param allowance money, above 0: the floor is what it hangs from less this
     * @param lock a floor that trails never rises above this; at least start − allowance
     */
    public record DrawdownFloor(Trails trails, long allowance, Optional<Long> lock, Guard guard) implements Rule {
        public DrawdownFloor {
            if (allowance <= 0) {
                throw new IllegalArgumentException("expected an allowance above 0");
            }
            if (trails == Trails.STATIC && lock.isPresent()) {
                throw new IllegalArgumentException("a static floor does not rise: expected no lock level");
            }
        }

        /** An intraday one without a guard. */
        public DrawdownFloor(long allowance, Optional<Long> lock) {
            this(Trails.INTRADAY, allowance, lock, Guard.OFF);
        }
    }

    /**
     * Everything is flat by a time of day: positions leave a lead before it, and nothing is entered until the next trading day.
     *
     * @param lead nanoseconds, 0 or more
     */
    public record FlatBy(LocalTime time, ZoneId zone, long lead) implements Rule {
        /** Five minutes. */
        public static final long LEAD = 300_000_000_000L;

        public FlatBy {
            if (lead < 0) {
                throw new IllegalArgumentException("expected a lead of 0 or more");
            }
        }

        /** The first moment at or after a time at which positions leave, nanoseconds. */
        public long actsFrom(long from) {
            LocalDate date = TapeTime.in(zone, Math.addExact(from, lead)).toLocalDate();
            long at = TapeTime.first(date.atTime(time), zone) - lead;
            return at >= from ? at : TapeTime.first(date.plusDays(1).atTime(time), zone) - lead;
        }
    }

    /** What a day's loss is counted from. */
    public enum From {
        BALANCE, EQUITY
    }

    /**
     * The day's loss, met at start-of-day balance or equity − amount.
     *
     * @param amount money, above 0
     * @param breaks the account is broken; else the day is locked
     */
    public record DayLoss(long amount, From from, boolean breaks, Guard guard) implements Rule {
        public DayLoss {
            if (amount <= 0) {
                throw new IllegalArgumentException("expected a day loss above 0");
            }
        }
    }

    /** The floor rule, if there is one. */
    public Optional<DrawdownFloor> floor() {
        return of(DrawdownFloor.class).findFirst();
    }

    /** Rules of one kind, in their order. */
    public <R extends Rule> Stream<R> of(Class<R> kind) {
        return rules.stream().filter(kind::isInstance).map(kind::cast);
    }
}
