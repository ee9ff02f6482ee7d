package stativex.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import stativex.demo.Demo;
import stativex.files.SessionFile;
import stativex.market.Tape;
import stativex.order.Terms;
import stativex.trial.Inputs;
import stativex.trial.Run;

/**
 * How long the engine takes for a trial of the demo's first strategy over the demo's days, against a bare loop that makes
 * lowest, highest and sum of 400 prints each over the same prices in plain arrays. Both in one run, one thread, warm, turn
 * and turn about; medians. Fails when the ratio is above the one given, 100 if none is.
 */
final class TrialAgainstBareLoop {
    private static final int BAR = 400;
    private static final int ROUNDS = 31;

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
        List<Double> trials = new ArrayList<>();
        List<Double> loops = new ArrayList<>();
        long entries = 0;
        long check = 0;
        for (int round = -ROUNDS; round < ROUNDS; round++) {
            long start = System.nanoTime();
            check += bareLoop(prices, sizes);
            long middle = System.nanoTime();
            Run run = Run.trial(inputs);
            long end = System.nanoTime();
            entries = run.engine().log().trades().size();
            if (round >= 0) {
                loops.add((middle - start) / 1e6);
                trials.add((end - middle) / 1e6);
            }
        }
        double ratio = median(trials) / median(loops);
        System.out.printf("prints %d, trades taken %d, check %d%n", tape.count(), entries, check);
        System.out.printf("bare loop %.3f ms, trial %.3f ms: %.1f × the bare loop (at most %.0f ×)%n", median(loops),
                median(trials), ratio, most);
        if (entries == 0 || ratio > most) {
            System.exit(1);
        }
    }

    private static long bareLoop(long[] prices, int[] sizes) {
        long check = 0;
        for (int from = 0; from < prices.length; from += BAR) {
            int to = Math.min(prices.length, from + BAR);
            long lowest = Long.MAX_VALUE;
            long highest = Long.MIN_VALUE;
            long sum = 0;
            for (int i = from; i < to; i++) {
                lowest = Math.min(lowest, prices[i]);
                highest = Math.max(highest, prices[i]);
                sum += sizes[i];
            }
            check += lowest + highest + sum;
        }
        return check;
    }

    private static double median(List<Double> values) {
        List<Double> sorted = new ArrayList<>(values);
        Collections.sort(sorted);
        return sorted.get(sorted.size() / 2);
    }
}
