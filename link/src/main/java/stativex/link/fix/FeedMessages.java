package stativex.link.fix;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import quickfix.FieldNotFound;
import quickfix.Group;
import quickfix.Message;
import quickfix.field.MDEntryDate;
import quickfix.field.MDEntryPx;
import quickfix.field.MDEntrySize;
import quickfix.field.MDEntryTime;
import quickfix.field.MDEntryType;
import quickfix.field.MDReqID;
import quickfix.field.MDUpdateAction;
import quickfix.field.MsgType;
import quickfix.field.NoMDEntries;
import quickfix.field.SendingTime;
import quickfix.field.Symbol;
import quickfix.field.Text;
import stativex.link.VenueEvent;
import stativex.market.Aggressor;
import stativex.market.Contract;
import stativex.market.Tape;

/**
 * Market data as FIX 4.4 writes it: Market Data Incremental Refresh (X), whose entries change the best bid and offer (types 0 and 1) and
 * tell trades (type 2), in their order. Both ends keep the quote as it stands. One contract. Not safe for several threads.
 */
final class FeedMessages {
    private static final int[] FIELDS = {MDUpdateAction.FIELD, MDEntryType.FIELD, Symbol.FIELD, MDEntryPx.FIELD,
            MDEntrySize.FIELD, MDEntryDate.FIELD, MDEntryTime.FIELD, Text.FIELD, 0};

    private final Contract contract;
    private final Quote bid = new Quote(MDEntryType.BID);
    private final Quote ask = new Quote(MDEntryType.OFFER);

    /** One side as it stands. */
    private static final class Quote {
        final char type;
        /** Whether the other end has been told how it stands. */
        boolean known;
        long price = Tape.NONE;
        long size = Tape.NONE;

        Quote(char type) {
            this.type = type;
        }
    }

    FeedMessages(Contract contract) {
        this.contract = contract;
    }

    /** Whoever is at the other end knows no quote: the next message tells both sides. */
    void anew() {
        bid.known = false;
        ask.known = false;
    }

    // ------------------------------------------------------------------ out

    /** Prints {@code from} to {@code to} of a tape, the last one not included. */
    Message write(Tape tape, int from, int to, String request) {
        Message message = Own.message(MsgType.MARKET_DATA_INCREMENTAL_REFRESH);
        message.setString(MDReqID.FIELD, request);
        Own.number(message, Tags.NUMBER, from + 1L);
        for (int print = from; print < to; print++) {
            quote(message, bid, tape.bid(print), tape.bidSize(print));
            quote(message, ask, tape.ask(print), tape.askSize(print));
            Group trade = entry(MDUpdateAction.NEW, MDEntryType.TRADE);
            trade.setString(MDEntryPx.FIELD, contract.text(tape.price(print)));
            Own.number(trade, MDEntrySize.FIELD, tape.size(print));
            trade.setString(MDEntryDate.FIELD, Stamp.date(tape.time(print)));
            trade.setString(MDEntryTime.FIELD, Stamp.time(tape.time(print)));
            trade.setString(Text.FIELD, tape.aggressor(print).name());
            message.addGroup(trade);
        }
        return message;
    }

    private void quote(Message message, Quote side, long price, long size) {
        if (side.known && price == side.price && size == side.size) {
            return;
        }
        side.known = true;
        side.price = price;
        side.size = size;
        Group entry = entry(price == Tape.NONE ? MDUpdateAction.DELETE : MDUpdateAction.NEW, side.type);
        if (price != Tape.NONE) {
            entry.setString(MDEntryPx.FIELD, contract.text(price));
            if (size != Tape.NONE) {
                Own.number(entry, MDEntrySize.FIELD, size);
            }
        }
        message.addGroup(entry);
    }

    private Group entry(char action, char type) {
        Group entry = new Group(NoMDEntries.FIELD, MDUpdateAction.FIELD, FIELDS);
        entry.setChar(MDUpdateAction.FIELD, action);
        entry.setChar(MDEntryType.FIELD, type);
        entry.setString(Symbol.FIELD, contract.symbol());
        return entry;
    }

