package stativex.link.fix;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import quickfix.Message;
import quickfix.field.AvgPx;
import quickfix.field.ClOrdID;
import quickfix.field.CumQty;
import quickfix.field.CxlRejResponseTo;
import quickfix.field.ExecID;
import quickfix.field.ExecRefID;
import quickfix.field.ExecType;
import quickfix.field.LastPx;
import quickfix.field.LastQty;
import quickfix.field.LeavesQty;
import quickfix.field.MsgType;
import quickfix.field.OrdStatus;
import quickfix.field.OrdType;
import quickfix.field.OrderID;
import quickfix.field.OrderQty;
import quickfix.field.OrigClOrdID;
import quickfix.field.Price;
import quickfix.field.Side;
import quickfix.field.StopPx;
import quickfix.field.Symbol;
import quickfix.field.Text;
import quickfix.field.TransactTime;
import stativex.link.VenueEvent;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.order.FromBroker;
import stativex.order.Order;
import stativex.order.ToBroker;

/** What becomes of orders as FIX 4.4 writes it: Execution Report (8) and Order Cancel Reject (9). One contract. Not safe for several threads. */
final class ReportMessages {
    private final Contract contract;
    private final Map<String, Filled> filled = new HashMap<>();
    /** By identifier: what was filled. */
    private final Map<String, Filled> executions = new HashMap<>();
    private int identifiers;

    /** So far, of an order. @param sum of price × quantity, ticks */
    private record Filled(int contracts, long sum) {}

    ReportMessages(Contract contract) {
        this.contract = contract;
    }

    // ------------------------------------------------------------------ out

    /**
     * @param ticket of the order, where anybody knows it
     * @param run what identifiers begin with, unlike those of any other run of the venue
     */
    Message write(FromBroker told, Optional<ToBroker.Ticket> ticket, String run, long time) {
        Message message = told instanceof FromBroker.NotChanged not
                ? notChanged(not)
                : execution(told, ticket.orElseThrow(), run);
        message.setString(TransactTime.FIELD, Stamp.millis(time));
        Own.number(message, Tags.NANOS, told instanceof FromBroker.Filled fill ? fill.time() : time);
        return message;
    }

    private static Message notChanged(FromBroker.NotChanged not) {
        Message message = Own.message(MsgType.ORDER_CANCEL_REJECT);
        message.setString(OrderID.FIELD, not.order());
        message.setString(ClOrdID.FIELD, not.request());
        message.setString(OrigClOrdID.FIELD, not.order());
        message.setChar(OrdStatus.FIELD, OrdStatus.REJECTED);
        message.setChar(CxlRejResponseTo.FIELD, CxlRejResponseTo.ORDER_CANCEL_REPLACE_REQUEST);
        message.setString(Text.FIELD, not.why());
        return message;
    }

