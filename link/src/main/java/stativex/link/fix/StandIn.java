package stativex.link.fix;

import java.net.InetSocketAddress;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import quickfix.ConfigError;
import quickfix.DefaultMessageFactory;
import quickfix.MemoryStoreFactory;
import quickfix.Message;
import quickfix.RuntimeError;
import quickfix.SessionID;
import quickfix.SocketAcceptor;
import quickfix.field.ClOrdID;
import quickfix.field.LastPx;
import quickfix.field.LastQty;
import quickfix.field.LastRptRequested;
import quickfix.field.MDReqID;
import quickfix.field.MassStatusReqID;
import quickfix.field.MsgType;
import quickfix.field.PosReqID;
import quickfix.field.PossResend;
import quickfix.field.TotNumReports;
import quickfix.field.TradSesReqID;
import quickfix.field.TradSesStatus;
import quickfix.field.TradingSessionID;
import stativex.files.BadInput;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.order.FromBroker;
import stativex.order.SimulatedBroker;
import stativex.order.Terms;
import stativex.order.ToBroker;

/**
 * A venue to practise on, which speaks FIX 4.4: the simulated exchange behind a counter, playing a tape. It plays at a chosen speed, or in
 * step: then the next thing happens only when the client asks for it by a Trading Session Status Request (g), having sent all orders that
 * the last one led to. Market data begins with a Market Data Request (V). One contract, one client.
 */
public final class StandIn implements AutoCloseable {
    /** Prints of one message at most. */
    private static final int MOST = 50;
    private static final long LOOK_AGAIN = 20_000_000L;
    /** Nanoseconds that no tape is long: some 60 years. */
    private static final double FAR = 2e18;

    /**
     * What it is made of.
     *
     * @param speed tape seconds per second; empty: in step
     * @param run what its executions' identifiers begin with, unlike any other run's
     */
    public record Setup(Contract contract, Tape tape, Terms terms, Optional<Double> speed, String run) {}

    private final Setup setup;
    private final Inbox inbox = new Inbox();
    private final SocketAcceptor acceptor;
    private final Thread thread;
    private final SimulatedBroker broker;
    private final OrderMessages orders;
    private final ReportMessages reports;
    private final FeedMessages feed;
    /** In step: requests for the next thing, each with the orders that it says were sent before it. */
    private final ArrayDeque<Step> asked = new ArrayDeque<>();
    /** Every report of the day, for whoever missed some. */
    private final List<Message> told = new ArrayList<>();
    /** In step: how many things have happened, and the last of them. */
    private int steps;
    private Optional<Supplier<Message>> last = Optional.empty();
    private Optional<String> request = Optional.empty();
    private Optional<stativex.market.Session> open = Optional.empty();
    private int received;
    private int next;
    private boolean over;
    private long startedAt;
    private long startedWith;
    private final Queue<Wish> wishes = new ConcurrentLinkedQueue<>();
    private double speed;
    private long silentUntil;
    private int rejects;
    private int skips;
    private volatile boolean closing;

    /** A wanted step. @param orders that were sent before it was asked for */
    private record Step(int number, int orders) {}

    /** @throws BadInput when the port is in use */
    public StandIn(Setup setup, InetSocketAddress at) {
        this.setup = setup;
        this.speed = setup.speed().orElse(1.0);
        this.silentUntil = System.nanoTime();
        this.broker = new SimulatedBroker(setup.tape(), setup.contract(), setup.terms());
        this.orders = new OrderMessages(setup.contract());
        this.reports = new ReportMessages(setup.contract());
        this.feed = new FeedMessages(setup.contract());
        try {
            acceptor = new SocketAcceptor(inbox, new MemoryStoreFactory(), Sides.settings(true, at), new Quiet(),
                    new DefaultMessageFactory());
            acceptor.start();
        } catch (ConfigError | RuntimeError e) {
            throw new BadInput("port " + at.getPort() + ": cannot be listened on, maybe another program does: "
                    + e.getMessage(), e);
        }
        thread = Thread.ofPlatform().name("stand-in").start(this::work);
    }

    /** Waits until it is closed, or the tape is over and the client has gone. */
    public void await() throws InterruptedException {
        thread.join();
    }

    /** What it says is held, once it is closed; below 0 when short. */
    long net() {
        return broker.net();
    }

    /** Contracts of every fill that it has told, in order, once it is closed. */
    List<String> fills() throws BadMessage {
        List<String> fills = new ArrayList<>();
        for (Message message : told) {
            if (Own.has(message, LastPx.FIELD)) {
                fills.add(Own.text(message, LastQty.FIELD, "a quantity") + " at "
                        + Own.text(message, LastPx.FIELD, "a price"));
            }
        }
        return fills;
    }

    @Override
    public void close() {
        closing = true;
        thread.interrupt();
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        acceptor.stop(true);
    }

