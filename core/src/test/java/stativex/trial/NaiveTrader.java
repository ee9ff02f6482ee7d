package stativex.trial;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;

/**
 * A plain second reading of SEMANTICS for some strategies on one account in tick or bar mode, slow and without any class of the
 * product: every figure is worked out anew from the whole history whenever it is needed. The engine is held against it on random
 * tapes.
 */
final class NaiveTrader {
    static final long NONE = Long.MIN_VALUE;
    private static final long DAY = 86_400_000_000_000L;

    /** One print. */
    record P(long time, long price, int size, long bid, long ask, long bidSize, long askSize) {}

    record S(long open, long close, int day, boolean lastOfDay) {}

    /**
     * @param loss of the window's own; 0: none; {@code profit} likewise
     * @param wholeDay these lock until the next trading day, not only until the window ends
     */
    record W(long from, long to, boolean flatten, boolean cancel, long lead, long loss, long profit, boolean wholeDay) {
        W(long from, long to, boolean flatten, boolean cancel, long lead) {
            this(from, to, flatten, cancel, lead, 0, 0, false);
        }
    }

    /** Day limits of a strategy or a contract; 0: off. */
    static final class DayLines {
        long loss;
        long profit;
        G guard = G.OFF;
    }

    /** An exact number of ticks. */
    record Q(BigInteger n, BigInteger d) {
        static Q of(long n, long d) {
            return new Q(BigInteger.valueOf(n), BigInteger.valueOf(d));
        }

        static Q of(BigDecimal x) {
            return x.scale() > 0
                    ? new Q(x.unscaledValue(), BigInteger.TEN.pow(x.scale()))
                    : new Q(x.toBigIntegerExact(), BigInteger.ONE);
        }

        Q plus(Q o) {
            return new Q(n.multiply(o.d).add(o.n.multiply(d)), d.multiply(o.d));
        }

        Q times(Q o) {
            return new Q(n.multiply(o.n), d.multiply(o.d));
        }

        Q minus() {
            return new Q(n.negate(), d);
        }

        int against(Q o) {
            return n.multiply(o.d).compareTo(o.n.multiply(d));
        }

        long floor() {
            BigInteger[] parts = n.divideAndRemainder(d);
            return (parts[1].signum() < 0 ? parts[0].subtract(BigInteger.ONE) : parts[0]).longValueExact();
        }

        long ceil() {
            return -minus().floor();
        }
    }

    /** A distance as a plan states it: how much of which unit; or a level of a study, so many ticks beyond the extreme of three closes. */
    record D(String unit, String amount) {
        static D ticks(long n) {
            return new D("ticks", Long.toString(n));
        }

        BigDecimal number() {
            return new BigDecimal(amount);
        }
    }

    record Leg(int quantity, D target) {}

    record Trail(D activate, D distance, D step) {}

    /** How trades of one side are left. */
    static final class Plan {
        D stop;
        boolean follow;
        /** Ticks further out; 0: the stop is held at the broker. */
        long disaster;
        long localVolume;
        boolean atClose;
        List<Leg> legs = new ArrayList<>();
        D breakevenAfter;
        int breakevenBars;
        int breakevenLeg;
        /** Null: no breakeven move. */
        D breakevenOffset;
        List<Trail> trail = new ArrayList<>();
        int afterBars;
        boolean onlyInProfit;
        boolean firstProfit;
        boolean opposite;
        /** Leaves when a bar closes above the close two bars before: −1 never, 0 all, else so many contracts once. */
        int rule = -1;
        boolean windowEnd;
        /** Time of day, nanoseconds UTC. */
        long clock = NONE;
    }

    /** @param acts when it begins to hold: from, or a lead before it where it flattens */
    record Quiet(long acts, long to, boolean cancel, boolean flatten) {}

    /** Acts before a line: money and ticks of everything that is open. */
    record G(boolean on, long money, int ticks) {
        static final G OFF = new G(false, 0, 0);

        long margin(long perTick) {
            return on ? money + ticks * perTick : 0;
        }
    }

    /** Market and account; 0 or NONE means off where that can be. */
    static final class Setup {
        final List<Rules> rules = new ArrayList<>();
        /** through, queue or touch. */
        String realism = "through";
        /** Contracts ahead of a limit in the queue where the tape does not say. */
        long assumedAhead;
        long latency;
        long slippage;
        long fee;
        long tickValue;
        /** Ticks in a price of 1. */
        long ticksInOne = 4;
        long start;
        long dayLoss;
        G guard = G.OFF;
        long dayProfit;
        long allowance;
        /** start, day or peak: what the floor hangs from. */
        String trails = "peak";
        long lockAt = NONE;
        G floorGuard = G.OFF;
        long bookLoss;
        boolean bookFromEquity;
        boolean bookBreaks;
        G bookGuard = G.OFF;
        long giveFall;
        long giveAfter;
        G giveGuard = G.OFF;
        /** Time of day, nanoseconds UTC; NONE: none. */
        long flatBy = NONE;
        long flatLead;
        /** So long before a day's last close everything leaves; NONE: it may stay. */
        long overnight = NONE;
        final List<Quiet> quiet = new ArrayList<>();
        int losses;
        /** Nanoseconds; 0: the rest of the day. */
        long pause;
        /** The range ends before this moment: nothing is worked from it on. */
        long endsBefore = NONE;
        /** The day with which another month comes into force; −1: none. */
        int rollDay = -1;
        /** Price of the new month's last print before. */
        long newBefore;
        long rollLead;
        /** Of the account, over all contracts; 0: any. */
        int accountTrades;
        /** Own limits of this contract. */
        final DayLines lines = new DayLines();
        int contractTrades;
        int contractMost;
        /** Profit at the day's first instant from which on, and most contracts then, in rising order; none: any. */
        final List<long[]> sizes = new ArrayList<>();
        /** What a contract counts of one, as a fraction. */
        long weight = 1;
        long weightOf = 1;
        /** The bars of the first strategy are walked tick by tick; every strategy has the same. */
        boolean barMode;
    }

    /** How one side enters. */
    static final class Entry {
        String order;
        long offset;
        int quantity;
        int goodForBars;
        boolean reprice;
        /** Nanoseconds; 0: never. */
        long marketAfter;
        /** Halves of a tick that the price lies off the grid, and whether that rounds toward the market. */
        boolean half;
        boolean toward;
        /** Of a stop-limit: ticks from its stop to its limit. */
        long beyond;
        /** By risk: money, or hundredths of a percent of what is left to the nearest line; 0: fixed. */
        long riskMoney;
        long riskPercent;
        /** Money; 0: none. */
        long cap;
    }

    /** One strategy: long when a bar closes above its open, short below. */
    static final class Rules {
        /** tick, volume, range, time (nanoseconds) or renko. */
        String kind = "tick";
        long size;
        long turn;
        boolean everyTrade;
        Entry longEntry = new Entry();
        /** The same as the long one unless the sides differ. */
        Entry shortEntry = longEntry;
        int maximum;
        boolean adds;
        Plan longPlan;
        Plan shortPlan;
        List<W> windows = new ArrayList<>();
        int tradesADay;
        final DayLines lines = new DayLines();
        boolean once;
        boolean reverse;
        boolean cutting;
        boolean twoSided;
        /** Either side's rule is true of every bar that does not close at its open. */
        boolean both;
        /** Signals of a side that may send an order in a period (session, day, week, window); 0: any. */
        int most;
        String period = "";
        int coolBars;
        long coolTime;
        boolean coolLosers;
        /** Ticks; NONE: any. */
        long spread = NONE;

        Entry entry(boolean isLong) {
            return isLong ? longEntry : shortEntry;
        }
    }

    private static final class O {
        int number;
        Trader of;
        String role;
        String type;
        boolean buy;
        int quantity;
        int filled;
        long price;
        /** Of a stop-limit that has not been reached yet: its limit is so far beyond its stop. */
        long beyond;
        /** A stop-limit that has been reached is a limit and keeps its price. */
        boolean wasStop;
        /** Contracts before it in the queue. */
        long ahead;
        /** The price asked for last; a change may be on its way. */
        long wanted;
        String reason;
        int sentAfter;
        long sent;
        boolean turning;
        long accepted;
        long dayClose = NONE;
        int closesBefore;
        boolean dead;
        boolean metOne;
        boolean triggered;
        boolean all;
        int leg;

        int rest() {
            return quantity - filled;
        }

        boolean alive() {
            return !dead && rest() > 0;
        }
    }

    private static final class Ask {
        O order;
        boolean cancel;
        boolean toMarket;
        long price;
        String reason;
        int sentAfter;
        long due;
    }

    /** A price of one moment against the average as it stood then. */
    private record Seen(long price, long costNumerator, long costDenominator) {}

    /** A trade, from the sending of its first entry to flat. */
    private static final class T {
        int sign;
        int entered;
        int left;
        int firstPrint = -1;
        int lastEntryPrint = -1;
        int fresh;
        /** Average as a fraction. */
        long costNumerator;
        long costDenominator = 1;
        List<Long> seen = new ArrayList<>();
        List<Seen> excursions = new ArrayList<>();
        long level = NONE;
        String origin;
        O stop;
        List<O> targets = new ArrayList<>();
        int[] allotted;
        int[] hit;
        Plan plan;
        boolean breakeven;
        /** Where breakeven puts the stop by a study's level; NONE: by its distance. */
        long breakevenLevel = NONE;
        /** Figures fixed at the first fill: ticks of targets, and whole ticks of breakeven and trail. */
        List<Q> targetTicks = new ArrayList<>();
        Q stopTicks;
        long stopLevel = NONE;
        long beAfter;
        long beOffset;
        List<long[]> trailTicks = new ArrayList<>();
        boolean takenByRule;
        boolean reached;
        long counted;
        long initial;
        /** Why a flatten was sent; what fills after it leaves for that reason. */
        String flattened = "";
        long entryTime;
        long entrySum;
        long exitSum;
        int barZero;

        int open() {
            return entered - left;
        }
    }

    /** A closed bar. */
    private record Bar(long open, long close, int last) {}

    /**
     * A bar of bar mode before it is walked.
     *
     * @param byPrint whether a print closes it; {@code begins} time of its first print
     * @param closed when the clock closes it inside its session; NONE: it does not
     */
    private record Whole(long open, long high, long low, long close, long volume, long start, long lastInstant,
            boolean byPrint, long begins, long closed) {}

    /** One strategy at work. */
    private final class Trader {
        final int index;
        final Rules s;
        final List<Bar> bars = new ArrayList<>();
        /** Prints of the bar that forms, a split one also there; of renko since the last brick. */
        List<Integer> forming = new ArrayList<>();
        long contracts;
        long formingEnd;
        boolean begun;
        long up;
        long down;
        long before;
        T trade;
        int tradesToday;
        boolean longOn = true;
        boolean shortOn = true;
        boolean windowFlat;
        boolean raisedLong;
        boolean raisedShort;
        /** A reverse that waits for its exit: 0 for none, else its side. */
        int reversing;
        long reversePrice;
        int reverseBar;
        int reverseQuantity;
        int sentLong;
        int sentShort;
        boolean ended;
        int endPrint = -1;
        int endBar;
        long endTime;
        long endNet;
        long held;
        long heldCost;
        /** What fills have brought so far, fees included; money that is bound in what is held left out. */
        long cash;
        long dayBase;
        String dayLocked = "";
        /** Windows with own limits that have begun, with the result then; and why one of them holds, until when. */
        final Map<W, Long> windowBase = new HashMap<>();
        final Map<W, String> windowHit = new HashMap<>();

        long result() {
            return cash + (last == NONE ? 0 : held * last * market.tickValue - heldCost);
        }

        long perTick() {
            return Math.abs(held) * market.tickValue;
        }

        void dayBegins() {
            tradesToday = 0;
            dayBase = result();
            dayLocked = "";
            windowOver.clear();
        }

        /** Windows whose limit holds until the next trading day begins, whatever the window's own end. */
        final Map<W, String> windowOver = new HashMap<>();

        private boolean windowRuns(W w) {
            return w.from <= now && now < w.to;
        }

