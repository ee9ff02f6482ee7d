package stativex.files;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import stativex.engine.DayBook;
import stativex.evidence.EquityCurve;
import stativex.evidence.TradeTable;
import stativex.evidence.TrialReport;
import stativex.market.Money;
import stativex.market.TapeTime;
import stativex.order.Owner;
import stativex.trial.Run;
import stativex.trial.TradeFacts;

/** A trial's report to print: A4, the same figures as {@link ReportPage}, its font inside. */
public final class ReportPdf implements AutoCloseable {
    private static final float MARGIN = 42;
    private static final float SIZE = 8;
    private static final float LINE = 11;
    private static final int COLUMNS = 98;
    /** Trades beyond so many are left to {@code trades.csv}. */
    private static final int MOST_TRADES = 400;

    private final PDDocument document = new PDDocument();
    private final PDFont font;
    private PDPageContentStream page;
    private float y;

    private ReportPdf() throws IOException {
        try (InputStream in = ReportPdf.class.getResourceAsStream("report/B612Mono-Regular.ttf")) {
            font = PDType0Font.load(document, in, true);
        }
        turn();
    }

    /**
     * Writes a report in one piece or not at all.
     *
     * @param curve equity of the run in pieces; none in bar mode
     * @param seal what is said about unseen dates
     * @throws BadInput when the file cannot be written
     */
    public static void write(Path file, Run run, TrialReport report, List<EquityCurve.Day> curve, String seal) {
        WholeFile.writeBytes(file, out -> {
            try (ReportPdf pdf = new ReportPdf()) {
                pdf.report(run, report, curve, seal);
                pdf.page.close();
                pdf.document.save(out);
            }
        });
    }

    private void report(Run run, TrialReport report, List<EquityCurve.Day> curve, String seal) throws IOException {
        String names = String.join(", ", run.inputs().strategies().stream().map(s -> s.name()).toList());
        document.getDocumentInformation().setTitle("Trial of " + names);
        text("Trial of " + names, 13);
        paragraph(ReportFigures.how(run, report, seal));
        if (!curve.isEmpty()) {
            picture(curve);
        }
        heading("Result", "5th to 95th percentile");
        for (ReportFigures.Line line : ReportFigures.of(report)) {
            columns(new int[]{34, 22, 28}, line.word(), line.value(), line.interval());
        }
        for (String words : ReportFigures.locks(run)) {
            paragraph(words);
        }
        for (TradeTable.By by : List.of(TradeTable.By.MONTH, TradeTable.By.WINDOW, TradeTable.By.SIDE,
                TradeTable.By.EXIT_REASON, TradeTable.By.CONTRACT)) {
            table(report.table(by, ReportFile::exit));
        }
        heading("Days", "");
        for (DayBook.Day day : report.summary().days()) {
            columns(new int[]{14, 16}, day.date().toString(), Money.text(day.result()));
        }
        trades(run, report);
    }

    private void table(TradeTable table) throws IOException {
        if (table.rows().isEmpty()) {
            return;
        }
        heading("By " + table.by().name().toLowerCase(Locale.ROOT).replace('_', ' '), "");
        columns(new int[]{30, 9, 10, 14, 14, 10}, "", "trades", "won", "net", "average", "factor");
        for (TradeTable.Row row : table.rows()) {
            columns(new int[]{30, 9, 10, 14, 14, 10}, row.key().isEmpty() ? "none" : row.key(),
                    Integer.toString(row.trades()), ReportFigures.percent(row.winRate()), Money.text(row.net()),
                    row.averageTrade().isPresent() ? Money.text(row.averageTrade().getAsLong()) : "",
                    ReportFigures.ratio(row.profitFactor()));
        }
    }

