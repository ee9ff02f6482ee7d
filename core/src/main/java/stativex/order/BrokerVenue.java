package stativex.order;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import stativex.market.Bounds;
import stativex.market.Tape;

/**
 * A broker of the kind <em>group</em>, as the engine meets it: what is asked goes out as named messages, what the broker tells comes in and
 * becomes reports. The broker reduces and ends the orders of a bracket itself; {@link Orders} does the same here meanwhile. Nothing is
 * assumed: an order works, changes and ends when the broker says so. Deterministic: the same inputs give the same messages with the same
 * names. Source: SEMANTICS, "Live".
 */
public final class BrokerVenue implements Counterpart {
    private final Tape tape;
    private final String run;
    private final Map<String, Placed> orders = new HashMap<>();
    private final Map<Order, String> names = new IdentityHashMap<>();
    private final Map<Bracket, String> groups = new IdentityHashMap<>();
    /** Changes that are not answered, by the name of their message. */
    private final Map<String, Request> unanswered = new HashMap<>();
    /** Orders that were placed and of which the broker has told nothing yet, in order. */
    private final Set<String> unheard = new LinkedHashSet<>();
    /** Orders that are to be cancelled, as far as the broker has not answered; whether at once. */
    private final Map<String, Boolean> cancelling = new LinkedHashMap<>();
    /** Orders whose quantity was changed, as far as the broker has not filled or ended them. */
    private final Set<String> resized = new LinkedHashSet<>();
    private final Map<String, Execution> executions = new HashMap<>();
    /** Those of orders that nobody here sent. */
    private final Map<String, FromBroker.Elsewhere> others = new HashMap<>();
    /** What of each order is filled under its name. */
    private final Map<String, Sum> sums = new HashMap<>();
    private final List<Order> sent = new ArrayList<>();
    private long now;
    private final List<ToBroker> outgoing = new ArrayList<>();
    private final ArrayDeque<FromBroker> incoming = new ArrayDeque<>();
    private final List<FromBroker> withPrint = new ArrayList<>();
    private final ArrayDeque<Report> own = new ArrayDeque<>();
    /** Targets that the broker filled before it heard that they were to be more. */
    private final List<Order> again = new ArrayList<>();
    private final List<String> contradictions = new ArrayList<>();
    private int named;
    private int print = -1;
    private long lastPrice = Tape.NONE;
    private boolean arriving;

    /**
     * An order as it was placed under one name.
     *
     * @param before contracts that were filled under earlier names
     * @param price limit or stop, ticks; {@link Tape#NONE} at the market
     */
    private record Placed(Order order, int before, long price) {}

    /** A fill as it was told. */
    private record Execution(int quantity, long price) {}

    /** @param prices of so many contracts together, ticks; {@code fromStatus} those of them of which only a status tells */
    private record Sum(int contracts, long prices, int fromStatus) {
        static final Sum NONE = new Sum(0, 0, 0);

        Sum and(int more, long price) {
            return new Sum(contracts + more, prices + more * price, fromStatus);
        }

        /** A report has told of some that were known from a status. */
        Sum told(int of) {
            return new Sum(contracts, prices, Math.max(0, fromStatus - of));
        }
    }

    /**
     * @param tape of its contract, which may grow
     * @param run what every name begins with, unlike that of any other run
     */
    public BrokerVenue(Tape tape, String run) {
        this.tape = tape;
        this.run = run;
    }

    // ------------------------------------------------------------------ what is asked

    @Override
    public void take(Request request) {
        Order order = request.order();
        long time = request.cause().time();
        now = time;
        switch (request) {
            case Request.New ignored -> {
                sent.add(order);
                place(order, time);
            }
            case Request.Change change -> outgoing
                    .add(new ToBroker.Reprice(remember(request), names.get(order), change.price(), time));
            case Request.ToMarket ignored -> outgoing
                    .add(new ToBroker.AtMarket(remember(request), names.get(order), time));
            case Request.Resize resize -> {
                resized.add(names.get(order));
                outgoing.add(new ToBroker.Resize(name(), names.get(order), resize.quantity(), time));
            }
            case Request.Cancel cancel -> cancel(cancel, time);
        }
    }

