package stativex.files;

import java.time.DayOfWeek;
import java.time.format.TextStyle;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.interlock.CoolDown;
import stativex.interlock.SessionWindow;
import stativex.market.BarSettings;
import stativex.market.Money;
import stativex.market.TapeTime;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** What a strategy under work has beside its rules and entry: its exit plan, its hours, how its bars begin anew, its day and its history. */
public final class StrategySetup {
    /** Seconds before a window's end at which a flatten acts when nothing is said. */
    public static final int LEAD = 30;

    private StrategySetup() {}

    /** Its exit plan; empty while there is none, or it does not read. */
    public static Optional<ExitPlan> plan(StrategyDraft draft) {
        return draft.root().has("exit")
                ? StrategyDraft.read(() -> Documents.exitPlan(draft.root().at("exit")))
                : Optional.empty();
    }

    /** With an exit plan of its own. */
    public static StrategyDraft withPlan(StrategyDraft draft, ExitPlan plan) {
        return draft.change(d -> {
            d.remove("exitFile");
            ExitPlanDocument.write(d.putObject("exit"), plan);
        });
    }

    /** With a plan to begin with: a stop of 20 ticks, a target of 30. */
    public static StrategyDraft withFirstPlan(StrategyDraft draft) {
        return withPlan(draft, new ExitPlan("Plan of " + draft.name(), "", Optional.of(new Distance.Ticks(20)),
                List.of(new ExitTerms.Target(draft.quantity(), Optional.of(new Distance.Ticks(30)))), Optional.empty(),
                List.of()));
    }

    /** Its session windows that read; none: every hour. */
    public static List<SessionWindow> windows(StrategyDraft draft) {
        return draft.root().items("windows").stream()
                .flatMap(field -> StrategyDraft.read(() -> StrategyReader.window(field)).stream()).toList();
    }

    public static StrategyDraft withWindows(StrategyDraft draft, List<SessionWindow> windows) {
        return draft.change(d -> {
            d.remove("windows");
            if (!windows.isEmpty()) {
                ArrayNode all = d.putArray("windows");
                windows.forEach(window -> put(all.addObject(), window));
            }
        });
    }

    private static void put(ObjectNode of, SessionWindow window) {
        of.put("name", window.name());
        ArrayNode days = of.putArray("days");
        window.days().stream().sorted().map(StrategySetup::word).forEach(days::add);
        of.put("from", window.from().toString()).put("to", window.to().toString()).put("zone", window.zone().getId())
                .put("end", window.end().word());
        long lead = window.lead() / TapeTime.SECOND;
        if (lead != LEAD) {
            of.put("leadSeconds", lead);
        }
        window.limits().loss().ifPresent(amount -> of.put("loss", Money.text(amount)));
        window.limits().profit().ifPresent(amount -> of.put("profit", Money.text(amount)));
        if (window.limits().wholeDay()) {
            of.put("untilNextDay", true);
        }
    }

    private static String word(DayOfWeek day) {
        return day.getDisplayName(TextStyle.FULL, Locale.ENGLISH);
    }

    /** Most trades it opens in a day; empty: as many as come. */
    public static Optional<Integer> tradesADay(StrategyDraft draft) {
        return whole(draft, "tradesADay");
    }

    public static StrategyDraft withTradesADay(StrategyDraft draft, Optional<Integer> most) {
        return draft.change(d -> most.ifPresentOrElse(n -> d.put("tradesADay", n), () -> d.remove("tradesADay")));
    }

    /** How long it enters nothing after a trade; empty: not at all. */
    public static Optional<CoolDown> coolDown(StrategyDraft draft) {
        return draft.root().maybe("coolDown").flatMap(f -> StrategyDraft.read(() -> StrategyReader.coolDown(f)));
    }

    public static StrategyDraft withCoolDown(StrategyDraft draft, Optional<CoolDown> coolDown) {
        return draft.change(d -> {
            d.remove("coolDown");
            coolDown.ifPresent(cool -> {
                ObjectNode of = d.putObject("coolDown");
                cool.bars().ifPresent(n -> of.put("bars", n));
                cool.minutes().ifPresent(n -> of.put("minutes", n));
                if (cool.onlyAfterLosses()) {
                    of.put("onlyAfterLosses", true);
                }
            });
        });
    }

    /** Most ticks between bid and ask at a signal; empty: any. */
    public static Optional<Integer> largestSpread(StrategyDraft draft) {
        return whole(draft, "largestSpreadTicks");
    }

    public static StrategyDraft withLargestSpread(StrategyDraft draft, Optional<Integer> ticks) {
        return draft.change(d -> ticks.ifPresentOrElse(n -> d.put("largestSpreadTicks", n),
                () -> d.remove("largestSpreadTicks")));
    }

    /** Trading days that are loaded before the first evaluated one. */
    public static int historyDays(StrategyDraft draft) {
        return whole(draft, "historyDays").orElse(0);
    }

    public static StrategyDraft withHistoryDays(StrategyDraft draft, int days) {
        return draft.change(d -> d.put("historyDays", days));
    }

    /** Words of the person's own; nobody reckons with them. */
    public static String note(StrategyDraft draft) {
        return draft.root().maybe("note").flatMap(f -> StrategyDraft.read(f::text)).orElse("");
    }

    public static StrategyDraft withNote(StrategyDraft draft, String note) {
        return draft.change(d -> {
            if (note.isBlank()) {
                d.remove("note");
            } else {
                d.put("note", note);
            }
        });
    }

    private static Optional<Integer> whole(StrategyDraft draft, String field) {
        return draft.root().maybe(field).flatMap(f -> StrategyDraft.read(f::integer));
    }

    /** The bars of its signal series with where they begin anew and the sessions that make them. */
    public static StrategyDraft withBars(StrategyDraft draft, BarSettings bars) {
        return draft.change(d -> {
            ObjectNode signal = d.putObject("signal");
            StrategyDraft.put(signal, bars.type());
            if (bars.restart() != BarSettings.Restart.SESSION) {
                signal.put("restart", bars.restart().name().toLowerCase(Locale.ROOT));
            }
            bars.anchor().ifPresent(date -> signal.put("anchor", date.toString()));
            if (!bars.sessions().isEmpty()) {
                ArrayNode sessions = signal.putArray("sessions");
                bars.sessions().stream().sorted().forEach(sessions::add);
            }
        });
    }
}
