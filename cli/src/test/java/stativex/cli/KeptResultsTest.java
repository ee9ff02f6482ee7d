package stativex.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.CRC32C;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.ResultFiles;
import stativex.files.SessionFile;
import stativex.order.Terms;
import stativex.trial.Run;

/**
 * What trials gave when somebody last meant to change it: every fill, trade, decision and summary of the demo and of many
 * random trials, as a checksum each. Work on the engine that is not meant to change a result leaves all of them as they are;
 * a deliberate change writes them anew ({@code -Dstativex.results=FOLDER} keeps the files there, to be compared with those of
 * the version before, and the checksums as {@code results.txt}).
 */
public class KeptResultsTest {
    private static final int TRIALS = 600;
    /** So many of them are made once more in bar mode. */
    private static final int IN_BAR_MODE = 200;
    private static final List<String> FILES = List.of("fills.csv", "trades.csv", "decisions.csv", "days.csv",
            "summary.json");

    @Test
    public void everyResultIsAsItWas() throws IOException {
        String kept = System.getProperty("stativex.results", "");
        Path folder = kept.isEmpty() ? Files.createTempDirectory("results") : Path.of(kept);
        List<String> found = new ArrayList<>();
        int trades = 0;
        for (int seed = 1; seed <= TRIALS; seed++) {
            Path place = folder.resolve("random-" + seed);
            RandomTrial random = new RandomTrial(seed);
            trades += random.run(place).engine().log().trades().size();
            found.add("random-" + seed + " " + digest(place));
            if (seed <= IN_BAR_MODE) {
                Path bars = folder.resolve("bars-" + seed);
                found.add("bars-" + seed + " " + (random.inBarMode(bars).isPresent() ? digest(bars) : "refused"));
            }
        }
        found.add("demo " + digest(demo(folder.resolve("demo"), 1, false)));
        found.add("demo-engaged-later " + digest(demo(folder.resolve("demo-engaged-later"), 0, true)));
        Files.write(folder.resolve("results.txt"), found);
        assertTrue(trades > 10 * TRIALS, "trials that trade: " + trades);
        try (InputStream in = KeptResultsTest.class.getResourceAsStream("results.txt")) {
            assertEquals(found, new String(in.readAllBytes(), StandardCharsets.UTF_8).lines().toList());
        }
    }

    private static Path demo(Path folder, int mostStrategies, boolean later) {
        SessionFile.Set documents = Demo.documents();
        Run run = new Run(documents.inputs(Demo.tape(documents.contract().value()), Terms.DEFAULT));
        if (later) {
            run.toTime(Demo.begin(documents.contract().value()), Integer.MAX_VALUE);
        }
        for (int i = 0; i <= mostStrategies; i++) {
            run.command(new Command.SetMode(i, Mode.ENGAGED));
        }
        run.toPlace(run.length());
        run.finish();
        ResultFiles.write(folder, run);
        return folder;
    }

    /** Over the files as they were written, without the version of the engine and of its zone data. */
    private static String digest(Path folder) throws IOException {
        CRC32C sum = new CRC32C();
        for (String file : FILES) {
            for (String line : Files.readString(folder.resolve(file)).lines().toList()) {
                if (!line.contains("\"engine\"")) {
                    sum.update((line + "\n").getBytes(StandardCharsets.UTF_8));
                }
            }
        }
        return String.format("%08x", sum.getValue());
    }
}