        void windowBegins(W w) {
            if (w.loss > 0 || w.profit > 0) {
                windowBase.put(w, result());
            }
        }

        /** Why a window's own limit keeps everything flat, if one does. */
        String windowLimit() {
            for (W w : s.windows) {
                if (windowHit.containsKey(w) && windowRuns(w)) {
                    return windowHit.get(w);
                }
            }
            return windowOver.values().stream().findFirst().orElse("");
        }

        /** Closing what it holds would cost. */
        long closingCosts() {
            return Math.abs(held) * (market.slippage * market.tickValue + market.fee);
        }

        void judge() {
            if (dayLocked.isEmpty()) {
                String why = reached(s.lines, result() - dayBase, held != 0, closingCosts(), perTick());
                if (!why.isEmpty()) {
                    dayLocked = "strategy " + why;
                    acct.decisions.add(now + " " + index + " locked " + dayLocked + " " + last);
                    flatten(dayLocked);
                }
            }
            for (W w : s.windows) {
                if (windowBase.containsKey(w) && windowRuns(w) && !windowHit.containsKey(w)) {
                    long result = result() - windowBase.get(w);
                    String why = w.loss > 0 && result <= -w.loss
                            ? "window day loss"
                            : w.profit > 0 && result >= w.profit ? "window day profit" : "";
                    if (!why.isEmpty()) {
                        windowHit.put(w, why);
                        if (w.wholeDay) {
                            windowOver.put(w, why);
                        }
                        acct.decisions.add(now + " " + index + " locked " + why + " " + last);
                        flatten(why);
                    }
                }
            }
        }

        /** Own loss lines: how far above each of them the result is, guards taken in; most: nothing. */
        long room() {
            long room = Long.MAX_VALUE;
            if (s.lines.loss > 0) {
                room = result() - dayBase + s.lines.loss - s.lines.guard.margin(perTick());
            }
            for (W w : s.windows) {
                if (windowBase.containsKey(w) && windowRuns(w) && w.loss > 0) {
                    room = Math.min(room, result() - windowBase.get(w) + w.loss);
                }
            }
            return room;
        }

        Trader(int index, Rules s) {
            this.index = index;
            this.s = s;
        }

        // ------------------------------------------------------------ bars

        private void close(long open, long close, int last) {
            bars.add(new Bar(open, close, last));
        }

        private void closeForming() {
            close(tape.get(forming.getFirst()).price, tape.get(forming.getLast()).price, forming.getLast());
            forming = new ArrayList<>();
            contracts = 0;
        }

        /** Returns how many bars the print closed. */
        int take(int i) {
            int closedBefore = bars.size();
            long price = tape.get(i).price;
            if (market.barMode && !s.kind.equals("time")) {
                forming.add(i);
                if (walkedLast && walked.byPrint) {
                    closeForming();
                }
                return bars.size() - closedBefore;
            }
            switch (s.kind) {
                case "tick" -> {
                    forming.add(i);
                    if (forming.size() == s.size) {
                        closeForming();
                    }
                }
                case "volume" -> {
                    for (int contract = 0; contract < tape.get(i).size; contract++) {
                        if (forming.isEmpty() || forming.getLast() != i) {
                            forming.add(i);
                        }
                        contracts++;
                        if (contracts == s.size) {
                            closeForming();
                        }
                    }
                }
                case "range" -> {
                    long high = price;
                    long low = price;
                    for (int p : forming) {
                        high = Math.max(high, tape.get(p).price);
                        low = Math.min(low, tape.get(p).price);
                    }
                    if (high - low > s.size) {
                        closeForming();
                    }
                    forming.add(i);
                }
                case "time" -> {
                    if (forming.isEmpty()) {
                        long k = (tape.get(i).time - session.open) / s.size;
                        formingEnd = Math.min(session.close, session.open + (k + 1) * s.size);
                    }
                    forming.add(i);
                }
                default -> brick(i, price);
            }
            return bars.size() - closedBefore;
        }

        private void brick(int i, long price) {
            if (!begun) {
                begun = true;
                up = price + s.size;
                down = price - s.size;
                before = price;
            }
            while (price >= up || price <= down) {
                boolean rises = price >= up;
                long close = rises ? up : down;
                boolean on = Math.abs(close - before) == s.size;
                close(on ? before : rises ? close - s.size : close + s.size, close, i);
                before = close;
                up = rises ? close + s.size : close + s.turn;
                down = rises ? close - s.turn : close - s.size;
            }
        }

        private boolean formingHolds(int i) {
            return !forming.isEmpty() && forming.getLast() == i;
        }

        // ------------------------------------------------------------ signals

        void evaluateClosed(int from, boolean withClose) {
            if (from == bars.size()) {
                return;
            }
            for (O o : orders) {
                int bars = s.entry(o.buy).goodForBars;
                if (o.of == this && o.role.equals("entry") && bars > 0
                        && this.bars.size() - o.closesBefore >= bars) {
                    o.dead = true;
                }
            }
            dropIfNothing();
            for (int b = from; b < bars.size(); b++) {
                Bar bar = bars.get(b);
                barClosed(b);
                reprice(bar);
                boolean wasLong = raisedLong;
                boolean wasShort = raisedShort;
                raisedLong = false;
                raisedShort = false;
                signals(fires(1, bar.open, bar.close) && !wasLong, fires(-1, bar.open, bar.close) && !wasShort,
                        bar.close,
                        b, withClose);
            }
        }

        private boolean fires(int sign, long open, long close) {
            return s.both ? open != close : sign * (close - open) > 0;
        }

        /** Both sides at one moment make a two-sided entry, if the strategy has such and nothing of it is at work. */
        private void signals(boolean up, boolean down, long close, int bar, boolean withClose) {
            boolean pair = up && down && s.twoSided && trade == null;
            if (up) {
                signal(1, close, bar, withClose, false);
            }
            if (down) {
                signal(-1, close, bar, withClose, pair && trade != null);
            }
        }

        /** On every trade. */
        void look() {
            if (forming.isEmpty()) {
                return;
            }
            long open = tape.get(forming.getFirst()).price;
            long close = tape.get(forming.getLast()).price;
            if (trade != null && trade.open() > 0) {
                leaveByRule(bars.size() < 2 ? NONE : bars.get(bars.size() - 2).close, close);
            }
            boolean up = fires(1, open, close) && !raisedLong;
            boolean down = fires(-1, open, close) && !raisedShort;
            raisedLong |= up;
            raisedShort |= down;
            signals(up, down, close, bars.size() - 1, false);
        }

        /** Whether something of the other side is open or about to be entered. */
        private boolean against(int sign) {
            return trade != null && (trade.open() > 0 ? trade.sign != sign : entries(-sign) > 0);
        }

        /** Contracts that entries of a side may still open. */
        private int entries(int sign) {
            return orders.stream().filter(o -> o.of == this && o.role.equals("entry") && o.alive() && o.buy == sign > 0)
                    .mapToInt(O::rest).sum();
        }

        /** @param second the other half of a two-sided entry has just been sent */
        private void signal(int sign, long close, int bar, boolean withClose, boolean second) {
            Entry entry = s.entry(sign > 0);
            long price = price(entry, sign, close);
            String side = sign > 0 ? "long" : "short";
            boolean against = against(sign) && !second;
            boolean turns = against && s.reverse && trade.open() > 0 && !leaving();
            boolean exit = against && plan(-sign).opposite;
            int asked = asked(sign, price, bar);
            String answer = turns ? gate(sign, price, bar, withClose, true, false, asked) : "";
            boolean passes = turns && !answer.isEmpty() && Character.isDigit(answer.charAt(0));
            if (exit || passes) {
                if (trade.open() > 0 && !leaving()) {
                    leave("opposite signal");
                }
                cancelEntries(passes ? 0 : -sign);
            }
            if (!turns) {
                answer = gate(sign, price, bar, withClose, false, second, asked);
            }
            if (!Character.isDigit(answer.charAt(0))) {
                acct.decisions.add(acct.moment + " " + index + " " + side + " declined " + answer + " " + last);
                return;
            }
            int granted = Integer.parseInt(answer);
            acct.decisions.add(acct.moment + " " + index + " " + side + " taken "
                    + (granted < asked ? "asked " + asked + ", granted " + granted : "") + " "
                    + (price == NONE ? last : price));
            if (sign > 0) {
                sentLong++;
            } else {
                sentShort++;
            }
            if (turns) {
                reversing = sign;
                reversePrice = price;
                reverseBar = bar;
                reverseQuantity = granted;
            } else {
                enter(sign, price, granted);
            }
        }

        /** Contracts it asks for: fixed, or by risk; 0 while that cannot be worked. */
        private int asked(int sign, long price, int bar) {
            Entry entry = s.entry(sign > 0);
            if (entry.riskMoney == 0 && entry.riskPercent == 0) {
                return entry.quantity;
            }
            if (warmingUp(plan(sign), bar)) {
                return 0;
            }
            long equity = acct.equity();
            long nearest = Math.min(room(), contractRoom());
            if (acct.highestLine(equity) != NONE) {
                nearest = Math.min(nearest, equity - acct.highestLine(equity));
            }
            nearest = nearest == Long.MAX_VALUE ? NONE : nearest;
            for (int q = entry.quantity; q > 0; q--) {
                long cost = cost(sign, price, bar, q);
                boolean fits = entry.riskMoney > 0
                        ? cost <= entry.riskMoney
                        : nearest != NONE && cost * 10_000 <= nearest * entry.riskPercent;
                if (fits) {
                    return q;
                }
            }
            return 0;
        }

        /** What a stop-out of so many contracts costs from the worst price of the entry. */
        private long cost(int sign, long price, int bar, int q) {
            long at = expected(sign, s.entry(sign > 0), price);
            long level = initialLevel(plan(sign), sign, at, q, q, bar, true);
            return q * ((Math.max(0, sign * (at - level)) + market.slippage) * market.tickValue + 2 * market.fee);
        }

        private void enter(int sign, long price, int quantity) {
            Entry entry = s.entry(sign > 0);
            String side = sign > 0 ? "long" : "short";
            if (trade == null) {
                trade = new T();
                trade.sign = sign;
            }
            O o = send(this, "entry", entry.order, sign > 0, quantity, price, "entry", market.latency);
            o.beyond = entry.beyond;
            if (entry.goodForBars == 0) {
                S end = null;
                for (S x : sessions) {
                    if (x.lastOfDay && o.accepted < x.close && end == null) {
                        end = x;
                    }
                }
                S first = end == null ? null : firstOf(end.day);
                if (first == null || o.accepted < first.open) {
                    o.dead = true;
                    acct.decisions.add(acct.moment + " " + index + " " + side + " rejected after the days close "
                            + (price == NONE ? last : price));
                    dropIfNothing();
                } else {
                    o.dayClose = end.close;
                }
            }
        }

        private long price(Entry entry, int sign, long close) {
            if (entry.order.equals("market")) {
                return NONE;
            }
            boolean less = entry.order.equals("limit") == sign > 0;
            long price = less ? close - entry.offset : close + entry.offset;
            // half a tick further from the market, or nearer to it
            return !entry.half || entry.toward ? price : less ? price - 1 : price + 1;
        }

        private void reprice(Bar bar) {
            for (O o : orders) {
                if (o.of == this && o.role.equals("entry") && o.alive() && !o.turning && !o.type.equals("market")
                        && s.entry(o.buy).reprice) {
                    long price = price(s.entry(o.buy), o.buy ? 1 : -1, bar.close);
                    if (price != o.wanted && !o.wasStop) {
                        o.wanted = price;
                        ask(o, false, price, "entry");
                    }
                }
            }
        }

        void turn(O o) {
            if (o.alive() && !o.turning && !o.type.equals("market")) {
                o.turning = true;
                ask(o, false, NONE, "entry");
                asks.getLast().toMarket = true;
            }
        }

        private void dropReverse() {
            if (reversing != 0) {
                long price = reversePrice;
                acct.decisions.add(
                        acct.moment + " " + index + " " + (reversing > 0 ? "long" : "short")
                                + " cancelled reverse dropped "
                                + (price == NONE ? last : price));
                reversing = 0;
            }
        }

