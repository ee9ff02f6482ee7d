package stativex.evidence;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import stativex.account.Account;
import stativex.account.LineKind;
import stativex.account.Rulebook;
import stativex.engine.Trade;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.order.Fill;
import stativex.order.Owner;
import stativex.trial.Run;

/**
 * What an account's lines and rulebook would have said of days that are past: each day as it went until a line was reached, from when on
 * nothing more is counted of it. Money in ten-thousandths. Source: SEMANTICS, "Account rulebooks".
 *
 * @param days those looked at, the last one being the one with which the account was over, if it ever was
 * @param rules every rule of the book as it stood at the end, in the book's order
 */
public record BookReading(Account account, List<Day> days, List<Standing> rules) {
    public BookReading {
        days = List.copyOf(days);
        rules = List.copyOf(rules);
    }

    /** How a day ended. */
    public enum End {
        /** As it did. */
        WHOLE,
        /** A line locked it, or a guard. */
        LOCKED,
        /** The account was broken, and over. */
        BROKEN,
        /** A guarded line was so near that nothing could be traded, and the account is over. */
        NO_ROOM
    }

    /**
     * @param balance at the day's first instant
     * @param result until the day ended, or was ended
     * @param high highest result of that, {@code low} lowest, the first instant included
     * @param floor of the drawdown, as equity, at the first instant, {@code floorAfter} when the day ended; empty without one
     * @param line that ended it; empty where none did
     * @param guarded by its guard
     * @param at when that was, nanoseconds
     * @param passed whether the target was met on it
     * @param payout money that might be paid out when it ended; 0: none, or no rule of payouts
     */
    public record Day(LocalDate date, long balance, long result, long high, long low, OptionalLong floor,
            OptionalLong floorAfter, End end, Optional<LineKind> line, boolean guarded, OptionalLong at, boolean passed,
            long payout) {}

    /** How a rule stands. */
    public enum State {
        CLEAR, NEAR, BROKEN, MET
    }

    /**
     * @param value what is counted, in the rule's own unit (money, days, contracts, percent); empty where nothing is yet
     * @param line where it is met or broken, in the same unit
     * @param headroom money before it; empty where it is not a matter of money
     */
    public record Standing(Rulebook.Rule rule, State state, Optional<BigDecimal> value, Optional<BigDecimal> line,
            OptionalLong headroom) {}

    /** Trading days until the target was met; empty where it never was. */
    public OptionalInt daysToTarget() {
        for (int i = 0; i < days.size(); i++) {
            if (days.get(i).passed()) {
                return OptionalInt.of(i + 1);
            }
        }
        return OptionalInt.empty();
    }

    /** The day on which the account was over, broken or without room; empty where it never was. */
    public Optional<Day> over() {
        return days.isEmpty() || days.getLast().end().compareTo(End.BROKEN) < 0
                ? Optional.empty()
                : Optional.of(days.getLast());
    }

    /**
     * Holds a finished run to an account's rules, whatever rules it was run with.
     *
     * @param account its lines, limits and rulebook; it should have the start of the run's account
     * @throws IllegalArgumentException when something was held overnight
     */
    public static BookReading of(Run run, Account account) {
        DayJudge judge = new DayJudge(account);
        List<Day> days = new ArrayList<>();
        Progress progress = new Progress(account);
        boolean met = false;
        for (DayPath path : Paths.of(run, account)) {
            long balance = judge.balance;
            OptionalLong floor = judge.floor(0);
            judge.judge(path);
            boolean passed = judge.end == DayJudge.End.PASSED && !met;
            if (judge.end == DayJudge.End.PASSED) {
                // the day went on: the target is met while it runs
                met = true;
                judge.targetIsMet();
                judge.judge(path);
            }
            long low = judge.end == DayJudge.End.WHOLE ? path.lowest() : Math.min(0, judge.lowest(path));
            progress.ends(path, judge);
            days.add(new Day(path.date(), balance, judge.dayResult, judge.high, low, floor, judge.floor(0),
                    end(judge.end), Optional.ofNullable(judge.line), judge.guarded,
                    judge.time == Long.MAX_VALUE ? OptionalLong.empty() : OptionalLong.of(judge.time), passed,
                    progress.payout(judge.balance)));
            if (judge.end == DayJudge.End.BROKEN || judge.end == DayJudge.End.NO_ROOM) {
                break;
            }
        }
        return new BookReading(account, days, progress.standings(run, judge, days, met));
    }

