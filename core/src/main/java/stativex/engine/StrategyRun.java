package stativex.engine;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.interlock.WindowSchedule;
import stativex.market.BarSeries;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.LongColumn;
import stativex.market.SeriesBuilder;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Bracket;
import stativex.rule.Program;
import stativex.rule.Truth;

/** One strategy at work: its series, studies and rules, its switches, its windows and its trade. */
final class StrategyRun {
    /** One side at work. */
    static final class SideRun {
        final SideRules rules;
        /** Whether its signal was true at some moment of each closed bar. */
        final LongColumn provisional = new LongColumn();
        boolean on = true;
        /** Its signal has been true in the bar that forms. */
        boolean raised;
        /** Signals that sent an order in the period that is counted. */
        int sent;

        SideRun(SideRules rules) {
            this.rules = rules;
        }

        int at(int row) {
            return rules.whole().at(row);
        }
    }

    final int index;
    final Strategy strategy;
    final SeriesBuilder builder;
    final Program program;
    /** Whether its bars end by the clock inside the session. */
    final boolean timeBars;
    private final boolean wholeSession;
    final Map<Side, SideRun> sides = new EnumMap<>(Side.class);
    final WindowSchedule schedule;
    Mode mode = Mode.OFF;
    boolean once;
    Optional<WindowSchedule.Stretch> stretch = Optional.empty();
    /** When the windows next ask for something: their beginning, the last entry, the end. */
    long windowClock = TapeTime.NEVER;
    /** A window ended with a flatten; holds until the next one begins. */
    boolean windowFlat;
    Bracket bracket;
    Optional<OpenTrade> trade = Optional.empty();
    /** Why everything was asked to leave; what still enters before its entries have ended leaves, too. */
    Optional<String> flattening = Optional.empty();
    int tradesToday;
    int daysSeen;
    /** Signals of day and longer bars, which wait for the next session's open. */
    final List<Waiting> waiting = new ArrayList<>();

    /** A signal whose entry is sent as of the next session's open. */
    record Waiting(Side side, int bar) {}

    /** @throws IllegalArgumentException naming strategy, side and place of what is wrong */
    StrategyRun(int index, Strategy strategy, Contract contract, Tape tape, Map<String, ContractTape> others) {
        this.index = index;
        this.strategy = strategy;
        this.once = strategy.once();
        if (!strategy.notThereYet().isEmpty()) {
            throw new IllegalArgumentException(String.join(" and ", strategy.notThereYet())
                    + ": trials and replays cannot do this yet");
        }
        this.timeBars = strategy.signals().bars().type() instanceof BarType.Time;
        this.wholeSession = strategy.signals().bars().type().needsEveryPrint() || strategy.signals().series().stream()
                .filter(series -> series.contract().filter(symbol -> !symbol.equals(contract.symbol())).isEmpty())
                .anyMatch(series -> series.bars().type().needsEveryPrint());
        this.builder = new SeriesBuilder(tape, contract.calendar(), strategy.signals().bars());
        this.program = new Program(strategy.signals().blueprint(contract, others), builder.series());
        this.schedule = new WindowSchedule(strategy.windows());
        strategy.plan().stop().ifPresent(stop -> stop.distance(contract));
        for (Side side : Side.values()) {
            strategy.side(side).ifPresent(rule -> sides.put(side,
                    new SideRun(new SideRules(program, side, rule, strategy.signals(), strategy.pricesEntries()))));
        }
        bracket = new Bracket(index, Side.LONG);
    }

    BarSeries series() {
        return builder.series();
    }

    /** Whether its bars are whole trading dates. */
    boolean longBars() {
        return strategy.signals().bars().type() instanceof BarType.Period;
    }

    /** Whether its bars, or those of a further series of its contract, depend on every print of the session. */
    boolean needsWholeSession() {
        return wholeSession;
    }

    boolean everyTrade() {
        return strategy.signals().evaluate() == SignalPlan.Evaluate.EVERY_TRADE;
    }

    boolean counts(SignalPlan.Within period) {
        return strategy.signals().most().filter(most -> most.period() == period).isPresent();
    }

    /** A period begins in which signals are counted anew. */
    void countAnew(SignalPlan.Within period) {
        if (counts(period)) {
            sides.values().forEach(side -> side.sent = 0);
        }
    }

    /**
     * The bar that holds the print just taken, bar 0 of a trade that it opens: of several bars the last; a renko print
     * lies in the bricks it closes, only if it closes none in the forming one.
     */
    int barHolding(int print) {
        int closed = series().count();
        boolean inClosed = closed > 0 && series().last(closed - 1) == print;
        return inClosed && (series().isRenko() || builder.forming().isEmpty()) ? closed - 1 : closed;
    }

    boolean isOn(Side side) {
        return sides.containsKey(side) && sides.get(side).on;
    }

    /** Whether an entry of the current bracket is still working. */
    boolean entering() {
        return bracket.entering() > 0;
    }

    boolean idle() {
        return trade.isEmpty() && !entering();
    }

    /** Whether the trading day counts for evaluation, or only feeds the studies. */
    boolean historyLoaded() {
        return daysSeen > strategy.historyDays();
    }

    /** Finds the stretch of windows that counts from {@code time} on. */
    void windowsFrom(long time) {
        stretch = schedule.at(time);
        nextWindowClock(time);
    }

    /** The next moment after {@code time} at which the stretch begins, takes its last entry or ends. */
    void nextWindowClock(long time) {
        windowClock = TapeTime.NEVER;
        if (stretch.isPresent()) {
            windowClock = stretch.get().nextMoment(time);
        }
    }

    /** A window begins, be it inside a stretch that others began. */
    boolean windowBegins(long at) {
        return stretch.isPresent() && stretch.get().of().stream().anyMatch(window -> window.from() == at);
    }

    boolean windowAllows(long time) {
        return schedule.always() || stretch.isPresent() && stretch.get().allows(time);
    }

    /** Rule fires at the bar just evaluated. */
    static boolean fires(int truth) {
        return truth == Truth.TRUE;
    }
}
