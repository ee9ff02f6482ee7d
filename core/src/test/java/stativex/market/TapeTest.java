package stativex.market;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;

public class TapeTest {
    private record Print(long time, long price, int size, long bid, long ask, long bidSize, long askSize,
            Aggressor who) {
        static Print of(Tape tape, int i) {
            return new Print(tape.time(i), tape.price(i), tape.size(i), tape.bid(i), tape.ask(i), tape.bidSize(i),
                    tape.askSize(i), tape.aggressor(i));
        }

        Print moved(long shift) {
            return new Print(time, price + shift, size, bid == Tape.NONE ? bid : bid + shift,
                    ask == Tape.NONE ? ask : ask + shift, bidSize, askSize, who);
        }
    }

    /** Prints whose quotes are near, far, one-sided or missing, by stretches longer and shorter than a block. */
    private static List<Print> prints(long seed, int count) {
        SplittableRandom dice = new SplittableRandom(seed);
        List<Print> prints = new ArrayList<>();
        long time = -5;
        long price = dice.nextLong(-100, 100);
        int kind = 0;
        for (int i = 0; i < count; i++) {
            if (dice.nextInt(40_000) == 0) {
                kind = dice.nextInt(4);
                price += dice.nextLong(-1_000_000, 1_000_000);
            }
            time += dice.nextInt(3) * dice.nextLong(1_000_000_000);
            price += dice.nextInt(-3, 4);
            long away = kind == 1 ? dice.nextLong(1, 100_000) : dice.nextLong(1, 5);
            boolean none = kind == 2 || kind == 3 && dice.nextBoolean();
            prints.add(new Print(time, price, 1 + dice.nextInt(dice.nextInt(50) == 0 ? TapeBlock.SIZE_MASK : 20),
                    none ? Tape.NONE : price - away, kind == 2 ? Tape.NONE : price + away,
                    kind == 0 ? Tape.NONE : dice.nextLong(kind == 1 ? 1_000_000_000 : 30_000),
                    kind == 0 ? Tape.NONE : dice.nextLong(30_000), Aggressor.values()[dice.nextInt(3)]));
        }
        return prints;
    }

    private static Tape tape(List<Print> prints) {
        TapeBuilder builder = new TapeBuilder(10);
        prints.forEach(p -> builder.add(p.time, p.price, p.size, p.bid, p.ask, p.bidSize, p.askSize,
                Optional.of(p.who)));
        return builder.build();
    }

    private static List<Print> all(Tape tape) {
        List<Print> prints = new ArrayList<>();
        for (int i = 0; i < tape.count(); i++) {
            prints.add(Print.of(tape, i));
        }
        return prints;
    }

    @Test
    public void blocksGiveBackEveryPrint() {
        for (int count : new int[]{1, 17, TapeBlock.FULL - 1, TapeBlock.FULL, TapeBlock.FULL + 1, 200_000}) {
            List<Print> prints = prints(count, count);
            Tape tape = tape(prints);
            assertEquals(all(tape), prints);
            SplittableRandom dice = new SplittableRandom(count);
            for (int i = 0; i < 500; i++) {
                long wanted = prints.get(dice.nextInt(count)).time + dice.nextInt(-1, 2);
                int place = 0;
                while (place < count && prints.get(place).time < wanted) {
                    place++;
                }
                assertEquals(tape.firstAt(wanted), place);
            }
        }
    }

    @Test
    public void aJoinHoldsThePartsOneAfterAnother() {
        List<Print> one = prints(1, 150_000);
        List<Print> other = prints(2, 90_000).stream().map(p -> new Print(p.time + 1_000_000_000_000_000L, p.price,
                p.size, p.bid, p.ask, p.bidSize, p.askSize, p.who)).toList();
        Tape joined = Tape.joined(List.of(new Tape.Part(tape(one), 100, 149_000, -7),
                new Tape.Part(tape(other), 65_530, 65_540, 0), new Tape.Part(tape(other), 65_540, 90_000, 3)));
        List<Print> expected = new ArrayList<>();
        one.subList(100, 149_000).forEach(p -> expected.add(p.moved(-7)));
        expected.addAll(other.subList(65_530, 65_540));
        other.subList(65_540, 90_000).forEach(p -> expected.add(p.moved(3)));
        assertEquals(all(joined), expected);
        assertEquals(joined.checksum(), tape(expected).checksum());
        assertNotEquals(joined.checksum(), tape(one).checksum());
    }

