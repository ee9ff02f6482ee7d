package stativex.engine;

import java.util.Optional;
import stativex.account.Line;
import stativex.interlock.LineCheck;
import stativex.interlock.Reason;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Bracket;
import stativex.order.Order;

/** What every entry must pass: the interlocks, asked in the order of SEMANTICS, the line check last. */
final class EntryGate {
    private final Engine engine;

    EntryGate(Engine engine) {
        this.engine = engine;
    }

    record Refusal(Reason reason, String detail) {}

    /** The first interlock that is not clear, in the order of SEMANTICS; null when every one is. */
    Refusal refusal(StrategyRun run, Side side, long price, boolean sessionCloses) {
        Strategy strategy = run.strategy;
        if (!run.isOn(side)) {
            return new Refusal(Reason.SIDE_OFF, side.word() + " is switched off");
        }
        if (engine.clock().incomplete().isPresent() && run.needsWholeSession()) {
            return new Refusal(Reason.SESSION_INCOMPLETE, engine.clock().incomplete().get());
        }
        if (sessionCloses || !engine.clock().inSession()) {
            return new Refusal(Reason.SESSION_CLOSED, "the session closed with this bar");
        }
        if (engine.watch().lock().isPresent()) {
            return new Refusal(Reason.LOCKED, engine.watch().lock().get() + ", until the next trading day");
        }
        if (engine.watch().broken()) {
            return new Refusal(Reason.BROKEN, "the drawdown floor was reached");
        }
        if (!run.windowAllows(engine.now())) {
            return new Refusal(Reason.OUTSIDE_WINDOW, Standing.windowWords(run, engine.now()));
        }
        if (engine.contract().lastTradingDay().isPresent()
                && !engine.clock().session().orElseThrow().tradingDate()
                        .isBefore(engine.contract().lastTradingDay().get())) {
            return new Refusal(Reason.LAST_TRADING_DAY, "last trading day " + engine.contract().lastTradingDay().get());
        }
        boolean opens = run.trade.isEmpty();
        if (opens && strategy.tradesADay().isPresent()
                && run.tradesToday + (run.entering() ? 1 : 0) >= strategy.tradesADay().get()) {
            return new Refusal(Reason.TRADES_A_DAY, strategy.tradesADay().get() + " trades today");
        }
        if (strategy.signals().most().isPresent()
                && run.sides.get(side).sent >= strategy.signals().most().get().signals()) {
            return new Refusal(Reason.SIGNALS_PER_PERIOD, strategy.signals().most().get().signals() + " "
                    + side.word() + " a " + strategy.signals().most().get().period().word());
        }
        if (!run.idle()) {
            if (run.bracket.side() != side) {
                return new Refusal(Reason.OPPOSITE_POSITION, "already " + run.bracket.side().word());
            }
            if (run.bracket.leaving()) {
                return new Refusal(Reason.LEAVING, "the position is being left");
            }
            if (!strategy.adds()) {
                return new Refusal(Reason.ADDS_NOT_ALLOWED, "already " + side.word());
            }
        }
        int held = run.idle() ? 0 : run.bracket.open() + run.bracket.entering();
        if (held + strategy.entry().quantity() > strategy.maximumPosition()) {
            return new Refusal(Reason.POSITION_LIMIT, "at most " + strategy.maximumPosition() + " contracts");
        }
        if (strategy.entry().type() != Order.Type.MARKET && price == Tape.NONE) {
            return new Refusal(Reason.WARMING_UP, "the entry price is not known yet");
        }
        Optional<Line> crossed = lineCheck(run, price).crossed(engine.equity(), engine.watch().lines(engine.equity()));
        return crossed
                .map(line -> new Refusal(Reason.LINE_CHECK, "a stop-out would cross " + line.name()))
                .orElse(null);
    }

    /** The line that a stop-out of one more entry of {@code run} would cross, if any. */
    Optional<Line> lineCheckFor(StrategyRun run) {
        return engine.lastPrice() == Tape.NONE
                ? Optional.empty()
                : lineCheck(run, engine.lastPrice()).crossed(engine.equity(), engine.watch().lines(engine.equity()));
    }

    /** What stops may still cost, an entry of {@code proposing} at {@code price} included. */
    private LineCheck lineCheck(StrategyRun proposing, long price) {
        LineCheck check = new LineCheck();
        Contract contract = engine.contract();
        long fee = engine.fee();
        long exitCost = Math.addExact(contract.money(contract.slippage(), 1), fee);
        for (StrategyRun run : engine.runs()) {
            Optional<Long> planned = run.strategy.plan().initialStop(contract);
            Bracket bracket = run.bracket;
            for (int i = 0; i < bracket.entries().size(); i++) {
                Order entry = bracket.entries().get(i);
                if (entry.state().live()) {
                    check.risk(entry.rest(), entryRisk(run, entry.type(), entry.price(), planned),
                            contract.tickValue(), exitCost + fee);
                }
            }
            if (run == proposing) {
                check.risk(run.strategy.entry().quantity(), entryRisk(run, run.strategy.entry().type(), price, planned),
                        contract.tickValue(), exitCost + fee);
            }
            if (bracket.open() > 0) {
                Optional<Long> distance = bracket.stop()
                        .map(stop -> bracket.side().sign() * (engine.lastPrice() - stop.price()));
                check.risk(bracket.open(), distance, contract.tickValue(), exitCost);
            }
        }
        return check;
    }

    /**
     * Ticks from an entry's worst price to the stop it will have: the planned distance, or, when it joins an open
     * trade, the distance to the stop that trade has (an add never moves it away).
     */
    private Optional<Long> entryRisk(StrategyRun run, Order.Type type, long price, Optional<Long> planned) {
        if (run.bracket.open() == 0 || run.bracket.stop().isEmpty()) {
            return planned;
        }
        boolean buy = run.bracket.side() == Side.LONG;
        int sign = run.bracket.side().sign();
        int print = engine.lastPrint();
        long far = print < 0 ? Tape.NONE : buy ? engine.tape().ask(print) : engine.tape().bid(print);
        long slippage = (long) sign * engine.contract().slippage();
        long worst = switch (type) {
            case LIMIT -> price;
            case STOP -> price + slippage;
            case MARKET -> (far == Tape.NONE ? engine.lastPrice() : far) + slippage;
        };
        return Optional.of(sign * (worst - run.bracket.stop().get().price()));
    }
}
