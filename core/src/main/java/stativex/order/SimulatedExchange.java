package stativex.order;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import stativex.market.Bounds;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.market.TapeTime;

/**
 * The exchange of trials, replays and simulated accounts, working prints one by one (tick mode). No look-ahead: an order
 * meets the print after the event that caused it at the earliest, and only prints not timed before its acceptance. A print
 * is worked by {@link #print} and then by asking for {@link #next} reports until there is none; each is to be applied before
 * the next one is asked for, and what is asked meanwhile meets later prints. Source: SEMANTICS, "Orders and the simulated
 * exchange".
 */
public final class SimulatedExchange implements Counterpart {
    private static final Comparator<Resting> BY_ACCEPTANCE = Comparator.<Resting>comparingLong(r -> r.accepted)
            .thenComparingInt(r -> r.order.number());

    /** An order as the exchange has it. */
    private static final class Resting {
        final Order order;
        final long expires;
        long accepted;
        /** A limit that has met a print already; before that the market may have passed it. */
        boolean met;
        /** Contracts before it in the queue. */
        long ahead;

        Resting(Order order, long accepted, long expires) {
            this.order = order;
            this.accepted = accepted;
            this.expires = expires;
        }
    }

    /** A change or cancellation on its way: it acts when due, on a print after the event that caused it. */
    private record Waiting(Request request, long due) {}

    private static final FillReason RANGE_END = new FillReason.Left(LeaveReason.RANGE_END);

    private final Tape tape;
    private final Contract contract;
    private final Terms terms;
    private final Optional<InsideBars> bars;
    private final List<Resting> working = new ArrayList<>();
    private final List<Resting> arrivals = new ArrayList<>();
    private final List<Waiting> waiting = new ArrayList<>();
    private final ArrayDeque<Report> reports = new ArrayDeque<>();
    /** Orders whose turn it is: the exits of one bracket. */
    private final ArrayDeque<Resting> turns = new ArrayDeque<>();
    private final List<Bracket> met = new ArrayList<>();
    private Stage stage = Stage.IDLE;
    private int place;
    private boolean moved;
    private int print = -1;
    private long time;
    private long price;
    private long lastPrice = Tape.NONE;
    private long limitRoom;
    private int largerThanPrint;

    private enum Stage {
        IDLE, REQUESTS, ORDERS
    }

    /** @param bars in bar mode, of whose steps the tape is made */
    public SimulatedExchange(Tape tape, Contract contract, Terms terms, Optional<InsideBars> bars) {
        this.tape = tape;
        this.contract = contract;
        this.terms = terms;
        this.bars = bars;
    }

    @Override
    public boolean endsAtOnce() {
        return true;
    }

    @Override
    public long lastPrice() {
        return lastPrice;
    }

    // ------------------------------------------------------------------ what is asked

    @Override
    public void take(Request request) {
        long due = Math.addExact(request.cause().time(), terms.latency());
        switch (request) {
            case Request.New n -> {
                boolean attached = n.order().role() == Order.Role.STOP || n.order().role() == Order.Role.TARGET;
                // the range's end waits for nobody: there is one print left to meet
                boolean atOnce = attached || n.order().reason().equals(RANGE_END);
                arrive(n.order(), atOnce ? n.cause().time() : due);
            }
            case Request.Change c -> waiting.add(new Waiting(c, due));
            case Request.Cancel c when c.atOnce() -> {
                // it has ended already
            }
            case Request.Cancel c -> waiting.add(new Waiting(c, due));
            case Request.Resize ignored -> {
                // the order says so itself
            }
            case Request.ToMarket m -> waiting.add(new Waiting(m, due));
        }
    }

    private void arrive(Order order, long accepted) {
        Optional<Long> expires = order.goodFor() == Order.GoodFor.DAY
                ? dayClose(accepted)
                : Optional.of(TapeTime.NEVER);
        if (expires.isEmpty()) {
            reports.add(new Report.Rejected(order, RejectReason.AFTER_THE_DAYS_CLOSE));
            return;
        }
        if (order.type() == Order.Type.STOP_LIMIT && order.beyond() < 0) {
            reports.add(new Report.Rejected(order, RejectReason.LIMIT_TIGHTER_THAN_ITS_STOP));
            return;
        }
        Resting resting = new Resting(order, accepted, expires.get());
        if (stage == Stage.ORDERS) {
            arrivals.add(resting);
        } else {
            insert(resting);
        }
    }