    private Message execution(FromBroker told, ToBroker.Ticket ticket, String run) {
        Message message = Own.message(MsgType.EXECUTION_REPORT);
        message.setString(OrderID.FIELD, told.order());
        message.setString(ExecID.FIELD, run + "-" + ++identifiers);
        message.setString(ClOrdID.FIELD, told.order());
        message.setString(Symbol.FIELD, contract.symbol());
        message.setChar(Side.FIELD, ticket.buy() ? Side.BUY : Side.SELL);
        asked(message, ticket);
        Filled before = filled.getOrDefault(told.order(), new Filled(0, 0));
        boolean over = false;
        switch (told) {
            case FromBroker.Received received -> {
                boolean order = received.request().equals(told.order());
                status(message, order ? ExecType.PENDING_NEW : ExecType.PENDING_REPLACE,
                        order ? OrdStatus.PENDING_NEW : OrdStatus.PENDING_REPLACE);
                if (!order) {
                    message.setString(ClOrdID.FIELD, received.request());
                    message.setString(OrigClOrdID.FIELD, told.order());
                }
            }
            case FromBroker.Working ignored -> status(message, ExecType.NEW, OrdStatus.NEW);
            case FromBroker.Repriced repriced -> {
                status(message, ExecType.REPLACED, OrdStatus.REPLACED);
                message.setString(ClOrdID.FIELD, repriced.request());
                message.setString(OrigClOrdID.FIELD, told.order());
                message.setString(ticket.type() == Order.Type.LIMIT ? Price.FIELD : StopPx.FIELD,
                        contract.text(repriced.price()));
            }
            case FromBroker.Turned turned -> {
                status(message, ExecType.REPLACED, OrdStatus.REPLACED);
                message.setString(ClOrdID.FIELD, turned.request());
                message.setString(OrigClOrdID.FIELD, told.order());
                message.setChar(OrdType.FIELD, OrdType.MARKET);
            }
            case FromBroker.Triggered ignored -> {
                status(message, ExecType.RESTATED, OrdStatus.NEW);
                message.setString(Tags.TRIGGERED, "Y");
            }
            case FromBroker.Filled fill -> {
                before = new Filled(fill.cumulative(), before.sum() + fill.price() * fill.quantity());
                filled.put(told.order(), before);
                executions.put(fill.execution(), new Filled(fill.quantity(), fill.price() * fill.quantity()));
                over = fill.done();
                status(message, ExecType.TRADE, over ? OrdStatus.FILLED : OrdStatus.PARTIALLY_FILLED);
                message.setString(ExecID.FIELD, run + "-" + fill.execution());
                Own.number(message, LastQty.FIELD, fill.quantity());
                message.setString(LastPx.FIELD, contract.text(fill.price()));
                Own.number(message, Tags.SLIPPAGE, fill.slippage());
            }
            case FromBroker.Ended ignored -> {
                over = true;
                status(message, ExecType.CANCELED, OrdStatus.CANCELED);
            }
            case FromBroker.Refused refused -> {
                over = true;
                status(message, ExecType.REJECTED, OrdStatus.REJECTED);
                message.setString(Text.FIELD, refused.why());
            }
            case FromBroker.Corrected corrected -> {
                long instead = corrected.quantity() == 0 ? 0 : corrected.price() * corrected.quantity();
                Filled was = executions.getOrDefault(corrected.of(), new Filled(0, 0));
                before = new Filled(corrected.cumulative(), before.sum() - was.sum() + instead);
                filled.put(told.order(), before);
                executions.put(corrected.execution(), new Filled(corrected.quantity(), instead));
                status(message, corrected.quantity() == 0 ? ExecType.TRADE_CANCEL : ExecType.TRADE_CORRECT,
                        before.contracts() == 0 ? OrdStatus.CANCELED : OrdStatus.PARTIALLY_FILLED);
                over = true;
                message.setString(ExecID.FIELD, run + "-" + corrected.execution());
                message.setString(ExecRefID.FIELD, run + "-" + corrected.of());
                Own.number(message, LastQty.FIELD, corrected.quantity());
                message.setString(LastPx.FIELD, contract.text(corrected.quantity() == 0
                        ? was.contracts() == 0 ? 0 : was.sum() / was.contracts()
                        : corrected.price()));
            }
            case FromBroker.Status ignored -> throw new IllegalStateException("an answer");
            case FromBroker.Elsewhere ignored -> throw new IllegalStateException("a client's word");
            case FromBroker.Foreign ignored -> throw new IllegalStateException("a client's word");
            case FromBroker.NotChanged ignored -> throw new IllegalStateException("told otherwise");
            case FromBroker.Known ignored -> throw new IllegalStateException("an answer");
            case FromBroker.NeverAccepted ignored -> throw new IllegalStateException("a conclusion");
        }
        Own.number(message, CumQty.FIELD, before.contracts());
        Own.number(message, LeavesQty.FIELD, over ? 0 : Math.max(1, ticket.quantity() - before.contracts()));
        message.setString(AvgPx.FIELD, before.contracts() == 0
                ? "0"
                : contract.meanText(before.sum(), before.contracts()));
        return message;
    }

    private static void status(Message message, char execution, char order) {
        message.setChar(ExecType.FIELD, execution);
        message.setChar(OrdStatus.FIELD, order);
    }

