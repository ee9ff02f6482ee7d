package stativex.study;

import java.util.List;
import java.util.Optional;
import stativex.market.ContractSink;
import stativex.market.Period;
import stativex.market.Session;

/**
 * Volume by price of a period: the price of most volume, and the value area that holds a share of it: from that price on,
 * the nearer price above or below with more volume is taken until the share is reached (of equal ones the upper, then the
 * lower). {@code last_} outputs are those of the period before, finished; absent if the
 * tape does not hold it whole. Of equal prices of most volume the one nearest to
 * the middle of all, then the lower. Common practice, no source.
 */
final class Profile extends Study implements ContractSink {
    static final StudyKind KIND = new StudyKind("profile", "Volume profile",
            "price of most volume and the value area of a session, day, week or month", Optional.empty(),
            List.of(StudyField.period("where it begins anew", Period.SESSION, Period.DAY, Period.WEEK, Period.MONTH),
                    new StudyField("share", new StudyField.Number(0, 100), "70", "%",
                            "part of the volume that lies in the value area")),
            true,
            "`.most` price of most volume since the open, `.high` and `.low` of the value area; `.last_most`, `.last_high`, `.last_low` of the period before; common practice",
            Profile::new);

    private final OutputColumn most = anchored("most", "most");
    private final OutputColumn high = anchored("high", "low");
    private final OutputColumn low = anchored("low", "high");
    private final OutputColumn lastMost = anchored("last_most", "last_most");
    private final OutputColumn lastHigh = anchored("last_high", "last_low");
    private final OutputColumn lastLow = anchored("last_low", "last_high");
    private final OutputColumn starts = memory();
    private final Frame frame;
    private final Period period;
    private final double share;
    private PriceVolumes volumes = new PriceVolumes();
    /** The rows that {@link #volumes} holds: from {@code since} to {@code next}, the last one not included. */
    private int since;
    private int next;

    Profile(StudyInputs in) {
        this.frame = in.frame();
        this.period = in.period();
        this.share = in.number("share") / 100;
    }

    private OutputColumn anchored(String name, String counterpart) {
        return output(new OutputColumn.Shape(name, Unit.LEVEL, true, Mirror.NEGATIVE, counterpart));
    }

    @Override
    public void take(int print, long contracts) {
        volumes.add(frame.tape().price(print), contracts);
    }

    @Override
    void compute(int from, int to) {
        double[] begins = starts.values();
        for (int row = from; row < to; row++) {
            begins[row] = frame.periodStart(period, row, begins);
            boolean anew = row == 0 || begins[row] != begins[row - 1];
            hold(row, anew);
            if (anew) {
                boolean known = row > 0 && finished(row);
                lastMost.values()[row] = known ? most.values()[row - 1] : Double.NaN;
                lastHigh.values()[row] = known ? high.values()[row - 1] : Double.NaN;
                lastLow.values()[row] = known ? low.values()[row - 1] : Double.NaN;
                frame.contractsSince(row, (long) begins[row], this);
            } else {
                lastMost.values()[row] = lastMost.values()[row - 1];
                lastHigh.values()[row] = lastHigh.values()[row - 1];
                lastLow.values()[row] = lastLow.values()[row - 1];
                frame.contracts(row, this);
            }
            next = row + 1;
            show(row);
        }
    }

    /** Whether the rows before this one are those of the whole period before. */
    private boolean finished(int row) {
        List<Session> before = frame.wholeBefore(period, row);
        return !before.isEmpty() && before.getFirst().open() == (long) starts.values()[row - 1];
    }

    /** Makes the volumes those of the period's rows before {@code row}. */
    private void hold(int row, boolean anew) {
        if (anew) {
            volumes = new PriceVolumes();
            since = row;
        } else if (next != row) {
            if (next == row + 1 && since < row) {
                // the row was computed before, while its bar formed
                volumes.undo();
            } else {
                rebuild(row);
            }
        }
        next = row;
        volumes.mark();
    }

    private void rebuild(int row) {
        volumes = new PriceVolumes();
        since = row;
        double[] begins = starts.values();
        while (since > 0 && begins[since - 1] == begins[row]) {
            since--;
        }
        for (int i = since; i < row; i++) {
            frame.contractsSince(i, (long) begins[row], this);
        }
    }

    private void show(int row) {
        volumes.area(share);
        most.values()[row] = volumes.most();
        high.values()[row] = volumes.high();
        low.values()[row] = volumes.low();
    }
}
