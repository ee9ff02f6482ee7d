package stativex.search;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import stativex.evidence.BestOfMany;
import stativex.evidence.DayStatistics;
import stativex.evidence.LuckOfTheBest;
import stativex.evidence.Odds;

/**
 * Variants of a search in the order of what their neighbourhood is worth, and what the best of so many is worth at all. Source:
 * SEMANTICS, "Searches and evidence".
 */
public final class Ranking {
    /**
     * A variant that was evaluated over the whole fit range.
     *
     * @param number in the search, from 1
     * @param grid its number in the grid, from 0
     */
    public record Entry(int number, long grid, Tried tried) {}

    /**
     * What it is ranked by.
     *
     * @param score {@link Score#ABSENT} if absent, {@link Score#NONE} above every number; {@code neighbours} likewise
     * @param deflated the deflated Sharpe ratio; empty if absent
     */
    public record Ranked(Entry entry, double score, double neighbours, OptionalDouble deflated) {}

    private final Space space;
    private final Score score;
    private final int least;
    private final List<Entry> entries;
    private final Map<Long, Double> scores = new HashMap<>();

    /** @param least trades below which a score is absent */
    public Ranking(Space space, Score score, int least, List<Entry> entries) {
        this.space = space;
        this.score = score;
        this.least = least;
        this.entries = List.copyOf(entries);
        entries.forEach(entry -> scores.put(entry.grid(), score.of(entry.tried(), least)));
    }

    /**
     * The lower median of the scores of a variant and its evaluated neighbours, absent ones as the worst; absent where its own is, or
     * where less than half of the neighbours that exist were evaluated.
     */
    public double neighbours(long grid) {
        double own = scores.getOrDefault(grid, Score.ABSENT);
        if (own == Score.ABSENT) {
            return Score.ABSENT;
        }
        List<Long> all = space.neighbours(grid);
        double[] found = all.stream().filter(scores::containsKey).mapToDouble(scores::get).sorted().toArray();
        // both without the variant itself
        if (2 * (found.length - 1) < all.size() - 1) {
            return Score.ABSENT;
        }
        return found[(found.length - 1) / 2];
    }

    /** The best first: by the neighbours' score, then more trades, then the lower number. @param attempts ever made */
    public List<Ranked> ranked(long attempts) {
        OptionalDouble luck = bestAtRandom(attempts);
        List<Ranked> ranked = new ArrayList<>();
        for (Entry entry : entries) {
            ranked.add(new Ranked(entry, scores.get(entry.grid()), neighbours(entry.grid()),
                    luck.isPresent()
                            ? BestOfMany.deflated(DayStatistics.of(entry.tried().days()), luck.getAsDouble())
                            : OptionalDouble.empty()));
        }
        ranked.sort(Comparator.comparingDouble((Ranked r) -> -r.neighbours())
                .thenComparing(r -> -r.entry().tried().trades()).thenComparing(r -> r.entry().number()));
        return ranked;
    }

    /** The best first by the variants' own scores, ties likewise. */
    public List<Entry> byScore() {
        return entries.stream().sorted(Comparator.comparingDouble((Entry e) -> -scores.get(e.grid()))
                .thenComparing(e -> -e.tried().trades()).thenComparing(Entry::number)).toList();
    }

    /**
     * Neighbours of the best that were not evaluated, in the order of the best and of the grid, each once.
     *
     * @param best how many of the best are looked at
     */
    public List<Long> missing(int best) {
        return byScore().stream().limit(best).flatMap(entry -> space.neighbours(entry.grid()).stream())
                .filter(grid -> !scores.containsKey(grid)).distinct().toList();
    }

    /** The Sharpe ratio of a day that the best of so many worthless attempts would show. */
    public OptionalDouble bestAtRandom(long attempts) {
        return BestOfMany.atRandom(entries.stream().filter(entry -> entry.tried().trades() >= least)
                .map(entry -> entry.tried().sharpe()).filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble).toArray(), attempts);
    }

    /** The chance that the best is luck; empty where there are too few variants or days. @param blocks an even number */
    public Optional<LuckOfTheBest> luck(int blocks, Odds.Progress progress) {
        int days = entries.stream().mapToInt(entry -> entry.tried().days().length).max().orElse(0);
        List<Entry> whole = entries.stream().filter(entry -> entry.tried().days().length == days)
                .sorted(Comparator.comparingInt(Entry::number)).toList();
        return LuckOfTheBest.of(whole.stream().map(entry -> entry.tried().days()).toArray(long[][]::new),
                whole.stream().mapToInt(entry -> entry.tried().trades()).toArray(), blocks, progress);
    }

    /** What variants are ranked by. */
    public Score score() {
        return score;
    }
}
