package stativex.order;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;

/**
 * The exchange of trials, replays and simulated accounts, working prints one by one (tick mode). No look-ahead: an order
 * meets the print after the event that caused it at the earliest, and only prints not timed before its acceptance.
 * Source: SEMANTICS, "Orders and the simulated exchange".
 */
public final class SimulatedExchange {
    /** Good until cancelled. */
    private static final long UNTIL_CANCELLED = TapeTime.NEVER;

    private final Tape tape;
    private final Contract contract;
    private final long feePerContract;
    private final Terms terms;
    private final Reports reports;
    private final List<Order> active = new ArrayList<>();
    private final List<Order> arrivals = new ArrayList<>();
    private final Requests requests = new Requests();
    private boolean meeting;
    private boolean ended;
    private int numbers;
    private int lastPrint = -1;
    private long now = Long.MIN_VALUE;
    private long lastPrice = Tape.NONE;
    private long limitRoom;
    private int largerThanPrint;

    /** @param feePerContract money per contract and side, booked on each fill */
    public SimulatedExchange(Tape tape, Contract contract, long feePerContract, Terms terms, Reports reports) {
        this.tape = tape;
        this.contract = contract;
        this.feePerContract = feePerContract;
        this.terms = terms;
        this.reports = reports;
    }

    /** What is sent from here on is sent because of this event: print {@code print} is the last one that has arrived. */
    public void because(int print, long time) {
        lastPrint = print;
        now = time;
    }

    /**
     * Sends an entry.
     *
     * @param price ticks; {@link Tape#NONE} for a market order
     * @param goodForDay until the last session's close of the trading day in which it is accepted
     * @param closesBefore signal bars that have closed
     */
    public Order enter(Bracket bracket, Order.Type type, int quantity, long price, boolean goodForDay,
            int closesBefore) {
        long accepted = Math.addExact(now, terms.latency());
        Optional<Long> expires = goodForDay ? dayClose(accepted) : Optional.of(UNTIL_CANCELLED);
        Order order = order(bracket, Order.Role.ENTRY, type, bracket.side() == Side.LONG, quantity, price, "entry",
                accepted, expires.orElse(accepted), closesBefore);
        bracket.entries.add(order);
        if (expires.isEmpty()) {
            order.state = Order.State.REJECTED;
            reports.rejected(order, "accepted after the day's close");
        } else {
            arrive(order);
        }
        return order;
    }

    /** Sends a market order that leaves everything that is open when it meets a print. */
    public Order leave(Bracket bracket, String reason) {
        Order order = leave(bracket, bracket.open, reason);
        order.everything = true;
        return order;
    }

    /** Sends a market order that leaves {@code quantity} contracts. */
    public Order leave(Bracket bracket, int quantity, String reason) {
        Order order = order(bracket, Order.Role.LEAVE, Order.Type.MARKET, bracket.side() == Side.SHORT, quantity,
                Tape.NONE, reason, Math.addExact(now, terms.latency()), UNTIL_CANCELLED);
        bracket.leaves.add(order);
        arrive(order);
        return order;
    }

    /** Attaches the stop of a bracket for all that is open, or enlarges it to that. Takes no latency. */
    public void attachStop(Bracket bracket, long price, String reason) {
        if (bracket.stop.isPresent()) {
            bracket.stop.get().quantity = bracket.stop.get().filled + bracket.open;
            return;
        }
        Order order = order(bracket, Order.Role.STOP, Order.Type.STOP, bracket.side() == Side.SHORT, bracket.open,
                price, reason, now, UNTIL_CANCELLED);
        bracket.stop = Optional.of(order);
        arrive(order);
    }

    /** Attaches a target of a bracket, or enlarges it. Takes no latency. */
    public void attachTarget(Bracket bracket, int leg, int quantity, long price) {
        String reason = "target " + leg;
        for (Order target : bracket.targets) {
            if (target.reason.equals(reason) && target.state.live()) {
                target.quantity += quantity;
                return;
            }
        }
        Order order = order(bracket, Order.Role.TARGET, Order.Type.LIMIT, bracket.side() == Side.SHORT, quantity, price,
                reason, now, UNTIL_CANCELLED);
        bracket.targets.add(order);
        arrive(order);
    }

    /** Asks to cancel; takes latency like an order. */
    public void cancel(Order order) {
        if (order.state.live()) {
            requests.cancel(order, lastPrint, Math.addExact(now, terms.latency()));
        }
    }

