package stativex.desk.exits;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import stativex.engine.Strategy;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.exit.StopMap;
import stativex.files.StrategyDraft;
import stativex.files.StrategySetup;
import stativex.market.ContractTape;
import stativex.trial.PastTrades;
import stativex.trial.Spread;

/**
 * A plan on every signal of its strategy, beside another plan on the same, and what would be if one of its handles stood elsewhere.
 *
 * @param other the plan beside it
 * @param strips one for each handle that can be dragged, as far as they are worked
 * @param whole nothing is still worked
 */
record EverySignal(ExitPlan plan, Spread mine, Optional<Other> other, List<Strip> strips, boolean whole) {

    record Other(ExitPlan plan, Spread spread) {}

    /** Net per trade with a handle at each of some places; one of them is where it stands. */
    record Strip(StopMap.Handle handle, List<Cell> cells) {}

    /** @param place in ticks: of a stop its distance, else across */
    record Cell(long place, boolean stands, long netPerTrade) {}

    private static final int CELLS_EACH_WAY = 5;

    /** What a plan is tried with. */
    record Question(StrategyDraft draft, ExitPlan plan, Optional<ExitPlan> beside, StopMap.Entry entry, long fee) {}

    /**
     * Works all of it.
     *
     * @param told of each state of it, the last one whole
     * @param stop asked whether to give up
     */
    static void work(Question asked, PastTrades past, Map<String, ContractTape> others, BooleanSupplier stop,
            Consumer<EverySignal> told) {
        Spread mine = spread(asked, asked.plan(), past, others, stop);
        Optional<Other> other = asked.beside().map(plan -> new Other(plan, spread(asked, plan, past, others, stop)));
        List<Strip> strips = new ArrayList<>();
        told.accept(new EverySignal(asked.plan(), mine, other, List.of(), false));
        ExitTerms terms = asked.plan().terms(asked.entry().side());
        for (StopMap.Handle handle : StopMap.of(terms, asked.entry()).map(StopMap::handles).orElse(List.of())) {
            if (mine.trades() > 0 && (handle.acrossBy() || handle.upBy())) {
                strips.add(new Strip(handle, cells(asked, handle, mine, past, others, stop)));
                told.accept(new EverySignal(asked.plan(), mine, other, List.copyOf(strips), false));
            }
        }
        told.accept(new EverySignal(asked.plan(), mine, other, List.copyOf(strips), true));
    }

    private static List<Cell> cells(Question asked, StopMap.Handle handle, Spread mine, PastTrades past,
            Map<String, ContractTape> others, BooleanSupplier stop) {
        boolean isStop = handle.kind() == StopMap.Kind.STOP;
        long now = isStop ? -handle.level() : handle.best();
        long step = Math.max(1, Math.round(now / 8.0));
        List<Cell> cells = new ArrayList<>();
        for (int i = -CELLS_EACH_WAY; i <= CELLS_EACH_WAY; i++) {
            long place = now + i * step;
            if (place < 1) {
                continue;
            }
            if (i == 0) {
                cells.add(new Cell(place, true, mine.netPerTrade()));
                continue;
            }
            try {
                ExitPlan plan = moved(asked, handle, isStop ? 0 : place,
                        isStop ? -place : handle.level() + (place - now));
                cells.add(new Cell(place, false, spread(asked, plan, past, others, stop).netPerTrade()));
            } catch (IllegalArgumentException e) {
                // there is no such plan: two trail steps at one place
            }
        }
        return cells;
    }

    /** The plan with a handle elsewhere; a trail step keeps its distance behind. */
    private static ExitPlan moved(Question asked, StopMap.Handle handle, long best, long level) {
        ExitPlan plan = asked.plan();
        long up = handle.kind() == StopMap.Kind.BREAKEVEN ? handle.level() : level;
        return plan.with(asked.entry().side(),
                StopMap.dragged(plan.terms(asked.entry().side()), handle, best, up, asked.entry()));
    }

    private static Spread spread(Question asked, ExitPlan plan, PastTrades past, Map<String, ContractTape> others,
            BooleanSupplier stop) {
        Strategy strategy = StrategySetup.withPlan(asked.draft(), plan).strategy().value();
        return Spread.of(past.everySignal(strategy, others, stop).orElseThrow(CancellationException::new),
                asked.entry().contract(), asked.fee());
    }
}
