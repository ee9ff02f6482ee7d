package stativex.files;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import stativex.market.BarSeries;
import stativex.market.Side;
import stativex.market.TapeTime;
import stativex.search.Examples;

/**
 * Moments at which somebody marked a bar of a strategy as right or wrong for an entry, by side: {@code examples/NAME.examples.json} of the
 * data folder. A moment is the one at which its bar closed; with other bars it marks the one that holds it.
 */
public final class ExampleBook {
    private final Path file;
    private final String strategy;
    private final Map<Side, TreeSet<Long>> right = new LinkedHashMap<>();
    private final Map<Side, TreeSet<Long>> wrong = new LinkedHashMap<>();

    private ExampleBook(Path file, String strategy) {
        this.file = file;
        this.strategy = strategy;
        for (Side side : Side.values()) {
            right.put(side, new TreeSet<>());
            wrong.put(side, new TreeSet<>());
        }
    }

    /** That of a strategy among the person's data. @throws BadInput when the file there does not read */
    public static ExampleBook own(String strategy) {
        String plain = strategy.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
        Path file = DataFolder.path().resolve("examples")
                .resolve(plain + "-" + Integer.toHexString(strategy.hashCode()) + ".examples.json");
        return Files.exists(file) ? read(file) : new ExampleBook(file, strategy);
    }

    /** Reads one. @throws BadInput naming file, place and what was expected */
    public static ExampleBook read(Path file) {
        Field root = Field.root(file.toString(), Json.read(file));
        if (!root.at("document").text().equals("examples") || root.at("version").integer() != 1) {
            throw new BadInput(file + ": expected examples of version 1");
        }
        ExampleBook book = new ExampleBook(file, root.at("strategy").text());
        for (Side side : Side.values()) {
            root.maybe(side.word()).ifPresent(marks -> {
                marks.items("right").forEach(time -> book.right.get(side).add(time(time)));
                marks.items("wrong").forEach(time -> book.wrong.get(side).add(time(time)));
            });
        }
        return book;
    }

    private static long time(Field field) {
        return field.checked(() -> TapeTime.nanos(java.time.Instant.parse(field.text())));
    }

    /** What stands at a moment. */
    public enum Mark {
        NONE, RIGHT, WRONG
    }

    /** What was marked at a moment. */
    public Mark at(Side side, long time) {
        return right.get(side).contains(time)
                ? Mark.RIGHT
                : wrong.get(side).contains(time) ? Mark.WRONG : Mark.NONE;
    }

    /** Marks a moment, or takes its mark away; kept at once. @throws BadInput when it cannot be written */
    public void mark(Side side, long time, Mark mark) {
        right.get(side).remove(time);
        wrong.get(side).remove(time);
        if (mark != Mark.NONE) {
            (mark == Mark.RIGHT ? right : wrong).get(side).add(time);
        }
        Map<String, Object> json = new LinkedHashMap<>();
        json.put("document", "examples");
        json.put("version", 1);
        json.put("strategy", strategy);
        for (Side one : Side.values()) {
            json.put(one.word(), Map.of("right", words(right.get(one)), "wrong", words(wrong.get(one))));
        }
        WholeFile.writeOwn(file, out -> out.write(Json.pretty(json)));
    }

    private static List<String> words(TreeSet<Long> times) {
        return times.stream().map(time -> TapeTime.instant(time).toString()).toList();
    }

    /** How many bars are marked as right. */
    public int rights(Side side) {
        return right.get(side).size();
    }

    /**
     * The marks of a side as bars.
     *
     * @param beside whether a rule may hold one bar before or after a marked one
     * @throws BadInput when no bar is marked as right, or one as both
     */
    public Examples.Marks marks(Side side, BarSeries bars, boolean beside) {
        try {
            return new Examples.Marks(bars(right.get(side), bars), bars(wrong.get(side), bars), 0, bars.count(),
                    beside);
        } catch (IllegalArgumentException e) {
            throw new BadInput(side.word() + ": " + e.getMessage(), e);
        }
    }

    private static BitSet bars(TreeSet<Long> times, BarSeries bars) {
        BitSet marked = new BitSet();
        List<Long> left = new ArrayList<>(times);
        for (int bar = 0; bar < bars.count() && !left.isEmpty(); bar++) {
            while (!left.isEmpty() && left.getFirst() <= bars.moment(bar)) {
                if (left.removeFirst() >= bars.start(bar)) {
                    marked.set(bar);
                }
            }
        }
        return marked;
    }
}
