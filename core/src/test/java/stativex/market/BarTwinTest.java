package stativex.market;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.trial.Given;

/** Every kind of bar against a plain recomputation from SEMANTICS, "Bars", over whole lists of prints. */
public class BarTwinTest {
    private static final int DAYS = 15;
    private static final SessionCalendar CALENDAR = Given.calendar();

    /** A bar of the twin; a line of text in the end. */
    private static final class B {
        long start;
        long end;
        long open;
        long high = Long.MIN_VALUE;
        long low = Long.MAX_VALUE;
        long close;
        long volume;
        long bought;
        long sold;
        int trades;
        String marks = "";
        LocalDate date;
        /** Unknown, buyer, seller volume by price. */
        final Map<Long, int[]> prices = new TreeMap<>();

        static B of(Tape tape, List<Integer> prints, Map<Integer, Integer> parts, LocalDate date) {
            B b = new B();
            b.date = date;
            b.start = tape.time(prints.getFirst());
            b.end = tape.time(prints.getLast());
            b.open = tape.price(prints.getFirst());
            b.close = tape.price(prints.getLast());
            for (int p : prints) {
                b.high = Math.max(b.high, tape.price(p));
                b.low = Math.min(b.low, tape.price(p));
                b.count(tape, p, parts.getOrDefault(p, tape.size(p)));
            }
            return b;
        }

        void count(Tape tape, int p, int size) {
            volume += size;
            prices.computeIfAbsent(tape.price(p), k -> new int[3])[tape.aggressor(p).ordinal()] += size;
            trades++;
            bought += tape.aggressor(p) == Aggressor.BUYER ? size : 0;
            sold += tape.aggressor(p) == Aggressor.SELLER ? size : 0;
        }

        @Override
        public String toString() {
            return start + " " + end + " " + open + " " + high + " " + low + " " + close + " " + volume + " " + bought
                    + " " + sold + " " + trades + " " + date + marks + prices.entrySet().stream()
                            .map(e -> " " + e.getKey() + ":" + Arrays.toString(e.getValue())).toList();
        }
    }

    private static String line(BarSeries s, int i, BarType type) {
        String marks = s.cut(i) ? " cut" : "";
        if (type instanceof BarType.Renko) {
            marks += " " + s.nextUp(i) + " " + s.nextDown(i) + (s.oneTrade(i) ? " one" : "");
        }
        if (s.incomplete(i)) {
            marks += " incomplete";
        }
        return s.start(i) + " " + s.end(i) + " " + s.open(i) + " " + s.high(i) + " " + s.low(i) + " " + s.close(i) + " "
                + s.volume(i) + " " + s.buyVolume(i) + " " + s.sellVolume(i) + " " + s.trades(i) + " "
                + s.tradingDate(i)
                + marks + VolumeByPrice.of(s, i, i).rows().stream().map(
                        r -> " " + r.price() + ":" + List.of(r.unknown(), r.bought(), r.sold())).toList();
    }

    private static Tape tape(SplittableRandom dice) {
        TapeBuilder tape = new TapeBuilder(600);
        long time = Given.at(dice.nextInt(3), "01:00:00")
                + dice.nextLong(dice.nextInt(3) == 0 ? 5400 : 50) * Given.SECOND;
        long end = Given.at(dice.nextInt(3, DAYS), "03:59:00");
        long price = dice.nextInt(-30, 1000);
        long pace = dice.nextLong(20, 200) * Given.SECOND;
        int jumps = dice.nextInt(5, 40);
        while (time < end) {
            tape.add(time, price, 1 + dice.nextInt(dice.nextInt(8) == 0 ? 60 : 6), Tape.NONE, Tape.NONE,
                    Optional.of(Aggressor.values()[dice.nextInt(3)]));
            price += dice.nextInt(-2, 3) + (dice.nextInt(jumps) == 0 ? dice.nextInt(-40, 41) : 0);
            time += dice.nextInt(4) == 0 ? 0 : dice.nextLong(2 * pace);
            long second = Math.floorMod(time / Given.SECOND, 86_400L);
            if (second > 4 * 3600 + 600) {
                time += (86_400 - second + 3500 + dice.nextInt(400)) * Given.SECOND;
            }
        }
        Set<Tape.SessionName> incomplete = new LinkedHashSet<>();
        while (dice.nextInt(3) == 0) {
            incomplete.add(new Tape.SessionName(Given.MONDAY.plusDays(dice.nextInt(DAYS)),
                    dice.nextBoolean() ? "Day" : "Night"));
        }
        return tape.build().withIncomplete(incomplete);
    }

