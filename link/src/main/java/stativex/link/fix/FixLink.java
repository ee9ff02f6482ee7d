package stativex.link.fix;

import java.net.InetSocketAddress;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import quickfix.ConfigError;
import quickfix.DefaultMessageFactory;
import quickfix.Group;
import quickfix.MemoryStoreFactory;
import quickfix.Message;
import quickfix.SessionID;
import quickfix.SocketInitiator;
import quickfix.field.ClOrdID;
import quickfix.field.LastRptRequested;
import quickfix.field.MDEntryType;
import quickfix.field.MDReqID;
import quickfix.field.MDUpdateType;
import quickfix.field.MarketDepth;
import quickfix.field.MassStatusReqID;
import quickfix.field.MassStatusReqType;
import quickfix.field.MsgType;
import quickfix.field.NoMDEntryTypes;
import quickfix.field.NoRelatedSym;
import quickfix.field.OrdStatus;
import quickfix.field.RefMsgType;
import quickfix.field.Side;
import quickfix.field.SubscriptionRequestType;
import quickfix.field.Symbol;
import quickfix.field.Text;
import quickfix.field.TradSesReqID;
import stativex.files.BadInput;
import stativex.link.Link;
import stativex.link.VenueEvent;
import stativex.market.Contract;
import stativex.order.FromBroker;
import stativex.order.ToBroker;

/** A link to a venue that speaks FIX 4.4, over two sessions: market data and orders. Its events are asked for by one thread. */
public final class FixLink implements Link {
    private final Contract contract;
    private final Inbox inbox = new Inbox();
    private final SocketInitiator initiator;
    private final OrderMessages orders;
    private final ReportMessages reports;
    private final FeedMessages feed;
    private boolean data;
    private boolean ordersOn;
    private int sent;
    private int positions;

    /**
     * @param before messages that earlier links of the day have sent: orders go on under their names
     * @throws BadInput when it cannot be set up
     */
    public FixLink(Contract contract, InetSocketAddress venue, List<ToBroker> before) {
        this.contract = contract;
        this.orders = new OrderMessages(contract);
        this.reports = new ReportMessages(contract);
        this.feed = new FeedMessages(contract);
        before.forEach(orders::write);
        try {
            initiator = new SocketInitiator(inbox, new MemoryStoreFactory(), Sides.settings(false, venue), new Quiet(),
                    new DefaultMessageFactory());
            initiator.start();
        } catch (ConfigError e) {
            throw new BadInput("the link to " + venue + ": cannot be set up: " + e.getMessage(), e);
        }
    }

    @Override
    public Optional<VenueEvent> next(long nanos) throws InterruptedException {
        Inbox.Item item = inbox.items().poll(nanos, TimeUnit.NANOSECONDS);
        if (item == null) {
            return Optional.empty();
        }
        if (item.message().isEmpty()) {
            data = item.session().equals(Sides.data(false)) ? item.on() : data;
            if (item.session().equals(Sides.orders(false))) {
                ordersOn = item.on();
                sent = 0;
            }
            return Optional.of(new VenueEvent.Connected(data, ordersOn));
        }
        try {
            return read(item.message().get());
        } catch (BadMessage e) {
            return Optional.of(new VenueEvent.Refused(e.getMessage()));
        }
    }

    private Optional<VenueEvent> read(Message message) throws BadMessage {
        return switch (Own.type(message)) {
            case MsgType.MARKET_DATA_INCREMENTAL_REFRESH -> Optional.of(feed.read(message));
            case MsgType.EXECUTION_REPORT, MsgType.ORDER_CANCEL_REJECT -> Optional.of(report(message));
            case MsgType.BUSINESS_MESSAGE_REJECT -> Own.text(message, RefMsgType.FIELD, "a type", "")
                    .equals(MsgType.ORDER_MASS_STATUS_REQUEST)
                            ? Optional.of(new VenueEvent.Listed(Optional.empty(), true))
                            : Optional.of(new VenueEvent.Refused("the venue rejects a message: "
                                    + Own.text(message, Text.FIELD, "a reason", "no reason given")));
            case MsgType.TRADING_SESSION_STATUS -> Optional.of(
                    Own.text(message, Tags.MOMENT, "what the session does", "").equals("OVER")
                            ? new VenueEvent.Over(FeedMessages.sent(message))
                            : new VenueEvent.Moment(Own.number(message, Tags.NANOS, "a time"),
                                    FeedMessages.sent(message)));
            case MsgType.POSITION_REPORT -> Optional.of(PositionMessages.read(message, contract));
            case MsgType.HEARTBEAT -> Optional.of(new VenueEvent.Alive(FeedMessages.wall(message)));
            default -> Optional.empty();
        };
    }

