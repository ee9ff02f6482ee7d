package stativex.market;

import java.time.LocalDate;

/**
 * One session of a trading date. It contains its open and not its close.
 *
 * @param open first nanosecond inside
 * @param close first nanosecond after
 * @param first whether it is the first session of its trading date
 * @param last whether it is the last session of its trading date
 */
public record Session(LocalDate tradingDate, String name, long open, long close, boolean first, boolean last) {
    /** A first session whose first print comes later than this after its open is incomplete unless its calendar says otherwise, nanoseconds. */
    public static final long LATE = 60 * TapeTime.SECOND;

    public boolean contains(long time) {
        return open <= time && time < close;
    }
}