    private static List<Session> sessions(int days) {
        List<Session> sessions = new ArrayList<>();
        for (int day = 0; day < days; day++) {
            sessions.addAll(CALENDAR.sessions(Given.MONDAY.plusDays(day)));
        }
        return sessions;
    }

    private static Tape cut(Tape tape, SplittableRandom dice) {
        List<Tape.Part> parts = new ArrayList<>();
        for (int from = 0; from < tape.count();) {
            int to = Math.min(tape.count(), from + dice.nextInt(1, 1 + dice.nextInt(1, 200)));
            parts.add(new Tape.Part(tape, from, to, 0));
            from = to;
        }
        return Tape.joined(parts);
    }

    private static BarType type(SplittableRandom dice) {
        return switch (dice.nextInt(7)) {
            case 0 -> new BarType.Ticks(dice.nextInt(1, 30));
            case 1 -> new BarType.Volume(dice.nextInt(1, 80));
            case 2 -> new BarType.Range(dice.nextInt(1, 15));
            case 3 -> new BarType.Time(dice.nextLong(1, 4000) * Given.SECOND + dice.nextInt(2) * 500_000_000L);
            case 4, 5 -> {
                int step = dice.nextInt(1, 8);
                yield new BarType.Renko(step, step * dice.nextInt(1, 4) + dice.nextInt(3));
            }
            default -> BarType.Period.values()[dice.nextInt(3)];
        };
    }

    @Test
    public void everyKindAgreesWithAPlainTwin() {
        Map<String, Integer> seen = new HashMap<>();
        for (long seed = 1; seed <= 3000; seed++) {
            SplittableRandom dice = new SplittableRandom(seed);
            Tape tape = tape(dice);
            BarType type = type(dice);
            BarSettings.Restart restart = BarSettings.Restart.values()[dice.nextInt(4)];
            Optional<LocalDate> anchor = restart == BarSettings.Restart.NEVER
                    ? Optional.of(Given.MONDAY.plusDays(dice.nextInt(3)))
                    : Optional.empty();
            Set<String> names = List.of(Set.<String>of(), Set.of("Day"), Set.of("Night"), Set.of("Day", "Night"))
                    .get(dice.nextInt(4));
            BarSettings settings = new BarSettings(type, restart, anchor, names);
            if (tape.count() == 0) {
                continue;
            }
            // whole-history building reads the same prints in other blocks
            BarSeries series = SeriesBuilder.all(dice.nextBoolean() ? tape : cut(tape, dice), CALENDAR, settings);
            List<String> found = new ArrayList<>();
            for (int i = 0; i < series.count(); i++) {
                found.add(line(series, i, type));
            }
            List<String> expected = new Twin(tape, settings).bars().stream().map(B::toString).toList();
            assertEquals(found, expected, "seed " + seed + ", " + settings);
            if (!(type instanceof BarType.Renko)) {
                assertEquals(contracts(series), contracts(tape, settings), "no contract is lost, seed " + seed);
            }
            SeriesBuilder live = new SeriesBuilder(tape, CALENDAR, settings);
            for (int p = 0; p < tape.count(); p++) {
                live.print(p);
            }
            List<String> onceMore = new ArrayList<>();
            for (int i = 0; i < live.series().count(); i++) {
                onceMore.add(line(live.series(), i, type));
            }
            assertEquals(onceMore, found, "print by print, seed " + seed + ", " + settings);
            seen.merge(type.getClass().getSimpleName(), found.size(), Integer::sum);
            found.forEach(bar -> {
                for (String mark : List.of(" cut", " one", " incomplete")) {
                    seen.merge(mark, bar.contains(mark) ? 1 : 0, Integer::sum);
                }
            });
        }
        assertTrue(seen.size() == 9 && seen.values().stream().allMatch(n -> n > 100), seen.toString());
    }

    /** Contracts of all closed bars and the forming one, and those that the forming one has by price. */
    private static List<Long> contracts(BarSeries series) {
        long closed = 0;
        for (int bar = 0; bar < series.count(); bar++) {
            closed += series.volume(bar);
        }
        long forming = series.forming().map(BarSeries.Forming::volume).orElse(0L);
        return List.of(closed + forming, VolumeByPrice.ofForming(series).volume() - forming);
    }

