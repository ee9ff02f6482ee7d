package stativex.files;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.stream.Collectors;
import stativex.account.Losses;
import stativex.engine.Decision;
import stativex.engine.Lock;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.engine.StrategyState;
import stativex.interlock.CoolDown;
import stativex.interlock.InterlockKind;
import stativex.interlock.InterlockView;
import stativex.interlock.Lacking;
import stativex.interlock.OutOfStep;
import stativex.interlock.Refusal;
import stativex.interlock.SessionWindow;
import stativex.interlock.WindowSchedule;
import stativex.market.Money;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.TapeTime;

/** Decisions, interlocks and states in words, as of one moment and in one exchange's time. */
public final class Sentences {
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm");

    private final ZoneId zone;
    private final long now;

    /** @param zone of the exchange; {@code now} is tape time, nanoseconds */
    public Sentences(ZoneId zone, long now) {
        this.zone = zone;
        this.now = now;
    }

    /** What its entries are: {@code limit 2}, or {@code long limit 2, short market 1}. */
    public static String entries(Strategy strategy) {
        return bySide(strategy, entry -> ResultWords.of(entry.type()) + " " + entry.quantity(),
                (side, words) -> side.word() + " " + words);
    }

    /** What it may send: {@code a limit order for 2 TDL}. */
    public static String orders(Strategy strategy) {
        return bySide(strategy,
                entry -> "a " + ResultWords.of(entry.type()) + " order for " + entry.quantity() + " "
                        + strategy.contract(),
                (side, words) -> words + " to go " + side.word());
    }

    private static String bySide(Strategy strategy, Function<Strategy.Entry, String> words,
            BiFunction<Side, String, String> named) {
        List<Side> sides = Arrays.stream(Side.values()).filter(side -> strategy.side(side).isPresent()).toList();
        List<String> all = sides.stream().map(side -> words.apply(strategy.entry(side))).toList();
        return all.stream().distinct().count() == 1
                ? all.getFirst()
                : named.apply(sides.getFirst(), all.getFirst()) + ", " + named.apply(sides.getLast(), all.getLast());
    }

    /** Why a signal was not taken, or what came of it. */
    public String decision(Decision decision) {
        return switch (decision.outcome()) {
            case Decision.Taken taken -> ResultWords.of(taken.type()) + " " + taken.quantity()
                    + (taken.quantity() < taken.asked() ? " of " + taken.asked() + " asked" : "")
                    + taken.grade().map(grade -> ", grade " + grade).orElse("");
            case Decision.Declined declined -> refusal(declined.refusal());
            case Decision.WouldBe ignored -> "every interlock was clear";
            case Decision.Rejected rejected -> ResultWords.of(rejected.why());
            case Decision.ReverseDropped ignored -> "it waited for the exit, and something came in between";
            case Decision.ByHand act -> act.quantity() + (act.quantity() == 1 ? " contract" : " contracts");
            case Decision.Passed passed -> refusal(passed.refusal());
            case Decision.Locked locked -> lock(locked);
        };
    }

    /** What a lock has come to: how far the result ended beyond the line, or how much was kept before it. */
    public static String lock(Lock lock) {
        String ended = "the result ended at " + Money.text(lock.ended()) + ", ";
        return lock.beyond() > 0 && lock.line().below()
                ? ended + Money.text(lock.beyond()) + " beyond the line"
                : lock.line().below()
                        ? ended + Money.text(-lock.beyond()) + " kept before the line"
                        : ended + (lock.beyond() < 0
                                ? Money.text(-lock.beyond()) + " short of the line"
                                : Money.text(lock.beyond()) + " above the line");
    }

    private static String coolDown(CoolDown rule) {
        int count = rule.bars().orElseGet(() -> rule.minutes().orElse(0));
        return count + (rule.bars().isPresent() ? " bar" : " minute") + (count == 1 ? "" : "s") + " after a "
                + (rule.onlyAfterLosses() ? "losing trade" : "trade");
    }

