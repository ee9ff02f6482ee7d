package stativex.engine;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.account.Headroom;
import stativex.account.Line;
import stativex.interlock.SessionWindow;
import stativex.interlock.WindowSchedule;
import stativex.market.Session;
import stativex.market.TapeTime;

/** How a strategy stands: every interlock in words, and one sentence that says whether it trades and why not. */
final class Standing {
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm");

    private final Engine engine;
    private final StrategyRun run;
    private final long time;
    private final List<Interlock> interlocks = new ArrayList<>();
    private final String sentence;

    Standing(Engine engine, StrategyRun run, long time, List<Headroom> headroom) {
        this.engine = engine;
        this.run = run;
        this.time = time;
        Optional<Line> crossed = engine.gate().lineCheckFor(run);
        describe(headroom, crossed);
        this.sentence = say(crossed);
    }

    List<Interlock> interlocks() {
        return List.copyOf(interlocks);
    }

    String sentence() {
        return sentence;
    }

    private void describe(List<Headroom> headroom, Optional<Line> crossed) {
        interlocks.add(new Interlock("Strategy",
                run.mode == Mode.ENGAGED ? Interlock.State.CLEAR : Interlock.State.SWITCHED_OFF, run.mode.word()));
        add("Session", engine.clock().inSession() && engine.clock().incomplete().isEmpty(),
                engine.clock().incomplete().map(why -> "incomplete").orElseGet(this::sessionWords));
        add("Session window", run.windowAllows(time), windowInShort());
        if (engine.watch().lock().isPresent()) {
            interlocks.add(new Interlock("Day loss and profit", Interlock.State.TRIPPED,
                    "locked: " + engine.watch().lock().get()));
        } else {
            add("Day loss and profit", true, "inside");
        }
        boolean near = headroom.stream().anyMatch(h -> h.near() && h.line().name().equals("Trailing floor"));
        if (near && !engine.watch().broken()) {
            interlocks.add(new Interlock("Account rulebook", Interlock.State.NEAR, "near the trailing floor"));
        } else {
            interlocks.add(engine.watch().broken()
                    ? new Interlock("Account rulebook", Interlock.State.TRIPPED, "broken: drawdown floor")
                    : new Interlock("Account rulebook", Interlock.State.CLEAR, "clear"));
        }
        run.strategy.tradesADay().ifPresent(
                most -> add("Trades today", run.tradesToday < most, run.tradesToday + " of " + most));
        if (run.idle()) {
            add("Line check", crossed.isEmpty(), crossed.map(line -> "a stop-out crosses " + line.name())
                    .orElse("a stop-out stays inside"));
        }
        interlocks.add(new Interlock("Feed", Interlock.State.CLEAR, "replay, in step"));
    }

    private void add(String name, boolean clear, String text) {
        interlocks.add(new Interlock(name, clear ? Interlock.State.CLEAR : Interlock.State.HELD, text));
    }

    private String say(Optional<Line> crossed) {
        if (run.trade.isPresent()) {
            String position = run.bracket.side().word() + " " + run.bracket.open();
            return run.bracket.leaving()
                    ? "Leaving " + position + " at the market"
                    : "In a trade: " + position + (run.mode == Mode.ENGAGED ? "" : ", though " + run.mode.word());
        }
        if (run.mode == Mode.OFF) {
            return "Not trading: " + run.strategy.name() + " is off";
        }
        if (!run.historyLoaded()) {
            return "Not trading: this trading day is history that only feeds the studies (" + run.strategy.historyDays()
                    + (run.strategy.historyDays() == 1 ? " day)" : " days)");
        }
        if (engine.watch().broken()) {
            return "Not trading: the account is broken, its drawdown floor was reached";
        }
        if (engine.watch().lock().isPresent()) {
            return "Not trading: locked until the next trading day, " + engine.watch().lock().get();
        }
        if (!engine.clock().inSession()) {
            return "Not trading: " + sessionWords();
        }
        if (engine.clock().incomplete().isPresent()) {
            return "Not trading: " + engine.clock().incomplete().get();
        }
        if (!run.windowAllows(time)) {
            return "Not trading: " + windowWords(run, time);
        }
        if (run.strategy.tradesADay().isPresent() && run.tradesToday >= run.strategy.tradesADay().get()) {
            return "Not trading: " + run.tradesToday + " trades today, the most allowed";
        }
        if (run.mode == Mode.WATCHING) {
            return "Watching: signals are logged, nothing is sent";
        }
        if (crossed.isPresent()) {
            return "Not trading: a stop-out would cross the line " + crossed.get().name();
        }
        if (run.entering()) {
            return "Entering: an order is working";
        }
        boolean both = run.isOn(stativex.market.Side.LONG) && run.isOn(stativex.market.Side.SHORT);
        boolean none = !run.isOn(stativex.market.Side.LONG) && !run.isOn(stativex.market.Side.SHORT);
        return none
                ? "Not trading: both sides are switched off"
                : "Trading: waiting for a " + (both ? "" : run.isOn(stativex.market.Side.LONG) ? "long " : "short ")
                        + "signal";
    }

    private String sessionWords() {
        if (engine.clock().session().isEmpty()) {
            return "no session ahead";
        }
        Session session = engine.clock().session().get();
        ZoneId zone = engine.contract().calendar().zone();
        return engine.clock().inSession()
                ? session.name() + " until " + clock(session.close(), zone)
                : session.name() + " session opens at " + clock(session.open(), zone) + in(session.open() - time);
    }

    private String windowInShort() {
        boolean ahead = !run.schedule.always() && run.stretch.isPresent() && time < run.stretch.get().from();
        return ahead
                ? run.stretch.get().name() + " at "
                        + clock(run.stretch.get().from(), run.stretch.get().of().getFirst().window().zone())
                : windowWords(run, time);
    }

    /** {@code Morning until 11:30}, or {@code Morning opens at 09:45 (in 12 min)}. */
    static String windowWords(StrategyRun run, long time) {
        if (run.schedule.always()) {
            return "every hour";
        }
        if (run.stretch.isEmpty()) {
            return "no window ahead";
        }
        WindowSchedule.Stretch s = run.stretch.get();
        ZoneId zone = s.of().getFirst().window().zone();
        if (time < s.from()) {
            return s.name() + " opens at " + clock(s.from(), zone) + in(s.from() - time);
        }
        return time < s.lastEntry()
                ? s.name() + " until " + clock(s.to(), zone)
                : s.name() + (s.end() == SessionWindow.End.FLATTEN ? " is ending, flat by " : " ends at ")
                        + clock(s.to(), zone);
    }

    private static String clock(long time, ZoneId zone) {
        return TapeTime.in(zone, time).format(CLOCK);
    }

    private static String in(long nanos) {
        long minutes = Math.max(1, (nanos + 30 * TapeTime.SECOND) / (60 * TapeTime.SECOND));
        return minutes < 60 ? " (in " + minutes + " min)" : " (in " + minutes / 60 + " h " + minutes % 60 + " min)";
    }
}