    private static List<Long> contracts(Tape tape, BarSettings settings) {
        long sum = 0;
        for (int print = 0; print < tape.count(); print++) {
            Session session = CALENDAR.current(tape.time(print)).orElseThrow();
            sum += session.contains(tape.time(print)) && settings.uses(session) ? tape.size(print) : 0;
        }
        return List.of(sum, 0L);
    }

    /** Whole lists of prints, stretch by stretch. */
    private final class Twin {
        final Tape tape;
        final BarSettings settings;
        final long lastTime;
        final List<B> bars = new ArrayList<>();

        Twin(Tape tape, BarSettings settings) {
            this.tape = tape;
            this.settings = settings;
            this.lastTime = tape.time(tape.count() - 1);
        }

        List<Session> named() {
            List<Session> named = new ArrayList<>();
            for (int day = -25; day < DAYS + 40; day++) {
                for (Session s : CALENDAR.sessions(Given.MONDAY.plusDays(day))) {
                    if (settings.sessions().isEmpty() || settings.sessions().contains(s.name())) {
                        named.add(s);
                    }
                }
            }
            return named;
        }

        List<Session> used() {
            return named().stream()
                    .filter(s -> settings.anchor().map(a -> s.tradingDate().compareTo(a) >= 0).orElse(true)).toList();
        }

        List<Integer> prints(Session s) {
            List<Integer> prints = new ArrayList<>();
            for (int p = 0; p < tape.count(); p++) {
                if (s.contains(tape.time(p))) {
                    prints.add(p);
                }
            }
            return prints;
        }

        Object stretch(Session s) {
            LocalDate date = s.tradingDate();
            return switch (settings.restart()) {
                case SESSION -> s;
                case DAY -> date;
                case WEEK -> date.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
                case NEVER -> "all";
            };
        }

        Object period(BarType.Period period, LocalDate date) {
            return switch (period) {
                case DAY -> date;
                case WEEK -> date.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
                case MONTH -> date.getYear() + " " + date.getMonth();
            };
        }

        LocalDate date(int p) {
            return CALENDAR.current(tape.time(p)).orElseThrow().tradingDate();
        }

        List<B> bars() {
            if (settings.type() instanceof BarType.Period period) {
                periods(period);
                return bars;
            }
            Map<Object, List<Session>> stretches = new LinkedHashMap<>();
            used().forEach(s -> stretches.computeIfAbsent(stretch(s), k -> new ArrayList<>()).add(s));
            for (List<Session> sessions : stretches.values()) {
                List<Integer> prints = new ArrayList<>();
                sessions.forEach(s -> prints.addAll(prints(s)));
                boolean ends = settings.restart() != BarSettings.Restart.NEVER
                        && sessions.getLast().close() <= lastTime;
                switch (settings.type()) {
                    case BarType.Ticks t -> chunks(prints, t.trades(), ends);
                    case BarType.Volume v -> volumes(prints, (int) v.contracts(), ends);
                    case BarType.Range r -> ranges(prints, r.ticks(), ends);
                    case BarType.Time t -> sessions.forEach(s -> times(s, t.nanos()));
                    case BarType.Renko r -> bricks(prints, r.step(), r.turn());
                    case BarType.Period ignored -> throw new IllegalStateException();
                }
            }
            return bars;
        }

        void add(List<Integer> prints, boolean finished, boolean ends) {
            if (!prints.isEmpty() && (finished || ends)) {
                B bar = B.of(tape, prints, Map.of(), date(prints.getFirst()));
                bar.marks = finished ? "" : " cut";
                bars.add(bar);
            }
        }

        void chunks(List<Integer> prints, int size, boolean ends) {
            for (int from = 0; from < prints.size(); from += size) {
                List<Integer> part = prints.subList(from, Math.min(prints.size(), from + size));
                add(part, part.size() == size, ends);
            }
        }