    private void insert(Resting resting) {
        int at = working.size();
        while (at > 0 && working.get(at - 1).accepted > resting.accepted) {
            at--;
        }
        working.add(at, resting);
    }

    /** The last session's close of the trading day that contains {@code time}; empty when that is over. */
    private Optional<Long> dayClose(long time) {
        return contract.calendar().tradingDate(time)
                .map(date -> contract.calendar().sessions(date).getLast()).map(Session::close).filter(c -> time < c);
    }

    // ------------------------------------------------------------------ a print

    /** Begins to work a print that lies in a session. */
    @Override
    public void print(int index) {
        print = index;
        time = tape.time(index);
        price = tape.price(index);
        if (bars.isEmpty() || bars.get().begins(index)) {
            limitRoom = -1;
        }
        stage = Stage.REQUESTS;
        place = 0;
        moved = false;
    }

    /** The next report: of the print that is worked, or of what was refused at once; empty when there is none. */
    @Override
    public Optional<Report> next() {
        while (reports.isEmpty() && stage != Stage.IDLE) {
            if (stage == Stage.REQUESTS) {
                nextRequest();
            } else {
                nextOrder();
            }
        }
        return Optional.ofNullable(reports.poll());
    }

    /** (1) Changes and cancellations now due, in order of asking; an order that has ended or triggered is left alone. */
    private void nextRequest() {
        while (place < waiting.size()) {
            Waiting next = waiting.get(place);
            if (next.request().cause().print() >= print || next.due() > time) {
                place++;
                continue;
            }
            waiting.remove(place);
            Order order = next.request().order();
            boolean late = next.request() instanceof Request.Change
                    && (order.type() == Order.Type.MARKET || order.reached());
            if (order.state().live() && !order.triggered() && !late) {
                reports.add(accept(next.request(), next.due()));
                return;
            }
        }
        working.removeIf(resting -> !resting.order.state().live());
        if (moved) {
            working.sort(BY_ACCEPTANCE);
        }
        met.clear();
        place = 0;
        stage = Stage.ORDERS;
    }

    private Report accept(Request request, long due) {
        return switch (request) {
            case Request.ToMarket turn -> {
                acceptedAnew(turn.order(), due);
                yield new Report.Turned(turn.order());
            }
            case Request.Change change -> {
                acceptedAnew(change.order(), due);
                yield new Report.Changed(change.order(), change.price(), change.reason());
            }
            case Request.Cancel cancel -> new Report.Ended(cancel.order());
            case Request.New ignored -> throw new IllegalStateException("a new order does not wait to be changed");
            case Request.Resize ignored -> throw new IllegalStateException("another quantity waits for nothing");
        };
    }

    private void acceptedAnew(Order order, long due) {
        Resting resting = null;
        for (int i = 0; resting == null && i < working.size(); i++) {
            resting = working.get(i).order == order ? working.get(i) : null;
        }
        if (resting == null) {
            throw new IllegalStateException("an order that is changed works: " + order.number());
        }
        resting.accepted = Math.max(resting.accepted, due);
        resting.met = false;
        moved = true;
    }

    /** (2) Each working order in order of acceptance, all exits of a bracket in the place of the first of them. */
    private void nextOrder() {
        if (!turns.isEmpty()) {
            meet(turns.poll());
            return;
        }
        if (place < working.size()) {
            Resting resting = working.get(place);
            if (resting.order.role() == Order.Role.ENTRY) {
                meet(resting);
            } else if (!met.contains(resting.order.bracket())) {
                met.add(resting.order.bracket());
                takeTurns(resting.order.bracket());
            }
            place++;
            return;
        }
        stage = Stage.IDLE;
        lastPrice = price;
        working.removeIf(resting -> !resting.order.state().live());
        arrivals.forEach(this::insert);
        arrivals.clear();
    }

    private void takeTurns(Bracket bracket) {
        for (Order.Role role : new Order.Role[]{Order.Role.LEAVE, Order.Role.STOP, Order.Role.TARGET}) {
            for (int i = place; i < working.size(); i++) {
                Resting exit = working.get(i);
                if (exit.order.bracket() == bracket && exit.order.role() == role) {
                    turns.add(exit);
                }
            }
        }
    }

