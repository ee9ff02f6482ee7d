package stativex.files.tape;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import stativex.engine.SignalPlan;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.Texts;
import stativex.market.BarSettings;
import stativex.market.BarType;
import stativex.market.Contract;
import stativex.market.ContractTape;
import stativex.rule.Blueprint;

/** Which tape stands for a further contract. */
public class FurtherTapesTest {
    private final Contract traded = contract("TDL").value();
    private final AtomicInteger made = new AtomicInteger();
    private TapeStore store;
    private Path home;

    private static Documents.Read<Contract> contract(String symbol) {
        return Documents.contract(Texts.CONTRACT.replace("\"TDL\"", "\"" + symbol + "\""), "contract.json");
    }

    @BeforeMethod
    public void freshStore() throws IOException {
        home = Files.createTempDirectory("further");
        store = new TapeStore(home.resolve("tapes"));
        made.set(0);
    }

    private void keep(String symbol, String name, String... times) throws IOException {
        StringBuilder text = new StringBuilder("time,price,size\n");
        for (String time : times) {
            text.append(time).append(",1284.00,1\n");
        }
        Path file = Files.createTempFile(home, "ticks", ".csv");
        Files.writeString(file, text);
        Documents.Read<Contract> of = contract(symbol);
        try (TapeImport job = TapeImport.read(store, file, of,
                Optional.of(LayoutGuess.of(file, of.value().calendar().zone()).layout()), TapeImport.GAP,
                Progress.NONE)) {
            job.keep(name, false, Set.of());
        }
    }

    private FurtherTapes tapes() {
        return new FurtherTapes(store, List.of(new FurtherTapes.Offer("demo MNH", contract("MNH"), () -> {
            made.incrementAndGet();
            return new stativex.market.TapeBuilder(0).build();
        })));
    }

    private static SignalPlan plan(String... contracts) {
        return new SignalPlan(BarSettings.of(new BarType.Ticks(5)),
                List.of(contracts).stream().map(symbol -> new Blueprint.SeriesDefinition("on" + symbol,
                        BarSettings.of(new BarType.Ticks(9)), Optional.of(symbol))).toList(),
                List.of(), List.of(), List.of(), Optional.empty(), SignalPlan.Evaluate.BAR_CLOSE, Optional.empty());
    }

    @Test
    public void theTapeThatReachesFurthestIsTaken() throws IOException {
        keep("WLF", "WLF 2026-09", "2026-09-20T21:45:00Z", "2026-09-21T21:45:00Z");
        keep("WLF", "WLF 2026-12", "2026-09-20T21:45:00Z", "2026-09-22T01:45:00Z");
        keep("WLF", "WLF old", "2025-09-21T21:45:00Z");
        FurtherTapes tapes = tapes();
        assertEquals(tapes.open("WLF").orElseThrow().reference(), "WLF 2026-12");
        assertEquals(tapes.open("WLF").orElseThrow().symbol(), "WLF");
        assertTrue(tapes.open("SIL").isEmpty());
        assertEquals(tapes.contracts().stream().map(Contract::symbol).toList(), List.of("MNH", "WLF"));
        assertSame(tapes.open("WLF").orElseThrow(), tapes.open("WLF").orElseThrow(), "opened once");
        // one that comes in later is seen when it is looked for anew
        keep("WLF", "WLF 2027-03", "2026-09-22T02:45:00Z");
        assertEquals(tapes.open("WLF").orElseThrow().reference(), "WLF 2026-12");
        tapes.refresh();
        assertEquals(tapes.open("WLF").orElseThrow().reference(), "WLF 2027-03");
    }

    @Test
    public void whatComesWithTheApplicationStandsInAndIsMadeOnce() throws IOException {
        FurtherTapes tapes = tapes();
        assertEquals(made.get(), 0);
        assertEquals(tapes.open("MNH").orElseThrow().reference(), "demo MNH");
        tapes.refresh();
        tapes.open("MNH");
        assertEquals(made.get(), 1);
        keep("MNH", "own honey", "2026-09-20T21:45:00Z");
        tapes.refresh();
        assertEquals(tapes.open("MNH").orElseThrow().reference(), "own honey", "the person's own goes first");
    }

    @Test
    public void aStrategyGetsThoseThatItNamesAndThatAreThere() throws IOException {
        keep("WLF", "wool", "2026-09-20T21:45:00Z");
        Map<String, ContractTape> found = tapes().of(plan("WLF", "SIL", "TDL", "WLF"), traded);
        assertEquals(found.keySet(), Set.of("WLF"), "not the contract that is traded, not one without a tape");
        assertEquals(found.get("WLF").contract().symbol(), "WLF");
        assertEquals(found.get("WLF").tape().count(), 1);
        assertEquals(tapes().of(plan(), traded), Map.of());
    }

    @Test
    public void aTapeIsFoundByItsName() throws IOException {
        keep("WLF", "wool", "2026-09-20T21:45:00Z");
        assertEquals(TapeReference.openFurther(store, "wool", Optional.empty()).symbol(), "WLF");
        Path file = home.resolve("wool.csv");
        Files.writeString(file, "time,price,size\n2026-09-20T21:45:00Z,1284.00,1\n");
        assertEquals(TapeReference.openFurther(store, file.toString(), Optional.of(contract("SIL"))).symbol(), "SIL");
        assertTrue(expectThrows(BadInput.class,
                () -> TapeReference.openFurther(store, file.toString(), Optional.empty())).getMessage()
                .contains("needs a contract"));
        assertTrue(expectThrows(BadInput.class, () -> TapeReference.openFurther(store, "honey", Optional.empty()))
                .getMessage().contains("honey"));
    }
}
