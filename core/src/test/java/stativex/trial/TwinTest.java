package stativex.trial;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.SplittableRandom;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.ContractLimits;
import stativex.account.DayLimits;
import stativex.account.OwnLimits;
import stativex.account.GiveBack;
import stativex.account.Guard;
import stativex.account.LosingRun;
import stativex.account.QuietTimes;
import stativex.account.LockReason;
import stativex.account.Rulebook;
import stativex.engine.DayBook;
import stativex.engine.Decision;
import stativex.engine.SignalPlan;
import stativex.engine.Sizing;
import stativex.engine.Strategy;
import stativex.engine.Trade;
import stativex.evidence.DayWalk;
import stativex.exit.Distance;
import stativex.exit.ExitPlan;
import stativex.exit.ExitTerms;
import stativex.exit.Leave;
import stativex.interlock.CoolDown;
import stativex.interlock.SessionWindow;
import stativex.interlock.SignalPeriod;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Join;
import stativex.market.Money;
import stativex.market.Rolls;
import stativex.market.Session;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeBuilder;
import stativex.order.Fill;
import stativex.order.FillReason;
import stativex.order.LeaveReason;
import stativex.order.Order;
import stativex.order.Owner;
import stativex.order.Realism;
import stativex.order.Terms;
import stativex.order.TrialMode;

/** The engine against {@link NaiveTrader} on seeded random tapes and settings; and laws that every run must keep. */
public class TwinTest {
    private static final int DAYS = 3;
    /** Fewer only where the tests themselves are tried on planted faults. */
    private static final int TAPES = Integer.getInteger("stativex.twin.tapes", 2000);
    private static final List<SessionWindow> WINDOWS = List.of(
            Given.window("Early", "01:10", "01:35", SessionWindow.End.FLATTEN, 45),
            Given.window("Touching", "01:35", "01:50", SessionWindow.End.CANCEL, 0),
            Given.window("Late", "03:05", "03:40", SessionWindow.End.FLATTEN, 30),
            Given.window("Last", "03:50", "04:10", SessionWindow.End.FLATTEN, 660));

    private static final String EITHER = "close > open or close < open";

    private enum Kind {
        ALONE, IN_BAR_MODE, FIRST, SECOND
    }

    /** One random case: the same setting in the product's words and in the twin's. */
    private static final class Case {
        final SplittableRandom dice;
        final NaiveTrader.Setup s = new NaiveTrader.Setup();
        final List<NaiveTrader.P> prints = new ArrayList<>();
        final List<NaiveTrader.S> sessions = new ArrayList<>();
        final Contract contract;
        final List<Strategy> strategies = new ArrayList<>();
        final Inputs inputs;
        private final Kind kind;
        /** The bars of the first strategy, which all have in bar mode. */
        private Optional<BarType> walked = Optional.empty();

        Case(long seed) {
            this(seed, Kind.ALONE);
        }

        Case(long seed, Kind kind) {
            this.kind = kind;
            dice = new SplittableRandom(seed);
            s.barMode = kind == Kind.IN_BAR_MODE;
            s.slippage = dice.nextInt(3);
            contract = kind == Kind.SECOND ? Given.other((int) s.slippage) : Given.contract((int) s.slippage);
            s.tickValue = contract.tickValue();
            s.ticksInOne = kind == Kind.SECOND ? 2 : 4;
            market();
            inputs = documents();
        }

        private void market() {
            boolean quotes = dice.nextInt(4) > 0;
            boolean sized = quotes && dice.nextInt(2) == 0;
            boolean late = dice.nextInt(5) == 0;
            long time = Given.at(0, "01:00:00") + (late ? 300 : dice.nextInt(60)) * Given.SECOND;
            if (dice.nextInt(5) == 0) {
                time = Given.at(0, "00:59:00");
            }
            long price = dice.nextInt(8) == 0 ? dice.nextInt(-20, 20) : 1000;
            int pace = dice.nextInt(8, 40);
            while (time < Given.at(DAYS - 1, "04:00:00")) {
                int spread = dice.nextInt(3) + 1;
                long bid = quotes && dice.nextInt(12) > 0 ? price - dice.nextInt(spread + 1) : NaiveTrader.NONE;
                long ask = quotes && dice.nextInt(12) > 0
                        ? (bid == NaiveTrader.NONE ? price + 1 : bid + spread)
                        : NaiveTrader.NONE;
                prints.add(new NaiveTrader.P(time, price, 1 + dice.nextInt(4), bid, ask, ahead(bid, sized),
                        ahead(ask, sized)));
                price += dice.nextInt(-2, 3) + (dice.nextInt(30) == 0 ? dice.nextInt(-20, 21) : 0);
                time += dice.nextInt(4) == 0 ? 0 : dice.nextLong(2 * pace * Given.SECOND);
                if (dice.nextInt(60) == 0) {
                    time += 900 * Given.SECOND;
                }
                String clock = java.time.LocalTime.ofNanoOfDay(Math.floorMod(time, 86_400 * Given.SECOND)).toString();
                if (clock.compareTo("04:20") > 0) {
                    time += 74_400 * Given.SECOND + dice.nextInt(90) * Given.SECOND;
                }
            }
            for (int day = 0; day < DAYS + 1; day++) {
                for (Session x : contract.calendar().sessions(Given.MONDAY.plusDays(day))) {
                    sessions.add(new NaiveTrader.S(x.open(), x.close(), day, x.last()));
                }
            }
        }

        private long ahead(long quote, boolean sized) {
            return sized && quote != NaiveTrader.NONE && dice.nextInt(12) > 0 ? dice.nextInt(0, 9) : NaiveTrader.NONE;
        }

        /** Prints from a later day's first open on are another month's, so much higher or lower. */
        private void roll() {
            int day = dice.nextInt(1, DAYS);
            long open = Given.at(day, "01:00:00");
            int first = (int) prints.stream().filter(p -> p.time() < open).count();
            if (first == 0 || first == prints.size()) {
                return;
            }
            long up = dice.nextInt(-40, 41);
            for (int i = first; i < prints.size(); i++) {
                NaiveTrader.P p = prints.get(i);
                prints.set(i, new NaiveTrader.P(p.time(), p.price() + up, p.size(), moved(p.bid(), up),
                        moved(p.ask(), up), p.bidSize(), p.askSize()));
            }
            s.rollDay = day;
            s.newBefore = prints.get(first - 1).price() + up + dice.nextInt(-3, 4);
            s.rollLead = dice.nextInt(4) * 200 * Given.SECOND;
        }

        private static long moved(long quote, long up) {
            return quote == NaiveTrader.NONE ? quote : quote + up;
        }

        private boolean chance(int percent) {
            return dice.nextInt(100) < percent;
        }

