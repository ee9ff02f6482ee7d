package stativex.rule;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.math.BigDecimal;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.format.TextStyle;
import java.time.temporal.TemporalAdjusters;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.function.DoubleBinaryOperator;
import java.util.function.IntPredicate;
import java.util.function.IntToDoubleFunction;
import org.testng.annotations.Test;
import stativex.market.BarSeries;
import stativex.market.BarType;
import stativex.market.Drawing;
import stativex.study.Computed;
import stativex.study.StudyDefinition;
import stativex.trial.Given;

/**
 * Random rules against a plain twin: every value and condition worked out bar by bar over the whole history, straight from
 * the sentence that docs/rule-language.md gives for it, looking back as far as it says and remembering nothing.
 */
public class RuleTwinTest {
    private static final int RULES = Integer.getInteger("stativex.rules", 2500);
    private static final int NO = 0;
    private static final int YES = 1;
    private static final int ABSENT = 2;

    /** A value with its words: {@code number} if it is the same at every bar. */
    private record Amount(String text, double[] at, boolean number) {}

    private record Holds(String text, int[] at) {}

    private final BarSeries bars = Computed.bars(Computed.walk(23, 1300), new BarType.Ticks(5));
    private final int count = bars.count();
    private final long[] sessions = new long[count];
    private final LocalDate[] days = new LocalDate[count];
    private final Map<String, Integer> seen = new HashMap<>();
    private SplittableRandom dice = new SplittableRandom(1);

    public RuleTwinTest() {
        Arrays.setAll(days,
                bar -> Given.calendar().current(bars.tape().time(bars.last(bar))).orElseThrow().tradingDate());
        Arrays.setAll(sessions, bar -> Given.calendar().current(bars.tape().time(bars.last(bar))).orElseThrow().open());
    }

    // ------------------------------------------------------------------ values

    private Amount amount(String text, IntToDoubleFunction at) {
        double[] all = new double[count];
        Arrays.setAll(all, at);
        return new Amount(text, all, false);
    }

    private static Amount number(String text, double value, int count) {
        double[] all = new double[count];
        Arrays.fill(all, value);
        return new Amount(text, all, true);
    }

    /** A figure that is no price and no number by itself may stand in brackets, so that suffixes bind to all of it. */
    private static String in(String text) {
        return text.matches("[a-z_.0-9]+") ? text : "(" + text + ")";
    }

    private Amount level(int depth) {
        switch (depth <= 0 ? dice.nextInt(5) : dice.nextInt(12)) {
            case 0 :
                return amount("open", bars::open);
            case 1 :
                return amount("high", bars::high);
            case 2 :
                return amount("low", bars::low);
            case 3 :
                return amount("close", bars::close);
            case 4 :
                return soFar();
            case 9 :
                return window(level(depth - 1), List.of("highest", "lowest", "average", "median").get(dice.nextInt(4)));
            case 10 : {
                // a number beside a price is in price units: a quarter is a tick here
                Amount a = level(depth - 1);
                int ticks = dice.nextInt(0, 9);
                boolean plus = dice.nextBoolean();
                return amount(in(a.text()) + (plus ? " + " : " - ") + price(ticks),
                        i -> plus ? a.at()[i] + ticks : a.at()[i] - ticks);
            }
            case 11 : {
                Amount a = level(depth - 1);
                Amount d = distance(depth - 1);
                boolean plus = dice.nextBoolean();
                return amount(in(a.text()) + (plus ? " + " : " - ") + in(d.text()),
                        i -> plus ? a.at()[i] + d.at()[i] : a.at()[i] - d.at()[i]);
            }
            case 5 :
                return earlier(level(depth - 1));
            case 6 :
                return held(level(depth - 1), condition(depth - 1));
            default :
                return least(level(depth - 1), level(depth - 1));
        }
    }

    private static String price(int ticks) {
        return BigDecimal.valueOf(ticks).multiply(new BigDecimal("0.25")).toPlainString();
    }

    /** The first, highest, lowest or last price, or the contracts, of the period's bars so far. */
    private Amount soFar() {
        String period = List.of("session", "day", "week", "month").get(dice.nextInt(4));
        int what = dice.nextInt(4);
        return amount(period + List.of(".open", ".high", ".low", ".close").get(what), i -> {
            int first = first(i, period);
            double found = bars.open(first);
            for (int j = first; j <= i; j++) {
                found = what == 1 ? Math.max(found, bars.high(j)) : what == 2 ? Math.min(found, bars.low(j)) : found;
            }
            return what == 3 ? bars.close(i) : found;
        });
    }