        private int resting() {
            return orders.stream().filter(o -> o.of == this && o.role.equals("entry") && o.alive()).mapToInt(O::rest)
                    .sum();
        }

        void countAnew() {
            sentLong = 0;
            sentShort = 0;
        }

        void dropIfNothing() {
            if (trade != null && trade.open() == 0 && resting() == 0) {
                trade = null;
            }
        }

        private boolean leaveSent() {
            return orders.stream().anyMatch(x -> x.of == this && x.all && x.alive());
        }

        private boolean leaving() {
            return leaveSent() || trade != null && trade.stop != null && trade.stop.triggered && trade.stop.alive();
        }

        /** Why an entry is refused, or how many contracts it is granted. */
        private String gate(int sign, long price, int bar, boolean withClose, boolean turns, boolean second,
                int asked) {
            if (!(sign > 0 ? longOn : shortOn)) {
                return "side off";
            }
            if (incomplete && !s.kind.equals("time")) {
                return "session incomplete";
            }
            if (withClose) {
                return "session closed";
            }
            if (!acct.lock.isEmpty() || now < acct.pausedUntil || !locked.isEmpty() || !dayLocked.isEmpty()
                    || !windowLimit().isEmpty()) {
                return "locked";
            }
            if (acct.broken) {
                return "broken";
            }
            if (!s.windows.isEmpty() && merged().stream()
                    .noneMatch(w -> w.from <= now && now < (w.flatten ? Math.max(w.from, w.to - w.lead) : w.to))) {
                return "outside window";
            }
            if (flatBy) {
                return "flat by";
            }
            if (rolling) {
                return "last trading day";
            }
            if (market.quiet.stream().anyMatch(q -> q.acts <= now && now < q.to)) {
                return "quiet time";
            }
            if (ended && (!s.coolLosers || endNet < 0) && (s.coolBars > 0 && bar < endBar + s.coolBars
                    || s.coolTime > 0 && now < endTime + s.coolTime)) {
                return "cooling down";
            }
            if (s.spread != NONE && worked >= 0 && tape.get(worked).bid != NONE && tape.get(worked).ask != NONE
                    && tape.get(worked).ask - tape.get(worked).bid > s.spread) {
                return "spread";
            }
            boolean opens = turns || trade == null || trade.entered == 0;
            if (opens && s.tradesADay > 0
                    && tradesToday + (trade == null || turns || second ? 0 : 1) >= s.tradesADay) {
                return "trades a day";
            }
            if (opens && market.contractTrades > 0 && traders.stream().mapToInt(t -> t.tradesToday).sum()
                    + traders.stream().mapToInt(t -> t.mayOpen(t == this && second)).sum() >= market.contractTrades) {
                return "trades a day";
            }
            if (opens && acct.rules.accountTrades > 0 && acct.tradesToday
                    + acct.traders().stream().mapToInt(t -> t.mayOpen(t == this && second))
                            .sum() >= acct.rules.accountTrades) {
                return "trades a day";
            }
            if (s.most > 0 && (sign > 0 ? sentLong : sentShort) >= s.most) {
                return "signals per period";
            }
            boolean fresh = trade == null || turns || second;
            if (!fresh && against(sign)) {
                return "opposite position";
            }
            if (!fresh && leaving()) {
                return "leaving";
            }
            if (!fresh && !s.adds) {
                return "adds not allowed";
            }
            int granted = asked;
            int room = s.maximum - (fresh ? 0 : trade.open() + entries(sign));
            if (granted > room) {
                if (!s.cutting || room < 1) {
                    return "position limit";
                }
                granted = room;
            }
            while (granted > 0 && tooMany(sign, granted)) {
                granted = s.cutting ? granted - 1 : 0;
                if (granted == 0) {
                    return "most contracts";
                }
            }
            if (warmingUp(plan(sign), bar)) {
                return "warming up";
            }
            long cap = s.entry(sign > 0).cap;
            while (granted > 0 && cap > 0 && cost(sign, price, bar, granted) > cap) {
                granted = s.cutting ? granted - 1 : 0;
            }
            if (granted == 0) {
                return "risk cap";
            }
            while (granted > 0 && crosses(sign, price, bar, turns, granted)) {
                granted = s.cutting ? granted - 1 : 0;
            }
            return granted == 0 ? "line check" : Integer.toString(granted);
        }

        private boolean crosses(int sign, long price, int bar, boolean turns, int quantity) {
            long worst = acct.equity();
            for (Trader x : acct.traders()) {
                worst -= x.mayLose(this, sign, price, bar, turns, quantity);
            }
            long line = acct.highestLine(acct.equity());
            if (line != NONE && worst <= line) {
                return true;
            }
            if (market.lines.loss > 0) {
                long may = 0;
                for (Trader x : traders) {
                    may += x.mayLose(this, sign, price, bar, turns, quantity);
                }
                if (contractRoom() - may <= 0) {
                    return true;
                }
            }
            return room() != Long.MAX_VALUE && room() - mayLose(this, sign, price, bar, turns, quantity) <= 0;
        }

        /** Trades that what it has at work may still open. */
        int mayOpen(boolean pair) {
            return (!pair && trade != null && trade.entered == 0 ? 1 : 0) + (reversing != 0 ? 1 : 0);
        }

        /** Contracts of a side that are open, resting or waiting. */
        long ofSide(int sign) {
            return (trade != null && trade.sign == sign ? trade.open() : 0) + entries(sign)
                    + (reversing == sign ? reverseQuantity : 0);
        }

        private boolean tooMany(int sign, int more) {
            long here = traders.stream().mapToLong(t -> t.ofSide(sign)).sum() + more;
            if (market.contractMost > 0 && here > market.contractMost) {
                return true;
            }
            long most = NONE;
            for (long[] tier : acct.rules.sizes) {
                if (most == NONE || acct.dayBalance - acct.rules.start >= tier[0]) {
                    most = tier[1];
                }
            }
            if (most == NONE) {
                return false;
            }
            Q sum = new Q(BigInteger.ZERO, BigInteger.ONE);
            for (NaiveTrader m : acct.markets) {
                long held = m == NaiveTrader.this ? here : m.traders.stream().mapToLong(t -> t.ofSide(sign)).sum();
                BigInteger n = BigInteger.valueOf(held * m.market.weight);
                BigInteger d = BigInteger.valueOf(m.market.weightOf);
                sum = new Q(sum.n().multiply(d).add(n.multiply(sum.d())), sum.d().multiply(d));
            }
            return sum.against(new Q(BigInteger.valueOf(most), BigInteger.ONE)) > 0;
        }

        /** What it may lose until its stops, with what it proposes itself. */
        private long mayLose(Trader proposing, int sign, long price, int bar, boolean turns, int quantity) {
            long may = 0;
            long exit = market.slippage * market.tickValue + market.fee;
            boolean mine = proposing == this;
            if (reversing != 0) {
                Entry waits = s.entry(reversing > 0);
                may += reverseQuantity * (planned(reversing, expected(reversing, waits, reversePrice), reverseQuantity,
                        reverseBar) * market.tickValue + exit + market.fee);
            }
            if (!(turns && mine) && trade != null && trade.open() > 0) {
                long away = Math.max(0, trade.sign * (last - trade.stop.price));
                may += trade.open() * (away * market.tickValue + exit);
            }
            // of a two-sided entry the worse side
            long[] sides = new long[2];
            for (O o : orders) {
                if (o.of == this && o.role.equals("entry") && o.alive() && !(turns && mine)) {
                    int way = o.buy ? 1 : -1;
                    sides[o.buy ? 0 : 1] += o.rest() * (risk(way, expected(way, o), o.quantity,
                            mine ? Math.min(o.closesBefore - 1, bar) : o.closesBefore - 1) * market.tickValue + exit
                            + market.fee);
                }
            }
            if (mine) {
                long at = expected(sign, s.entry(sign > 0), price);
                long away = turns ? planned(sign, at, quantity, bar) : risk(sign, at, quantity, bar);
                sides[sign > 0 ? 0 : 1] += quantity * (away * market.tickValue + exit + market.fee);
            }
            return may + Math.max(sides[0], sides[1]);
        }

        private long expected(int sign, Entry entry, long price) {
            return expected(sign, entry.order, price, entry.beyond);
        }

        private long expected(int sign, O o) {
            return expected(sign, o.type, o.price, o.beyond);
        }

        private long expected(int sign, String type, long price, long beyond) {
            long far = worked < 0 ? NONE : far(sign > 0, tape.get(worked));
            return switch (type) {
                case "limit" -> price;
                case "stop-limit" -> price + sign * beyond;
                case "stop" -> price + sign * market.slippage;
                default -> (far == NONE ? last : far) + sign * market.slippage;
            };
        }

        private long planned(int sign, long entry, int quantity, int bar) {
            Plan plan = plan(sign);
            long level = initialLevel(plan, sign, entry, quantity, quantity, bar, true) - sign * plan.disaster;
            return Math.max(0, sign * (entry - level));
        }

        private long risk(int sign, long entry, int quantity, int bar) {
            if (trade == null || trade.open() == 0) {
                return planned(sign, entry, quantity, bar);
            }
            return Math.max(0, sign * (entry - trade.stop.price));
        }

        // ------------------------------------------------------------ figures of plans

        private Plan plan(int sign) {
            return sign > 0 ? s.longPlan : s.shortPlan;
        }

        /** Mean of the closes of three bars; NaN with fewer. */
        private double mean(int bar) {
            return bar < 2
                    ? Double.NaN
                    : ((double) bars.get(bar - 2).close + bars.get(bar - 1).close + bars.get(bar).close) / 3;
        }

        /** Highest less lowest of the closes of three bars. */
        private double spread(int bar) {
            if (bar < 2) {
                return Double.NaN;
            }
            long[] c = {bars.get(bar - 2).close, bars.get(bar - 1).close, bars.get(bar).close};
            Arrays.sort(c);
            return c[2] - c[0];
        }

        /** A study's level, so many ticks from the mean, against the trade for a stop. */
        private double level(D d, int bar) {
            return mean(bar) + Long.parseLong(d.amount);
        }

        private boolean warmingUp(Plan plan, int bar) {
            List<D> all = new ArrayList<>();
            all.add(plan.stop);
            plan.legs.forEach(leg -> all.add(leg.target));
            all.add(plan.breakevenAfter);
            all.add(plan.breakevenOffset);
            plan.trail.forEach(x -> all.addAll(List.of(x.activate, x.distance, x.step)));
            return bar < 2
                    && all.stream().anyMatch(d -> d != null && (d.unit.equals("level") || d.unit.equals("times")));
        }

        /** Exact ticks of a distance of a trade at a price; {@code initial} is what R counts. */
        private Q exact(D d, long price, int quantity, int bar, long initial) {
            return switch (d.unit) {
                case "ticks" -> Q.of(d.number());
                case "price" -> Q.of(d.number()).times(Q.of(market.ticksInOne, 1));
                case "money" -> Q.of(d.number()).times(Q.of(10_000, market.tickValue));
                case "whole" -> Q.of(d.number()).times(Q.of(10_000, market.tickValue)).times(Q.of(1, quantity));
                case "percent" -> Q.of(d.number()).times(Q.of(Math.abs(price), 100));
                case "R" -> Q.of(d.number()).times(Q.of(initial, 1));
                case "times" -> Q.of(new BigDecimal(d.number().doubleValue() * spread(bar)));
                default -> throw new IllegalStateException(d.unit);
            };
        }

        /** Where the plan's stop stands for an average, rounded as its unit says. */
        private long plannedStop(D stop, int sign, Q average, int open, int bar, Q fixed, long fixedLevel) {
            if (stop.unit.equals("level")) {
                return fixedLevel;
            }
            Q abs = average.against(Q.of(0, 1)) < 0 ? average.minus() : average;
            Q x = switch (stop.unit) {
                case "percent" -> Q.of(stop.number()).times(Q.of(1, 100)).times(abs);
                case "whole" -> Q.of(stop.number()).times(Q.of(10_000, market.tickValue)).times(Q.of(1, open));
                default -> fixed;
            };
            boolean nearer = stop.unit.equals("money") || stop.unit.equals("whole") || stop.unit.equals("percent");
            if (!stop.unit.equals("money") && nearer && x.against(Q.of(1, 1)) < 0) {
                x = Q.of(1, 1);
            }
            Q at = sign > 0 ? average.plus(x.minus()) : average.plus(x);
            return (sign > 0) == nearer ? at.ceil() : at.floor();
        }