    /** Asks for another price; takes latency, until then the old one works. */
    public void change(Order order, long price, String reason) {
        if (order.state.live()) {
            requests.change(order, price, reason, lastPrint, Math.addExact(now, terms.latency()));
        }
    }

    /** Ends what is good for the day at its last session's close, without latency. */
    public void closeDay(long time) {
        for (int i = 0; i < active.size(); i++) {
            Order order = active.get(i);
            if (order.expires <= time && order.state.live()) {
                end(order);
            }
        }
        sweep();
    }

    /** Ends an order at once, as the exchange's own doing (its bars are over). */
    public void expire(Order order) {
        end(order);
        sweep();
    }

    /**
     * Fills what a flatten still wanted when no print followed before its session's end: at the session's last price
     * plus slippage, at the session's close.
     */
    public void assume(Bracket bracket, long close, String reason) {
        for (Order leave : List.copyOf(bracket.leaves)) {
            if (leave.everything && leave.state.live() && bracket.open > 0) {
                leave.quantity = leave.filled + bracket.open;
                leave.reason = reason;
                fill(leave, bracket.open, worse(leave.buy(), lastPrice, contract.slippage()), contract.slippage(),
                        lastPrint, close);
            }
        }
        sweep();
    }

    /** Closes what is open when the tape ends: at the last price, with fee, without slippage. */
    public void closeAtEnd(Bracket bracket, String reason) {
        if (bracket.open > 0) {
            Order order = leave(bracket, reason);
            fill(order, bracket.open, lastPrice, 0, lastPrint, now);
            sweep();
        }
    }

    /** Works a print that lies in a session: changes now due, then every working order meets it. */
    public void print(int print) {
        if (!requests.isEmpty()) {
            applyRequests(print, tape.time(print));
        }
        if (!active.isEmpty()) {
            meetAll(print, tape.time(print), tape.price(print));
        }
        lastPrice = tape.price(print);
    }

    /** Market and triggered stop orders that were larger than the print they met; slippage alone stands for depth. */
    public int largerThanPrint() {
        return largerThanPrint;
    }

    /** Every order that is alive, in order of acceptance. */
    public List<Order> working() {
        return active;
    }

    private void applyRequests(int print, long time) {
        requests.apply(print, time, this::end);
        sweep();
        active.sort((a, b) -> Long.compare(a.accepted, b.accepted) != 0
                ? Long.compare(a.accepted, b.accepted)
                : Integer.compare(a.number(), b.number()));
    }

    private void meetAll(int print, long time, long price) {
        meeting = true;
        limitRoom = tape.size(print);
        for (int i = 0; i < active.size(); i++) {
            Order order = active.get(i);
            if (order.role() == Order.Role.ENTRY) {
                meet(order, print, time, price);
            } else {
                exits(order.bracket(), i, print, time, price);
            }
        }
        meeting = false;
        sweep();
        for (int i = 0; i < arrivals.size(); i++) {
            insert(arrivals.get(i));
        }
        arrivals.clear();
    }

    /** All exits of a bracket, at the place of the first of them: leave, then stop, then targets. */
    private void exits(Bracket bracket, int place, int print, long time, long price) {
        if (bracket.metPrint == print) {
            return;
        }
        bracket.metPrint = print;
        for (int i = 0; i < bracket.leaves.size(); i++) {
            meet(bracket.leaves.get(i), print, time, price);
        }
        if (bracket.stop.isPresent()) {
            meet(bracket.stop.get(), print, time, price);
        }
        for (int i = place; i < active.size(); i++) {
            Order order = active.get(i);
            if (order.bracket() == bracket && order.role() == Order.Role.TARGET) {
                meet(order, print, time, price);
            }
        }
    }

    private void meet(Order order, int print, long time, long price) {
        if (!order.state.live() || order.sentAfter >= print || order.accepted > time) {
            return;
        }
        if (order.state == Order.State.PENDING) {
            order.state = Order.State.WORKING;
        }
        switch (order.type()) {
            case MARKET -> fillAtMarket(order, print, time, price);
            case STOP -> {
                if (order.triggered || (order.buy() ? price >= order.price : price <= order.price)) {
                    order.triggered = true;
                    fillAtMarket(order, print, time, price);
                }
            }
            case LIMIT -> meetLimit(order, print, time, price);
        }
    }