        private Inputs documents() {
            boolean second = kind == Kind.SECOND;
            strategies.add(strategy(second ? "Breakwater" : "Ebb fade"));
            if (chance(25)) {
                strategies.add(strategy(second ? "Spring tide" : "Slack water"));
            }
            Realism realism = Realism.values()[dice.nextInt(3)];
            s.realism = realism.name().toLowerCase(java.util.Locale.ROOT);
            s.assumedAhead = realism == Realism.QUEUE ? dice.nextInt(0, 12) : 0;
            s.latency = chance(50) ? 0 : dice.nextLong(20 * Given.SECOND);
            Account account = account();
            int lastDay = dice.nextInt(5);
            Optional<LocalDate> until = lastDay < DAYS ? Optional.of(Given.MONDAY.plusDays(lastDay)) : Optional.empty();
            s.endsBefore = until.isPresent()
                    ? Given.at(lastDay + 1, second ? "01:30:00" : "01:00:00")
                    : NaiveTrader.NONE;
            if (kind == Kind.ALONE && chance(25)) {
                roll();
            }
            Optional<Join> join = s.rollDay < 0 ? Optional.empty() : Optional.of(join());
            Inputs made = Inputs.of(join.map(Join::tape).orElseGet(() -> tape(prints)), contract, account,
                    List.copyOf(strategies),
                    new Terms(realism, s.latency, s.assumedAhead, s.barMode ? TrialMode.BAR : TrialMode.TICK))
                    .over(new Days(Optional.empty(), until));
            return join.map(j -> made.rolling(new Rolls(j.legs(), s.rollLead))).orElse(made);
        }

        private BarType bars(NaiveTrader.Rules r) {
            if (walked.isPresent()) {
                r.kind = s.rules.getFirst().kind;
                r.size = s.rules.getFirst().size;
                return walked.get();
            }
            if (s.barMode) {
                walked = Optional.of(wholeBars(r));
                return walked.get();
            }
            r.kind = List.of("tick", "tick", "volume", "range", "time", "renko").get(dice.nextInt(6));
            r.everyTrade = !r.kind.equals("renko") && chance(15);
            return switch (r.kind) {
                case "tick" -> new BarType.Ticks((int) (r.size = dice.nextInt(1, 7)));
                case "volume" -> new BarType.Volume(r.size = dice.nextInt(1, 20));
                case "range" -> new BarType.Range(r.size = dice.nextInt(1, 8));
                case "time" -> new BarType.Time(r.size = dice.nextInt(3, 900) * Given.SECOND);
                default -> {
                    r.size = dice.nextInt(1, 5);
                    r.turn = r.size * dice.nextInt(1, 4);
                    yield new BarType.Renko(r.size, r.turn);
                }
            };
        }

        /** Longer ones, in which something may happen. */
        private BarType wholeBars(NaiveTrader.Rules r) {
            r.kind = List.of("tick", "volume", "range", "time").get(dice.nextInt(4));
            return switch (r.kind) {
                case "tick" -> new BarType.Ticks((int) (r.size = dice.nextInt(1, 25)));
                case "volume" -> new BarType.Volume(r.size = dice.nextInt(1, 60));
                case "range" -> new BarType.Range(r.size = dice.nextInt(1, 16));
                default -> new BarType.Time(r.size = dice.nextInt(3, 2000) * Given.SECOND);
            };
        }

        private Strategy strategy(String name) {
            NaiveTrader.Rules r = new NaiveTrader.Rules();
            s.rules.add(r);
            var b = Given.strategy();
            b.name = name;
            b.contract = contract.symbol();
            b.barType = Optional.of(bars(r));
            b.evaluate = r.everyTrade ? SignalPlan.Evaluate.EVERY_TRADE : SignalPlan.Evaluate.BAR_CLOSE;
            Strategy.Entry both = entry(r.longEntry);
            b.entry = Optional.of(both);
            Optional<Strategy.Entry> own = Optional.empty();
            if (chance(25)) {
                r.shortEntry = new NaiveTrader.Entry();
                own = Optional.of(entry(r.shortEntry));
            }
            r.both = chance(20);
            b.twoSided = r.twoSided = r.both && chance(80);
            b.longSide = Optional.of(side(r.both ? EITHER : "close > open", r.longEntry, 1, Optional.empty()));
            b.shortSide = Optional.of(side(r.both ? EITHER : "close < open", r.shortEntry, -1, own));
            if (chance(20)) {
                SignalPeriod period = SignalPeriod.values()[dice.nextInt(SignalPeriod.values().length)];
                r.period = period.name().toLowerCase(java.util.Locale.ROOT);
                r.most = dice.nextInt(1, 5);
                b.most = Optional.of(new SignalPlan.Most(r.most, period));
            }
            int largest = Math.max(r.longEntry.quantity, r.shortEntry.quantity);
            b.adds = r.adds = chance(40);
            b.cutting = r.cutting = chance(35);
            b.maximum = r.maximum = r.cutting && chance(50) ? dice.nextInt(1, 5) : largest * dice.nextInt(1, 4);
            b.once = r.once = chance(8);
            b.reverse = r.reverse = chance(20);
            if (chance(20)) {
                boolean byBars = chance(50);
                r.coolBars = byBars ? dice.nextInt(1, 8) : 0;
                r.coolTime = byBars ? 0 : dice.nextInt(1, 15) * 60 * Given.SECOND;
                r.coolLosers = chance(50);
                b.coolDown = Optional.of(byBars
                        ? new CoolDown(OptionalInt.of(r.coolBars), OptionalInt.empty(), r.coolLosers)
                        : new CoolDown(OptionalInt.empty(),
                                OptionalInt.of((int) (r.coolTime / Given.SECOND / 60)), r.coolLosers));
            }
            if (chance(15)) {
                r.spread = dice.nextInt(1, 3);
                b.spread = Optional.of((int) r.spread);
            }
            r.tradesADay = chance(25) ? dice.nextInt(1, 6) : 0;
            b.tradesADay = r.tradesADay > 0 ? Optional.of(r.tradesADay) : Optional.empty();
            b.day = chance(20) ? lines(r.lines) : DayLimits.NONE;
            b.plan = plan(r);
            if (chance(60)) {
                b.windows = limited(WINDOWS.subList(0, dice.nextInt(1, WINDOWS.size() + 1)));
                windows(r, b.windows);
            }
            return b.build();
        }