        private long fixedLevel(D stop, int sign, int bar) {
            if (!stop.unit.equals("level")) {
                return NONE;
            }
            double level = level(stop, bar);
            return (long) (sign > 0 ? Math.floor(level) : Math.ceil(level));
        }

        /** The tightest of the plan's stop and of trail steps from 0. */
        private long initialLevel(Plan plan, int sign, long price, int quantity, int open, int bar, boolean withR) {
            Q average = Q.of(price, 1);
            Q fixed = plan.stop.unit.equals("level") ? null : exact(plan.stop, price, quantity, bar, 0);
            long level = plannedStop(plan.stop, sign, average, open, bar, fixed, fixedLevel(plan.stop, sign, bar));
            long r = withR ? sign * (price - initialLevel(plan, sign, price, quantity, open, bar, false)) : 0;
            for (long[] x : trail(plan, price, quantity, bar, r, withR)) {
                if (x[0] == 0) {
                    level = sign > 0 ? Math.max(level, price - x[1]) : Math.min(level, price + x[1]);
                }
            }
            return level;
        }

        /** Whole ticks of every trail step: activation, distance, step; of equal activations the nearer distance. */
        private List<long[]> trail(Plan plan, long price, int quantity, int bar, long r, boolean withR) {
            List<long[]> result = new ArrayList<>();
            for (Trail x : plan.trail) {
                if (!withR && List.of(x.activate.unit, x.distance.unit, x.step.unit).contains("R")) {
                    continue;
                }
                long[] figures = {Math.max(0, exact(x.activate, price, quantity, bar, r).ceil()),
                        Math.max(1, exact(x.distance, price, quantity, bar, r).ceil()),
                        Math.max(1, exact(x.step, price, quantity, bar, r).ceil())};
                boolean worse = result.stream().anyMatch(y -> y[0] == figures[0] && y[1] <= figures[1]);
                if (!worse) {
                    result.removeIf(y -> y[0] == figures[0]);
                    result.add(figures);
                }
            }
            return result;
        }

        private void fix(T t, O o, long price) {
            Plan plan = plan(t.sign);
            t.plan = plan;
            int bar = o.closesBefore - 1;
            int q = o.quantity;
            t.initial = t.sign * (price - initialLevel(plan, t.sign, price, q, t.open(), bar, false));
            if (!plan.stop.unit.equals("level")) {
                t.stopTicks = exact(plan.stop, price, q, bar, 0);
            }
            t.stopLevel = fixedLevel(plan.stop, t.sign, bar);
            for (Leg leg : plan.legs) {
                t.targetTicks.add(leg.target == null || leg.target.unit.equals("level")
                        ? null
                        : exact(leg.target, price, q, bar, t.initial));
            }
            if (plan.breakevenOffset != null) {
                boolean both = plan.breakevenAfter != null && !plan.breakevenAfter.unit.equals("level");
                if (both) {
                    t.beAfter = Math.max(1, exact(plan.breakevenAfter, price, q, bar, t.initial).ceil());
                }
                if (!plan.breakevenOffset.unit.equals("level")) {
                    t.beOffset = exact(plan.breakevenOffset, price, q, bar, t.initial).ceil();
                    if (both) {
                        t.beOffset = Math.min(t.beOffset, t.beAfter - 1);
                    }
                }
            }
            t.trailTicks = trail(plan, price, q, bar, t.initial, true);
            t.hit = new int[plan.legs.size()];
            t.allotted = new int[plan.legs.size()];
        }

        // ------------------------------------------------------------ windows and flattening

        List<W> merged() {
            List<W> result = new ArrayList<>();
            List<W> sorted = new ArrayList<>(s.windows);
            sorted.sort(Comparator.comparingLong(W::from));
            for (W w : sorted) {
                if (!result.isEmpty() && w.from <= result.getLast().to) {
                    W l = result.removeLast();
                    boolean flat = l.flatten || w.flatten;
                    result.add(new W(l.from, Math.max(l.to, w.to), flat, l.cancel || w.cancel,
                            Math.max(l.flatten ? l.lead : 0, w.flatten ? w.lead : 0)));
                } else {
                    result.add(w);
                }
            }
            return result;
        }

        String mustBeFlat() {
            return acct.broken
                    ? acct.brokenBy
                    : !acct.lock.isEmpty()
                            ? acct.lock
                            : !lockedHere().isEmpty()
                                    ? lockedHere()
                                    : rolling
                                            ? "roll"
                                            : flatBy
                                                    ? "flat by"
                                                    : market.quiet.stream()
                                                            .anyMatch(q -> q.flatten && q.acts <= now && now < q.to)
                                                                    ? "quiet time"
                                                                    : windowFlat ? "window end" : "";
        }

        /** Why its contract, itself or a window of its own is locked. */
        private String lockedHere() {
            return !locked.isEmpty() ? locked : !dayLocked.isEmpty() ? dayLocked : windowLimit();
        }

        void flatten(String reason) {
            dropReverse();
            cancelEntries();
            if (trade != null) {
                trade.flattened = reason;
                if (trade.open() > 0 && !leaveSent()) {
                    leave(reason);
                }
            }
        }

        /** The next print is the last of the range: no entry works any more, and what is open meets it at the market. */
        void leaveRange() {
            dropReverse();
            for (O o : orders) {
                o.dead |= o.of == this && o.role.equals("entry");
            }
            dropIfNothing();
            if (trade != null) {
                trade.flattened = "range end";
                O o = send(this, "leave", "market", trade.sign < 0, trade.open(), NONE, "range end", 0);
                o.all = true;
            }
        }

        void cancelEntries() {
            cancelEntries(0);
        }

        /** @param sign of one side only; 0: of both */
        private void cancelEntries(int sign) {
            for (O o : orders) {
                if (o.of == this && o.role.equals("entry") && o.alive() && (sign == 0 || o.buy == sign > 0)) {
                    ask(o, true, NONE, "");
                }
            }
        }

        /** Leaves at a moment of the clock, if the plan of the open trade is such a one. */
        void leaveNow(Predicate<Plan> which, String reason) {
            if (trade != null && trade.open() > 0 && which.test(plan(trade.sign)) && !leaving()) {
                leave(reason);
            }
        }

        void leave(String reason) {
            O o = send(this, "leave", "market", trade.sign < 0, trade.open(), NONE, reason, market.latency);
            o.all = true;
        }

        void leaveAtEnd() {
            if (session != null) {
                assume(session);
            }
            if (trade != null && trade.open() > 0) {
                O o = send(this, "leave", "market", trade.sign < 0, trade.open(), NONE, "open at end", 0);
                o.all = true;
                fill(o, trade.open(), last, now);
            }
        }

        void assume(S x) {
            if (trade != null && trade.open() > 0
                    && (!mustBeFlat().isEmpty() || trade.flattened.equals("quiet time")
                            || trade.flattened.startsWith("window day"))) {
                for (O o : List.copyOf(orders)) {
                    if (o.of == this && o.all && o.alive()) {
                        o.quantity = o.filled + trade.open();
                        o.reason = "assumed at session end";
                        fill(o, trade.open(), last + (o.buy ? market.slippage : -market.slippage), x.close);
                        break;
                    }
                }
            }
        }

        // ------------------------------------------------------------ fills

        void entered(O o, int q, long price, long time) {
            T t = trade;
            if (t.open() == 0) {
                // the half of a two-sided entry that fills is the trade's side; the other ends
                t.sign = o.buy ? 1 : -1;
                orders.stream().filter(x -> x.of == this && x.role.equals("entry") && x.buy != o.buy)
                        .forEach(x -> x.dead = true);
            }
            if (s.once) {
                longOn &= t.sign < 0;
                shortOn &= t.sign > 0;
            }
            int openBefore = t.open();
            t.entered += q;
            t.entrySum += q * price;
            t.fresh = t.lastEntryPrint == at ? t.fresh + q : q;
            t.lastEntryPrint = at;
            boolean moved = false;
            if (t.firstPrint < 0) {
                t.firstPrint = at;
                t.entryTime = time;
                tradesToday++;
                acct.tradesToday++;
                t.costNumerator = price;
                t.costDenominator = 1;
                fix(t, o, price);
                t.barZero = bars.size();
            } else {
                long n = t.costNumerator * openBefore + price * q * t.costDenominator;
                long d = t.costDenominator * (openBefore + q);
                moved = n * t.costDenominator != t.costNumerator * d;
                long g = gcd(Math.abs(n), d);
                t.costNumerator = n / g;
                t.costDenominator = d / g;
            }
            long was = t.level;
            tighten(planned(), "stop");
            if (t.stop == null) {
                for (long[] x : t.trailTicks) {
                    if (x[0] == 0) {
                        tighten(stopPrice(-x[1]), "trail");
                    }
                }
            } else if (t.breakeven && t.breakevenLevel == NONE) {
                tighten(stopPrice(t.beOffset), "breakeven");
            }
            if (t.stop == null) {
                t.stop = send(this, "stop", "stop", t.sign < 0, t.open(), held(), reason(), 0);
            } else {
                t.stop.quantity = t.stop.filled + t.open();
                if (t.level != was) {
                    ask(t.stop, false, held(), reason());
                }
            }
            if (t.level != was) {
                t.counted = 0;
                t.reached = false;
                long p = tape.get(at).price;
                boolean beyond = t.sign > 0 ? t.level > p : t.level < p;
                if (beyond) {
                    already();
                }
            }
            allot(q, moved);
        }

        private long planned() {
            return plannedStop(trade.plan.stop, trade.sign,
                    new Q(BigInteger.valueOf(trade.costNumerator), BigInteger.valueOf(trade.costDenominator)),
                    trade.open(), 0, trade.stopTicks, trade.stopLevel);
        }

        /** Where the broker holds a stop: the level itself, or further out for one that is held here. */
        private long held() {
            return trade.level - trade.sign * trade.plan.disaster;
        }

        private String reason() {
            return trade.plan.disaster > 0 ? "disaster stop" : trade.origin;
        }

        /** A level that is set where the market is already. */
        private void already() {
            if (trade.plan.disaster > 0 && trade.plan.localVolume > 0 && !market.barMode) {
                trade.reached = true;
            } else if (!leaving()) {
                volumeTaken += trade.plan.disaster > 0 && trade.plan.localVolume > 0 ? 1 : 0;
                leave("stop at market");
            }
        }

        private void allot(int q, boolean moved) {
            int left = q;
            List<Leg> legs = trade.plan.legs;
            int[] given = new int[legs.size()];
            int rest = -1;
            for (int i = 0; i < legs.size(); i++) {
                given[i] = Math.max(0, Math.min(left, legs.get(i).quantity - trade.allotted[i]));
                left -= given[i];
                if (rest < 0 || legs.get(rest).target != null) {
                    rest = i;
                }
            }
            if (left > 0 && rest >= 0) {
                given[rest] += left;
            }
            for (int i = 0; i < legs.size(); i++) {
                trade.allotted[i] += given[i];
                if (legs.get(i).target == null) {
                    continue;
                }
                if (given[i] > 0) {
                    offer(i, given[i]);
                }
                if (moved) {
                    moveTarget(i, targetPrice(i));
                }
            }
        }

        private void moveTarget(int leg, long price) {
            for (O o : trade.targets) {
                if (o.leg == leg && o.alive() && o.wanted != price) {
                    o.wanted = price;
                    ask(o, false, price, "target " + (leg + 1));
                }
            }
        }

        private void offer(int leg, int q) {
            for (O o : trade.targets) {
                if (o.leg == leg && o.alive()) {
                    o.quantity += q;
                    return;
                }
            }
            O o = send(this, "target", "limit", trade.sign < 0, q, targetPrice(leg), "target " + (leg + 1), 0);
            o.leg = leg;
            trade.targets.add(o);
        }

