package stativex.files.tape;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import stativex.files.BadInput;
import stativex.files.Causes;
import stativex.files.Documents;
import stativex.market.Contract;
import stativex.market.Tape;

/** Keeps the prints of a live day as a tape of the store, as any other that was brought in: usable at once, in trials too. */
public final class ReceivedTape {
    private static final long GAP = 5 * 60_000_000_000L;

    private ReceivedTape() {}

    /**
     * Keeps them; a tape of that name gives way, since the day was gone on with.
     *
     * @param received with the sessions that lack prints
     * @throws BadInput when it cannot be kept
     */
    public static void keep(TapeStore store, String name, Tape received, Documents.Read<Contract> contract,
            Progress progress) {
        try {
            Path folder = Files.createTempDirectory("received");
            Path csv = folder.resolve("received.ticks.csv");
            try {
                TickCsv.write(csv, received, contract.value());
                TickLayout layout = LayoutGuess.of(csv, contract.value().calendar().zone()).layout();
                try (TapeImport job = TapeImport.read(store, csv, contract, Optional.of(layout), GAP, progress)) {
                    job.keep(name, false, received.incomplete(), store.has(name));
                }
            } finally {
                Files.deleteIfExists(csv);
                Files.deleteIfExists(folder);
            }
        } catch (IOException e) {
            throw new BadInput("the tape " + name + ": cannot be kept: " + Causes.of(e), e);
        }
    }
}
