package stativex.demo;

import java.nio.file.Path;
import java.util.List;
import stativex.engine.Strategy;
import stativex.files.Documents;
import stativex.files.StrategyDraft;

/**
 * A strategy to start from: one for each way in which practitioners work. Its figures are a beginning, not advice.
 *
 * @param file name of its document
 * @param about what it does, in one sentence
 */
public record ReadyMade(String file, String about) {
    private static final List<ReadyMade> ALL = List.of(
            new ReadyMade("neap-return", "Mean reversion: RSI comes back from an extreme."),
            new ReadyMade("reef-touch",
                    "A band is touched and the price closes back inside it. Its stop lies two average ranges away, its target as far."),
            new ReadyMade("harbour-gate",
                    "Opening-range breakout on bricks: a stop entry where the next brick would close beyond the range."),
            new ReadyMade("breakwater-fade",
                    "Fades yesterday's high and low, once the price has been well away from them; judged on every trade."),
            new ReadyMade("undertow", "Against extreme delta outside the VWAP band, with adds up to 3 contracts."),
            new ReadyMade("spring-trend",
                    "A trigger on 400 ticks, with the trend of 1 200 ticks as a filter and two grades of signal."),
            new ReadyMade("two-tides", "Different rules long and short: buys pauses, sells broken shelves."),
            new ReadyMade("long-swell",
                    "Two moving averages. Breakeven after 16 ticks or after 10 bars, whichever comes first; then a trail."),
            new ReadyMade("channel-turn",
                    "Always on the side of the last breakout, turning round at the other one."),
            new ReadyMade("held-line",
                    "A delta extreme on any of the last 4 bars; a limit at the close of the bar where it began."),
            new ReadyMade("outside-day",
                    "A day that spans the one before; out at the first day that closes in profit, or 60 ticks against."));

    /** Every one, simple ones first. */
    public static List<ReadyMade> all() {
        return ALL;
    }

    /** Where it lies among the demo's documents. */
    String resource() {
        return "ready/" + file + ".strategy.json";
    }

    /** Its document as text. */
    public String text() {
        return Demo.text(resource());
    }

    /** The strategy to work on. */
    public StrategyDraft draft() {
        return StrategyDraft.of(document().document());
    }

    /** The strategy itself. */
    public Documents.Read<Strategy> document() {
        return Documents.strategy(text(), file + ".strategy.json", Demo::text);
    }

    /** Where {@link Demo#export} puts it. */
    Path in(Path folder) {
        return folder.resolve("ready").resolve(file + ".strategy.json");
    }
}