    @Test
    public void extremesOfManyBarsAreThoseOfEach() {
        SplittableRandom dice = new SplittableRandom(9);
        TapeBuilder tape = new TapeBuilder(5000);
        long time = stativex.trial.Given.at(0, "01:00:00");
        for (int i = 0; i < 5000; i++) {
            tape.add(time + i * 100_000_000L, dice.nextInt(1000), 1 + dice.nextInt(1000), Tape.NONE, Tape.NONE);
        }
        BarSeries bars = SeriesBuilder.all(tape.build(), stativex.trial.Given.calendar(),
                BarSettings.of(new BarType.Ticks(1)));
        BarSeries.View view = bars.view();
        for (int round = 0; round < 2000; round++) {
            int from = dice.nextInt(view.count());
            int to = dice.nextInt(from + 1, view.count() + 1);
            long high = Long.MIN_VALUE;
            long low = Long.MAX_VALUE;
            long most = 0;
            for (int bar = from; bar < to; bar++) {
                high = Math.max(high, bars.high(bar));
                low = Math.min(low, bars.low(bar));
                most = Math.max(most, bars.volume(bar));
            }
            assertEquals(List.of(view.highest(from, to), view.lowest(from, to), view.mostVolume(from, to)),
                    List.of(high, low, most));
        }
    }

    @Test
    public void volumeByPriceOfABarAndOfSeveral() {
        Tape tape = new TapeBuilder(4).add(1, 10, 3, 9, 10).add(2, 9, 2, 9, 10).add(3, 10, 4, 9, 11)
                .add(4, 9, 3, 8, 9).build();
        VolumeByPrice all = VolumeByPrice.ofPrints(tape, 0, 3);
        assertEquals(all.rows(), List.of(new VolumeByPrice.Row(9, 3, 2, 0), new VolumeByPrice.Row(10, 7, 0, 0)),
                "the third print lies inside the quote: a buyer by the tick test");
        assertEquals(all.most().orElseThrow().price(), 10);
        assertEquals(all.volume(), 12);
        assertEquals(all.bought() - all.sold(), 8);
        assertEquals(VolumeByPrice.ofPrints(tape, 1, 0).most(), Optional.empty());
        Tape even = new TapeBuilder(4).add(1, 10, 3, 9, 10).add(2, 12, 3, 9, 10).add(2, 13, 3, 9, 10).build();
        assertEquals(VolumeByPrice.ofPrints(even, 0, 2).most().orElseThrow().price(), 12,
                "of equal ones the middle one");
    }

    @Test
    public void whatCannotBeKeptIsRefusedAndNothingAdded() {
        TapeBuilder builder = new TapeBuilder(4).add(10, 5, 1, 4, 6);
        assertThrows(IllegalArgumentException.class, () -> builder.add(9, 5, 1, 4, 6));
        assertThrows(IllegalArgumentException.class, () -> builder.add(10, 5, 0, 4, 6));
        assertThrows(IllegalArgumentException.class, () -> builder.add(10, 5, 1L << 30, 4, 6));
        assertThrows(IllegalArgumentException.class, () -> builder.add(10, 5_000_000_000L, 1, Tape.NONE, Tape.NONE));
        assertThrows(IllegalArgumentException.class, () -> builder.add(10, 5, 1, -5_000_000_000L, 6));
        assertEquals(builder.count(), 1);
        assertEquals(builder.build().count(), 1);
    }
}
