package stativex.files.tape;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import stativex.files.BadInput;
import stativex.files.Causes;
import stativex.files.Plain;
import stativex.files.WholeFile;
import stativex.market.Contract;
import stativex.market.Tape;
import stativex.market.TapeBlock;
import stativex.market.TapeBuilder;
import stativex.market.TapeTime;

/** Our own tick files: {@code time,price,size[,bid,ask[,bid_size,ask_size]][,aggressor]} (RFC 4180, UTF-8, header required). */
public final class TickCsv {
    private TickCsv() {}

    /**
     * Reads a tick file whole into memory outside the heap; anything wrong refuses it.
     *
     * @throws BadInput naming file, line, column, what was expected and found
     */
    public static Tape read(Path file, Contract contract) {
        String name = file.toString();
        try (ByteLines lines = new ByteLines(Plain.open(file))) {
            if (!lines.next()) {
                throw new BadInput(name + ": expected the header line time,price,size…, found an empty file");
            }
            TickLayout layout = TickLayout.own(name, fields(name, lines, ','));
            TickLine line = new TickLine(layout, contract);
            TapeBuilder tape = new TapeBuilder((int) Math.min(TapeBlock.FULL, Files.size(file) / 40));
            while (lines.next()) {
                Optional<TickLine.Problem> problem = line.read(lines.bytes(), lines.from(), lines.to());
                if (problem.isPresent()) {
                    throw Intake.error(name, lines.number(), problem.get());
                }
                try {
                    tape.add(line.time, line.price, line.size, line.bid, line.ask, line.bidSize, line.askSize,
                            line.aggressor);
                } catch (IllegalArgumentException e) {
                    throw BadInput.at(name, "line " + lines.number() + ", column "
                            + (line.time < tape.lastTime() ? "time" : "price"), e.getMessage());
                }
            }
            if (tape.count() == 0) {
                throw BadInput.at(name, "line 2", "expected at least one print below the header, found none");
            }
            return tape.build();
        } catch (NoSuchFileException e) {
            throw new BadInput(file + ": no such file", e);
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be read: " + Causes.of(e), e);
        }
    }

    /** The fields of the line at hand as texts. */
    static List<String> fields(String file, ByteLines lines, char delimiter) throws IOException {
        if (TickLine.carriageReturn(lines.bytes(), lines.from(), lines.to())) {
            throw BadInput.at(file, "line " + lines.number(), TickLine.ONE_LINE);
        }
        String text;
        try {
            text = StandardCharsets.UTF_8.newDecoder()
                    .decode(ByteBuffer.wrap(lines.bytes(), lines.from(), lines.to() - lines.from())).toString();
        } catch (CharacterCodingException e) {
            throw BadInput.at(file, "line " + lines.number(), "expected UTF-8 text");
        }
        try (CsvReader<CsvRecord> reader = CsvReader.builder().fieldSeparator(delimiter).allowMissingFields(true)
                .allowExtraFields(true).skipEmptyLines(false).ofCsvRecord(text)) {
            var records = reader.iterator();
            return records.hasNext() ? records.next().getFields() : List.of("");
        } catch (CsvParseException e) {
            throw BadInput.at(file, "line " + lines.number(), TickLine.QUOTED);
        }
    }

    /** Writes a tape with quotes and aggressor, CRLF line ends, in one piece or not at all. */
    public static void write(Path file, Tape tape, Contract contract) {
        write(file, tape, contract, 0, tape.count(), Progress.NONE);
    }

    /** Writes the prints {@code from} to {@code to}, the last one not included. */
    public static void write(Path file, Tape tape, Contract contract, int from, int to, Progress progress) {
        boolean sizes = false;
        for (int block = 0; block < tape.blocks() && !sizes; block++) {
            sizes = tape.fetch(block).widths().bidSize() + tape.fetch(block).widths().askSize() > 0;
        }
        boolean quoteSizes = sizes;
        WholeFile.write(file, out -> {
            try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(out)) {
                csv.writeRecord(quoteSizes
                        ? List.of("time", "price", "size", "bid", "ask", "bid_size", "ask_size", "aggressor")
                        : List.of("time", "price", "size", "bid", "ask", "aggressor"));
                List<String> row = new ArrayList<>(8);
                for (int i = from; i < to; i++) {
                    row.clear();
                    row.add(TapeTime.instant(tape.time(i)).toString());
                    row.add(contract.text(tape.price(i)));
                    row.add(Integer.toString(tape.size(i)));
                    row.add(tape.bid(i) == Tape.NONE ? "" : contract.text(tape.bid(i)));
                    row.add(tape.ask(i) == Tape.NONE ? "" : contract.text(tape.ask(i)));
                    if (quoteSizes) {
                        row.add(tape.bidSize(i) == Tape.NONE ? "" : Long.toString(tape.bidSize(i)));
                        row.add(tape.askSize(i) == Tape.NONE ? "" : Long.toString(tape.askSize(i)));
                    }
                    row.add(tape.aggressor(i).word());
                    csv.writeRecord(row);
                    if ((i & 0xFFFF) == 0) {
                        progress.at(i - from, to - from);
                    }
                }
            }
        }, StandardCharsets.UTF_8);
    }
}
