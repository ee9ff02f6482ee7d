package stativex.files;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import stativex.engine.DayBook;
import stativex.engine.Decision;
import stativex.engine.Trade;
import stativex.evidence.DayWalk;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.SessionCalendar;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Fill;
import stativex.order.FillReason;
import stativex.order.LeaveReason;
import stativex.order.Owner;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.TradeFacts;

/** The rows of the result files of a run, header first. Columns: SEMANTICS, "Open files". */
public final class ResultRows {
    private ResultRows() {}

    private static boolean several(Run run) {
        return run.engine().contracts().size() > 1;
    }

    private static List<String> with(boolean several, String contract, String... columns) {
        List<String> row = new ArrayList<>(List.of(columns));
        if (several) {
            row.add(contract);
        }
        return row;
    }

    /** Of {@code fills.csv}. */
    public static List<List<String>> fills(Run run) {
        boolean several = several(run);
        List<List<String>> rows = new ArrayList<>();
        rows.add(with(several, "contract", "time", "strategy", "order", "side", "quantity", "price", "fee", "reason"));
        for (Fill fill : run.engine().log().fills()) {
            Contract contract = run.inputs().contract(fill.owner());
            rows.add(with(several, contract.symbol(), time(fill.time()), owner(run, fill.owner()),
                    Integer.toString(fill.order()), fill.buy() ? "buy" : "sell", Integer.toString(fill.quantity()),
                    contract.text(fill.price()), Money.text(fill.fee()), ResultWords.of(fill)));
        }
        return rows;
    }

