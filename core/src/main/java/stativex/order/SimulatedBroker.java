package stativex.order;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Predicate;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;

/**
 * The simulated exchange behind a broker's counter: it takes named messages, has brackets of its own, which it reduces and ends itself,
 * and tells what becomes of orders. The other end of {@link BrokerVenue}; they share no order. Orders meet prints as in a trial: a message
 * that comes after a print meets the next one at the earliest.
 */
public final class SimulatedBroker {
    private final Tape tape;
    private final Contract contract;
    private final SimulatedExchange exchange;
    private final Orders orders;
    private final Map<String, Order> byName = new HashMap<>();
    /** Live orders whose end was not told. */
    private final Map<Order, String> live = new LinkedHashMap<>();
    private final Map<String, Bracket> groups = new HashMap<>();
    /** The other half of each two-sided entry. */
    private final Map<Bracket, Bracket> pairs = new HashMap<>();
    /** Changes that have not come about, in the order in which they were asked. */
    private final List<Asked> asked = new ArrayList<>();
    private final List<FromBroker> told = new ArrayList<>();
    /** Prices of all fills of an order together, ticks. */
    private final Map<String, Long> sums = new HashMap<>();
    private Optional<FromBroker.Filled> lastFill = Optional.empty();
    private int numbers;
    private int executions;
    private int others;
    private long net;
    private int last = -1;

    /** @param name of the message that asked */
    private record Asked(Request request, String name) {}

    /** @param tape of its contract, which may grow */
    public SimulatedBroker(Tape tape, Contract contract, Terms terms) {
        this.tape = tape;
        this.contract = contract;
        this.exchange = new SimulatedExchange(tape, contract, terms, Optional.empty());
        this.orders = new Orders(exchange, () -> ++numbers);
    }

    /** Takes a message, and says so at once; an order that is not there is told as one that cannot be changed. */
    public void take(ToBroker message) {
        if (message instanceof ToBroker.Place || byName.containsKey(message.order())) {
            told.add(new FromBroker.Received(message.order(), message.name()));
        }
        Cause cause = new Cause(last, message.time());
        switch (message) {
            case ToBroker.Place place -> place(place, cause);
            case ToBroker.Reprice reprice -> change(reprice.order(), message.name(), order -> exchange
                    .take(asked(new Request.Change(order, reprice.price(), order.reason(), cause), message.name())));
            case ToBroker.AtMarket market -> change(market.order(), message.name(),
                    order -> exchange.take(asked(new Request.ToMarket(order, cause), message.name())));
            case ToBroker.Resize resize -> change(resize.order(), message.name(),
                    order -> order.quantity = Math.max(order.filled(), resize.quantity()));
            case ToBroker.Cancel cancel -> change(cancel.order(), message.name(), order -> {
                if (cancel.atOnce()) {
                    exchange.expire(order);
                } else {
                    exchange.take(new Request.Cancel(order, false, cause));
                }
            });
        }
        drain();
    }

    /** Refuses an order. @param why in its own words */
    public void refuse(ToBroker message, String why) {
        told.add(new FromBroker.Received(message.order(), message.name()));
        told.add(new FromBroker.Refused(message.order(), why));
    }

    /** Somebody trades on the account elsewhere. @param contracts below 0 when they are sold */
    public void elsewhere(int contracts) {
        net += contracts;
    }

    private interface Act {
        void on(Order order);
    }

    private void change(String name, String request, Act act) {
        Order order = byName.get(name);
        if (order == null || !order.state().live()) {
            told.add(new FromBroker.NotChanged(name, request, order == null ? "unknown order" : "too late"));
        } else {
            act.on(order);
        }
    }

    private Request asked(Request request, String name) {
        asked.removeIf(one -> !one.request().order().state().live());
        asked.add(new Asked(request, name));
        return request;
    }

    private void place(ToBroker.Place place, Cause cause) {
        ToBroker.Ticket of = place.ticket();
        if (byName.containsKey(place.name())) {
            // it was sent again by somebody who did not know that it had come
            return;
        }
        Side side = of.buy() == (of.role() == Order.Role.ENTRY) ? Side.LONG : Side.SHORT;
        boolean guards = of.role() != Order.Role.ENTRY && !groups.containsKey(place.group());
        Bracket bracket = groups.computeIfAbsent(place.group(), name -> new Bracket(Owner.PERSON, side));
        if (guards) {
            // a group that begins with an exit guards contracts that were entered elsewhere
            bracket.entered(of.quantity(), -1);
        }
        Order order = orders.place(bracket, new Order.Asked(of.role(), of.type(), of.quantity(), of.price(),
                new FillReason.Entry(), of.goodFor(), of.beyond()), cause, of.everything());
        byName.put(place.name(), order);
        live.put(order, place.name());
        Bracket other = groups.get(place.pair());
        if (other != null) {
            pairs.put(bracket, other);
            pairs.put(other, bracket);
        }
        if (of.role() != Order.Role.ENTRY) {
            orders.fit(order);
        } else if (other != null && other.open() > 0) {
            orders.endEntries(bracket, cause);
        }
        tellEnded(one -> true);
    }

    /** Works the next print, if it lies in a session. */
    public void print(int print) {
        last = print;
        long time = tape.time(print);
        Optional<Session> session = contract.calendar().current(time);
        if (session.filter(now -> now.contains(time)).isPresent()) {
            exchange.print(print);
            drain();
        }
    }

    /** A trading day's last session closes. */
    public void closeDay(long close) {
        exchange.closeDay(close);
        drain();
    }

