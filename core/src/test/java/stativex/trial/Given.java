package stativex.trial;

import java.math.BigDecimal;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import stativex.account.Account;
import stativex.account.DayLimits;
import stativex.account.OwnLimits;
import stativex.account.Rulebook;
import stativex.engine.SignalPlan;
import stativex.engine.Strategy;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.interlock.CoolDown;
import stativex.interlock.SessionWindow;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.SessionCalendar;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;
import stativex.order.Order;
import stativex.rule.Blueprint;
import stativex.study.StudyDefinition;

/** Small contracts, tapes, strategies and accounts for tests. The market day is 01:00–02:00 and 03:00–04:00 UTC. */
public final class Given {
    public static final long SECOND = TapeTime.SECOND;
    public static final LocalDate MONDAY = LocalDate.of(2026, 9, 21);

    private Given() {}

    /** Tick 0.25 worth 12.50, slippage as given, two sessions on every weekday. */
    public static Contract contract(int slippage) {
        return contract("0.25", "12.50", slippage);
    }

    public static Contract contract(String tick, String value, int slippage) {
        return new Contract("TDL", "Tidal Power index", "NZD", new BigDecimal(tick), Money.parse(value), slippage,
                calendar(), Optional.empty());
    }

    /** Another contract, tick 0.50 worth 7.50, in the sessions 01:30–02:30 and 03:00–04:10. */
    public static Contract other(int slippage) {
        return new Contract("SWL", "Ground Swell index", "NZD", new BigDecimal("0.50"), Money.parse("7.50"), slippage,
                calendar("01:30", "02:30", "03:00", "04:10"), Optional.empty());
    }

    public static SessionCalendar calendar() {
        return calendar("01:00", "02:00", "03:00", "04:00");
    }

    private static SessionCalendar calendar(String... times) {
        LocalTime[] t = java.util.Arrays.stream(times).map(LocalTime::parse).toArray(LocalTime[]::new);
        Map<DayOfWeek, List<SessionCalendar.Hours>> week = new EnumMap<>(DayOfWeek.class);
        for (DayOfWeek day : EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY)) {
            week.put(day, List.of(new SessionCalendar.Hours("Night", t[0], 0, t[1], 0),
                    new SessionCalendar.Hours("Day", t[2], 0, t[3], 0)));
        }
        return new SessionCalendar(ZoneOffset.UTC, week, Map.of());
    }

    /** Nanoseconds of a UTC time of day on Monday + {@code days}. */
    public static long at(int days, String time) {
        return TapeTime.first(MONDAY.plusDays(days).atTime(LocalTime.parse(time)), ZoneId.of("UTC"));
    }

    /** A tape of single contracts without quotes, one print a second from {@code start} on. */
    public static Tape tape(long start, long... prices) {
        TapeBuilder tape = new TapeBuilder(prices.length);
        for (int i = 0; i < prices.length; i++) {
            tape.add(start + i * SECOND, prices[i], 1, Tape.NONE, Tape.NONE);
        }
        return tape.build();
    }

    public static ExitPlan plan(long stop, ExitTerms.Target... targets) {
        return new ExitPlan("plan", "1", Optional.of(new Distance.Ticks(stop)), List.of(targets), Optional.empty(),
                List.of());
    }

    public static ExitTerms.Target target(int quantity, long ticks) {
        return new ExitTerms.Target(quantity, Optional.of(new Distance.Ticks(ticks)));
    }

    /** An account of 40 000 with 2.00 a side and no own limits. */
    public static Account account() {
        return account(Optional.empty(), Optional.empty(), List.of());
    }

    public static Account account(Optional<Account.DayLoss> loss, Optional<Long> profit, List<Rulebook.Rule> rules) {
        return new Account("Gannet Row 40K", "NZD", 40_000 * Money.UNIT, Map.of("TDL", 2 * Money.UNIT),
                OwnLimits.day(loss, profit), new Rulebook("rules", rules));
    }

    public static SessionWindow window(String name, String from, String to, SessionWindow.End end, long leadSeconds) {
        return new SessionWindow(name, EnumSet.allOf(DayOfWeek.class), LocalTime.parse(from), LocalTime.parse(to),
                ZoneId.of("UTC"), end, leadSeconds * SECOND);
    }

    /** A strategy to be changed step by step. */
    public static final class Draft {
        public String name = "Ebb fade";
        public String contract = "TDL";
        public int bars = 2;
        public Optional<BarType> barType = Optional.empty();
        public List<Blueprint.SeriesDefinition> series = List.of();
        public List<SignalPlan.Filter> filters = List.of();
        public Optional<Integer> confirm = Optional.empty();
        public SignalPlan.Evaluate evaluate = SignalPlan.Evaluate.BAR_CLOSE;
        public Optional<SignalPlan.Most> most = Optional.empty();
        public List<StudyDefinition> studies = new ArrayList<>();
        public Optional<Strategy.SideRule> longSide = Optional.of(rule("close > open"));
        public Optional<Strategy.SideRule> shortSide = Optional.of(rule("close < open"));
        /** As given by the fields below, unless it stands here. */
        public Optional<Strategy.Entry> entry = Optional.empty();
        public Order.Type type = Order.Type.MARKET;
        public int quantity = 1;
        public Strategy.GoodFor goodFor = new Strategy.GoodFor.Day();
        public int maximum = 0;
        public boolean adds;
        public ExitPlan plan = plan(1000);
        public List<SessionWindow> windows = List.of();
        public Optional<Integer> tradesADay = Optional.empty();
        public boolean once;
        public Optional<CoolDown> coolDown = Optional.empty();
        public Optional<Integer> spread = Optional.empty();
        public DayLimits day = DayLimits.NONE;
        public boolean reprice;
        public Optional<Integer> marketAfterSeconds = Optional.empty();
        public boolean reverse;
        public boolean cutting;
        public boolean twoSided;
        public int history;

        public Draft onlyLong(String rule) {
            longSide = Optional.of(rule(rule));
            shortSide = Optional.empty();
            return this;
        }

        public Strategy build() {
            return new Strategy(name, "1", contract,
                    new SignalPlan(BarSettings.of(barType.orElse(new BarType.Ticks(bars))),
                            series, studies, List.of(), filters, confirm, evaluate, most),
                    new Strategy.Sides(longSide, shortSide),
                    entry.orElseGet(
                            () -> new Strategy.Entry(type, quantity, goodFor, reprice, marketAfterSeconds, false, 0,
                                    Strategy.Risk.NONE)),
                    new Strategy.Limits(maximum == 0 ? quantity : maximum,
                            new Strategy.Joins(adds, reverse, twoSided, cutting), windows,
                            tradesADay, once, coolDown, spread, day),
                    plan,
                    history);
        }
    }

    public static Strategy.SideRule rule(String rule) {
        return new Strategy.SideRule(rule, Optional.empty());
    }

    public static Strategy.SideRule rule(String rule, String price) {
        return new Strategy.SideRule(rule, Optional.of(price));
    }

    public static Draft strategy() {
        return new Draft();
    }
}
