package stativex.files.tape;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.market.Contract;
import stativex.market.Join;
import stativex.market.Tape;

/** Finds a tape by what a person calls it: a CSV or Parquet file, or the name of a stored tape or join. */
public final class TapeReference {
    /** A tape with the contract that its prices are ticks of, and the join that it is of, if it is one. */
    public record Found(Contract contract, Tape tape, Optional<Join> join) {
        /** A tape of one month. */
        public Found(Contract contract, Tape tape) {
            this(contract, tape, Optional.empty());
        }

        /** The rolls in it. */
        public List<Join.Roll> rolls() {
            return join.map(Join::rolls).orElse(List.of());
        }
    }

    /** What tapes that come with the application are called, alone or before a further word. */
    private static final String DEMO = "demo";

    private TapeReference() {}

    private static boolean endsAsFile(String reference) {
        String name = reference.toLowerCase(Locale.ROOT);
        return name.endsWith(".csv") || name.endsWith(".parquet");
    }

    /** Whether a name means something else than a stored tape: a file, or a tape that comes with the application. */
    static boolean meansOther(String name) {
        String small = name.toLowerCase(Locale.ROOT);
        return endsAsFile(name) || small.equals(DEMO) || small.startsWith(DEMO + " ");
    }

    /** Whether the reference means a tape, or a join of tapes, of the store. */
    public static boolean isStored(TapeStore store, String reference) {
        return !meansOther(reference) && (store.has(reference) || new Joins(store).has(reference));
    }

    /** Whether the reference means a file: by its ending, or because there is one and nothing stored is named so. */
    private static boolean isFile(TapeStore store, String reference) {
        return endsAsFile(reference)
                || !store.has(reference) && !new Joins(store).has(reference) && new File(reference).isFile();
    }

    /**
     * Opens a tape.
     *
     * @param contract of a file; a stored tape has its own, which one given must agree with in tick size
     * @param backAdjusted whether earlier months of a join are moved to the newest one
     * @throws BadInput when there is no such tape, or a file comes without a contract
     */
    public static Found open(TapeStore store, String reference, Optional<Contract> contract, boolean backAdjusted) {
        if (isFile(store, reference)) {
            Contract of = contract
                    .orElseThrow(() -> new BadInput(reference + ": a file needs a contract: --contract FILE.json"));
            Path file = Path.of(reference);
            return new Found(of,
                    TapeImport.isParquet(file) ? ParquetTicks.read(file, of) : TickCsv.read(file, of));
        }
        Joins joins = new Joins(store);
        if (!store.has(reference) && joins.has(reference)) {
            Join join = joins.open(reference);
            return fitting(reference, contract,
                    new Found(join.contract(), backAdjusted ? join.backAdjusted() : join.tape(), Optional.of(join)));
        }
        TapeStore.Stored stored = store.open(reference);
        return fitting(reference, contract,
                new Found(stored.info().contract().value(), stored.tape()));
    }

    /**
     * Opens the tape of a contract that strategies look at beside the one they trade.
     *
     * @param contract of a file; a stored tape has its own
     * @throws BadInput as {@link #open}, or when the tape is a join: its prices are of several months
     */
    public static FurtherTape openFurther(TapeStore store, String reference,
            Optional<Documents.Read<Contract>> contract) {
        Found found = open(store, reference, contract.map(Documents.Read::value), false);
        if (!found.rolls().isEmpty()) {
            throw new BadInput("tape " + reference
                    + " is a join: strategies look at single months of further contracts, use one month's tape");
        }
        return new FurtherTape(reference,
                contract.orElseGet(() -> store.open(reference).info().contract()), found.tape());
    }

    private static Found fitting(String name, Optional<Contract> given, Found found) {
        if (given.isPresent() && given.get().tickSize().compareTo(found.contract().tickSize()) != 0) {
            throw new BadInput("tape " + name + " holds prices in ticks of "
                    + found.contract().tickSize().toPlainString() + ", the contract given has ticks of "
                    + given.get().tickSize().toPlainString());
        }
        return new Found(given.orElse(found.contract()), found.tape(), found.join());
    }
}
