package stativex.evidence;

import java.math.BigInteger;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import stativex.engine.DayBook;
import stativex.engine.Trade;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.order.Fill;
import stativex.trial.Inputs;
import stativex.trial.Run;
import stativex.trial.TradeFacts;

/**
 * What each contract of a run over several gave, and how much their days go together. Day results of the contracts sum to those of the
 * account. Source: SEMANTICS, "Several contracts" and "Searches and evidence". Money in ten-thousandths.
 *
 * @param correlation of the day results, a row and a column for each contract; empty where one of the two has no deviation, or fewer
 *     than two days
 */
public record Basket(List<Part> parts, List<List<OptionalDouble>> correlation) {
    public Basket {
        parts = List.copyOf(parts);
        correlation = correlation.stream().map(List::copyOf).toList();
    }

    /**
     * A contract's share.
     *
     * @param cost fees, the slippage setting, and what quotes and gaps took, of all its trades
     * @param days results of each day of the run
     */
    public record Part(Contract contract, int trades, long gross, long fees, long cost, List<Long> days) {
        public Part {
            days = List.copyOf(days);
        }

        public long net() {
            return gross - fees;
        }

        /** Net ÷ trades, toward the lower; empty without one. */
        public OptionalLong averageTrade() {
            return trades == 0 ? OptionalLong.empty() : OptionalLong.of(Math.floorDiv(net(), trades));
        }

        /** What a trade costs on average, rounded up; empty without one. */
        public OptionalLong averageCost() {
            return trades == 0 ? OptionalLong.empty() : OptionalLong.of(Math.ceilDiv(cost, (long) trades));
        }
    }

    /** Works it out of a finished run; empty for a run of one contract. */
    public static Optional<Basket> of(Run run) {
        if (run.engine().contracts().size() < 2) {
            return Optional.empty();
        }
        List<TradeFacts> trades = TradeFacts.of(run);
        List<Part> parts = run.inputs().traded().stream().map(one -> part(run, one, trades)).toList();
        return Optional.of(new Basket(parts, parts.stream()
                .map(a -> parts.stream().map(b -> correlation(a.days(), b.days())).toList()).toList()));
    }

    private static Part part(Run run, Inputs.Traded one, List<TradeFacts> all) {
        List<Trade> trades = all.stream().filter(facts -> facts.contract().symbol().equals(one.contract().symbol()))
                .map(TradeFacts::trade).toList();
        return new Part(one.contract(), trades.size(), trades.stream().mapToLong(Trade::gross).sum(),
                trades.stream().mapToLong(Trade::fees).sum(),
                trades.stream().mapToLong(t -> t.fees() + t.slippage() + t.gaps()).sum(), days(run, one));
    }

    /**
     * What its fills and what it held made of each day: each is marked at the last print before the next day begins. What another
     * contract's earlier open brought before the account's first day is none of its days'.
     */
    private static List<Long> days(Run run, Inputs.Traded one) {
        SessionCalendar calendar = run.inputs().accountCalendar();
        Worth worth = new Worth(run, one);
        List<Long> days = new ArrayList<>();
        for (DayBook.Day day : run.engine().days().days()) {
            long before = worth.at(calendar.sessions(day.date()).getFirst().open());
            days.add(worth.at(end(calendar, day.date())) - before);
        }
        return days;
    }

    /** What a contract's fills and what is open of it are worth, asked forward in time. */
    private static final class Worth {
        private final Inputs.Traded of;
        private final List<Fill> fills;
        private long cash;
        private long open;
        private int next;

        Worth(Run run, Inputs.Traded of) {
            this.of = of;
            this.fills = run.engine().log().fills().stream().filter(
                    fill -> run.inputs().contract(fill.owner()).symbol().equals(of.contract().symbol())).toList();
        }

        long at(long time) {
            for (; next < fills.size() && fills.get(next).time() < time; next++) {
                Fill fill = fills.get(next);
                long signed = fill.buy() ? fill.quantity() : -fill.quantity();
                cash = cash - signed * fill.price() * of.contract().tickValue() - fill.fee();
                open += signed;
            }
            return open == 0 ? cash : cash + open * last(time) * of.contract().tickValue();
        }

        /** The last price before an instant, in ticks; prints outside sessions are none. */
        private long last(long time) {
            int print = of.tape().firstAt(time) - 1;
            while (!inside(of.tape().time(print))) {
                print--;
            }
            return of.tape().price(print);
        }

        private boolean inside(long time) {
            return of.contract().calendar().current(time).filter(session -> session.contains(time)).isPresent();
        }
    }

    /** The first instant of the trading day behind one. */
    private static long end(SessionCalendar calendar, LocalDate date) {
        return calendar.dayAfter(date).map(Session::open).orElse(Long.MAX_VALUE);
    }

    /** Pearson's, from exact sums. */
    static OptionalDouble correlation(List<Long> a, List<Long> b) {
        BigInteger n = BigInteger.valueOf(a.size());
        BigInteger sumA = BigInteger.ZERO;
        BigInteger sumB = BigInteger.ZERO;
        BigInteger squaresA = BigInteger.ZERO;
        BigInteger squaresB = BigInteger.ZERO;
        BigInteger products = BigInteger.ZERO;
        for (int i = 0; i < a.size(); i++) {
            BigInteger x = BigInteger.valueOf(a.get(i));
            BigInteger y = BigInteger.valueOf(b.get(i));
            sumA = sumA.add(x);
            sumB = sumB.add(y);
            squaresA = squaresA.add(x.multiply(x));
            squaresB = squaresB.add(y.multiply(y));
            products = products.add(x.multiply(y));
        }
        BigInteger spreadA = n.multiply(squaresA).subtract(sumA.pow(2));
        BigInteger spreadB = n.multiply(squaresB).subtract(sumB.pow(2));
        if (spreadA.signum() == 0 || spreadB.signum() == 0) {
            return OptionalDouble.empty();
        }
        double together = n.multiply(products).subtract(sumA.multiply(sumB)).doubleValue();
        return OptionalDouble.of(Math.clamp(
                together / Math.sqrt(spreadA.doubleValue()) / Math.sqrt(spreadB.doubleValue()), -1, 1));
    }
}
