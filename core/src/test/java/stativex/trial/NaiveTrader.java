package stativex.trial;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * A plain second reading of SEMANTICS for one strategy in tick mode, slow and without any class of the product: every
 * figure is worked out anew from the whole history whenever it is needed. The engine is held against it on random tapes.
 */
final class NaiveTrader {
    static final long NONE = Long.MIN_VALUE;

    /** One print. */
    record P(long time, long price, int size, long bid, long ask) {}

    record S(long open, long close, int day, boolean lastOfDay) {}

    record W(long from, long to, boolean flatten, boolean cancel, long lead) {}

    record Leg(int quantity, long ticks) {}

    record Trail(long activate, long distance, long step) {}

    /** Settings; 0 or NONE means off where that can be. */
    static final class Setup {
        int bars;
        String entry;
        long offset;
        int quantity;
        int goodForBars;
        int maximum;
        boolean adds;
        long stop;
        List<Leg> legs = new ArrayList<>();
        long breakevenAfter = NONE;
        long breakevenOffset;
        List<Trail> trail = new ArrayList<>();
        List<W> windows = new ArrayList<>();
        int tradesADay;
        boolean once;
        boolean touch;
        long latency;
        long slippage;
        long fee;
        long tickValue;
        long start;
        long dayLoss;
        boolean guard;
        long dayProfit;
        long allowance;
        long lockAt = NONE;
    }

    private static final class O {
        int number;
        String role;
        String type;
        boolean buy;
        int quantity;
        int filled;
        long price;
        /** The price asked for last; a change may be on its way. */
        long wanted;
        String reason;
        int sentAfter;
        long accepted;
        long dayClose = NONE;
        int bar;
        boolean dead;
        boolean metOne;
        boolean triggered;
        boolean all;
        int leg;
        T trade;

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
        long price;
        String reason;
        int sentAfter;
        long due;
    }

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
        long level = NONE;
        String origin;
        O stop;
        List<O> targets = new ArrayList<>();
        int[] allotted;
        boolean breakeven;
        /** Why a flatten was sent; what fills after it leaves for that reason. */
        String flattened = "";

