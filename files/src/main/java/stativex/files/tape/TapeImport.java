package stativex.files.tape;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.channels.Channels;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Locale;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.zip.CRC32C;
import java.util.zip.CheckedInputStream;
import stativex.files.BadInput;
import stativex.files.Causes;
import stativex.files.Documents;
import stativex.files.Plain;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.Tape;
import stativex.market.TapeBlock;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;

/**
 * Brings a tick file into the store. Reading makes the tape beside its place and collects what is odd; nothing is kept
 * until somebody who has seen the findings says so. Closing without that leaves nothing behind.
 */
public final class TapeImport implements AutoCloseable {
    /** A stretch without a print that counts as a gap unless another is chosen. */
    public static final long GAP = 5 * 60 * TapeTime.SECOND;

    private final TapeStore store;
    private final TapeStore.Part part;
    private final TapeFile.Writer writer;
    private final TapeInfo info;
    private final Intake intake;
    private Optional<TapeStore.Part> leftOut = Optional.empty();
    private Writer list = Writer.nullWriter();
    private long sourceBytes;
    private long sourceSum;
    private long firstTime;

    private TapeImport(TapeStore store, TapeInfo info) throws IOException {
        this.store = store;
        this.info = info;
        this.part = store.part();
        this.writer = begin(part, info);
        this.intake = new Intake(info.contract().value(), new TapeBuilder(this::write), info.gapNanos());
    }

    private static TapeFile.Writer begin(TapeStore.Part part, TapeInfo info) throws IOException {
        try {
            return new TapeFile.Writer(part.channel(), info.originText());
        } catch (IOException e) {
            part.close();
            throw e;
        }
    }