    // ------------------------------------------------------------------ in

    /** @throws BadMessage when it makes no sense; nothing of it is told then */
    VenueEvent.Prints read(Message message) throws BadMessage {
        List<VenueEvent.Print> prints = new ArrayList<>();
        int entries = Own.has(message, NoMDEntries.FIELD)
                ? Own.contracts(message, NoMDEntries.FIELD, "a number of entries")
                : 0;
        for (int i = 1; i <= entries; i++) {
            Group entry = group(message, i);
            String symbol = Own.text(entry, Symbol.FIELD, "a symbol", contract.symbol());
            if (!symbol.equals(contract.symbol())) {
                throw new BadMessage("expected market data of " + contract.symbol() + ", found " + symbol);
            }
            switch (Own.text(entry, MDEntryType.FIELD, "a type of entry")) {
                case "0" -> quote(entry, bid);
                case "1" -> quote(entry, ask);
                case "2" -> prints.add(trade(entry));
                default -> {
                    // opening prices, volumes and the like are of no use here
                }
            }
        }
        return new VenueEvent.Prints(prints, sent(message), stamp(message), Own.has(message, Tags.NUMBER)
                ? OptionalInt.of((int) Own.number(message, Tags.NUMBER, "the number of a trade"))
                : OptionalInt.empty());
    }

    /** When a message was sent; a venue that says nothing else has the time of its computer. */
    private static VenueEvent.Sent stamp(Message message) throws BadMessage {
        long wall = wall(message);
        return new VenueEvent.Sent(wall,
                Own.has(message, Tags.NANOS) ? Own.number(message, Tags.NANOS, "the venue's time") : wall,
                Own.has(message, Tags.SPEED) ? Own.decimal(message, Tags.SPEED, "a speed above 0") : 1);
    }

    /** When a message was sent by its sender's clock, nanoseconds. */
    static long wall(Message message) throws BadMessage {
        return Stamp.nanos(Own.text(message.getHeader(), SendingTime.FIELD, "a sending time"));
    }

    private static Group group(Message message, int number) throws BadMessage {
        try {
            return message.getGroup(number, NoMDEntries.FIELD);
        } catch (FieldNotFound e) {
            throw new BadMessage("expected entry " + number + " of market data, found none");
        }
    }

    private void quote(Group entry, Quote side) throws BadMessage {
        boolean gone = Own.text(entry, MDUpdateAction.FIELD, "what is done", "0").equals("2");
        side.price = gone ? Tape.NONE : Own.ticks(contract, Own.text(entry, MDEntryPx.FIELD, "a price"));
        side.size = gone || !Own.has(entry, MDEntrySize.FIELD)
                ? Tape.NONE
                : Own.contracts(entry, MDEntrySize.FIELD, "a size");
    }

    private VenueEvent.Print trade(Group entry) throws BadMessage {
        long time = Stamp.nanos(Own.text(entry, MDEntryDate.FIELD, "a date") + "-"
                + Own.text(entry, MDEntryTime.FIELD, "a time"));
        return new VenueEvent.Print(time, Own.ticks(contract, Own.text(entry, MDEntryPx.FIELD, "a price")),
                Own.contracts(entry, MDEntrySize.FIELD, "a size"), bid.price, ask.price, bid.size, ask.size,
                aggressor(Own.text(entry, Text.FIELD, "who took the initiative", "")));
    }

    private static Optional<Aggressor> aggressor(String word) {
        for (Aggressor one : Aggressor.values()) {
            if (one.name().equals(word)) {
                return Optional.of(one);
            }
        }
        return Optional.empty();
    }

    /** How many reports its sender has sent before it, where it keeps step. */
    static OptionalInt sent(Message message) throws BadMessage {
        return Own.has(message, Tags.SENT)
                ? OptionalInt.of((int) Own.number(message, Tags.SENT, "a number of messages"))
                : OptionalInt.empty();
    }
}