    private VenueEvent report(Message message) throws BadMessage {
        String id = Own.text(message, ClOrdID.FIELD, "an identifier of the order", "");
        if (ReportMessages.isStatus(message)) {
            return status(message, id);
        }
        if (Own.type(message).equals(MsgType.EXECUTION_REPORT) && !orders.knows(id)) {
            FromBroker told = reports.foreign(message, false);
            return new VenueEvent.Reported(told, told instanceof FromBroker.Elsewhere fill ? fill.time() : 0,
                    ReportMessages.number(message));
        }
        return reports.read(message, orders::order);
    }

    private VenueEvent status(Message message, String id) throws BadMessage {
        boolean known = !Own.text(message, OrdStatus.FIELD, "a status").equals("8");
        if (!Own.has(message, MassStatusReqID.FIELD)) {
            return new VenueEvent.Asked(orders.order(id), known,
                    known ? Optional.of(reports.statusOf(message, orders.order(id))) : Optional.empty());
        }
        boolean last = !Own.has(message, LastRptRequested.FIELD) || Own.yes(message, LastRptRequested.FIELD);
        return new VenueEvent.Listed(!known
                ? Optional.empty()
                : Optional.of(orders.knows(id)
                        ? reports.statusOf(message, orders.order(id))
                        : reports.foreign(message, true)),
                last);
    }

    @Override
    public void askAll() {
        Message message = Own.message(MsgType.ORDER_MASS_STATUS_REQUEST);
        message.setString(MassStatusReqID.FIELD, "a" + ++positions);
        message.setInt(MassStatusReqType.FIELD, MassStatusReqType.STATUS_FOR_ALL_ORDERS);
        send(message, Sides.orders(false));
    }

    @Override
    public void subscribe(int taken) {
        Message message = Own.message(MsgType.MARKET_DATA_REQUEST);
        message.setString(MDReqID.FIELD, contract.symbol());
        message.setChar(SubscriptionRequestType.FIELD, SubscriptionRequestType.SNAPSHOT_UPDATES);
        Own.number(message, MarketDepth.FIELD, 1);
        Own.number(message, MDUpdateType.FIELD, MDUpdateType.INCREMENTAL_REFRESH);
        for (char type : new char[]{MDEntryType.BID, MDEntryType.OFFER, MDEntryType.TRADE}) {
            Group group = new Group(NoMDEntryTypes.FIELD, MDEntryType.FIELD);
            group.setChar(MDEntryType.FIELD, type);
            message.addGroup(group);
        }
        Group symbol = new Group(NoRelatedSym.FIELD, Symbol.FIELD);
        symbol.setString(Symbol.FIELD, contract.symbol());
        message.addGroup(symbol);
        Own.number(message, Tags.REPORTS, taken);
        send(message, Sides.data(false));
    }

    @Override
    public void ask(String order) {
        Message message = Own.message(MsgType.ORDER_STATUS_REQUEST);
        message.setString(ClOrdID.FIELD, order);
        message.setString(Symbol.FIELD, contract.symbol());
        message.setChar(Side.FIELD, Side.UNDISCLOSED);
        send(message, Sides.orders(false));
    }

    @Override
    public void askPosition() {
        send(PositionMessages.ask(contract, "p" + ++positions, System.currentTimeMillis() * 1_000_000),
                Sides.orders(false));
    }

    @Override
    public void send(List<ToBroker> messages) {
        for (ToBroker message : messages) {
            sent++;
            send(orders.write(message), Sides.orders(false));
        }
    }

    @Override
    public void step(int number) {
        Message message = Own.message(MsgType.TRADING_SESSION_STATUS_REQUEST);
        message.setString(TradSesReqID.FIELD, Integer.toString(number));
        message.setChar(SubscriptionRequestType.FIELD, SubscriptionRequestType.SNAPSHOT);
        Own.number(message, Tags.SENT, sent);
        send(message, Sides.data(false));
    }

    private void send(Message message, SessionID side) {
        inbox.send(message, side);
    }

    @Override
    public void close() {
        initiator.stop(true);
    }
}