    private void work() {
        try {
            while (!closing) {
                for (Wish wish = wishes.poll(); wish != null; wish = wishes.poll()) {
                    carryOut(wish);
                }
                Inbox.Item item = inbox.items().poll(due(), TimeUnit.NANOSECONDS);
                if (item != null) {
                    take(item);
                } else if (playing()) {
                    play();
                }
                tell();
                if (setup.speed().isEmpty() && !asked.isEmpty() && received >= asked.peek().orders()) {
                    step(asked.poll().number());
                }
            }
        } catch (InterruptedException e) {
            // asked to end
        }
    }

    /** Does what is asked, as soon as it has worked what it is at. */
    public void wish(Wish wish) {
        wishes.add(wish);
    }

    private void carryOut(Wish wish) {
        switch (wish) {
            case Wish.Drop ignored -> {
                inbox.cut(Sides.data(true));
                inbox.cut(Sides.orders(true));
            }
            case Wish.Silence silence -> silentUntil = System.nanoTime() + silence.nanos();
            case Wish.Elsewhere elsewhere -> broker.elsewhere(elsewhere.contracts());
            case Wish.Order asked -> orderElsewhere(asked);
            case Wish.TakeBack ignored -> broker.takeBack(OptionalLong.empty());
            case Wish.Correct correct -> broker.takeBack(OptionalLong.of(correct.ticks()));
            case Wish.Gap gap -> skips = gap.prints();
            case Wish.Reject reject -> rejects = reject.orders();
            case Wish.Speed asked -> {
                if (setup.speed().isPresent()) {
                    long now = System.nanoTime();
                    startedWith += (long) ((now - startedAt) * speed);
                    startedAt = now;
                    speed = asked.speed();
                }
            }
        }
    }

    private void orderElsewhere(Wish.Order asked) {
        try {
            ToBroker.Place place = broker.orderElsewhere(asked.contracts() > 0, Math.abs(asked.contracts()),
                    setup.contract().price(asked.price()));
            orders.write(place);
            broker.take(place);
        } catch (IllegalArgumentException | ArithmeticException e) {
            System.getLogger("stativex").log(System.Logger.Level.WARNING, e.getMessage());
        }
    }

    /** Every order that is alive, one message each; one that says there is none where there is none. */
    private void list(String request) {
        List<String> all = broker.alive();
        for (int i = 0; i < Math.max(1, all.size()); i++) {
            String order = all.isEmpty() ? "NONE" : all.get(i);
            Message message = reports.status(order, broker.status(order), orders.ticket(order), setup.run());
            message.setString(MassStatusReqID.FIELD, request);
            Own.number(message, TotNumReports.FIELD, all.size());
            message.setBoolean(LastRptRequested.FIELD, i >= all.size() - 1);
            send(message, Sides.orders(true));
        }
    }

    private boolean playing() {
        return setup.speed().isPresent() && request.isPresent() && !over && System.nanoTime() - silentUntil >= 0;
    }

    /** Nanoseconds until the next print is due, or until somebody's wishes are looked at again. */
    private long due() {
        if (!playing()) {
            return LOOK_AGAIN;
        }
        return next >= setup.tape().count()
                ? 0
                : Math.clamp((long) ((setup.tape().time(next) - startedWith) / speed)
                        - (System.nanoTime() - startedAt), 0, LOOK_AGAIN);
    }

    // ------------------------------------------------------------------ what comes in

    private void take(Inbox.Item item) {
        if (item.message().isEmpty()) {
            if (!item.on() && item.session().equals(Sides.data(true))) {
                request = Optional.empty();
            }
            // counted by the connection that they come over: the other one knows nothing of its order
            if (item.on() && item.session().equals(Sides.orders(true))) {
                received = 0;
            }
            return;
        }
        Message message = item.message().get();
        try {
            switch (Own.type(message)) {
                case MsgType.MARKET_DATA_REQUEST -> {
                    request = Optional.of(Own.text(message, MDReqID.FIELD, "a request's identifier"));
                    startedAt = System.nanoTime();
                    asked.clear();
                    feed.anew();
                    missed((int) Own.number(message, Tags.REPORTS, "how many reports were taken"));
                    startedWith = next < setup.tape().count() ? setup.tape().time(next) : 0;
                }
                case MsgType.TRADING_SESSION_STATUS_REQUEST -> asked.add(
                        new Step(Own.contracts(message, TradSesReqID.FIELD, "the number of the step"),
                                FeedMessages.sent(message).orElse(0)));
                case MsgType.ORDER_STATUS_REQUEST -> {
                    String order = Own.text(message, ClOrdID.FIELD, "an identifier of the order");
                    send(reports.status(order, broker.status(order), orders.ticket(order), setup.run()),
                            Sides.orders(true));
                }
                case MsgType.ORDER_MASS_STATUS_REQUEST -> list(
                        Own.text(message, MassStatusReqID.FIELD, "an identifier of the request"));
                case MsgType.REQUEST_FOR_POSITIONS -> send(PositionMessages.tell(setup.contract(),
                        Own.text(message, PosReqID.FIELD, "an identifier of the request"), broker.net(),
                        next == 0 ? Tape.NONE : setup.tape().price(next - 1), now()), Sides.orders(true));
                case MsgType.ORDER_SINGLE, MsgType.ORDER_CANCEL_REPLACE_REQUEST, MsgType.ORDER_CANCEL_REQUEST -> {
                    received++;
                    ToBroker asked = orders.read(message);
                    if (rejects > 0 && asked instanceof ToBroker.Place) {
                        rejects--;
                        broker.refuse(asked, "as it was asked to");
                    } else {
                        broker.take(asked);
                    }
                    tell();
                }
                default -> {
                    // nothing that is known here
                }
            }
        } catch (BadMessage e) {
            System.getLogger("stativex").log(System.Logger.Level.WARNING, e.getMessage());
        }
    }

