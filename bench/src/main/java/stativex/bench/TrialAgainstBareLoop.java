package stativex.bench;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import stativex.account.Account;
import stativex.demo.Demo;
import stativex.engine.SignalPlan;
import stativex.engine.Strategy;
import stativex.engine.StrategyProblems;
import stativex.files.Documents;
import stativex.market.Contract;
import stativex.market.Histories;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.rule.Worked;
import stativex.trial.Inputs;
import stativex.trial.Run;

/**
 * How long whole trials take over {@value #PRINTS} prints of the demo's market, against a bare loop that makes lowest, highest and
 * sum of 400 prints each over the same prices in plain arrays; one thread, warm, bars, studies, rules and engine all counted. A quiet
 * strategy takes some trades a day, a busy one is in a trade for nine prints of ten, with breakeven, trail, day limits with guard and
 * a trailing floor. Each on tick, time, range and renko bars; median of five turns. Fails when a ratio on bar close is above the one
 * given, 10 if none is, or a print allocates more than 0.1 bytes beside what is kept: bars, columns, decisions, orders, trades.
 */
final class TrialAgainstBareLoop {
    private static final int PRINTS = 5_000_000;
    private static final int TURNS = 5;
    private static final int WARM_UP = 60;
    private static final double BYTES = 0.1;

    private static final Map<String, String> BARS = new LinkedHashMap<>();
    static {
        BARS.put("tick 400", "\"bars\":\"tick\",\"size\":400");
        BARS.put("time 150 s", "\"bars\":\"seconds\",\"size\":150");
        BARS.put("range 12", "\"bars\":\"range\",\"size\":12");
        BARS.put("renko 4:8", "\"bars\":\"renko\",\"size\":4,\"turn\":8");
    }

    private static final String QUIET = """
            {"document":"strategy","version":1,"name":"quiet","contract":"TDL","signal":{%s},
             "studies":[{"name":"mean","study":"vwap","deviations":1.5},{"name":"drift","study":"ema","of":"close","length":21},
                        {"name":"reach","study":"atr","length":14}],
             "long":{"rule":"close < mean.lower and close > open and delta > 0 and reach > 4 ticks"},
             "short":{"rule":"close > mean.upper and close < open and delta < 0 and reach > 4 ticks"},
             "entry":{"order":"market","quantity":2},"tradesADay":6,"historyDays":1,%s
             "windows":[{"name":"Day","days":["Monday","Tuesday","Wednesday","Thursday","Friday"],"from":"09:45","to":"16:30",
                         "zone":"Pacific/Auckland","end":"flatten"}],
             "exit":{"document":"exit plan","version":1,"name":"steps","stop":{"ticks":16},
                     "targets":[{"quantity":1,"ticks":14},{"quantity":1,"ticks":36}],
                     "breakeven":{"afterTicks":12,"offsetTicks":1},
                     "trail":[{"activateTicks":16,"distanceTicks":12,"stepTicks":4}]}}
            """;
    private static final String BUSY = """
            {"document":"strategy","version":1,"name":"busy","contract":"TDL","signal":{%s},
             "studies":[{"name":"mean","study":"vwap","deviations":1.5},{"name":"drift","study":"ema","of":"close","length":21},
                        {"name":"reach","study":"atr","length":14}],
             "long":{"rule":"close > drift"},"short":{"rule":"close < drift"},
             "entry":{"order":"market","quantity":1},%s
             "exit":{"document":"exit plan","version":1,"name":"wide","stop":{"ticks":120},
                     "targets":[{"quantity":1,"ticks":240}],
                     "breakeven":{"afterTicks":40,"offsetTicks":2},
                     "trail":[{"activateTicks":60,"distanceTicks":40,"stepTicks":4}]}}
            """;
    static final String ACCOUNT = """
            {"document":"account","version":1,"name":"wide","currency":"NZD","start":"4000000.00",
             "fees":[{"contract":"TDL","perSide":"2.15"}],
             "dayLoss":{"on":true,"amount":"90000.00","guard":true},"dayProfit":{"on":true,"amount":"90000.00"},
             "rulebook":{"document":"rulebook","version":1,"name":"wide","rules":[
               {"rule":"drawdown floor","kind":"intraday","allowance":"900000.00"}]}}
            """;

    private TrialAgainstBareLoop() {}

    /** The busy strategy on bars of a kind. */
    static String busy(String bars) {
        return BUSY.formatted(BARS.get(bars), "");
    }

    /** The quiet one. */
    static String quiet(String bars) {
        return QUIET.formatted(BARS.get(bars), "");
    }