    private void trades(Run run, TrialReport report) throws IOException {
        int[] widths = {21, 18, 7, 4, 12, 8, 8, 8, 14};
        heading("Trades", "");
        columns(widths, "entry", "strategy", "side", "", "net", "against", "for", "R", "out by");
        for (TradeFacts facts : report.trades().subList(0, Math.min(MOST_TRADES, report.trades().size()))) {
            var t = facts.trade();
            columns(widths, TapeTime.instant(t.entryTime()).toString().substring(0, 19),
                    t.owner() instanceof Owner.Strategy(int index)
                            ? run.inputs().strategies().get(index).name()
                            : "by hand",
                    t.side().word(), Integer.toString(t.quantity()), Money.text(t.net()), Long.toString(t.mae()),
                    Long.toString(t.mfe()), ReportFigures.ratio(facts.r()), ReportFile.exit(t));
        }
        if (report.trades().size() > MOST_TRADES) {
            paragraph((report.trades().size() - MOST_TRADES) + " further trades stand in trades.csv.");
        }
    }

    // ------------------------------------------------------------------ layout

    private void turn() throws IOException {
        if (page != null) {
            page.close();
        }
        PDPage next = new PDPage(PDRectangle.A4);
        document.addPage(next);
        page = new PDPageContentStream(document, next);
        y = PDRectangle.A4.getHeight() - MARGIN;
    }

    private void room(float height) throws IOException {
        if (y - height < MARGIN) {
            turn();
        }
    }

    private void text(String words, float size) throws IOException {
        room(size + 4);
        y -= size + 3;
        page.beginText();
        page.setFont(font, size);
        page.newLineAtOffset(MARGIN, y);
        page.showText(known(words));
        page.endText();
    }

    /** Signs that the font has none of are shown as such. */
    private String known(String words) {
        StringBuilder known = new StringBuilder();
        words.codePoints().forEach(sign -> {
            String one = Character.toString(sign);
            try {
                font.encode(one);
                known.append(one);
            } catch (IOException | IllegalArgumentException e) {
                known.append('?');
            }
        });
        return known.toString();
    }

    private void heading(String words, String beside) throws IOException {
        room(4 * LINE);
        y -= LINE / 2;
        text(words + (beside.isEmpty() ? "" : "    " + beside), 10);
        page.setLineWidth(0.4f);
        page.moveTo(MARGIN, y - 3);
        page.lineTo(PDRectangle.A4.getWidth() - MARGIN, y - 3);
        page.stroke();
        y -= 2;
    }

    private void paragraph(String words) throws IOException {
        StringBuilder line = new StringBuilder();
        for (String word : words.split(" ")) {
            if (line.length() + word.length() > COLUMNS) {
                text(line.toString(), SIZE);
                line.setLength(0);
            }
            line.append(line.isEmpty() ? "" : " ").append(word);
        }
        text(line.toString(), SIZE);
    }

    /** The first column from the left, the others to the right of theirs; what is too long is cut. */
    private void columns(int[] widths, String... words) throws IOException {
        StringBuilder line = new StringBuilder();
        for (int i = 0; i < words.length; i++) {
            String word = words[i].length() < widths[i] ? words[i] : words[i].substring(0, widths[i] - 1);
            line.append(i == 0 ? word : "").repeat(" ", Math.max(0, widths[i] - word.length()))
                    .append(i == 0 ? "" : word);
        }
        text(line.toString(), SIZE);
    }

    private void picture(List<EquityCurve.Day> curve) throws IOException {
        float height = 150;
        float width = PDRectangle.A4.getWidth() - 2 * MARGIN;
        List<double[]> points = ReportFigures.points(curve);
        double low = points.stream().mapToDouble(p -> p[1]).min().orElse(0);
        double high = Math.max(points.stream().mapToDouble(p -> p[1]).max().orElse(0), low + 1);
        heading("Equity, print by print", Money.text((long) low) + " to " + Money.text((long) high));
        room(height + LINE);
        float bottom = y - height;
        page.setLineWidth(0.3f);
        float zero = (float) (bottom + height * (0 - low) / (high - low));
        page.moveTo(MARGIN, zero);
        page.lineTo(MARGIN + width, zero);
        page.stroke();
        page.setLineWidth(0.8f);
        for (int i = 0; i < points.size(); i++) {
            float px = (float) (MARGIN + width * points.get(i)[0] / curve.size());
            float py = (float) (bottom + height * (points.get(i)[1] - low) / (high - low));
            if (i == 0) {
                page.moveTo(px, py);
            } else {
                page.lineTo(px, py);
            }
        }
        page.stroke();
        y = bottom - 4;
    }

    @Override
    public void close() throws IOException {
        document.close();
    }
}