    // ------------------------------------------------------------------ what goes out

    /** What has become of orders. */
    private void tell() {
        for (FromBroker report : broker.told()) {
            long time = now();
            Message message = reports.write(report, orders.ticket(report.order()), setup.run(), time);
            Own.number(message, Tags.REPORTS, told.size() + 1);
            told.add(message);
            send((Message) message.clone(), Sides.orders(true));
        }
    }

    private long now() {
        return next == 0 ? System.currentTimeMillis() * 1_000_000 : setup.tape().time(next - 1);
    }

    /** Reports that a client has not taken, once more. */
    private void missed(int taken) {
        for (int i = Math.max(0, taken); i < told.size(); i++) {
            Message again = (Message) told.get(i).clone();
            again.getHeader().setString(PossResend.FIELD, "Y");
            send(again, Sides.orders(true));
        }
    }

    /** In step: the next session's open or close, or the next print; the last one again for whoever missed it. */
    private void step(int number) {
        if (number == steps && last.isPresent()) {
            send(last.get().get(), Sides.data(true));
            return;
        }
        steps++;
        Tape tape = setup.tape();
        if (next >= tape.count()) {
            over = true;
            data(() -> moment(0, TradSesStatus.CLOSED, "OVER"));
            return;
        }
        long time = tape.time(next);
        if (closeBefore(time) || opens(time)) {
            return;
        }
        broker.print(next++);
        tell();
        int before = told.size();
        data(() -> {
            Message message = feed.write(tape, next - 1, next, request.orElse(""));
            Own.number(message, Tags.SENT, before);
            return message;
        });
    }

    /** Sends what can be sent again. */
    private void data(Supplier<Message> message) {
        last = Optional.of(message);
        send(message.get(), Sides.data(true));
    }

    /** At speed: everything that is due. */
    private void play() {
        Tape tape = setup.tape();
        if (next >= tape.count()) {
            over = true;
            send(moment(0, TradSesStatus.CLOSED, "OVER"), Sides.data(true));
            return;
        }
        long until = startedWith + (long) Math.min(FAR, (System.nanoTime() - startedAt) * speed);
        int from = next;
        while (next < tape.count() && tape.time(next) <= until && next - from < MOST) {
            long time = tape.time(next);
            if (next > from && changes(time)) {
                break;
            }
            closeBefore(time);
            opens(time);
            broker.print(next++);
        }
        int kept = Math.min(next, from + skips);
        skips -= kept - from;
        from = kept;
        if (next > from) {
            Message message = feed.write(tape, from, next, request.orElse(""));
            Own.number(message, Tags.NANOS, until);
            message.setString(Tags.SPEED, Double.toString(speed));
            send(message, Sides.data(true));
        }
    }

    /** Whether the session changes before a print. */
    private boolean changes(long time) {
        return !setup.contract().calendar().current(time).filter(session -> session.contains(time)).equals(open);
    }

    /** Closes the session that is open, if it is over by then. Returns whether it was told. */
    private boolean closeBefore(long time) {
        Optional<stativex.market.Session> ended = open.filter(session -> session.close() <= time);
        if (ended.isEmpty()) {
            return false;
        }
        open = Optional.empty();
        if (ended.get().last()) {
            broker.closeDay(ended.get().close());
            tell();
        }
        data(() -> moment(ended.get().close(), TradSesStatus.CLOSED, ended.get().last() ? "LAST CLOSE" : "CLOSE"));
        return true;
    }

    private boolean opens(long time) {
        Optional<stativex.market.Session> now = setup.contract().calendar().current(time)
                .filter(session -> session.contains(time));
        if (now.isEmpty() || now.equals(open)) {
            return false;
        }
        open = now;
        data(() -> moment(now.get().open(), TradSesStatus.OPEN, "OPEN"));
        return true;
    }

    private Message moment(long time, int status, String word) {
        Message message = Own.message(MsgType.TRADING_SESSION_STATUS);
        message.setString(TradingSessionID.FIELD, setup.contract().symbol());
        Own.number(message, TradSesStatus.FIELD, status);
        message.setString(Tags.MOMENT, word);
        Own.number(message, Tags.NANOS, time);
        if (setup.speed().isEmpty()) {
            Own.number(message, Tags.SENT, told.size());
        }
        return message;
    }

    private void send(Message message, SessionID side) {
        inbox.send(message, side);
    }
}
