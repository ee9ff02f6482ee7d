package stativex.link.fix;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import quickfix.Message;
import quickfix.field.ClOrdID;
import quickfix.field.HandlInst;
import quickfix.field.MsgType;
import quickfix.field.OrdType;
import quickfix.field.OrderQty;
import quickfix.field.OrigClOrdID;
import quickfix.field.Price;
import quickfix.field.Side;
import quickfix.field.StopPx;
import quickfix.field.Symbol;
import quickfix.field.TimeInForce;
import quickfix.field.TransactTime;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.order.Order;
import stativex.order.ToBroker;

/**
 * Orders as FIX 4.4 writes them: New Order Single (D), Order Cancel/Replace Request (G), Order Cancel Request (F). Whoever sends and
 * whoever receives has one: it knows under which identifiers an order went, and what a replacement must repeat. One contract. Not safe for
 * several threads.
 */
final class OrderMessages {
    private final Contract contract;
    private final Map<String, Standing> orders = new HashMap<>();
    /** The name of the order for every identifier that a message about it has had. */
    private final Map<String, String> names = new HashMap<>();

    /** An order as it was last asked to be. @param id of the last message that changed it */
    private record Standing(ToBroker.Ticket ticket, String id) {}

    OrderMessages(Contract contract) {
        this.contract = contract;
    }

    /** The order that an identifier belongs to; itself where nobody knows it. */
    String order(String id) {
        return names.getOrDefault(id, id);
    }

    /** Whether anything was placed, or asked, under an identifier. */
    boolean knows(String id) {
        return names.containsKey(id);
    }

    /** What was placed under a name, as it was last asked to be. */
    Optional<ToBroker.Ticket> ticket(String order) {
        return Optional.ofNullable(orders.get(order)).map(Standing::ticket);
    }

    // ------------------------------------------------------------------ out

    Message write(ToBroker out) {
        return switch (out) {
            case ToBroker.Place place -> {
                Message message = begin(MsgType.ORDER_SINGLE, place, place.ticket());
                keep(place.name(), place.ticket(), place.name());
                message.setString(Tags.GROUP, place.group());
                if (!place.pair().isEmpty()) {
                    message.setString(Tags.PAIR, place.pair());
                }
                message.setString(Tags.ROLE, place.ticket().role().name());
                if (place.ticket().everything()) {
                    message.setString(Tags.AT_ONCE, "Y");
                }
                yield message;
            }
            case ToBroker.Reprice reprice -> replace(reprice, reprice.order(), "PRICE",
                    with(reprice.order(), Optional.of(reprice.price()), Optional.empty(), false));
            case ToBroker.Resize resize -> replace(resize, resize.order(), "QUANTITY",
                    with(resize.order(), Optional.empty(), Optional.of(resize.quantity()), false));
            case ToBroker.AtMarket market -> replace(market, market.order(), "MARKET",
                    with(market.order(), Optional.empty(), Optional.empty(), true));
            case ToBroker.Cancel cancel -> {
                Standing standing = orders.get(cancel.order());
                Message message = begin(MsgType.ORDER_CANCEL_REQUEST, cancel, standing.ticket());
                message.removeField(OrdType.FIELD);
                message.removeField(Price.FIELD);
                message.removeField(StopPx.FIELD);
                message.removeField(TimeInForce.FIELD);
                message.removeField(HandlInst.FIELD);
                message.setString(OrigClOrdID.FIELD, standing.id());
                names.put(cancel.name(), cancel.order());
                if (cancel.atOnce()) {
                    message.setString(Tags.AT_ONCE, "Y");
                }
                yield message;
            }
        };
    }

    private Message replace(ToBroker out, String order, String changes, ToBroker.Ticket to) {
        Message message = begin(MsgType.ORDER_CANCEL_REPLACE_REQUEST, out, to);
        message.setString(OrigClOrdID.FIELD, orders.get(order).id());
        message.setString(Tags.CHANGES, changes);
        keep(order, to, out.name());
        return message;
    }

    private void keep(String order, ToBroker.Ticket ticket, String id) {
        orders.put(order, new Standing(ticket, id));
        names.put(id, order);
    }

    private ToBroker.Ticket with(String order, Optional<Long> price, Optional<Integer> quantity, boolean atMarket) {
        ToBroker.Ticket of = orders.get(order).ticket();
        return new ToBroker.Ticket(of.buy(), atMarket ? Order.Type.MARKET : of.type(), quantity.orElse(of.quantity()),
                atMarket ? Tape.NONE : price.orElse(of.price()), of.beyond(), of.goodFor(), of.role(), of.everything());
    }