    /** What was not sent yet never is, and has ended. */
    private void cancel(Request.Cancel cancel, long time) {
        String name = names.get(cancel.order());
        if (cancel.atOnce() && outgoing.removeIf(
                message -> message instanceof ToBroker.Place && message.name().equals(name))) {
            unheard.remove(name);
            own.add(new Report.Ended(cancel.order()));
        } else {
            cancelling.merge(name, cancel.atOnce(), Boolean::logicalOr);
            outgoing.add(new ToBroker.Cancel(name(), name, cancel.atOnce(), time));
        }
    }

    private void place(Order order, long time) {
        String name = name();
        names.put(order, name);
        orders.put(name, new Placed(order, order.filled(), order.wanted()));
        send(order, name, time);
    }

    private void send(Order order, String name, long time) {
        unheard.add(name);
        outgoing.add(new ToBroker.Place(name,
                new ToBroker.Ticket(order.buy(), order.type(), order.rest(), order.wanted(), order.beyond(),
                        order.goodFor(), order.role(), order.everything()),
                groups.computeIfAbsent(order.bracket(), bracket -> name),
                order.bracket().pair().map(groups::get).orElse(""), time));
    }

    private String name() {
        return run + "-" + ++named;
    }

    private String remember(Request request) {
        String name = name();
        unanswered.put(name, request);
        return name;
    }

    @Override
    public void afresh(Bracket bracket) {
        groups.remove(bracket);
    }

    /** What is to be sent since it was last asked for, in order. */
    public List<ToBroker> outgoing() {
        List<ToBroker> out = List.copyOf(outgoing);
        outgoing.clear();
        return out;
    }

    // ------------------------------------------------------------------ what is told

    /** Takes what the broker tells; it is reported as soon as the engine asks. */
    public void receive(FromBroker told) {
        incoming.add(told);
    }

    /** Takes what the broker tells of the print that comes next: it is reported when that one meets orders, not before. */
    public void receiveWithPrint(FromBroker told) {
        withPrint.add(told);
    }

    @Override
    public Optional<Report> next() {
        if (!own.isEmpty()) {
            return Optional.of(own.poll());
        }
        while (!incoming.isEmpty()) {
            Optional<Report> report = report(incoming.poll());
            if (report.isPresent()) {
                return report;
            }
        }
        again.forEach(order -> {
            if (order.state().live()) {
                place(order, now);
            }
        });
        again.clear();
        if (arriving) {
            arriving = false;
            lastPrice = tape.price(print);
        }
        return Optional.empty();
    }

    private Optional<Report> report(FromBroker told) {
        Placed placed = orders.get(told.order());
        if (placed == null) {
            contradictions.add("an order that nobody here sent: " + told);
            return Optional.empty();
        }
        Order order = placed.order();
        heard(told);
        return switch (told) {
            case FromBroker.Status status -> status(order, status);
            case FromBroker.Corrected corrected -> corrected(order, corrected);
            case FromBroker.Elsewhere elsewhere -> throw new IllegalArgumentException("nobody's here: " + elsewhere);
            case FromBroker.Foreign foreign -> throw new IllegalArgumentException("nobody's here: " + foreign);
            case FromBroker.Known ignored -> Optional.empty();
            case FromBroker.Received ignored -> Optional.empty();
            case FromBroker.NeverAccepted ignored -> neverAccepted(order, told.order());
            case FromBroker.Working ignored when order.state() == Order.State.PENDING -> Optional
                    .of(new Report.Accepted(order));
            case FromBroker.Working ignored -> order.state().live() && order.price() != placed.price()
                    ? Optional.of(new Report.Changed(order, placed.price(), order.reason()))
                    : Optional.empty();
            case FromBroker.Repriced repriced -> Optional.of(new Report.Changed(order, repriced.price(),
                    unanswered.remove(repriced.request()) instanceof Request.Change change
                            ? change.reason()
                            : order.reason()));
            case FromBroker.Turned turned -> {
                unanswered.remove(turned.request());
                yield Optional.of(new Report.Turned(order));
            }
            case FromBroker.Triggered ignored -> Optional.of(new Report.Triggered(order));
            case FromBroker.Filled filled -> filled(placed, filled);
            case FromBroker.Ended ignored -> order.state().live()
                    ? Optional.of(new Report.Ended(order))
                    : Optional.empty();
            case FromBroker.Refused ignored -> Optional.of(new Report.Rejected(order, RejectReason.BY_THE_BROKER));
            case FromBroker.NotChanged not -> {
                unanswered.remove(not.request());
                yield Optional.empty();
            }
        };
    }

