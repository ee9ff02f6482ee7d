package stativex.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;
import stativex.account.Account;
import stativex.demo.Demo;
import stativex.engine.Strategy;
import stativex.engine.Trade;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.ResultFiles;
import stativex.files.ResultWords;
import stativex.market.BarSeries;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.market.Money;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.market.TapeTime;
import stativex.order.Fill;
import stativex.order.Terms;
import stativex.trial.Days;
import stativex.trial.PastTrades;
import stativex.trial.Spread;

/** Tries a strategy's exit plan on past bars: on one, said event by event, or on every signal of its rules. */
@Command(name = "past", mixinStandardHelpOptions = true, sortOptions = false, description = "Tries the exit plan of a strategy on a past bar, or on every signal of its rules. Entries are at the market with a bar's close; limits, windows and the account's lines are left aside.")
final class PastCommand implements Callable<Integer> {
    @Option(names = "--tape", paramLabel = "FILE|NAME", required = true, description = "ticks: a CSV or Parquet file, the name of a stored tape, or the word demo")
    private String tape;

    @Option(names = "--contract", paramLabel = "FILE.json", required = true, description = "contract document")
    private Path contract;

    @Option(names = "--strategy", paramLabel = "FILE.json", required = true, description = "strategy document")
    private Path strategy;

    @Option(names = "--account", paramLabel = "FILE.json", required = true, description = "account document: its fees count")
    private Path account;

    @Option(names = "--bar", paramLabel = "N", description = "the signal bar, from 1; every signal if left out")
    private Integer bar;

    @Option(names = "--side", paramLabel = "long|short", description = "side of the trade at --bar")
    private String side;

    @Option(names = "--at", paramLabel = "PRICE", description = "price of the entry, good for the day; at the market if left out")
    private String price;

    @Spec
    private CommandSpec spec;

    PastCommand() {}

    @Override
    public Integer call() {
        if ((bar == null) != (side == null) || side != null && !List.of("long", "short").contains(side)) {
            throw new ParameterException(spec.commandLine(),
                    "expected --bar with --side long or short, or neither of them");
        }
        if (price != null && bar == null) {
            throw new ParameterException(spec.commandLine(), "--at: expected a --bar to enter with, found none");
        }
        return new StoredTapes(spec).mending(this::tried);
    }

    private int tried() {
        Documents.Read<Contract> of = Documents.contract(contract);
        Account with = Documents.account(account).value();
        Strategy tried = Documents.strategy(strategy).value();
        tried.signals().others(of.value()).stream().findFirst().ifPresent(symbol -> {
            throw new BadInput("strategy \"" + tried.name() + "\" looks at " + symbol
                    + ": past trades with further contracts are tried in the window");
        });
        Tape whole = Demo.open(tape, Optional.of(of.value()), false).tape();
        Tape ticks = Seals.fit(tape, of.value(), Days.ALL).of(whole, of.value().calendar());
        PastTrades past = made(ticks, of.value(), with);
        PrintWriter out = spec.commandLine().getOut();
        if (bar != null) {
            BarSeries bars = past.bars(tried);
            if (bar < 1 || bar > bars.count()) {
                throw new BadInput("--bar: expected 1 to " + bars.count() + ", the bars of this tape, found " + bar);
            }
            Side way = Side.valueOf(side.toUpperCase(Locale.ROOT));
            one(out, of.value(), ticks, price == null
                    ? past.at(tried, Map.<String, ContractTape>of(), way, bar - 1)
                    : past.at(tried, Map.<String, ContractTape>of(), way, bar - 1, ticks(of.value())));
            return 0;
        }
        List<Trade> trades = past.everySignal(tried, Map.of(), () -> false).orElseThrow();
        out.println("entry_time,exit_time,side,quantity,entry_price,exit_price,net,mae_ticks,mfe_ticks,exit_reason");
        trades.forEach(t -> out.println(List.of(TapeTime.instant(t.entryTime()).toString(),
                TapeTime.instant(t.exitTime()).toString(), t.side().word(), Integer.toString(t.quantity()),
                of.value().meanText(t.entrySum(), t.quantity()), of.value().meanText(t.exitSum(), t.left()),
                Money.text(t.net()), Long.toString(t.mae()), Long.toString(t.mfe()),
                t.exitReason().map(ResultWords::of).orElse("")).stream().collect(Collectors.joining(","))));
        Spread spread = Spread.of(trades, of.value(), with.fee(of.value().symbol()));
        spec.commandLine().getErr().println("stativex: note: " + spread.trades() + " trades, "
                + Money.text(spread.netPerTrade()) + " " + of.value().currency() + " each after fees, " + spread.won()
                + " won; engine " + ResultFiles.engineVersion());
        return 0;
    }

    private long ticks(Contract of) {
        try {
            return of.price(price);
        } catch (IllegalArgumentException e) {
            throw new BadInput("--at: " + e.getMessage(), e);
        }
    }

    private static PastTrades made(Tape ticks, Contract of, Account with) {
        try {
            return new PastTrades(ticks, of, with, Terms.DEFAULT);
        } catch (IllegalArgumentException e) {
            throw new BadInput(e.getMessage(), e);
        }
    }

    private static void one(PrintWriter out, Contract of, Tape ticks, PastTrades.Outcome outcome) {
        if (outcome.trade().isEmpty()) {
            out.println(outcome.declined().map(d -> "not entered: " + ResultWords.reason(d))
                    .orElse("not entered: no print after that bar filled it"));
            return;
        }
        record Event(int print, int order, String words) {}
        List<Event> events = new ArrayList<>();
        for (Fill fill : outcome.fills()) {
            events.add(new Event(fill.print(), fill.buy() == (outcome.trade().get().side() == Side.LONG) ? 0 : 2,
                    (fill.buy() ? "buy " : "sell ") + fill.quantity() + " at " + of.text(fill.price()) + ", "
                            + ResultWords.of(fill.reason())));
        }
        outcome.trade().get().stops().forEach(stop -> events.add(new Event(stop.print(), 1,
                "stop at " + of.text(stop.level()) + ", " + ResultWords.of(stop.origin()))));
        events.sort(Comparator.comparingInt(Event::print).thenComparingInt(Event::order));
        events.forEach(e -> out.println(TapeTime.instant(ticks.time(e.print())) + " " + e.words()));
        out.println("net " + Money.text(outcome.trade().get().net()) + " " + of.currency() + ", best "
                + outcome.trade().get().mfe() + " ticks, worst " + outcome.trade().get().mae() + " ticks");
    }
}
