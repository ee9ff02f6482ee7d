package stativex.rule;

import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import stativex.rule.grammar.RuleLexer;

/** The words of the rule language and what they mean, for completion and help. */
public final class Language {
    private static final Map<String, String> FORMS = new TreeMap<>(Map.ofEntries(
            Map.entry("rises through", "a rises through b: a is above b now and was not above it one bar before"),
            Map.entry("falls through", "a falls through b: a is below b now and was not below it one bar before"),
            Map.entry("is above", "a is above b: the same as a > b"),
            Map.entry("is below", "a is below b: the same as a < b"),
            Map.entry("is at least", "a is at least b: the same as a >= b"),
            Map.entry("is at most", "a is at most b: the same as a <= b"),
            Map.entry("is rising over N bars", "higher than N bars before"),
            Map.entry("is falling over N bars", "lower than N bars before"),
            Map.entry("is flat over N bars", "the same as N bars before"),
            Map.entry("is not", "a is not b: the same as a != b"),
            Map.entry("is between", "a is between b and c: at least b and at most c"),
            Map.entry("highest N of", "highest 20 of high: the highest of the last 20 bars, this one included"),
            Map.entry("lowest N of", "lowest 20 of low: the lowest of the last 20 bars, this one included"),
            Map.entry("sum N of", "sum 5 of delta: of the last 5 bars"),
            Map.entry("average N of", "average 5 of volume: of the last 5 bars"),
            Map.entry("median N of", "median 9 of close: the middle one of the last 9 bars"),
            Map.entry("rank N of", "rank 20 of volume: 1 for the highest of the last 20 bars"),
            Map.entry("percent rank N of", "percent rank 20 of volume: what share of the last 20 bars is below it"),
            Map.entry("session.high",
                    "the highest price of the session so far; also open, low, close, volume, and day, week, month"),
            Map.entry("Monday", "the bar's trading date is such a weekday"),
            Map.entry("after 10:00", "the bar closes at 10:00 or later that day; also before, with in ZONE behind"),
            Map.entry("between 9:45 and 11:30", "the bar closes in these hours, with in ZONE behind"),
            Map.entry("(condition) N bars before", "the condition held N closed bars earlier"),
            Map.entry("on any of the last N bars",
                    "the one condition before it held on at least one of the last N bars, this one included; brackets widen it"),
            Map.entry("on each of the last N bars",
                    "the one condition before it held on all of the last N bars, this one included; brackets widen it"),
            Map.entry("for the first time since session open",
                    "the condition before it holds now and on no earlier bar of the session; also day, week, month open, or since (condition)"),
            Map.entry("N bars before", "the value N closed bars earlier"),
            Map.entry("when (condition) first became true",
                    "the value at the last bar at which the condition became true"),
            Map.entry("bars since (condition)", "bars since the condition was last true, 0 at such a bar"),
            Map.entry("bars since session open", "bars since the session's first one, 0 at that"),
            Map.entry("times (condition) since session open", "on how many bars of the session the condition was true"),
            Map.entry("times (condition) in the last N bars", "on how many of the last N bars the condition was true"),
            Map.entry("bars since entry", "bars since the entry of the open position"),
            Map.entry("bars since exit", "bars closed since the one in which the strategy's last trade ended"),
            Map.entry("minutes since exit", "minutes since the strategy's last trade ended"),
            Map.entry("last result in R",
                    "the same in times what it risked: its initial stop and the fees of both ways"),
            Map.entry("last result", "net of the strategy's last trade in money: above 0 it won"),
            Map.entry("losses in a row", "losing trades of the strategy since the last one that did not lose"),
            Map.entry("trades today", "trades that the strategy opened in this trading day"),
            Map.entry("result today", "result of the strategy in this trading day in money, what is open included"),
            Map.entry("open result", "ticks in favour of the open position's average, below 0 against"),
            Map.entry("best excursion", "most ticks in favour of the open position so far"),
            Map.entry("worst excursion", "most ticks against the open position so far"),
            Map.entry("time is from 09:45 to 11:30 in Pacific/Auckland",
                    "the bar's closing moment lies in these hours; from is inside, to is not"),
            Map.entry("drawn \"NAME\"", "price of a drawn level, slope or marker at the bar's close"),
            Map.entry("forming", "the unfinished bar of another series: forming trend.close"),
            Map.entry("mark NAME stands on this bar",
                    "a study has drawn such a mark on this bar; with pointing up, shaped diamond or inked teal behind the name only such ones"),
            Map.entry("mark NAME stands within N bars", "the same of this bar and those before it, N in all"),
            Map.entry("mark drawn \"NAME\" stands on this bar", "a marker drawn by hand lies in the time of this bar"),
            Map.entry("and", "both must hold; false if one is false, else absent if one is absent"),
            Map.entry("or", "one must hold; true if one is true, else absent if one is absent"),
            Map.entry("not", "the opposite of the one condition behind it; absent stays absent"),
            Map.entry("abs(a)", "a without its sign"), Map.entry("min(a, b)", "the smaller of two values"),
            Map.entry("max(a, b)", "the larger of two values"),
            Map.entry("ticks",
                    "makes a number a distance in ticks: 4 ticks; without it a number beside a price counts price units"),
            Map.entry("# …", "the rest of the line is a comment")));

    private static final Set<String> SOFT = Set.of("open", "time", "entry", "result", "best", "worst", "first", "least",
            "most", "drawn", "flat", "last", "true", "above", "below", "session", "day", "week", "month", "between",
            "after",
            "highest", "lowest", "sum", "average", "median", "rank", "percent",
            "exit", "minutes", "losses", "a", "row", "trades", "today", "mark", "stands", "this", "within", "pointing",
            "up",
            "down", "shaped", "inked");
    private static final Set<String> WORDS = words();

    private Language() {}

    private static Set<String> words() {
        Set<String> words = new TreeSet<>();
        var vocabulary = RuleLexer.VOCABULARY;
        for (int type = 1; type <= vocabulary.getMaxTokenType(); type++) {
            String literal = vocabulary.getLiteralName(type);
            if (literal != null && literal.matches("'[a-z]+'")) {
                words.add(literal.substring(1, literal.length() - 1));
            }
        }
        return words;
    }

    /** Every word of the language. */
    public static Set<String> reserved() {
        return WORDS;
    }

    /** Whether a study or series cannot have this name. */
    public static boolean isReserved(String name) {
        return WORDS.contains(name) && !SOFT.contains(name) || stativex.study.BarField.isOne(name)
                || Set.of("abs", "min", "max", "drawn", "time").contains(name);
    }

    /** Every form of the language with one line of help. */
    public static Map<String, String> forms() {
        return FORMS;
    }
}
