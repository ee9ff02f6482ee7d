package stativex.desk.trials;

import java.time.LocalDate;
import java.time.YearMonth;
import java.time.format.TextStyle;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.evidence.TradeTable;

/** Day results as calendars of months: a filled square gained, a framed one lost, the darker or thicker the more; a dot had no trade. */
final class DayCalendarView extends Sketch {
    private static final Font WORDS = Fonts.words(11);
    private static final double CELL = 18;
    private static final double MONTH = 5 * CELL + 22;

    /** A day of the trial. @param trades entered on it */
    record Day(LocalDate date, long result, int trades) {}

    private List<Day> days = List.of();
    private List<LocalDate> sealed = List.of();

    /** @param hidden dates that nobody has looked at */
    void show(List<Day> shown, List<LocalDate> hidden) {
        days = List.copyOf(shown);
        sealed = List.copyOf(hidden);
        setAccessibleText(words());
        repaint();
    }

    /** Trades of each day beside its result. */
    static List<Day> of(List<stativex.engine.DayBook.Day> results, TradeTable byDay) {
        Map<String, Integer> trades = new HashMap<>();
        byDay.rows().forEach(row -> trades.put(row.key(), row.trades()));
        return results.stream()
                .map(day -> new Day(day.date(), day.result(), trades.getOrDefault(day.date().toString(), 0))).toList();
    }

    String words() {
        long up = days.stream().filter(d -> d.result() > 0).count();
        long down = days.stream().filter(d -> d.result() < 0).count();
        Optional<Day> worst = days.stream().min(java.util.Comparator.comparingLong(Day::result));
        Optional<Day> best = days.stream().max(java.util.Comparator.comparingLong(Day::result));
        return days.isEmpty()
                ? "No day."
                : days.size() + " days, " + up + " up, " + down + " down. Best "
                        + Format.signedMoney(best.get().result())
                        + ", " + Format.day(best.get().date()) + "; worst " + Format.signedMoney(worst.get().result())
                        + ", " + Format.day(worst.get().date()) + ".";
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        if (days.isEmpty()) {
            return;
        }
        long most = Math.max(1, days.stream().mapToLong(d -> Math.abs(d.result())).max().orElse(1));
        LocalDate worst = days.stream().min(java.util.Comparator.comparingLong(Day::result)).get().date();
        List<YearMonth> months = Stream.concat(days.stream().map(Day::date), sealed.stream()).map(YearMonth::from)
                .distinct().sorted().toList();
        int across = Math.max(1, (int) ((width - 12) / MONTH));
        double rows = 5 * CELL + 40;
        int fits = across * Math.max(1, (int) (height / rows));
        // the newest months where not all have room
        List<YearMonth> shown = months.size() > fits ? months.subList(months.size() - fits, months.size()) : months;
        for (int i = 0; i < shown.size(); i++) {
            month(pen, shown.get(i), most, worst, 12 + i % across * MONTH, 18 + i / across * rows);
        }
        if (shown.size() < fits) {
            legend(pen, 12 + shown.size() % across * MONTH, 18 + shown.size() / across * rows);
        }
        if (shown.size() < months.size()) {
            pen.text((months.size() - shown.size()) + " earlier months are not shown", WORDS, Palette.MUTED, 12,
                    height - 4);
        }
    }

    private static void worst(Pen pen, double x, double y) {
        pen.frame(Palette.TRIP, x - 2, y - 2, CELL, CELL);
        pen.frame(Palette.TRIP, x - 3, y - 3, CELL + 2, CELL + 2);
    }

    private void legend(Pen pen, double x, double y) {
        pen.text("Reading", Fonts.bold(11), Palette.INK, x, y);
        String[] words = {"gained", "lost", "no trade", "worst"};
        Day[] days = {new Day(LocalDate.EPOCH, 1, 1), new Day(LocalDate.EPOCH, -1, 1), new Day(LocalDate.EPOCH, 0, 0),
                new Day(LocalDate.EPOCH, -1, 1)};
        for (int i = 0; i < words.length; i++) {
            double cy = y + 8 + i * CELL;
            cell(pen, days[i], 0.5, x, cy);
            if (i == 3) {
                worst(pen, x, cy);
            }
            pen.text(words[i], WORDS, Palette.MUTED, x + CELL + 6, cy + 11);
        }
        if (!sealed.isEmpty()) {
            double cy = y + 8 + words.length * CELL;
            pen.hatch(Palette.LANE, x, cy, CELL - 4, CELL - 4);
            pen.text("sealed", WORDS, Palette.MUTED, x + CELL + 6, cy + 11);
        }
    }

    private void month(Pen pen, YearMonth month, long most, LocalDate worst, double x, double y) {
        pen.text(month.getMonth().getDisplayName(TextStyle.FULL, Locale.ENGLISH), WORDS, Palette.INK, x, y);
        for (LocalDate date : sealed) {
            if (YearMonth.from(date).equals(month)) {
                double[] at = place(date, x, y);
                pen.hatch(Palette.LANE, at[0], at[1], CELL - 4, CELL - 4);
            }
        }
        for (Day day : days) {
            if (!YearMonth.from(day.date()).equals(month)) {
                continue;
            }
            double[] at = place(day.date(), x, y);
            cell(pen, day, (double) Math.abs(day.result()) / most, at[0], at[1]);
            if (day.date().equals(worst) && day.result() < 0) {
                worst(pen, at[0], at[1]);
            }
        }
    }

    /** Where a date stands in its month. */
    private static double[] place(LocalDate date, double x, double y) {
        int column = Math.min(4, date.getDayOfWeek().getValue() - 1);
        int row = (date.getDayOfMonth() + date.withDayOfMonth(1).getDayOfWeek().getValue() - 2) / 7;
        return new double[]{x + column * CELL, y + 8 + row * CELL};
    }

    private static void cell(Pen pen, Day day, double share, double x, double y) {
        double size = CELL - 4;
        if (day.trades() == 0 && day.result() == 0) {
            pen.disc(Palette.MUTED, Palette.MUTED, x + size / 2, y + size / 2, 1.2);
        } else if (day.result() >= 0) {
            Color ink = Palette.INK;
            pen.fill(Palette.SOFT.interpolate(ink, 0.15 + 0.85 * share), x, y, size, size);
        } else {
            int thick = share > 0.66 ? 3 : share > 0.33 ? 2 : 1;
            for (int i = 0; i < thick; i++) {
                pen.frame(Palette.INK, x + i, y + i, size - 2 * i, size - 2 * i);
            }
        }
    }
}
