package stativex.link;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import org.testng.annotations.Test;
import stativex.account.LockReason;
import stativex.demo.Demo;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.files.BadInput;
import stativex.files.ResultRows;
import stativex.files.SessionFile;
import stativex.files.SessionRecord;
import stativex.market.TapeTime;
import stativex.order.Terms;
import stativex.trial.Inputs;
import stativex.trial.Run;

/** A replay at any speed is a trial: the same fills, byte for byte. */
public class ReplayTest {
    private final SessionFile.Set documents = Demo.documents();
    private final Inputs inputs = documents.inputs(Demo.tape(documents.contract().value()), Terms.DEFAULT);

    private Replay replay() {
        return new Replay(new Run(inputs), Optional.empty());
    }

    private static void engage(Replay replay) {
        replay.command(new Command.SetMode(0, Mode.ENGAGED));
        replay.command(new Command.SetMode(1, Mode.ENGAGED));
    }

    private static List<List<List<String>>> results(Run run) {
        return List.of(ResultRows.fills(run), ResultRows.trades(run), ResultRows.decisions(run));
    }

    private static void untilEnd(Replay replay) throws InterruptedException {
        while (!replay.latest().atEnd() && replay.latest().problem().isEmpty()) {
            java.util.concurrent.TimeUnit.MILLISECONDS.sleep(2);
        }
    }

    @Test
    public void atAnySpeedItEqualsTheTrial() throws InterruptedException {
        var trial = results(Run.trial(inputs));
        assertTrue(trial.getFirst().size() > 20);
        for (double speed : new double[]{Replay.AS_FAST_AS_POSSIBLE, 400_000}) {
            Replay replay = replay().start();
            engage(replay);
            replay.await();
            replay.speed(speed);
            replay.play();
            untilEnd(replay);
            assertEquals(results(replay.end()), trial, "speed " + speed);
        }
    }

    @Test
    public void pauseStepAndJumpStopWhereTheySay() throws InterruptedException {
        Replay replay = replay().start();
        assertEquals(replay.latest().worked(), 0);
        assertFalse(replay.latest().playing());
        replay.step();
        replay.step();
        replay.await();
        assertEquals(replay.latest().worked(), 2);
        long time = Demo.begin(documents.contract().value());
        replay.jumpTo(time);
        replay.await();
        Replay.View view = replay.latest();
        assertEquals(view.worked(), inputs.tape().firstAt(time + 1) + heartbeatsUntil(time));
        assertEquals(view.clock(), time);
        assertTrue(view.jumpTo().isEmpty());
        replay.close();
    }

    @Test
    public void noJumpIsLostWhileACommandIsBeingRecorded() throws Exception {
        Path file = Files.createTempDirectory("session").resolve("day.session.jsonl");
        Replay replay = new Replay(new Run(inputs),
                Optional.of(new SessionFile.Recorder(file, Demo.TAPE, documents, inputs))).start();
        long time = inputs.tape().time(0);
        for (int i = 0; i < 300; i++) {
            time += 1_000_000_000L;
            // recording forces the disk, so the jump comes while the command is under way
            replay.command(new Command.SetOnce(0, i % 2 == 0));
            replay.jumpTo(time);
            replay.await();
            assertEquals(replay.latest().clock(), time, "jump " + i);
        }
        replay.close();
    }

    @Test
    public void playingLeavesPausesOut() throws InterruptedException {
        Replay replay = replay().start();
        long close = inputs.heartbeats()[0];
        replay.jumpTo(close - 1_000_000_000L);
        replay.await();
        int before = replay.latest().worked();
        replay.speed(20);
        replay.play();
        long begun = System.nanoTime();
        // the pause is half an hour: at ×20 a minute and a half
        while (replay.latest().clock() < close + 1_800_000_000_000L && System.nanoTime() - begun < 30_000_000_000L) {
            java.util.concurrent.TimeUnit.MILLISECONDS.sleep(5);
        }
        assertTrue(replay.latest().clock() >= close + 1_790_000_000_000L, "the clock stands just before the open");
        assertTrue(replay.latest().worked() >= before);
        replay.close();
    }

    private long heartbeatsUntil(long time) {
        return java.util.Arrays.stream(inputs.heartbeats()).filter(beat -> beat <= time).count();
    }