    private void fillAtMarket(Order order, int print, long time, long price) {
        int quantity = order.rest();
        if (order.role() != Order.Role.ENTRY) {
            int free = order.bracket().free(print);
            quantity = order.everything ? free : Math.min(quantity, free);
        }
        if (quantity == 0) {
            return;
        }
        if (order.everything) {
            order.quantity = order.filled + order.bracket().open;
        }
        if (quantity > tape.size(print)) {
            largerThanPrint++;
        }
        long worse = worse(order.buy(), worseOf(order.buy(), quote(order.buy(), print), price), contract.slippage());
        fill(order, quantity, worse, contract.slippage(), print, time);
    }

    private void meetLimit(Order order, int print, long time, long price) {
        boolean first = !order.met;
        order.met = true;
        boolean buy = order.buy();
        boolean atOrInside = buy ? price <= order.price : price >= order.price;
        if (!atOrInside) {
            return;
        }
        int quantity = order.role() == Order.Role.TARGET
                ? Math.min(order.rest(), order.bracket().free(print))
                : order.rest();
        if (terms.realism() == Realism.THROUGH) {
            quantity = (int) Math.min(quantity, limitRoom);
        }
        if (quantity == 0) {
            return;
        }
        if (first && passed(order, print)) {
            take(order, quantity, worseOf(buy, quote(buy, print), price), print, time);
        } else if (terms.realism() == Realism.TOUCH || price != order.price) {
            take(order, quantity, order.price, print, time);
        }
    }

    private void take(Order order, int quantity, long price, int print, long time) {
        limitRoom -= quantity;
        fill(order, quantity, price, 0, print, time);
    }

    /** Whether the market stood beyond the limit already: far quote, without one the print before, strictly inside. */
    private boolean passed(Order order, int print) {
        long far = quote(order.buy(), print);
        if (far == Tape.NONE) {
            far = lastPrice;
        }
        return far != Tape.NONE && (order.buy() ? far < order.price : far > order.price);
    }

    private void fill(Order order, int quantity, long price, long slippage, int print, long time) {
        Bracket bracket = order.bracket();
        order.filled += quantity;
        order.state = order.rest() == 0 ? Order.State.FILLED : Order.State.PARTLY_FILLED;
        boolean entry = order.role() == Order.Role.ENTRY;
        if (entry) {
            bracket.entered(quantity, print);
        } else {
            bracket.open -= quantity;
        }
        long against = order.buy() ? 1 : -1;
        long gap = order.type() == Order.Type.LIMIT || order.reference() == Tape.NONE
                ? 0
                : against * (price - order.reference()) - slippage;
        reports.filled(order,
                new Fill(time, print, bracket.owner(), order.number(), order.role(), order.buy(), quantity,
                        price, Math.multiplyExact(feePerContract, quantity), order.reason, slippage, gap));
        if (!entry) {
            bracket.keepInStep(order, this::end);
        }
        ended = true;
    }

    private void end(Order order) {
        if (order.state.live()) {
            order.state = Order.State.CANCELLED;
            ended = true;
            if (order.role() == Order.Role.ENTRY) {
                reports.ended(order);
            }
        }
    }

    private Order order(Bracket bracket, Order.Role role, Order.Type type, boolean buy, int quantity, long price,
            String reason, long accepted, long expires) {
        return order(bracket, role, type, buy, quantity, price, reason, accepted, expires, -1);
    }

    private Order order(Bracket bracket, Order.Role role, Order.Type type, boolean buy, int quantity, long price,
            String reason, long accepted, long expires, int closesBefore) {
        return new Order(++numbers, bracket, role, type, buy, quantity, price, reason, lastPrint, now, accepted,
                expires, lastPrice, closesBefore);
    }

    private void arrive(Order order) {
        if (meeting) {
            arrivals.add(order);
        } else {
            insert(order);
        }
    }

    private void insert(Order order) {
        int place = active.size();
        while (place > 0 && active.get(place - 1).accepted > order.accepted) {
            place--;
        }
        active.add(place, order);
    }

    private void sweep() {
        if (ended && !meeting) {
            active.removeIf(order -> !order.state.live());
            ended = false;
        }
    }

    /** The last session's close of the trading day that contains {@code time}; empty when that is over. */
    private Optional<Long> dayClose(long time) {
        return contract.calendar().tradingDate(time)
                .map(date -> contract.calendar().sessions(date).getLast()).map(Session::close).filter(c -> time < c);
    }

    /** Far quote: the ask for a buyer, the bid for a seller. */
    private long quote(boolean buy, int print) {
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
