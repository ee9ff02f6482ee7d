package stativex.study;

import java.util.Arrays;

/** Contracts by price, growing; the additions since a mark can be taken back. */
final class PriceVolumes {
    private static final int ROOM = 64;

    private long lowest;
    private long[] contracts = {};
    private long total;
    private long[] addedAt = new long[ROOM];
    private long[] added = new long[ROOM];
    private int additions;
    private double most;
    private double high;
    private double low;

    void add(long price, long more) {
        int place = place(price);
        contracts[place] += more;
        total += more;
        if (additions == added.length) {
            added = Arrays.copyOf(added, additions * 2);
            addedAt = Arrays.copyOf(addedAt, additions * 2);
        }
        addedAt[additions] = price;
        added[additions++] = more;
    }

    private int place(long price) {
        if (contracts.length == 0) {
            lowest = price - ROOM / 2;
            contracts = new long[ROOM];
        }
        if (price < lowest || price >= lowest + contracts.length) {
            long from = Math.min(lowest, price - ROOM);
            long to = Math.max(lowest + contracts.length, price + ROOM);
            long[] wider = new long[Math.toIntExact(to - from)];
            System.arraycopy(contracts, 0, wider, (int) (lowest - from), contracts.length);
            contracts = wider;
            lowest = from;
        }
        return (int) (price - lowest);
    }

    /** What is added from here on can be taken back. */
    void mark() {
        additions = 0;
    }

    void undo() {
        for (int i = 0; i < additions; i++) {
            contracts[place(addedAt[i])] -= added[i];
            total -= added[i];
        }
        additions = 0;
    }

    /** Works out the price of most volume and the area around it that holds {@code share} of all; NaN without volume. */
    void area(double share) {
        most = Double.NaN;
        high = Double.NaN;
        low = Double.NaN;
        if (total == 0) {
            return;
        }
        int first = 0;
        while (contracts[first] == 0) {
            first++;
        }
        int last = contracts.length - 1;
        while (contracts[last] == 0) {
            last--;
        }
        int best = first;
        for (int i = first + 1; i <= last; i++) {
            boolean nearer = Math.abs(2 * i - first - last) < Math.abs(2 * best - first - last);
            if (contracts[i] > contracts[best] || contracts[i] == contracts[best] && nearer) {
                best = i;
            }
        }
        int bottom = best;
        int top = best;
        long held = contracts[best];
        while (held < share * total) {
            int up = next(top, last, 1);
            int down = next(bottom, first, -1);
            boolean rises = up >= 0 && (down < 0 || contracts[up] >= contracts[down]);
            held += contracts[rises ? up : down];
            top = rises ? up : top;
            bottom = rises ? bottom : down;
        }
        most = lowest + best;
        high = lowest + top;
        low = lowest + bottom;
    }

    /** The next price with volume; −1 when there is none. */
    private int next(int from, int end, int step) {
        for (int i = from + step; step > 0 ? i <= end : i >= end; i += step) {
            if (contracts[i] > 0) {
                return i;
            }
        }
        return -1;
    }

    double most() {
        return most;
    }

    double high() {
        return high;
    }

    double low() {
        return low;
    }
}
