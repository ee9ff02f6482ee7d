package stativex.bench;

import java.util.List;
import java.util.concurrent.locks.LockSupport;
import org.HdrHistogram.Histogram;
import stativex.account.Account;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.files.Documents;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.trial.Inputs;
import stativex.trial.Run;

/**
 * From a print to whatever it leads to: bars made as prints come, studies, rules, interlocks, orders, plan, account. Prints are given at a
 * steady pace, and a print's time counts from when it was due, so that a stall is seen in all that waited for it. The first half of the
 * day warms up. Fails when the 99th percentile is above the microseconds given, if any are.
 */
final class PrintToDecision {
    private static final int A_SECOND = 5_000;

    private PrintToDecision() {}

    public static void main(String[] arguments) {
        int seconds = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 60;
        double most = arguments.length > 1 ? Double.parseDouble(arguments[1]) : Double.MAX_VALUE;
        Contract contract = Demo.documents().contract().value();
        int warm = 400_000;
        Tape tape = Demo.tape(contract, warm + seconds * A_SECOND + 1);
        Strategy strategy = Documents.strategy(TrialAgainstBareLoop.busy("tick 400"), "busy", other -> other).value();
        Account account = Documents.account(TrialAgainstBareLoop.ACCOUNT, "account", other -> other).value();
        Run run = new Run(Inputs.of(tape, contract, account, List.of(strategy), Terms.DEFAULT));
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        while (run.place() < warm) {
            run.step();
        }
        Histogram times = new Histogram(10_000_000_000L, 3);
        int decided = run.engine().log().decisions().size();
        long apart = 1_000_000_000L / A_SECOND;
        long begin = System.nanoTime();
        for (int i = 0; i < seconds * A_SECOND && !run.atEnd(); i++) {
            long due = begin + i * apart;
            while (System.nanoTime() < due) {
                if (due - System.nanoTime() > 100_000) {
                    LockSupport.parkNanos(20_000);
                } else {
                    Thread.onSpinWait();
                }
            }
            run.step();
            times.recordValue(Math.max(0, System.nanoTime() - due));
        }
        double p99 = times.getValueAtPercentile(99) / 1e3;
        System.out.printf(
                "%d prints at %d a second, %d decisions: from a print to what it leads to p50 %.1f µs, p99 %.1f, p99.9 %.1f, most %.1f%n",
                times.getTotalCount(), A_SECOND, run.engine().log().decisions().size() - decided,
                times.getValueAtPercentile(50) / 1e3, p99, times.getValueAtPercentile(99.9) / 1e3,
                times.getMaxValue() / 1e3);
        System.exit(p99 <= most ? 0 : 1);
    }
}