    private static String lock(Decision.Locked locked) {
        String closing = "the guard acted: closing would have crossed the ";
        return switch (locked.why()) {
            case CONTRACT_DAY_LOSS, STRATEGY_DAY_LOSS -> locked.guarded()
                    ? closing + ResultWords.of(locked.why())
                    : "the " + ResultWords.of(locked.why()) + " was reached";
            case CONTRACT_DAY_PROFIT, STRATEGY_DAY_PROFIT, WINDOW_DAY_LOSS, WINDOW_DAY_PROFIT ->
                "the " + ResultWords.of(locked.why()) + " was reached";
            case DAY_LOSS -> locked.guarded() ? closing + "day loss" : "the day loss was reached";
            case DAY_PROFIT -> "the day profit was reached";
            case GIVE_BACK -> locked.guarded()
                    ? closing + "give-back line"
                    : "too much of the day's best was given back";
            case DRAWDOWN_FLOOR -> locked.guarded()
                    ? closing + "drawdown floor, or come too near to it"
                    : "equity reached the drawdown floor";
            case BY_HAND -> "locked by hand until the next trading day";
        };
    }

    /** Why feed and broker are not in step, in one clause. */
    public static String apart(OutOfStep why) {
        return switch (why) {
            case LINK_LOST -> "the link to the venue is lost";
            case JOURNAL_STOPPED -> "the journal cannot be written";
            case CLOCK_APART -> "this computer's clock and the venue's are 2 s apart or more";
            case CATCHING_UP -> "the feed is catching up: its prints are more than 2 s old";
            case FEED_SILENT -> "the feed is silent";
            case ORDERS_IN_DOUBT -> "nobody knows yet whether an order was taken";
            case POSITIONS_DIFFER -> "the broker holds another position than we count";
            case NOT_CONFIRMED -> "nobody has compared balance and floor with what the firm shows today";
        };
    }

    private static String of(Refusal.Of whom) {
        return switch (whom) {
            case STRATEGY -> "";
            case CONTRACT -> " on the contract";
            case ACCOUNT -> " on the account";
        };
    }

    /** A refusal in one clause: {@code long is switched off}. */
    public String refusal(Refusal refusal) {
        return switch (refusal) {
            case Refusal.Off ignored -> "off";
            case Refusal.SideOff side -> side.side().word() + " is switched off";
            case Refusal.NotConnected apart -> apart(apart.why());
            case Refusal.SessionIncomplete lacking -> lacking.what() == Lacking.JOINED_LATE
                    ? "the tape joined this session late"
                    : "the tape lacks prints of this session";
            case Refusal.SessionClosed closed ->
                closed.withBar() ? "the session closed with this bar" : opens(closed.next());
            case Refusal.Locked locked -> ResultWords.of(locked.why()) + switch (locked.why()) {
                case WINDOW_DAY_LOSS, WINDOW_DAY_PROFIT -> ", as the window has it";
                default -> ", until the next trading day";
            };
            case Refusal.LosingRun run -> losingRun(run);
            case Refusal.Broken broken -> "the " + ResultWords.of(broken.by()) + " was reached";
            case Refusal.OutsideWindow outside -> window(outside.stretch());
            case Refusal.FlatBy flat -> "flat by " + flat.rule().time() + " in " + flat.rule().zone().getId()
                    + ", until the next trading day";
            case Refusal.QuietTime quiet ->
                "quiet until " + clock(quiet.quiet().to()) + ", " + quiet.quiet().release().title();
            case Refusal.LastTradingDay last -> "last trading day " + last.date();
            case Refusal.CoolingDown cooling -> coolDown(cooling.rule());
            case Refusal.Spread spread ->
                "bid and ask are " + spread.ticks() + (spread.ticks() == 1 ? " tick" : " ticks")
                        + " apart, at most " + spread.most();
            case Refusal.TradesADay trades -> trades.trades() + (trades.trades() == 1 ? " trade" : " trades") + " today"
                    + of(trades.of()) + (trades.resting() > 0 ? " and an entry that rests" : "") + ", at most "
                    + trades.most();
            case Refusal.SignalsPerPeriod signals -> signals.most() + " " + signals.side().word() + " a "
                    + signals.period().word() + " " + (signals.most() == 1 ? "was" : "were") + " sent";
            case Refusal.OppositePosition held -> "already " + held.held().word();
            case Refusal.Leaving ignored -> "the position is being left";
            case Refusal.AddsNotAllowed held -> "already " + held.held().word();
            case Refusal.PositionLimit limit ->
                "at most " + limit.most() + (limit.most() == 1 ? " contract" : " contracts");
            case Refusal.MostContracts size -> "at most " + size.most()
                    + (size.most() == 1 ? " contract" : " contracts") + of(size.of());
            case Refusal.WarmingUp ignored -> "the entry price, or a study of its exit plan, is not known yet";
            case Refusal.RiskCap risk -> risk.cap().map(cap -> "a stop-out would cost more than " + Money.text(cap))
                    .orElse("a stop-out of one contract would cost more than the entry may");
            case Refusal.CrossesLine line -> "a stop-out would cross " + ResultWords.of(line.line());
        };
    }