    /** The first bar of the period that a bar's session lies in. */
    private int first(int bar, String period) {
        int first = bar;
        while (first > 0 && key(first - 1, period).equals(key(bar, period))) {
            first--;
        }
        return first;
    }

    private Object key(int bar, String period) {
        LocalDate date = days[bar];
        return switch (period) {
            case "session" -> sessions[bar];
            case "day" -> date;
            case "week" -> date.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
            default -> date.withDayOfMonth(1);
        };
    }

    /** A figure of the last N values, absent with fewer or when one of them is. */
    private Amount window(Amount of, String what) {
        if (of.number()) {
            return of;
        }
        int n = dice.nextInt(2, 7);
        return amount(what + " " + n + " of " + in(of.text()), i -> {
            if (i + 1 < n) {
                return Double.NaN;
            }
            double[] all = Arrays.copyOfRange(of.at(), i - n + 1, i + 1);
            double now = of.at()[i];
            if (Arrays.stream(all).anyMatch(Double::isNaN)) {
                return Double.NaN;
            }
            double sum = 0;
            for (double one : all) {
                sum += one;
            }
            double[] sorted = all.clone();
            Arrays.sort(sorted);
            return switch (what) {
                case "highest" -> sorted[n - 1];
                case "lowest" -> sorted[0];
                case "sum" -> sum;
                case "average" -> sum / n;
                case "median" -> n % 2 == 1 ? sorted[n / 2] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
                case "rank" -> 1 + Arrays.stream(all).filter(one -> one > now).count();
                default -> 100.0 * Arrays.stream(all).filter(one -> one < now).count() / (n - 1);
            };
        });
    }

    private Amount distance(int depth) {
        switch (depth <= 0 ? dice.nextInt(2) : dice.nextInt(9)) {
            case 7 :
                return window(distance(depth - 1), List.of("highest", "sum", "average").get(dice.nextInt(3)));
            case 8 : {
                Amount a = level(depth - 1);
                Amount b = level(depth - 1);
                int ticks = dice.nextInt(0, 9);
                return amount("(" + in(a.text()) + " - " + in(b.text()) + ") + " + price(ticks),
                        i -> a.at()[i] - b.at()[i] + ticks);
            }
            case 0 : {
                int ticks = dice.nextInt(0, 6);
                return number(ticks + (ticks == 1 ? " tick" : " ticks"), ticks, count);
            }
            case 1 : {
                Amount a = level(depth - 1);
                Amount b = level(depth - 1);
                return amount(in(a.text()) + " - " + in(b.text()), i -> a.at()[i] - b.at()[i]);
            }
            case 2 : {
                Amount a = distance(depth - 1);
                return a.number() ? a : amount("abs(" + a.text() + ")", i -> Math.abs(a.at()[i]));
            }
            case 3 : {
                Amount a = distance(depth - 1);
                Amount n = plain(0);
                return amount(in(a.text()) + " * " + in(n.text()), i -> finite(a.at()[i] * n.at()[i]));
            }
            case 4 : {
                Amount a = distance(depth - 1);
                return a.number() ? a : amount("-" + in(a.text()), i -> 0 - a.at()[i]);
            }
            case 5 : {
                Amount a = distance(depth - 1);
                return a.number() ? a : earlier(a);
            }
            default : {
                Amount a = distance(depth - 1);
                Amount b = distance(depth - 1);
                return amount(in(a.text()) + " + " + in(b.text()), i -> a.at()[i] + b.at()[i]);
            }
        }
    }

