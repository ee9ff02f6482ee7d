package stativex.cluster;

import java.io.Serializable;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import stativex.files.VariantTrials;
import stativex.rule.Worked;

/**
 * Some variants over one range, tried one after the other on one machine. Bars are made once for each search and machine, studies once for
 * each block.
 *
 * @param first place of its first task among those that were asked for
 * @param tasks four figures each: number, grid, first and last day
 */
record Block(int first, long[] tasks) implements Serializable {
    private static final Map<String, VariantTrials> UNPACKED = new ConcurrentHashMap<>();

    /** Cuts tasks into blocks. */
    static List<Block> of(List<VariantTrials.Task> tasks, int size) {
        List<Block> blocks = new ArrayList<>();
        for (int from = 0; from < tasks.size(); from += size) {
            List<VariantTrials.Task> some = tasks.subList(from, Math.min(tasks.size(), from + size));
            long[] figures = new long[4 * some.size()];
            for (int i = 0; i < some.size(); i++) {
                VariantTrials.Task task = some.get(i);
                figures[4 * i] = task.number();
                figures[4 * i + 1] = task.grid();
                figures[4 * i + 2] = task.from();
                figures[4 * i + 3] = task.to();
            }
            blocks.add(new Block(from, figures));
        }
        return blocks;
    }

    /** Works it, where it came to. */
    Sent[] work(Parcel parcel) {
        VariantTrials trials = UNPACKED.computeIfAbsent(parcel.id(), id -> {
            // of an earlier search nothing is asked any more
            UNPACKED.clear();
            return parcel.trials();
        });
        Worked worked = new Worked();
        Sent[] sent = new Sent[tasks.length / 4];
        for (int i = 0; i < sent.length; i++) {
            sent[i] = Sent.of(first + i, trials.of(new VariantTrials.Task((int) tasks[4 * i], tasks[4 * i + 1],
                    (int) tasks[4 * i + 2], (int) tasks[4 * i + 3]), worked));
        }
        return sent;
    }
}
