package stativex;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.spi.ToolProvider;
import org.testng.annotations.Test;

/**
 * Tests of the tests: each named fault is planted into a copy of one source file, compiled before the real classes, and the
 * tests of its part run on it; an assertion of theirs must fail. Runs with {@code mvn -Pmutants verify},
 * {@code -Dstativex.faults=REGEX} chooses by name.
 */
public class PlantedFaults {
    private static final Path SOURCES = Path.of("src", "main", "java", "stativex");
    private static final Path PLACE = Path.of("target", "planted-faults");
    /** The tests of each part; what is wrong in a part its own tests must catch. */
    private static final Map<String, List<String>> TESTS = Map.of(
            "market", List.of("market.MarketTest", "market.BarTwinTest", "market.JoinTest", "market.TapeTest",
                    "market.WeightedSumsTest", "trial.BarModeTest"),
            "study", List.of("study.StudyTest", "study.StudyTwinTest"),
            "rule", List.of("rule.TruthTest", "rule.RulesTest", "rule.ProgramTest", "rule.WritingTest",
                    "rule.FurtherContractTest", "rule.WorkedTest", "rule.RuleTwinTest"),
            "trading",
            List.of("engine.EngineTest", "engine.PreviewTest", "exit.StopPathTest", "exit.PlanRunTest",
                    "account.AccountTest",
                    "interlock.WindowTest", "interlock.InterlocksTest", "engine.TradeLifeTest", "engine.StandingTest",
                    "engine.HistoryTest", "engine.ByHandTest",
                    "trial.SummaryTest", "trial.EntriesTest", "trial.BarModeTest", "trial.SeveralContractsTest",
                    "trial.QuietStretchTest",
                    "trial.TwinTest"));

    private record Fault(String name, String file, String right, String wrong) {
        String part() {
            String folder = file.substring(0, file.indexOf('/'));
            return TESTS.containsKey(folder) ? folder : "trading";
        }
    }

