package stativex.evidence;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import stativex.market.SessionCalendar;
import stativex.trial.Run;
import stativex.trial.TradeFacts;

/**
 * The record of a trading day from which everything is drawn that a trial is judged by. Money in ten-thousandths.
 *
 * @param result equity at the day's end − at its first instant
 * @param high the highest equity of the day less that at its first instant, 0 or above; {@code low} the lowest, 0 or below; {@code fall} its deepest fall from a high of the
 *     day, 0 or above; all at every print
 * @param trades entered on this day, {@code net} of them; {@code won} and {@code lost} the sums of those with net above and below 0
 */
public record TrialDay(LocalDate date, long result, long high, long low, long fall, int trades, long net, long won,
        long lost) {

    /**
     * The days of a finished run.
     *
     * @throws IllegalArgumentException where bars were walked: they do not show the equity of every print
     */
    public static List<TrialDay> of(Run run) {
        Walk walk = new Walk(run);
        DayWalk.walk(run, walk);
        walk.ends();
        return List.copyOf(walk.days);
    }

    private static final class Walk implements DayWalk.Points {
        private final Map<LocalDate, long[]> trades = new HashMap<>();
        private final List<TrialDay> days = new ArrayList<>();
        private LocalDate date;
        private long high;
        private long low;
        private long fall;
        private long last;

        Walk(Run run) {
            SessionCalendar calendar = run.inputs().accountCalendar();
            for (TradeFacts facts : TradeFacts.of(run)) {
                long net = facts.trade().net();
                // an account's day is that of its calendar
                LocalDate day = calendar.tradingDate(facts.trade().entryTime()).orElseGet(facts::tradingDay);
                long[] sums = trades.computeIfAbsent(day, d -> new long[4]);
                sums[0]++;
                sums[1] += net;
                sums[2] += Math.max(0, net);
                sums[3] += Math.max(0, -net);
            }
        }

        @Override
        public boolean overnight() {
            return true;
        }

        @Override
        public void day(LocalDate next) {
            ends();
            date = next;
            high = 0;
            low = 0;
            fall = 0;
            last = 0;
        }

        @Override
        public void point(long time, long result, long closing, long perTick, boolean filled) {
            high = Math.max(high, result);
            low = Math.min(low, result);
            fall = Math.max(fall, high - result);
            last = result;
        }

        void ends() {
            if (date != null) {
                long[] sums = trades.getOrDefault(date, new long[4]);
                days.add(
                        new TrialDay(date, last, high, low, fall, Math.toIntExact(sums[0]), sums[1], sums[2], sums[3]));
            }
        }
    }
}
