package stativex.market;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;

import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.testng.annotations.Test;

/** A tape that grows reads like one that was there from the beginning, at every length. */
public class GrowingTapeTest {
    private static void print(SplittableRandom dice, TapeBuilder whole, Optional<GrowingTape> growing, long[] at) {
        at[0] += dice.nextInt(3) * TapeTime.SECOND / 2;
        at[1] += dice.nextInt(-2, 3);
        long bid = dice.nextInt(4) == 0 ? Tape.NONE : at[1] - dice.nextInt(3);
        long ask = bid == Tape.NONE ? Tape.NONE : bid + 1;
        long there = dice.nextBoolean() ? Tape.NONE : dice.nextInt(70_000);
        Optional<Aggressor> given = dice.nextInt(3) == 0 ? Optional.of(Aggressor.SELLER) : Optional.empty();
        int size = dice.nextInt(1, 50);
        whole.add(at[0], at[1], size, bid, ask, there, there, given);
        growing.ifPresent(tape -> tape.add(at[0], at[1], size, bid, ask, there, there, given));
    }

    private static void same(Tape a, Tape b, String where) {
        assertEquals(a.count(), b.count(), where);
        assertEquals(a.checksum(), b.checksum(), where);
    }

    @Test
    public void itReadsLikeAWholeOne() {
        for (int seed = 1; seed <= 12; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            int history = seed % 3 == 0 ? 0 : dice.nextInt(1, 150_000);
            int further = dice.nextInt(1, 150_000);
            long[] at = {1_700_000_000L * TapeTime.SECOND, 5000};
            TapeBuilder before = new TapeBuilder(16);
            TapeBuilder whole = new TapeBuilder(16);
            for (int i = 0; i < history; i++) {
                SplittableRandom same = new SplittableRandom(seed * 1000L + i);
                long[] copy = at.clone();
                print(same, whole, Optional.empty(), at);
                print(new SplittableRandom(seed * 1000L + i), before, Optional.empty(), copy);
            }
            GrowingTape growing = new GrowingTape(before.build());
            for (int i = 0; i < further; i++) {
                print(dice, whole, Optional.of(growing), at);
            }
            Tape expected = whole.build();
            String where = "seed " + seed;
            same(growing.tape(), expected, where);
            same(growing.kept(), expected, where);
            for (int k = 0; k < 200; k++) {
                int print = dice.nextInt(expected.count());
                long time = expected.time(print) + dice.nextInt(-1, 2);
                assertEquals(growing.tape().firstAt(time), expected.firstAt(time), where);
                assertEquals(growing.tape().firstAt(time, print / 2), expected.firstAt(time, print / 2), where);
                assertEquals(growing.tape().askSize(print), expected.askSize(print), where);
                int to = dice.nextInt(print, expected.count() + 1);
                Extremes one = new Extremes();
                Extremes other = new Extremes();
                growing.tape().extremes(print, to, one);
                expected.extremes(print, to, other);
                assertEquals(one.highest(), other.highest(), where);
                assertEquals(growing.tape().reaches(print, to, at[1] - 3, at[1] + 3),
                        expected.reaches(print, to, at[1] - 3, at[1] + 3), where);
            }
            int cut = dice.nextInt(expected.count());
            same(Tape.joined(List.of(new Tape.Part(growing.tape(), 0, cut, 7))),
                    Tape.joined(List.of(new Tape.Part(expected, 0, cut, 7))), where);
            assertThrows(IllegalArgumentException.class, () -> growing.add(growing.lastTime() - 1, 1, 1, Tape.NONE,
                    Tape.NONE, Tape.NONE, Tape.NONE, Optional.empty()));
            same(growing.tape(), expected, "what is refused adds nothing");
        }
    }

    @Test
    public void itBeginsEmpty() {
        GrowingTape growing = new GrowingTape(new TapeBuilder(1).build());
        assertEquals(growing.tape().count(), 0);
        assertEquals(growing.tape().firstAt(5), 0);
        long checksum = growing.tape().checksum();
        assertEquals(growing.add(TapeTime.SECOND * 2_000_000_000L, 9, 1, Tape.NONE, Tape.NONE, Tape.NONE, Tape.NONE,
                Optional.empty()), 0);
        assertEquals(growing.tape().price(0), 9);
        assertEquals(growing.tape().firstAt(Long.MAX_VALUE), 1);
        assertEquals(checksum == growing.tape().checksum(), false, "a longer one is another one");
    }
}
