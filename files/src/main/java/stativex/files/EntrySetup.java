package stativex.files;

import java.util.Optional;
import stativex.engine.Sizing;
import stativex.engine.Strategy;
import stativex.market.Money;
import stativex.market.Side;
import stativex.order.Order;
import tools.jackson.databind.node.ObjectNode;

/** How the entries of a strategy under work rest, what they may cost, and what they do beside what is at work already. */
public final class EntrySetup {
    private EntrySetup() {}

    private static StrategyDraft put(StrategyDraft draft, String field, boolean on) {
        return draft.change(d -> {
            if (on) {
                d.put(field, true);
            } else {
                d.remove(field);
            }
        });
    }

    /** Whether a signal against an open position turns it round. */
    public static boolean reverses(StrategyDraft draft) {
        return flag(draft, "reverse");
    }

    public static StrategyDraft withReverse(StrategyDraft draft, boolean on) {
        return put(draft, "reverse", on);
    }

    /** Whether signals of both sides at one moment rest as a pair, of which the first to fill ends the other. */
    public static boolean twoSided(StrategyDraft draft) {
        return flag(draft, "twoSided");
    }

    public static StrategyDraft withTwoSided(StrategyDraft draft, boolean on) {
        return put(draft, "twoSided", on);
    }

    /** Whether an entry that is too large for a limit is cut to what fits, in place of being declined. */
    public static boolean cuts(StrategyDraft draft) {
        return flag(draft, "cut");
    }

    /** Without cutting the largest position is at least the quantity. */
    public static StrategyDraft withCuts(StrategyDraft draft, boolean on) {
        StrategyDraft cut = put(draft, "cut", on);
        return on || cut.maximumPosition() >= cut.quantity()
                ? cut
                : cut.change(d -> d.put("maximumPosition", cut.quantity()));
    }

    private static boolean flag(StrategyDraft draft, String name) {
        return draft.root().maybe(name).flatMap(f -> StrategyDraft.read(f::flag)).orElse(false);
    }

    /** Whether a price off the grid is rounded toward the market, else away from it. */
    public static StrategyDraft withTowardMarket(StrategyDraft draft, Side side, boolean on) {
        return draft.change(d -> StrategyDraft.entry(d, side).put("roundTowardMarket", on));
    }

    /** Whether a resting entry follows its price at each bar's close. */
    public static StrategyDraft withReprice(StrategyDraft draft, Side side, boolean on) {
        return draft.change(d -> StrategyDraft.entry(d, side).put("reprice", on));
    }

    /** A resting entry turns to the market so many seconds after it was sent; empty: never. */
    public static StrategyDraft withMarketAfter(StrategyDraft draft, Side side, Optional<Integer> seconds) {
        return draft.change(d -> {
            ObjectNode entry = StrategyDraft.entry(d, side);
            seconds.ifPresentOrElse(n -> entry.put("marketAfterSeconds", n), () -> entry.remove("marketAfterSeconds"));
        });
    }

    /** Ticks from the stop of a stop-limit to its limit. */
    public static StrategyDraft withLimitTicks(StrategyDraft draft, Side side, int ticks) {
        return draft.change(d -> StrategyDraft.entry(d, side).put("limitTicks", ticks));
    }

    /** What a stop-out of a side's entry may cost; nothing stands for what does not read. */
    public static Strategy.Risk risk(StrategyDraft draft, Side side) {
        return draft.entry(side).map(Strategy.Entry::risk).orElse(Strategy.Risk.NONE);
    }

    public static StrategyDraft withRisk(StrategyDraft draft, Side side, Strategy.Risk risk) {
        return draft.change(d -> {
            ObjectNode entry = StrategyDraft.entry(d, side);
            entry.remove("riskMoney");
            entry.remove("riskPercent");
            entry.remove("riskCap");
            risk.sizing().ifPresent(sizing -> {
                switch (sizing) {
                    case Sizing.Amount amount -> entry.put("riskMoney", Money.text(amount.money()));
                    case Sizing.Percent percent -> entry.put("riskPercent", percent.percent().toPlainString());
                }
            });
            risk.cap().ifPresent(cap -> entry.put("riskCap", Money.text(cap)));
        });
    }

    /** What an order of a type cannot have is taken away. */
    static void fit(ObjectNode entry, Order.Type type) {
        if (type == Order.Type.MARKET) {
            // a market entry does not rest
            for (String field : new String[]{"goodFor", "goodForBars", "reprice", "marketAfterSeconds",
                    "roundTowardMarket"}) {
                entry.remove(field);
            }
        }
        if (type != Order.Type.STOP_LIMIT) {
            entry.remove("limitTicks");
        }
    }
}
