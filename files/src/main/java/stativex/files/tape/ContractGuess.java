package stativex.files.tape;

import java.io.IOException;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import stativex.files.BadInput;
import stativex.files.Causes;
import stativex.files.ContractSketch;
import stativex.files.Plain;

/** What a tick file shows of its contract: the smallest step between its prices, their decimals, the hours with prints. */
public final class ContractGuess {
    /** Lines looked at. */
    private static final int LINES = 200_000;
    private static final Pattern PRICE = Pattern.compile("[-+]?[0-9]{1,12}([.,][0-9]{1,9})?");
    private static final Pattern CLOCK = Pattern.compile("([0-9]{1,2}):([0-9]{2})");

    private BigInteger step = BigInteger.ZERO;
    private Optional<BigDecimal> before = Optional.empty();
    private int decimals;
    private int first = 24 * 60;
    private int last = -1;

    private ContractGuess() {}

    /**
     * A contract to be completed by hand: tick size as seen, hours as seen when times are local, a symbol from the file's name.
     *
     * @param layout how the file's lines are read
     * @throws BadInput when the file cannot be read
     */
    public static ContractSketch of(Path file, TickLayout layout, String zone) {
        ContractGuess guess = new ContractGuess();
        int price = layout.columns().indexOf(Column.PRICE);
        int time = Math.max(layout.columns().indexOf(Column.TIME), layout.columns().indexOf(Column.CLOCK));
        try (ByteLines lines = new ByteLines(Plain.open(file))) {
            for (int i = 0; i < LINES && lines.next(); i++) {
                if (i > 0 || !layout.header()) {
                    guess.take(file, lines, layout, price, time);
                }
            }
        } catch (IOException e) {
            throw new BadInput(file + ": cannot be read: " + Causes.of(e), e);
        }
        return guess.sketch(file, layout, zone);
    }

    private void take(Path file, ByteLines lines, TickLayout layout, int price, int time) throws IOException {
        List<String> fields;
        try {
            fields = TickCsv.fields(file.toString(), lines, layout.delimiter());
        } catch (BadInput e) {
            // the import says what is wrong with the line
            return;
        }
        if (price >= 0 && price < fields.size() && PRICE.matcher(fields.get(price).strip()).matches()) {
            BigDecimal value = new BigDecimal(fields.get(price).strip().replace(',', '.'));
            decimals = Math.max(decimals, value.stripTrailingZeros().scale());
            before.ifPresent(p -> step = step.gcd(value.subtract(p).movePointRight(9).toBigInteger()));
            before = Optional.of(value);
        }
        if (time >= 0 && time < fields.size() && layout.zone().isPresent()) {
            String text = fields.get(time);
            Matcher m = CLOCK.matcher(text);
            if (m.find()) {
                int minute = Integer.parseInt(m.group(1)) * 60 + Integer.parseInt(m.group(2));
                first = Math.min(first, minute);
                last = Math.max(last, minute);
            }
        }
    }

    private ContractSketch sketch(Path file, TickLayout layout, String zone) {
        String stem = file.getFileName().toString().replaceFirst("[._ -].*$", "").toUpperCase(Locale.ROOT);
        BigDecimal tick = new BigDecimal(step, 9);
        String size = step.signum() == 0
                ? ""
                : tick.setScale(Math.max(0, Math.max(decimals, tick.stripTrailingZeros().scale())))
                        .toPlainString();
        ContractSketch empty = ContractSketch.empty(zone);
        List<ContractSketch.Line> sessions = last < 0
                ? empty.hours().sessions()
                : List.of(new ContractSketch.Line("Day", empty.hours().sessions().getFirst().days(),
                        clock(first / 30 * 30),
                        false,
                        clock(Math.min(24 * 60 - 1, last / 30 * 30 + 30))));
        return new ContractSketch(stem, "", "", new ContractSketch.Prices(size, "", empty.prices().slippage(), ""),
                empty.listing(), new ContractSketch.Hours(zone, empty.hours().lateSeconds(), sessions, ""));
    }

    private static String clock(int minutes) {
        return String.format(Locale.ROOT, "%02d:%02d", minutes / 60, minutes % 60);
    }
}