    /** Of {@code trades.csv}: with the contract and what tables go by behind. */
    public static List<List<String>> trades(Run run) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("entry_time", "exit_time", "strategy", "side", "quantity", "entry_price", "exit_price",
                "gross", "fees", "net", "mae_ticks", "mfe_ticks", "bars", "exit_reason", "trading_day", "contract",
                "window", "grade", "r"));
        for (TradeFacts facts : TradeFacts.of(run)) {
            Trade t = facts.trade();
            Contract contract = facts.contract();
            rows.add(List.of(time(t.entryTime()), time(t.exitTime()), owner(run, t.owner()), t.side().word(),
                    Integer.toString(t.quantity()), contract.meanText(t.entrySum(), t.quantity()),
                    contract.meanText(t.exitSum(), t.left()), Money.text(t.gross()), Money.text(t.fees()),
                    Money.text(t.net()), Long.toString(t.mae()), Long.toString(t.mfe()), Integer.toString(t.bars()),
                    t.exitReason().map(ResultWords::of).orElse(""), facts.tradingDay().toString(), contract.symbol(),
                    facts.window(), t.grade().orElse(""), ratio(facts.r())));
        }
        return rows;
    }

    /** A ratio with at most six decimals; empty if there is none. */
    static String ratio(OptionalDouble value) {
        if (value.isEmpty()) {
            return "";
        }
        BigDecimal rounded = BigDecimal.valueOf(value.getAsDouble()).setScale(6, RoundingMode.HALF_EVEN)
                .stripTrailingZeros();
        return (rounded.signum() == 0 ? BigDecimal.ZERO : rounded).toPlainString();
    }

    /** Of {@code decisions.csv}. */
    public static List<List<String>> decisions(Run run) {
        boolean several = several(run);
        List<Contract> contracts = run.engine().contracts();
        List<List<String>> rows = new ArrayList<>();
        rows.add(with(several, "contract", "time", "strategy", "side", "decision", "reason", "price"));
        for (Decision d : run.engine().log().decisions()) {
            if (d.kind() == Decision.Kind.BY_HAND) {
                // an act is no decision about an entry; the session file has it with its place on the tape
                continue;
            }
            Contract contract = contracts.get(d.market());
            rows.add(with(several, contract.symbol(), time(d.time()), d.owner().map(o -> owner(run, o)).orElse(""),
                    d.side().map(Side::word).orElse(""), ResultWords.of(d.kind()), ResultWords.reason(d),
                    d.price() == Tape.NONE ? "" : contract.text(d.price())));
        }
        return rows;
    }

    /** Of {@code days.csv}: trades by their entry, fills by the print that made them. */
    public static List<List<String>> days(Run run) {
        Inputs inputs = run.inputs();
        SessionCalendar calendar = inputs.accountCalendar();
        Map<LocalDate, Integer> trades = new HashMap<>();
        Map<LocalDate, Integer> fills = new HashMap<>();
        run.engine().log().trades()
                .forEach(trade -> calendar.tradingDate(trade.entryTime()).ifPresent(day -> trades.merge(day, 1,
                        Integer::sum)));
        run.engine().log().fills().forEach(
                fill -> calendar.tradingDate(assumedAtTheClose(fill) ? fill.time() - 1 : fill.time())
                        .ifPresent(day -> fills.merge(day, 1, Integer::sum)));
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("trading_day", "result", "trades", "fills"));
        for (DayBook.Day day : run.engine().days().days()) {
            rows.add(List.of(day.date().toString(), Money.text(day.result()),
                    Integer.toString(trades.getOrDefault(day.date(), 0)),
                    Integer.toString(fills.getOrDefault(day.date(), 0))));
        }
        return rows;
    }

    /** Its time is the session's close, which is outside it. */
    private static boolean assumedAtTheClose(Fill fill) {
        return fill.reason().equals(new FillReason.Left(LeaveReason.ASSUMED_AT_SESSION_END));
    }

    /**
     * Of {@code path.csv}: amounts since each day's first instant, a row for it and for every change.
     *
     * @throws IllegalArgumentException where bars were walked
     */
    public static List<List<String>> path(Run run) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("trading_day", "time", "equity", "balance", "open", "close_cost"));
        PathRows path = new PathRows(run.inputs().accountCalendar(), rows);
        DayWalk.walk(run, path);
        path.first();
        return rows;
    }

    private static final class PathRows implements DayWalk.Points {
        private final SessionCalendar calendar;
        private final List<List<String>> rows;
        private String date = "";
        /** The day's first instant, as long as it has no row. */
        private OptionalLong first = OptionalLong.empty();
        private String balance = Money.text(0);
        private long open;
        private List<String> last = List.of();

        PathRows(SessionCalendar calendar, List<List<String>> rows) {
            this.calendar = calendar;
            this.rows = rows;
        }

        @Override
        public boolean overnight() {
            return true;
        }

        @Override
        public void day(LocalDate day) {
            first();
            date = day.toString();
            first = OptionalLong.of(calendar.sessions(day).getFirst().open());
            last = List.of();
        }

        /** A day that begins flat begins with nothing. */
        void first() {
            if (first.isPresent()) {
                long time = first.getAsLong();
                first = OptionalLong.empty();
                row(time, List.of(Money.text(0), Money.text(0), "0", Money.text(0)));
            }
        }

        @Override
        public void holds(long balanceNow, long contracts) {
            balance = Money.text(balanceNow);
            open = contracts;
        }

        @Override
        public void point(long time, long result, long closing, long perTick, boolean filled) {
            if (first.isPresent() && first.getAsLong() == time && !filled) {
                first = OptionalLong.empty();
            }
            first();
            row(time, List.of(Money.text(result), balance, Long.toString(open), Money.text(closing)));
        }

        private void row(long time, List<String> now) {
            if (!now.equals(last)) {
                last = now;
                rows.add(List.of(date, ResultRows.time(time), now.get(0), now.get(1), now.get(2), now.get(3)));
            }
        }
    }

    static String time(long nanos) {
        return TapeTime.instant(nanos).toString();
    }

    static String owner(Run run, Owner owner) {
        return switch (owner) {
            case Owner.Strategy strategy -> run.inputs().strategies().get(strategy.index()).name();
            case Owner.Person ignored -> "by hand";
        };
    }
}
