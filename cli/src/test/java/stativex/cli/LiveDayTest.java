package stativex.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static stativex.cli.TapesTest.said;

import java.io.File;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.files.tape.TickCsv;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeBuilder;

/** Live days of real processes over loopback: the stand-in exchange in one, the strategies in another, which is killed again and again. */
public class LiveDayTest {
    private static final String OFTEN = """
            {"document":"strategy","version":1,"name":"often","contract":"TDL","signal":{"bars":"tick","size":20},
             "studies":[{"name":"drift","study":"ema","of":"close","length":9}],
             "long":{"rule":"close rises through drift","price":"close + 2 ticks"},
             "short":{"rule":"close falls through drift","price":"close - 2 ticks"},
             "entry":{"order":"stop","quantity":2,"goodFor":"until cancelled"},
             "exit":{"document":"exit plan","version":1,"name":"steps","stop":{"ticks":24},
                     "targets":[{"quantity":1,"ticks":14},{"quantity":1,"ticks":36}],
                     "breakeven":{"afterTicks":12,"offsetTicks":1},
                     "trail":[{"activateTicks":16,"distanceTicks":12,"stepTicks":4}]}}
            """;

    private final List<Process> started = new ArrayList<>();
    private Path folder;
    private int port;

    @BeforeMethod
    public void files() throws IOException {
        folder = Files.createTempDirectory("live");
        Contract contract = Demo.documents().contract().value();
        Tape whole = Demo.tape(contract);
        TapeBuilder thin = new TapeBuilder(16);
        for (int print = 0; print < whole.count(); print += 160) {
            thin.add(whole.time(print), whole.price(print), whole.size(print), whole.bid(print), whole.ask(print));
        }
        Demo.export(folder);
        TickCsv.write(folder.resolve("thin.ticks.csv"), thin.build(), contract);
        Files.writeString(folder.resolve("often.strategy.json"), OFTEN);
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = socket.getLocalPort();
        }
    }

    @AfterMethod(alwaysRun = true)
    public void end() {
        started.forEach(Process::destroyForcibly);
        started.clear();
    }

    private String file(String name) {
        return folder.resolve(name).toString();
    }

    private Process start(String name, String... arguments) throws IOException {
        List<String> command = new ArrayList<>(List.of(ProcessHandle.current().info().command().orElseThrow(),
                "--enable-native-access=ALL-UNNAMED"));
        // processes that live for seconds
        command.addAll(List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC"));
        command.addAll(List.of("-cp", String.join(File.pathSeparator, System.getProperty("jdk.module.path", ""),
                System.getProperty("java.class.path")), "stativex.cli.Main"));
        command.addAll(List.of(arguments));
        Process process = new ProcessBuilder(command).redirectErrorStream(true)
                .redirectOutput(folder.resolve(name + ".log").toFile()).start();
        started.add(process);
        return process;
    }

    private void exchange() throws Exception {
        start("exchange", "exchange", "--tape", file("thin.ticks.csv"), "--contract", file("tdl.contract.json"),
                "--port", Integer.toString(port), "--lockstep");
        until("exchange", "listening on");
    }

    private Process run() throws IOException {
        return start("run", "run", "--link", "127.0.0.1:" + port, "--contract", file("tdl.contract.json"), "--account",
                file("gannet-row-40k.account.json"), "--strategy", file("often.strategy.json"), "--engage",
                "--lockstep", "--journal", file("day.journal"), "--out", file("day"));
    }

    /** Waits for a line in what a process says. */
    private void until(String name, String words) throws Exception {
        for (int i = 0; i < 1200; i++) {
            if (Files.exists(folder.resolve(name + ".log"))
                    && Files.readString(folder.resolve(name + ".log")).contains(words)) {
                return;
            }
            TimeUnit.MILLISECONDS.sleep(25);
        }
        throw new AssertionError(name + ": " + Files.readString(folder.resolve(name + ".log")));
    }

    private void ends(Process process) throws Exception {
        assertTrue(process.waitFor(120, TimeUnit.SECONDS), "it ends");
        assertEquals(process.exitValue(), 0, Files.readString(folder.resolve("run.log")));
    }

    private String rows(String name) throws IOException {
        return Files.readString(folder.resolve(name));
    }

    @Test(timeOut = 180_000)
    public void aDayInStepHasTheFillsOfTheTrialOfWhatWasReceived() throws Exception {
        exchange();
        ends(run());
        assertEquals(rows("day/received.ticks.csv"), rows("thin.ticks.csv"));
        said(0, "trial", "--tape", file("day/received.ticks.csv"), "--contract", file("tdl.contract.json"),
                "--account", file("gannet-row-40k.account.json"), "--strategy", file("often.strategy.json"), "--out",
                file("trial"));
        for (String result : List.of("fills.csv", "trades.csv", "decisions.csv", "days.csv")) {
            assertEquals(rows("day/" + result), rows("trial/" + result), result);
        }
        assertTrue(rows("day/fills.csv").lines().count() > 12, rows("day/fills.csv"));
        said(0, "trial", "--session", file("day.journal"), "--out", file("again"));
        assertEquals(rows("again/fills.csv"), rows("day/fills.csv"), "the journal alone gives it again");
    }

    @Test(timeOut = 180_000)
    public void aClientThatIsKilledTenTimesLosesNothing() throws Exception {
        exchange();
        SplittableRandom dice = new SplittableRandom(11);
        for (int kill = 0; kill < 10; kill++) {
            Process run = run();
            until("run", "linked to the venue");
            run.waitFor(dice.nextInt(100, 900), TimeUnit.MILLISECONDS);
            run.destroyForcibly().waitFor();
        }
        ends(run());
        assertEquals(rows("day/received.ticks.csv"), rows("thin.ticks.csv"), "no print is lost, none comes twice");
        String words = rows("run.log");
        assertTrue(!words.contains("contradicts") && !words.contains("left out"), words);
        said(0, "trial", "--session", file("day.journal"), "--out", file("again"));
        assertEquals(rows("again/fills.csv"), rows("day/fills.csv"));
        assertTrue(rows("day/fills.csv").lines().count() > 12, rows("day/fills.csv"));
    }
}