    private Amount plain(int depth) {
        switch (depth <= 0 ? dice.nextInt(4) : dice.nextInt(14)) {
            case 0 :
                return amount("volume", bars::volume);
            case 11 : {
                String what = List.of("sum", "rank", "percent rank", "median", "lowest").get(dice.nextInt(5));
                return window(dice.nextBoolean() ? plain(depth - 1) : amount("volume", bars::volume), what);
            }
            case 12 : {
                String period = List.of("session", "day", "week", "month").get(dice.nextInt(4));
                return amount(period + ".volume", i -> {
                    double sum = 0;
                    for (int j = first(i, period); j <= i; j++) {
                        sum += bars.volume(j);
                    }
                    return sum;
                });
            }
            case 1 :
                return amount("delta", i -> bars.buyVolume(i) - bars.sellVolume(i));
            case 2 : {
                int n = dice.nextInt(0, 9);
                return number(Integer.toString(n), n, count);
            }
            case 3 :
                return amount("bars since session open", i -> i - first(i));
            case 4 : {
                Holds c = condition(depth - 1);
                return amount("bars since (" + c.text() + ")", i -> last(i, j -> c.at()[j] == YES) < 0
                        ? Double.NaN
                        : i - last(i, j -> c.at()[j] == YES));
            }
            case 5 : {
                Holds c = condition(depth - 1);
                return amount("times (" + c.text() + ") since session open", i -> times(c, first(i), i));
            }
            case 6 : {
                Holds c = condition(depth - 1);
                Holds from = condition(depth - 1);
                return amount("times (" + c.text() + ") since (" + from.text() + ")", i -> {
                    int j = last(i, k -> from.at()[k] == YES);
                    return j < 0 ? Double.NaN : times(c, j + 1, i);
                });
            }
            case 7 : {
                Holds c = condition(depth - 1);
                int n = dice.nextInt(1, 6);
                return amount("times (" + c.text() + ") in the last " + n + " bars",
                        i -> i + 1 < n ? Double.NaN : times(c, i - n + 1, i));
            }
            case 8 : {
                Amount a = distance(depth - 1);
                Amount b = distance(depth - 1);
                return amount(in(a.text()) + " / " + in(b.text()), i -> ratio(a.at()[i], b.at()[i]));
            }
            case 9 : {
                Amount a = plain(depth - 1);
                Amount b = plain(depth - 1);
                return amount(in(a.text()) + " / " + in(b.text()), i -> ratio(a.at()[i], b.at()[i]));
            }
            case 10 : {
                Amount a = plain(depth - 1);
                return a.number() ? a : held(a, condition(depth - 1));
            }
            default : {
                Amount a = plain(depth - 1);
                Amount b = plain(depth - 1);
                int which = dice.nextInt(3);
                DoubleBinaryOperator work = List.<DoubleBinaryOperator>of((x, y) -> x + y, (x, y) -> x - y,
                        (x, y) -> finite(x * y)).get(which);
                return amount(in(a.text()) + List.of(" + ", " - ", " * ").get(which) + in(b.text()),
                        i -> work.applyAsDouble(a.at()[i], b.at()[i]));
            }
        }
    }

    private Amount earlier(Amount of) {
        int n = dice.nextInt(1, 5);
        return amount(in(of.text()) + " " + n + (n == 1 ? " bar before" : " bars before"),
                i -> i < n ? Double.NaN : of.at()[i - n]);
    }

    /** The value at the last bar at which the condition became true: was true, and was not one bar before. */
    private Amount held(Amount of, Holds when) {
        return amount(in(of.text()) + " when (" + when.text() + ") first became true", i -> {
            int j = last(i, k -> when.at()[k] == YES && (k == 0 || when.at()[k - 1] != YES));
            return j < 0 ? Double.NaN : of.at()[j];
        });
    }

    private Amount least(Amount a, Amount b) {
        boolean least = dice.nextBoolean();
        return amount((least ? "min(" : "max(") + a.text() + ", " + b.text() + ")", i -> least
                ? Math.min(a.at()[i], b.at()[i])
                : Math.max(a.at()[i], b.at()[i]));
    }

    private static double finite(double value) {
        return Double.isInfinite(value) ? Double.NaN : value;
    }

    private static double ratio(double a, double b) {
        return b == 0 ? Double.NaN : finite(a / b);
    }

    /** The first bar of the session that a bar lies in. */
    private int first(int bar) {
        int first = bar;
        while (first > 0 && sessions[first - 1] == sessions[bar]) {
            first--;
        }
        return first;
    }

    private static int last(int bar, IntPredicate when) {
        for (int i = bar; i >= 0; i--) {
            if (when.test(i)) {
                return i;
            }
        }
        return -1;
    }

    private static double times(Holds of, int from, int to) {
        int times = 0;
        for (int i = from; i <= to; i++) {
            times += of.at()[i] == YES ? 1 : 0;
        }
        return times;
    }

    // ------------------------------------------------------------------ conditions

    private interface Judge {
        int at(int bar);
    }

    private Holds holds(String text, Judge judge) {
        int[] all = new int[count];
        Arrays.setAll(all, judge::at);
        return new Holds(text, all);
    }

