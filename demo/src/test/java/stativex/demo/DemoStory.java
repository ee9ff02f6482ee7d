package stativex.demo;

import java.util.List;
import java.util.Optional;
import stativex.account.LockReason;
import stativex.engine.Command;
import stativex.engine.Decision;
import stativex.engine.Mode;
import stativex.engine.Trade;
import stativex.exit.StopOrigin;
import stativex.files.SessionFile;
import stativex.interlock.Reason;
import stativex.market.Tape;
import stativex.order.FillReason;
import stativex.order.Terms;
import stativex.trial.Run;

/**
 * What the demo day must show when the first strategy is engaged at its beginning.
 *
 * @param trades taken on the day
 * @param fullTrade a trade with both targets, a breakeven move and a trail move
 * @param declinedBetween a signal declined for its window or the line check after a trade and before the lock
 * @param dayLoss the day was locked at the day loss
 * @param declinedAfter a signal was declined because of the lock
 */
record DemoStory(int trades, boolean fullTrade, boolean declinedBetween, boolean dayLoss, boolean declinedAfter) {
    /** The demo with its first strategy engaged where the story begins, run to the end. */
    static Run run(SessionFile.Set documents, Tape tape) {
        Run run = new Run(documents.inputs(tape, Terms.DEFAULT));
        run.toTime(Demo.begin(documents.contract().value()), Integer.MAX_VALUE);
        run.command(new Command.SetMode(0, Mode.ENGAGED));
        run.toPlace(run.length());
        run.finish();
        return run;
    }

    static DemoStory of(Run run) {
        List<Trade> trades = run.engine().log().trades();
        List<Decision> decisions = run.engine().log().decisions();
        Optional<Decision> lock = decisions.stream()
                .filter(d -> d.lockedFor(LockReason.DAY_LOSS)).findFirst();
        long locked = lock.map(Decision::time).orElse(Long.MIN_VALUE);
        long firstExit = trades.isEmpty() ? Long.MAX_VALUE : trades.getFirst().exitTime();
        boolean full = trades.stream()
                .anyMatch(t -> t.exitReason().equals(Optional.of(new FillReason.Target(2))) && t.exitTime() < locked
                        && origins(t).containsAll(List.of(StopOrigin.BREAKEVEN, StopOrigin.TRAIL)));
        boolean between = decisions.stream().anyMatch(d -> d.time() > firstExit && d.time() < locked
                && (d.declinedFor(Reason.OUTSIDE_WINDOW) || d.declinedFor(Reason.LINE_CHECK)));
        boolean after = decisions.stream().anyMatch(d -> d.time() > locked && d.declinedFor(Reason.LOCKED));
        return new DemoStory(trades.size(), full, between, lock.isPresent(), lock.isPresent() && after);
    }

    private static List<StopOrigin> origins(Trade trade) {
        return trade.stops().stream().map(Trade.StopPoint::origin).toList();
    }

    boolean complete() {
        return trades >= 3 && fullTrade && declinedBetween && dayLoss && declinedAfter;
    }
}
