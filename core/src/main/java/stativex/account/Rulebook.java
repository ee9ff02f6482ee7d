package stativex.account;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
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

    /**
     * Most contracts of a side, over everything that is traded.
     *
     * @param most to begin with, at least 1
     * @param tiers other figures from some profit on, by the balance at the trading day's first instant; rising
     * @param micros what a contract counts of one, by symbol; others count as one
     */
    public record Size(int most, List<Tier> tiers, Map<String, Share> micros) implements Rule {
        public Size {
            ContractLimits.atLeastOne(Optional.of(most), "a size");
            tiers = List.copyOf(tiers);
            micros = Map.copyOf(micros);
            for (int i = 1; i < tiers.size(); i++) {
                if (tiers.get(i).from() <= tiers.get(i - 1).from()) {
                    throw new IllegalArgumentException(
                            "expected every tier to begin at a higher profit than the one before");
                }
            }
        }

        /** @param from profit at which it begins, money; {@code most} contracts from there on */
        public record Tier(long from, int most) {
            public Tier {
                ContractLimits.atLeastOne(Optional.of(most), "a tier");
            }
        }

        /** Most contracts at a profit, money. */
        public int at(long profit) {
            int now = most;
            for (Tier tier : tiers) {
                now = profit >= tier.from() ? tier.most() : now;
            }
            return now;
        }

        /** Whether contracts of a side, by symbol, are no more than so many. */
        public boolean fits(Map<String, Long> contracts, int most) {
            long parts = micros.values().stream().mapToLong(Share::parts).reduce(1, Size::lcm);
            long sum = contracts.entrySet().stream().mapToLong(held -> {
                Share share = micros.getOrDefault(held.getKey(), Share.WHOLE);
                return Math.multiplyExact(Math.multiplyExact(held.getValue(), share.of()), parts / share.parts());
            }).reduce(0, Math::addExact);
            return sum <= Math.multiplyExact(most, parts);
        }

        private static long lcm(long a, long b) {
            return Math.multiplyExact(a / BigInteger.valueOf(a).gcd(BigInteger.valueOf(b)).longValueExact(), b);
        }
    }

    /** Met by the balance, while flat, at start + amount. @param amount money, above 0 */
    public record ProfitTarget(long amount) implements Rule {
        public ProfitTarget {
            if (amount <= 0) {
                throw new IllegalArgumentException("expected a profit target above 0");
            }
        }
    }

    /** Trading days with a fill before the target counts as met. @param days 1 or more */
    public record FewestDays(int days) implements Rule {
        public FewestDays {
            if (days < 1) {
                throw new IllegalArgumentException("expected a fewest number of days of 1 or more, found " + days);
            }
        }
    }

    /** The best day's net is at most this part of the net since the start. @param percent above 0, at most 100 */
    public record Consistency(BigDecimal percent) implements Rule {
        public Consistency {
            percentage(percent);
        }

        /** Whether it holds; asked only while {@code net} is above 0. Money. */
        public boolean holds(long bestDay, long net) {
            return BigDecimal.valueOf(bestDay).multiply(BigDecimal.valueOf(100))
                    .compareTo(BigDecimal.valueOf(net).multiply(percent)) <= 0;
        }
    }

    /** Nothing is held when a trading day ends: positions leave a lead before its last session's close. @param lead nanoseconds */
    public record NoOvernight(long lead) implements Rule {}

    /** Initial stop ÷ quantity-weighted mean target, the runner left out, is at most this. @param ratio above 0 */
    public record StopToTarget(BigDecimal ratio) implements Rule {
        public StopToTarget {
            if (ratio.signum() <= 0) {
                throw new IllegalArgumentException("expected a stop-to-target ratio above 0");
            }
        }
    }

    /**
     * At most a part of the trades, by count, is held for less than a time.
     *
     * @param least nanoseconds
     * @param percent above 0, at most 100
     */
    public record HoldingTime(long least, BigDecimal percent) implements Rule {
        public HoldingTime {
            percentage(percent);
        }
    }

    /** No trading in quiet times. @param before nanoseconds, likewise {@code after}; the account's own may be wider */
    public record Quiet(long before, long after) implements Rule {}

    /**
     * When money may be paid out: so much stays above the start, after so many winning days.
     *
     * @param buffer money above the start that stays
     * @param winningDays fewest, {@code winningDay} the net from which on a day counts as one
     * @param cap most money at once; empty: no cap
     */
    public record Payout(long buffer, int winningDays, long winningDay, Optional<Long> cap) implements Rule {
        public Payout {
            if (buffer < 0 || winningDay < 0 || cap.filter(most -> most <= 0).isPresent()) {
                throw new IllegalArgumentException(
                        "expected a payout's buffer and winning day of 0 or more, a cap above 0");
            }
        }
    }

    private static void percentage(BigDecimal percent) {
        if (percent.signum() <= 0 || percent.compareTo(BigDecimal.valueOf(100)) > 0) {
            throw new IllegalArgumentException("expected a percentage above 0, at most 100");
        }
    }

    /** So many parts of one: an eighth is 1 of 8. */
    public record Share(int of, int parts) {
        static final Share WHOLE = new Share(1, 1);

        public Share {
            if (of < 1 || parts < 1 || parts > 1_000_000) {
                throw new IllegalArgumentException("expected a part of one such as 1/8");
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
