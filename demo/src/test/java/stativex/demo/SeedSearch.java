package stativex.demo;

import java.time.LocalTime;
import stativex.files.ResultWords;
import stativex.engine.Decision;
import stativex.engine.Trade;
import stativex.files.SessionFile;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.TapeTime;
import stativex.trial.Run;

/** Looks for a seed whose demo day tells the whole story. Run by hand after the simulator or a demo document changes. */
final class SeedSearch {
    private SeedSearch() {}

    /** Arguments: first seed, how many. */
    public static void main(String[] arguments) {
        SessionFile.Set documents = Demo.documents();
        Contract contract = documents.contract().value();
        long first = Long.parseLong(arguments[0]);
        for (long seed = first; seed < first + Long.parseLong(arguments[1]); seed++) {
            var tape = Demo.tape(contract, seed);
            Run run = DemoStory.run(documents, tape);
            DemoStory story = DemoStory.of(run);
            if (story.complete()) {
                System.out.println(seed + ": " + tape.count() + " prints, " + story);
                for (Trade t : run.engine().log().trades()) {
                    System.out.println("  " + clock(contract, t.entryTime()) + " " + t.side().word() + " net "
                            + Money.text(t.net()) + " " + t.exitReason() + " at " + clock(contract, t.exitTime()));
                }
                for (Decision d : run.engine().log().decisions()) {
                    System.out.println("  " + clock(contract, d.time()) + " " + ResultWords.of(d.kind()) + " "
                            + ResultWords.reason(d));
                }
            }
        }
    }

    private static LocalTime clock(Contract contract, long time) {
        return TapeTime.in(contract.calendar().zone(), time).toLocalTime();
    }
}
