package stativex.study;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import stativex.market.Tape;
import stativex.market.TapeTime;

/**
 * High and low of the prints from a time of day on (or from the session's open) until a later one, which may lie past
 * midnight; from then on they stand until the next such time. Absent when the tape begins late into it or that session is
 * incomplete. An extension lies a part of the range beyond it.
 */
final class OpeningRange extends Study {
    static final StudyKind KIND = new StudyKind("range", "Opening range",
            "high and low of a stretch of hours, such as the first half hour", Optional.empty(),
            List.of(new StudyField("from", new StudyField.Time(), "open", "",
                    "when it begins: a time of day, or open for the session's open"),
                    new StudyField("to", new StudyField.Time(), "open", "",
                            "when it ends; open: after so many minutes"),
                    new StudyField("minutes", new StudyField.Whole(1, 1440), "30", "minutes",
                            "how long it lasts when no end is written"),
                    StudyField.zone(),
                    StudyField.factor("extension", "1", "part of the range that `above` and `below` lie beyond it")),
            true,
            "`.high`, `.low` of the prints from `from` to `to` (may cross midnight), `.middle`, `.complete` once it has ended, `.above` and `.below` beyond by the extension; a checked twin",
            OpeningRange::new);

    private final OutputColumn high = level("high", "low");
    private final OutputColumn low = level("low", "high");
    private final OutputColumn middle = output("middle", Unit.LEVEL, Mirror.NEGATIVE);
    private final OutputColumn above = level("above", "below");
    private final OutputColumn below = level("below", "above");
    private final OutputColumn complete = flag("complete", "complete");
    private final OutputColumn starts = memory();
    private final OutputColumn ends = memory();
    private final OutputColumn highs = memory();
    private final OutputColumn lows = memory();
    private final Frame frame;
    private final Optional<LocalTime> begin;
    private final Optional<LocalTime> end;
    private final int minutes;
    private final ZoneId zone;
    private final double extension;

    OpeningRange(StudyInputs in) {
        this.frame = in.frame();
        this.begin = in.time("from");
        this.end = in.time("to");
        this.minutes = in.whole("minutes");
        this.zone = in.zone();
        this.extension = in.number("extension");
    }

    @Override
    void compute(int from, int to) {
        Tape tape = frame.tape();
        for (int row = from; row < to; row++) {
            locate(row);
            long start = (long) starts.values()[row];
            long stop = (long) ends.values()[row];
            boolean anew = row == 0 || starts.values()[row - 1] != start;
            double top = anew ? Double.NaN : highs.values()[row - 1];
            double bottom = anew ? Double.NaN : lows.values()[row - 1];
            int last = frame.last(row);
            int print = anew ? tape.firstAt(start) : frame.last(row - 1) + 1;
            for (; print <= last && tape.time(print) < stop; print++) {
                if (inSession(tape.time(print))) {
                    long price = tape.price(print);
                    top = Double.isNaN(top) ? price : Math.max(top, price);
                    bottom = Double.isNaN(bottom) ? price : Math.min(bottom, price);
                }
            }
            highs.values()[row] = top;
            lows.values()[row] = bottom;
            show(row, top, bottom, start, stop);
        }
    }

    private boolean inSession(long time) {
        return frame.sessionAt(time).filter(s -> s.contains(time)).isPresent();
    }

    private void show(int row, double top, double bottom, long start, long stop) {
        boolean whole = frame.holds(start, frame.sessionAt(start).map(List::of).orElse(List.of()));
        double h = whole ? top : Double.NaN;
        double l = whole ? bottom : Double.NaN;
        high.values()[row] = h;
        low.values()[row] = l;
        middle.values()[row] = (h + l) / 2;
        above.values()[row] = h + extension * (h - l);
        below.values()[row] = l - extension * (h - l);
        complete.values()[row] = Double.isNaN(h) ? Double.NaN : frame.moment(row) >= stop ? 1 : 0;
    }

    /** Finds the last beginning at or before the row's last print, and its end. */
    private void locate(int row) {
        long now = frame.tape().time(frame.last(row));
        double[] begins = starts.values();
        double[] stops = ends.values();
        if (row > 0 && frame.sessionOpen(row) == frame.sessionOpen(row - 1) && begin.isEmpty()) {
            begins[row] = begins[row - 1];
            stops[row] = stops[row - 1];
            return;
        }
        if (begin.isEmpty()) {
            long open = frame.sessionOpen(row);
            begins[row] = open;
            stops[row] = end.map(at -> nextAfter(open, at)).orElse(open + minutes * 60L * TapeTime.SECOND);
            return;
        }
        LocalDate date = TapeTime.in(zone, now).toLocalDate();
        long start = TapeTime.first(date.atTime(begin.get()), zone);
        if (start > now) {
            start = TapeTime.first(date.minusDays(1).atTime(begin.get()), zone);
        }
        long found = start;
        begins[row] = found;
        stops[row] = end.map(at -> nextAfter(found, at)).orElse(found + minutes * 60L * TapeTime.SECOND);
    }

    /** The first showing of a time of day after {@code from}. */
    private long nextAfter(long from, LocalTime time) {
        LocalDate date = TapeTime.in(zone, from).toLocalDate();
        long at = TapeTime.first(date.atTime(time), zone);
        return at > from ? at : TapeTime.first(date.plusDays(1).atTime(time), zone);
    }
}
