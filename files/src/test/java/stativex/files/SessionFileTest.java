package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.Test;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.tape.FurtherTape;
import stativex.files.tape.TickCsv;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.order.Terms;
import stativex.trial.Inputs;
import stativex.trial.Run;

public class SessionFileTest {
    private static final String[] PRICES = {"1284.00", "1284.25", "1284.50", "1284.75", "1285.00", "1285.50", "1285.25",
            "1286.00", "1286.25", "1286.50"};

    private static Run record(Path folder, Path session) {
        SessionFile.Set documents = Texts.documents(folder);
        Path ticks = folder.resolve("ticks.csv");
        Inputs inputs = documents.inputs(TickCsv.read(ticks, documents.contract().value()), Terms.DEFAULT);
        Run run = new Run(inputs);
        try (SessionFile.Recorder recorder = new SessionFile.Recorder(session, ticks.toString(), documents, inputs)) {
            place(run, recorder, 0, new Command.SetMode(0, Mode.ENGAGED));
            place(run, recorder, 0, new Command.SetOnce(0, false));
            place(run, recorder, 5, new Command.SetSide(0, Side.LONG, false));
            place(run, recorder, 6, new Command.Breakeven(0));
            place(run, recorder, 6, new Command.HalfOff(0));
            place(run, recorder, 8, new Command.Flatten(0));
            place(run, recorder, 9, new Command.FlatAndLock());
            run.toPlace(run.length());
            recorder.end(run.place());
        }
        run.finish();
        return run;
    }

    private static void place(Run run, SessionFile.Recorder recorder, int place, Command command) {
        run.toPlace(place);
        recorder.command(run.place(), command);
        run.command(command);
    }

    @Test
    public void aSessionGivesTheSameFillsAgain() {
        Path folder = Texts.folder(PRICES);
        Path session = folder.resolve("session.jsonl");
        Run first = record(folder, session);
        Run again = SessionFile.read(session, (name, contract) -> TickCsv.read(Path.of(name), contract)).run();
        assertTrue(ResultRows.fills(first).size() > 3, ResultRows.fills(first).toString());
        assertEquals(ResultRows.fills(again), ResultRows.fills(first));
        assertEquals(ResultRows.trades(again), ResultRows.trades(first));
        assertEquals(ResultRows.decisions(again), ResultRows.decisions(first));
    }

