package stativex.evidence;

/** SplitMix64 as its authors give it (Steele, Lea, Flood 2014), from memory: what twins draw by. */
final class SplitMix {
    private long state;

    SplitMix(long seed) {
        state = seed;
    }

    long next() {
        state += 0x9e3779b97f4a7c15L;
        long z = state;
        z = (z ^ z >>> 30) * 0xbf58476d1ce4e5b9L;
        z = (z ^ z >>> 27) * 0x94d049bb133111ebL;
        return z ^ z >>> 31;
    }

    /** From 0 up to, but not including, 1. */
    double unit() {
        return (next() >>> 11) / 9007199254740992.0;
    }

    /** A whole number from 0 up to, but not including, n. */
    int below(int n) {
        return (int) Math.floor(unit() * n);
    }
}
