package stativex.link.fix;

import quickfix.FieldNotFound;
import quickfix.Group;
import quickfix.Message;
import quickfix.field.Account;
import quickfix.field.AccountType;
import quickfix.field.ClearingBusinessDate;
import quickfix.field.LongQty;
import quickfix.field.MsgType;
import quickfix.field.NoPartyIDs;
import quickfix.field.NoPosAmt;
import quickfix.field.NoPositions;
import quickfix.field.PartyID;
import quickfix.field.PartyIDSource;
import quickfix.field.PartyRole;
import quickfix.field.PosAmt;
import quickfix.field.PosAmtType;
import quickfix.field.PosMaintRptID;
import quickfix.field.PosReqID;
import quickfix.field.PosReqResult;
import quickfix.field.PosReqType;
import quickfix.field.PosType;
import quickfix.field.PriorSettlPrice;
import quickfix.field.SettlPrice;
import quickfix.field.SettlPriceType;
import quickfix.field.ShortQty;
import quickfix.field.Symbol;
import quickfix.field.TransactTime;
import stativex.link.VenueEvent;
import stativex.market.Contract;
import stativex.market.Tape;

/**
 * How many contracts are held, as FIX 4.4 asks and tells it: Request For Positions (AN) and Position Report (AP). Both go over the session
 * of the orders, so that every fill that an answer holds has been told before it. One contract, one account.
 */
final class PositionMessages {
    private static final String ACCOUNT = "1";

    private PositionMessages() {}

    /** @param id of the request, never used twice; {@code now} nanoseconds */
    static Message ask(Contract contract, String id, long now) {
        Message message = Own.message(MsgType.REQUEST_FOR_POSITIONS);
        message.setString(PosReqID.FIELD, id);
        Own.number(message, PosReqType.FIELD, PosReqType.POSITIONS);
        account(message, contract, now);
        message.setString(TransactTime.FIELD, Stamp.millis(now));
        return message;
    }

    /**
     * @param net contracts, below 0 when short
     * @param price that they are valued at, ticks
     */
    static Message tell(Contract contract, String id, long net, long price, long now) {
        Message message = Own.message(MsgType.POSITION_REPORT);
        message.setString(PosMaintRptID.FIELD, id);
        message.setString(PosReqID.FIELD, id);
        Own.number(message, PosReqResult.FIELD, 0);
        account(message, contract, now);
        String at = price == Tape.NONE ? "0" : contract.text(price);
        message.setString(SettlPrice.FIELD, at);
        Own.number(message, SettlPriceType.FIELD, 2);
        message.setString(PriorSettlPrice.FIELD, at);
        Group held = new Group(NoPositions.FIELD, PosType.FIELD,
                new int[]{PosType.FIELD, LongQty.FIELD, ShortQty.FIELD, 0});
        held.setString(PosType.FIELD, "TOT");
        Own.number(held, LongQty.FIELD, Math.max(0, net));
        Own.number(held, ShortQty.FIELD, Math.max(0, -net));
        message.addGroup(held);
        Group amount = new Group(NoPosAmt.FIELD, PosAmtType.FIELD, new int[]{PosAmtType.FIELD, PosAmt.FIELD, 0});
        amount.setString(PosAmtType.FIELD, "TVAR");
        Own.number(amount, PosAmt.FIELD, 0);
        message.addGroup(amount);
        return message;
    }

    private static void account(Message message, Contract contract, long now) {
        Group party = new Group(NoPartyIDs.FIELD, PartyID.FIELD,
                new int[]{PartyID.FIELD, PartyIDSource.FIELD, PartyRole.FIELD, 0});
        party.setString(PartyID.FIELD, ACCOUNT);
        party.setChar(PartyIDSource.FIELD, PartyIDSource.PROPRIETARY_CUSTOM_CODE);
        Own.number(party, PartyRole.FIELD, PartyRole.CUSTOMER_ACCOUNT);
        message.addGroup(party);
        message.setString(Account.FIELD, ACCOUNT);
        Own.number(message, AccountType.FIELD, 1);
        message.setString(Symbol.FIELD, contract.symbol());
        message.setString(ClearingBusinessDate.FIELD, Stamp.date(now));
    }

    /** @throws BadMessage when it makes no sense */
    static VenueEvent.Held read(Message message, Contract contract) throws BadMessage {
        String symbol = Own.text(message, Symbol.FIELD, "a symbol", contract.symbol());
        if (!symbol.equals(contract.symbol())) {
            throw new BadMessage("expected a position in " + contract.symbol() + ", found one in " + symbol);
        }
        int groups = Own.has(message, NoPositions.FIELD)
                ? Own.contracts(message, NoPositions.FIELD, "a number of positions")
                : 0;
        long net = 0;
        for (int i = 1; i <= groups; i++) {
            try {
                Group held = message.getGroup(i, NoPositions.FIELD);
                net += quantity(held, LongQty.FIELD) - quantity(held, ShortQty.FIELD);
            } catch (FieldNotFound e) {
                throw new BadMessage("expected position " + i + ", found none");
            }
        }
        return new VenueEvent.Held(net);
    }

    private static long quantity(Group held, int field) throws BadMessage {
        return Own.has(held, field) ? Own.contracts(held, field, "a quantity held") : 0;
    }
}