    private Message begin(String type, ToBroker out, ToBroker.Ticket ticket) {
        Message message = Own.message(type);
        message.setString(ClOrdID.FIELD, out.name());
        message.setString(Symbol.FIELD, contract.symbol());
        message.setChar(HandlInst.FIELD, HandlInst.AUTOMATED_EXECUTION_ORDER_PRIVATE_NO_BROKER_INTERVENTION);
        message.setChar(Side.FIELD, ticket.buy() ? Side.BUY : Side.SELL);
        message.setString(TransactTime.FIELD, Stamp.millis(out.time()));
        Own.number(message, Tags.NANOS, out.time());
        Own.number(message, OrderQty.FIELD, ticket.quantity());
        message.setChar(OrdType.FIELD, type(ticket.type()));
        message.setChar(TimeInForce.FIELD,
                ticket.goodFor() == Order.GoodFor.DAY ? TimeInForce.DAY : TimeInForce.GOOD_TILL_CANCEL);
        switch (ticket.type()) {
            case MARKET -> {
                // no price
            }
            case LIMIT -> message.setString(Price.FIELD, contract.text(ticket.price()));
            case STOP -> message.setString(StopPx.FIELD, contract.text(ticket.price()));
            case STOP_LIMIT -> {
                message.setString(StopPx.FIELD, contract.text(ticket.price()));
                message.setString(Price.FIELD, contract.text(
                        ticket.buy() ? ticket.price() + ticket.beyond() : ticket.price() - ticket.beyond()));
            }
        }
        return message;
    }

    static char type(Order.Type type) {
        return switch (type) {
            case MARKET -> OrdType.MARKET;
            case LIMIT -> OrdType.LIMIT;
            case STOP -> OrdType.STOP_STOP_LOSS;
            case STOP_LIMIT -> OrdType.STOP_LIMIT;
        };
    }

    // ------------------------------------------------------------------ in

    /** @throws BadMessage when it makes no sense; nothing is remembered of it then */
    ToBroker read(Message message) throws BadMessage {
        String name = Own.text(message, ClOrdID.FIELD, "an identifier of the order");
        String symbol = Own.text(message, Symbol.FIELD, "a symbol");
        if (!symbol.equals(contract.symbol())) {
            throw new BadMessage("expected orders for " + contract.symbol() + ", found " + symbol);
        }
        long time = Own.has(message, Tags.NANOS)
                ? Own.number(message, Tags.NANOS, "a time")
                : Stamp.nanos(Own.text(message, TransactTime.FIELD, "a time"));
        String type = Own.type(message);
        if (type.equals(MsgType.ORDER_SINGLE)) {
            ToBroker.Ticket ticket = ticket(message);
            ToBroker.Place place = new ToBroker.Place(name, ticket,
                    Own.text(message, Tags.GROUP, "a group", name), Own.text(message, Tags.PAIR, "a pair", ""), time);
            keep(name, ticket, name);
            return place;
        }
        String order = order(Own.text(message, OrigClOrdID.FIELD, "the identifier of the order that is meant"));
        names.put(name, order);
        if (type.equals(MsgType.ORDER_CANCEL_REQUEST)) {
            return new ToBroker.Cancel(name, order, Own.yes(message, Tags.AT_ONCE), time);
        }
        String changes = Own.text(message, Tags.CHANGES, "what is changed", "PRICE");
        return switch (changes) {
            case "MARKET" -> new ToBroker.AtMarket(name, order, time);
            case "QUANTITY" -> new ToBroker.Resize(name, order,
                    Own.contracts(message, OrderQty.FIELD, "a quantity"), time);
            case "PRICE" -> new ToBroker.Reprice(name, order, Own.price(message, contract), time);
            default -> throw new BadMessage("expected PRICE, QUANTITY or MARKET, found " + changes);
        };
    }

    private ToBroker.Ticket ticket(Message message) throws BadMessage {
        Order.Type type = typeOf(Own.text(message, OrdType.FIELD, "an order type"));
        int quantity = Own.contracts(message, OrderQty.FIELD, "a quantity");
        if (quantity < 1) {
            throw new BadMessage("expected a quantity of 1 or more, found " + quantity);
        }
        boolean buy = switch (Own.text(message, Side.FIELD, "a side")) {
            case "1" -> true;
            case "2" -> false;
            default -> throw new BadMessage("expected side 1 or 2, found " + Own.text(message, Side.FIELD, "a side"));
        };
        long price = type == Order.Type.MARKET ? Tape.NONE : Own.price(message, contract);
        int beyond = 0;
        if (type == Order.Type.STOP_LIMIT) {
            long limit = Own.ticks(contract, Own.text(message, Price.FIELD, "a limit"));
            beyond = Math.toIntExact(buy ? limit - price : price - limit);
        }
        Order.GoodFor goodFor = Own.text(message, TimeInForce.FIELD, "how long it stays", "0").equals("0")
                ? Order.GoodFor.DAY
                : Order.GoodFor.UNTIL_CANCELLED;
        Order.Role role = role(Own.text(message, Tags.ROLE, "a role", Order.Role.ENTRY.name()));
        return new ToBroker.Ticket(buy, type, quantity, price, beyond, goodFor, role, Own.yes(message, Tags.AT_ONCE));
    }

    private static Order.Role role(String word) throws BadMessage {
        for (Order.Role role : Order.Role.values()) {
            if (role.name().equals(word)) {
                return role;
            }
        }
        throw new BadMessage("expected ENTRY, STOP, TARGET or LEAVE, found " + word);
    }

    static Order.Type typeOf(String word) throws BadMessage {
        return switch (word) {
            case "1" -> Order.Type.MARKET;
            case "2" -> Order.Type.LIMIT;
            case "3" -> Order.Type.STOP;
            case "4" -> Order.Type.STOP_LIMIT;
            default -> throw new BadMessage("expected order type 1, 2, 3 or 4, found " + word);
        };
    }
}