        private Strategy.Entry entry(NaiveTrader.Entry e) {
            e.order = List.of("market", "limit", "stop", "stop-limit").get(dice.nextInt(4));
            e.offset = dice.nextInt(0, 4);
            e.quantity = dice.nextInt(1, 5);
            e.goodForBars = chance(50) ? dice.nextInt(1, 4) : 0;
            boolean rests = !e.order.equals("market");
            e.reprice = rests && chance(25);
            e.marketAfter = rests && chance(25) ? dice.nextInt(5, 600) * Given.SECOND : 0;
            e.half = rests && chance(30);
            e.toward = e.half && chance(50);
            e.beyond = e.order.equals("stop-limit") ? dice.nextInt(0, 4) : 0;
            Optional<Sizing> sizing = Optional.empty();
            if (chance(25)) {
                boolean money = chance(50);
                e.riskMoney = money ? dice.nextInt(40, 900) * Money.UNIT : 0;
                e.riskPercent = money ? 0 : dice.nextInt(100, 6000);
                sizing = Optional.of(money
                        ? new Sizing.Amount(e.riskMoney)
                        : new Sizing.Percent(BigDecimal.valueOf(e.riskPercent, 2)));
            }
            e.cap = chance(25) ? dice.nextInt(40, 900) * Money.UNIT : 0;
            return new Strategy.Entry(
                    Order.Type.valueOf(e.order.toUpperCase(java.util.Locale.ROOT).replace('-', '_')), e.quantity,
                    e.goodForBars > 0 ? new Strategy.GoodFor.Bars(e.goodForBars) : new Strategy.GoodFor.Day(),
                    e.reprice,
                    e.marketAfter > 0
                            ? Optional.of((int) (e.marketAfter / Given.SECOND))
                            : Optional.empty(),
                    e.toward, (int) e.beyond,
                    new Strategy.Risk(sizing, e.cap > 0 ? Optional.of(e.cap) : Optional.empty()));
        }

        private static Strategy.SideRule side(String rule, NaiveTrader.Entry e, int sign,
                Optional<Strategy.Entry> own) {
            boolean less = e.order.equals("limit") == sign > 0;
            return new Strategy.SideRule(rule,
                    e.order.equals("market")
                            ? Optional.empty()
                            : Optional.of("close " + (less ? "-" : "+") + " "
                                    + (e.half ? e.offset + ".5" : e.offset) + " ticks"),
                    List.of(), List.of(), own);
        }

        /** Day limits of a strategy or a contract, the same in the twin's words. */
        private DayLimits lines(NaiveTrader.DayLines lines) {
            lines.loss = chance(70) ? dice.nextInt(50, 1200) * Money.UNIT : 0;
            lines.profit = chance(50) ? dice.nextInt(50, 1200) * Money.UNIT : 0;
            lines.guard = lines.loss > 0 ? guard() : NaiveTrader.G.OFF;
            return new DayLimits(
                    lines.loss > 0
                            ? Optional.of(new Account.DayLoss(lines.loss, guard(lines.guard)))
                            : Optional.empty(),
                    lines.profit > 0 ? Optional.of(lines.profit) : Optional.empty());
        }

        private List<SessionWindow> limited(List<SessionWindow> windows) {
            return windows.stream().map(w -> chance(75)
                    ? w
                    : new SessionWindow(w.name(), w.days(), w.from(), w.to(), w.zone(), w.end(), w.lead(),
                            new SessionWindow.Limits(
                                    chance(70) ? Optional.of(dice.nextInt(30, 800) * Money.UNIT) : Optional.empty(),
                                    chance(50) ? Optional.of(dice.nextInt(30, 800) * Money.UNIT) : Optional.empty(),
                                    chance(40))))
                    .toList();
        }

        private void windows(NaiveTrader.Rules r, List<SessionWindow> windows) {
            for (int day = -1; day <= DAYS; day++) {
                for (SessionWindow w : windows) {
                    r.windows.add(new NaiveTrader.W(Given.at(day, w.from().toString()),
                            Given.at(day, w.to().toString()),
                            w.end() == SessionWindow.End.FLATTEN, w.end() == SessionWindow.End.CANCEL, w.lead(),
                            w.limits().loss().orElse(0L), w.limits().profit().orElse(0L), w.limits().wholeDay()));
                }
            }
        }

        private ExitPlan plan(NaiveTrader.Rules r) {
            r.longPlan = new NaiveTrader.Plan();
            boolean simple = chance(40);
            ExitTerms longTerms = terms(r, r.longPlan, 1, simple);
            if (simple) {
                r.shortPlan = r.longPlan;
                return new ExitPlan("plan", "1", longTerms);
            }
            r.shortPlan = new NaiveTrader.Plan();
            return new ExitPlan("plan", "1", longTerms, terms(r, r.shortPlan, -1, false));
        }

        /** The distance in the twin's words and in the product's. */
        private record Pair(NaiveTrader.D twin, Distance product) {}

        private Pair ticks(long ticks) {
            return new Pair(NaiveTrader.D.ticks(ticks), new Distance.Ticks(ticks));
        }

        /** A distance of about so many ticks, in any unit but a study's level. */
        private Pair distance(long ticks, boolean simple, boolean risks) {
            switch (simple ? 0 : dice.nextInt(9)) {
                case 1 : {
                    BigDecimal price = BigDecimal.valueOf(ticks * 25 + dice.nextInt(-9, 10), 2);
                    return new Pair(new NaiveTrader.D("price", price.toPlainString()), new Distance.Price(price));
                }
                case 2 : {
                    long money = Math.max(13, ticks * 12 + dice.nextInt(12));
                    return new Pair(new NaiveTrader.D("money", Long.toString(money)),
                            new Distance.PerContract(money * Money.UNIT));
                }
                case 3 : {
                    long money = Math.max(13, ticks * 25 + dice.nextInt(12));
                    return new Pair(new NaiveTrader.D("whole", Long.toString(money)),
                            new Distance.WholePosition(money * Money.UNIT));
                }
                case 4 : {
                    BigDecimal percent = BigDecimal.valueOf(Math.max(1, ticks * 10 + dice.nextInt(-5, 6)), 2);
                    return new Pair(new NaiveTrader.D("percent", percent.toPlainString()),
                            new Distance.Percent(percent));
                }
                case 5 : {
                    BigDecimal times = BigDecimal.valueOf(dice.nextInt(5, 40), 1);
                    return new Pair(new NaiveTrader.D("times", times.toPlainString()),
                            new Distance.Times(times, "highest 3 of close - lowest 3 of close"));
                }
                case 6 : {
                    if (risks) {
                        BigDecimal times = BigDecimal.valueOf(dice.nextInt(2, 30), 1);
                        return new Pair(new NaiveTrader.D("R", times.toPlainString()), new Distance.Risks(times));
                    }
                    return ticks(ticks);
                }
                default :
                    return ticks(ticks);
            }
        }

        /** The mean of three closes, so many ticks further. */
        private Pair level(int ticks) {
            return new Pair(new NaiveTrader.D("level", Integer.toString(ticks)),
                    new Distance.Level("average 3 of close " + (ticks < 0 ? "- " : "+ ") + Math.abs(ticks) + " ticks"));
        }

