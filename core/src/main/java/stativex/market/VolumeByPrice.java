package stativex.market;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;

/**
 * How much was traded at each price, by buyers, sellers and unknown: of a bar, of several, or of a stretch of prints. Of a
 * print that was split between bars each has its part.
 */
public final class VolumeByPrice {
    /** Contracts at a price in ticks. */
    public record Row(long price, long bought, long sold, long unknown) {
        public long volume() {
            return bought + sold + unknown;
        }

        /** Buyer less seller volume. */
        public long delta() {
            return bought - sold;
        }
    }

    private final List<Row> rows;

    private VolumeByPrice(Map<Long, long[]> sums) {
        List<Row> made = new ArrayList<>(sums.size());
        sums.forEach((price, sum) -> made.add(new Row(price, sum[1], sum[2], sum[0])));
        rows = List.copyOf(made);
    }

    /** Of the bars {@code from} to {@code to}, both included. */
    public static VolumeByPrice of(BarSeries bars, int from, int to) {
        return of(bars.tape(), sink -> {
            for (int bar = from; bar <= to; bar++) {
                bars.contracts(bar, sink);
            }
        });
    }

    /** Of the bar that was forming when the tape ended. */
    public static VolumeByPrice ofForming(BarSeries bars) {
        return of(bars.tape(), sink -> bars.forming().ifPresent(bar -> bars.contracts(bar, sink)));
    }

    /** Of what {@code contracts} hands over. */
    public static VolumeByPrice of(Tape tape, Consumer<ContractSink> contracts) {
        Map<Long, long[]> sums = new TreeMap<>();
        contracts.accept((print, part) -> add(sums, tape, print, part));
        return new VolumeByPrice(sums);
    }

    /** Of the prints {@code first} to {@code last}, both included, whole. */
    public static VolumeByPrice ofPrints(Tape tape, int first, int last) {
        Map<Long, long[]> sums = new TreeMap<>();
        for (int print = first; print <= last; print++) {
            add(sums, tape, print, tape.size(print));
        }
        return new VolumeByPrice(sums);
    }

    private static void add(Map<Long, long[]> sums, Tape tape, int print, long contracts) {
        sums.computeIfAbsent(tape.price(print), p -> new long[3])[tape.aggressorCode(print)] += contracts;
    }

    /** Rows from the lowest price up; prices without a trade are left out. */
    public List<Row> rows() {
        return rows;
    }

    /**
     * The row with the most volume; of equal ones the nearest to the middle of all, then the lower. Empty without volume.
     */
    public Optional<Row> most() {
        if (rows.isEmpty()) {
            return Optional.empty();
        }
        long middle = rows.getFirst().price() + rows.getLast().price();
        Row most = rows.getFirst();
        for (Row row : rows) {
            boolean nearer = Math.abs(2 * row.price() - middle) < Math.abs(2 * most.price() - middle);
            if (row.volume() > most.volume() || row.volume() == most.volume() && nearer) {
                most = row;
            }
        }
        return Optional.of(most);
    }

    public long bought() {
        return rows.stream().mapToLong(Row::bought).sum();
    }

    public long sold() {
        return rows.stream().mapToLong(Row::sold).sum();
    }

    public long volume() {
        return rows.stream().mapToLong(Row::volume).sum();
    }
}