        /** Contract by contract. */
        void volumes(List<Integer> prints, int size, boolean ends) {
            List<Integer> contracts = new ArrayList<>();
            prints.forEach(p -> {
                for (int i = 0; i < tape.size(p); i++) {
                    contracts.add(p);
                }
            });
            for (int from = 0; from < contracts.size(); from += size) {
                List<Integer> part = contracts.subList(from, Math.min(contracts.size(), from + size));
                if (part.size() < size && !ends) {
                    continue;
                }
                Map<Integer, Integer> parts = new LinkedHashMap<>();
                part.forEach(p -> parts.merge(p, 1, Integer::sum));
                B bar = B.of(tape, new ArrayList<>(new LinkedHashSet<>(part)), parts, date(part.getFirst()));
                bar.marks = part.size() < size ? " cut" : "";
                bars.add(bar);
            }
        }

        void ranges(List<Integer> prints, long range, boolean ends) {
            List<Integer> bar = new ArrayList<>();
            for (int p : prints) {
                long high = bar.stream().mapToLong(tape::price).max().orElse(tape.price(p));
                long low = bar.stream().mapToLong(tape::price).min().orElse(tape.price(p));
                if (Math.max(high, tape.price(p)) - Math.min(low, tape.price(p)) > range) {
                    add(bar, true, ends);
                    bar = new ArrayList<>();
                }
                bar.add(p);
            }
            add(bar, false, ends);
        }

        void times(Session s, long length) {
            Map<Long, List<Integer>> intervals = new LinkedHashMap<>();
            prints(s).forEach(p -> intervals.computeIfAbsent((tape.time(p) - s.open()) / length, k -> new ArrayList<>())
                    .add(p));
            intervals.forEach((k, prints) -> {
                long natural = s.open() + (k + 1) * length;
                long end = Math.min(natural, s.close());
                if (end <= lastTime) {
                    B bar = B.of(tape, prints, Map.of(), s.tradingDate());
                    bar.start = s.open() + k * length;
                    bar.end = end;
                    bar.marks = natural > s.close() ? " cut" : "";
                    bars.add(bar);
                }
            });
        }

        /** Brick by brick, each worked out from the prints since the one that closed the brick before. */
        void bricks(List<Integer> prints, long step, long turn) {
            if (prints.isEmpty()) {
                return;
            }
            long up = tape.price(prints.getFirst()) + step;
            long down = tape.price(prints.getFirst()) - step;
            long before = tape.price(prints.getFirst());
            List<Long> real = new ArrayList<>();
            List<Integer> own = new ArrayList<>();
            for (int p : prints) {
                long price = tape.price(p);
                own.add(p);
                List<B> made = new ArrayList<>();
                while (price >= up || price <= down) {
                    boolean rises = price >= up;
                    B b = new B();
                    b.close = rises ? up : down;
                    boolean on = Math.abs(b.close - before) == step;
                    b.open = on ? before : rises ? b.close - step : b.close + step;
                    List<Long> span = new ArrayList<>(List.of(b.open, b.close));
                    if (made.isEmpty()) {
                        span.addAll(real);
                    }
                    b.high = span.stream().mapToLong(Long::longValue).max().orElseThrow();
                    b.low = span.stream().mapToLong(Long::longValue).min().orElseThrow();
                    b.start = made.isEmpty() ? tape.time(own.getFirst()) : tape.time(p);
                    b.end = tape.time(p);
                    b.date = made.isEmpty() ? date(own.getFirst()) : date(p);
                    if (made.isEmpty()) {
                        own.forEach(q -> b.count(tape, q, tape.size(q)));
                    }
                    before = b.close;
                    up = rises ? b.close + step : b.close + turn;
                    down = rises ? b.close - turn : b.close - step;
                    b.marks = " " + up + " " + down;
                    made.add(b);
                }
                if (!made.isEmpty()) {
                    boolean one = made.size() > 1;
                    made.forEach(b -> b.marks += one ? " one" : "");
                    bars.addAll(made);
                    own.clear();
                    real.clear();
                }
                real.add(price);
            }
        }