        private ExitTerms terms(NaiveTrader.Rules r, NaiveTrader.Plan p, int sign, boolean simple) {
            Pair stop = !simple && chance(12)
                    ? level(-sign * dice.nextInt(1, 12))
                    : distance(dice.nextInt(2, 25), simple, false);
            p.stop = stop.twin();
            p.follow = !simple && chance(15);
            Optional<ExitTerms.Local> local = Optional.empty();
            if (!simple && chance(20)) {
                p.disaster = dice.nextInt(1, 15);
                p.localVolume = chance(50) ? 0 : dice.nextInt(1, 12);
                local = Optional.of(new ExitTerms.Local(p.disaster, p.localVolume));
            }
            p.atClose = !simple && chance(25);
            List<ExitTerms.Target> targets = new ArrayList<>();
            int runner = simple ? -1 : dice.nextInt(-2, 3);
            for (int i = 0, legs = dice.nextInt(4); i < legs; i++) {
                int quantity = dice.nextInt(1, 3);
                Pair target = i == runner
                        ? null
                        : !simple && chance(12)
                                ? level(sign * dice.nextInt(1, 20))
                                : distance(dice.nextInt(1, 30), simple, true);
                p.legs.add(new NaiveTrader.Leg(quantity, target == null ? null : target.twin()));
                targets.add(new ExitTerms.Target(quantity, Optional.ofNullable(target).map(Pair::product)));
            }
            Optional<ExitTerms.Breakeven> breakeven = chance(60) ? breakeven(p, sign, simple) : Optional.empty();
            Map<Long, ExitTerms.TrailStep> trail = new HashMap<>();
            for (int i = dice.nextInt(4); i > 0; i--) {
                long activate = dice.nextInt(0, 20);
                if (!trail.containsKey(activate)) {
                    Pair a = chance(70) ? ticks(activate) : distance(activate, simple || activate == 0, true);
                    Pair d = distance(dice.nextInt(1, 25), simple, activate > 0);
                    Pair every = chance(80) ? ticks(dice.nextInt(1, 6)) : distance(dice.nextInt(1, 6), simple, true);
                    trail.put(activate, new ExitTerms.TrailStep(a.product(), d.product(), every.product()));
                    p.trail.add(new NaiveTrader.Trail(a.twin(), d.twin(), every.twin()));
                }
            }
            return new ExitTerms(Optional.of(new ExitTerms.Stop(stop.product(), p.follow
                    ? Optional.of("average 3 of close " + (sign > 0 ? "- " : "+ ") + "1 tick")
                    : Optional.empty(), local)), targets, breakeven, List.copyOf(trail.values()), p.atClose
                            ? ExitTerms.Judged.BAR_CLOSE
                            : ExitTerms.Judged.EVERY_PRINT,
                    simple ? List.of() : leaves(p));
        }

        private Optional<ExitTerms.Breakeven> breakeven(NaiveTrader.Plan p, int sign, boolean simple) {
            long trigger = dice.nextInt(1, 15);
            long to = trigger - dice.nextInt(1, 6);
            Optional<Distance> after = Optional.empty();
            if (simple || chance(70)) {
                Pair pair = !simple && chance(10) ? level(sign * dice.nextInt(1, 9)) : distance(trigger, simple, true);
                p.breakevenAfter = pair.twin();
                after = Optional.of(pair.product());
            }
            if (!simple && (after.isEmpty() || chance(20))) {
                p.breakevenBars = dice.nextInt(1, 6);
            }
            if (!simple && !p.legs.isEmpty() && chance(30)) {
                p.breakevenLeg = dice.nextInt(1, p.legs.size() + 1);
            }
            Pair offset = !simple && chance(10)
                    ? level(-sign * dice.nextInt(1, 5))
                    : simple || to < 1 ? ticks(to) : distance(to, false, true);
            if (offset.product() instanceof Distance.Ticks && after.orElse(null) instanceof Distance.Ticks(long t)
                    && to >= t) {
                offset = ticks(t - 1);
            }
            p.breakevenOffset = offset.twin();
            return Optional.of(new ExitTerms.Breakeven(after,
                    p.breakevenBars > 0 ? OptionalInt.of(p.breakevenBars) : OptionalInt.empty(),
                    p.breakevenLeg > 0 ? OptionalInt.of(p.breakevenLeg) : OptionalInt.empty(), offset.product()));
        }

        private List<Leave> leaves(NaiveTrader.Plan p) {
            List<Leave> leaves = new ArrayList<>();
            if (chance(20)) {
                p.afterBars = dice.nextInt(1, 12);
                p.onlyInProfit = chance(50);
                leaves.add(new Leave.AfterBars(p.afterBars, p.onlyInProfit));
            }
            if (chance(12)) {
                p.firstProfit = true;
                leaves.add(new Leave.FirstCloseInProfit());
            }
            if (chance(25)) {
                p.opposite = true;
                leaves.add(new Leave.OppositeSignal());
            }
            if (chance(15)) {
                p.rule = dice.nextInt(0, 4);
                leaves.add(new Leave.Rule("close > close 2 bars before",
                        p.rule == 0 ? OptionalInt.empty() : OptionalInt.of(p.rule)));
            }
            if (chance(25)) {
                p.windowEnd = true;
                leaves.add(new Leave.WindowEnd());
            }
            if (chance(20)) {
                LocalTime clock = LocalTime.of(List.of(1, 3, 2).get(dice.nextInt(3)), dice.nextInt(60));
                p.clock = clock.toNanoOfDay();
                leaves.add(new Leave.ClockTime(clock, ZoneOffset.UTC));
            }
            return leaves;
        }

        private Account account() {
            s.start = 40_000 * Money.UNIT;
            s.fee = 2 * Money.UNIT;
            s.guard = guard();
            s.dayLoss = chance(40) ? dice.nextInt(300, 3000) * Money.UNIT : 0;
            s.dayProfit = chance(40) ? dice.nextInt(200, 3000) * Money.UNIT : 0;
            List<Rulebook.Rule> rules = new ArrayList<>();
            if (chance(50)) {
                s.allowance = dice.nextInt(250, 2500) * Money.UNIT;
                Optional<Long> lockAt = Optional.empty();
                Rulebook.Trails trails = Rulebook.Trails.values()[dice.nextInt(3)];
                s.trails = List.of("start", "day", "peak").get(trails.ordinal());
                s.floorGuard = guard();
                if (trails != Rulebook.Trails.STATIC && chance(50)) {
                    s.lockAt = s.start - dice.nextLong(s.allowance);
                    lockAt = Optional.of(s.lockAt);
                }
                rules.add(new Rulebook.DrawdownFloor(trails, s.allowance, lockAt, guard(s.floorGuard)));
            }
            if (chance(30)) {
                s.bookLoss = dice.nextInt(250, 2500) * Money.UNIT;
                s.bookFromEquity = chance(50);
                s.bookBreaks = chance(40);
                s.bookGuard = guard();
                rules.add(new Rulebook.DayLoss(s.bookLoss,
                        s.bookFromEquity ? Rulebook.From.EQUITY : Rulebook.From.BALANCE, s.bookBreaks,
                        guard(s.bookGuard)));
            }
            if (chance(20)) {
                LocalTime by = LocalTime.of(List.of(1, 2, 3, 4).get(dice.nextInt(4)), dice.nextInt(60));
                s.flatBy = by.toNanoOfDay();
                s.flatLead = dice.nextInt(6) * 60 * Given.SECOND;
                rules.add(new Rulebook.FlatBy(by, ZoneOffset.UTC, s.flatLead));
            }
            if (chance(20)) {
                rules.add(size());
            }
            if (chance(12)) {
                s.overnight = dice.nextInt(12) * 60 * Given.SECOND;
                rules.add(new Rulebook.NoOvernight(s.overnight));
            }
            Account account = Given.account(
                    s.dayLoss > 0
                            ? Optional.of(new Account.DayLoss(s.dayLoss, guard(s.guard)))
                            : Optional.empty(),
                    s.dayProfit > 0 ? Optional.of(s.dayProfit) : Optional.empty(), rules);
            return with(account, account.fees());
        }

