package stativex.bench;

import java.util.Map;
import stativex.account.Account;
import stativex.demo.Demo;
import stativex.engine.Strategy;
import stativex.files.Documents;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.trial.PastTrades;

/** One past trade, and one from every signal, over five million prints, beside a whole trial of the same: the first turn and the last of four. */
final class PastTradeTimes {
    private static final int PRINTS = 5_000_000;

    private PastTradeTimes() {}

    public static void main(String[] arguments) {
        Contract contract = Demo.documents().contract().value();
        Tape tape = Demo.tape(contract, PRINTS);
        Strategy strategy = Documents.strategy(TrialAgainstBareLoop.quiet("tick 400"), "quiet", other -> other).value();
        Account account = Documents.account(TrialAgainstBareLoop.ACCOUNT, "account", other -> other).value();
        PastTrades past = new PastTrades(tape, contract, account, Terms.DEFAULT);
        for (int turn = 0; turn < 4; turn++) {
            int bars = past.bars(strategy).count();
            long begin = System.nanoTime();
            past.at(strategy, Map.of(), Side.LONG, bars * 3 / 4);
            long one = System.nanoTime();
            int trades = past.everySignal(strategy, Map.of(), () -> false).orElseThrow().size();
            long all = System.nanoTime();
            if (turn == 0 || turn == 3) {
                System.out.printf("%s: a past trade %.1f ms, %d trades from every signal %.0f ms%n",
                        turn == 0 ? "first time" : "warm", (one - begin) / 1e6, trades, (all - one) / 1e6);
            }
        }
    }
}