        int open() {
            return entered - left;
        }
    }

    final List<String> fills = new ArrayList<>();
    final List<String> decisions = new ArrayList<>();
    private final Setup s;
    private final List<P> tape;
    private final List<S> sessions;
    private final List<O> orders = new ArrayList<>();
    private final List<Ask> asks = new ArrayList<>();
    private final List<List<Integer>> closedBars = new ArrayList<>();
    private List<Integer> forming = new ArrayList<>();
    private T trade;
    private int numbers;
    private int at = -1;
    private long now = NONE;
    private long last = NONE;
    private S session;
    private S firstTraded;
    private boolean incomplete;
    private int day = -1;
    private long balance;
    private long heldCost;
    private long held;
    private long peak;
    private long dayStart;
    private String lock = "";
    private boolean broken;
    private boolean windowFlat;
    private int tradesToday;
    private boolean longOn = true;
    private boolean shortOn = true;
    private long reached = NONE;

    NaiveTrader(Setup s, List<P> tape, List<S> sessions) {
        this.s = s;
        this.tape = tape;
        this.sessions = sessions;
        this.balance = s.start;
        this.peak = s.start;
        this.dayStart = s.start;
    }

    void run() {
        int heartbeat = 0;
        long end = tape.isEmpty() ? NONE : tape.getLast().time;
        for (int i = 0; i < tape.size(); i++) {
            while (heartbeat < sessions.size() && sessions.get(heartbeat).close <= tape.get(i).time) {
                if (sessions.get(heartbeat).close > tape.getFirst().time) {
                    now = sessions.get(heartbeat).close;
                    clock(now);
                }
                heartbeat++;
            }
            at = i;
            now = tape.get(i).time;
            clock(now);
            print(tape.get(i));
        }
        if (end != NONE) {
            if (trade != null && trade.open() > 0) {
                for (O o : orders) {
                    if (o.all && o.alive() && session != null && !mustBeFlat().isEmpty()) {
                        o.quantity = o.filled + trade.open();
                        o.reason = "assumed at session end";
                        fill(o, trade.open(), last + (o.buy ? s.slippage : -s.slippage), session.close);
                        break;
                    }
                }
            }
            if (trade != null && trade.open() > 0) {
                O o = send("leave", "market", trade.sign < 0, trade.open(), NONE, "open at end", 0);
                fill(o, trade.open(), last, now);
            }
        }
    }

    // ---------------------------------------------------------------- (0)

    private record Due(long time, int rank, Runnable what) {}

    private void clock(long until) {
        List<Due> due = new ArrayList<>();
        boolean begun = reached != NONE;
        for (S x : sessions) {
            if (x.close > reached && x.close <= until && (begun || x.close > until)) {
                due.add(new Due(x.close, 0, () -> closeSession(x)));
            }
            boolean opensNow = x.open > reached && x.open <= until;
            boolean running = begun || x.close > until;
            if (opensNow && running) {
                boolean firstOfDay = sessions.stream().noneMatch(y -> y.day == x.day && y.open < x.open);
                if (firstOfDay) {
                    due.add(new Due(x.open, 1, () -> beginDay(x.day)));
                }
                due.add(new Due(x.open, 3, () -> session = x));
            }
        }
        if (!begun) {
            // the first event inside a trading day begins that day
            for (S x : sessions) {
                if (x.close > until) {
                    S first = sessions.stream().filter(y -> y.day == x.day).findFirst().orElseThrow();
                    if (first.open < until) {
                        beginDay(x.day);
                    }
                    break;
                }
            }
            due.removeIf(d -> d.rank == 1 && d.time < until);
        }
        for (W w : merged()) {
            long acts = w.flatten ? Math.max(w.from, w.to - w.lead) : w.to;
            if (w.from > reached && w.from <= until && begun) {
                due.add(new Due(w.from, 2, () -> windowFlat = false));
            }
            if (acts > reached && acts <= until && (w.flatten || w.cancel) && begun) {
                due.add(new Due(acts, 2, () -> {
                    if (w.flatten) {
                        windowFlat = true;
                        flatten("window end");
                    } else {
                        cancelEntries();
                    }
                }));
            }
        }
        due.sort(Comparator.comparingLong(Due::time).thenComparingInt(Due::rank));
        reached = until;
        due.forEach(d -> d.what.run());
    }

    private void closeSession(S x) {
        if (trade != null && trade.open() > 0 && !mustBeFlat().isEmpty()) {
            for (O o : List.copyOf(orders)) {
                if (o.all && o.alive()) {
                    o.quantity = o.filled + trade.open();
                    o.reason = "assumed at session end";
                    fill(o, trade.open(), last + (o.buy ? s.slippage : -s.slippage), x.close);
                    break;
                }
            }
        }
        if (!forming.isEmpty()) {
            closedBars.add(forming);
            forming = new ArrayList<>();
            evaluate(true);
        }
        if (x.lastOfDay) {
            for (O o : orders) {
                if (o.role.equals("entry") && o.dayClose != NONE && o.dayClose <= x.close) {
                    o.dead = true;
                }
            }
            dropIfNothing();
        }
        session = null;
        if (firstTraded != null) {
            incomplete = false;
        }
    }

    private void beginDay(int d) {
        day = d;
        dayStart = equity();
        lock = "";
        tradesToday = 0;
    }

    private List<W> merged() {
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

    // ---------------------------------------------------------------- a print

    private void print(P p) {
        if (session == null) {
            return;
        }
        if (firstTraded == null) {
            firstTraded = session;
            incomplete = p.time - session.open > 60_000_000_000L;
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
                } else {
                    a.order.price = a.price;
                    a.order.reason = a.reason;
                    a.order.accepted = Math.max(a.order.accepted, a.due);
                    a.order.metOne = false;
                }
            }
        }
        dropIfNothing();
        // (2)
        int[] room = {p.size};
        List<O> meeting = new ArrayList<>(orders.stream().filter(O::alive).toList());
        meeting.sort(Comparator.<O>comparingLong(o -> o.accepted).thenComparingInt(o -> o.number));
        boolean exitsDone = false;
        for (O o : meeting) {
            if (o.role.equals("entry")) {
                meet(o, p, room);
            } else if (!exitsDone) {
                exitsDone = true;
                for (String kind : List.of("leave", "stop", "target")) {
                    for (O exit : meeting) {
                        if (exit.role.equals(kind)) {
                            meet(exit, p, room);
                        }
                    }
                }
            }
        }
        last = p.price;
        // (3)
        forming.add(at);
        if (forming.size() == s.bars) {
            closedBars.add(forming);
            forming = new ArrayList<>();
            evaluate(false);
        }
        // (4)
        if (trade != null && trade.open() > 0 && trade.firstPrint < at) {
            trade.seen.add(p.price);
            if (setLevel()) {
                sendLevel(p.price);
            }
        }
        if (trade != null && trade.open() > 0) {
            String why = mustBeFlat().isEmpty() ? trade.flattened : mustBeFlat();
            if (!why.isEmpty()) {
                flatten(why);
            }
        }
        // (5)
        judge();
    }

    private void judge() {
        long equity = equity();
        peak = Math.max(peak, equity);
        if (s.allowance > 0 && !broken && equity <= floor()) {
            broken = true;
            decisions.add(now + " locked drawdown floor " + last);
            flatten("drawdown floor");
            return;
        }
        if (broken || !lock.isEmpty()) {
            return;
        }
        long result = equity - dayStart;
        long closing = s.guard ? Math.abs(held) * (s.slippage * s.tickValue + s.fee) : 0;
        if (s.dayLoss > 0 && result - closing <= -s.dayLoss) {
            lock = "day loss";
        } else if (s.dayProfit > 0 && result >= s.dayProfit) {
            lock = "day profit";
        }
        if (!lock.isEmpty()) {
            decisions.add(now + " locked " + lock + " " + last);
            flatten(lock);
        }
    }

    private long floor() {
        long trailing = peak - s.allowance;
        return s.lockAt == NONE ? trailing : Math.min(trailing, s.lockAt);
    }

    private long equity() {
        return last == NONE ? balance : balance + held * last * s.tickValue - heldCost;
    }

    private String mustBeFlat() {
        return broken ? "drawdown floor" : !lock.isEmpty() ? lock : windowFlat ? "window end" : "";
    }

    private void flatten(String reason) {
        cancelEntries();
        if (trade != null) {
            trade.flattened = reason;
        }
        boolean sent = orders.stream().anyMatch(o -> o.all && o.alive());
        if (trade != null && trade.open() > 0 && !sent) {
            leave(reason);
        }
    }

    private void leave(String reason) {
        send("leave", "market", trade.sign < 0, trade.open(), NONE, reason, s.latency).all = true;
    }

    private void cancelEntries() {
        for (O o : orders) {
            if (o.role.equals("entry") && o.alive()) {
                ask(o, true, NONE, "");
            }
        }
    }

    private void ask(O o, boolean cancel, long price, String reason) {
        Ask a = new Ask();
        a.order = o;
        a.cancel = cancel;
        a.price = price;
        a.reason = reason;
        a.sentAfter = at;
        a.due = now + s.latency;
        asks.add(a);
    }

    private O send(String role, String type, boolean buy, int quantity, long price, String reason, long latency) {
        O o = new O();
        o.number = ++numbers;
        o.role = role;
        o.type = type;
        o.buy = buy;
        o.quantity = quantity;
        o.price = price;
        o.wanted = price;
        o.reason = reason;
        o.sentAfter = at;
        o.accepted = now + latency;
        o.bar = closedBars.size();
        o.trade = trade;
        orders.add(o);
        return o;
    }

    // ---------------------------------------------------------------- meeting

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
        int free = o.role.equals("entry")
                ? o.rest()
                : trade.lastEntryPrint == at ? trade.open() - trade.fresh : trade.open();
        if (o.type.equals("limit")) {
            boolean first = !o.metOne;
            o.metOne = true;
            boolean inside = o.buy ? p.price <= o.price : p.price >= o.price;
            long far = far(o.buy, p) == NONE ? last : far(o.buy, p);
            boolean passed = far != NONE && (o.buy ? far < o.price : far > o.price);
            int q = Math.min(o.rest(), free);
            if (!s.touch) {
                q = Math.min(q, room[0]);
            }
            if (!inside || q == 0) {
                return;
            }
            if (first && passed) {
                room[0] -= q;
                fill(o, q, worse(o.buy, far(o.buy, p), p.price), p.time);
            } else if (s.touch || p.price != o.price) {
                room[0] -= q;
                fill(o, q, o.price, p.time);
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
        long slip = o.buy ? s.slippage : -s.slippage;
        fill(o, q, worse(o.buy, far(o.buy, p), p.price) + slip, p.time);
    }

    private void fill(O o, int q, long price, long time) {
        o.filled += q;
        fills.add(time + " " + o.number + " " + (o.buy ? "buy " : "sell ") + q + " " + price + " " + o.reason);
        balance -= q * s.fee;
        if (o.role.equals("entry")) {
            heldCost += (o.buy ? q : -q) * price * s.tickValue;
            held += o.buy ? q : -q;
            entered(o, q, price);
            return;
        }
        // realised by average cost, rounded down
        long direction = held > 0 ? 1 : -1;
        long share = Math.ceilDiv(heldCost * q, Math.abs(held));
        balance += direction * q * price * s.tickValue - share;
        heldCost -= share;
        held -= direction * q;
        T t = trade;
        t.left += q;
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
            orders.stream().filter(x -> x.role.equals("entry")).forEach(x -> x.dead = true);
        }
        if (t.open() == 0) {
            orders.forEach(x -> x.dead = true);
            trade = null;
        }
    }

    private void entered(O o, int q, long price) {
        T t = trade;
        if (s.once) {
            if (t.sign > 0) {
                longOn = false;
            } else {
                shortOn = false;
            }
        }
        int openBefore = t.open();
        t.entered += q;
        t.fresh = t.lastEntryPrint == at ? t.fresh + q : q;
        t.lastEntryPrint = at;
        boolean moved = false;
        if (t.firstPrint < 0) {
            t.firstPrint = at;
            tradesToday++;
            t.costNumerator = price;
            t.costDenominator = 1;
            t.allotted = new int[s.legs.size()];
        } else {
            long n = t.costNumerator * openBefore + price * q * t.costDenominator;
            long d = t.costDenominator * (openBefore + q);
            moved = n * t.costDenominator != t.costNumerator * d;
            long g = gcd(Math.abs(n), d);
            t.costNumerator = n / g;
            t.costDenominator = d / g;
        }
        long was = t.level;
        if (t.firstPrint == at && was == NONE) {
            setLevel();
        } else {
            // a later fill: what the best now reaches is judged in step (4)
            tighten(t, stopPrice(t, -s.stop), "stop");
            if (t.breakeven) {
                tighten(t, stopPrice(t, s.breakevenOffset), "breakeven");
            }
        }
        if (t.stop == null) {
            t.stop = send("stop", "stop", t.sign < 0, t.open(), t.level, t.origin, 0);
        } else {
            t.stop.quantity = t.stop.filled + t.open();
            if (t.level != was) {
                ask(t.stop, false, t.level, t.origin);
            }
        }
        long p = tape.get(at).price;
        boolean beyond = t.sign > 0 ? t.level > p : t.level < p;
        boolean leaving = orders.stream().anyMatch(x -> x.all && x.alive()) || t.stop.triggered && t.stop.alive();
        if (t.level != was && beyond && !leaving) {
            leave("stop at market");
        }
        allot(t, q, moved);
    }

    private void allot(T t, int q, boolean moved) {
        for (int i = 0; i < s.legs.size(); i++) {
            Leg leg = s.legs.get(i);
            int give = Math.max(0, Math.min(q, leg.quantity - t.allotted[i]));
            q -= give;
            boolean lastLeg = i == s.legs.size() - 1;
            int extra = lastLeg ? q : 0;
            if (give + extra > 0) {
                t.allotted[i] += give + extra;
                offer(t, i, give + extra);
            }
            if (moved) {
                for (O o : t.targets) {
                    if (o.leg == i && o.alive() && o.wanted != targetPrice(t, leg.ticks)) {
                        o.wanted = targetPrice(t, leg.ticks);
                        ask(o, false, targetPrice(t, leg.ticks), "target " + (i + 1));
                    }
                }
            }
        }
    }

    private void offer(T t, int leg, int q) {
        for (O o : t.targets) {
            if (o.leg == leg && o.alive()) {
                o.quantity += q;
                return;
            }
        }
        O o = send("target", "limit", t.sign < 0, q, targetPrice(t, s.legs.get(leg).ticks), "target " + (leg + 1), 0);
        o.leg = leg;
        t.targets.add(o);
    }

    private static long gcd(long a, long b) {
        return b == 0 ? a : gcd(b, a % b);
    }

    private long targetPrice(T t, long ticks) {
        return t.sign > 0
                ? Math.ceilDiv(t.costNumerator, t.costDenominator) + ticks
                : Math.floorDiv(t.costNumerator, t.costDenominator) - ticks;
    }

    // ---------------------------------------------------------------- the stop

    private long stopPrice(T t, long distance) {
        return t.sign > 0
                ? Math.floorDiv(t.costNumerator, t.costDenominator) + distance
                : Math.ceilDiv(t.costNumerator, t.costDenominator) - distance;
    }

    /** best − x, times the denominator; best is 0 or the furthest print in favour. */
    private long bestOver(T t) {
        long best = 0;
        for (long p : t.seen) {
            best = Math.max(best, t.sign * (p * t.costDenominator - t.costNumerator));
        }
        return best;
    }

    private boolean setLevel() {
        T t = trade;
        long before = t.level;
        tighten(t, stopPrice(t, -s.stop), "stop");
        long best = bestOver(t);
        long d = t.costDenominator;
        if (s.breakevenAfter != NONE && (t.breakeven || best >= s.breakevenAfter * d)) {
            t.breakeven = true;
            tighten(t, stopPrice(t, s.breakevenOffset), "breakeven");
        }
        Trail active = null;
        for (Trail x : s.trail) {
            if (best >= x.activate * d && (active == null || x.activate > active.activate)) {
                active = x;
            }
        }
        if (active != null) {
            long steps = Math.floorDiv(best - active.activate * d, active.step * d);
            tighten(t, stopPrice(t, active.activate - active.distance + active.step * steps), "trail");
        }
        return t.level != before;
    }

    private void tighten(T t, long price, String origin) {
        if (t.level == NONE || (t.sign > 0 ? price > t.level : price < t.level)) {
            t.level = price;
            t.origin = origin;
        }
    }

    private void sendLevel(long p) {
        T t = trade;
        if (t.sign > 0 ? p <= t.level : p >= t.level) {
            boolean leaving = orders.stream().anyMatch(x -> x.all && x.alive()) || t.stop.triggered && t.stop.alive();
            if (!leaving) {
                leave("stop at market");
            }
        } else if (t.stop.alive()) {
            ask(t.stop, false, t.level, t.origin);
        }
    }

    // ---------------------------------------------------------------- signals

    private void evaluate(boolean sessionCloses) {
        List<Integer> bar = closedBars.getLast();
        for (O o : orders) {
            if (o.role.equals("entry") && s.goodForBars > 0 && closedBars.size() - o.bar >= s.goodForBars) {
                o.dead = true;
            }
        }
        dropIfNothing();
        long open = tape.get(bar.getFirst()).price;
        long close = tape.get(bar.getLast()).price;
        if (close > open) {
            signal(1, close, sessionCloses);
        }
        if (close < open) {
            signal(-1, close, sessionCloses);
        }
    }

    private void signal(int sign, long close, boolean sessionCloses) {
        long price = s.entry.equals("market")
                ? NONE
                : s.entry.equals("limit")
                        ? close - sign * s.offset
                        : close + sign * s.offset;
        String side = sign > 0 ? "long" : "short";
        String why = refusal(sign, price, sessionCloses);
        if (!why.isEmpty()) {
            decisions.add(now + " " + side + " declined " + why + " " + last);
            return;
        }
        decisions.add(now + " " + side + " taken  " + (price == NONE ? last : price));
        if (trade == null) {
            trade = new T();
            trade.sign = sign;
        }
        O o = send("entry", s.entry, sign > 0, s.quantity, price, "entry", s.latency);
        if (s.goodForBars == 0) {
            S end = null;
            for (S x : sessions) {
                if (x.lastOfDay && o.accepted < x.close && end == null) {
                    end = x;
                }
            }
            S first = end == null ? null : firstOf(end.day);
            boolean dayOver = first == null || o.accepted < first.open;
            if (dayOver) {
                o.dead = true;
                decisions.add(now + " " + side + " rejected after the days close "
                        + (price == NONE ? last : price));
                dropIfNothing();
            } else {
                o.dayClose = end.close;
            }
        }
    }

    private S firstOf(int d) {
        return sessions.stream().filter(y -> y.day == d).findFirst().orElseThrow();
    }

    private int resting() {
        return orders.stream().filter(o -> o.role.equals("entry") && o.alive()).mapToInt(O::rest).sum();
    }

    private void dropIfNothing() {
        if (trade != null && trade.open() == 0 && resting() == 0) {
            trade = null;
        }
    }

    private String refusal(int sign, long price, boolean sessionCloses) {
        if (!(sign > 0 ? longOn : shortOn)) {
            return "side off";
        }
        if (incomplete) {
            return "session incomplete";
        }
        if (sessionCloses) {
            return "session closed";
        }
        if (!lock.isEmpty()) {
            return "locked";
        }
        if (broken) {
            return "broken";
        }
        if (!s.windows.isEmpty()) {
            boolean inside = merged().stream()
                    .anyMatch(w -> w.from <= now && now < (w.flatten ? Math.max(w.from, w.to - w.lead) : w.to));
            if (!inside) {
                return "outside window";
            }
        }
        boolean opens = trade == null || trade.entered == 0;
        if (opens && s.tradesADay > 0 && tradesToday + (trade == null ? 0 : 1) >= s.tradesADay) {
            return "trades a day";
        }
        if (trade != null) {
            if (trade.sign != sign) {
                return "opposite position";
            }
            boolean leaving = orders.stream().anyMatch(x -> x.all && x.alive())
                    || trade.stop != null && trade.stop.triggered && trade.stop.alive();
            if (leaving) {
                return "leaving";
            }
            if (!s.adds) {
                return "adds not allowed";
            }
        }
        int size = (trade == null ? 0 : trade.open()) + resting() + s.quantity;
        if (size > s.maximum) {
            return "position limit";
        }
        long worst = equity();
        long exit = s.slippage * s.tickValue + s.fee;
        if (trade != null && trade.open() > 0) {
            long away = Math.max(0, trade.sign * (last - trade.stop.price));
            worst -= trade.open() * (away * s.tickValue + exit);
        }
        for (O o : orders) {
            if (o.role.equals("entry") && o.alive()) {
                worst -= o.rest() * (risk(trade.sign, o.type, o.price) * s.tickValue + exit + s.fee);
            }
        }
        worst -= s.quantity * (risk(sign, s.entry, price) * s.tickValue + exit + s.fee);
        long floorNow = Math.max(peak, equity()) - s.allowance;
        if (s.lockAt != NONE) {
            floorNow = Math.min(floorNow, s.lockAt);
        }
        if (s.dayLoss > 0 && worst <= dayStart - s.dayLoss || s.allowance > 0 && worst <= floorNow) {
            return "line check";
        }
        return "";
    }

    private long risk(int sign, String type, long price) {
        if (trade == null || trade.open() == 0) {
            // the initial stop: the tighter of the plan's and of a trail from the start
            return Math.min(s.stop,
                    s.trail.stream().filter(x -> x.activate == 0).mapToLong(Trail::distance).min().orElse(s.stop));
        }
        long far = far(sign > 0, tape.get(at));
        long entry = switch (type) {
            case "limit" -> price;
            case "stop" -> price + sign * s.slippage;
            default -> (far == NONE ? last : far) + sign * s.slippage;
        };
        return Math.max(0, sign * (entry - trade.stop.price));
    }
}
