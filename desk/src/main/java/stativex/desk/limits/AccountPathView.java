package stativex.desk.limits;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import stativex.account.Account;
import stativex.account.Rulebook;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.evidence.BookReading;
import stativex.evidence.EquityCurve;
import stativex.market.Money;

/** The account against its lines over past days: equity as an ink line, the floor as a red one, the target dashed. */
final class AccountPathView extends Sketch {
    private static final Font FIGURES = Fonts.figures(11);
    private static final Font WORDS = Fonts.words(11);
    private static final double LEFT = 74;
    private static final double GUTTER = 118;

    private Optional<BookReading> reading = Optional.empty();
    private List<EquityCurve.Day> curve = List.of();
    private String instead = "";

    void show(BookReading shown, List<EquityCurve.Day> equity) {
        reading = Optional.of(shown);
        curve = equity;
        instead = "";
        setAccessibleText("The account against its lines. " + words(shown));
        repaint();
    }

    void say(String words) {
        reading = Optional.empty();
        instead = words;
        setAccessibleText(words);
        repaint();
    }

    /** How the days went, in words. */
    static String words(BookReading of) {
        String days = of.days().size() + (of.days().size() == 1 ? " day" : " days");
        String target = of.daysToTarget().isPresent()
                ? "the target met on day " + of.daysToTarget().getAsInt()
                : of.account().rulebook().of(Rulebook.ProfitTarget.class).findAny().isPresent()
                        ? "the target not met"
                        : "no target";
        String over = of.over().map(day -> ", over on " + Format.day(day.date())
                + (day.end() == BookReading.End.NO_ROOM ? " without room" : "")).orElse("");
        long locked = of.days().stream().filter(day -> day.end() == BookReading.End.LOCKED).count();
        return days + ", " + target + over + (locked > 0 ? ", " + locked + " locked" : "");
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        if (reading.isEmpty() || reading.get().days().isEmpty()) {
            pen.text(instead.isEmpty() ? "No past day yet." : instead, Fonts.words(12), Palette.MUTED, 14, 30);
            return;
        }
        pen.fill(Palette.CHART, 0, 0, width, height);
        BookReading of = reading.get();
        Account account = of.account();
        Optional<Long> target = account.rulebook().of(Rulebook.ProfitTarget.class).findFirst()
                .map(rule -> account.start() + rule.amount());
        long low = of.days().stream().mapToLong(d -> Math.min(d.balance() + d.low(),
                Math.min(d.floor().orElse(Long.MAX_VALUE), d.floorAfter().orElse(Long.MAX_VALUE)))).min().orElseThrow();
        long high = of.days().stream().mapToLong(d -> d.balance() + d.high()).max().orElseThrow();
        high = Math.max(high, target.orElse(account.start()));
        double right = width - GUTTER;
        double bottom = height - 24;
        Scale y = new Scale(low, high, 12, bottom - 6);
        grid(pen, y, low, high, right);
        double wide = (right - LEFT) / Math.max(curve.size(), of.days().size());
        for (int d = 0; d < curve.size(); d++) {
            double x = LEFT + d * wide;
            pen.fill(Palette.RULE, Math.round(x), 8, 1, bottom - 8);
            if (wide >= 34) {
                pen.centred(curve.get(d).date().getDayOfMonth() + " " + curve.get(d).date().getMonth()
                        .getDisplayName(java.time.format.TextStyle.SHORT, Locale.ENGLISH), FIGURES, Palette.MUTED,
                        x + wide / 2, height - 8);
            }
        }
        for (int d = 0; d < of.days().size(); d++) {
            day(pen, of.days().get(d), d < curve.size() ? curve.get(d) : null, y, LEFT + d * wide, wide);
        }
        target.ifPresent(at -> {
            pen.line(Palette.INK, 1, LEFT, y.at(at), right, y.at(at), 5, 4);
            pen.text("target " + Format.money(at), WORDS, Palette.INK, right + 6, y.at(at) + 4);
        });
        BookReading.Day last = of.days().getLast();
        last.floorAfter().ifPresent(at -> pen.text("floor " + Format.money(at), WORDS, Palette.TRIP, right + 6,
                apart(y.at(at) + 4, target.map(t -> y.at(t) + 4))));
        long end = last.balance() + last.result();
        pen.text(Format.money(end), Fonts.bold(11), Palette.INK, right + 6,
                apart(apart(y.at(end) + 4, target.map(t -> y.at(t) + 4)),
                        last.floorAfter().isPresent()
                                ? Optional.of(y.at(last.floorAfter().getAsLong()) + 4)
                                : Optional.empty()));
    }

