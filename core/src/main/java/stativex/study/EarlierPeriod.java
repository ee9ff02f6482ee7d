package stativex.study;

import stativex.market.Period;
import stativex.market.Session;
import stativex.market.Tape;

/**
 * High, low, close and open of the prints of the period before the one a row lies in. Absent when the tape does not hold
 * that period whole: a level from half a day would be a wrong one. Worked out once for each period.
 */
final class EarlierPeriod {
    private final Frame frame;
    private final Period period;
    private long known = Long.MIN_VALUE;
    private double open;
    private double high;
    private double low;
    private double close;

    EarlierPeriod(Frame frame, Period period) {
        this.frame = frame;
        this.period = period;
    }

    /** Moves to the period before the one that begins at {@code start} and holds {@code row}. */
    void before(long start, int row) {
        if (start == known) {
            return;
        }
        known = start;
        open = Double.NaN;
        high = Double.NaN;
        low = Double.NaN;
        close = Double.NaN;
        frame.wholeBefore(period, row).forEach(this::take);
    }

    private void take(Session session) {
        Tape tape = frame.tape();
        int to = tape.firstAt(session.close());
        for (int print = tape.firstAt(session.open()); print < to; print++) {
            long price = tape.price(print);
            open = Double.isNaN(open) ? price : open;
            high = Double.isNaN(high) ? price : Math.max(high, price);
            low = Double.isNaN(low) ? price : Math.min(low, price);
            close = price;
        }
    }

    double open() {
        return open;
    }

    double high() {
        return high;
    }

    double low() {
        return low;
    }

    double close() {
        return close;
    }
}