    private static final List<Fault> FAULTS = List.of(
            new Fault("of two contracts only one is at risk", "engine/Exposure.java",
                    "for (OwnerRun owner : engine.owners())", "for (OwnerRun owner : of.market.owners)"),
            new Fault("a line leaves one contract alone", "engine/Engine.java",
                    "owners.forEach(run -> flatten(run, verdict", "market.owners.forEach(run -> flatten(run, verdict"),
            new Fault("prints of one instant come in the run's order", "trial/Run.java",
                    "byAccount.sort(Comparator.comparingInt(t -> listed",
                    "byAccount.sort(Comparator.comparingInt(t -> -1 + 0 * listed"),
            new Fault("what another contract makes leave is sent too early", "engine/Engine.java",
                    "markets.get(i).event = time;",
                    "markets.get(i).event = markets.get(i) == market ? time : markets.get(i).event;"),
            new Fault("the guard counts one contract's closing", "engine/Engine.java",
                    "closing = Math.addExact(closing, markets.get(i).closing());",
                    "closing = markets.get(i).closing();"),
            new Fault("a stretch runs over another contract's print", "trial/Run.java",
                    "before(track, print == TapeTime.NEVER || !after ? print : print + 1)", "Integer.MAX_VALUE"),
            new Fault("the account's day begins behind the contract's", "engine/SessionClock.java",
                    "if (account.next() == at) {\n                account.begin(at, moments);\n            }\n            if (nextDay == at) {\n                beginDay(at);\n            }",
                    "if (nextDay == at) {\n                beginDay(at);\n            }\n            if (account.next() == at) {\n                account.begin(at, moments);\n            }"),
            new Fault("inside a bar the extreme in favour comes first", "market/BarSteps.java",
                    "if (net < 0) {", "if (net > 0) {"),
            new Fault("inside a bar the further extreme comes first", "market/BarSteps.java",
                    "open(bar) - low(bar) < high(bar) - open(bar)", "open(bar) - low(bar) > high(bar) - open(bar)"),
            new Fault("an open comes at its bar's end", "market/BarSteps.java",
                    "laid.add(opens, open(bar)", "laid.add(ends, open(bar)"),
            new Fault("both ways of a bar are walked", "market/BarSteps.java",
                    "return meeting[tie++];", "tie++;\n                return step;"),
            new Fault("a target fills before a stop that the bar still comes to", "order/InsideBars.java",
                    "stop != Tape.NONE && steps", "stop == 0 && steps"),
            new Fault("limits take the bar's volume with every step", "order/SimulatedExchange.java",
                    "bars.isEmpty() || bars.get().begins(index)",
                    "bars.isEmpty() || bars.get().begins(index) || index > 0"),
            new Fault("a queue stands inside bars", "order/Terms.java",
                    "(taken ? Realism.THROUGH : realism) == asked", "realism == asked"),
            new Fault("a stop held here counts inside bars", "engine/BarMode.java",
                    "local.disaster(), 0)", "local.disaster(), local.volume())"),
            new Fault("what is sent at a close misses the next open", "trial/Inputs.java",
                    "filter(close -> close < end", "filter(close -> close < 0"),
            new Fault("what waits for the broker's stop looks at the plan's level", "engine/MarketRun.java",
                    "stop.state().live() && !stop.triggered()", "false"),
            new Fault("history counts from the tape's beginning", "engine/History.java",
                    "print == 0 && calendar.late(open, tape.time(0))",
                    "false"),
            new Fault("a quiet stretch passes a signal", "engine/KnownSignals.java",
                    "truths.get(i).next(Truth.TRUE, judged)",
                    "truths.get(i).next(Truth.TRUE, judged + 1)"),
            new Fault("a quiet stretch runs past a stop", "order/SimulatedExchange.java",
                    "bounds.up(order.price());\n        } else {",
                    "bounds.up(order.price() + 1);\n        } else {"),
            new Fault("a quiet stretch runs past the trail", "exit/StopPath.java",
                    "active.step() * (steps + 1)",
                    "active.step() * (steps + 2)"),
            new Fault("a quiet stretch does not see the profit line", "account/AccountWatch.java",
                    "up = Math.min(up, at);", ""),
            new Fault("a quiet stretch forgets the peak", "engine/QuietStretch.java",
                    "engine.watch().quietPeak(",
                    "Math.max(0, "),
            new Fault("a quiet stretch swallows the print that ends it", "engine/QuietStretch.java",
                    "inside(print, next);\n                }",
                    "inside(print, Math.min(until, next + 1));\n                    next = Math.min(until, next + 1);\n                }"),
            new Fault("a drawdown begins with the first print below", "engine/DayBook.java",
                    "peak = equity;\n            peakTime = time;",
                    "peak = equity;\n            peakTime = below ? time : peakTime;"),
            new Fault("expectancy without fees in R", "engine/Trade.java",
                    "contract.money(initialStop.get(), 1) + 2 * fee",
                    "contract.money(initialStop.get(), 1)"),
            new Fault("the cost that kills it is per trade", "trial/Summary.java",
                    "Math.floorDiv(net, contracts)",
                    "Math.floorDiv(net, count)"),
            new Fault("a profit factor without costs", "trial/Summary.java",
                    "long net = trade.net();",
                    "long net = trade.gross();"),
            new Fault("what only the session's close brings enters", "engine/ByTheClock.java",
                    "market.event >= market.clock.session().orElseThrow().close()",
                    "false"),
            new Fault("a discarded brick lets the next one pass for bar 0", "engine/TradeRun.java",
                    "entryBar = Math.min(entryBar, closed - 1);",
                    ""),
            new Fault("excursions follow the last average", "engine/TradeRun.java",
                    "if (openBefore > 0) {\n            foldExcursions();\n        }",
                    ""),
            new Fault("the best excursion rounds up", "engine/TradeRun.java",
                    "? high - average.ceil(0) : average.floor(0) - low",
                    "? high - average.floor(0) : average.ceil(0) - low"),
            new Fault("the worst excursion rounds down", "engine/TradeRun.java",
                    "? average.ceil(0) - low : high - average.floor(0)",
                    "? average.floor(0) - low : high - average.ceil(0)"),
            new Fault("a part exit is left out of the excursions", "engine/TradeRun.java",
                    "takeExcursions(fill.price(), fill.price());",
                    "if (bracket.open() == 0) { takeExcursions(fill.price(), fill.price()); }"),
            new Fault("an entry good for bars lives a bar too long", "engine/Evaluator.java",
                    "entry.closesBefore() >= n",
                    "entry.closesBefore() > n"),
            new Fault("an entry rests on after its trade has left", "order/Orders.java",
                    "bracket.entries().forEach(Orders::end);",
                    ""),
            new Fault("exits of a trade are worked one by one in order of acceptance", "order/SimulatedExchange.java",
                    "place; i < working.size(); i++",
                    "place; i < place + 1; i++"),
            new Fault("look-ahead: an order meets the print that caused it", "order/SimulatedExchange.java",
                    "order.cause().print() >= print",
                    "order.cause().print() > print"),
            new Fault("latency is ignored", "order/SimulatedExchange.java",
                    "|| resting.accepted > time",
                    ""),
            new Fault("acceptance at the print's own time comes too late", "order/SimulatedExchange.java",
                    "|| resting.accepted > time",
                    "|| resting.accepted >= time"),
            new Fault("studies do not see the roll", "engine/StrategyRun.java",
                    "signals = next;",
                    ""),
            new Fault("a roll forgets what stays open", "engine/ByTheClock.java",
                    "market.owners.forEach(owner -> engine.flatten(owner, LeaveReason.ROLL));",
                    ""),
            new Fault("the old month's last price counts for the new one", "order/SimulatedExchange.java",
                    "    public void rollsTo(long before) {\n        lastPrice = before;",
                    "    public void rollsTo(long before) {"),
            new Fault("earlier months are moved the wrong way", "market/Join.java",
                    "Math.addExact(shift, adjustment(rolls.get(i))) : 0",
                    "Math.subtractExact(shift, adjustment(rolls.get(i))) : 0"),
            new Fault("a stop loosened by the person is tightened again at once", "exit/StopPath.java",
                    "if (hasAsked && side.tighter(asked, price) == asked) {\n            return false;\n        }",
                    ""),
            new Fault("loosening passes any line", "engine/ByHand.java",
                    "if (line.isPresent()) {\n                engine.decide(run, trade.side()",
                    "if (false) {\n                engine.decide(run, trade.side()"),
            new Fault("a changed plan leaves an entry that crosses a line", "engine/ByHand.java",
                    "if (line.isPresent()) {\n                engine.decide(run, run.bracket.side()",
                    "if (false) {\n                engine.decide(run, run.bracket.side()"),
            new Fault("a changed plan loosens the stop", "exit/StopPath.java",
                    "if (before.hasLevel) {", "if (before.hasLevel && bestPrice == 0) {"),
            new Fault("a changed plan forgets the best", "exit/StopPath.java",
                    "bestPrice = before.bestPrice;", ""),
            new Fault("an open trade loses the studies of its old plan", "engine/ByHand.java",
                    "keep.forEach(Runnable::run);", ""),
            new Fault("a hand-over is booked as a result of the account", "account/Ledger.java",
                    "giver.realised = Math.addExact(giver.realised, worth);",
                    "giver.realised = Math.addExact(giver.realised, worth);\n            balance = Math.addExact(balance, worth);"),
            new Fault("a taker's result counts from the giver's entry", "engine/TradeRun.java",
                    "this.entrySum = Math.multiplyExact(price, entered);",
                    "this.entrySum = given.entrySum;"),
            new Fault("a rulebook's line is a question", "engine/ByHand.java",
                    "return !line.ofTheBook();",
                    "return true;"),
            new Fault("a plan moves a target back that the person has moved", "order/Orders.java",
                    "wished.moved() && !standing.movedByHand() &&",
                    "wished.moved() &&"),
            new Fault("a quiet stretch forgets the person's trade", "engine/QuietStretch.java",
                    "i < market.owners.size(); i++) {\n            bound(",
                    "i < market.runs.size(); i++) {\n            bound("),
            new Fault("a stop-limit does not meet the print that reaches it", "order/SimulatedExchange.java",
                    "reports.add(new Report.Triggered(order));\n                    meetLimit(resting);",
                    "reports.add(new Report.Triggered(order));"),
            new Fault("a stop-limit that was reached follows its stop", "order/SimulatedExchange.java",
                    "(order.type() == Order.Type.MARKET || order.reached())",
                    "order.type() == Order.Type.MARKET"),
            new Fault("what joins the queue stands at its head", "order/SimulatedExchange.java",
                    "there != Tape.NONE ? there : terms.assumedAhead()",
                    "there != Tape.NONE ? 0 : terms.assumedAhead()"),
            new Fault("the contracts ahead do not take their share of the print", "order/SimulatedExchange.java",
                    "Math.max(0, tape.size(print) - resting.ahead)",
                    "tape.size(print)"),
            new Fault("both halves of a two-sided entry fill", "engine/Booking.java",
                    "run.fills(bracket).ifPresent(run.market.orders::endEntries);",
                    "run.fills(bracket);"),
            new Fault("both sides of a two-sided entry are added in the line check", "interlock/LineCheck.java",
                    "Math.max(one.loss, other.loss)",
                    "one.loss + other.loss"),
            new Fault("a two-sided entry counts as two trades", "interlock/Interlocks.java",
                    "s.bracket().entering() > 0 && p.joins() == Proposal.Joins.BESIDE;",
                    "s.bracket().entering() > 0 && !p.turns();"),
            new Fault("a risk cap forgets the fees", "engine/Standpoint.java",
                    "Math.addExact(market.closingEach(), market.fee))));",
                    "market.closingEach())));"),
            new Fault("what cannot be cut is cut", "interlock/Interlocks.java",
                    "int fitting = s.cuts() ? ",
                    "int fitting = true ? "),
            new Fault("a percent of the way to the wrong line", "account/AccountWatch.java",
                    "mapToLong(line -> equity - line.money()).min()",
                    "mapToLong(line -> equity - line.money()).max()"),
            new Fault("a stop waits for a print beyond it", "order/SimulatedExchange.java",
                    "price >= order.price() : price <= order.price();\n                if (reached",
                    "price > order.price() : price < order.price();\n                if (reached"),
            new Fault("the better of quote and print", "order/SimulatedExchange.java",
                    "Math.max(quote, price) : Math.min(quote, price)",
                    "Math.min(quote, price) : Math.max(quote, price)"),
            new Fault("slippage helps", "order/SimulatedExchange.java",
                    "Math.addExact(price, ticks) : Math.subtractExact(price, ticks)",
                    "Math.subtractExact(price, ticks) : Math.addExact(price, ticks)"),
            new Fault("a limit fills at a touch though through was asked", "order/SimulatedExchange.java",
                    "} else if (touch || price != limit) {", "} else if (price != Long.MIN_VALUE) {"),
            new Fault("limits take more than the print", "order/SimulatedExchange.java",
                    "Math.min(quantity, limitRoom)", "(long) quantity"),
            new Fault("a limit at the far quote counts as passed", "order/SimulatedExchange.java",
                    "far < limit : far > limit",
                    "far <= limit : far >= limit"),
            new Fault("a change acts on the print that caused it", "order/SimulatedExchange.java",
                    "next.request().cause().print() >= print",
                    "next.request().cause().print() > print"),
            new Fault("a change due now waits", "order/SimulatedExchange.java",
                    "next.due() > time",
                    "next.due() >= time"),
            new Fault("targets shrink from the first", "order/Bracket.java",
                    "int i = targets.size() - 1; i >= 0; i--",
                    "int i = 0; i < targets.size(); i++"),
            new Fault("the stop keeps its size after a target", "order/Orders.java",
                    "bracket.stop().filter(stop -> stop != exit).ifPresent(stop -> stop.quantity = stop.filled + bracket.open());",
                    ""),
            new Fault("contracts leave on the print that brought them", "order/Bracket.java",
                    "freshPrint == print ? open - fresh : open", "open"),
            new Fault("a stop loosens", "exit/StopPath.java", "side.tighter(level, price) == level", "level == price"),
            new Fault("breakeven one tick late", "exit/StopPath.java", "excursion(1, figures.breakevenAfter) >= 0",
                    "excursion(1, figures.breakevenAfter) > 0"),
            new Fault("a trail step one tick late", "exit/StopPath.java", "excursion(1, step.activate()) >= 0",
                    "excursion(1, step.activate()) > 0"),
            new Fault("a trail without whole steps", "exit/StopPath.java", "active.step() * steps", "steps"),
            new Fault("a stop rounds toward the market", "exit/Average.java",
                    "? floor(ticks) : ceil(-ticks)", "? ceil(ticks) : floor(-ticks)"),
            new Fault("a money stop further than asked", "exit/PlanFigures.java",
                    "return (side == Side.LONG) == nearer ? at.ceil() : at.floor();",
                    "return side == Side.LONG ? at.floor() : at.ceil();"),
            new Fault("a target rounds toward the market", "exit/PlanFigures.java",
                    "average.exact().plus(ticks).ceil() : average.exact().plus(ticks.negated()).floor()",
                    "average.exact().plus(ticks).floor() : average.exact().plus(ticks.negated()).ceil()"),
            new Fault("money in all is counted for the contracts open, not for the order", "exit/PlanFigures.java",
                    "Math.multiplyExact(contract.tickValue(), quantity)",
                    "Math.multiplyExact(contract.tickValue(), open)"),
            new Fault("a trail in R counts itself", "exit/PlanFigures.java", "attached(trail(0, false))",
                    "attached(trail(0, true))"),
            new Fault("a stop under a tick is no stop", "exit/PlanFigures.java",
                    "return ticks.isBelow(Ratio.ONE) ? Ratio.ONE : ticks;", "return ticks;"),
            new Fault("a study's stop rounds toward the market", "exit/PlanFigures.java",
                    "side == Side.LONG ? Math.floor(level) : Math.ceil(level)",
                    "side == Side.LONG ? Math.ceil(level) : Math.floor(level)"),
            new Fault("a bar's close does not see its own print", "exit/StopPath.java",
                    "belongs.ifPresent(this::take);", ""),
            new Fault("a bar too early for breakeven", "exit/StopPath.java", "since >= b.bars().getAsInt()",
                    "since + 1 >= b.bars().getAsInt()"),
            new Fault("breakeven does not wait for the entry's rest", "exit/PlanRun.java",
                    "leg.isPresent() && !entering &&", "leg.isPresent() &&"),
            new Fault("a stop held here counts on after its level moved", "exit/PlanRun.java",
                    "reached = false;\n        counted = 0;", "reached = false;"),
            new Fault("a stop held here wants a contract more", "exit/PlanRun.java",
                    "counted >= terms.local().get().volume()", "counted > terms.local().get().volume()"),
            new Fault("the print that moved a stop held here meets it", "exit/PlanRun.java",
                    "if (movedNow || terms", "if (terms"),
            new Fault("buyers count against a long trade", "engine/TradeRun.java",
                    "tape.aggressor(print) == own ? 0 : tape.size(print)", "tape.size(print)"),
            new Fault("the first close in profit may be that of the entry's bar", "exit/PlanRun.java",
                    "first && profit && bar.since() >= 1", "first && profit"),
            new Fault("a rule takes a part off again and again", "exit/PlanRun.java", "taken.add(rule);", ""),
            new Fault("the line check looks at the stop held here", "exit/PlanRun.java",
                    "Math.addExact(initial, terms", "Math.addExact(initial, 0 * terms"),
            new Fault("a reverse leaves the entry resting", "engine/Evaluator.java",
                    "LeaveReason.OPPOSITE_SIGNAL);\n            engine.cancelEntries(run);",
                    "LeaveReason.OPPOSITE_SIGNAL);"),
            new Fault("an opposite signal leaves the entry resting", "engine/Evaluator.java",
                    "run.market.orders.cancelEntries(other.get(), run.market.because());",
                    ""),
            new Fault("a plan's studies may warm up in the trade", "engine/Standpoint.java",
                    "|| !run.signals.plans.get(proposal.side()).complete(proposal.bar())", ""),
            new Fault("the last print before a range's end is not met", "order/SimulatedExchange.java",
                    "attached || n.order().reason().equals(RANGE_END)", "attached"),
            new Fault("the entry's own print counts for best", "engine/Engine.java", "trade.entryPrint() < print",
                    "trade.entryPrint() <= print"),
            new Fault("a lock lets an entry through", "interlock/Interlocks.java",
                    "s.account().lock().map(Refusal.Locked::new);",
                    "Optional.empty();"),
            new Fault("a losing run lets an entry through", "interlock/Interlocks.java",
                    "return locked.isPresent() || pause.isEmpty()", "return true"),
            new Fault("a broken account trades on", "interlock/Interlocks.java",
                    "s.account().brokenBy().map(Refusal.Broken::new)",
                    "s.account().brokenBy().filter(by -> s.off()).map(Refusal.Broken::new)"),
            new Fault("the line check lets equity end on the line", "interlock/LineCheck.java",
                    "loss) <= line.money()", "loss) < line.money()"),
            new Fault("the line check forgets a fee", "engine/Exposure.java",
                    "Math.addExact(market.closingEach(), market.fee)",
                    "market.closingEach()"),
            new Fault("one trade a day too many", "interlock/Interlocks.java",
                    "s.tradesToday() + (resting ? 1 : 0) >=",
                    "s.tradesToday() + (resting ? 1 : 0) >"),
            new Fault("the floor holds at its own level", "account/Judge.java",
                    "equity <= at : equity >= at",
                    "equity < at : equity >= at"),
            new Fault("the floor never locks", "account/FloorJudge.java",
                    "Math.min(floor, rule.lock().get())", "floor"),
            new Fault("a floor by days trails every print", "account/FloorJudge.java",
                    "case END_OF_DAY -> s.closedPeak;", "case END_OF_DAY -> s.peak;"),
            new Fault("a static floor rises", "account/FloorJudge.java",
                    "case STATIC -> start;", "case STATIC -> s.closedPeak;"),
            new Fault("the day loss is met too late", "account/DayLossJudge.java",
                    "return s.dayStart - rule.amount();", "return s.dayStart - rule.amount() - 1;"),
            new Fault("the book's day loss counts from equity always", "account/BookDayLossJudge.java",
                    "? s.dayBalance : s.dayStart", "? s.dayStart : s.dayStart"),
            new Fault("give-back counts from the first gain", "account/GiveBackJudge.java",
                    "s.dayBest - s.dayStart >= rule.after()", "s.dayBest - s.dayStart > 0"),
            new Fault("a quiet stretch does not see give-back begin", "account/AccountWatch.java",
                    "up = Math.min(up, judge.beginsAt(s));", ""),
            new Fault("the guard is off when it is on", "account/AccountWatch.java",
                    "if (!judge.guard().on() ||", "if (judge.guard().on() ||"),
            new Fault("the guard has no margin in ticks", "account/Guard.java",
                    "Math.multiplyExact(perTick, ticks)", "0"),
            new Fault("the line check does not see the guard's margin", "account/AccountWatch.java",
                    "return lines(equity, judge -> judge.guard().margin(perTick));",
                    "return lines(equity, judge -> 0);"),
            new Fault("a guard breaks the account", "account/AccountWatch.java",
                    "lock = Optional.of(judge.kind().lock());\n                return",
                    "broken = Optional.of(judge.kind().lock());\n                return"),
            new Fault("a losing run goes on after its pause", "account/Losses.java",
                    "return new Losses(0, Math.max(until, pause));", "return new Losses(now, Math.max(until, pause));"),
            new Fault("a losing run is carried into the next day", "account/Losses.java",
                    "return new Losses(0, until == NEXT_DAY", "return new Losses(inARow, until == NEXT_DAY"),
            new Fault("the day profit is met too late", "account/Judge.java",
                    "equity <= at : equity >= at",
                    "equity <= at : equity > at"),
            new Fault("a volume bar a trade too late", "market/TapeBlock.java", "if (left <= 0)", "if (left < 0)"),
            new Fault("a range bar too narrow", "market/RangeFormer.java", "Math.min(bar.low, price) > range",
                    "Math.min(bar.low, price) >= range"),
            new Fault("a range bar that runs on", "market/TapeBlock.java", "highest - lowest > range",
                    "highest - lowest > range + 1"),
            new Fault("a brick that wants a tick more", "market/TapeBlock.java",
                    "Math.max(down, FAR_DOWN) - 1;",
                    "Math.max(down, FAR_DOWN);"),
            new Fault("sellers counted as buyers", "market/TapeBlock.java", "-(code >>> SIZE_BITS & 1)",
                    "-(code >>> SIZE_BITS + 1 & 1)"),
            new Fault("a split trade counted whole", "market/BarSeries.java", "sink.take(from, part);",
                    "sink.take(from, tape.size(from));"),
            new Fault("a roll adjusted the wrong way", "market/Join.java",
                    "Math.addExact(shift, adjustment(rolls.get(i)));",
                    "Math.subtractExact(shift, adjustment(rolls.get(i)));"),
            new Fault("a roll on equal volume", "market/Join.java", "day.getValue() > before",
                    "day.getValue() >= before"),
            new Fault("a bar a trade too late", "market/TickFormer.java", "++counted == size", "counted++ == size"),
            new Fault("the session's last bar is lost", "engine/ByTheClock.java",
                    "engine.evaluator().evaluateClosed(run, true);",
                    ""),
            new Fault("a time bar is judged a step too late", "engine/SessionClock.java",
                    "next = Math.min(next, barClock(run));", ""),
            new Fault("a signal inside a bar is taken twice", "engine/Evaluator.java", "&& !rule.raised &&", "&&"),
            new Fault("a signal too many in a period", "interlock/Interlocks.java",
                    "count.sent() >= count.most()",
                    "count.sent() > count.most()"),
            new Fault("a filter that is off filters", "engine/SideRules.java", "filter.on() &&", ""),
            new Fault("a grade that may not enter enters", "engine/SideRules.java",
                    "rule.enters().contains(g.name())", "true"),
            new Fault("a day bar's entry misses the open", "engine/ByTheClock.java",
                    "market.arriving ? market.lastPrint - 1 : market.lastPrint",
                    "market.lastPrint"),
            new Fault("a series beside sees a print too many", "rule/OtherSeries.java",
                    "own ? signal.printsTaken(row) :", "own ? signal.printsTaken(row) + 1 :"),
            new Fault("another contract's print of the same instant is seen", "rule/OtherSeries.java",
                    "tape.firstAt(moment)", "tape.firstAt(moment + 1)"),
            new Fault("a tape that has ended goes on deciding", "rule/OtherSeries.java",
                    "signal.moment(row) >= staleFrom ? STALE :", "false ? STALE :"),
            new Fault("a series that lacks prints decides", "rule/OtherSeries.java", "lacking ? LACKING : count",
                    "count"),
            new Fault("tick bars beside time bars need no whole session", "engine/StrategyRun.java",
                    ".anyMatch(series -> series.bars().type().needsEveryPrint())", ".anyMatch(series -> false)"),
            new Fault("another contract's price in the traded one's ticks", "rule/ValueCompiler.java",
                    ".divide(program.tickSize(of), ", ".divide(program.tickSize(Ticks.OWN), "),
            new Fault("prices of two contracts are compared", "rule/ValueCompiler.java",
                    "        together(place, a, left, b, right);", ""),
            new Fault("a study that changed is the one of before", "rule/Worked.java",
                    "List.of(blueprint.studies(), blueprint.series(), drawings)", "List.of()"),
            new Fault("a trade that ended inside the bar is told", "engine/Evaluator.java",
                    "() -> program.tellNoPosition(row)",
                    "() -> { }"),
            new Fault("an entry at the window's end", "interlock/WindowSchedule.java", "time < lastEntry;",
                    "time <= lastEntry;"),
            new Fault("a flatten without its lead", "interlock/WindowSchedule.java", "Math.max(from, to - lead)", "to"),
            new Fault("realised result rounds up", "account/Ledger.java",
                    "-Math.floorDiv(Math.multiplyExact(-held.cost, closing), before)",
                    "Math.floorDiv(Math.multiplyExact(held.cost, closing), before)"),
            new Fault("an entry's price rounds toward the market", "engine/Evaluator.java",
                    "down ? Math.floor(value) : Math.ceil(value)", "down ? Math.ceil(value) : Math.floor(value)"),
            new Fault("a cross forgets the bar before", "rule/Conditions.java",
                    "(byte) Truth.and(now, Truth.not(before))",
                    "(byte) now"),
            new Fault("the last N bars are one too few", "rule/Combined.java", "bar - bars + 1); i <= bar",
                    "bar - bars + 2); i <= bar"),
            new Fault("a confirmation by the signal's own bar", "rule/Combined.java", "bar - within); at < bar",
                    "bar - within); at <= bar"),
            new Fault("a mirrored band stays on its side", "rule/Mirroring.java", "+ column.counterpart();",
                    "+ column.name();"),
            new Fault("absent is false", "rule/Truth.java", "return truth ^ 1 | truth >> 31;",
                    "return truth == ABSENT ? TRUE : 1 - truth;"),
            new Fault("the true range forgets the close before", "study/TrueRange.java", "Math.max(high, closeBefore)",
                    "high"),
            new Fault("a window's first value is lost", "study/Windows.java", "Math.max(from, length - 1)",
                    "Math.max(from, length)"),
            new Fault("a forming bar stays in a recursion", "study/Recursive.java", "again ? before : beginning",
                    "again ? now : beginning"),
            new Fault("a withdrawn signal counts as none", "engine/Flickers.java", "held || now ? 1 : 0",
                    "held ? 1 : 0"),
            new Fault("an average forgets its seed", "study/Ema.java", "value /= length;", "value = a;"),
            new Fault("a VWAP runs on over the session", "study/Vwap.java",
                    "boolean anew = row == 0 || begins[row] != begins[row - 1];",
                    "boolean anew = row == 0;"),
            new Fault("a forming bar stays in a profile", "study/Profile.java", "volumes.undo();", ""),
            new Fault("a level of half a period", "study/Frame.java", "!before.isEmpty() && holds(",
                    "!before.isEmpty() || holds("),
            new Fault("a turning point known too early", "study/Swings.java", "int at = row - strength;",
                    "int at = row - strength + 1;"),
            new Fault("an approach fires at what ran through", "study/Approach.java", "firedLong += there ? 1 : 0;",
                    "firedLong++;"),
            new Fault("an approach that needs no distance", "study/Approach.java", "above |= over >= away;",
                    "above |= true;"),
            new Fault("a session's deltas run on", "study/CumulativeDelta.java", "sum = 0;", ""),
            new Fault("a price is weighed against its own sellers", "study/Imbalance.java",
                    "beside(prices.get(i - 1), here).sold()", "here.sold()"),
            new Fault("stacked prices with a gap between", "study/Imbalance.java", "run > 0 && price == last + 1",
                    "run > 0"),
            new Fault("a local time in the missing hour is shifted", "market/TapeTime.java",
                    "return nanos(change.getInstant());", "return nanos(local.atZone(zone).toInstant());"));