        private QuietTimes quietTimes() {
            List<QuietTimes.Release> releases = new ArrayList<>();
            QuietTimes.Action action = QuietTimes.Action.values()[dice.nextInt(3)];
            long before = dice.nextInt(10) * 60 * Given.SECOND;
            long after = (1 + dice.nextInt(10)) * 60 * Given.SECOND;
            long lead = dice.nextInt(90) * Given.SECOND;
            for (int i = chance(25) ? dice.nextInt(1, 8) : 0; i > 0; i--) {
                long at = Given.at(dice.nextInt(DAYS), "01:00:00") + dice.nextLong(3 * 3600 * Given.SECOND);
                releases.add(new QuietTimes.Release(at, "Tide table", "NZ", "high"));
                boolean flatten = action == QuietTimes.Action.FLATTEN;
                s.quiet.add(new NaiveTrader.Quiet(at - before - (flatten ? lead : 0), at + after,
                        action == QuietTimes.Action.CANCEL, flatten));
            }
            return new QuietTimes(releases, before, after, action, lead);
        }

        private NaiveTrader.G guard() {
            return new NaiveTrader.G(chance(50), chance(30) ? dice.nextInt(200) * Money.UNIT : 0,
                    chance(30) ? dice.nextInt(6) : 0);
        }

        private static Guard guard(NaiveTrader.G g) {
            return new Guard(g.on(), g.money(), g.ticks());
        }

        /** With what holds entries back after a good or a bad while. */
        private Account with(Account own, Map<String, Long> fees) {
            Optional<GiveBack> giveBack = Optional.empty();
            if (chance(30)) {
                s.giveFall = dice.nextInt(50, 800) * Money.UNIT;
                s.giveAfter = dice.nextInt(50, 800) * Money.UNIT;
                s.giveGuard = guard();
                giveBack = Optional.of(new GiveBack(s.giveFall, s.giveAfter, guard(s.giveGuard)));
            }
            Optional<LosingRun> losingRun = Optional.empty();
            if (chance(25)) {
                s.losses = dice.nextInt(1, 5);
                s.pause = chance(50) ? 0 : dice.nextInt(1, 60) * 60 * Given.SECOND;
                losingRun = Optional.of(new LosingRun(s.losses, s.pause == 0
                        ? OptionalInt.empty()
                        : OptionalInt.of((int) (s.pause / 60 / Given.SECOND))));
            }
            return new Account(own.name(), own.currency(), own.start(), fees,
                    new OwnLimits(own.own().dayLoss(), own.own().dayProfit(), giveBack, losingRun, accountTrades(),
                            quietTimes(), Map.of(contract.symbol(), contractLimits()),
                            stativex.account.ForThePerson.DEFAULT),
                    own.rulebook());
        }

        private Optional<Integer> accountTrades() {
            s.accountTrades = chance(12) ? dice.nextInt(1, 8) : 0;
            return s.accountTrades > 0 ? Optional.of(s.accountTrades) : Optional.empty();
        }

        private ContractLimits contractLimits() {
            DayLimits day = chance(12) ? lines(s.lines) : DayLimits.NONE;
            s.contractTrades = chance(10) ? dice.nextInt(1, 8) : 0;
            s.contractMost = chance(12) ? dice.nextInt(1, 8) : 0;
            return new ContractLimits(day, s.contractTrades > 0 ? Optional.of(s.contractTrades) : Optional.empty(),
                    s.contractMost > 0 ? Optional.of(s.contractMost) : Optional.empty());
        }

        /** Most contracts, more or fewer by the profit so far; this contract may count as a part of one. */
        private Rulebook.Size size() {
            s.sizes.add(new long[]{Long.MIN_VALUE, dice.nextInt(1, 6)});
            List<Rulebook.Size.Tier> tiers = new ArrayList<>();
            long from = dice.nextInt(-600, 600) * Money.UNIT;
            for (int i = dice.nextInt(3); i > 0; i--) {
                tiers.add(new Rulebook.Size.Tier(from, dice.nextInt(1, 8)));
                s.sizes.add(new long[]{from, tiers.getLast().most()});
                from += dice.nextInt(1, 500) * Money.UNIT;
            }
            s.weight = chance(50) ? 1 : dice.nextInt(1, 3);
            s.weightOf = s.weight == 1 && chance(50) ? 1 : dice.nextInt(1, 9);
            return new Rulebook.Size((int) s.sizes.getFirst()[1], tiers,
                    Map.of(contract.symbol(), new Rulebook.Share((int) s.weight, (int) s.weightOf)));
        }

        private Join join() {
            long open = Given.at(s.rollDay, "01:00:00");
            List<NaiveTrader.P> older = prints.stream().filter(p -> p.time() < open).toList();
            List<NaiveTrader.P> newer = new ArrayList<>();
            newer.add(new NaiveTrader.P(older.getLast().time(), s.newBefore, 1, Tape.NONE, Tape.NONE, Tape.NONE,
                    Tape.NONE));
            newer.addAll(prints.subList(older.size(), prints.size()));
            return Join.of(
                    List.of(new Join.Month("old", contract, tape(older)), new Join.Month("new", contract, tape(newer))),
                    List.of(Given.MONDAY.plusDays(s.rollDay)));
        }

        private static Tape tape(List<NaiveTrader.P> prints) {
            TapeBuilder tape = new TapeBuilder(prints.size());
            for (NaiveTrader.P p : prints) {
                tape.add(p.time(), p.price(), p.size(), p.bid(), p.ask(), p.bidSize(), p.askSize(), Optional.empty());
            }
            return tape.build();
        }
    }

    private static String line(Fill f) {
        return f.time() + " " + ((Owner.Strategy) f.owner()).index() + " " + f.order() + " "
                + (f.buy() ? "buy " : "sell ") + f.quantity() + " " + f.price() + " "
                + Said.reason(f.reason());
    }