    private void heard(FromBroker told) {
        if (!(told instanceof FromBroker.NotChanged)) {
            // whoever refuses to change an order may just not have it
            unheard.remove(told.order());
        }
        boolean over = told instanceof FromBroker.Ended || told instanceof FromBroker.Refused
                || told instanceof FromBroker.Filled filled && filled.done()
                || told instanceof FromBroker.Status status && status.over();
        if (over) {
            cancelling.remove(told.order());
            resized.remove(told.order());
        }
    }

    /** An entry is not sent again; an exit is, under the same name, for what is still open. */
    private Optional<Report> neverAccepted(Order order, String name) {
        if (!order.state().live()) {
            return Optional.empty();
        }
        if (order.role() == Order.Role.ENTRY) {
            return Optional.of(new Report.Rejected(order, RejectReason.BY_THE_BROKER));
        }
        send(order, name, now);
        return Optional.empty();
    }

    /** Names of orders that were placed, and of which the broker has told nothing yet, in order. */
    public List<String> unheard() {
        return List.copyOf(unheard);
    }

    /**
     * After a loss of link: the broker has said what it has. What it was asked for and has not answered is asked anew, as it is wanted now:
     * the newest price of each order, its quantity, its end.
     */
    public void askAgain(long time) {
        now = time;
        unanswered.clear();
        for (Order order : working()) {
            String name = names.get(order);
            if (unheard.contains(name)) {
                // it has just been sent again, as it is wanted
                continue;
            }
            if (order.turning() && order.type() != Order.Type.MARKET) {
                outgoing.add(new ToBroker.AtMarket(remember(new Request.ToMarket(order, new Cause(print, time))), name,
                        time));
            } else if (order.wanted() != order.price()) {
                outgoing.add(new ToBroker.Reprice(
                        remember(new Request.Change(order, order.wanted(), order.reason(), new Cause(print, time))),
                        name, order.wanted(), time));
            }
            if (resized.contains(name)) {
                outgoing.add(new ToBroker.Resize(name(), name, order.quantity() - orders.get(name).before(), time));
            }
        }
        cancelling.forEach((name, atOnce) -> outgoing.add(new ToBroker.Cancel(name(), name, atOnce, time)));
    }

    /**
     * Each execution once, and for what exceeds the contracts that stand as filled: a status may have told of them, or a report was missed.
     * What was to be more by the time the broker had filled it all is placed anew, under another name.
     */
    private Optional<Report> filled(Placed placed, FromBroker.Filled filled) {
        Execution told = new Execution(filled.quantity(), filled.price());
        if (executions.putIfAbsent(filled.execution(), told) != null) {
            return Optional.empty();
        }
        Order order = placed.order();
        Sum before = sums.getOrDefault(filled.order(), Sum.NONE);
        int quantity = filled.cumulative() - before.contracts();
        if (quantity != filled.quantity() && before.fromStatus() == 0) {
            contradictions.add("expected " + (before.contracts() + filled.quantity())
                    + " contracts filled in all, found " + filled);
        }
        if (quantity <= 0) {
            sums.put(filled.order(), before.told(filled.quantity()));
            return Optional.empty();
        }
        sums.put(filled.order(),
                before.and(quantity, filled.price()).told(Math.max(0, filled.quantity() - quantity)));
        if (order.role() != Order.Role.ENTRY && quantity > order.bracket().open()) {
            contradictions.add("an exit was filled for more than was open: " + filled);
        }
        if (filled.done() && order.role() == Order.Role.TARGET && order.rest() > quantity) {
            again.add(order);
        } else if (filled.done()) {
            // also where more is open here than the broker's own group knows of: what is left needs another exit
            own.add(new Report.Ended(order));
        }
        return Optional.of(new Report.Filled(order, new Report.Execution(filled.time(), print, quantity,
                filled.price(), filled.slippage()), order.reason()));
    }

