package stativex.files.tape;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.TreeSet;
import org.testng.annotations.Test;
import stativex.files.Documents;
import stativex.files.Texts;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.SessionCalendar;
import stativex.market.Tape;
import stativex.market.TapeBlock;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;

/** What the intake finds, against a plain count over whole lists. */
public class FindingsTest {
    private static final long GAP = 10 * 60 * TapeTime.SECOND;
    private static final LocalDate MONDAY = LocalDate.of(2026, 9, 21);

    private static final List<Session> SESSIONS = sessions();

    private record Print(long time, long price, long size, long bid, long ask) {}

    /** Through the beginning of daylight saving in Auckland, a night session and a day session each weekday. */
    private static SessionCalendar calendar() {
        Map<DayOfWeek, List<SessionCalendar.Hours>> week = new EnumMap<>(DayOfWeek.class);
        for (DayOfWeek day : List.of(DayOfWeek.MONDAY, DayOfWeek.TUESDAY, DayOfWeek.WEDNESDAY, DayOfWeek.THURSDAY,
                DayOfWeek.FRIDAY)) {
            week.put(day, List.of(
                    new SessionCalendar.Hours("Night", LocalTime.of(18, 0), -1, LocalTime.of(6, 0), 0),
                    new SessionCalendar.Hours("Day", LocalTime.of(8, 30), 0, LocalTime.of(17, 0), 0)));
        }
        return new SessionCalendar(ZoneId.of("Pacific/Auckland"), week, Map.of(MONDAY.plusDays(2), List.of()));
    }

    private static List<Print> prints(SplittableRandom dice) {
        List<Print> prints = new ArrayList<>();
        long time = calendar().sessions(MONDAY).getFirst().open()
                + dice.nextLong(-3600, dice.nextInt(2) == 0 ? 40 : 5000) * TapeTime.SECOND;
        int count = dice.nextInt(20, 250);
        long pace = dice.nextLong(60, 1500) * TapeTime.SECOND;
        for (int i = 0; i < count; i++) {
            boolean same = i > 0 && dice.nextInt(10) == 0;
            prints.add(same
                    ? prints.getLast()
                    : new Print(time, dice.nextLong(1000, 1003), dice.nextLong(1, 3),
                            dice.nextInt(8) == 0 ? Tape.NONE : 1000 + dice.nextInt(2),
                            dice.nextInt(8) == 0 ? Tape.NONE : 1001 + dice.nextInt(2)));
            time += dice.nextInt(12) == 0
                    ? dice.nextLong(dice.nextInt(4) == 0 ? 40 * 3600 : 8 * 3600) * TapeTime.SECOND
                    : dice.nextLong(pace);
            time = Math.max(time, prints.getLast().time());
        }
        return prints;
    }

    @Test
    public void countsAgreeWithAPlainTwin() {
        Contract base = Documents.contract(Texts.CONTRACT, "contract.json").value();
        Contract contract = new Contract(base.symbol(), base.name(), base.currency(), base.tickSize(), base.tickValue(),
                base.slippage(), calendar(), Optional.empty());
        Map<Finding, Long> seen = new EnumMap<>(Finding.class);
        for (long seed = 0; seed < 500; seed++) {
            List<Print> prints = prints(new SplittableRandom(seed));
            List<TapeBlock> blocks = new ArrayList<>();
            Intake intake = new Intake(contract, new TapeBuilder(blocks::add), GAP);
            for (int i = 0; i < prints.size(); i++) {
                Print p = prints.get(i);
                assertTrue(intake.take(i + 2, p.time, p.price, p.size, p.bid, p.ask, Tape.NONE, Tape.NONE,
                        Optional.empty()).isEmpty());
            }
            Map<Finding, Long> expected = twin(prints);
            for (Finding kind : Finding.values()) {
                assertEquals(intake.findings().count(kind), expected.getOrDefault(kind, 0L).longValue(),
                        kind + ", seed " + seed);
                seen.merge(kind, intake.findings().count(kind), Long::sum);
            }
            assertEquals(new TreeSet<>(intake.findings().lacking()), lacking(prints), "seed " + seed);
        }
        for (Finding kind : List.of(Finding.DUPLICATE, Finding.GAP, Finding.NO_PRINTS, Finding.OUTSIDE,
                Finding.NO_QUOTE,
                Finding.CROSSED, Finding.LATE)) {
            assertTrue(seen.get(kind) > 100, kind + " seen " + seen.get(kind));
        }
    }

    private static List<Session> sessions() {
        List<Session> sessions = new ArrayList<>();
        SessionCalendar calendar = calendar();
        for (int day = 0; day < 80; day++) {
            sessions.addAll(calendar.sessions(MONDAY.plusDays(day)));
        }
        return sessions;
    }

    private static Map<Finding, Long> twin(List<Print> prints) {
        Map<Finding, Long> counts = new EnumMap<>(Finding.class);
        for (int i = 0; i < prints.size(); i++) {
            Print p = prints.get(i);
            count(counts, Finding.DUPLICATE, i > 0 && p.equals(prints.get(i - 1)));
            count(counts, Finding.NO_QUOTE, p.bid == Tape.NONE || p.ask == Tape.NONE);
            count(counts, Finding.CROSSED, p.bid != Tape.NONE && p.ask != Tape.NONE && p.bid >= p.ask);
            count(counts, Finding.OUTSIDE, SESSIONS.stream().noneMatch(s -> s.contains(p.time)));
        }
        boolean begun = false;
        for (Session s : SESSIONS) {
            List<Print> inside = prints.stream().filter(p -> s.contains(p.time)).toList();
            boolean over = prints.getLast().time >= s.close();
            if (inside.isEmpty()) {
                count(counts, Finding.NO_PRINTS, begun && over);
                continue;
            }
            if (begun) {
                count(counts, Finding.GAP, inside.getFirst().time - s.open() > GAP);
            } else {
                count(counts, Finding.LATE, inside.getFirst().time - s.open() > 60 * TapeTime.SECOND);
            }
            for (int i = 1; i < inside.size(); i++) {
                count(counts, Finding.GAP, inside.get(i).time - inside.get(i - 1).time > GAP);
            }
            count(counts, Finding.GAP, over && s.close() - inside.getLast().time > GAP);
            begun = true;
        }
        return counts;
    }

    private static TreeSet<Tape.SessionName> lacking(List<Print> prints) {
        TreeSet<Tape.SessionName> lacking = new TreeSet<>();
        boolean begun = false;
        for (Session s : SESSIONS) {
            List<Print> inside = prints.stream().filter(p -> s.contains(p.time)).toList();
            boolean over = prints.getLast().time >= s.close();
            boolean lacks = inside.isEmpty()
                    ? begun && over
                    : inside.getFirst().time - s.open() > (begun ? GAP : 60 * TapeTime.SECOND)
                            || over && s.close() - inside.getLast().time > GAP;
            for (int i = 1; i < inside.size(); i++) {
                lacks |= inside.get(i).time - inside.get(i - 1).time > GAP;
            }
            if (lacks) {
                lacking.add(new Tape.SessionName(s.tradingDate(), s.name()));
            }
            begun |= !inside.isEmpty();
        }
        return lacking;
    }

    private static void count(Map<Finding, Long> counts, Finding kind, boolean found) {
        counts.merge(kind, found ? 1L : 0L, Long::sum);
    }
}