    private static String line(Decision d) {
        return d.time() + " " + d.owner().map(owner -> ((Owner.Strategy) owner).index() + " ").orElse("")
                + d.side().map(side -> side.word() + " ").orElse("") + Said.word(d.kind()) + " "
                + Said.decision(d).substring(Said.word(d.kind()).length()).strip() + " " + d.price();
    }

    private static String line(Trade t) {
        return ((Owner.Strategy) t.owner()).index() + " " + t.entryTime() + " " + t.exitTime() + " " + t.side().word()
                + " " + t.quantity()
                + " "
                + t.entrySum() + " " + t.exitSum() + " gross " + t.gross() + " fees " + t.fees() + " mae " + t.mae()
                + " mfe " + t.mfe() + " bars " + t.bars() + " " + Said.reason(t.exitReason().orElseThrow());
    }

    /** The inputs of a random case of one contract. */
    static Inputs random(long seed) {
        return new Case(seed).inputs;
    }

    @Test
    public void engineAgreesWithThePlainTwinOnRandomTapes() {
        Map<String, Integer> seen = new HashMap<>();
        for (long seed = 1; seed <= TAPES; seed++) {
            Case c = new Case(seed);
            Run run = Run.trial(c.inputs);
            NaiveTrader twin = new NaiveTrader(c.s, c.prints, c.sessions);
            twin.run();
            agree(run, twin, "seed " + seed);
            if (c.s.rollDay >= 0) {
                overARoll(c, run, seed);
            }
            c.s.rules.forEach(r -> seen.merge(r.kind + (r.everyTrade ? " every trade" : ""), 1, Integer::sum));
            run.engine().log().fills().forEach(f -> seen.merge(Said.reason(f.reason()), 1, Integer::sum));
            run.engine().log().decisions()
                    .forEach(d -> seen.merge(Said.decision(d).replaceFirst("taken asked.*", "taken cut"), 1,
                            Integer::sum));
            laws(c, run);
            if (c.s.rollDay < 0 && walked(c, run)) {
                seen.merge("walked", 1, Integer::sum);
            }
        }
        if (TAPES >= 2000) {
            everythingHappened(seen);
        }
    }

    @Test
    public void barModeAgreesWithThePlainTwinOnRandomTapes() {
        Map<String, Integer> seen = new HashMap<>();
        for (long seed = 1; seed <= TAPES / 2; seed++) {
            Case c = new Case(seed, Kind.IN_BAR_MODE);
            Run run = Run.trial(c.inputs);
            NaiveTrader twin = new NaiveTrader(c.s, c.prints, c.sessions);
            twin.run();
            agree(run, twin, "bar mode, seed " + seed);
            long localStops = run.engine().log().trades().stream().filter(t -> counted(c, t)).count();
            assertEquals(run.assumed().orElseThrow(), new Assumed(twin.stopCounted.size(), twin.equalExtremes,
                    twin.queueTaken, (int) localStops), "assumed in bar mode, seed " + seed);
            seen.merge("stops counted", twin.stopCounted.size(), Integer::sum);
            seen.merge("equal extremes", twin.equalExtremes, Integer::sum);
            seen.merge("queue fills", twin.queueTaken, Integer::sum);
            seen.merge("local stops", (int) localStops, Integer::sum);
            run.engine().log().fills().forEach(f -> seen.merge(Said.reason(f.reason()), 1, Integer::sum));
        }
        if (TAPES >= 2000) {
            for (String word : List.of("stops counted", "equal extremes", "queue fills", "local stops", "entry", "stop",
                    "breakeven", "trail", "target 1", "target 2", "stop at market", "window end", "range end",
                    "assumed at session end", "open at end", "follow", "after bars", "disaster stop")) {
                assertTrue(seen.getOrDefault(word, 0) >= 5, word + " happened too rarely in " + seen);
            }
        }
    }

    /** Two contracts on one account, each with its strategies. */
    private static final class Two {
        final Case first;
        final Case second;
        final Inputs inputs;
        final NaiveTrader twin;

        Two(long seed) {
            first = new Case(seed, Kind.FIRST);
            second = new Case(seed + 1_000_000, Kind.SECOND);
            NaiveTrader.Setup a = first.s;
            NaiveTrader.Setup b = second.s;
            b.realism = a.realism;
            b.assumedAhead = a.assumedAhead;
            b.latency = a.latency;
            b.flatBy = a.flatBy;
            b.flatLead = a.flatLead;
            b.overnight = a.overnight;
            b.quiet.clear();
            b.quiet.addAll(a.quiet);
            Optional<LocalDate> until = first.inputs.days().last();
            b.endsBefore = until.isPresent()
                    ? Given.at((int) (until.get().toEpochDay() - Given.MONDAY.toEpochDay()) + 1, "01:30:00")
                    : NaiveTrader.NONE;
            SplittableRandom dice = new SplittableRandom(seed);
            boolean listedFirst = dice.nextBoolean();
            atTheSameTimes(dice);
            Account own = first.inputs.account();
            Map<String, Long> fees = new java.util.LinkedHashMap<>();
            fees.put(listedFirst ? "SWL" : "TDL", 2 * Money.UNIT);
            fees.put(listedFirst ? "TDL" : "SWL", 2 * Money.UNIT);
            List<Strategy> all = new ArrayList<>(first.strategies);
            all.addAll(second.strategies);
            Map<String, ContractLimits> contractLimits = new HashMap<>(own.own().contracts());
            contractLimits.putAll(second.inputs.account().own().contracts());
            b.weight = 1;
            b.weightOf = 1;
            inputs = Inputs.of(first.inputs.tape(), first.contract,
                    Map.of("SWL", new ContractTape(second.contract, Case.tape(second.prints))),
                    own.with(fees).with(own.own().with(contractLimits)), all, first.inputs.terms())
                    .over(first.inputs.days());
            twin = new NaiveTrader(a, first.prints, first.sessions);
            new NaiveTrader(b, second.prints, second.sessions).joins(twin, listedFirst);
        }

        /** Some prints of the second tape come at the very instant of one of the first. */
        private void atTheSameTimes(SplittableRandom dice) {
            long before = Long.MIN_VALUE;
            for (int i = 0; i < second.prints.size(); i++) {
                NaiveTrader.P p = second.prints.get(i);
                long time = p.time();
                if (dice.nextInt(3) == 0) {
                    long at = first.prints.stream().mapToLong(NaiveTrader.P::time).filter(t -> t <= p.time()).max()
                            .orElse(p.time());
                    time = Math.max(before, at);
                }
                second.prints.set(i, new NaiveTrader.P(time, p.price(), p.size(), p.bid(), p.ask(), p.bidSize(),
                        p.askSize()));
                before = time;
            }
        }
    }