    private static int judged(double a, double b, boolean holds) {
        return Double.isNaN(a) || Double.isNaN(b) ? ABSENT : holds ? YES : NO;
    }

    private static int both(int a, int b) {
        return a == NO || b == NO ? NO : a == ABSENT || b == ABSENT ? ABSENT : YES;
    }

    private static int either(int a, int b) {
        return a == YES || b == YES ? YES : a == ABSENT || b == ABSENT ? ABSENT : NO;
    }

    private static int opposite(int a) {
        return a == ABSENT ? ABSENT : 1 - a;
    }

    private Amount[] pair(int depth) {
        switch (dice.nextInt(3)) {
            case 0 : {
                // a bare number beside a price is a price: quarters are ticks here
                if (dice.nextInt(4) == 0) {
                    Amount price = level(depth - 1);
                    int ticks = dice.nextInt(380, 420);
                    return new Amount[]{price, number(BigDecimal.valueOf(ticks).multiply(new BigDecimal("0.25"))
                            .toPlainString(), ticks, count)};
                }
                return new Amount[]{level(depth - 1), level(depth - 1)};
            }
            case 1 : {
                if (dice.nextInt(4) == 0) {
                    Amount a = level(depth - 1);
                    Amount b = level(depth - 1);
                    int ticks = dice.nextInt(0, 9);
                    return new Amount[]{amount(in(a.text()) + " - " + in(b.text()), i -> a.at()[i] - b.at()[i]),
                            number(price(ticks), ticks, count)};
                }
                return new Amount[]{distance(depth - 1), distance(depth - 1)};
            }
            default :
                return new Amount[]{plain(depth - 1), plain(depth - 1)};
        }
    }

