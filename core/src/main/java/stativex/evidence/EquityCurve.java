package stativex.evidence;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import stativex.trial.Run;

/** The equity of a finished run for a picture: lowest, highest and last of every few minutes in which something is held. */
public final class EquityCurve implements DayWalk.Points {
    /**
     * @param low result of the day, money; likewise {@code high} and {@code last}
     */
    public record Piece(long time, long low, long high, long last) {}

    /** The pieces of a day, which may be none. */
    public record Day(LocalDate date, List<Piece> pieces) {
        public Day {
            pieces = List.copyOf(pieces);
        }
    }

    private final long width;
    private final List<Day> days = new ArrayList<>();
    private LocalDate date;
    private List<Piece> pieces = new ArrayList<>();
    private long from = Long.MIN_VALUE;
    private long low;
    private long high;
    private long last;
    private long time;

    private EquityCurve(long width) {
        this.width = width;
    }

    /** @param width of a piece, nanoseconds */
    public static List<Day> of(Run run, long width) {
        EquityCurve curve = new EquityCurve(width);
        DayWalk.walk(run, curve);
        curve.ends();
        return List.copyOf(curve.days);
    }

    @Override
    public boolean overnight() {
        return true;
    }

    @Override
    public void day(LocalDate next) {
        ends();
        date = next;
    }

    @Override
    public void point(long at, long result, long closing, long perTick, boolean filled) {
        if (Math.floorDiv(at, width) != from) {
            piece();
            from = Math.floorDiv(at, width);
            low = result;
            high = result;
        }
        low = Math.min(low, result);
        high = Math.max(high, result);
        last = result;
        time = at;
    }

    private void piece() {
        if (from != Long.MIN_VALUE) {
            pieces.add(new Piece(time, low, high, last));
            from = Long.MIN_VALUE;
        }
    }

    private void ends() {
        piece();
        if (date != null) {
            days.add(new Day(date, pieces));
        }
        date = null;
        pieces = new ArrayList<>();
    }
}