        private long targetPrice(int leg) {
            D d = trade.plan.legs.get(leg).target;
            if (d.unit.equals("level")) {
                double level = level(d, bars.size() - 1);
                return (long) (trade.sign > 0 ? Math.ceil(level) : Math.floor(level));
            }
            Q average = new Q(BigInteger.valueOf(trade.costNumerator), BigInteger.valueOf(trade.costDenominator));
            Q x = trade.targetTicks.get(leg);
            return trade.sign > 0 ? average.plus(x).ceil() : average.plus(x.minus()).floor();
        }

        void exited(O o, int q, long price, long time) {
            T t = trade;
            t.left += q;
            t.exitSum += q * price;
            t.excursions.add(new Seen(price, t.costNumerator, t.costDenominator));
            if (o.role.equals("target")) {
                t.hit[o.leg] += q;
            }
            if (t.stop != null && t.stop != o) {
                t.stop.quantity = t.stop.filled + t.open();
            }
            if (!o.role.equals("target")) {
                int offered = t.targets.stream().filter(O::alive).mapToInt(O::rest).sum();
                for (int i = t.targets.size() - 1; i >= 0; i--) {
                    O target = t.targets.get(i);
                    while (target.alive() && offered > t.open()) {
                        target.quantity--;
                        offered--;
                    }
                }
            }
            if (o.role.equals("stop") || o.all || t.open() == 0) {
                orders.stream().filter(x -> x.of == this && x.role.equals("entry")).forEach(x -> x.dead = true);
            }
            if (t.open() == 0) {
                orders.stream().filter(x -> x.of == this).forEach(x -> x.dead = true);
                acct.trades.add(result(o, time));
                ended = true;
                endPrint = o.reason.equals("assumed at session end") ? -1 : at;
                endTime = time;
                endNet = t.sign * (t.exitSum - t.entrySum) * market.tickValue - 2L * t.entered * market.fee;
                acct.ended(endNet, time);
                endBar = bars.size() - (forming.isEmpty() && !s.kind.equals("renko") ? 1 : 0);
                trade = null;
                if (reversing != 0 && !o.reason.equals("open at end")) {
                    int sign = reversing;
                    reversing = 0;
                    enter(sign, reversePrice, reverseQuantity);
                }
            }
        }

        private String result(O last, long time) {
            T t = trade;
            long worst = 0;
            long best = 0;
            for (Seen x : t.excursions) {
                long over = t.sign * (x.price * x.costDenominator - x.costNumerator);
                best = Math.max(best, Math.floorDiv(over, x.costDenominator));
                worst = Math.max(worst, Math.ceilDiv(-over, x.costDenominator));
            }
            long gross = t.sign * (t.exitSum - t.entrySum) * market.tickValue;
            long fees = 2L * t.entered * market.fee;
            return index + " " + t.entryTime + " " + time + " " + (t.sign > 0 ? "long " : "short ") + t.entered + " "
                    + t.entrySum + " " + t.exitSum + " gross " + gross + " fees " + fees + " mae " + worst + " mfe "
                    + best + " bars " + Math.max(0, bars.size() - t.barZero - 1) + " " + last.reason;
        }

        // ------------------------------------------------------------ the stop

        private long stopPrice(long distance) {
            return trade.sign > 0
                    ? Math.floorDiv(trade.costNumerator, trade.costDenominator) + distance
                    : Math.ceilDiv(trade.costNumerator, trade.costDenominator) - distance;
        }

        /** The furthest in favour of everything seen, times the denominator; at least 0. */
        private long best() {
            long best = 0;
            for (long p : trade.seen) {
                best = Math.max(best, trade.sign * (p * trade.costDenominator - trade.costNumerator));
            }
            return best;
        }

        private void breakeven(int bar) {
            T t = trade;
            if (!t.breakeven) {
                if (t.plan.breakevenOffset.unit.equals("level")) {
                    double level = level(t.plan.breakevenOffset, bar);
                    t.breakevenLevel = (long) (t.sign > 0 ? Math.floor(level) : Math.ceil(level));
                }
                t.breakeven = true;
            }
            tighten(t.breakevenLevel != NONE ? t.breakevenLevel : stopPrice(t.beOffset), "breakeven");
        }

        /** What the best so far, and filled legs, do to the stop. */
        private void judgeStop(int bar) {
            T t = trade;
            long best = best();
            long d = t.costDenominator;
            if (t.plan.breakevenOffset != null) {
                D after = t.plan.breakevenAfter;
                boolean far = false;
                if (after != null && after.unit.equals("level")) {
                    double level = level(after, bar);
                    // the best as a price: the average, or beyond it
                    far = t.sign * level <= (t.sign * (double) t.costNumerator + best) / d;
                } else if (after != null) {
                    far = best >= t.beAfter * d;
                }
                int leg = t.plan.breakevenLeg - 1;
                boolean filled = leg >= 0 && t.allotted[leg] > 0 && t.hit[leg] == t.allotted[leg] && resting() == 0;
                if (t.breakeven || far || filled) {
                    breakeven(bar);
                }
            }
            long[] active = null;
            for (long[] x : t.trailTicks) {
                if (best >= x[0] * d && (active == null || x[0] > active[0])) {
                    active = x;
                }
            }
            if (active != null) {
                long steps = Math.floorDiv(best - active[0] * d, active[2] * d);
                tighten(stopPrice(active[0] - active[1] + active[2] * steps), "trail");
            }
        }

        /** Whether a price lies beyond the average in favour. */
        private boolean inProfit(long price, long offset) {
            return trade.sign * ((price - trade.sign * offset) * trade.costDenominator - trade.costNumerator) > 0;
        }

        private void moved(long was, long p) {
            T t = trade;
            if (t.level == was) {
                return;
            }
            t.counted = 0;
            t.reached = false;
            boolean at = t.sign > 0 ? p <= t.level : p >= t.level;
            boolean counts = t.plan.disaster > 0 && t.plan.localVolume > 0 && !market.barMode;
            if (at) {
                already();
            }
            if ((!at || counts) && t.stop.alive() && !t.stop.triggered) {
                ask(t.stop, false, held(), reason());
            }
        }

        /** (3), or (0) by the clock: a signal bar has closed. */
        private void barClosed(int b) {
            T t = trade;
            if (t == null || t.open() == 0 || b < t.barZero) {
                return;
            }
            Bar bar = bars.get(b);
            long was = t.level;
            if (t.firstPrint < at && bar.last == at && working) {
                t.seen.add(tape.get(at).price);
            }
            if (t.plan.follow) {
                double level = mean(b) - t.sign;
                if (!Double.isNaN(level)) {
                    tighten((long) (t.sign > 0 ? Math.floor(level) : Math.ceil(level)), "follow");
                }
            }
            int since = b - t.barZero;
            if (t.plan.breakevenOffset != null && t.plan.breakevenBars > 0 && since >= t.plan.breakevenBars) {
                boolean beyond = t.plan.breakevenOffset.unit.equals("level")
                        ? t.sign * (bar.close - level(t.plan.breakevenOffset, b)) > 0
                        : inProfit(bar.close, t.beOffset);
                if (beyond || t.breakeven) {
                    breakeven(b);
                }
            }
            if (t.plan.atClose) {
                judgeStop(b);
            }
            moved(was, last);
            for (int i = 0; i < t.plan.legs.size(); i++) {
                D target = t.plan.legs.get(i).target;
                if (target != null && target.unit.equals("level")) {
                    double level = level(target, b);
                    moveTarget(i, (long) (t.sign > 0 ? Math.ceil(level) : Math.floor(level)));
                }
            }
            if (leaving()) {
                return;
            }
            boolean profit = inProfit(bar.close, 0);
            if (t.plan.afterBars > 0 && since >= t.plan.afterBars && (profit || !t.plan.onlyInProfit)) {
                leave("after bars");
            } else if (t.plan.firstProfit && since >= 1 && profit) {
                leave("first close in profit");
            } else {
                leaveByRule(b < 2 ? NONE : bars.get(b - 2).close, bar.close);
            }
        }

        private void leaveByRule(long before, long close) {
            T t = trade;
            if (t.plan.rule < 0 || before == NONE || close <= before || leaving() || t.takenByRule) {
                return;
            }
            if (t.plan.rule == 0 || t.plan.rule >= t.open()) {
                leave("rule");
            } else {
                t.takenByRule = true;
                send(this, "leave", "market", t.sign < 0, t.plan.rule, NONE, "rule", market.latency);
            }
        }

        private void tighten(long price, String origin) {
            if (trade.level == NONE || (trade.sign > 0 ? price > trade.level : price < trade.level)) {
                trade.level = price;
                trade.origin = origin;
            }
        }

        /** A print meets a stop that is held here. */
        private void meetsLocal(P p) {
            T t = trade;
            boolean beyond = t.sign > 0 ? p.price <= t.level : p.price >= t.level;
            t.reached |= beyond;
            if (!t.reached || leaving()) {
                return;
            }
            int buyer = aggressor(at);
            if (beyond && buyer != t.sign) {
                t.counted += p.size;
            }
            if (t.plan.localVolume == 0 || market.barMode ? beyond : t.counted >= t.plan.localVolume) {
                volumeTaken += t.plan.localVolume > 0 ? 1 : 0;
                leave("local stop");
            }
        }

        /** (4) */
        void manage(P p) {
            if (trade == null || trade.open() == 0) {
                return;
            }
            if (trade.firstPrint < at) {
                trade.seen.add(p.price);
                trade.excursions.add(new Seen(p.price, trade.costNumerator, trade.costDenominator));
                long was = trade.level;
                if (!trade.plan.atClose) {
                    judgeStop(bars.size() - 1);
                }
                if (trade.level != was) {
                    moved(was, p.price);
                } else if (trade.plan.disaster > 0) {
                    meetsLocal(p);
                }
            }
            String why = mustBeFlat().isEmpty() ? trade.flattened : mustBeFlat();
            if (!why.isEmpty() && !leaveSent()) {
                flatten(why);
            }
        }
    }

    /** One account, with every contract that is traded on it in its order. */
    private static final class Acct {
        final List<NaiveTrader> markets = new ArrayList<>();
        final List<String> fills = new ArrayList<>();
        final List<String> decisions = new ArrayList<>();
        final List<String> trades = new ArrayList<>();
        final List<Long> days = new ArrayList<>();
        /** Time and equity after every print of a contract that is held or was. */
        final List<long[]> path = new ArrayList<>();
        Setup rules;
        /** Trading days of the first contract that the account lists. */
        List<S> calendar;
        int numbers;
        long event = NONE;
        long moment = NONE;
        long reached = NONE;
        boolean dayBegun;
        long balance;
        long peak;
        long dayStart;
        String lock = "";
        boolean broken;

        long equity() {
            long equity = balance;
            for (NaiveTrader m : markets) {
                for (Trader t : m.traders) {
                    equity += m.last == NONE ? 0 : t.held * m.last * m.market.tickValue - t.heldCost;
                }
            }
            return equity;
        }

        List<Trader> traders() {
            return markets.stream().flatMap(m -> m.traders.stream()).sorted(Comparator.comparingInt(t -> t.index))
                    .toList();
        }

        void beginDay() {
            if (dayBegun) {
                days.add(equity() - dayStart);
                closes.add(balance);
            }
            dayBegun = true;
            dayStart = equity();
            dayBalance = balance;
            dayBest = dayStart;
            lock = "";
            tradesToday = 0;
            lostInARow = 0;
            pausedUntil = pausedUntil == Long.MAX_VALUE ? NONE : pausedUntil;
        }

        final List<Long> closes = new ArrayList<>();
        int tradesToday;
        long dayBalance;
        long dayBest;
        int lostInARow;
        long pausedUntil = NONE;

        void ended(long net, long time) {
            lostInARow = net < 0 ? lostInARow + 1 : 0;
            if (rules.losses > 0 && lostInARow >= rules.losses) {
                lostInARow = 0;
                pausedUntil = Math.max(pausedUntil, rules.pause == 0 ? Long.MAX_VALUE : time + rules.pause);
            }
        }