        void periods(BarType.Period period) {
            Map<Object, List<Session>> groups = new LinkedHashMap<>();
            used().forEach(s -> groups.computeIfAbsent(period(period, s.tradingDate()), k -> new ArrayList<>()).add(s));
            boolean firstSession = true;
            Set<Session> incomplete = new LinkedHashSet<>();
            sessions(DAYS).stream().filter(s -> tape.incomplete().contains(
                    new Tape.SessionName(s.tradingDate(), s.name()))).forEach(incomplete::add);
            for (Session s : sessions(DAYS)) {
                List<Integer> prints = prints(s);
                if (firstSession && !prints.isEmpty()) {
                    firstSession = false;
                    if (tape.time(prints.getFirst()) - s.open() > 60 * Given.SECOND) {
                        incomplete.add(s);
                    }
                }
            }
            for (List<Session> sessions : groups.values()) {
                List<Integer> prints = new ArrayList<>();
                sessions.forEach(s -> prints.addAll(prints(s)));
                if (!prints.isEmpty() && sessions.getLast().close() <= lastTime) {
                    B bar = B.of(tape, prints, Map.of(), date(prints.getFirst()));
                    // the whole period, an anchor inside it or not
                    List<Session> whole = named().stream()
                            .filter(s -> period(period, s.tradingDate())
                                    .equals(period(period, sessions.getFirst().tradingDate())))
                            .toList();
                    bar.start = whole.getFirst().open();
                    bar.end = sessions.getLast().close();
                    boolean late = tape.time(0) - bar.start > 60 * Given.SECOND
                            || !whole.getFirst().equals(sessions.getFirst());
                    bar.marks = late || sessions.stream().anyMatch(incomplete::contains) ? " incomplete" : "";
                    bars.add(bar);
                }
            }
        }
    }

    @Test
    public void renkoRatiosOfTheTrade() {
        // common practice, no source: step 3 and ratios 1:2, 1:3, 1:4 turn after 6, 9, 12 ticks
        for (long turn : new long[]{6, 9, 12}) {
            Tape tape = Given.tape(Given.at(0, "01:00:00"), 100, 103, 103 - turn + 1, 103 - turn);
            BarSeries bars = SeriesBuilder.all(tape, CALENDAR, BarSettings.of(new BarType.Renko(3, turn)));
            assertEquals(bars.count(), 2);
            assertEquals(bars.close(0), 103);
            assertEquals(bars.nextDown(0), 103 - turn);
            assertEquals(bars.open(1), 103 - turn + 3, "a turn opens a step before its own close");
            assertEquals(bars.high(1), 103, "the price of the print that closed the brick before counts");
        }
    }

    @Test
    public void heikinAshiStartsAfreshWhereItsBarsDo() {
        TapeBuilder tape = new TapeBuilder(8);
        long[] prices = {10, 14, 12, 20, 30, 34};
        for (int i = 0; i < 4; i++) {
            tape.add(Given.at(0, "01:00:0" + i), prices[i], 1, Tape.NONE, Tape.NONE);
        }
        for (int i = 4; i < 6; i++) {
            tape.add(Given.at(0, "03:00:0" + i), prices[i], 1, Tape.NONE, Tape.NONE);
        }
        BarSeries bars = SeriesBuilder.all(tape.build(), CALENDAR, BarSettings.of(new BarType.Ticks(2)));
        HeikinAshi view = new HeikinAshi(bars);
        assertEquals(view.open(0), 12.0);
        assertEquals(view.close(0), 12.0);
        assertEquals(view.open(1), 12.0, "the middle of open and close before");
        assertEquals(view.close(1), 16.0);
        assertEquals(view.low(1), 12.0);
        assertEquals(view.open(2), 32.0, "afresh in the next session");
        BarSeries runOn = SeriesBuilder.all(bars.tape(), CALENDAR,
                new BarSettings(new BarType.Ticks(2), BarSettings.Restart.DAY, Optional.empty(), Set.of()));
        assertEquals(new HeikinAshi(runOn).open(2), 14.0, "running on within the day");
    }

    @Test
    public void aSettingThatMakesTooManyBarsIsRefused() {
        Tape far = Given.tape(Given.at(0, "01:00:00"), 0, 100_001);
        assertThrows(IllegalArgumentException.class,
                () -> SeriesBuilder.all(far, CALENDAR, BarSettings.of(new BarType.Renko(1, 1))));
        Tape large = new TapeBuilder(1).add(Given.at(0, "01:00:00"), 1, 100_001, Tape.NONE, Tape.NONE).build();
        assertThrows(IllegalArgumentException.class,
                () -> SeriesBuilder.all(large, CALENDAR, BarSettings.of(new BarType.Volume(1))));
        assertThrows(IllegalArgumentException.class, () -> new BarType.Renko(3, 2));
        assertThrows(IllegalArgumentException.class, () -> new BarType.Time(999_999));
        assertThrows(IllegalArgumentException.class, () -> new BarSettings(new BarType.Ticks(1),
                BarSettings.Restart.NEVER, Optional.empty(), Set.of()));
    }
}
