package stativex.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.SessionFile;
import stativex.files.WholeFile;
import stativex.files.tape.FurtherTape;
import stativex.files.tape.FurtherTapes;
import stativex.files.tape.TapeReference;
import stativex.files.tape.TapeStore;
import stativex.files.tape.TickCsv;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeTime;

/** The demo: five trading days of the invented contract TDL, its documents, and where its story begins. */
public final class Demo {
    /** How a session file names the demo tape. */
    public static final String TAPE = "demo";
    /** How the tape of the further contract is named. */
    public static final String FURTHER = "demo MNH";
    /** The trading day on which everything happens. */
    public static final LocalDate DAY = LocalDate.of(2026, 9, 24);
    /** Where the demo's trader lives. */
    public static final ZoneId HOME = ZoneId.of("Europe/Helsinki");
    private static final LocalTime BEGIN = LocalTime.of(9, 40);
    /** Found by searching for a day that shows the whole story; see docs/decisions. */
    static final long SEED = 289;
    private static final long START = 5120;
    private static final List<LocalDate> DAYS = List.of(LocalDate.of(2026, 9, 18), LocalDate.of(2026, 9, 21),
            LocalDate.of(2026, 9, 22), LocalDate.of(2026, 9, 23), DAY);
    private static final String CONTRACT = "tdl.contract.json";
    private static final String OTHER = "mnh.contract.json";
    private static final long OTHER_SEED = 41;
    private static final long OTHER_START = 1240;
    private static final String ACCOUNT = "gannet-row-40k.account.json";
    private static final List<String> STRATEGIES = List.of("ebb-fade.strategy.json", "slack-water.strategy.json");
    private static final List<String> BOOKS = List.of("gannet-row-40k.rulebook.json", "skerry-static-25k.rulebook.json",
            "fulmar-close-100k.rulebook.json", "petrel-steps-60k.rulebook.json");
    private static final List<String> OTHERS = List.of("tern-harbour.releases.csv", "two-step-runner.exit.json",
            "tight-fade.exit.json");

    private Demo() {}

    /** Contract, account and strategies; the first strategy is the one whose story is told. */
    public static SessionFile.Set documents() {
        return new SessionFile.Set(Documents.contract(text(CONTRACT), CONTRACT),
                Documents.account(text(ACCOUNT), ACCOUNT, Demo::text), STRATEGIES.stream()
                        .map(name -> Documents.strategy(text(name), name, Demo::text)).toList());
    }

    /** The tape: about half a million prints, the same on every machine. */
    public static Tape tape(Contract contract) {
        return tape(contract, SEED);
    }

    /** The same market for as many trading days as {@code prints} take, from the demo's first day on; for measurements. */
    public static Tape tape(Contract contract, int prints) {
        MarketSimulator market = new MarketSimulator(contract, SEED, START, DAY, 1);
        Tape tape = market.tape();
        for (LocalDate date = DAYS.getFirst(); tape.count() < prints; date = date.plusDays(1)) {
            market.day(date);
            if (date.getDayOfWeek() == java.time.DayOfWeek.FRIDAY) {
                tape = market.tape();
            }
        }
        return Tape.joined(List.of(new Tape.Part(tape, 0, prints, 0)));
    }

    static Tape tape(Contract contract, long seed) {
        MarketSimulator market = new MarketSimulator(contract, seed, START, DAY, 1);
        DAYS.forEach(market::day);
        return market.tape();
    }

    /** A contract that strategies may look at beside the one they trade: MNH, a thinner market of the same days. */
    public static FurtherTapes.Offer further() {
        Documents.Read<Contract> contract = Documents.contract(text(OTHER), OTHER);
        return new FurtherTapes.Offer(FURTHER, contract, () -> {
            MarketSimulator market = new MarketSimulator(contract.value(), OTHER_SEED, OTHER_START, DAY, 0.3);
            DAYS.forEach(market::day);
            return market.tape();
        });
    }

    /** The tapes at hand of contracts beside the one that is traded: the person's own and the demo's. */
    public static FurtherTapes furtherTapes() {
        return new FurtherTapes(TapeStore.own(), List.of(further()));
    }

    /**
     * The tape of a further contract by its name.
     *
     * @param contract of a file; the demo's and a stored tape have their own
     */
    public static FurtherTape openFurther(String reference, Optional<Documents.Read<Contract>> contract) {
        if (reference.equals(FURTHER)) {
            FurtherTapes.Offer offer = further();
            return new FurtherTape(FURTHER, offer.contract(), offer.tape().get());
        }
        return TapeReference.openFurther(TapeStore.own(), reference, contract);
    }

    /** A tape by the name a session file gives it: the demo's, a file, or one in the person's store. */
    public static Tape tape(String reference, Contract contract) {
        return reference.equals(FURTHER)
                ? further().tape().get()
                : open(reference, Optional.of(contract), false).tape();
    }

    /** The same with its contract; the demo's and a stored tape have their own. */
    public static TapeReference.Found open(String reference, Optional<Contract> contract, boolean backAdjusted) {
        if (reference.equals(TAPE)) {
            Contract of = contract.orElseGet(() -> documents().contract().value());
            return new TapeReference.Found(of, tape(of));
        }
        return TapeReference.open(TapeStore.own(), reference, contract, backAdjusted);
    }

    /** When the story begins: before the first window of the demo day. */
    public static long begin(Contract contract) {
        return TapeTime.first(DAY.atTime(BEGIN), contract.calendar().zone());
    }

    /** Documents of rulebooks of invented firms, of unlike kinds; the demo's account has the first one. */
    public static List<String> rulebooks() {
        return BOOKS.stream().map(Demo::text).toList();
    }

    /** A calendar of releases, CSV. */
    public static String releases() {
        return text(OTHERS.getFirst());
    }

    /** Writes the tape and every document to a folder, so that a newcomer has files to start from. */
    public static void export(Path folder) {
        for (List<String> names : List.of(List.of(CONTRACT, OTHER, ACCOUNT), STRATEGIES, BOOKS, OTHERS)) {
            for (String name : names) {
                export(folder.resolve(name), text(name));
            }
        }
        for (ReadyMade ready : ReadyMade.all()) {
            export(ready.in(folder), ready.text());
        }
        Contract contract = documents().contract().value();
        TickCsv.write(folder.resolve("tdl.ticks.csv"), tape(contract), contract);
        FurtherTapes.Offer further = further();
        TickCsv.write(folder.resolve("mnh.ticks.csv"), further.tape().get(), further.contract().value());
    }

    private static void export(Path file, String text) {
        WholeFile.write(file, out -> out.write(text), StandardCharsets.UTF_8);
    }

    static String text(String name) {
        try (InputStream in = Demo.class.getResourceAsStream(name)) {
            if (in == null) {
                throw new BadInput("the demo has no document " + name);
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
