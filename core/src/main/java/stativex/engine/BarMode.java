package stativex.engine;

import java.util.Optional;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.market.BarSeries;
import stativex.market.BarSteps;
import stativex.market.BarType;

/**
 * Trials that walk the bars of the signal series tick by tick in place of the prints: fast, coarse, and refused where bars cannot say
 * what would have happened. Source: SEMANTICS, "Bar mode".
 */
public final class BarMode {
    private BarMode() {}

    /**
     * The same trial over the bars that its strategies judge.
     *
     * @throws IllegalArgumentException where the strategies judge every trade, bricks, or not all the same bars, or the tape is a join
     */
    public static Setup of(Setup ticks) {
        if (ticks.rolls().legs().size() > 1) {
            throw new IllegalArgumentException(
                    "bar mode walks one month's bars, this tape is a join: expected tick mode");
        }
        if (ticks.parts().size() > 1) {
            throw new IllegalArgumentException("bar mode walks one contract's bars, these strategies trade "
                    + ticks.parts().size() + " contracts: expected tick mode");
        }
        ticks.strategies().forEach(BarMode::check);
        Setup.Ahead ahead = ticks.ahead()
                .orElseThrow(() -> new IllegalArgumentException("bar mode needs the bars of the whole tape"));
        Strategy first = ticks.strategies().stream().findFirst()
                .orElseThrow(() -> new IllegalArgumentException("bar mode walks the bars of a strategy: expected one"));
        long since = History.of(first.historyDays(), ticks.firstDay(), ticks.contract().calendar(), ticks.tape())
                .since();
        BarSeries series = ahead.histories().of(ticks.tape(), ticks.contract().calendar(), first.signals().bars(),
                since, ahead.until());
        return new Setup(ticks.tape(), ticks.contract(), ticks.others(), ticks.account(),
                ticks.strategies().stream().map(BarMode::countingAtOnce).toList(), ticks.terms(), ticks.firstDay(),
                ticks.ahead(), ticks.rolls(), Optional.of(new BarSteps(series)));
    }

    private static void check(Strategy strategy) {
        String name = "strategy \"" + strategy.name() + "\": ";
        if (strategy.signals().evaluate() == SignalPlan.Evaluate.EVERY_TRADE) {
            throw new IllegalArgumentException(name + "it is evaluated on every trade, which bars do not know:"
                    + " expected tick mode");
        }
        if (strategy.signals().bars().type() instanceof BarType.Renko) {
            throw new IllegalArgumentException(name + "a brick's prices were not all traded in its time: expected"
                    + " tick mode, or other bars than renko");
        }
    }

    /** Nobody knows what traded at a price: where a stop that is held here counts contracts, they are there with the price. */
    private static Strategy countingAtOnce(Strategy s) {
        ExitPlan plan = new ExitPlan(s.plan().name(), s.plan().version(), countingAtOnce(s.plan().longTerms()),
                countingAtOnce(s.plan().shortTerms()));
        return s.with(plan);
    }

    private static ExitTerms countingAtOnce(ExitTerms terms) {
        Optional<ExitTerms.Stop> stop = terms.stop().map(s -> new ExitTerms.Stop(s.distance(), s.follow(),
                s.local().map(local -> new ExitTerms.Local(local.disaster(), 0))));
        return new ExitTerms(stop, terms.targets(), terms.breakeven(), terms.trail(), terms.judged(), terms.leaves());
    }
}
