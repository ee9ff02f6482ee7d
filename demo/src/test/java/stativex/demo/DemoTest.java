package stativex.demo;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.Test;
import stativex.files.Documents;
import stativex.files.SessionFile;
import stativex.files.tape.FurtherTapes;
import stativex.files.tape.TickCsv;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.trial.Run;

public class DemoTest {
    private final SessionFile.Set documents = Demo.documents();
    private final Contract contract = documents.contract().value();
    private final Tape tape = Demo.tape(contract);

    @Test
    public void theTapeIsTheSameOnEveryMachine() {
        assertEquals(Long.toHexString(tape.checksum()), "95ad0345");
    }

    @Test
    public void aThinnerContractIsThereToLookAt() {
        FurtherTapes.Offer further = Demo.further();
        Tape honey = further.tape().get();
        assertEquals(Long.toHexString(honey.checksum()), "2720e676");
        assertTrue(honey.count() > 60_000 && honey.count() < tape.count() / 3, honey.count() + " prints");
        assertEquals(Demo.tape(Demo.FURTHER, further.contract().value()).checksum(), honey.checksum());
        assertEquals(Demo.furtherTapes().open("MNH").orElseThrow().reference(), Demo.FURTHER);
        assertTrue(Demo.furtherTapes().open("WLF").isEmpty());
    }

    @Test
    public void fiveTradingDaysOfAboutAHundredThousandTrades() {
        assertTrue(tape.count() > 440_000 && tape.count() < 560_000, tape.count() + " prints");
        Session first = contract.calendar().current(tape.time(0)).orElseThrow();
        assertTrue(tape.time(0) - first.open() < 60_000_000_000L, "its first session is complete");
        long spread = 0;
        for (int i = 0; i < tape.count(); i++) {
            spread = tape.ask(i) - tape.bid(i);
            assertTrue(spread >= 1 && spread <= 3 && tape.price(i) >= tape.bid(i) && tape.price(i) <= tape.ask(i));
            assertTrue(contract.calendar().current(tape.time(i)).orElseThrow().contains(tape.time(i)));
        }
    }

    @Test
    public void theDayTellsTheWholeStory() {
        Run run = DemoStory.run(documents, tape);
        DemoStory story = DemoStory.of(run);
        assertTrue(story.complete(), story.toString());
    }

    @Test
    public void whatIsExportedIsWhatTheDemoUses() throws Exception {
        Path folder = Files.createTempDirectory("demo");
        Demo.export(folder);
        assertEquals(TickCsv.read(folder.resolve("tdl.ticks.csv"), contract).checksum(), tape.checksum());
        assertEquals(TickCsv.read(folder.resolve("mnh.ticks.csv"),
                Documents.contract(folder.resolve("mnh.contract.json")).value()).checksum(),
                Demo.further().tape().get().checksum());
        assertEquals(Documents.account(folder.resolve("gannet-row-40k.account.json")).value(),
                documents.account().value());
        List<String> versions = List.of("ebb-fade", "slack-water").stream()
                .map(name -> Documents.strategy(folder.resolve(name + ".strategy.json")).value().version()).toList();
        assertEquals(versions, documents.strategies().stream().map(s -> s.value().version()).toList());
    }
}
