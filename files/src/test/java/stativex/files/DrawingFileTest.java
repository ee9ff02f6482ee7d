package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.testng.annotations.Test;
import stativex.market.Contract;
import stativex.market.Drawing;

public class DrawingFileTest {
    private final Contract contract = Documents.contract(Texts.CONTRACT, "contract.json").value();

    @Test
    public void drawingsComeBack() throws IOException {
        Path folder = Files.createTempDirectory("drawings");
        DrawingFile file = new DrawingFile(folder, contract);
        assertEquals(file.read(), List.of());
        List<Drawing> drawn = List.of(new Drawing.Level("shelf", 5137), new Drawing.Slope("lid", 1_000_000_001L, -3,
                9_000_000_000L, 0), new Drawing.Marker("turn, \"late\"", 1_789_940_700_000_000_000L, 5200));
        file.write(drawn);
        assertEquals(new DrawingFile(folder, contract).read(), drawn);
        assertTrue(Files.readString(folder.resolve("TDL.drawings.json")).contains("\"1284.25\""),
                "prices as the trade says them");
    }

    @Test
    public void aBrokenFileSaysWhatIsWrong() throws IOException {
        Path folder = Files.createTempDirectory("drawings");
        Path file = folder.resolve("TDL.drawings.json");
        for (String[] broken : new String[][]{
                {"{\"drawings\": [{\"kind\": \"circle\", \"name\": \"x\"}]}", "found circle"},
                {"{\"drawings\": [{\"kind\": \"level\", \"name\": \"x\", \"price\": \"1284.30\"}]}", "tick grid"},
                {"{\"drawings\": [{\"kind\": \"marker\", \"name\": \"x\", \"price\": \"1\", \"time\": \"soon\"}]}",
                        "soon"},
                {"{\"drawings\": [{\"kind\": \"level\", \"name\": \"x\", \"price\": \"1\"}, {\"kind\": \"level\","
                        + " \"name\": \"x\", \"price\": \"2\"}]}",
                        "stands twice, in $.drawings[0] and $.drawings[1]"},
                {"{\"drawings\": [{\"kind\": \"level\"}]}", "name"}, {"{", "expected JSON"}}) {
            Files.writeString(file, broken[0]);
            BadInput problem = expectThrows(BadInput.class, () -> new DrawingFile(folder, contract).read());
            assertTrue(problem.getMessage().contains(broken[1]) && problem.getMessage().contains("TDL.drawings.json"),
                    problem.getMessage());
        }
    }
}
