package stativex.cli;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintWriter;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import stativex.demo.Demo;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.link.fix.Wish;
import stativex.link.fix.StandIn;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.order.Terms;

/** A venue to practise on, as a process of its own. */
@Command(name = "exchange", mixinStandardHelpOptions = true, sortOptions = false, description = "A stand-in exchange that speaks FIX 4.4 on this computer alone: plays a tape and fills orders as trials do, until it is stopped. While it runs it takes lines that ask for something: drop (the links), silence SECONDS (of the feed), elsewhere CONTRACTS (a trade by hand), reject ORDERS (the next ones), gap PRINTS (they are not sent), speed N.")
final class ExchangeCommand implements Callable<Integer> {
    @Option(names = "--tape", paramLabel = "FILE|NAME", required = true, description = "ticks that are played: a CSV or Parquet file, the name of a stored tape, or the word demo")
    private String tape;

    @Option(names = "--contract", paramLabel = "FILE.json", required = true, description = "contract document")
    private Path contract;

    @Option(names = "--port", paramLabel = "N", defaultValue = "4404", description = "port on the loopback address (${DEFAULT-VALUE})")
    private int port;

    @Option(names = "--speed", paramLabel = "N", defaultValue = "1", description = "tape seconds a second (${DEFAULT-VALUE})")
    private double speed;

    @Option(names = "--lockstep", description = "the next print comes only when the client has taken the last one and sent all that it led to")
    private boolean lockstep;

    @Option(names = "--realism", paramLabel = "through|queue|touch", defaultValue = "through", description = "when resting limits fill (${DEFAULT-VALUE})")
    private String realism;

    @Option(names = "--latency", paramLabel = "MS", defaultValue = "0", description = "milliseconds that an order, a change or a cancellation takes (${DEFAULT-VALUE})")
    private int latency;

    @Spec
    private CommandSpec spec;

    ExchangeCommand() {}

    /** Does what it is asked to, a line each, until there are no more lines. */
    private void wishes(StandIn standIn) {
        try (BufferedReader lines = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                if (!line.isBlank()) {
                    wish(standIn, line);
                }
            }
        } catch (IOException e) {
            // nobody asks for anything any more
        }
    }

    private void wish(StandIn standIn, String line) {
        try {
            standIn.wish(Wish.read(line));
            spec.commandLine().getOut().println("does: " + line.strip());
        } catch (BadInput e) {
            spec.commandLine().getErr().println("stativex: " + e.getMessage());
        }
        spec.commandLine().getOut().flush();
        spec.commandLine().getErr().flush();
    }

    @Override
    public Integer call() throws InterruptedException {
        if (!(speed > 0) || latency < 0 || port < 1 || port > 65_535) {
            throw new BadInput("expected a speed above 0, a latency of 0 or more and a port from 1 to 65535");
        }
        Contract of = Documents.contract(contract).value();
        Tape played = Demo.open(tape, Optional.of(of), false).tape();
        Terms terms = new Terms(FreeFiles.realism(realism), latency * 1_000_000L, 0);
        InetSocketAddress at = new InetSocketAddress(InetAddress.getLoopbackAddress(), port);
        try (StandIn standIn = new StandIn(new StandIn.Setup(of, played, terms,
                lockstep ? Optional.empty() : Optional.of(speed), UUID.randomUUID().toString()), at)) {
            PrintWriter out = spec.commandLine().getOut();
            out.println("listening on " + at.getAddress().getHostAddress() + " port " + port + ": " + of.symbol() + ", "
                    + played.count() + " prints, " + (lockstep ? "in step" : "at " + speed + " times"));
            out.flush();
            Thread.ofPlatform().daemon().name("wishes").start(() -> wishes(standIn));
            standIn.await();
        }
        return 0;
    }
}