    /** The one sentence of a strategy's state. */
    public String state(String strategy, StrategyState state) {
        return switch (state) {
            case StrategyState.InTrade t -> "In a trade: " + t.side().word() + " " + t.open()
                    + (t.mode() == Mode.ENGAGED ? "" : ", though " + t.mode().word());
            case StrategyState.Leaving t -> "Leaving " + t.side().word() + " " + t.open() + " at the market";
            case StrategyState.Off ignored -> "Not trading: " + strategy + " is off";
            case StrategyState.FeedingStudies history ->
                "Not trading: this trading day is history that only feeds the studies (" + history.days()
                        + (history.days() == 1 ? " day)" : " days)");
            case StrategyState.NotTrading not -> "Not trading: " + not.why().stream().map(this::whyNot)
                    .collect(Collectors.joining("; "));
            case StrategyState.Watching ignored -> "Watching: signals are logged, nothing is sent";
            case StrategyState.Entering ignored -> "Entering: an order is working";
            case StrategyState.Waiting waiting -> "Trading: waiting for a "
                    + (waiting.sides().size() > 1
                            ? ""
                            : waiting.sides().contains(Side.LONG) ? "long " : "short ")
                    + "signal";
        };
    }

    private String whyNot(Refusal refusal) {
        return switch (refusal) {
            case Refusal.Broken broken ->
                "the account is broken, its " + ResultWords.of(broken.by()) + " was reached";
            case Refusal.Locked locked -> "locked until the next trading day, " + ResultWords.of(locked.why());
            default -> refusal(refusal);
        };
    }

    /** The name of an interlock in the list. */
    public static String name(InterlockKind kind) {
        return switch (kind) {
            case STRATEGY -> "Strategy";
            case FEED -> "Feed";
            case SESSION -> "Session";
            case DAY_LOCK -> "Day lock";
            case ACCOUNT -> "Account rulebook";
            case WINDOW -> "Session window";
            case FLAT_BY -> "Flat by";
            case LAST_TRADING_DAY -> "Last trading day";
            case QUIET_TIME -> "Quiet times";
            case COOL_DOWN -> "Cool-down";
            case SPREAD -> "Spread";
            case TRADES -> "Trades today";
            case SIGNALS -> "Signals";
            case POSITION -> "Position";
            case SIZE -> "Size";
            case WARM_UP -> "Price and plan";
            case RISK_CAP -> "Risk cap";
            case LINE_CHECK -> "Line check";
        };
    }

    /** How an interlock stands, in few words. */
    public String interlock(InterlockView view, Mode mode) {
        if (view.refusals().isEmpty()) {
            return clear(view, mode);
        }
        List<Refusal> refusals = view.refusals().stream().distinct().toList();
        return refusals.stream().map(refusal -> inShort(refusal, view.every())).distinct()
                .collect(Collectors.joining("; "));
    }