    /** The answer to how an order stands. @param status empty: nobody knows it */
    Message status(String order, Optional<FromBroker.Status> status, Optional<ToBroker.Ticket> ticket, String run) {
        Message message = Own.message(MsgType.EXECUTION_REPORT);
        message.setString(OrderID.FIELD, status.isPresent() ? order : "NONE");
        message.setString(ExecID.FIELD, run + "-s" + ++identifiers);
        message.setString(ClOrdID.FIELD, order);
        message.setString(Symbol.FIELD, contract.symbol());
        message.setChar(Side.FIELD, ticket.map(of -> of.buy() ? Side.BUY : Side.SELL).orElse(Side.UNDISCLOSED));
        int filledSoFar = status.map(FromBroker.Status::cumulative).orElse(0);
        int quantity = ticket.map(ToBroker.Ticket::quantity).orElse(0);
        boolean over = status.map(FromBroker.Status::over).orElse(true);
        status(message, ExecType.ORDER_STATUS, status.isEmpty()
                ? OrdStatus.REJECTED
                : over
                        ? filledSoFar > 0 && filledSoFar >= quantity ? OrdStatus.FILLED : OrdStatus.CANCELED
                        : filledSoFar > 0 ? OrdStatus.PARTIALLY_FILLED : OrdStatus.NEW);
        message.setString(Text.FIELD, status.isPresent() ? "known" : "unknown order");
        ticket.ifPresent(of -> asked(message, of));
        Own.number(message, CumQty.FIELD, filledSoFar);
        Own.number(message, LeavesQty.FIELD, over ? 0 : Math.max(1, quantity - filledSoFar));
        message.setString(AvgPx.FIELD, filledSoFar == 0
                ? "0"
                : contract.meanText(status.orElseThrow().sum(), filledSoFar));
        return message;
    }

    private void asked(Message message, ToBroker.Ticket of) {
        Own.number(message, OrderQty.FIELD, of.quantity());
        message.setChar(OrdType.FIELD, OrderMessages.type(of.type()));
        if (of.price() != Tape.NONE) {
            message.setString(of.type() == Order.Type.LIMIT ? Price.FIELD : StopPx.FIELD, contract.text(of.price()));
        }
    }

    /** What one that answers says of an order of ours. */
    FromBroker.Status statusOf(Message message, String order) throws BadMessage {
        int cumulative = Own.contracts(message, CumQty.FIELD, "a quantity filled in all");
        return new FromBroker.Status(order, cumulative, sum(message, cumulative), isOver(message));
    }

    /** Prices of all contracts together: an average may be rounded, so it is the nearest number of ticks. */
    private long sum(Message message, int cumulative) throws BadMessage {
        if (cumulative == 0) {
            return 0;
        }
        String average = Own.text(message, AvgPx.FIELD, "an average price");
        try {
            return new BigDecimal(average).multiply(BigDecimal.valueOf(cumulative))
                    .divide(contract.tickSize(), 0, RoundingMode.HALF_EVEN).longValueExact();
        } catch (ArithmeticException | NumberFormatException e) {
            throw new BadMessage("expected an average price (field " + AvgPx.FIELD + "), found " + average);
        }
    }

    private static boolean isOver(Message message) throws BadMessage {
        return switch (Own.text(message, OrdStatus.FIELD, "a status")) {
            case "2", "3", "4", "8", "C" -> true;
            default -> false;
        };
    }

    /** What is told of an order that nobody here sent. @param listed it answers the question for all orders */
    FromBroker foreign(Message message, boolean listed) throws BadMessage {
        String id = Own.text(message, ClOrdID.FIELD, "an identifier of the order", "");
        String order = id.isEmpty() ? Own.text(message, OrderID.FIELD, "an identifier of the order") : id;
        boolean buy = Own.text(message, Side.FIELD, "a side").equals("1");
        boolean over = isOver(message);
        String happened = Own.text(message, ExecType.FIELD, "what happened");
        if (happened.equals("H")) {
            return corrected(message, order, 0, Tape.NONE);
        }
        if (happened.equals("G")) {
            return corrected(message, order, Own.contracts(message, LastQty.FIELD, "a quantity"),
                    Own.ticks(contract, Own.text(message, LastPx.FIELD, "a price")));
        }
        if (!listed && happened.equals("F")) {
            return new FromBroker.Elsewhere(order, Own.text(message, ExecID.FIELD, "an execution's identifier"), buy,
                    Own.contracts(message, LastQty.FIELD, "a quantity"),
                    Own.ticks(contract, Own.text(message, LastPx.FIELD, "a price")), over, time(message));
        }
        StringBuilder words = new StringBuilder(buy ? "buy " : "sell ");
        words.append(Own.text(message, OrderQty.FIELD, "a quantity", "?"));
        words.append(switch (Own.text(message, OrdType.FIELD, "an order type", "?")) {
            case "1" -> " at the market";
            case "2" -> " limit " + Own.text(message, Price.FIELD, "a price", "?");
            case "3" -> " stop " + Own.text(message, StopPx.FIELD, "a price", "?");
            case "4" -> " stop-limit " + Own.text(message, StopPx.FIELD, "a price", "?");
            default -> "";
        });
        return new FromBroker.Foreign(order, words.toString(), over, listed);
    }