    @Test
    public void aSessionThatLooksAtAnotherContractRemembersItsTape() throws IOException {
        Path folder = Texts.folder(PRICES);
        Files.writeString(folder.resolve("strategy.json"), Texts.STRATEGY
                .replace("\"studies\"", "\"series\": [{\"name\": \"wool\", \"contract\": \"WLF\", \"bars\": \"tick\","
                        + " \"size\": 1}], \"studies\"")
                .replace("close > open", "wool.close > 12.50"));
        Path wool = folder.resolve("wool.csv");
        Files.writeString(wool,
                "time,price,size\n2026-09-20T20:30:01Z,12.00,1\n2026-09-20T21:45:02Z,12.50,1\n2026-09-20T21:45:05Z,13.00,1\n");
        SessionFile.Set alone = Texts.documents(folder);
        Documents.Read<Contract> contract = Documents.contract(Json.parse(Texts.CONTRACT.replace("TDL", "WLF")
                .replace("\"0.25\"", "\"0.5\""), "wool"), "wool");
        SessionFile.Set documents = new SessionFile.Set(alone.contract(), alone.account(), alone.strategies(),
                List.of(new FurtherTape(wool.toString(), contract, TickCsv.read(wool, contract.value()))));
        Path ticks = folder.resolve("ticks.csv");
        Inputs inputs = documents.inputs(TickCsv.read(ticks, documents.contract().value()), Terms.DEFAULT);
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> new Run(alone.inputs(inputs.tape(), Terms.DEFAULT))).getMessage().contains("no tape of WLF"));
        Path session = folder.resolve("session.jsonl");
        Run run = new Run(inputs);
        try (SessionFile.Recorder recorder = new SessionFile.Recorder(session, ticks.toString(), documents, inputs)) {
            place(run, recorder, 0, new Command.SetMode(0, Mode.ENGAGED));
            run.toPlace(run.length());
        }
        run.finish();
        Run again = SessionFile.read(session, (name, of) -> TickCsv.read(Path.of(name), of)).run();
        assertEquals(ResultRows.fills(again), ResultRows.fills(run));
        // the print of :05 is known at the bar that closes at :06, whose order meets the print of :07
        assertTrue(ResultRows.fills(run).get(1).getFirst().equals("2026-09-20T21:45:07Z"),
                ResultRows.fills(run).toString());
        Files.writeString(wool, Files.readString(wool).replace("13.00", "13.50"));
        assertTrue(expectThrows(BadInput.class,
                () -> SessionFile.read(session, (name, of) -> TickCsv.read(Path.of(name), of))).getMessage()
                .contains("expected the tape \"" + wool));
    }

    @Test
    public void aTornLastLineIsLeftOutAndNothingElse() throws IOException {
        Path folder = Texts.folder(PRICES);
        Path session = folder.resolve("session.jsonl");
        record(folder, session);
        String text = Files.readString(session);
        Files.writeString(session, text.substring(0, text.length() - 5));
        var read = SessionFile.read(session, (name, contract) -> TickCsv.read(Path.of(name), contract));
        assertEquals(read.commands().size(), 7);
        assertTrue(read.end().isEmpty(), "the end was torn off");
    }

    @Test
    public void anotherTapeIsRefused() throws IOException {
        Path folder = Texts.folder(PRICES);
        Path session = folder.resolve("session.jsonl");
        record(folder, session);
        Path ticks = folder.resolve("ticks.csv");
        Files.writeString(ticks, Files.readString(ticks).replace("1286.00", "1286.25"));
        BadInput problem = expectThrows(BadInput.class,
                () -> SessionFile.read(session, (name, contract) -> TickCsv.read(Path.of(name), contract)));
        assertTrue(problem.getMessage().contains("line 1: expected the tape"), problem.getMessage());
    }

    @Test
    public void damageIsSaidWithItsLine() throws IOException {
        Path folder = Texts.folder(PRICES);
        Path session = folder.resolve("session.jsonl");
        record(folder, session);
        List<String> lines = Files.readAllLines(session);
        for (String[] damage : new String[][]{{"\"mode\"", "\"moed\"", "line 2"},
                {"{\"place\":0", "{\"place\":x", "line 2"},
                {"\"through\"", "\"beyond\"", "line 1"}, {"\"heartbeats\":[", "\"heartbeats\":[\"noon\",", "line 1"},
                {"\"checksum\"", "\"chksum\"", "line 1"}}) {
            Files.writeString(session, String.join("\n", lines).replace(damage[0], damage[1]) + "\n");
            BadInput problem = expectThrows(BadInput.class,
                    () -> SessionFile.read(session, (name, contract) -> TickCsv.read(Path.of(name), contract)));
            assertTrue(problem.getMessage().contains(damage[2]), damage[1] + ": " + problem.getMessage());
        }
    }

    @Test
    public void aFlippedBitIsFoundAndSessionsOfBeforeAreRead() throws IOException {
        Path folder = Texts.folder(PRICES);
        Path session = folder.resolve("session.jsonl");
        Run first = record(folder, session);
        List<String> lines = Files.readAllLines(session);
        assertTrue(lines.stream().allMatch(line -> line.matches("[0-9]+ [0-9a-f]{8} \\{.*")), lines.toString());
        String flipped = lines.get(3).replace("\"off\"", "\"on\"");
        Files.writeString(session, String.join("\n", lines).replace(lines.get(3), flipped) + "\n");
        BadInput problem = expectThrows(BadInput.class,
                () -> SessionFile.read(session, (name, contract) -> TickCsv.read(Path.of(name), contract)));
        assertTrue(problem.getMessage().contains("line 4: expected ") && problem.getMessage().contains("damaged"),
                problem.getMessage());
        Files.writeString(session, String.join("\n", lines.stream().map(line -> line.split(" ", 3)[2]).toList())
                .replace("\"version\":2,\"engine\"", "\"version\":1,\"engine\"") + "\n");
        Run again = SessionFile.read(session, (name, contract) -> TickCsv.read(Path.of(name), contract)).run();
        assertEquals(ResultRows.fills(again), ResultRows.fills(first), "version 1 has JSON alone");
    }

    @Test
    public void whatIsWrittenInPartsIsCompleted() throws IOException {
        java.io.ByteArrayOutputStream disk = new java.io.ByteArrayOutputStream();
        java.nio.ByteBuffer entry = java.nio.ByteBuffer.wrap("12 0a1b2c3d {}\n".getBytes(
                java.nio.charset.StandardCharsets.US_ASCII));
        InputJournal.writeAll(buffer -> {
            disk.write(buffer.get());
            return 1;
        }, entry);
        assertEquals(disk.toString(java.nio.charset.StandardCharsets.US_ASCII), "12 0a1b2c3d {}\n");
    }

    @Test
    public void resultsHaveHeadersEvenWithoutASignal() throws IOException {
        Path folder = Texts.folder("1284.00", "1284.00", "1284.00");
        SessionFile.Set documents = Texts.documents(folder);
        Run run = Run.trial(documents.inputs(
                TickCsv.read(folder.resolve("ticks.csv"), documents.contract().value()), Terms.DEFAULT));
        ResultFiles.write(folder.resolve("out"), run,
                new ResultFiles.Extras(true, java.util.Optional.of(stativex.evidence.Intervals.Settings.DEFAULT)));
        assertEquals(Files.readString(folder.resolve("out/fills.csv")),
                "time,strategy,order,side,quantity,price,fee,reason\r\n");
        assertEquals(Files.readString(folder.resolve("out/trades.csv")),
                "entry_time,exit_time,strategy,side,quantity,entry_price,exit_price,gross,fees,net,mae_ticks,mfe_ticks,"
                        + "bars,exit_reason,trading_day,contract,window,grade,r\r\n");
        assertEquals(Files.readString(folder.resolve("out/decisions.csv")),
                "time,strategy,side,decision,reason,price\r\n");
        String summary = Files.readString(folder.resolve("out/summary.json"));
        assertTrue(summary.contains("\"trades\" : 0") && !summary.contains("winRate"), summary);
        for (String part : List.of("mode", "realism", "latencySeconds", "slippageTicks", "feePerSide", "from",
                "version",
                "exitPlanVersion", "engine", "ordersLargerThanTheirPrint", "printsOutsideSessions", "evaluatedFrom")) {
            assertTrue(summary.contains("\"" + part + "\""), "every result carries " + part);
        }
    }
}