    @Test
    public void everyFaultIsCaught() throws Exception {
        String chosen = System.getProperty("stativex.faults", ".*");
        List<Fault> faults = FAULTS.stream().filter(fault -> fault.name().matches(chosen)).toList();
        List<String> missed = new ArrayList<>();
        List<Path> planted = new ArrayList<>();
        for (Fault fault : faults) {
            planted.add(plant(fault));
        }
        for (String part : TESTS.keySet()) {
            assertEquals(run(part, List.of()), 0, "without a fault the tests of " + part + " must pass: " + PLACE);
        }
        try (ExecutorService two = Executors.newFixedThreadPool(2)) {
            List<Future<Integer>> results = new ArrayList<>();
            for (int i = 0; i < faults.size(); i++) {
                String part = faults.get(i).part();
                List<Path> classes = List.of(planted.get(i));
                results.add(two.submit(() -> run(part, classes)));
            }
            for (int i = 0; i < faults.size(); i++) {
                int outcome = results.get(i).get();
                System.out.println((i + 1) + " of " + faults.size() + ": " + faults.get(i).name() + ": "
                        + (outcome == FaultRun.ASSERTION_FAILED ? "caught" : "NOT CAUGHT"));
                if (outcome != FaultRun.ASSERTION_FAILED) {
                    missed.add(faults.get(i).name() + (outcome == 0 ? "" : " (failed, but by no assertion)"));
                }
            }
        }
        assertTrue(FAULTS.size() >= 30);
        assertTrue(missed.isEmpty(), missed.size() + " of " + faults.size() + " faults were not caught: " + missed);
    }