    /** Rows of the gutter keep apart. */
    private static double apart(double at, Optional<Double> other) {
        return other.filter(o -> Math.abs(o - at) < 14).map(o -> at < o ? o - 14 : o + 14).orElse(at);
    }

    private record Scale(long low, long high, double top, double bottom) {
        double at(long money) {
            return Math.round(bottom - (bottom - top) * (money - low) / Math.max(1, high - low));
        }
    }

    private static void grid(Pen pen, Scale y, long low, long high, double right) {
        long step = 100 * Money.UNIT;
        for (long factor : new long[]{1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 10_000, 100_000}) {
            step = 100 * Money.UNIT * factor;
            if ((high - low) / step <= 6) {
                break;
            }
        }
        for (long at = Math.ceilDiv(low, step) * step; at <= high; at += step) {
            pen.fill(Palette.FAINT, LEFT, y.at(at), right - LEFT, 1);
            pen.rightAligned(Format.money(at).replaceFirst("[.]00$", ""), FIGURES, Palette.MUTED, LEFT - 8,
                    y.at(at) + 4);
        }
    }

    private void day(Pen pen, BookReading.Day day, EquityCurve.Day pieces, Scale y, double x, double wide) {
        List<Double> xs = new ArrayList<>(List.of(x));
        List<Double> ys = new ArrayList<>(List.of(y.at(day.balance())));
        List<Double> floors = new ArrayList<>();
        day.floor().ifPresent(at -> floors.add(y.at(at)));
        long until = day.at().isPresent() && !day.passed() ? day.at().getAsLong() : Long.MAX_VALUE;
        if (pieces != null && !pieces.pieces().isEmpty()) {
            long from = pieces.pieces().getFirst().time();
            long span = Math.max(1, pieces.pieces().getLast().time() - from);
            for (EquityCurve.Piece piece : pieces.pieces()) {
                double px = x + 3 + (wide - 6) * (piece.time() - from) / span;
                boolean counts = piece.time() <= until;
                if (counts) {
                    add(xs, ys, px, y.at(day.balance() + piece.high()));
                    add(xs, ys, px, y.at(day.balance() + piece.low()));
                    add(xs, ys, px, y.at(day.balance() + piece.last()));
                }
            }
        }
        add(xs, ys, x + wide, y.at(day.balance() + day.result()));
        path(pen, Palette.INK, 1.2, xs, ys);
        if (day.floor().isPresent() && day.floorAfter().isPresent()) {
            double before = y.at(day.floor().getAsLong());
            double after = y.at(day.floorAfter().getAsLong());
            path(pen, Palette.TRIP, 2, List.of(x, x + wide, x + wide),
                    List.of(before, before == after ? before : before,
                            after));
        }
        if (day.end() != BookReading.End.WHOLE) {
            double at = y.at(day.balance() + day.result());
            boolean over = day.end() != BookReading.End.LOCKED;
            pen.fill(over ? Palette.TRIP : Palette.WARN, x + wide - 4, at - 4, 8, 8);
            String words = over ? day.end() == BookReading.End.BROKEN ? "broken" : "no room" : "locked";
            if (wide >= 44) {
                pen.rightAligned(words, WORDS, over ? Palette.TRIP : Palette.WARN_TEXT, x + wide - 8, at + 16);
            }
        }
        if (day.passed()) {
            pen.disc(Palette.CHART, Palette.INK, x + wide - 6, y.at(day.balance() + day.high()) - 8, 4);
        }
    }

    private static void add(List<Double> xs, List<Double> ys, double x, double y) {
        xs.add(x);
        ys.add(y);
    }

    private static void path(Pen pen, Color color, double width, List<Double> xs, List<Double> ys) {
        pen.path(color, width, xs.stream().mapToDouble(v -> v).toArray(), ys.stream().mapToDouble(v -> v).toArray(),
                xs.size());
    }
}