    private static long time(Message message) throws BadMessage {
        return Own.has(message, Tags.NANOS)
                ? Own.number(message, Tags.NANOS, "a time")
                : Stamp.nanos(Own.text(message, TransactTime.FIELD, "a time"));
    }

    static OptionalInt number(Message message) throws BadMessage {
        return Own.has(message, Tags.REPORTS)
                ? OptionalInt.of((int) Own.number(message, Tags.REPORTS, "a number of the report"))
                : OptionalInt.empty();
    }

    /** Whether a message answers that question. */
    static boolean isStatus(Message message) throws BadMessage {
        return Own.type(message).equals(MsgType.EXECUTION_REPORT)
                && Own.text(message, ExecType.FIELD, "what happened").equals("I");
    }

    // ------------------------------------------------------------------ in

    /**
     * @param order the name of the order for an identifier
     * @throws BadMessage when it makes no sense
     */
    VenueEvent.Reported read(Message message, UnaryOperator<String> order) throws BadMessage {
        String id = Own.text(message, ClOrdID.FIELD, "an identifier of the order");
        long time = time(message);
        String name = order.apply(id);
        OptionalInt number = number(message);
        if (Own.type(message).equals(MsgType.ORDER_CANCEL_REJECT)) {
            return new VenueEvent.Reported(new FromBroker.NotChanged(
                    order.apply(Own.text(message, OrigClOrdID.FIELD, "the identifier of the order that is meant")), id,
                    Own.text(message, Text.FIELD, "a reason", "no reason given")), time, number);
        }
        return new VenueEvent.Reported(switch (Own.text(message, ExecType.FIELD, "what happened")) {
            case "A", "E", "6" -> new FromBroker.Received(name, id);
            case "0" -> new FromBroker.Working(name);
            case "5" -> Own.text(message, OrdType.FIELD, "an order type", "0").equals("1")
                    ? new FromBroker.Turned(name, id)
                    : new FromBroker.Repriced(name, id, Own.price(message, contract));
            case "D" -> {
                if (!Own.yes(message, Tags.TRIGGERED)) {
                    throw new BadMessage("expected a restatement that says what it is about, found none");
                }
                yield new FromBroker.Triggered(name);
            }
            case "F" -> new FromBroker.Filled(name, Own.text(message, ExecID.FIELD, "an execution's identifier"),
                    Own.contracts(message, LastQty.FIELD, "a quantity"),
                    Own.ticks(contract, Own.text(message, LastPx.FIELD, "a price")),
                    Own.contracts(message, CumQty.FIELD, "a quantity filled in all"),
                    Own.contracts(message, LeavesQty.FIELD, "a quantity left") == 0,
                    Own.has(message, Tags.SLIPPAGE) ? Own.number(message, Tags.SLIPPAGE, "a slippage") : 0, time);
            case "H" -> corrected(message, name, 0, Tape.NONE);
            case "G" -> corrected(message, name, Own.contracts(message, LastQty.FIELD, "a quantity"),
                    Own.ticks(contract, Own.text(message, LastPx.FIELD, "a price")));
            case "3", "4", "C" -> new FromBroker.Ended(name);
            case "8" -> new FromBroker.Refused(name, Own.text(message, Text.FIELD, "a reason", "no reason given"));
            default -> throw new BadMessage("expected a report of a kind that is known here, found "
                    + Own.text(message, ExecType.FIELD, "what happened"));
        }, time, number);
    }

    private FromBroker.Corrected corrected(Message message, String order, int quantity, long price)
            throws BadMessage {
        int cumulative = Own.contracts(message, CumQty.FIELD, "a quantity filled in all");
        return new FromBroker.Corrected(order, Own.text(message, ExecID.FIELD, "an execution's identifier"),
                Own.text(message, ExecRefID.FIELD, "the identifier of the execution that is meant"), quantity, price,
                cumulative, sum(message, cumulative), time(message));
    }
}
