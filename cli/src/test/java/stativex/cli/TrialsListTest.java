package stativex.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static stativex.cli.TapesTest.said;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.evidence.Intervals;
import stativex.files.SessionFile;
import stativex.files.TrialFolder;
import stativex.order.Terms;
import stativex.trial.Run;

/** The list of kept trials: its database says what the folders say, whatever happens to either. */
public class TrialsListTest {
    private Path folder;
    private TrialFolder trials;

    @BeforeMethod
    public void kept() throws IOException {
        folder = Files.createTempDirectory("trials");
        trials = new TrialFolder(folder);
        SessionFile.Set all = Demo.documents();
        for (int i = 0; i < 3; i++) {
            SessionFile.Set one = new SessionFile.Set(all.contract(), all.account(),
                    List.of(all.strategies().get(i % 2)));
            trials.keep(Run.trial(one.inputs(Demo.tape(all.contract().value()), Terms.DEFAULT)), one, Demo.TAPE,
                    new Intervals.Settings(5, 20, 1), "not sealed");
        }
    }

    private Path index() {
        return folder.resolve("index.sqlite");
    }

    private List<Integer> numbers() {
        return trials.list().stream().map(TrialFolder.Kept::number).toList();
    }

    private void base(String statement) throws SQLException {
        try (Connection base = DriverManager.getConnection("jdbc:sqlite:" + index());
                Statement act = base
                        .createStatement()) {
            act.execute(statement);
        }
    }

    @Test
    public void theIndexIsReadAndNotTheFolders() throws SQLException {
        List<TrialFolder.Kept> first = trials.list();
        assertEquals(first.stream().map(TrialFolder.Kept::number).toList(), List.of(3, 2, 1));
        assertEquals(trials.list(), first, "the same from the database");
        base("UPDATE trials SET trades = 777 WHERE folder = '0002'");
        assertEquals(trials.list().get(1).trades(), 777, "untouched folders are not read again");
    }

    @Test
    public void whatWasTouchedIsReadAnew() throws IOException, SQLException {
        List<TrialFolder.Kept> first = trials.list();
        base("UPDATE trials SET trades = 777");
        Path summary = folder.resolve("0002/summary.json");
        Files.writeString(summary, Files.readString(summary) + "\n");
        assertEquals(trials.list().get(1), first.get(1));
        assertEquals(trials.list().get(0).trades(), 777);
        // one that was cut off is no trial, and is one again when it is whole
        Path document = folder.resolve("0003/trial.session");
        byte[] whole = Files.readAllBytes(document);
        Files.write(document, java.util.Arrays.copyOf(whole, whole.length / 2));
        assertEquals(numbers(), List.of(2, 1));
        Files.write(document, whole);
        assertEquals(numbers(), List.of(3, 2, 1));
        try (Stream<Path> files = Files.walk(folder.resolve("0001"))) {
            files.sorted(java.util.Comparator.reverseOrder()).forEach(file -> file.toFile().delete());
        }
        assertEquals(numbers(), List.of(3, 2));
    }

    @Test
    public void anIndexThatIsLostOrSpoiltIsMadeAgain() throws IOException, SQLException {
        List<TrialFolder.Kept> first = trials.list();
        Files.delete(index());
        assertEquals(trials.list(), first);
        Files.writeString(index(), "no database at all, but long enough to be taken for one".repeat(100));
        assertEquals(trials.list(), first);
        assertEquals(trials.list(), first, "and it is one again");
        base("PRAGMA user_version = 99");
        base("ALTER TABLE trials RENAME COLUMN net TO other");
        assertEquals(trials.list(), first, "of another make");
        Files.delete(index());
        Files.createDirectory(index());
        Files.createFile(index().resolve("in the way"));
        assertEquals(trials.list(), first, "without any index the folders are read");
        Files.delete(index().resolve("in the way"));
    }

    @Test
    public void theCommandListsThem() {
        String words = said(0, "trials", "--in", folder.toString());
        assertEquals(words.lines().map(line -> line.substring(0, line.indexOf(','))).toList(),
                trials.list().stream().map(one -> one.number() + ": " + one.strategy()).toList(), words);
        String name = trials.list().getFirst().strategy();
        assertEquals(said(0, "trials", "--in", folder.toString(), "--strategy", name).lines().count(), 2);
        assertTrue(said(0, "trials", "--in", folder.toString(), "--contract", "NONE").contains("No such trial"));
    }
}
