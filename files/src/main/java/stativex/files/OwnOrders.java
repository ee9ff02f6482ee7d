package stativex.files;

import java.math.BigDecimal;
import stativex.account.Account;
import stativex.account.ForThePerson;
import tools.jackson.databind.node.ObjectNode;

/** What an account's interlocks do with the person's own orders, and when a line is near, as a person sets them. */
public final class OwnOrders {
    private OwnOrders() {}

    /** As an account's document has them. */
    public static ForThePerson of(Documents.Read<Account> account) {
        return account.value().own().person();
    }

    /** An account with others. @throws BadInput saying what is wrong */
    public static Documents.Read<Account> with(Documents.Read<Account> account, ForThePerson manners) {
        ObjectNode d = (ObjectNode) account.document().deepCopy();
        write(d, manners);
        return OwnLines.read(d);
    }

    /** What an interlock is called. */
    public static String name(ForThePerson.Of interlock) {
        return switch (interlock) {
            case LAST_TRADING_DAY -> "Last trading day";
            case QUIET_TIME -> "Quiet times";
            case TRADES_A_DAY -> "Trades a day";
            case MOST_CONTRACTS -> "Most contracts";
            case OWN_LINES -> "Own lines";
        };
    }

    /** What it does, in a word. */
    public static String name(ForThePerson.Response response) {
        return switch (response) {
            case STOP -> "stops";
            case ASK -> "asks";
            case WARN -> "warns";
        };
    }

    static String key(ForThePerson.Of interlock) {
        return switch (interlock) {
            case LAST_TRADING_DAY -> "lastTradingDay";
            case QUIET_TIME -> "quietTime";
            case TRADES_A_DAY -> "tradesADay";
            case MOST_CONTRACTS -> "mostContracts";
            case OWN_LINES -> "ownLines";
        };
    }

    /** Writes what is not as it is by default, and leaves the rest out. */
    static void write(ObjectNode d, ForThePerson manners) {
        ObjectNode orders = Json.MAPPER.createObjectNode();
        for (ForThePerson.Of interlock : ForThePerson.Of.values()) {
            if (manners.of(interlock) != interlock.byDefault()) {
                orders.put(key(interlock), manners.of(interlock).name().toLowerCase(java.util.Locale.ROOT));
            }
        }
        if (manners.along()) {
            orders.put("leaveWithStrategies", true);
        }
        d.remove("ownOrders");
        if (!orders.isEmpty()) {
            d.set("ownOrders", orders);
        }
        d.remove("near");
        if (!manners.near().equals(ForThePerson.Near.DEFAULT)) {
            d.putObject("near").put("percent", manners.near().percent()).put("stopOuts",
                    BigDecimal.valueOf(manners.near().tenths(), 1).toPlainString());
        }
    }
}
