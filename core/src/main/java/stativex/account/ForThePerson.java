package stativex.account;

import java.util.EnumMap;
import java.util.Map;

/**
 * What an account's interlocks do with the person's own orders, and from when on a line counts as near. A lock, a broken account and
 * the rulebook's lines, sizes and flat by always stop. Source: SEMANTICS, "Interlocks" and "Account rulebooks".
 *
 * @param orders what each interlock that can be set does; one that is not named does what it does by default
 * @param along whether the person's position on a contract leaves with the flattens of a window or a strategy there; with those of
 *     the account, the contract and the rulebook it always does
 */
public record ForThePerson(Map<Of, Response> orders, boolean along, Near near) {
    /** Own lines ask, everything else stops; the position stays; near as the trade has it. */
    public static final ForThePerson DEFAULT = new ForThePerson(Map.of(), false, Near.DEFAULT);

    /** Interlocks that can be set. */
    public enum Of {
        LAST_TRADING_DAY(Response.STOP), QUIET_TIME(Response.STOP), TRADES_A_DAY(Response.STOP), MOST_CONTRACTS(
                Response.STOP),
        /** The line check against the account's and the contract's own lines. */
        OWN_LINES(Response.ASK);

        private final Response response;

        Of(Response response) {
            this.response = response;
        }

        /** What it does where nothing is set. */
        public Response byDefault() {
            return response;
        }
    }

    /** What an interlock does with an order of the person's. */
    public enum Response {
        /** Declines it. */
        STOP,
        /** Declines it unless the person has been asked and wants it all the same. */
        ASK,
        /** Lets it pass and says so. */
        WARN
    }

    /**
     * From when on a loss line counts as near.
     *
     * @param percent of the allowance: below it, 0 to 100
     * @param tenths of a full stop-out: below it, 0 or more
     */
    public record Near(int percent, int tenths) {
        /** 20 % of the allowance, or one full stop-out. */
        public static final Near DEFAULT = new Near(20, 10);

        public Near {
            if (percent < 0 || percent > 100 || tenths < 0) {
                throw new IllegalArgumentException("expected 0 to 100 percent, and 0 or more stop-outs");
            }
        }
    }

    public ForThePerson {
        EnumMap<Of, Response> all = new EnumMap<>(Of.class);
        for (Of of : Of.values()) {
            all.put(of, orders.getOrDefault(of, of.byDefault()));
        }
        orders = Map.copyOf(all);
    }

    /** The same with another response. */
    public ForThePerson with(Of interlock, Response response) {
        Map<Of, Response> others = new EnumMap<>(orders);
        others.put(interlock, response);
        return new ForThePerson(others, along, near);
    }

    public Response of(Of interlock) {
        return orders.get(interlock);
    }

    /** Whether an order of the person's goes past an interlock that is not clear. @param asked they have been asked, and want it */
    public boolean passes(Of interlock, boolean asked) {
        return switch (of(interlock)) {
            case STOP -> false;
            case ASK -> asked;
            case WARN -> true;
        };
    }
}