    private void drain() {
        for (Optional<Report> report = exchange.next(); report.isPresent(); report = exchange.next()) {
            Order order = report.get().order();
            String name = live.get(order);
            orders.apply(report.get());
            if (report.get() instanceof Report.Filled filled && order.role() == Order.Role.ENTRY
                    && pairs.containsKey(order.bracket())) {
                orders.endEntries(pairs.get(order.bracket()),
                        new Cause(filled.execution().print(), filled.execution().time()));
            }
            // entries that a fill ends are told before it, so that whoever hears of it finds them gone
            tellEnded(one -> one != order && one.role() == Order.Role.ENTRY);
            if (name != null) {
                tell(name, order, report.get());
            }
            live.keySet().removeIf(one -> one == order && !one.state().live());
            tellEnded(one -> true);
        }
    }

    /** What a bracket's own doing has ended. @param which of them is told now */
    private void tellEnded(Predicate<Order> which) {
        live.entrySet().removeIf(one -> {
            boolean over = !one.getKey().state().live() && which.test(one.getKey());
            if (over) {
                told.add(new FromBroker.Ended(one.getValue()));
            }
            return over;
        });
    }

    private FromBroker filled(String name, Order order, Report.Execution done) {
        net += order.buy() ? done.quantity() : -done.quantity();
        sums.merge(name, done.quantity() * done.price(), Long::sum);
        FromBroker.Filled told = new FromBroker.Filled(name, "x" + ++executions, done.quantity(), done.price(),
                order.filled(), !order.state().live(), done.slippage(), done.time());
        lastFill = Optional.of(told);
        return told;
    }

    /**
     * The last fill turns out to have been none, or one at another price; once each.
     *
     * @param ticks that its price was too low; empty: it was none
     */
    public void takeBack(OptionalLong ticks) {
        if (lastFill.isEmpty()) {
            return;
        }
        FromBroker.Filled fill = lastFill.get();
        lastFill = Optional.empty();
        Order order = byName.get(fill.order());
        int quantity = ticks.isPresent() ? fill.quantity() : 0;
        long price = ticks.isPresent() ? fill.price() + ticks.getAsLong() : Tape.NONE;
        if (quantity == 0) {
            net -= order.buy() ? fill.quantity() : -fill.quantity();
            sums.merge(fill.order(), -fill.quantity() * fill.price(), Long::sum);
            order.filled -= fill.quantity();
            order.quantity -= fill.quantity();
            takeBack(order, fill.quantity());
        } else {
            sums.merge(fill.order(), quantity * ticks.getAsLong(), Long::sum);
        }
        told.add(new FromBroker.Corrected(fill.order(), "c" + ++executions, fill.execution(), quantity, price,
                order.filled(), sums.get(fill.order()), fill.time()));
    }

    /** A bracket holds so many fewer contracts, or so many more where an exit was none; its orders are for what it holds. */
    private void takeBack(Order order, int contracts) {
        Bracket bracket = order.bracket();
        if (order.role() != Order.Role.ENTRY) {
            bracket.entered(contracts, -1);
        } else {
            bracket.left(Math.min(contracts, bracket.open()));
        }
        bracket.stop().filter(stop -> stop.state().live()).ifPresent(orders::fit);
        bracket.targets().stream().filter(target -> target.state().live()).toList().forEach(orders::fit);
        tellEnded(one -> true);
    }

    /** Somebody places an order by hand elsewhere: a limit where it rests as one, else a stop. Returns it. */
    public ToBroker.Place orderElsewhere(boolean buy, int quantity, long price) {
        long now = last < 0 ? price : tape.price(last);
        String name = "elsewhere-" + ++others;
        return new ToBroker.Place(name, new ToBroker.Ticket(buy,
                buy == price < now ? Order.Type.LIMIT : Order.Type.STOP, quantity, price, 0,
                Order.GoodFor.UNTIL_CANCELLED, Order.Role.ENTRY, false), name, "", last < 0 ? 0 : tape.time(last));
    }

    /** How an order stands; empty: nobody knows it. */
    public Optional<FromBroker.Status> status(String name) {
        return Optional.ofNullable(byName.get(name)).map(order -> new FromBroker.Status(name, order.filled(),
                sums.getOrDefault(name, 0L), !order.state().live()));
    }

    /** Names of orders that are alive, in the order in which they came. */
    public List<String> alive() {
        return List.copyOf(live.values());
    }

    private void tell(String name, Order order, Report report) {
        told.add(switch (report) {
            case Report.Accepted ignored -> new FromBroker.Working(name);
            case Report.Changed changed -> new FromBroker.Repriced(name, request(order, changed.price()),
                    changed.price());
            case Report.Turned ignored -> new FromBroker.Turned(name, request(order, Tape.NONE));
            case Report.Triggered ignored -> new FromBroker.Triggered(name);
            case Report.Filled filled -> filled(name, order, filled.execution());
            case Report.Undone ignored -> throw new IllegalStateException("no exchange takes fills back by itself");
            case Report.Ended ignored -> new FromBroker.Ended(name);
            case Report.Rejected rejected -> new FromBroker.Refused(name, rejected.why().name());
        });
    }

    /** Which message asked for what has come about: the first of those that asked for it. */
    private String request(Order order, long price) {
        Asked found = asked.stream().filter(one -> one.request().order() == order)
                .filter(one -> one.request() instanceof Request.Change change
                        ? change.price() == price
                        : price == Tape.NONE)
                .findFirst().orElseThrow(() -> new IllegalStateException("what comes about was asked for"));
        asked.remove(found);
        return found.name();
    }

    /** Whether it knows an order. */
    public boolean knows(String order) {
        return byName.containsKey(order);
    }

    /** How many contracts it says are held, below 0 when short. */
    public long net() {
        return net;
    }

    /** What was told since it was last asked for, in order. */
    public List<FromBroker> told() {
        List<FromBroker> all = List.copyOf(told);
        told.clear();
        return all;
    }
}