    @Test
    public void arecordedReplayGivesTheSameFillsAgain() throws Exception {
        Path file = Files.createTempDirectory("session").resolve("day.session.jsonl");
        Replay replay = new Replay(new Run(inputs),
                Optional.of(new SessionFile.Recorder(file, Demo.TAPE, documents, inputs))).start();
        replay.jumpTo(Demo.begin(documents.contract().value()));
        replay.await();
        engage(replay);
        replay.speed(20_000);
        replay.play();
        // commands at places that no two runs share: what counts is that the file knows them
        for (int i = 0; i < 6; i++) {
            java.util.concurrent.TimeUnit.MILLISECONDS.sleep(60);
            replay.command(i % 2 == 0 ? new Command.HalfOff(0) : new Command.Breakeven(0));
        }
        replay.jumpTo(TapeTime.NEVER - 1);
        replay.await();
        Run first = replay.end();
        var session = SessionFile.read(file, Demo::tape);
        assertEquals(session.commands().size(), 8);
        assertEquals(results(session.run()), results(first));
    }

    /** Killed after the day was locked, it is locked when it goes on; strategies are off, and nothing enters. */
    @Test
    public void aKilledReplayGoesOnWithItsLocks() throws Exception {
        Path file = Files.createTempDirectory("session").resolve("day.session.jsonl");
        Replay replay = new Replay(new Run(inputs),
                Optional.of(new SessionFile.Recorder(file, Demo.TAPE, documents, inputs))).start();
        replay.jumpTo(Demo.begin(documents.contract().value()));
        replay.await();
        engage(replay);
        replay.jumpTo(TapeTime.first(Demo.DAY.atTime(15, 0), documents.contract().value().calendar().zone()));
        replay.await();
        assertTrue(replay.latest().snapshot().account().lock().isPresent(), "the day is locked by now");
        // what the disk has at this moment is all that a kill leaves
        Path killed = Files.copy(file, file.resolveSibling("killed.session.jsonl"));
        replay.end();
        SessionFile.Session session = SessionFile.read(killed, Demo::tape);
        assertTrue(session.end().isEmpty(), "nobody wrote an end");
        assertTrue(session.unfinished());
        Run again = session.resumed();
        assertEquals(again.engine().accountState().lock(), Optional.of(LockReason.DAY_LOSS));
        again.command(new Command.SetMode(0, Mode.OFF));
        int trades = again.engine().log().trades().size();
        again.toPlace(again.length());
        assertEquals(again.engine().log().trades().size(), trades);
        // a session that names a place it cannot have come to is refused
        Files.writeString(killed, Files.readString(killed) + "{\"reached\":5}\n");
        assertThrows(BadInput.class, () -> SessionFile.read(killed, Demo::tape));
    }

    @Test
    public void aReplayThatFailsSaysSoAndKeepsItsResults() throws Exception {
        Path file = Files.createTempDirectory("session").resolve("day.session.jsonl");
        SessionFile.Recorder recorder = new SessionFile.Recorder(file, Demo.TAPE, documents, inputs);
        recorder.close(); // as a disk that is gone would
        Replay replay = new Replay(new Run(inputs), Optional.of(recorder)).start();
        replay.command(new Command.SetMode(0, Mode.ENGAGED));
        replay.await();
        Replay.View view = replay.latest();
        assertTrue(view.problem().orElse("").contains("cannot be written"), view.toString());
        assertEquals(view.snapshot().strategies().getFirst().mode(), Mode.OFF, "what is not recorded does not act");
    }

    /** A disk may take its time: whoever pauses or looks does not wait for it. */
    @Test
    public void nobodyWaitsWhileACommandIsForcedToDisk() throws Exception {
        CountDownLatch writing = new CountDownLatch(1);
        CountDownLatch written = new CountDownLatch(1);
        Replay replay = new Replay(new Run(inputs), Optional.of(new SessionRecord() {
            @Override
            public void command(int place, Command command) {
                writing.countDown();
                try {
                    written.await();
                } catch (InterruptedException e) {
                    throw new IllegalStateException(e);
                }
            }

            @Override
            public void reached(int place) {
                // nobody asks
            }

            @Override
            public void end(int place) {
                // nothing is kept
            }

            @Override
            public void close() {
                // nothing is open
            }
        })).start();
        replay.command(new Command.SetMode(0, Mode.ENGAGED));
        writing.await();
        // these take the replay's lock: were it held while the disk is busy, this test would not end
        replay.play();
        replay.pause();
        replay.speed(3);
        assertEquals(replay.latest().snapshot().strategies().getFirst().mode(), Mode.OFF, "not before it is recorded");
        written.countDown();
        replay.await();
        assertEquals(replay.latest().snapshot().strategies().getFirst().mode(), Mode.ENGAGED);
        replay.close();
    }
}