    private void meet(Resting resting) {
        Order order = resting.order;
        if (!order.state().live() || order.cause().print() >= print || resting.accepted > time) {
            return;
        }
        if (order.state() == Order.State.PENDING) {
            reports.add(new Report.Accepted(order));
        }
        switch (order.type()) {
            case MARKET -> fillAtMarket(order);
            case STOP -> {
                boolean reached = order.buy() ? price >= order.price() : price <= order.price();
                if (reached && !order.triggered()) {
                    reports.add(new Report.Triggered(order));
                }
                if (reached || order.triggered()) {
                    fillAtMarket(order);
                }
            }
            case STOP_LIMIT -> {
                if (order.buy() ? price >= order.price() : price <= order.price()) {
                    reports.add(new Report.Triggered(order));
                    meetLimit(resting);
                }
            }
            case LIMIT -> meetLimit(resting);
        }
    }

    private void fillAtMarket(Order order) {
        int quantity = order.rest();
        if (order.role() != Order.Role.ENTRY) {
            int free = order.bracket().free(print);
            quantity = order.everything() ? free : Math.min(quantity, free);
        }
        if (quantity == 0) {
            return;
        }
        if (quantity > tape.size(print)) {
            largerThanPrint++;
        }
        long worse = worse(order.buy(), worseOf(order.buy(), quote(order.buy()), price), contract.slippage());
        fill(order, quantity, worse, contract.slippage());
    }

    private void meetLimit(Resting resting) {
        Order order = resting.order;
        long limit = order.limit();
        boolean buy = order.buy();
        boolean first = !resting.met;
        if (first) {
            resting.met = true;
            resting.ahead = ahead(buy, limit);
        }
        boolean atOrInside = buy ? price <= limit : price >= limit;
        if (!atOrInside) {
            return;
        }
        if (limitRoom < 0) {
            limitRoom = tape.size(print);
        }
        int quantity = order.role() == Order.Role.TARGET
                ? Math.min(order.rest(), order.bracket().free(print))
                : order.rest();
        boolean touch = terms.fillsAs(Realism.TOUCH);
        if (!touch) {
            quantity = (int) Math.min(quantity, limitRoom);
        }
        boolean passed = first && passed(buy, limit);
        if (quantity > 0 && (passed || touch || price != limit) && stopCounts(order)) {
            return;
        }
        if (passed) {
            take(order, quantity, worseOf(buy, quote(buy), price));
        } else if (touch || price != limit) {
            resting.ahead = 0;
            take(order, quantity, limit);
        } else if (terms.fillsAs(Realism.QUEUE)) {
            long behind = Math.max(0, tape.size(print) - resting.ahead);
            resting.ahead = Math.max(0, resting.ahead - tape.size(print));
            take(order, (int) Math.min(quantity, behind), limit);
        }
    }

    /** Whether a target may not fill inside a bar since that still comes to the trade's stop. */
    private boolean stopCounts(Order order) {
        return bars.isPresent() && order.role() == Order.Role.TARGET
                && bars.get().stopCounts(order.bracket(), print);
    }

    /** Contracts before a limit that begins to rest: those at the best quote of its side that it joins, none where it betters that. */
    private long ahead(boolean buy, long limit) {
        long best = quote(!buy);
        if (best != Tape.NONE && (buy ? limit > best : limit < best)) {
            return 0;
        }
        long there = buy ? tape.bidSize(print) : tape.askSize(print);
        return best == limit && there != Tape.NONE ? there : terms.assumedAhead();
    }

    private void take(Order order, int quantity, long at) {
        if (quantity > 0) {
            limitRoom = Math.max(0, limitRoom - quantity);
            if (bars.isPresent()) {
                bars.get().limitFilled();
            }
            fill(order, quantity, at, 0);
        }
    }

    /** Whether the market stood beyond the limit already: far quote, without one the print before, strictly inside. */
    private boolean passed(boolean buy, long limit) {
        long far = quote(buy);
        if (far == Tape.NONE) {
            far = lastPrice;
        }
        return far != Tape.NONE && (buy ? far < limit : far > limit);
    }

    private void fill(Order order, int quantity, long at, long slippage) {
        reports.add(new Report.Filled(order, new Report.Execution(time, print, quantity, at, slippage),
                order.reason()));
    }