    @Test
    public void severalContractsAgreeWithThePlainTwinOnRandomTapes() {
        Map<String, Integer> seen = new HashMap<>();
        for (long seed = 1; seed <= TAPES / 4; seed++) {
            Two c = new Two(seed);
            Run run = Run.trial(c.inputs);
            c.twin.run();
            agree(run, c.twin, "two contracts, seed " + seed);
            sumsUp(run, seed);
            run.engine().log().fills().forEach(f -> seen.merge(Said.reason(f.reason()), 1, Integer::sum));
            run.engine().log().decisions().forEach(d -> seen.merge(Said.decision(d), 1, Integer::sum));
            if (seed % 10 == 0) {
                asPrintsCome(c.inputs, run, seed);
            }
        }
        if (TAPES >= 2000) {
            for (String word : List.of("day profit", "locked day loss", "locked drawdown floor", "range end",
                    "open at end", "assumed at session end", "declined line check")) {
                assertTrue(seen.getOrDefault(word, 0) >= 3, word + " happened too rarely in " + seen);
            }
        }
    }

    /** What the contracts made of a day is what the account made of it, and of all of them. */
    private static void sumsUp(Run run, long seed) {
        stativex.evidence.Basket basket = stativex.evidence.Basket.of(run).orElseThrow();
        List<DayBook.Day> days = run.engine().days().days();
        for (int d = 0; d < days.size(); d++) {
            int at = d;
            assertEquals(basket.parts().stream().mapToLong(part -> part.days().get(at)).sum(), days.get(d).result(),
                    days.get(d).date() + ", seed " + seed);
        }
        assertEquals(basket.parts().stream().mapToLong(stativex.evidence.Basket.Part::net).sum(),
                Summary.of(run).net(), "seed " + seed);
    }

    /** A further contract in which nothing is traded changes nothing. */
    @Test
    public void aContractInWhichNothingIsTradedChangesNoResult() {
        for (long seed = 1; seed <= TAPES / 10; seed++) {
            Two c = new Two(seed);
            Given.Draft idle = Given.strategy().onlyLong("close > close");
            idle.name = "Never";
            idle.contract = "SWL";
            List<Strategy> all = new ArrayList<>(c.first.strategies);
            all.add(idle.build());
            Map<String, Long> fees = new java.util.LinkedHashMap<>();
            fees.put("TDL", 2 * Money.UNIT);
            fees.put("SWL", 2 * Money.UNIT);
            Account own = c.inputs.account();
            Run with = Run.trial(Inputs.of(c.inputs.tape(), c.inputs.contract(), c.inputs.others(),
                    own.with(fees), all, c.inputs.terms()).over(c.inputs.days()));
            Run without = Run.trial(c.first.inputs);
            assertEquals(with.engine().log().fills(), without.engine().log().fills(), "seed " + seed);
            assertEquals(with.engine().log().trades().toString(), without.engine().log().trades().toString());
            assertEquals(with.engine().log().decisions(), without.engine().log().decisions(), "seed " + seed);
            assertEquals(with.engine().days().deepestDrawdown(), without.engine().days().deepestDrawdown());
            assertEquals(with.engine().days().longestDrawdown(), without.engine().days().longestDrawdown(),
                    "seed " + seed);
        }
    }

    private static boolean counted(Case c, Trade t) {
        NaiveTrader.Rules r = c.s.rules.get(((Owner.Strategy) t.owner()).index());
        NaiveTrader.Plan plan = t.side() == Side.LONG ? r.longPlan : r.shortPlan;
        return plan.localVolume > 0 && Said.reason(t.exitReason().orElseThrow()).equals("local stop");
    }

    private static void agree(Run run, NaiveTrader twin, String where) {
        assertEquals(run.engine().log().decisions().stream().map(TwinTest::line).toList(), twin.decisions,
                "decisions, " + where);
        assertEquals(run.engine().log().fills().stream().map(TwinTest::line).toList(), twin.fills, "fills, " + where);
        assertEquals(run.engine().log().trades().stream().map(TwinTest::line).toList(), twin.trades,
                "trades, " + where);
        assertEquals(run.engine().days().days().stream().map(DayBook.Day::result).toList(), twin.days,
                "days, " + where);
        assertEquals(run.engine().days().deepestDrawdown(), twin.deepest(), "deepest drawdown, " + where);
        assertEquals(run.engine().days().longestDrawdown(), twin.longest(), "longest drawdown, " + where);
        if (twin.longest() > 0) {
            assertEquals(run.engine().days().longestFrom(), twin.longestFrom, "its peak, " + where);
            assertEquals(run.engine().days().isLongestUnfinished(), twin.longestLasts, "whether it is over, " + where);
        }
    }

    /** Over a roll, too, bars and rules that are made as prints come give the same as those of the whole tape. */
    private static void overARoll(Case c, Run run, long seed) {
        asPrintsCome(c.inputs, run, seed);
        Rolls again = Rolls.of(c.inputs.tape(), "old", Optional.empty(), c.inputs.rolls().changes(),
                c.inputs.rolls().lead());
        Run rebuilt = Run.trial(c.inputs.rolling(again));
        assertEquals(rebuilt.engine().log().fills(), run.engine().log().fills(), "rolls from figures, seed " + seed);
    }

    private static void asPrintsCome(Inputs inputs, Run run, long seed) {
        Run live = new Run(inputs);
        for (int i = 0; i < inputs.strategies().size(); i++) {
            live.command(new stativex.engine.Command.SetMode(i, stativex.engine.Mode.ENGAGED));
        }
        while (!live.atEnd()) {
            live.step();
        }
        live.finish();
        assertEquals(live.engine().log().decisions().toString(), run.engine().log().decisions().toString(),
                "decisions as prints come, seed " + seed);
        assertEquals(live.engine().log().trades().toString(), run.engine().log().trades().toString(),
                "trades as prints come, seed " + seed);
    }

    /** A check that compares nothing proves nothing: every kind of event must have happened often. */
    private static void everythingHappened(Map<String, Integer> seen) {
        // the line check leaves these leaves little to do: they need a gap or a peak made in the same trade
        assertTrue(seen.getOrDefault("day loss", 0) >= 1, "day loss never happened");
        assertTrue(seen.getOrDefault("drawdown floor", 0) >= 1, "drawdown floor never happened");
        for (String word : List.of("entry", "stop", "breakeven", "trail", "target 1", "target 2", "target 3",
                "stop at market", "window end", "day profit", "assumed at session end",
                "open at end", "range end", "local stop", "disaster stop", "follow", "after bars",
                "first close in profit",
                "opposite signal", "rule", "clock time", "declined warming up", "declined cooling down",
                "declined spread", "cancelled reverse dropped",
                "declined outside window",
                "declined trades a day",
                "declined opposite position",
                "declined leaving", "declined adds not allowed", "declined position limit", "declined line check",
                "declined locked", "declined broken", "roll", "declined last trading day", "declined risk cap",
                "declined signals per period", "taken cut", "give-back", "locked give-back", "flat by", "quiet time",
                "declined flat by", "declined quiet time", "declined most contracts", "locked strategy day loss",
                "strategy day profit", "locked contract day loss", "contract day profit", "locked window day loss",
                "window day profit", "walked",
                "declined side off", "declined session incomplete",
                "declined session closed", "taken", "locked day loss", "locked drawdown floor", "volume", "range",
                "time", "renko",
                "tick every trade", "time every trade")) {
            assertTrue(seen.getOrDefault(word, 0) >= 10, word + " happened " + seen.get(word) + " times in " + seen);
        }
    }