    /** What more is filled than is known was filled at the average that is left for it, where that is between two ticks at both. */
    private Optional<Report> status(Order order, FromBroker.Status status) {
        Sum before = sums.getOrDefault(status.order(), Sum.NONE);
        int more = status.cumulative() - before.contracts();
        if (more < 0) {
            contradictions.add("expected " + before.contracts() + " contracts filled in all, found " + status);
        } else if (more > 0) {
            long left = status.sum() - before.prices();
            long lower = Math.floorDiv(left, more);
            int higher = Math.floorMod(left, more);
            sums.put(status.order(),
                    new Sum(status.cumulative(), status.sum(), before.fromStatus() + more));
            fromStatus(order, more - higher, lower);
            fromStatus(order, higher, lower + 1);
        }
        if (status.over() && order.state().live() && order.rest() > Math.max(0, more)) {
            own.add(new Report.Ended(order));
        } else if (!status.over() && order.state() == Order.State.PENDING) {
            own.addFirst(new Report.Accepted(order));
        }
        return Optional.ofNullable(own.poll());
    }

    private void fromStatus(Order order, int quantity, long price) {
        if (quantity > 0) {
            own.add(new Report.Filled(order, new Report.Execution(now, print, quantity, price, 0, true),
                    order.reason()));
        }
    }

    /** A fill that is taken back, and the one that it was in truth. */
    private Optional<Report> corrected(Order order, FromBroker.Corrected corrected) {
        Execution instead = new Execution(corrected.quantity(), corrected.price());
        if (executions.putIfAbsent(corrected.execution(), instead) != null) {
            return Optional.empty();
        }
        Execution told = executions.get(corrected.of());
        contradictions.add((told == null ? "a fill that nobody told of is corrected: " : "a fill is corrected: ")
                + corrected);
        Sum before = sums.getOrDefault(corrected.order(), Sum.NONE);
        if (told == null) {
            return unknownCorrected(order, corrected, before);
        }
        if (told.quantity() == 0) {
            return Optional.empty();
        }
        sums.put(corrected.order(), new Sum(corrected.cumulative(), before.prices() - told.quantity() * told.price()
                + (instead.quantity() == 0 ? 0 : instead.quantity() * instead.price()), before.fromStatus()));
        return Optional.of(new Report.Undone(order, execution(told, corrected.time()),
                instead.quantity() == 0 ? Optional.empty() : Optional.of(execution(instead, corrected.time()))));
    }

    /** One of which only a status has told: its contracts, or its price, are what the order's new average leaves for them. */
    private Optional<Report> unknownCorrected(Order order, FromBroker.Corrected corrected, Sum before) {
        int gone = before.contracts() - corrected.cumulative();
        long less = before.prices() - corrected.sum();
        // its report may come yet: it is in these figures
        executions.put(corrected.of(), new Execution(0, Tape.NONE));
        if (gone < 0) {
            return status(order, new FromBroker.Status(corrected.order(), corrected.cumulative(), corrected.sum(),
                    !order.state().live()));
        }
        if (gone == 0 && less == 0) {
            return Optional.empty();
        }
        sums.put(corrected.order(),
                new Sum(corrected.cumulative(), corrected.sum(), Math.max(0, before.fromStatus() - gone)));
        if (gone == 0) {
            // one contract stands for them all: the sum is what counts
            long price = Math.floorDiv(before.prices(), before.contracts());
            return Optional.of(new Report.Undone(order, execution(new Execution(1, price), corrected.time()),
                    Optional.of(execution(new Execution(1, price - less), corrected.time()))));
        }
        long lower = Math.floorDiv(less, gone);
        int higher = Math.floorMod(less, gone);
        if (higher > 0) {
            own.add(new Report.Undone(order, execution(new Execution(higher, lower + 1), corrected.time()),
                    Optional.empty()));
        }
        return Optional.of(new Report.Undone(order, execution(new Execution(gone - higher, lower), corrected.time()),
                Optional.empty()));
    }

