package stativex.engine;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import stativex.account.ForThePerson;
import stativex.account.Headroom;
import stativex.account.LockReason;
import stativex.exit.StopOrigin;
import stativex.interlock.InterlockView;
import stativex.interlock.WindowSchedule;
import stativex.market.BarSeries;
import stativex.market.DoubleColumn;
import stativex.market.LongColumn;
import stativex.market.Session;
import stativex.market.Side;
import stativex.order.Fill;
import stativex.order.FillReason;
import stativex.order.Order;
import stativex.order.Owner;
import stativex.rule.Program;
import stativex.rule.Truth;
import stativex.rule.TruthColumn;
import stativex.study.MarkColumn;
import stativex.study.Unit;

/**
 * What a screen shows of an engine, as an immutable picture of one moment, safe to hand to another thread.
 *
 * @param print the last print that arrived, −1 before the first
 * @param time of the last input; 0 before the first
 * @param lastPrice ticks; empty before the first print
 * @param session the current session, or the next one
 * @param hand what the person has at work
 * @param decisions in order; likewise fills, orders (alive) and finished trades
 */
public record Snapshot(int print, long time, Optional<Long> lastPrice, Optional<Session> session, boolean inSession,
        AccountView account, List<StrategyView> strategies, HandView hand, List<Decision> decisions, List<Fill> fills,
        List<OrderView> orders, List<Trade> trades) {

    /**
     * What the person has at work.
     *
     * @param position that is open, {@code trade} the same as a trade so far
     * @param guide the strategy whose plan it has; empty: none
     * @param orders entries that rest
     * @param planned by strategy: ticks from an entry at the last price to the broker's stop that its plan would give it now, by side;
     *     none without a stop, or while a study warms up
     * @param manners what interlocks do with their orders
     */
    public record HandView(Optional<PositionView> position, Optional<Trade> trade, OptionalInt guide,
            List<OrderView> orders, List<Map<Side, Long>> planned, ForThePerson manners) {}

    /**
     * @param dayResult equity − equity at the day's first instant
     * @param lock why the day is locked, if it is
     * @param locks what each line that was reached has come to
     * @param curve equity by signal bar of the first strategy, at {@code curveTimes}
     * @param dayCurve where the trading day begins in the curve
     */
    public record AccountView(String name, long equity, long balance, long dayResult, Optional<LockReason> lock,
            boolean broken, List<Lock> locks, LongColumn.Prefix curve, LongColumn.Prefix curveTimes, int dayCurve) {}

    /**
     * An order that is alive.
     *
     * @param price ticks; empty at the market
     * @param role what it is for
     */
    public record OrderView(int number, Owner owner, boolean buy, Order.Type type, int rest, Optional<Long> price,
            Order.State state, FillReason reason, Order.Role role) {}

    /**
     * One output of a study under the name that rules use; NaN stands for absent.
     *
     * @param anchored whether it starts afresh with each session
     * @param ink what it is drawn with, one of {@link stativex.study.StudyDefinition#INKS}
     */
    public record StudyView(String name, Unit unit, boolean anchored, String ink, DoubleColumn.Prefix values) {
        /** The outputs that the chart shows, as far as so many rows. */
        public static List<StudyView> shown(List<Program.StudyOutput> outputs, int rows) {
            return outputs.stream().filter(Program.StudyOutput::isShown)
                    .map(study -> new StudyView(study.name(), study.column().unit(), study.column().anchored(),
                            study.definition().ink(), study.column().view(rows)))
                    .toList();
        }
    }

    /**
     * Marks of one kind that a study draws.
     *
     * @param ink what they are drawn with
     * @param ago by bar: how many bars before it the mark stands that was drawn with it, see {@link MarkColumn}
     * @param price of that mark, ticks
     * @param provisional the mark that stands as long as the bar that forms stays as it is
     */
    public record MarkView(String name, MarkColumn.Shape shape, String ink, DoubleColumn.Prefix ago,
            DoubleColumn.Prefix price, Optional<Provisional> provisional) {
        /** @param ago bars before the one that forms; {@code price} in ticks */
        public record Provisional(int ago, double price) {}

        /**
         * The marks that the chart shows, as far as so many rows.
         *
         * @param forming whether the row behind them, the bar that forms, is worked too
         */
        public static List<MarkView> shown(List<Program.MarkOutput> marks, int rows, boolean forming) {
            return marks.stream().filter(mark -> mark.definition().showsMarks()).map(mark -> {
                MarkColumn column = mark.column();
                double ago = forming ? column.ago().at(rows) : MarkColumn.NONE;
                return new MarkView(mark.name(), column.shape(), mark.definition().ink(), column.ago().view(rows),
                        column.price().view(rows), ago >= 0
                                ? Optional.of(new Provisional((int) ago, column.price().at(rows)))
                                : Optional.empty());
            }).toList();
        }
    }

    /**
     * What must hold, bar by bar.
     *
     * @param raised of the whole rule: 1 for each bar in which it was true at some moment; what was raised and is not true
     *     at the close was withdrawn
     * @param provisional whether it has been true in the bar that forms
     * @param forming {@link Truth} in the bar that forms as it stands now, for the screen only; empty when nobody knows
     */
    public record Lane(String text, TruthColumn.View truth, Optional<LongColumn.Prefix> raised, boolean provisional,
            OptionalInt forming) {
        /** A lane of one condition over a history. */
        public Lane(String text, TruthColumn.View truth) {
            this(text, truth, Optional.empty(), false, OptionalInt.empty());
        }

        /** On how many of the bars {@code from} to {@code to}, both inside, it was true. */
        public int held(int from, int to) {
            int held = 0;
            for (int bar = from; bar <= to; bar++) {
                held += truth.get(bar) == Truth.TRUE ? 1 : 0;
            }
            return held;
        }

        /** Whether a signal was raised in a bar and withdrawn at its close. */
        public boolean withdrawn(int bar) {
            return raised.isPresent() && bar < raised.get().count() && raised.get().get(bar) == 1
                    && truth.get(bar) != Truth.TRUE;
        }
    }

    /**
     * @param average exact average price: ticks times contracts, and contracts
     * @param openResult money at the last price, before the fees of leaving
     * @param stop ticks, be it held here or at the broker
     * @param disaster where the broker holds a stop for one that is held here, ticks
     * @param stopOrigin what set it
     * @param best ticks in favour so far, {@code worst} against
     */
    public record PositionView(Side side, int open, long averageSum, long averageQuantity, long openResult,
            Optional<Long> stop, Optional<Long> disaster, Optional<StopOrigin> stopOrigin, List<OrderView> targets,
            long best, long worst,
            int bars,
            boolean leaving) {}

    /**
     * One strategy as it stands.
     *
     * @param trade that is open, as a trade so far, and {@code position} as its orders hold it
     * @param headroom before each line
     * @param dayOccurrences its windows in the trading day
     * @param decisions of the strategy, in order; likewise finished {@code trades}
     */
    public record StrategyView(int index, Strategy strategy, Switches switches, Picture picture, Standing standing,
            Today today, Optional<Trade> trade, Optional<PositionView> position, List<Headroom> headroom,
            List<WindowSchedule.Occurrence> dayOccurrences, List<Decision> decisions, List<Trade> trades) {

        /** What the person has switched. */
        public record Switches(Mode mode, boolean longOn, boolean shortOn, boolean once) {}

        /** What its chart shows. @param lanes by side, the last one being the whole rule */
        public record Picture(BarSeries.View bars, Optional<BarSeries.Forming> forming, List<StudyView> studies,
                List<MarkView> marks,
                Map<Side, List<Lane>> lanes) {}

        /**
         * Whether it trades, and why not.
         *
         * @param interlocks in the order in which they are asked
         * @param state what it is doing, or why it does nothing
         * @param history where its evaluation begins, and whether the tape has all of the history before
         */
        public record Standing(List<InterlockView> interlocks, StrategyState state, History history) {}

        /** @param result since the start, open result included, after fees */
        public record Today(int taken, int declined, int wouldBe, long result) {}

        public Mode mode() {
            return switches.mode();
        }

        public boolean longOn() {
            return switches.longOn();
        }

        public boolean shortOn() {
            return switches.shortOn();
        }

        public boolean once() {
            return switches.once();
        }

        public BarSeries.View bars() {
            return picture.bars();
        }

        public Optional<BarSeries.Forming> forming() {
            return picture.forming();
        }

        public List<StudyView> studies() {
            return picture.studies();
        }

        public Map<Side, List<Lane>> lanes() {
            return picture.lanes();
        }

        public List<InterlockView> interlocks() {
            return standing.interlocks();
        }

        public StrategyState state() {
            return standing.state();
        }
    }
}