    private static End end(DayJudge.End end) {
        return switch (end) {
            case WHOLE, PASSED -> End.WHOLE;
            case LOCKED -> End.LOCKED;
            case BROKEN -> End.BROKEN;
            case NO_ROOM -> End.NO_ROOM;
        };
    }

    /** What rules count over the days. */
    private static final class Progress {
        private final Account account;
        private final Optional<Rulebook.Payout> payout;
        private int winningDays;

        Progress(Account account) {
            this.account = account;
            this.payout = account.rulebook().of(Rulebook.Payout.class).findFirst();
        }

        void ends(DayPath path, DayJudge judge) {
            if (path.traded() && payout.filter(rule -> judge.dayResult >= rule.winningDay()).isPresent()) {
                winningDays++;
            }
        }

        long payout(long balance) {
            if (payout.isEmpty() || winningDays < payout.get().winningDays()) {
                return 0;
            }
            long above = balance - account.start() - payout.get().buffer();
            return Math.max(0, Math.min(above, payout.get().cap().orElse(Long.MAX_VALUE)));
        }

        List<Standing> standings(Run run, DayJudge judge, List<Day> days, boolean met) {
            Optional<LineKind> over = days.isEmpty() || days.getLast().end() != End.BROKEN
                    ? Optional.empty()
                    : days.getLast().line();
            return account.rulebook().rules().stream().map(rule -> standing(rule, run, judge, days, met, over))
                    .toList();
        }

        private Standing standing(Rulebook.Rule rule, Run run, DayJudge judge, List<Day> days, boolean met,
                Optional<LineKind> over) {
            return switch (rule) {
                case Rulebook.DrawdownFloor floor -> {
                    long equity = over.isPresent() ? days.getLast().balance() + days.getLast().result() : judge.balance;
                    long line = judge.floor(0).orElseThrow();
                    yield money(rule, equity, line, floor.allowance(),
                            over.filter(LineKind.DRAWDOWN_FLOOR::equals).isPresent());
                }
                case Rulebook.DayLoss loss -> {
                    long worst = days.stream().mapToLong(Day::low).min().orElse(0);
                    yield money(rule, worst, -loss.amount(), loss.amount(),
                            days.stream().anyMatch(d -> d.line().filter(LineKind.BOOK_DAY_LOSS::equals).isPresent()
                                    && !d.guarded()));
                }
                case Rulebook.ProfitTarget target -> new Standing(rule, met ? State.MET : State.CLEAR,
                        Optional.of(amount(judge.balance - account.start())), Optional.of(amount(target.amount())),
                        OptionalLong.of(Math.max(0, target.amount() - (judge.balance - account.start()))));
                case Rulebook.FewestDays fewest -> count(rule, judge.tradedDays, fewest.days());
                case Rulebook.Consistency consistency -> consistency(consistency, judge);
                case Rulebook.Size size -> size(size, run, days);
                case Rulebook.HoldingTime holding -> holding(holding, run);
                case Rulebook.StopToTarget ratio -> new Standing(rule, State.CLEAR, Optional.empty(),
                        Optional.of(ratio.ratio()), OptionalLong.empty());
                case Rulebook.Payout paid -> new Standing(rule,
                        payout(judge.balance) > 0 ? State.MET : State.CLEAR,
                        Optional.of(BigDecimal.valueOf(winningDays)),
                        Optional.of(BigDecimal.valueOf(paid.winningDays())),
                        OptionalLong.of(payout(judge.balance)));
                case Rulebook.FlatBy by -> broken(rule, heldAt(run, trade -> by.actsFrom(trade.entryTime())
                        + by.lead() < trade.exitTime()));
                case Rulebook.NoOvernight ignored -> broken(rule, false);
                case Rulebook.Quiet quiet -> broken(rule, heldAt(run, trade -> account.own().quietTimes().releases()
                        .stream().anyMatch(release -> trade.entryTime() < release.time() + quiet.after()
                                && release.time() - quiet.before() < trade.exitTime())));
            };
        }

        private static boolean heldAt(Run run, java.util.function.Predicate<Trade> breaks) {
            return run.engine().log().trades().stream().anyMatch(breaks);
        }

        private static Standing broken(Rulebook.Rule rule, boolean broken) {
            return new Standing(rule, broken ? State.BROKEN : State.CLEAR, Optional.empty(), Optional.empty(),
                    OptionalLong.empty());
        }