    /** What is walked from the fills alone is the engine's equity: the results of days, and the deepest fall at every print. */
    private static boolean walked(Case c, Run run) {
        long[] figures = {c.s.start, c.s.start, c.s.start, 0};
        List<Long> ends = new ArrayList<>();
        try {
            DayWalk.walk(run, new DayWalk.Points() {
                @Override
                public void day(LocalDate date) {
                    figures[0] = figures[1];
                    ends.add(0L);
                }

                @Override
                public void point(long time, long result, long closing, long perTick, boolean filled) {
                    figures[1] = figures[0] + result;
                    figures[2] = Math.max(figures[2], figures[1]);
                    figures[3] = Math.max(figures[3], figures[2] - figures[1]);
                    ends.set(ends.size() - 1, result);
                    assertEquals(closing == 0, perTick == 0);
                }
            });
        } catch (IllegalArgumentException overnight) {
            assertTrue(overnight.getMessage().contains("begins with a position"), overnight.getMessage());
            return false;
        }
        assertEquals(ends, run.engine().days().days().stream().map(DayBook.Day::result).toList());
        assertEquals(figures[3], run.engine().days().deepestDrawdown());
        return true;
    }

    /** Laws: nothing is created or lost, no fill outside a print, nothing enters after a lock. */
    private static void laws(Case c, Run run) {
        long held = 0;
        long cash = c.s.start;
        boolean broken = false;
        for (Decision d : run.engine().log().decisions()) {
            // a guard locks the day for the floor's sake, too, and the account stays whole
            broken |= d.outcome() instanceof Decision.Locked(LockReason why, boolean guarded)
                    && why == LockReason.DRAWDOWN_FLOOR && !guarded;
            assertTrue(!broken || d.kind() != Decision.Kind.TAKEN, "nothing is taken once the account is broken");
        }
        for (Fill f : run.engine().log().fills()) {
            int sign = f.buy() ? 1 : -1;
            held += sign * f.quantity();
            cash -= sign * f.quantity() * f.price() * c.s.tickValue + f.fee();
            boolean assumed = f.reason().equals(new FillReason.Left(LeaveReason.ASSUMED_AT_SESSION_END));
            assertTrue(assumed || f.time() == c.inputs.tape().time(f.print()), "a fill lies on a print");
        }
        assertEquals(held, 0L, "everything that was entered has left");
        assertEquals(run.engine().equity(), cash, "equity is the money paid and received");
        run.engine().log().trades().forEach(t -> {
            for (int i = 1; i < t.stops().size(); i++) {
                long before = t.stops().get(i - 1).level();
                long after = t.stops().get(i).level();
                assertTrue(t.side() == Side.LONG ? after > before : after < before, "a stop never loosens");
            }
        });
    }

    /** What it does going long it does going short, and the other way round. */
    private static Strategy turned(Strategy s) {
        Strategy.SideRule up = s.longSide().orElseThrow();
        Strategy.SideRule down = s.shortSide().orElseThrow();
        return new Strategy(s.name(), s.version(), s.contract(), s.signals(),
                new Strategy.Sides(Optional.of(turned(down)), Optional.of(turned(up))), s.entry(), s.limits(),
                new ExitPlan(s.plan().name(), s.plan().version(), turned(s.plan().shortTerms()),
                        turned(s.plan().longTerms())),
                s.historyDays());
    }

    private static ExitTerms turned(ExitTerms terms) {
        return new ExitTerms(
                terms.stop().map(
                        stop -> new ExitTerms.Stop(turned(stop.distance()), stop.follow().map(TwinTest::turned),
                                stop.local())),
                terms.targets().stream()
                        .map(t -> new ExitTerms.Target(t.quantity(), t.distance().map(TwinTest::turned))).toList(),
                terms.breakeven().map(b -> new ExitTerms.Breakeven(b.after().map(TwinTest::turned), b.bars(), b.leg(),
                        turned(b.offset()))),
                terms.trail(), terms.judged(),
                terms.leaves().stream().map(leave -> leave instanceof Leave.Rule rule
                        ? new Leave.Rule(rule.rule().contains(">")
                                ? rule.rule().replace('>', '<')
                                : rule.rule().replace('<', '>'), rule.quantity())
                        : leave).toList());
    }

    private static Distance turned(Distance distance) {
        return distance instanceof Distance.Level(String study) ? new Distance.Level(turned(study)) : distance;
    }

    private static String turned(String level) {
        return level.contains(" + ") ? level.replace(" + ", " - ") : level.replace(" - ", " + ");
    }

    private static Strategy.SideRule turned(Strategy.SideRule side) {
        boolean rises = side.rule().equals("close > open");
        return new Strategy.SideRule(side.rule().equals(EITHER) ? EITHER : rises ? "close < open" : "close > open",
                side.price().map(price -> price.contains("+") ? price.replace('+', '-') : price.replace('-', '+')),
                List.of(), List.of(), side.entry());
    }

    @Test
    public void mirroredTapeGivesMirroredTrades() {
        for (long seed = 1; seed <= 300; seed++) {
            Case c = new Case(seed);
            if (c.s.rollDay >= 0 || c.s.rules.stream().anyMatch(r -> r.both)) {
                // where both sides give a signal at once long is asked first, on the mirrored tape, too
                continue;
            }
            TapeBuilder mirrored = new TapeBuilder(c.prints.size());
            for (NaiveTrader.P p : c.prints) {
                mirrored.add(p.time(), -p.price(), p.size(), p.ask() == Tape.NONE ? Tape.NONE : -p.ask(),
                        p.bid() == Tape.NONE ? Tape.NONE : -p.bid(), p.askSize(), p.bidSize(), Optional.empty());
            }
            Run straight = Run.trial(c.inputs);
            Run turned = Run.trial(Inputs.of(mirrored.build(), c.contract, c.inputs.account(),
                    c.inputs.strategies().stream().map(TwinTest::turned).toList(),
                    c.inputs.terms()).over(c.inputs.days()));
            assertEquals(turned.engine().log().fills().stream()
                    .map(f -> f.time() + " " + !f.buy() + " " + f.quantity() + " " + -f.price() + " " + f.reason())
                    .toList(),
                    straight.engine().log().fills().stream()
                            .map(f -> f.time() + " " + f.buy() + " " + f.quantity() + " " + f.price() + " "
                                    + f.reason())
                            .toList(),
                    "seed " + seed);
        }
    }
}