    // ------------------------------------------------------------------ what happens without a print

    /** What is good for the day ends at its last session's close, without latency. */
    @Override
    public void closeDay(long close) {
        for (Resting resting : working) {
            if (resting.expires <= close && resting.order.state().live()) {
                reports.add(new Report.Ended(resting.order));
            }
        }
    }

    /** A new month comes into force: the print before is its own. Nothing works then. */
    @Override
    public void rollsTo(long before) {
        lastPrice = before;
    }

    /** An order ends as the exchange's own doing: its bars are over. */
    @Override
    public void expire(Order order) {
        reports.add(new Report.Ended(order));
    }

    /**
     * Fills what a flatten still wants when no print followed before its session's end: at the session's last price plus
     * slippage, at the session's close.
     */
    @Override
    public void assume(Bracket bracket, long close) {
        bracket.leaves().stream().filter(leave -> leave.everything() && leave.state().live()).findFirst()
                .filter(leave -> bracket.open() > 0)
                .ifPresent(leave -> reports.add(new Report.Filled(leave,
                        new Report.Execution(close, print, bracket.open(),
                                worse(leave.buy(), lastPrice, contract.slippage()), contract.slippage()),
                        new FillReason.Left(LeaveReason.ASSUMED_AT_SESSION_END))));
    }

    @Override
    public void book(Order order, long price, long now) {
        throw new IllegalStateException("nothing is traded elsewhere in a trial");
    }

    /** Fills a leave at the tape's end: at the last price, without slippage. */
    @Override
    public void closeAtEnd(Order leave, long now) {
        reports.add(new Report.Filled(leave,
                new Report.Execution(now, print, leave.bracket().open(), lastPrice, 0), leave.reason()));
    }

    // ------------------------------------------------------------------ what stands

    /** What is assumed inside bars; empty in tick mode. */
    @Override
    public Optional<InsideBars> insideBars() {
        return bars;
    }

    /** Market and triggered stop orders that were larger than the print they met; slippage alone stands for depth. */
    @Override
    public int largerThanPrint() {
        return largerThanPrint;
    }

    /** Every order that is alive, in order of acceptance. */
    @Override
    public List<Order> working() {
        return working.stream().map(resting -> resting.order).filter(order -> order.state().live()).toList();
    }

    /** Draws bounds to the prints before which, and the prices between which, no order has anything to do. */
    @Override
    public void bound(Bounds bounds) {
        for (int i = 0; i < waiting.size(); i++) {
            bounds.print(eligible(waiting.get(i).request().cause(), waiting.get(i).due()));
        }
        for (int i = 0; i < working.size(); i++) {
            bound(working.get(i), bounds);
        }
    }

    private void bound(Resting resting, Bounds bounds) {
        Order order = resting.order;
        boolean settled = order.state() != Order.State.PENDING && !order.triggered();
        if (!order.state().live()) {
            return;
        }
        if (!settled || order.type() == Order.Type.MARKET || order.type() == Order.Type.LIMIT && !resting.met) {
            bounds.print(eligible(order.cause(), resting.accepted));
        } else if (order.buy() == (order.type() != Order.Type.LIMIT)) {
            bounds.up(order.price());
        } else {
            bounds.down(order.price());
        }
    }

    /** The first print that something caused then may meet. */
    private int eligible(Cause cause, long accepted) {
        return Math.max(cause.print() + 1, accepted <= time ? 0 : tape.firstAt(accepted));
    }

    /** Takes prints that no order had anything to do with; the last of them is {@code index}. */
    @Override
    public void quiet(int index) {
        print = index;
        time = tape.time(index);
        price = tape.price(index);
        lastPrice = price;
    }

    /** Far quote: the ask for a buyer, the bid for a seller. */
    private long quote(boolean buy) {
        return buy ? tape.ask(print) : tape.bid(print);
    }

    private static long worseOf(boolean buy, long quote, long price) {
        if (quote == Tape.NONE) {
            return price;
        }
        return buy ? Math.max(quote, price) : Math.min(quote, price);
    }

    private static long worse(boolean buy, long price, long ticks) {
        return buy ? Math.addExact(price, ticks) : Math.subtractExact(price, ticks);
    }
}
