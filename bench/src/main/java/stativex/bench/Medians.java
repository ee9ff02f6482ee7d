package stativex.bench;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongSupplier;

/** Times several pieces of work turn and turn about in one run, warm, and keeps the median of each in milliseconds. */
final class Medians {
    private final int rounds;
    private final Map<String, LongSupplier> works = new LinkedHashMap<>();
    private long check;

    Medians() {
        this(31);
    }

    /** @param rounds so many warm and so many timed ones, 1 or more */
    Medians(int rounds) {
        this.rounds = rounds;
    }

    /** @param work returns a number that depends on all it did */
    Medians add(String name, LongSupplier work) {
        works.put(name, work);
        return this;
    }

    /** Runs everything; medians by name, in order of adding. */
    Map<String, Double> run() {
        Map<String, List<Double>> times = new LinkedHashMap<>();
        for (int round = -rounds; round < rounds; round++) {
            for (var work : works.entrySet()) {
                long start = System.nanoTime();
                check += work.getValue().getAsLong();
                long end = System.nanoTime();
                if (round >= 0) {
                    times.computeIfAbsent(work.getKey(), k -> new ArrayList<>()).add((end - start) / 1e6);
                }
            }
        }
        Map<String, Double> medians = new LinkedHashMap<>();
        times.forEach((name, all) -> {
            Collections.sort(all);
            medians.put(name, all.get(all.size() / 2));
        });
        return medians;
    }

    /** Keeps the work from being optimised away. */
    long check() {
        return check;
    }

    /** The fixed loop that ratios are taken against: lowest, highest and sum of every {@code bar} prints. */
    static long bareLoop(long[] prices, int[] sizes, int bar) {
        long check = 0;
        for (int from = 0; from < prices.length; from += bar) {
            int to = Math.min(prices.length, from + bar);
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
}
