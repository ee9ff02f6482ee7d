package stativex.demo;

import java.util.List;
import java.util.Optional;
import stativex.engine.Command;
import stativex.engine.Decision;
import stativex.engine.Mode;
import stativex.engine.Trade;
import stativex.files.SessionFile;
import stativex.market.Tape;
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
                .filter(d -> d.kind() == Decision.Kind.LOCKED && d.reason().equals("day loss")).findFirst();
        long locked = lock.map(Decision::time).orElse(Long.MIN_VALUE);
        long firstExit = trades.isEmpty() ? Long.MAX_VALUE : trades.getFirst().exitTime();
        boolean full = trades.stream().anyMatch(t -> t.exitReason().equals("target 2") && t.exitTime() < locked
                && origins(t).contains("breakeven") && origins(t).contains("trail"));
        boolean between = decisions.stream().anyMatch(d -> d.time() > firstExit && d.time() < locked
                && (d.reason().equals("outside window") || d.reason().equals("line check")));
        boolean after = decisions.stream().anyMatch(d -> d.time() > locked && d.reason().equals("locked"));
        return new DemoStory(trades.size(), full, between, lock.isPresent(), lock.isPresent() && after);
    }

    private static List<String> origins(Trade trade) {
        return trade.stops().stream().map(Trade.StopPoint::origin).toList();
    }

    boolean complete() {
        return trades >= 3 && fullTrade && declinedBetween && dayLoss && declinedAfter;
    }
}
