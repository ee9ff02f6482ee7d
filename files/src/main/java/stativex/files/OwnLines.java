package stativex.files;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import stativex.account.Account;
import stativex.market.Money;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Own limits of an account, of a contract on it and of a strategy, as a person sets them: each a switch and its figures. */
public final class OwnLines {
    private OwnLines() {}

    /**
     * A limit with a real switch.
     *
     * @param first its figure, {@code second} another one where there is one
     */
    public record Limit(boolean on, String first, String second) {
        /** Off, nothing written. */
        public static final Limit OFF = new Limit(false, "", "");

        /** With a figure that is off while there is none. */
        static Limit of(JsonNode node) {
            return node.isNumber() ? new Limit(true, Long.toString(node.asLong()), "") : OFF;
        }

        private static Limit of(JsonNode line, String first, String second) {
            return line.isObject()
                    ? new Limit(line.path("on").asBoolean(false), line.path(first).asString(""),
                            second.isEmpty() ? "" : line.path(second).asString(""))
                    : OFF;
        }
    }

    /** Whose limit it is. */
    public enum Of {
        ACCOUNT, CONTRACT, STRATEGY
    }

    /** The kinds of limits, by what they are called in documents. */
    public enum Kind {
        DAY_LOSS("dayLoss", "amount", ""), DAY_PROFIT("dayProfit", "amount", ""), GIVE_BACK("giveBack", "fall",
                "after"), LOSING_RUN("losingRun", "trades", "pauseMinutes"), TRADES("tradesADay", "",
                        ""), CONTRACTS("mostContracts", "", "");

        private final String key;
        private final String first;
        private final String second;

        Kind(String key, String first, String second) {
            this.key = key;
            this.first = first;
            this.second = second;
        }
    }

    /** The limits that somebody may have. */
    public static List<Kind> kinds(Of whose) {
        return switch (whose) {
            case ACCOUNT -> List.of(Kind.DAY_LOSS, Kind.DAY_PROFIT, Kind.GIVE_BACK, Kind.LOSING_RUN, Kind.TRADES);
            case CONTRACT -> List.of(Kind.DAY_LOSS, Kind.DAY_PROFIT, Kind.TRADES, Kind.CONTRACTS);
            case STRATEGY -> List.of(Kind.DAY_LOSS, Kind.DAY_PROFIT, Kind.TRADES);
        };
    }

    private static Limit limit(JsonNode of, Kind kind) {
        return kind.first.isEmpty()
                ? Limit.of(of.path(kind.key))
                : Limit.of(of.path(kind.key), kind.first, kind.second);
    }

    /** As an account's document has them. */
    public static Map<Kind, Limit> of(Documents.Read<Account> account) {
        return of(account.document(), Of.ACCOUNT);
    }

    /** Those of a contract on it. */
    public static Map<Kind, Limit> of(Documents.Read<Account> account, String symbol) {
        for (JsonNode one : account.document().path("contractLimits")) {
            if (one.path("contract").asString("").equals(symbol)) {
                return of(one, Of.CONTRACT);
            }
        }
        return of(Json.MAPPER.createObjectNode(), Of.CONTRACT);
    }

    /** Those of a strategy. */
    public static Map<Kind, Limit> of(StrategyDraft strategy) {
        return of(strategy.document(), Of.STRATEGY);
    }

    private static Map<Kind, Limit> of(JsonNode node, Of whose) {
        Map<Kind, Limit> limits = new LinkedHashMap<>();
        kinds(whose).forEach(kind -> limits.put(kind, limit(node, kind)));
        return limits;
    }

    /** An account with other limits. @throws BadInput saying which figure is wrong */
    public static Documents.Read<Account> with(Documents.Read<Account> account, Map<Kind, Limit> limits) {
        ObjectNode d = (ObjectNode) account.document().deepCopy();
        put(d, limits);
        return read(d);
    }

    /** An account with other limits of a contract. @throws BadInput likewise */
    public static Documents.Read<Account> with(Documents.Read<Account> account, String symbol,
            Map<Kind, Limit> limits) {
        ObjectNode d = (ObjectNode) account.document().deepCopy();
        ArrayNode list = d.withArray("/contractLimits");
        ObjectNode own = null;
        for (JsonNode one : list) {
            own = one.path("contract").asString("").equals(symbol) ? (ObjectNode) one : own;
        }
        if (own == null) {
            own = list.addObject().put("contract", symbol);
        }
        put(own, limits);
        return read(d);
    }

    /** A strategy with other limits. @throws BadInput likewise */
    public static StrategyDraft with(StrategyDraft strategy, Map<Kind, Limit> limits) {
        return strategy.change(d -> put(d, limits));
    }

    /** An account with another rulebook. @throws BadInput where the two do not fit */
    public static Documents.Read<Account> with(Documents.Read<Account> account, JsonNode rulebook) {
        ObjectNode d = (ObjectNode) account.document().deepCopy();
        d.remove("rulebookFile");
        d.set("rulebook", rulebook.deepCopy());
        return read(d);
    }

    /** An account with other quiet times. @throws BadInput saying what is wrong */
    public static Documents.Read<Account> with(Documents.Read<Account> account, QuietSketch quiet) {
        ObjectNode d = (ObjectNode) account.document().deepCopy();
        quiet.write(d);
        return read(d);
    }

    static Documents.Read<Account> read(ObjectNode d) {
        return Documents.account(Json.line(d), d.path("name").asString("account"), other -> other);
    }

    private static void put(ObjectNode d, Map<Kind, Limit> limits) {
        limits.forEach((kind, limit) -> {
            if (kind.first.isEmpty()) {
                if (limit.on()) {
                    d.put(kind.key, whole(kind, limit.first()));
                } else {
                    d.remove(kind.key);
                }
            } else if (!limit.on() && limit.first().isBlank()) {
                d.remove(kind.key);
            } else {
                line(d.withObject("/" + kind.key).put("on", limit.on()), kind, limit);
            }
        });
    }

    private static void line(ObjectNode line, Kind kind, Limit limit) {
        if (kind == Kind.LOSING_RUN) {
            line.put("trades", whole(kind, limit.first()));
            if (limit.second().isBlank()) {
                line.remove("pauseMinutes");
            } else {
                line.put("pauseMinutes", whole(kind, limit.second()));
            }
            return;
        }
        line.put(kind.first, money(kind, limit.first()));
        if (!kind.second.isEmpty()) {
            line.put(kind.second, money(kind, limit.second()));
        }
    }

    /** What a limit is called. */
    public static String name(Kind kind) {
        return switch (kind) {
            case DAY_LOSS -> "Day loss";
            case DAY_PROFIT -> "Day profit";
            case GIVE_BACK -> "Give-back";
            case LOSING_RUN -> "Losing run";
            case TRADES -> "Trades a day";
            case CONTRACTS -> "Most contracts";
        };
    }

    private static String money(Kind kind, String text) {
        try {
            if (Money.parse(text.strip()) <= 0) {
                throw new IllegalArgumentException("expected an amount above 0, found " + text.strip());
            }
            return text.strip();
        } catch (IllegalArgumentException e) {
            throw new BadInput(name(kind) + ": " + e.getMessage(), e);
        }
    }

    private static int whole(Kind kind, String text) {
        try {
            return Integer.parseInt(text.strip());
        } catch (NumberFormatException e) {
            throw new BadInput(name(kind) + ": expected a whole number, found \"" + Causes.found(text.strip()) + "\"",
                    e);
        }
    }
}
