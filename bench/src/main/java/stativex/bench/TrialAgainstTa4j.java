package stativex.bench;

import java.util.List;
import java.util.Map;
import org.ta4j.core.BaseStrategy;
import org.ta4j.core.TradingRecord;
import org.ta4j.core.backtest.BarSeriesManager;
import org.ta4j.core.backtest.TradeOnNextOpenModel;
import org.ta4j.core.indicators.helpers.ClosePriceIndicator;
import org.ta4j.core.rules.AbstractRule;
import stativex.account.Account;
import stativex.demo.Demo;
import stativex.engine.Strategy;
import stativex.files.Documents;
import stativex.market.Contract;
import stativex.market.Histories;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.rule.Worked;
import stativex.trial.Inputs;
import stativex.trial.Run;

/**
 * A whole trial against ta4j's own executor with the same rule, stop and target on the same 500 000 bars of two prints, which each
 * holds ready. Here studies, rules, orders, account and results are made anew, and each print is looked at; there entry is the next
 * bar's open and exits are found at a bar's close. Its trades therefore end a little later: their number must agree within a
 * twentieth. Fails when a bar does not cost ta4j {@code SMALLEST RATIO} times as much, 3 if none is given.
 */
final class TrialAgainstTa4j {
    private static final int STOP = 40;
    private static final int TARGET = 80;
    private static final String STRATEGY = """
            {"document":"strategy","version":1,"name":"set-up","contract":"TDL","signal":{"bars":"tick","size":2},
             "studies":[{"name":"band","study":"bollinger","of":"close","length":20,"deviations":2},
                        {"name":"pull","study":"rsi","of":"close","length":14},{"name":"drift","study":"ema","of":"close","length":21},
                        {"name":"reach","study":"atr","length":14}],
             "long":{"rule":"%s"},"entry":{"order":"market","quantity":1},
             "exit":{"document":"exit plan","version":1,"name":"both","stop":{"ticks":%d},"targets":[{"quantity":1,"ticks":%d}]}}
            """;
    private static final String ACCOUNT = """
            {"document":"account","version":1,"name":"plain","currency":"NZD","start":"4000000.00",
             "fees":[{"contract":"TDL","perSide":"2.15"}],
             "rulebook":{"document":"rulebook","version":1,"name":"wide","rules":[
               {"rule":"drawdown floor","kind":"intraday","allowance":"3000000.00"}]}}
            """;

    private TrialAgainstTa4j() {}

    public static void main(String[] arguments) {
        double least = arguments.length > 0 ? Double.parseDouble(arguments[0]) : 3;
        Contract contract = Demo.documents().contract().value();
        Tape tape = RulesAgainstTa4j.tape(contract);
        Strategy strategy = Documents.strategy(STRATEGY.formatted(RulesAgainstTa4j.RULE, STOP, TARGET), "set-up",
                other -> other).value();
        Account account = Documents.account(ACCOUNT, "account", other -> other).value();
        Inputs inputs = Inputs.of(tape, contract, account, List.of(strategy), Terms.DEFAULT);
        RulesAgainstTa4j.Theirs theirs = new RulesAgainstTa4j.Theirs();
        theirs.bars();
        Histories histories = new Histories();
        int ours = trades(inputs, histories);
        int others = executed(theirs);
        Map<String, Double> times = new Medians(5).add("stativex", () -> trades(inputs, histories))
                .add("ta4j", () -> executed(theirs)).run();
        double bars = theirs.bars.getBarCount();
        double ratio = times.get("ta4j") / times.get("stativex");
        System.out.printf(
                "whole trial with orders and account %.0f ns a bar (%d trades), ta4j's executor %.0f ns a bar "
                        + "(%d trades): %.0f × as fast (at least %.0f ×)%n",
                1e6 * times.get("stativex") / bars, ours,
                1e6 * times.get("ta4j") / bars, others, ratio, least);
        System.exit(ratio >= least && Math.abs(ours - others) * 20 <= ours ? 0 : 1);
    }

    private static int trades(Inputs inputs, Histories histories) {
        Run run = new Run(inputs, histories, new Worked());
        Run.trial(run);
        return run.engine().log().trades().size();
    }

    private static int executed(RulesAgainstTa4j.Theirs theirs) {
        return new BarSeriesManager(theirs.bars, new TradeOnNextOpenModel())
                .run(new BaseStrategy(theirs.rule(), new Ticks(new ClosePriceIndicator(theirs.bars))))
                .getPositionCount();
    }

    /** Stop and target in ticks from the entry: ta4j's own are percentages. */
    private static final class Ticks extends AbstractRule {
        private final ClosePriceIndicator close;

        Ticks(ClosePriceIndicator close) {
            this.close = close;
        }

        @Override
        public boolean isSatisfied(int bar, TradingRecord record) {
            if (record.getCurrentPosition().isOpened()) {
                double result = close.getValue(bar).doubleValue()
                        - record.getCurrentPosition().getEntry().getNetPrice().doubleValue();
                return result <= -STOP || result >= TARGET;
            }
            return false;
        }
    }
}
