package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import org.testng.annotations.Test;
import stativex.trial.Days;
import tools.jackson.databind.JsonNode;

/** Attempts and seals: kept for ever, counted once each. */
public class AttemptBookTest {
    private static LocalDate day(int day) {
        return LocalDate.of(2026, 3, day);
    }

    @Test
    public void distinctVariantsOnSharedDatesAreCounted() throws IOException {
        AttemptBook book = new AttemptBook(Files.createTempDirectory("book").resolve("attempts.journal"));
        assertEquals(book.count("TDL", "Ebb", day(1), day(9)), 0);
        book.add("TDL", "Ebb", day(1), day(9), List.of("a", "b"));
        book.add("TDL", "Ebb", day(9), day(12), List.of("b", "c"));
        book.add("TDL", "Other", day(1), day(9), List.of("d"));
        book.add("MTD", "Ebb", day(1), day(9), List.of("e"));
        assertEquals(book.count("TDL", "Ebb", day(1), day(8)), 2);
        assertEquals(book.count("TDL", "Ebb", day(9), day(9)), 3);
        assertEquals(book.count("TDL", "Ebb", day(13), day(20)), 0);
        // conjunctions of rules from examples, and what was tried of the strategy it was copied from
        book.addScored("TDL", "Other", day(3), day(4), 1000);
        assertEquals(book.count("TDL", "Other", day(4), day(4)), 1001);
        book.addCopy("Other", "Ebb");
        book.addCopy("Third", "Other");
        book.addCopy("Ebb", "Third");
        assertEquals(book.count("TDL", "Third", day(4), day(4)), 1003);
        assertEquals(book.count("TDL", "Other", day(5), day(5)), 3, "Ebb goes back to it in a ring");
    }

    @Test
    public void namesMakeNoOtherVariant() {
        JsonNode one = Json.parse(
                "{\"name\":\"a\",\"note\":\"x\",\"long\":{\"rule\":\"r\"},\"exit\":{\"name\":\"p\",\"k\":1}}", "");
        JsonNode same = Json.parse("{\"name\":\"b\",\"long\":{\"rule\":\"r\"},\"exit\":{\"name\":\"q\",\"k\":1}}", "");
        JsonNode other = Json.parse("{\"name\":\"a\",\"long\":{\"rule\":\"r\"},\"exit\":{\"name\":\"p\",\"k\":2}}", "");
        assertEquals(AttemptBook.fingerprint(one), AttemptBook.fingerprint(same));
        assertNotEquals(AttemptBook.fingerprint(one), AttemptBook.fingerprint(other));
    }

    @Test
    public void aSealIsMadeOnceAndOpenedOnceForAVersion() throws IOException {
        Path file = Files.createTempDirectory("book").resolve("seals.json");
        SealBook book = new SealBook(file);
        assertEquals(SealBook.offered("TDL", List.of(day(2), day(3))), java.util.Optional.empty());
        List<LocalDate> dates = List.of(day(2), day(3), day(4), day(5), day(6), day(9), day(10), day(11));
        SealBook.Seal seal = SealBook.offered("TDL", dates).orElseThrow();
        assertEquals(seal, new SealBook.Seal("TDL", day(10), day(11)), "a third of eight is two");
        book.seal(seal);
        expectThrows(BadInput.class, () -> book.seal(new SealBook.Seal("TDL", day(11), day(11))));
        assertEquals(book.open(seal, "Ebb", "v1"), 1);
        assertEquals(book.open(seal, "Ebb", "v1"), 1);
        assertEquals(book.open(seal, "Ebb", "v2"), 2);
        assertEquals(new SealBook(file).openings(seal), 2, "kept");
        assertEquals(seal.fit(Days.ALL), new Days(java.util.Optional.empty(), java.util.Optional.of(day(9))));
        Days early = new Days(java.util.Optional.of(day(2)), java.util.Optional.of(day(4)));
        assertEquals(seal.fit(early), early);
        assertEquals(seal.fit(new Days(java.util.Optional.of(day(2)), java.util.Optional.of(day(20)))).last(),
                java.util.Optional.of(day(9)), "dates behind a seal are left out, too");
        expectThrows(IllegalArgumentException.class,
                () -> seal.fit(new Days(java.util.Optional.of(day(10)), java.util.Optional.empty())));
    }
}