    private Holds condition(int depth) {
        int form = depth <= 0 ? dice.nextInt(2) : dice.nextInt(17);
        seen.merge("form " + form, 1, Integer::sum);
        switch (form) {
            case 0 : {
                Amount[] p = pair(depth);
                int which = dice.nextInt(6);
                String[] words = {List.of(">", "is above").get(dice.nextInt(2)),
                        List.of("<", "is below").get(dice.nextInt(2)),
                        List.of(">=", "is at least").get(dice.nextInt(2)),
                        List.of("<=", "is at most").get(dice.nextInt(2)), "=",
                        List.of("!=", "is not").get(dice.nextInt(2))};
                return holds(in(p[0].text()) + " " + words[which] + " " + in(p[1].text()), i -> {
                    double a = p[0].at()[i];
                    double b = p[1].at()[i];
                    return judged(a, b, switch (which) {
                        case 0 -> a > b;
                        case 1 -> a < b;
                        case 2 -> a >= b;
                        case 3 -> a <= b;
                        case 4 -> a == b;
                        default -> a != b;
                    });
                });
            }
            case 1 : {
                Amount[] p = pair(depth);
                boolean up = dice.nextBoolean();
                return holds(in(p[0].text()) + (up ? " rises through " : " falls through ") + in(p[1].text()), i -> {
                    double a = p[0].at()[i];
                    double b = p[1].at()[i];
                    double x = i == 0 ? Double.NaN : p[0].at()[i - 1];
                    double y = i == 0 ? Double.NaN : p[1].at()[i - 1];
                    return both(judged(a, b, up ? a > b : a < b), judged(x, y, up ? x <= y : x >= y));
                });
            }
            case 2 : {
                Amount of = dice.nextBoolean() ? level(depth - 1) : plain(depth - 1);
                int way = dice.nextInt(3);
                int n = dice.nextInt(1, 6);
                return holds(in(of.text()) + List.of(" is rising", " falling", " is flat").get(way)
                        + (n == 1 && dice.nextBoolean() ? "" : " over " + n + (n == 1 ? " bar" : " bars")), i -> {
                            double now = of.at()[i];
                            double before = i < n ? Double.NaN : of.at()[i - n];
                            return judged(now, before,
                                    way == 0 ? now > before : way == 1 ? now < before : now == before);
                        });
            }
            case 3 : {
                Holds a = condition(depth - 1);
                return holds("not (" + a.text() + ")", i -> opposite(a.at()[i]));
            }
            case 4, 5 : {
                Holds a = condition(depth - 1);
                Holds b = condition(depth - 1);
                boolean and = dice.nextBoolean();
                return holds("(" + a.text() + ")" + (and ? " and " : " or ") + "(" + b.text() + ")",
                        i -> and ? both(a.at()[i], b.at()[i]) : either(a.at()[i], b.at()[i]));
            }
            case 6, 7 : {
                Holds a = condition(depth - 1);
                boolean each = dice.nextBoolean();
                int n = dice.nextInt(1, 6);
                return holds("(" + a.text() + ") on " + (each ? "each" : "any") + " of the last " + n
                        + (n == 1 ? " bar" : " bars"), i -> {
                            int found = each ? YES : NO;
                            for (int j = i - n + 1; j <= i; j++) {
                                int there = j < 0 ? ABSENT : a.at()[j];
                                found = each ? both(found, there) : either(found, there);
                            }
                            return found;
                        });
            }
            case 8 : {
                Holds a = condition(depth - 1);
                return holds("(" + a.text() + ") for the first time since session open", i -> a.at()[i] != YES
                        ? a.at()[i]
                        : times(a, first(i), i - 1) == 0 ? YES : NO);
            }
            case 9 : {
                Holds a = condition(depth - 1);
                Holds from = condition(depth - 1);
                return holds("(" + a.text() + ") for the first time since (" + from.text() + ")", i -> {
                    int j = last(i - 1, k -> from.at()[k] == YES);
                    return a.at()[i] != YES ? a.at()[i] : j < 0 ? ABSENT : times(a, j + 1, i - 1) == 0 ? YES : NO;
                });
            }
            case 10 : {
                LocalTime from = LocalTime.of(dice.nextInt(0, 5), dice.nextInt(60));
                LocalTime to = from.plusMinutes(dice.nextInt(1, 1400));
                return holds("time is from " + from + " to " + to + " in UTC", i -> {
                    LocalTime at = LocalTime.ofNanoOfDay(Math.floorMod(bars.moment(i), 86_400_000_000_000L));
                    boolean in = from.isBefore(to)
                            ? !at.isBefore(from) && at.isBefore(to)
                            : !at.isBefore(from) || at.isBefore(to);
                    return in ? YES : NO;
                });
            }
            case 11 : {
                Amount[] p = pair(depth);
                Amount top = p[1].number() ? p[1] : dice.nextBoolean() ? p[1] : p[0];
                return holds(
                        in(p[0].text()) + (dice.nextBoolean() ? " is" : "") + " between " + in(p[1].text()) + " and "
                                + in(top.text()),
                        i -> both(
                                judged(p[0].at()[i], p[1].at()[i], p[0].at()[i] >= p[1].at()[i]),
                                judged(p[0].at()[i], top.at()[i], p[0].at()[i] <= top.at()[i])));
            }
            case 12 : {
                Holds a = condition(depth - 1);
                int n = dice.nextInt(1, 6);
                return holds("(" + a.text() + ") " + n + (n == 1 ? " bar before" : " bars before"),
                        i -> i < n ? ABSENT : a.at()[i - n]);
            }
            case 13 : {
                DayOfWeek day = DayOfWeek.of(dice.nextInt(1, 8));
                return holds(day.getDisplayName(TextStyle.FULL, Locale.ENGLISH),
                        i -> days[i].getDayOfWeek() == day ? YES : NO);
            }
            case 14 : {
                LocalTime at = LocalTime.of(dice.nextInt(0, 24), dice.nextInt(60));
                boolean after = dice.nextBoolean();
                return holds((after ? "after " : "before ") + at + " in UTC", i -> {
                    LocalTime now = LocalTime.ofNanoOfDay(Math.floorMod(bars.moment(i), 86_400_000_000_000L));
                    return now.isBefore(at) != after ? YES : NO;
                });
            }
            case 15 : {
                LocalTime from = LocalTime.of(dice.nextInt(0, 12), dice.nextInt(60));
                LocalTime to = from.plusMinutes(dice.nextInt(1, 600));
                return holds("between " + from.toString().replaceFirst("^0", "") + " and " + to + " in UTC", i -> {
                    LocalTime now = LocalTime.ofNanoOfDay(Math.floorMod(bars.moment(i), 86_400_000_000_000L));
                    return !now.isBefore(from) && now.isBefore(to) ? YES : NO;
                });
            }
            case 16 :
                return marked();
            default :
                return condition(0);
        }
    }

