package stativex.bench;

import java.util.Arrays;
import java.util.Map;
import stativex.demo.Demo;
import stativex.files.SessionFile;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.trial.Inputs;
import stativex.trial.Run;

/**
 * How long the engine takes for a trial of the demo's first strategy over the demo's days, against a bare loop that makes
 * lowest, highest and sum of 400 prints each over the same prices in plain arrays; one thread. Fails when the ratio is above
 * the one given, 100 if none is.
 */
final class TrialAgainstBareLoop {
    private TrialAgainstBareLoop() {}

    public static void main(String[] arguments) {
        double most = arguments.length > 0 ? Double.parseDouble(arguments[0]) : 100;
        SessionFile.Set documents = Demo.documents();
        Tape tape = Demo.tape(documents.contract().value());
        Inputs both = documents.inputs(tape, Terms.DEFAULT);
        Inputs inputs = Inputs.of(tape, both.contract(), both.account(), both.strategies().subList(0, 1), both.terms());
        long[] prices = new long[tape.count()];
        int[] sizes = new int[tape.count()];
        Arrays.setAll(prices, tape::price);
        Arrays.setAll(sizes, tape::size);
        Medians medians = new Medians().add("bare loop", () -> Medians.bareLoop(prices, sizes, 400)).add("trial",
                () -> Run.trial(inputs).engine().log().trades().size());
        Map<String, Double> times = medians.run();
        int entries = Run.trial(inputs).engine().log().trades().size();
        double ratio = times.get("trial") / times.get("bare loop");
        System.out.printf("prints %d, trades taken %d, check %d%n", tape.count(), entries, medians.check());
        System.out.printf("bare loop %.3f ms, trial %.3f ms: %.1f × the bare loop (at most %.0f ×)%n",
                times.get("bare loop"), times.get("trial"), ratio, most);
        if (entries == 0 || ratio > most) {
            System.exit(1);
        }
    }
}