        long perTick() {
            return markets.stream().mapToLong(m -> m.traders.stream().mapToLong(t -> Math.abs(t.held)).sum()
                    * m.market.tickValue).sum();
        }

        /** A loss line with its guard; NONE where it does not stand. */
        record L(String why, long at, G guard, boolean breaks) {}

        List<L> lines(long equity) {
            List<L> lines = new ArrayList<>();
            if (rules.allowance > 0) {
                long from = switch (rules.trails) {
                    case "start" -> rules.start;
                    case "day" -> Math.max(rules.start, closes.stream().mapToLong(x -> x).max().orElse(rules.start));
                    default -> Math.max(peak, equity);
                };
                long at = from - rules.allowance;
                lines.add(new L("drawdown floor", rules.lockAt == NONE ? at : Math.min(at, rules.lockAt),
                        rules.floorGuard, true));
            }
            if (rules.bookLoss > 0) {
                lines.add(new L("day loss", (rules.bookFromEquity ? dayStart : dayBalance) - rules.bookLoss,
                        rules.bookGuard, rules.bookBreaks));
            }
            if (rules.dayLoss > 0) {
                lines.add(new L("day loss", dayStart - rules.dayLoss, rules.guard, false));
            }
            long best = Math.max(dayBest, equity);
            if (rules.giveFall > 0 && best - dayStart >= rules.giveAfter) {
                lines.add(new L("give-back", best - rules.giveFall, rules.giveGuard, false));
            }
            return lines;
        }

        /** The lowest equity that an entry's worst case must stay above; NONE without a line. */
        long highestLine(long equity) {
            return lines(equity).stream().mapToLong(l -> l.at + l.guard.margin(perTick())).max().orElse(NONE);
        }

        void leaves(String why, boolean breaks, long now, long last) {
            broken |= breaks;
            brokenBy = breaks ? why : brokenBy;
            lock = breaks ? lock : why;
            decisions.add(now + " locked " + why + " " + last);
            traders().forEach(t -> t.flatten(why));
        }

        String brokenBy = "";

        /** Everything that comes, by time; at equal times what comes without a print first, then by the account's list. */
        void trade() {
            record Comes(long time, int kind, int market, int print) {}
            List<Comes> all = new ArrayList<>();
            for (int k = 0; k < markets.size(); k++) {
                NaiveTrader m = markets.get(k);
                m.prepare();
                for (int i = 0; i < m.tape.size() && m.inRange(m.tape.get(i).time); i++) {
                    all.add(new Comes(m.tape.get(i).time, 1, k, i));
                }
                for (S x : m.sessions) {
                    if (!m.tape.isEmpty() && x.close > m.tape.getFirst().time && x.close <= m.tape.getLast().time
                            && m.inRange(x.close)) {
                        all.add(new Comes(x.close, 0, k, -1));
                    }
                }
            }
            all.sort(Comparator.comparingLong(Comes::time).thenComparingInt(Comes::kind)
                    .thenComparingInt(Comes::market).thenComparingInt(Comes::print));
            for (Comes c : all) {
                if (c.kind == 0) {
                    markets.get(c.market).arrives(c.time);
                } else {
                    markets.get(c.market).printArrives(c.print);
                }
            }
            end();
        }

        void end() {
            for (Trader x : traders()) {
                x.leaveAtEnd();
            }
            // the end is that of the contracts that were traded
            long end = markets.stream().filter(m -> m.everFilled).mapToLong(m -> m.now).max()
                    .orElse(markets.stream().mapToLong(m -> m.now).max().orElse(NONE));
            if (end != NONE) {
                path.add(new long[]{end, equity()});
            }
            if (dayBegun) {
                days.add(equity() - dayStart);
            }
        }

        void judge(long now, long last) {
            long equity = equity();
            peak = Math.max(peak, equity);
            dayBest = Math.max(dayBest, equity);
            if (broken) {
                return;
            }
            for (L line : lines(equity)) {
                if (line.breaks && equity <= line.at) {
                    leaves(line.why, true, now, last);
                    return;
                }
            }
            if (!lock.isEmpty()) {
                return;
            }
            long closing = 0;
            boolean open = false;
            for (NaiveTrader m : markets) {
                long contracts = m.traders.stream().mapToLong(t -> Math.abs(t.held)).sum();
                open |= contracts > 0;
                closing += contracts * (m.market.slippage * m.market.tickValue + m.market.fee);
            }
            for (L line : lines(equity)) {
                boolean reached = !line.breaks && equity <= line.at;
                boolean guarded = line.guard.on && open && equity - closing <= line.at + line.guard.margin(perTick());
                if (reached || guarded) {
                    leaves(line.why, false, now, last);
                    return;
                }
            }
            if (rules.dayProfit > 0 && equity - dayStart >= rules.dayProfit) {
                leaves("day profit", false, now, last);
            }
        }
    }

    private Acct acct = new Acct();
    final List<String> fills = acct.fills;
    final List<String> decisions = acct.decisions;
    final List<String> trades = acct.trades;
    /** Results of the trading days, in order. */
    final List<Long> days = acct.days;
    /** Something was filled on the print that is worked. */
    private boolean filledNow;
    private boolean everFilled;
    /** Time of the last print, while nothing is held, before something is filled. */
    private long quietBefore = NONE;
    private final Setup market;
    /** Prints as far as they are known; in bar mode steps as far as they were walked. */
    private final List<P> tape;
    private final List<S> sessions;
    /** Of bar mode: the bar that is walked, the steps of it that are still to come, and what it may still give to limits. */
    private Whole walked;
    private boolean walkedLast;
    private List<Long> toCome = List.of();
    private final int[] barRoom = {0};
    private int walkedNumber;
    /** Numbers of bars in which a stop counted although a target would have filled. */
    final Set<Integer> stopCounted = new TreeSet<>();
    int equalExtremes;
    int queueTaken;
    int volumeTaken;
    private final List<Trader> traders = new ArrayList<>();
    private final List<O> orders = new ArrayList<>();
    private final List<Ask> asks = new ArrayList<>();
    private int at = -1;
    /** The last print that orders have met. */
    private int worked = -1;
    private long now = NONE;
    private long last = NONE;
    private S session;
    private S firstTraded;
    private boolean incomplete;
    private long reached = NONE;

    NaiveTrader(Setup market, List<P> tape, List<S> sessions) {
        this.market = market;
        this.tape = market.barMode ? new ArrayList<>(tape) : tape;
        this.sessions = sessions;
        for (Rules rules : market.rules) {
            traders.add(new Trader(traders.size(), rules));
        }
        share(acct);
    }

    private void share(Acct account) {
        acct = account;
        if (account.markets.isEmpty()) {
            account.rules = market;
            account.calendar = sessions;
            account.balance = market.start;
            account.peak = market.start;
            account.dayStart = market.start;
            account.dayBalance = market.start;
            account.dayBest = market.start;
        }
        account.markets.add(this);
    }

    /**
     * A further contract on the same account, whose strategies come behind those that are there.
     *
     * @param before whether the account lists it before the others
     */
    void joins(NaiveTrader first, boolean before) {
        List<Trader> later = List.copyOf(traders);
        traders.clear();
        int many = first.acct.traders().size();
        later.forEach(t -> traders.add(new Trader(many + t.index, t.s)));
        share(first.acct);
        if (before) {
            first.acct.markets.remove(this);
            first.acct.markets.addFirst(this);
            first.acct.calendar = sessions;
        }
    }

    // ---------------------------------------------------------------- bar mode

    /** The bars of the first strategy, from its prints. */
    private List<Whole> bars(List<P> prints) {
        Rules r = market.rules.getFirst();
        List<Whole> made = new ArrayList<>();
        for (S x : sessions) {
            List<P> inside = prints.stream().filter(p -> x.open <= p.time && p.time < x.close).toList();
            List<P> bar = new ArrayList<>();
            long contracts = 0;
            long end = NONE;
            for (P p : inside) {
                if (r.kind.equals("time") && !bar.isEmpty() && p.time >= end) {
                    made.add(whole(bar, contracts, start(r, x, bar), end - 1, false,
                            end));
                    bar = new ArrayList<>();
                    contracts = 0;
                }
                if (r.kind.equals("range") && !bar.isEmpty()) {
                    long high = Math.max(p.price, bar.stream().mapToLong(P::price).max().orElseThrow());
                    long low = Math.min(p.price, bar.stream().mapToLong(P::price).min().orElseThrow());
                    if (high - low > r.size) {
                        made.add(whole(bar, contracts, bar.getFirst().time, bar.getLast().time, true, NONE));
                        bar = new ArrayList<>();
                        contracts = 0;
                    }
                }
                if (r.kind.equals("volume")) {
                    for (int contract = 0; contract < p.size; contract++) {
                        if (bar.isEmpty() || bar.getLast() != p) {
                            bar.add(p);
                        }
                        contracts++;
                        if (contracts == r.size) {
                            made.add(whole(bar, contracts, bar.getFirst().time, bar.getLast().time, true, NONE));
                            bar = new ArrayList<>();
                            contracts = 0;
                        }
                    }
                    continue;
                }
                bar.add(p);
                contracts += p.size;
                if (bar.size() == 1 && r.kind.equals("time")) {
                    end = Math.min(x.close, start(r, x, bar) + r.size);
                }
                if (r.kind.equals("tick") && bar.size() == r.size) {
                    made.add(whole(bar, contracts, bar.getFirst().time, bar.getLast().time, true, NONE));
                    bar = new ArrayList<>();
                    contracts = 0;
                }
            }
            if (!bar.isEmpty()) {
                boolean whole = r.kind.equals("time") && prints.getLast().time >= end;
                made.add(whole(bar, contracts, r.kind.equals("time") ? start(r, x, bar) : bar.getFirst().time,
                        whole ? end - 1 : bar.getLast().time, false, whole ? end : NONE));
            }
        }
        return made;
    }

    private static long start(Rules r, S x, List<P> bar) {
        return x.open + (bar.getFirst().time - x.open) / r.size * r.size;
    }

    private static Whole whole(List<P> bar, long contracts, long start, long lastInstant, boolean byPrint,
            long closed) {
        return new Whole(bar.getFirst().price, bar.stream().mapToLong(P::price).max().orElseThrow(),
                bar.stream().mapToLong(P::price).min().orElseThrow(), bar.getLast().price, contracts, start,
                lastInstant, byPrint, bar.getFirst().time, closed);
    }

    /** The steps behind the open, tick by tick. */
    private List<Long> steps(Whole bar) {
        long down = bar.open - bar.low;
        long up = bar.high - bar.open;
        boolean lowFirst = down < up || down == up && traders.stream().mapToLong(t -> t.held).sum() >= 0;
        equalExtremes += down == up && up > 0 ? 1 : 0;
        List<Long> steps = new ArrayList<>();
        long price = bar.open;
        for (long goal : new long[]{lowFirst ? bar.low : bar.high, lowFirst ? bar.high : bar.low, bar.close}) {
            while (price != goal) {
                price += Long.signum(goal - price);
                steps.add(price);
            }
        }
        return steps;
    }

    /** Bars are walked, each step a print of its own. */
    private void walk(List<P> prints) {
        List<Whole> bars = bars(prints);
        int lastStep = -1;
        int lastOpen = -1;
        for (int b = 0; b < bars.size(); b++) {
            lastOpen = inRange(bars.get(b).start) ? b : lastOpen;
            lastStep = inRange(bars.get(b).lastInstant) ? b : lastStep;
        }
        int[] heartbeat = {0};
        for (Whole bar : bars) {
            if (!inRange(bar.start)) {
                break;
            }
            walked = bar;
            barRoom[0] = (int) bar.volume;
            boolean single = bar.high == bar.low;
            walkedLast = single;
            toCome = both(bar);
            step(new P(bar.start, bar.open, (int) bar.volume, NONE, NONE, NONE, NONE), heartbeat, prints,
                    walkedNumber == lastOpen && (single || lastStep < lastOpen));
            if (!inRange(bar.lastInstant)) {
                break;
            }
            toCome = new ArrayList<>(steps(bar));
            while (!toCome.isEmpty()) {
                long price = toCome.removeFirst();
                walkedLast = toCome.isEmpty();
                step(new P(bar.lastInstant, price, (int) bar.volume, NONE, NONE, NONE, NONE), heartbeat, prints,
                        walkedLast && walkedNumber == lastStep);
            }
            walkedNumber++;
            if (bar.closed != NONE) {
                // what is sent at the close meets the next open: the clock comes there before it
                beats(heartbeat, bar.closed, prints);
                tick(bar.closed);
            }
        }
        beats(heartbeat, prints.getLast().time, prints);
        P last = prints.stream().filter(p -> inRange(p.time)).reduce((a, b) -> b).orElse(null);
        if (last != null && (tape.isEmpty() || last.time > tape.getLast().time)) {
            // prints outside sessions move the clock
            tick(last.time);
        }
    }