    public static void main(String[] arguments) {
        double most = arguments.length > 0 ? Double.parseDouble(arguments[0]) : 10;
        Contract contract = Demo.documents().contract().value();
        Tape tape = Demo.tape(contract, PRINTS);
        long[] prices = new long[tape.count()];
        int[] sizes = new int[tape.count()];
        Arrays.setAll(prices, tape::price);
        Arrays.setAll(sizes, tape::size);
        boolean held = true;
        for (String bars : BARS.keySet()) {
            held &= measure("quiet", QUIET, bars, contract, tape, prices, sizes, most);
            held &= measure("busy", BUSY, bars, contract, tape, prices, sizes, most);
        }
        measure("busy, every trade", BUSY, "tick 400", contract, tape, prices, sizes, Double.MAX_VALUE);
        System.exit(held ? 0 : 1);
    }

    private static boolean measure(String name, String document, String bars, Contract contract, Tape tape,
            long[] prices, int[] sizes, double most) {
        boolean every = most == Double.MAX_VALUE;
        String text = document.formatted(BARS.get(bars), every ? "\"evaluate\":\"every trade\"," : "");
        Strategy strategy = Documents.strategy(text, name, other -> other).value();
        Account account = Documents.account(ACCOUNT, "account", other -> other).value();
        Inputs inputs = Inputs.of(tape, contract, account, List.of(strategy), Terms.DEFAULT);
        int turns = every ? 1 : TURNS;
        List<Double> bare = new ArrayList<>();
        List<Double> trial = new ArrayList<>();
        Run last = null;
        for (int turn = every ? 0 : -WARM_UP; turn < turns; turn++) {
            long begin = System.nanoTime();
            long check = Medians.bareLoop(prices, sizes, 400);
            long middle = System.nanoTime();
            last = Run.trial(inputs);
            long end = System.nanoTime();
            if (turn >= 0 && check != 42) {
                bare.add((middle - begin) / 1e6);
                trial.add((end - middle) / 1e6);
            }
        }
        double ratio = median(trial) / median(bare);
        double bytes = every ? 0 : bytesAPrint(inputs);
        System.out.printf(
                "%-18s %-11s bare loop %6.2f ms, trial %7.1f ms: %5.1f × · compile %.1f ms · %d trades, in one %2.0f %% of prints · %.3f bytes a print%n",
                name, bars, median(bare), median(trial), ratio, compile(strategy, contract),
                last.engine().log().trades().size(), 100 * inTrade(last) / (double) tape.count(), bytes);
        return every || ratio <= most && bytes <= BYTES && !last.engine().log().trades().isEmpty();
    }

    private static double median(List<Double> times) {
        List<Double> sorted = new ArrayList<>(times);
        Collections.sort(sorted);
        return sorted.get(sorted.size() / 2);
    }

    private static long inTrade(Run run) {
        return run.engine().log().trades().stream().mapToLong(t -> t.exitPrint() - t.entryPrint()).sum();
    }

    /** Reading the rules on an empty tape, which is part of each trial. */
    private static double compile(Strategy strategy, Contract contract) {
        long begin = System.nanoTime();
        SignalPlan plan = strategy.signals();
        int problems = 0;
        for (int i = 0; i < 100; i++) {
            problems += StrategyProblems.of(plan, strategy.longSide(), strategy.shortSide(), strategy.entry(),
                    contract, List.of()).size();
        }
        return problems == 0 ? (System.nanoTime() - begin) / 1e8 : Double.NaN;
    }

    /**
     * What a run allocates with bars and columns there already, less what is kept of it: the equity curve's columns, and what
     * decisions, trades and moved stops weigh with their orders, requests and reports (about 450, 5 000 and 1 000 bytes each).
     */
    private static double bytesAPrint(Inputs inputs) {
        Histories histories = new Histories();
        Worked worked = new Worked();
        Run.trial(new Run(inputs, histories, worked));
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        Run run = new Run(inputs, histories, worked);
        long before = threads.getCurrentThreadAllocatedBytes();
        Run.trial(run);
        long all = threads.getCurrentThreadAllocatedBytes() - before;
        long curve = 0;
        for (int rows = 64; rows < 2 * run.engine().days().curve().count(); rows *= 2) {
            curve += 2L * 8 * rows;
        }
        var log = run.engine().log();
        long kept = curve + 450L * log.decisions().size() + 5_000L * log.trades().size()
                + log.trades().stream().mapToLong(t -> 1_000L * t.stops().size()).sum();
        return Math.max(0, all - kept) / (double) inputs.tape().count();
    }
}
