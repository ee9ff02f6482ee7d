package stativex.link.fix;

import quickfix.FieldMap;
import quickfix.FieldNotFound;
import quickfix.Message;
import quickfix.field.MsgType;
import quickfix.field.Price;
import quickfix.field.StopPx;
import stativex.market.Contract;

/** Reads and writes fields of messages, those of {@link Tags} among them. */
final class Own {
    private Own() {}

    static Message message(String type) {
        Message message = new Message();
        message.getHeader().setString(quickfix.field.BeginString.FIELD, "FIX.4.4");
        message.getHeader().setString(MsgType.FIELD, type);
        return message;
    }

    static String type(Message message) throws BadMessage {
        return text(message.getHeader(), MsgType.FIELD, "a type");
    }

    static boolean has(FieldMap message, int tag) {
        return message.isSetField(tag);
    }

    /** @param what the field is, for the sentence that says it is missing */
    static String text(FieldMap message, int tag, String what) throws BadMessage {
        try {
            return message.getString(tag);
        } catch (FieldNotFound e) {
            throw new BadMessage("expected " + what + " (field " + tag + "), found none");
        }
    }

    static String text(FieldMap message, int tag, String what, String without) throws BadMessage {
        return has(message, tag) ? text(message, tag, what) : without;
    }

    static boolean yes(FieldMap message, int tag) throws BadMessage {
        return text(message, tag, "Y", "N").equals("Y");
    }

    static long number(FieldMap message, int tag, String what) throws BadMessage {
        String text = text(message, tag, what);
        try {
            return Long.parseLong(text);
        } catch (NumberFormatException e) {
            throw new BadMessage("expected " + what + " (field " + tag + ") as a whole number, found " + text);
        }
    }

    /** A number above 0 that need not be whole. */
    static double decimal(FieldMap message, int tag, String what) throws BadMessage {
        String text = text(message, tag, what);
        try {
            double value = Double.parseDouble(text);
            if (value > 0 && Double.isFinite(value)) {
                return value;
            }
        } catch (NumberFormatException e) {
            // said below
        }
        throw new BadMessage("expected " + what + " (field " + tag + "), found " + text);
    }

    /** A quantity: FIX writes it as a decimal, contracts are whole. */
    static int contracts(FieldMap message, int tag, String what) throws BadMessage {
        String text = text(message, tag, what);
        try {
            return new java.math.BigDecimal(text).intValueExact();
        } catch (ArithmeticException | NumberFormatException e) {
            throw new BadMessage("expected " + what + " (field " + tag + ") in whole contracts, found " + text);
        }
    }

    static void number(FieldMap message, int tag, long value) {
        message.setString(tag, Long.toString(value));
    }

    /** The stop's price where an order has one, else the limit. */
    static long price(FieldMap message, Contract contract) throws BadMessage {
        return ticks(contract, has(message, StopPx.FIELD)
                ? text(message, StopPx.FIELD, "a stop price")
                : text(message, Price.FIELD, "a limit"));
    }

    /** A price in the contract's units, on its grid. */
    static long ticks(Contract contract, String text) throws BadMessage {
        try {
            return contract.price(text);
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw new BadMessage(e.getMessage());
        }
    }
}
