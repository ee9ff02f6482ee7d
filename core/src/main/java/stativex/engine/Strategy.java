package stativex.engine;

import java.util.List;
import java.util.Optional;
import stativex.account.DayLimits;
import stativex.exit.ExitPlan;
import stativex.interlock.CoolDown;
import stativex.interlock.SessionWindow;
import stativex.market.Side;
import stativex.order.Order;

/**
 * A strategy as its document states it.
 *
 * @param version a fingerprint of its document with its exit plan, carried by every result
 * @param contract symbol of the contract it trades
 * @param signals what it looks at and when it judges
 * @param historyDays trading days that only feed the studies before the first evaluated one
 */
public record Strategy(String name, String version, String contract, SignalPlan signals, Sides sides, Entry entry,
        Limits limits, ExitPlan plan, int historyDays) {

    /** @param longSide empty: the side does not exist; likewise the short one */
    public record Sides(Optional<SideRule> longSide, Optional<SideRule> shortSide) {
        public Sides {
            if (longSide.isEmpty() && shortSide.isEmpty()) {
                throw new IllegalArgumentException("expected a rule for long, short or both, found none");
            }
        }
    }

    /**
     * How an entry meets what is at work already.
     *
     * @param adds whether a further entry may join an open trade
     * @param reverse a signal against an open position turns it round
     * @param twoSided signals of both sides at one moment rest as a pair, of which the first to fill ends the other
     * @param cutting an entry that is too large for a limit is cut to what fits
     */
    public record Joins(boolean adds, boolean reverse, boolean twoSided, boolean cutting) {}

    /**
     * How often and how much it may enter.
     *
     * @param maximumPosition most contracts, open and resting entries together
     * @param windows empty: every hour
     * @param tradesADay empty: no limit
     * @param once a side switches itself off after its entry fills
     * @param coolDown no entry for a while after a trade; empty: at once
     * @param largestSpread ticks between bid and ask at the signal's print; empty: any
     * @param day what a trading day may lose and win
     */
    public record Limits(int maximumPosition, Joins joins, List<SessionWindow> windows, Optional<Integer> tradesADay,
            boolean once, Optional<CoolDown> coolDown, Optional<Integer> largestSpread, DayLimits day) {
        public Limits {
            if (maximumPosition < 1) {
                throw new IllegalArgumentException(
                        "expected a maximum position of 1 contract or more, found " + maximumPosition);
            }
            largestSpread.ifPresent(most -> {
                if (most < 0) {
                    throw new IllegalArgumentException("expected a largest spread of 0 ticks or more, found " + most);
                }
            });
            windows = List.copyOf(windows);
            tradesADay.ifPresent(most -> {
                if (most < 1) {
                    throw new IllegalArgumentException("expected trades a day of 1 or more, found " + most);
                }
            });
        }
    }

    /**
     * @param rule condition in the rule language
     * @param price price of a limit or stop entry in the rule language
     * @param grades named grades of the rule, the strongest first; none: the rule alone decides
     * @param enters names of the grades that may enter
     * @param entry how this side enters; empty: as the strategy says for both
     */
    public record SideRule(String rule, Optional<String> price, List<Grade> grades, List<String> enters,
            Optional<Entry> entry) {
        public SideRule {
            grades = List.copyOf(grades);
            enters = List.copyOf(enters);
            List<String> names = grades.stream().map(Grade::name).toList();
            if (names.stream().distinct().count() < names.size()) {
                throw new IllegalArgumentException("expected grades of different names");
            }
            for (String name : enters) {
                if (!names.contains(name)) {
                    throw new IllegalArgumentException("expected grades that enter to be some of "
                            + String.join(", ", names) + ", found " + name);
                }
            }
            if (!grades.isEmpty() && enters.isEmpty()) {
                throw new IllegalArgumentException("expected at least one grade that may enter, found none");
            }
        }

        private SideRule sized(int times) {
            return new SideRule(rule, price, grades, enters, entry.map(own -> own.sized(times)));
        }

        /** A rule without grades, which enters as the strategy says for both sides. */
        public SideRule(String rule, Optional<String> price) {
            this(rule, price, List.of(), List.of(), Optional.empty());
        }
    }

    /** @param rule what must hold beside the side's rule */
    public record Grade(String name, String rule) {}

    /**
     * What a stop-out of an entry may cost: the way to its initial stop, slippage and the fees of both sides.
     *
     * @param sizing by which the quantity is found; empty: it is fixed
     * @param cap money, ten-thousandths; empty: none
     */
    public record Risk(Optional<Sizing> sizing, Optional<Long> cap) {
        /** A fixed quantity, whatever it may cost. */
        public static final Risk NONE = new Risk(Optional.empty(), Optional.empty());

        public Risk {
            cap.ifPresent(money -> {
                if (money <= 0) {
                    throw new IllegalArgumentException("expected a risk cap above 0, found none");
                }
            });
        }
    }

    /**
     * How an entry is sent.
     *
     * @param type market, limit, stop or stop-limit
     * @param quantity contracts, at most
     * @param goodFor how long a resting entry stays
     * @param reprice a resting entry follows its price at each bar's close
     * @param marketAfterSeconds a resting entry turns to the market so long after it was sent; empty: never
     * @param towardMarket a price off the grid is rounded toward the market, else away from it
     * @param limitBeyond of a stop-limit: ticks from its stop to its limit, 0 or more
     */
    public record Entry(Order.Type type, int quantity, GoodFor goodFor, boolean reprice,
            Optional<Integer> marketAfterSeconds, boolean towardMarket, int limitBeyond, Risk risk) {
        public Entry {
            if (limitBeyond < 0) {
                throw new IllegalArgumentException(
                        "expected a limit 0 ticks or more beyond its stop, found " + limitBeyond);
            }
            if (limitBeyond > 0 && type != Order.Type.STOP_LIMIT) {
                throw new IllegalArgumentException("only a stop-limit has a limit beyond its stop");
            }
            if (quantity < 1) {
                throw new IllegalArgumentException("expected an entry quantity of 1 or more, found " + quantity);
            }
            if (type == Order.Type.MARKET && (reprice || marketAfterSeconds.isPresent())) {
                throw new IllegalArgumentException(
                        "a market entry does not rest: expected no repricing and no turning to the market");
            }
            marketAfterSeconds.ifPresent(seconds -> {
                if (seconds < 1) {
                    throw new IllegalArgumentException("expected 1 second or more until the market, found " + seconds);
                }
            });
        }

        private Entry sized(int times) {
            return new Entry(type, Math.multiplyExact(quantity, times), goodFor, reprice, marketAfterSeconds,
                    towardMarket, limitBeyond, risk);
        }

        /** Whether it has a price of its own. */
        public boolean priced() {
            return type != Order.Type.MARKET;
        }

        /** An entry that stays as it was sent. */
        public Entry(Order.Type type, int quantity, GoodFor goodFor) {
            this(type, quantity, goodFor, false, Optional.empty(), false, 0, Risk.NONE);
        }
    }

    /** How long a resting entry stays. */
    public sealed interface GoodFor {
        /** Until the last session's close of its trading day. */
        record Day() implements GoodFor {}

        record UntilCancelled() implements GoodFor {}

        /** Dies at the n-th bar close after it was sent. */
        record Bars(int n) implements GoodFor {
            public Bars {
                if (n < 1) {
                    throw new IllegalArgumentException("expected an entry good for 1 bar or more, found " + n);
                }
            }
        }
    }

    /** The same trading so many times the contracts: entries, the largest position, targets, and what a rule takes off. */
    public Strategy sized(int times) {
        ExitPlan bigger = new ExitPlan(plan.name(), plan.version(), plan.terms(Side.LONG).sized(times),
                plan.terms(Side.SHORT).sized(times));
        Limits more = new Limits(Math.multiplyExact(limits.maximumPosition, times), limits.joins, limits.windows,
                limits.tradesADay, limits.once, limits.coolDown, limits.largestSpread, limits.day);
        return new Strategy(name, version, contract, signals,
                new Sides(sides.longSide.map(side -> side.sized(times)),
                        sides.shortSide.map(side -> side.sized(times))),
                entry.sized(times), more, bigger, historyDays);
    }

    /** The same with another exit plan. */
    public Strategy with(ExitPlan other) {
        return new Strategy(name, version, contract, signals, sides, entry, limits, other, historyDays);
    }

    public Strategy {
        int largest = largest(sides, entry);
        if (limits.maximumPosition() < largest && !limits.joins().cutting()) {
            throw new IllegalArgumentException("expected a maximum position of at least the entry's " + largest
                    + " contracts, found " + limits.maximumPosition());
        }
        if (historyDays < 0) {
            throw new IllegalArgumentException("expected history of 0 days or more, found " + historyDays);
        }
    }

    public Optional<SideRule> longSide() {
        return sides.longSide();
    }

    public Optional<SideRule> shortSide() {
        return sides.shortSide();
    }

    /** Most contracts, open and resting entries together. */
    public int maximumPosition() {
        return limits.maximumPosition();
    }

    /** Whether a further entry may join an open trade. */
    public boolean adds() {
        return limits.joins().adds();
    }

    /** Whether a signal against an open position turns it round. */
    public boolean reverse() {
        return limits.joins().reverse();
    }

    /** Empty: every hour. */
    public List<SessionWindow> windows() {
        return limits.windows();
    }

    /** Empty: no limit. */
    public Optional<Integer> tradesADay() {
        return limits.tradesADay();
    }

    /** Whether a side switches itself off after its entry fills. */
    public boolean once() {
        return limits.once();
    }

    public Optional<SideRule> side(Side side) {
        return side == Side.LONG ? sides.longSide() : sides.shortSide();
    }

    /** How a side enters: in its own way, or as both do. */
    public Entry entry(Side side) {
        return side(side).flatMap(SideRule::entry).orElse(entry);
    }

    /** Contracts of the larger of both sides' entries. */
    public static int largest(Sides sides, Entry both) {
        return List.of(sides.longSide(), sides.shortSide()).stream().flatMap(Optional::stream)
                .mapToInt(side -> side.entry().orElse(both).quantity()).max().orElseThrow();
    }

}