    /** A turning point stands on the bar that turned, drawn once two bars after it have closed. */
    private int turned(int drawnAt, boolean top, int sinceBar) {
        int at = drawnAt - 2;
        if (drawnAt < 0 || at < 2) {
            return ABSENT;
        }
        boolean turns = true;
        for (int i = 1; i <= 2; i++) {
            turns &= top
                    ? bars.high(at) > bars.high(at - i) && bars.high(at) >= bars.high(at + i)
                    : bars.low(at) < bars.low(at - i) && bars.low(at) <= bars.low(at + i);
        }
        return turns && at >= sinceBar ? YES : NO;
    }

    private Holds marked() {
        int n = dice.nextInt(1, 9);
        String stands = n == 1 && dice.nextBoolean()
                ? " stands on this bar"
                : " stands within " + n + (n == 1 ? " bar" : " bars");
        switch (dice.nextInt(4)) {
            case 0 : {
                // both kinds of one study, or those that a quality leaves
                int which = dice.nextInt(3);
                return holds("mark turn" + List.of("", " pointing down", " pointing up").get(which) + stands, i -> {
                    int found = NO;
                    for (int at = i - n + 1; at <= i; at++) {
                        if (which != 2) {
                            found = either(found, turned(at, true, i - n + 1));
                        }
                        if (which != 1) {
                            found = either(found, turned(at, false, i - n + 1));
                        }
                    }
                    return found;
                });
            }
            case 1 : {
                boolean top = dice.nextBoolean();
                String quality = List.of("", " shaped chevron", " inked teal", top ? " pointing down" : " pointing up")
                        .get(dice.nextInt(4));
                return holds("mark turn." + (top ? "top" : "bottom") + quality + stands, i -> {
                    int found = NO;
                    for (int at = i - n + 1; at <= i; at++) {
                        found = either(found, turned(at, top, i - n + 1));
                    }
                    return found;
                });
            }
            case 2 :
                return holds("mark pin" + (dice.nextBoolean() ? " shaped diamond" : "") + stands, i -> {
                    int found = NO;
                    for (int at = i - n + 1; at <= i; at++) {
                        found = either(found, at < 1
                                ? ABSENT
                                : judged(bars.close(at), bars.close(at - 1), bars.close(at) > bars.close(at - 1) + 3));
                    }
                    return found;
                });
            default :
                return holds("mark drawn \"Noon turn\"" + stands, i -> {
                    int found = NO;
                    for (int at = Math.max(0, i - n + 1); at <= i; at++) {
                        long before = at == 0 ? Long.MIN_VALUE : bars.moment(at - 1);
                        found = either(found, before < DRAWN && DRAWN <= bars.moment(at) ? YES : NO);
                    }
                    return found;
                });
        }
    }

    private static final long DRAWN = Given.at(0, "03:20:00");

    @Test
    public void everyRuleIsWhatItsWordsSay() {
        int[] found = new int[3];
        Program shared = program();
        for (int round = 0; round < RULES; round++) {
            dice = new SplittableRandom(round);
            Holds rule = condition(dice.nextInt(1, 4));
            // half of them in one program, where what has the same words is worked once
            Program program = round % 2 == 0 ? shared : program();
            Condition condition = program.condition(rule.text());
            program.take();
            for (int bar = 0; bar < count; bar++) {
                int truth = switch (condition.at(bar)) {
                    case Truth.TRUE -> YES;
                    case Truth.FALSE -> NO;
                    default -> ABSENT;
                };
                assertEquals(truth, rule.at()[bar], "rule " + round + ", bar " + bar + ": " + rule.text());
                found[truth]++;
                if (bar % 29 == 0) {
                    Explanation why = condition.explain(bar);
                    assertEquals(why.truth(), condition.at(bar));
                    assertEquals(why.failed().isEmpty(), truth == YES, rule.text());
                }
            }
        }
        for (int kind : found) {
            assertTrue(kind > RULES * count / 40, "no, yes, absent: " + Arrays.toString(found));
        }
        for (int form = 0; form < 17; form++) {
            assertTrue(seen.getOrDefault("form " + form, 0) > RULES / 30, form + " in " + seen);
        }
    }

    private Program program() {
        return new Program(new Blueprint(new BigDecimal("0.25"), Given.calendar(), List.of(),
                List.of(StudyDefinition.of("turn", "swing", "strength", "2", "ink", "teal"),
                        StudyDefinition.of("pin", "formula", "mark", "plain")
                                .taking("close > close 1 bar before + 0.75")),
                List.of(new Drawing.Marker("Noon turn", DRAWN, 400)), Map.of()), bars);
    }
}