    /** Compiles one file with the fault in it; returns the folder of its classes. */
    private static Path plant(Fault fault) throws IOException {
        String source = Files.readString(SOURCES.resolve(fault.file()));
        assertTrue(source.contains(fault.right()), "the place of the fault \"" + fault.name() + "\" is in the source");
        Path folder = PLACE.resolve(Integer.toString(FAULTS.indexOf(fault)));
        Path file = folder.resolve("source").resolve(fault.file());
        Path classes = Files.createDirectories(folder.resolve("classes"));
        Files.createDirectories(file.getParent());
        Files.writeString(file, source.replace(fault.right(), fault.wrong()));
        int compiled = ToolProvider.findFirst("javac").orElseThrow().run(System.out, System.err, "-proc:none",
                "-nowarn", "-cp",
                path(List.of()), "-d", classes.toString(), file.toString());
        assertEquals(compiled, 0, "the fault \"" + fault.name() + "\" compiles");
        return classes;
    }

    /** Runs the tests of a part with some classes before the real ones; what {@link FaultRun} says. */
    private static int run(String part, List<Path> before) throws IOException, InterruptedException {
        Files.createDirectories(PLACE);
        Path out = PLACE.resolve("run-" + Thread.currentThread().threadId() + ".log");
        Process process = new ProcessBuilder(tool("java"),
                "-XX:+UseSerialGC", "-Dstativex.twin.tapes=400", "-cp", path(before), FaultRun.class.getName(),
                String.join(",", TESTS.get(part).stream().map("stativex."::concat).toList())).redirectErrorStream(true)
                .redirectOutput(out.toFile()).start();
        if (!process.waitFor(6, TimeUnit.MINUTES)) {
            process.destroyForcibly();
            throw new IllegalStateException("the tests of " + part + " did not end: nobody knows whether they notice");
        }
        return process.exitValue();
    }

    private static String tool(String name) {
        return Path.of(System.getProperty("java.home"), "bin", name).toString();
    }

    private static String path(List<Path> before) {
        List<String> path = new ArrayList<>(before.stream().map(Path::toString).toList());
        path.add(Path.of("target", "classes").toString());
        path.add(Path.of("target", "test-classes").toString());
        path.add(System.getProperty("java.class.path"));
        path.add(System.getProperty("jdk.module.path", ""));
        return String.join(File.pathSeparator, path);
    }
}