        private static BigDecimal amount(long money) {
            return BigDecimal.valueOf(money, 4);
        }

        private static Standing money(Rulebook.Rule rule, long value, long line, long allowance, boolean broken) {
            long left = value - line;
            State state = broken ? State.BROKEN : Math.multiplyExact(left, 5L) < allowance ? State.NEAR : State.CLEAR;
            return new Standing(rule, state, Optional.of(amount(value)), Optional.of(amount(line)),
                    OptionalLong.of(left));
        }

        private static Standing count(Rulebook.Rule rule, int value, int line) {
            return new Standing(rule, value >= line ? State.MET : State.CLEAR, Optional.of(BigDecimal.valueOf(value)),
                    Optional.of(BigDecimal.valueOf(line)), OptionalLong.empty());
        }

        private Standing consistency(Rulebook.Consistency rule, DayJudge judge) {
            long net = judge.balance - account.start();
            if (net <= 0) {
                return new Standing(rule, State.CLEAR, Optional.empty(), Optional.of(rule.percent()),
                        OptionalLong.empty());
            }
            BigDecimal share = BigDecimal.valueOf(judge.bestDay).multiply(BigDecimal.valueOf(100))
                    .divide(BigDecimal.valueOf(net), 2, java.math.RoundingMode.HALF_UP);
            return new Standing(rule, rule.holds(judge.bestDay, net) ? State.CLEAR : State.NEAR, Optional.of(share),
                    Optional.of(rule.percent()), OptionalLong.empty());
        }

        private Standing size(Rulebook.Size rule, Run run, List<Day> days) {
            Map<String, Long> longs = new HashMap<>();
            Map<String, Long> shorts = new HashMap<>();
            Map<Owner, Long> held = new HashMap<>();
            boolean broken = false;
            int at = 0;
            long most = 0;
            for (Fill fill : run.engine().log().fills()) {
                Contract contract = run.inputs().contract(fill.owner());
                while (at + 1 < days.size() && fill.time() >= open(contract, days.get(at + 1).date())) {
                    at++;
                }
                long before = held.getOrDefault(fill.owner(), 0L);
                long now = before + (fill.buy() ? fill.quantity() : -fill.quantity());
                held.put(fill.owner(), now);
                longs.merge(contract.symbol(), Math.max(0, now) - Math.max(0, before), Long::sum);
                shorts.merge(contract.symbol(), Math.max(0, -now) - Math.max(0, -before), Long::sum);
                Side side = fill.buy() ? Side.LONG : Side.SHORT;
                Map<String, Long> of = side == Side.LONG ? longs : shorts;
                int may = rule.at((days.isEmpty() ? account.start() : days.get(at).balance()) - account.start());
                broken |= Math.abs(now) > Math.abs(before) && !rule.fits(of, may);
                most = Math.max(most, of.values().stream().mapToLong(Long::longValue).sum());
            }
            return new Standing(rule, broken ? State.BROKEN : State.CLEAR, Optional.of(BigDecimal.valueOf(most)),
                    Optional.of(BigDecimal
                            .valueOf(rule.at(days.isEmpty() ? 0 : days.getLast().balance() - account.start()))),
                    OptionalLong.empty());
        }

        private static long open(Contract contract, LocalDate date) {
            return contract.calendar().sessions(date).isEmpty()
                    ? Long.MAX_VALUE
                    : contract.calendar().sessions(date).getFirst().open();
        }

        private static Standing holding(Rulebook.HoldingTime rule, Run run) {
            List<Trade> trades = run.engine().log().trades();
            if (trades.isEmpty()) {
                return new Standing(rule, State.CLEAR, Optional.empty(), Optional.of(rule.percent()),
                        OptionalLong.empty());
            }
            long fast = trades.stream().filter(t -> t.exitTime() - t.entryTime() < rule.least()).count();
            BigDecimal share = BigDecimal.valueOf(100 * fast).divide(BigDecimal.valueOf(trades.size()), 2,
                    java.math.RoundingMode.HALF_UP);
            boolean broken = BigDecimal.valueOf(100 * fast)
                    .compareTo(rule.percent().multiply(BigDecimal.valueOf(trades.size()))) > 0;
            return new Standing(rule, broken ? State.BROKEN : State.CLEAR, Optional.of(share),
                    Optional.of(rule.percent()), OptionalLong.empty());
        }
    }
}
