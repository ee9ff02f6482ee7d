package stativex.rule;

import static org.testng.Assert.assertEquals;

import org.testng.annotations.Test;

/** Kleene's strong logic, written out. Source: S. C. Kleene, "Introduction to Metamathematics", 1952, § 64 (from memory). */
public class TruthTest {
    private static final int F = Truth.FALSE;
    private static final int T = Truth.TRUE;
    private static final int U = Truth.ABSENT;

    @Test
    public void tables() {
        int[][] and = {{F, F, F}, {F, T, F}, {F, U, F}, {T, T, T}, {T, U, U}, {U, U, U}};
        int[][] or = {{F, F, F}, {F, T, T}, {F, U, U}, {T, T, T}, {T, U, T}, {U, U, U}};
        for (int[] row : and) {
            assertEquals(Truth.and(row[0], row[1]), row[2]);
            assertEquals(Truth.and(row[1], row[0]), row[2]);
        }
        for (int[] row : or) {
            assertEquals(Truth.or(row[0], row[1]), row[2]);
            assertEquals(Truth.or(row[1], row[0]), row[2]);
        }
        assertEquals(new int[]{Truth.not(F), Truth.not(T), Truth.not(U)}, new int[]{T, F, U});
    }
}