    private void tick(long time) {
        arrives(Math.max(acct.event, time));
    }

    /** Whichever way it goes, the rest of a bar behind its open comes to both extremes. */
    private static List<Long> both(Whole bar) {
        return bar.high == bar.low ? List.of() : List.of(bar.low, bar.high);
    }

    private void step(P p, int[] heartbeat, List<P> prints, boolean lastOfRange) {
        beats(heartbeat, p.time, prints);
        if (lastOfRange && market.endsBefore != NONE) {
            traders.forEach(Trader::leaveRange);
        }
        tape.add(p);
        at = tape.size() - 1;
        arrives(p.time);
        print(p);
    }

    private void beats(int[] heartbeat, long until, List<P> prints) {
        while (heartbeat[0] < sessions.size() && sessions.get(heartbeat[0]).close <= until
                && sessions.get(heartbeat[0]).close <= prints.getLast().time
                && inRange(sessions.get(heartbeat[0]).close)) {
            if (sessions.get(heartbeat[0]).close > prints.getFirst().time) {
                arrives(sessions.get(heartbeat[0]).close);
            }
            heartbeat[0]++;
        }
    }

    /** Whether the rest of the bar comes to the stop of a trade as it stands. */
    private boolean stopStillReached(T t) {
        long level = t.level;
        if (t.level != NONE && t.plan.disaster == 0) {
            if (t.stop == null || !t.stop.alive() || t.stop.triggered) {
                return false;
            }
            level = t.stop.price;
        }
        long stop = level;
        return stop != NONE && toCome.stream().anyMatch(p -> t.sign > 0 ? p <= stop : p >= stop);
    }

    void run() {
        if (market.barMode) {
            List<P> prints = List.copyOf(tape);
            tape.clear();
            if (!prints.isEmpty()) {
                walk(prints);
            }
            acct.end();
            return;
        }
        acct.trade();
    }

    /** Time of the account and of this contract comes to an event of this contract. */
    private void arrives(long time) {
        acct.event = time;
        clock(time);
        at(time);
    }

    private void at(long time) {
        now = time;
        acct.moment = time;
    }

    private void printArrives(int i) {
        if (i == lastInRange && market.endsBefore != NONE) {
            traders.forEach(Trader::leaveRange);
        }
        at = i;
        arrives(tape.get(i).time);
        print(tape.get(i));
    }

    private void prepare() {
        for (int i = 0; i < tape.size(); i++) {
            long time = tape.get(i).time;
            if (inRange(time) && sessions.stream().anyMatch(x -> x.open <= time && time < x.close)) {
                lastInRange = i;
            }
        }
    }

    private int lastInRange = -1;

    /** 1 for a buyer, −1 for a seller, 0 if nobody knows. */
    private int aggressor(int i) {
        P p = tape.get(i);
        boolean normal = p.bid == NONE != (p.ask == NONE) || p.bid != NONE && p.ask != NONE && p.bid < p.ask;
        if (normal && p.ask != NONE && p.price >= p.ask) {
            return 1;
        }
        if (normal && p.bid != NONE && p.price <= p.bid) {
            return -1;
        }
        for (int j = i - 1; j >= firstOfMonth; j--) {
            if (tape.get(j).price != p.price) {
                return p.price > tape.get(j).price ? 1 : -1;
            }
        }
        return firstOfMonth == 0 || market.newBefore == p.price ? 0 : p.price > market.newBefore ? 1 : -1;
    }

    private boolean inRange(long time) {
        return market.endsBefore == NONE || time < market.endsBefore;
    }

    /** From every peak so far: the deepest fall in money. */
    long deepest() {
        long deepest = 0;
        long top = market.start;
        for (long[] x : acct.path) {
            top = Math.max(top, x[1]);
            deepest = Math.max(deepest, top - x[1]);
        }
        return deepest;
    }

    /** From the last print at a peak to the first at or above it again, else the end. */
    long longest() {
        long longest = 0;
        long top = market.start;
        long since = NONE;
        for (long[] x : acct.path) {
            if (x[1] >= top) {
                if (since != NONE && x[0] - since > longest) {
                    longest = x[0] - since;
                    longestFrom = since;
                }
                top = x[1];
                since = NONE;
                lastAtPeak = x[0];
            } else if (since == NONE) {
                since = lastAtPeak;
            }
        }
        longestLasts = since != NONE && acct.path.getLast()[0] - since > longest;
        if (longestLasts) {
            longestFrom = since;
        }
        return longestLasts ? acct.path.getLast()[0] - since : longest;
    }

    long longestFrom;
    boolean longestLasts;

    private long lastAtPeak;
    /** Bars take the print that has come, not the clock. */
    private boolean working;
    private boolean rolling;
    private boolean flatBy;
    /** Index of the first print of the month in force. */
    private int firstOfMonth;

    // ---------------------------------------------------------------- (0)

    private record Due(long time, int rank, Runnable what, boolean account) {
        Due(long time, int rank, Runnable what) {
            this(time, rank, what, false);
        }
    }

    /** The account's trading days, which any contract's events begin: before whatever else this contract has at that instant. */
    private List<Due> accountDays(long until) {
        List<Due> due = new ArrayList<>();
        boolean begun = acct.reached != NONE;
        if (!begun) {
            for (S x : acct.calendar) {
                if (x.close > until) {
                    if (firstOf(acct.calendar, x.day).open < until) {
                        acct.beginDay();
                    }
                    break;
                }
            }
        }
        for (S x : acct.calendar) {
            if (firstOf(acct.calendar, x.day) == x && x.open <= until
                    && (begun ? x.open > acct.reached : x.open == until)) {
                due.add(new Due(x.open, 1, acct::beginDay, true));
            }
        }
        acct.reached = Math.max(acct.reached, until);
        return due;
    }

    private void clock(long until) {
        List<Due> due = new ArrayList<>(accountDays(until));
        boolean begun = reached != NONE;
        for (S x : sessions) {
            if (x.close > reached && x.close <= until && begun) {
                due.add(new Due(x.close, 0, () -> closeSession(x)));
            }
            boolean running = begun || x.close > until;
            if (x.open > reached && x.open <= until && running) {
                if (firstOf(x.day) == x) {
                    if (x.day == market.rollDay) {
                        due.add(new Due(x.open, 1, () -> roll(x.open)));
                    }
                    due.add(new Due(x.open, 1, () -> {
                        flatBy = flatMoments().contains(x.open);
                        dayBegins();
                        countAnew("day");
                    }));
                }
                due.add(new Due(x.open, 6, () -> {
                    session = x;
                    countAnew("session");
                }));
            }
        }
        if (!begun) {
            // the first event inside a trading day begins that day
            for (S x : sessions) {
                if (x.close > until) {
                    if (firstOf(x.day).open < until) {
                        long open = firstOf(x.day).open;
                        flatBy = flatMoments().stream().anyMatch(m -> m >= open && m <= until);
                        dayBegins();
                        countAnew("day");
                    }
                    break;
                }
            }
            due.removeIf(d -> d.rank == 1 && d.time < until && !d.account);
        }
        for (Trader t : traders) {
            if (t.s.kind.equals("time") && !t.forming.isEmpty() && t.formingEnd <= until
                    && t.formingEnd < session.close) {
                long close = session.close;
                due.add(new Due(t.formingEnd, 2, () -> {
                    int from = t.bars.size();
                    t.closeForming();
                    t.evaluateClosed(from, acct.event >= close);
                }));
            }
            for (W w : t.s.windows) {
                if (w.from > reached && w.from <= until && begun && t.s.period.equals("window")) {
                    due.add(new Due(w.from, 6, t::countAnew));
                }
                if (w.from > reached && w.from <= until && begun) {
                    due.add(new Due(w.from, 3, () -> t.windowBegins(w)));
                }
                if (!begun && w.from <= until && until < w.to) {
                    t.windowBegins(w);
                }
            }
            for (W w : t.merged()) {
                if (w.to > reached && w.to <= until && begun) {
                    due.add(new Due(w.to, 3, () -> {
                        t.leaveNow(plan -> plan.windowEnd, "window end");
                        t.dropReverse();
                    }));
                }
                long acts = w.flatten ? Math.max(w.from, w.to - w.lead) : w.to;
                if (w.from > reached && w.from <= until && begun) {
                    due.add(new Due(w.from, 3, () -> t.windowFlat = false));
                }
                if (acts > reached && acts <= until && (w.flatten || w.cancel) && begun) {
                    due.add(new Due(acts, 3, () -> {
                        if (w.flatten) {
                            t.windowFlat = true;
                            t.flatten("window end");
                        } else {
                            t.cancelEntries();
                        }
                    }));
                }
            }
        }
        for (long moment : flatMoments()) {
            if (moment > reached && moment <= until && begun) {
                due.add(new Due(moment, 3, () -> {
                    flatBy = true;
                    traders.forEach(t -> t.flatten("flat by"));
                }));
            }
        }
        for (Quiet q : market.quiet) {
            if (q.acts > reached && q.acts <= until && begun && (q.flatten || q.cancel)) {
                due.add(new Due(q.acts, 3, () -> traders.forEach(t -> {
                    if (q.flatten) {
                        t.flatten("quiet time");
                    } else {
                        t.cancelEntries();
                    }
                })));
            }
        }
        if (market.rollDay >= 0) {
            S lastOfOld = sessions.stream().filter(x -> x.day < market.rollDay).reduce((a, b) -> b).orElseThrow();
            long lead = Math.max(lastOfOld.open, lastOfOld.close - market.rollLead);
            if (lead > reached && lead <= until && begun) {
                due.add(new Due(lead, 3, () -> {
                    rolling = true;
                    traders.forEach(t -> t.flatten("roll"));
                }));
            }
        }
        for (Trader t : traders) {
            for (Plan plan : List.of(t.s.longPlan, t.s.shortPlan)) {
                for (long day = 0; plan.clock != NONE && begun && day < 40; day++) {
                    long time = Math.floorDiv(sessions.getFirst().open, DAY) * DAY + day * DAY + plan.clock;
                    if (time > reached && time <= until) {
                        due.add(new Due(time, 4, () -> t.leaveNow(x -> x == plan, "clock time")));
                    }
                }
            }
        }
        for (O o : orders) {
            long after = o.role.equals("entry") ? o.of.s.entry(o.buy).marketAfter : 0;
            if (after > 0 && o.alive() && o.sent + after > reached && o.sent + after <= until) {
                due.add(new Due(o.sent + after, 5, () -> o.of.turn(o)));
            }
        }
        due.sort(Comparator.comparingLong(Due::time).thenComparingInt(Due::rank));
        reached = until;
        due.forEach(d -> {
            at(d.time);
            d.what.run();
        });
    }

    /** When flat by acts, every day. */
    private List<Long> flatMoments() {
        List<Long> moments = new ArrayList<>();
        long first = Math.floorDiv(sessions.getFirst().open, DAY) * DAY;
        for (int day = -1; day < 40 && market.flatBy != NONE; day++) {
            moments.add(first + day * DAY + market.flatBy - market.flatLead);
        }
        for (S x : sessions) {
            if (x.lastOfDay && market.overnight != NONE) {
                moments.add(Math.max(firstOf(x.day).open, x.close - market.overnight));
            }
        }
        return moments;
    }