    private String inShort(Refusal refusal, boolean every) {
        return switch (refusal) {
            case Refusal.SideOff side -> side.side().word() + " off";
            case Refusal.NotConnected apart -> switch (apart.why()) {
                case LINK_LOST -> "link lost";
                case JOURNAL_STOPPED -> "journal stopped";
                case CLOCK_APART -> "clocks apart";
                case CATCHING_UP -> "catching up";
                case FEED_SILENT -> "silent";
                case ORDERS_IN_DOUBT -> "order in doubt";
                case POSITIONS_DIFFER -> "positions differ";
                case NOT_CONFIRMED -> "compare with the firm";
            };
            case Refusal.SessionIncomplete ignored -> "incomplete";
            case Refusal.SessionClosed closed -> closed.next()
                    .map(next -> next.name() + " opens " + clock(next.open())).orElse("no session ahead");
            case Refusal.Locked locked -> "locked: " + ResultWords.of(locked.why());
            case Refusal.LosingRun run -> run.until() == Losses.NEXT_DAY
                    ? "losing run: not today"
                    : "losing run: pause until " + clock(run.until());
            case Refusal.Broken broken -> "broken: " + ResultWords.of(broken.by());
            case Refusal.OutsideWindow outside -> outside.stretch().map(s -> s.name()
                    + (now < s.from() ? " at " + clock(s.from(), s) : " is ending")).orElse("no window ahead");
            case Refusal.FlatBy flat -> "was " + flat.rule().time();
            case Refusal.QuietTime quiet -> "until " + clock(quiet.quiet().to());
            case Refusal.LastTradingDay last -> "was " + last.date();
            case Refusal.CoolingDown cooling -> coolDown(cooling.rule());
            case Refusal.Spread spread -> spread.ticks() + " t, at most " + spread.most();
            case Refusal.TradesADay trades -> trades.trades()
                    + (trades.resting() == 0
                            ? ""
                            : trades.resting() == 1 ? " and one resting" : " and " + trades.resting() + " resting")
                    + " of " + trades.most() + of(trades.of());
            case Refusal.SignalsPerPeriod signals -> signals.side().word() + ": " + signals.most() + " of "
                    + signals.most();
            case Refusal.OppositePosition held ->
                every ? "already " + held.held().word() : held.held().word() + " only";
            case Refusal.Leaving ignored -> "being left";
            case Refusal.AddsNotAllowed held -> "already " + held.held().word();
            case Refusal.WarmingUp ignored -> "not known yet";
            case Refusal.RiskCap ignored -> "a stop-out costs too much";
            case Refusal.CrossesLine line -> "a stop-out crosses " + ResultWords.of(line.line());
            case Refusal.Off ignored -> "off";
            case Refusal.PositionLimit limit -> "at most " + limit.most();
            case Refusal.MostContracts size -> "at most " + size.most() + of(size.of());
        };
    }

    private String clear(InterlockView view, Mode mode) {
        return switch (view.fact()) {
            case InterlockView.InSession in ->
                in.session().map(s -> s.name() + " until " + clock(s.close())).orElse("open");
            case InterlockView.InWindow in -> in.stretch().map(s -> s.name() + " until " + clock(s.to(), s))
                    .orElse("every hour");
            case InterlockView.By by -> by.rule().time() + ", " + by.rule().lead() / (60 * TapeTime.SECOND)
                    + " min before";
            case InterlockView.NextQuiet quiet -> quiet.next()
                    .map(next -> "next " + clock(next.release().time()) + in(next.release().time() - now))
                    .orElse("no release ahead");
            case InterlockView.Count count -> count.now() + " of " + count.most();
            case InterlockView.Nothing ignored -> switch (view.kind()) {
                case STRATEGY -> mode.word();
                case FEED -> "in step";
                case DAY_LOCK -> "open";
                case LINE_CHECK -> "a stop-out stays inside";
                case SESSION, ACCOUNT, WINDOW, FLAT_BY, LAST_TRADING_DAY, QUIET_TIME, COOL_DOWN, SPREAD, TRADES,
                        SIGNALS, POSITION, SIZE, WARM_UP, RISK_CAP ->
                    "clear";
            };
        };
    }

    private String opens(Optional<Session> next) {
        return next.map(s -> s.name() + " session opens at " + clock(s.open()) + in(s.open() - now))
                .orElse("no session ahead");
    }

    /** {@code Morning until 11:30}, or {@code Morning opens at 09:45 (in 12 min)}. */
    private String window(Optional<WindowSchedule.Stretch> stretch) {
        if (stretch.isEmpty()) {
            return "no window ahead";
        }
        WindowSchedule.Stretch s = stretch.get();
        if (now < s.from()) {
            return s.name() + " opens at " + clock(s.from(), s) + in(s.from() - now);
        }
        return s.name() + (s.end() == SessionWindow.End.FLATTEN ? " is ending, flat by " : " ends at ")
                + clock(s.to(), s);
    }

    private String losingRun(Refusal.LosingRun run) {
        return "too many trades lost in a row: " + (run.until() == Losses.NEXT_DAY
                ? "no entry until the next trading day"
                : "no entry until " + clock(run.until()));
    }

    private String clock(long time) {
        return TapeTime.in(zone, time).format(CLOCK);
    }

    /** In the zone of the windows themselves. */
    private static String clock(long time, WindowSchedule.Stretch stretch) {
        return TapeTime.in(stretch.of().getFirst().window().zone(), time).format(CLOCK);
    }

    private static String in(long nanos) {
        long minutes = Math.max(1, (nanos + 30 * TapeTime.SECOND) / (60 * TapeTime.SECOND));
        return minutes < 60 ? " (in " + minutes + " min)" : " (in " + minutes / 60 + " h " + minutes % 60 + " min)";
    }
}
