package stativex.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static stativex.cli.TapesTest.said;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.evidence.ForwardGate;
import stativex.evidence.Intervals;
import stativex.files.BadInput;
import stativex.files.ForwardDays;
import stativex.files.SessionFile;
import stativex.files.TrialFolder;
import stativex.market.Side;
import stativex.order.Terms;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** The forward gate over recorded sessions of the demo's five days: only whole days of the very version count. */
public class GateTest {
    private Path folder;
    private SessionFile.Set documents;
    private Inputs inputs;
    private Path trial;

    @BeforeClass
    public void kept() throws IOException {
        folder = Files.createTempDirectory("gate");
        SessionFile.Set all = Demo.documents();
        documents = new SessionFile.Set(all.contract(), all.account(), List.of(all.strategies().getFirst()));
        inputs = documents.inputs(Demo.tape(all.contract().value()), Terms.DEFAULT);
        trial = new TrialFolder(folder.resolve("trials"))
                .keep(Run.trial(inputs), documents, Demo.TAPE, Intervals.Settings.DEFAULT, "not sealed").document();
    }

    private Path session(String name, Map<Integer, Command> commands, int end) {
        Path file = folder.resolve(name + ".session.jsonl");
        try (SessionFile.Recorder recorder = new SessionFile.Recorder(file, Demo.TAPE, documents, inputs)) {
            commands.forEach(recorder::command);
            recorder.end(end);
        }
        return file;
    }

    private static List<LocalDate> days(int... september) {
        return java.util.Arrays.stream(september).mapToObj(day -> LocalDate.of(2026, 9, day)).toList();
    }

    private ForwardDays.Found found(Path session) {
        return ForwardDays.of(SessionFile.read(session, Demo::tape),
                documents.strategies().getFirst().value().version());
    }

    private int place(int day) {
        long open = inputs.contract().calendar().sessions(LocalDate.of(2026, 9, day)).getFirst().open();
        return inputs.tape().firstAt(open)
                + (int) java.util.Arrays.stream(inputs.heartbeats()).filter(beat -> beat < open).count();
    }

    @Test
    public void onlyWholeDaysCount() {
        int all = inputs.tape().count() + inputs.heartbeats().length;
        ForwardDays.Found whole = found(trial);
        assertEquals(whole.days().stream().map(ForwardGate.Day::date).toList(), days(18, 21, 22, 23));
        assertEquals(whole.left(), days(24), "the tape ends before its close: nobody knows that it was whole");
        assertEquals(whole.days().stream().map(ForwardGate.Day::nets).toList(),
                ForwardGate.days(SessionFile.read(trial, Demo::tape).run()).subList(0, 4),
                "day by day as the band has them");
        assertEquals(whole.days().stream().mapToInt(day -> day.nets().size()).sum(), 5);
        // engaged in the middle of the second day, one side off in the fourth, ended before the fifth was over
        Command on = new Command.SetMode(0, Mode.ENGAGED);
        Map<Integer, Command> commands = new java.util.TreeMap<>(Map.of(place(21) + 1000, on, place(23) + 500,
                new Command.SetSide(0, Side.SHORT, false), place(23) + 600, new Command.SetSide(0, Side.SHORT, true)));
        ForwardDays.Found part = found(session("part", commands, all - 5000));
        assertEquals(part.days().stream().map(ForwardGate.Day::date).toList(), days(22));
        assertEquals(part.left(), days(18, 21, 23, 24));
        // a side that stays off, or one entry only, is another strategy
        assertEquals(found(session("side", new java.util.TreeMap<>(Map.of(0, on, 1,
                new Command.SetSide(0, Side.SHORT, false))), all)).days(), List.of());
        assertEquals(
                found(session("once", new java.util.TreeMap<>(Map.of(0, on, 1, new Command.SetOnce(0, true))), all))
                        .days(),
                List.of());
        assertEquals(found(session("watching", Map.of(0, new Command.SetMode(0, Mode.WATCHING)), all)).days(),
                List.of());
        try {
            ForwardDays.of(SessionFile.read(trial, Demo::tape), "ffffffff");
            throw new AssertionError("another version");
        } catch (BadInput e) {
            assertTrue(e.getMessage().contains("expected a session with version ffffffff, found Ebb fade "),
                    e.getMessage());
        }
    }

    @Test
    public void theCommandSaysWhatCounts() {
        String words = said(0, "gate", "--trial", trial.toString(), "--session", trial.toString());
        assertTrue(words.contains("Ebb fade") && words.contains("against its trial of 2026-09-18 to 2026-09-24"),
                words);
        assertTrue(words.contains("not yet after 4 days, judged next at the close of day 10"), words);
        assertTrue(words.contains("a rehearsal"), words);
        assertTrue(said(1, "gate", "--trial", trial.toString(), "--session", trial.toString(), "--session",
                trial.toString()).contains("expected each day once, found 2026-09-18 again"));
    }
}