    private Report.Execution execution(Execution told, long time) {
        return new Report.Execution(time, print, told.quantity(), told.price(), 0);
    }

    /** Names of orders that are alive as far as anybody here knows, and of which the broker has told something. */
    public List<String> known() {
        return working().stream().map(names::get).filter(name -> !unheard.contains(name)).toList();
    }

    /** Whether an order was sent from here. */
    public boolean sent(String order) {
        return orders.containsKey(order);
    }

    /** Whether an execution of somebody else's order is new; it counts as known from now on. */
    public boolean isNew(FromBroker.Elsewhere told) {
        boolean fresh = executions.putIfAbsent(told.execution(), new Execution(told.quantity(), told.price())) == null;
        if (fresh) {
            others.put(told.execution(), told);
        }
        return fresh;
    }

    /** What a correction of somebody else's fill comes to: the fill's contrary, and what was filled in truth. */
    public List<FromBroker.Elsewhere> elsewhere(FromBroker.Corrected told) {
        FromBroker.Elsewhere of = others.get(told.of());
        if (executions.containsKey(told.execution())) {
            return List.of();
        }
        contradictions.add((of == null ? "a fill that nobody told of is corrected: " : "a fill is corrected: ") + told);
        executions.put(told.execution(), new Execution(told.quantity(), told.price()));
        if (of == null || of.quantity() == 0) {
            return List.of();
        }
        FromBroker.Elsewhere instead = new FromBroker.Elsewhere(told.order(), told.execution(), of.buy(),
                told.quantity(), told.price(), false, told.time());
        others.put(told.execution(), instead);
        FromBroker.Elsewhere contrary = new FromBroker.Elsewhere(told.order(), told.execution(), !of.buy(),
                of.quantity(), of.price(), false, told.time());
        return told.quantity() == 0 ? List.of(contrary) : List.of(contrary, instead);
    }

    /** What the broker told that does not fit what stands; it was applied as told where that can be. */
    public List<String> contradictions() {
        return List.copyOf(contradictions);
    }

    // ------------------------------------------------------------------ prints and the clock

    @Override
    public void print(int index) {
        print = index;
        arriving = true;
        incoming.addAll(withPrint);
        withPrint.clear();
    }

    @Override
    public boolean endsAtOnce() {
        return false;
    }

    @Override
    public long lastPrice() {
        return lastPrice;
    }

    /** The broker ends them, and says so. */
    @Override
    public void closeDay(long close) {
        // nothing to do here
    }

    @Override
    public void rollsTo(long before) {
        lastPrice = before;
    }

    /** Asks the broker to end it: until it says so, it may be filled. */
    @Override
    public void expire(Order order) {
        take(new Request.Cancel(order, true, new Cause(print, tape.time(print))));
    }

    /** Nothing is assumed: the position is held until the broker says otherwise. */
    @Override
    public void assume(Bracket bracket, long close) {
        // nothing to do here
    }

    @Override
    public void book(Order order, long price, long time) {
        own.add(new Report.Filled(order, new Report.Execution(time, print, order.quantity(), price, 0),
                order.reason()));
    }

    @Override
    public void closeAtEnd(Order leave, long now) {
        own.add(new Report.Filled(leave, new Report.Execution(now, print, leave.bracket().open(), lastPrice, 0),
                leave.reason()));
    }

    // ------------------------------------------------------------------ what stands

    @Override
    public List<Order> working() {
        sent.removeIf(order -> !order.state().live());
        return List.copyOf(sent);
    }

    /** Every print is to be worked: nobody knows what a broker has in hand. */
    @Override
    public void bound(Bounds bounds) {
        bounds.print(0);
    }

    @Override
    public void quiet(int index) {
        throw new IllegalStateException("every print is worked where a broker carries orders out");
    }

    @Override
    public Optional<InsideBars> insideBars() {
        return Optional.empty();
    }

    @Override
    public int largerThanPrint() {
        return 0;
    }
}