    private void closeSession(S x) {
        traders.forEach(t -> t.assume(x));
        for (Trader t : traders) {
            int from = t.bars.size();
            if (t.s.kind.equals("renko")) {
                // the brick that formed is given up; were it bar 0, the next one to close is bar 1
                t.begun = false;
                if (t.trade != null && t.trade.entered > 0) {
                    t.trade.barZero = Math.min(t.trade.barZero, t.bars.size() - 1);
                }
                t.endBar = Math.min(t.endBar, t.bars.size() - 1);
            } else if (!t.forming.isEmpty()) {
                t.closeForming();
            }
            t.evaluateClosed(from, true);
        }
        if (x.lastOfDay) {
            for (O o : orders) {
                if (o.role.equals("entry") && o.dayClose != NONE && o.dayClose <= x.close) {
                    o.dead = true;
                }
            }
            traders.forEach(Trader::dropIfNothing);
        }
        session = null;
        if (firstTraded != null) {
            incomplete = false;
        }
    }

    /** Studies see everything before moved to the new month's prices; the print before is the new month's own. */
    private void roll(long open) {
        rolling = false;
        firstOfMonth = 0;
        while (firstOfMonth < tape.size() && tape.get(firstOfMonth).time < open) {
            firstOfMonth++;
        }
        long moved = market.newBefore - tape.get(firstOfMonth - 1).price;
        for (Trader t : traders) {
            t.bars.replaceAll(bar -> new Bar(bar.open + moved, bar.close + moved, bar.last));
        }
        last = market.newBefore;
        worked = -1;
    }

    private String locked = "";
    private long dayBase;

    private void dayBegins() {
        locked = "";
        dayBase = traders.stream().mapToLong(Trader::result).sum();
        traders.forEach(Trader::dayBegins);
    }

    private long perTick() {
        return traders.stream().mapToLong(Trader::perTick).sum();
    }

    private long contractRoom() {
        return market.lines.loss == 0
                ? Long.MAX_VALUE
                : traders.stream().mapToLong(Trader::result).sum() - dayBase + market.lines.loss
                        - market.lines.guard.margin(perTick());
    }

    private void judgeHere() {
        if (locked.isEmpty()) {
            String why = reached(market.lines, traders.stream().mapToLong(Trader::result).sum() - dayBase,
                    traders.stream().anyMatch(t -> t.held != 0),
                    traders.stream().mapToLong(Trader::closingCosts).sum(), perTick());
            if (!why.isEmpty()) {
                locked = "contract " + why;
                acct.decisions.add(now + " locked " + locked + " " + last);
                traders.forEach(t -> t.flatten(locked));
            }
        }
    }

    /** Which of a strategy's or a contract's day limits a result has reached. */
    private static String reached(DayLines lines, long result, boolean open, long closing, long perTick) {
        if (lines.loss > 0 && (result <= -lines.loss || lines.guard.on && open
                && result - closing <= -lines.loss + lines.guard.margin(perTick))) {
            return "day loss";
        }
        return lines.profit > 0 && result >= lines.profit ? "day profit" : "";
    }

    private void countAnew(String period) {
        traders.stream().filter(t -> t.s.period.equals(period)).forEach(Trader::countAnew);
    }

    private S firstOf(int day) {
        return firstOf(sessions, day);
    }

    private static S firstOf(List<S> sessions, int day) {
        return sessions.stream().filter(y -> y.day == day).findFirst().orElseThrow();
    }

    // ---------------------------------------------------------------- a print

    private void print(P p) {
        if (session == null) {
            return;
        }
        if (firstTraded == null) {
            firstTraded = session;
            incomplete = (market.barMode ? walked.begins : p.time) - session.open > 60_000_000_000L;
        }
        // (1)
        for (Ask a : List.copyOf(asks)) {
            if (a.sentAfter < at && a.due <= p.time) {
                asks.remove(a);
                if (!a.order.alive() || a.order.triggered) {
                    continue;
                }
                if (a.cancel) {
                    a.order.dead = true;
                } else if (a.toMarket) {
                    a.order.type = "market";
                    a.order.price = NONE;
                    a.order.accepted = Math.max(a.order.accepted, a.due);
                } else if (!a.order.type.equals("market") && !a.order.wasStop) {
                    a.order.price = a.price;
                    a.order.reason = a.reason;
                    a.order.accepted = Math.max(a.order.accepted, a.due);
                    a.order.metOne = false;
                }
            }
        }
        traders.forEach(Trader::dropIfNothing);
        // (2)
        int[] room = market.barMode ? barRoom : new int[]{p.size};
        List<O> meeting = new ArrayList<>(orders.stream().filter(O::alive).toList());
        meeting.sort(Comparator.<O>comparingLong(o -> o.accepted).thenComparingInt(o -> o.number));
        List<Trader> exitsDone = new ArrayList<>();
        for (O o : meeting) {
            if (o.role.equals("entry")) {
                meet(o, p, room);
            } else if (!exitsDone.contains(o.of)) {
                exitsDone.add(o.of);
                for (String kind : List.of("leave", "stop", "target")) {
                    for (O exit : meeting) {
                        if (exit.of == o.of && exit.role.equals(kind)) {
                            meet(exit, p, room);
                        }
                    }
                }
            }
        }
        last = p.price;
        worked = at;
        // (3)
        working = true;
        List<Integer> from = new ArrayList<>();
        for (Trader t : traders) {
            from.add(t.bars.size());
            t.take(at);
            if (t.ended && t.endPrint == at) {
                boolean inForming = t.s.kind.equals("renko")
                        ? t.bars.size() == from.getLast()
                        : t.formingHolds(at);
                t.endBar = inForming ? t.bars.size() : t.bars.size() - 1;
            }
            if (t.trade != null && t.trade.firstPrint == at) {
                boolean inForming = t.s.kind.equals("renko")
                        ? t.bars.size() == from.getLast()
                        : t.formingHolds(at);
                t.trade.barZero = inForming ? t.bars.size() : t.bars.size() - 1;
            }
        }
        for (Trader t : traders) {
            t.evaluateClosed(from.get(traders.indexOf(t)), false);
            if (t.s.everyTrade) {
                t.look();
            }
        }
        working = false;
        // (4)
        traders.forEach(t -> t.manage(p));
        // (5)
        if (filledNow || traders.stream().anyMatch(t -> t.held != 0)) {
            acct.judge(now, last);
            judgeHere();
            traders.forEach(Trader::judge);
            acct.path.add(new long[]{now, acct.equity()});
        }
        filledNow = false;
        quietBefore = now;
    }

    // ---------------------------------------------------------------- orders

    private void ask(O order, boolean cancel, long price, String reason) {
        Ask a = new Ask();
        a.order = order;
        a.cancel = cancel;
        a.price = price;
        a.reason = reason;
        a.sentAfter = at;
        a.due = acct.event + market.latency;
        asks.add(a);
    }

    private O send(Trader of, String role, String type, boolean buy, int quantity, long price, String reason,
            long latency) {
        O o = new O();
        o.number = ++acct.numbers;
        o.of = of;
        o.role = role;
        o.type = type;
        o.buy = buy;
        o.quantity = quantity;
        o.price = price;
        o.wanted = price;
        o.reason = reason;
        o.sentAfter = at;
        o.sent = acct.event;
        o.accepted = acct.event + latency;
        o.closesBefore = of.bars.size();
        orders.add(o);
        return o;
    }

    private long far(boolean buy, P p) {
        return buy ? p.ask : p.bid;
    }

    private long worse(boolean buy, long a, long b) {
        return a == NONE ? b : buy ? Math.max(a, b) : Math.min(a, b);
    }

    private void meet(O o, P p, int[] room) {
        if (!o.alive() || o.sentAfter >= at || o.accepted > p.time) {
            return;
        }
        T trade = o.of.trade;
        int free = o.role.equals("entry")
                ? o.rest()
                : trade.lastEntryPrint == at ? trade.open() - trade.fresh : trade.open();
        if (o.type.equals("stop-limit") && (o.buy ? p.price >= o.price : p.price <= o.price)) {
            o.type = "limit";
            o.wasStop = true;
            o.price += o.buy ? o.beyond : -o.beyond;
        }
        if (o.type.equals("stop-limit")) {
            return;
        }
        if (o.type.equals("limit")) {
            boolean first = !o.metOne;
            o.metOne = true;
            boolean inside = o.buy ? p.price <= o.price : p.price >= o.price;
            long far = far(o.buy, p) == NONE ? last : far(o.buy, p);
            boolean passed = far != NONE && (o.buy ? far < o.price : far > o.price);
            int q = Math.min(o.rest(), free);
            if (!market.realism.equals("touch")) {
                q = Math.min(q, room[0]);
            }
            if (first) {
                o.ahead = queued(o, p);
            }
            if (!inside) {
                return;
            }
            if (market.barMode && q > 0 && o.role.equals("target") && stopStillReached(trade)
                    && (first && passed || market.realism.equals("touch") || p.price != o.price)) {
                stopCounted.add(walkedNumber);
                return;
            }
            if (first && passed) {
                take(o, q, worse(o.buy, far(o.buy, p), p.price), p, room);
            } else if (market.realism.equals("touch") || p.price != o.price) {
                o.ahead = 0;
                take(o, q, o.price, p, room);
            } else if (market.realism.equals("queue") && !market.barMode) {
                long behind = p.size - o.ahead;
                o.ahead = Math.max(0, o.ahead - p.size);
                take(o, (int) Math.min(q, behind), o.price, p, room);
            }
            return;
        }
        if (o.type.equals("stop") && !o.triggered) {
            if (o.buy ? p.price < o.price : p.price > o.price) {
                return;
            }
            o.triggered = true;
        }
        int q = o.role.equals("entry") ? o.rest() : o.all ? free : Math.min(free, o.rest());
        if (q == 0) {
            return;
        }
        if (o.all) {
            o.quantity = o.filled + trade.open();
        }
        long slip = o.buy ? market.slippage : -market.slippage;
        fill(o, q, worse(o.buy, far(o.buy, p), p.price) + slip, p.time);
    }

    private void take(O o, int q, long price, P p, int[] room) {
        if (q > 0) {
            room[0] -= q;
            queueTaken += market.barMode && market.realism.equals("queue") ? 1 : 0;
            fill(o, q, price, p.time);
        }
    }

    /** Contracts before a limit that now begins to rest. */
    private long queued(O o, P p) {
        long best = o.buy ? p.bid : p.ask;
        long size = o.buy ? p.bidSize : p.askSize;
        if (best != NONE && (o.buy ? o.price > best : o.price < best)) {
            return 0;
        }
        return best == o.price && size != NONE ? size : market.assumedAhead;
    }

    private void fill(O o, int q, long price, long time) {
        Trader t = o.of;
        o.filled += q;
        if (!filledNow && quietBefore != NONE
                && acct.markets.stream().allMatch(m -> m.traders.stream().allMatch(y -> y.held == 0))
                && (acct.path.isEmpty() || acct.path.getLast()[0] <= quietBefore)) {
            acct.path.add(new long[]{quietBefore, acct.equity()});
        }
        filledNow = true;
        everFilled = true;
        acct.fills.add(time + " " + t.index + " " + o.number + " " + (o.buy ? "buy " : "sell ") + q + " " + price + " "
                + o.reason);
        acct.balance -= q * market.fee;
        t.cash -= q * market.fee;
        if (o.role.equals("entry")) {
            t.heldCost += (o.buy ? q : -q) * price * market.tickValue;
            t.held += o.buy ? q : -q;
            t.entered(o, q, price, time);
            return;
        }
        // realised by average cost, rounded down
        long direction = t.held > 0 ? 1 : -1;
        long share = Math.ceilDiv(t.heldCost * q, Math.abs(t.held));
        acct.balance += direction * q * price * market.tickValue - share;
        t.cash += direction * q * price * market.tickValue - share;
        t.heldCost -= share;
        t.held -= direction * q;
        t.exited(o, q, price, time);
    }

    private static long gcd(long a, long b) {
        return b == 0 ? a : gcd(b, a % b);
    }
}