    private void write(TapeBlock block) {
        try {
            if (block.first() == 0) {
                firstTime = block.firstTime();
            }
            writer.block(block);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Reads a whole file.
     *
     * @param layout how to read a CSV file; a Parquet file needs none
     * @param gap nanoseconds without a print inside a session that count as a gap
     * @throws BadInput when the file cannot be read at all, or holds no print
     */
    public static TapeImport read(TapeStore store, Path file, Documents.Read<Contract> contract,
            Optional<TickLayout> layout, long gap, Progress progress) {
        layout.ifPresent(l -> {
            l.lacking().ifPresent(lacking -> {
                throw new BadInput(file + ": no column is said to hold the " + lacking);
            });
            l.twice().ifPresent(column -> {
                throw new BadInput(file + ": two columns are said to hold the " + column.word());
            });
        });
        TapeImport job = null;
        boolean done = false;
        try {
            job = new TapeImport(store,
                    new TapeInfo(contract, file.toAbsolutePath().toString(), layout, gap, TapeInfo.Closing.UNKNOWN));
            if (layout.isPresent()) {
                job.csv(file, layout.get(), progress);
            } else {
                job.parquet(file, progress);
            }
            job.intake.tape().finish();
            if (job.prints() == 0) {
                throw new BadInput(file + ": expected at least one print that can be read, found none"
                        + job.firstBad().map(words -> "; first: " + words).orElse(""));
            }
            done = true;
            return job;
        } catch (NoSuchFileException e) {
            throw new BadInput(file + ": no such file", e);
        } catch (IOException | UncheckedIOException e) {
            throw new BadInput(file + ": cannot be imported: " + Causes.of(e), e);
        } finally {
            if (!done && job != null) {
                job.close();
            }
        }
    }

    /** Whether a file is read as Parquet, by its name. */
    public static boolean isParquet(Path file) {
        return file.toString().toLowerCase(Locale.ROOT).endsWith(".parquet");
    }

    private void csv(Path file, TickLayout layout, Progress progress) throws IOException {
        CRC32C sum = new CRC32C();
        sourceBytes = Files.size(file);
        try (InputStream in = new CheckedInputStream(Plain.open(file), sum);
                ByteLines lines = new ByteLines(in)) {
            TickLine line = new TickLine(layout, info.contract().value());
            if (layout.header()) {
                lines.next();
            }
            while (lines.next()) {
                long number = lines.number();
                if (lines.from() == lines.to() && layout.loose()) {
                    continue;
                }
                Optional<TickLine.Problem> problem = line.read(lines.bytes(), lines.from(), lines.to());
                if (problem.isEmpty()) {
                    problem = intake.take(number, line.time, line.price, line.size, line.bid, line.ask, line.bidSize,
                            line.askSize, line.aggressor);
                }
                if (problem.isPresent()) {
                    refuse(number, problem.get());
                }
                if ((number & 0xFFFF) == 0) {
                    progress.at(lines.position(), sourceBytes);
                }
            }
            progress.at(sourceBytes, sourceBytes);
        }
        sourceSum = sum.getValue();
    }

    private void refuse(long line, TickLine.Problem problem) throws IOException {
        String words = problem.column().map(c -> c + ": ").orElse("") + problem.message();
        intake.refuse(problem.kind(), line, words);
        leftOut(line, words);
    }

    /** Every line that cannot be taken goes to a list beside the tape. */
    private void leftOut(long line, String words) throws IOException {
        if (leftOut.isEmpty()) {
            leftOut = Optional.of(store.part());
            list = new OutputStreamWriter(new BufferedOutputStream(
                    Channels.newOutputStream(leftOut.get().channel()), 1 << 16), StandardCharsets.UTF_8);
        }
        list.write("line " + line + ": " + words + "\n");
    }

    private void parquet(Path file, Progress progress) throws IOException {
        try {
            ParquetTicks.read(file, info.contract().value(), intake, (row, words) -> {
                try {
                    leftOut(row, words);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            }, progress);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
        CRC32C sum = new CRC32C();
        sourceBytes = Files.size(file);
        try (InputStream in = new CheckedInputStream(Plain.open(file), sum)) {
            in.transferTo(java.io.OutputStream.nullOutputStream());
        }
        sourceSum = sum.getValue();
    }

    private Optional<String> firstBad() {
        for (Finding kind : Finding.values()) {
            if (kind.bad() && findings().count(kind) > 0) {
                Findings.Place place = findings().places(kind).getFirst();
                return Optional.of("line " + place.line() + ": " + place.words());
            }
        }
        return Optional.empty();
    }

    /** What was found. */
    public Findings findings() {
        return intake.findings();
    }

    /** Prints that could be taken. */
    public int prints() {
        return intake.tape().count();
    }

    /** Time of the first print, nanoseconds. */
    public long firstTime() {
        return firstTime;
    }

    /** Time of the last print, nanoseconds. */
    public long lastTime() {
        return intake.tape().lastTime();
    }

    long sourceBytes() {
        return sourceBytes;
    }

    long sourceSum() {
        return sourceSum;
    }

    /**
     * Keeps the tape under a name.
     *
     * @param leaveOut whether the person wants bad lines left out; without it a file that has any is refused
     * @param incomplete sessions whose signals are to be declined because prints are missing
     * @throws BadInput when there are bad lines and nobody said to leave them out, the name is taken, or the contract has no
     *         such session
     */
    public void keep(String name, boolean leaveOut, Set<Tape.SessionName> incomplete) {
        incomplete.forEach(this::checkExists);
        keep(name, leaveOut, incomplete, false);
    }

    private void checkExists(Tape.SessionName session) {
        List<String> names = info.contract().value().calendar().sessions(session.date()).stream().map(Session::name)
                .toList();
        if (!names.contains(session.name())) {
            throw new BadInput("incomplete session " + session.text() + ": " + (names.isEmpty()
                    ? "expected a trading date of " + info.contract().value().symbol() + ", found one without a session"
                    : "expected a session of that date, which has " + String.join(", ", names)));
        }
    }

    void keep(String name, boolean leaveOut, Set<Tape.SessionName> incomplete, boolean replace) {
        if (findings().bad() > 0 && !leaveOut) {
            throw new BadInput(info.source() + ": " + findings().bad() + " lines cannot be taken; first: "
                    + firstBad().orElse(""));
        }
        try {
            TapeInfo whole = info.with(new TapeInfo.Closing(Instant.now(), sourceBytes, sourceSum,
                    findings().bad() > 0, prints(), findings(), incomplete));
            writer.end(whole.closingText(), whole.briefText());
            list.flush();
            store.place(part, leftOut, name, replace);
        } catch (IOException e) {
            throw new BadInput(store.folder() + ": cannot be written: " + Causes.of(e), e);
        } finally {
            close();
        }
    }

    @Override
    public void close() {
        try {
            part.close();
            if (leftOut.isPresent()) {
                leftOut.get().close();
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
