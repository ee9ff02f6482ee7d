package stativex.evidence;

import java.time.temporal.IsoFields;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import java.util.TreeMap;
import java.util.function.Function;
import stativex.engine.Trade;
import stativex.trial.TradeFacts;

/**
 * Trades by something of their entry, or by what ended them. Source: SEMANTICS, "Results" (tables).
 *
 * @param rows in the order of their keys
 */
public record TradeTable(By by, List<Row> rows) {
    /** What trades are listed by. Days, weeks (ISO), months, years and weekdays are of the trading day, hours of the account's zone. */
    public enum By {
        DAY, WEEK, MONTH, YEAR, WEEKDAY, HOUR, WINDOW, SIDE, GRADE, EXIT_REASON, CONTRACT
    }

    /**
     * Trades of one key. Money in ten-thousandths.
     *
     * @param wins trades with net above 0
     * @param won sum of their net; {@code lost} sum of |net| of those below 0
     * @param largestLoss 0 without one
     */
    public record Row(String key, int trades, int wins, long gross, long fees, long won, long lost, long largestLoss) {
        private static final Row NONE = new Row("", 0, 0, 0, 0, 0, 0, 0);

        public long net() {
            return gross - fees;
        }

        /** Net ÷ trades, money, rounded half away from zero; empty without trades. */
        public OptionalLong averageTrade() {
            return trades == 0
                    ? OptionalLong.empty()
                    : OptionalLong.of(Long.signum(net()) * ((2 * Math.abs(net()) + trades) / (2L * trades)));
        }

        /** Empty without trades. */
        public OptionalDouble winRate() {
            return trades == 0 ? OptionalDouble.empty() : OptionalDouble.of((double) wins / trades);
        }

        /** Empty without losses. */
        public OptionalDouble profitFactor() {
            return lost == 0 ? OptionalDouble.empty() : OptionalDouble.of((double) won / lost);
        }

        private Row plus(String of, Trade trade) {
            long net = trade.net();
            return new Row(of, trades + 1, wins + (net > 0 ? 1 : 0), gross + trade.gross(), fees + trade.fees(),
                    won + Math.max(0, net), lost + Math.max(0, -net), Math.max(largestLoss, -net));
        }
    }

    public TradeTable {
        rows = List.copyOf(rows);
    }

    /**
     * Lists trades.
     *
     * @param exits the word for what ended a trade
     */
    public static TradeTable of(By by, List<TradeFacts> trades, Function<Trade, String> exits) {
        Map<String, Row> rows = new TreeMap<>(Comparator.naturalOrder());
        for (TradeFacts facts : trades) {
            rows.merge(key(by, facts, exits), Row.NONE, (row, none) -> row);
            rows.computeIfPresent(key(by, facts, exits), (key, row) -> row.plus(key, facts.trade()));
        }
        return new TradeTable(by, List.copyOf(rows.values()));
    }

    private static String key(By by, TradeFacts facts, Function<Trade, String> exits) {
        return switch (by) {
            case DAY -> facts.tradingDay().toString();
            case WEEK -> String.format("%d-W%02d", facts.tradingDay().get(IsoFields.WEEK_BASED_YEAR),
                    facts.tradingDay().get(IsoFields.WEEK_OF_WEEK_BASED_YEAR));
            case MONTH -> facts.tradingDay().toString().substring(0, 7);
            case YEAR -> facts.tradingDay().toString().substring(0, 4);
            case WEEKDAY -> Integer.toString(facts.tradingDay().getDayOfWeek().getValue());
            case HOUR -> String.format("%02d", facts.hour());
            case WINDOW -> facts.window();
            case SIDE -> facts.trade().side().word();
            case GRADE -> facts.trade().grade().orElse("");
            case EXIT_REASON -> exits.apply(facts.trade());
            case CONTRACT -> facts.contract().symbol();
        };
    }
}
