package stativex.desk.run;

import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.text.Font;
import stativex.account.Account;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.desk.draw.Sketch;
import stativex.engine.Snapshot;
import stativex.interlock.SessionWindow;
import stativex.interlock.WindowSchedule;
import stativex.market.Contract;
import stativex.market.Session;
import stativex.market.TapeTime;

/**
 * The trading day as a ribbon: exchange time above, the person's own time below, sessions light, pauses dark, windows as
 * blocks, the clock as a violet line, and one sentence about the window at hand.
 */
final class DayRibbon extends Sketch {
    private static final long HOUR = 3600 * TapeTime.SECOND;
    private static final double LEFT = 14;
    private static final Font NAME = Fonts.words(10.5);

    private final Contract contract;
    private final ZoneId own;
    private Optional<Snapshot> snapshot = Optional.empty();
    private List<WindowSchedule.Occurrence> windows = List.of();
    private long clock;

    private final Account account;

    /** @param account its quiet times and the time by which it is flat are shown */
    DayRibbon(Contract contract, Account account, ZoneId own) {
        this.contract = contract;
        this.account = account;
        this.own = own;
    }

    void show(Snapshot shown, Snapshot.StrategyView strategy, long time) {
        snapshot = Optional.of(shown);
        windows = strategy.dayOccurrences();
        clock = time;
        setAccessibleText("Trading day. " + sentence());
        repaint();
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        ZoneId zone = contract.calendar().zone();
        Optional<Session> session = snapshot.flatMap(Snapshot::session);
        if (session.isEmpty()) {
            pen.text("No session ahead.", Fonts.words(11), Palette.MUTED, LEFT, 18);
            return;
        }
        List<Session> sessions = contract.calendar().sessions(session.get().tradingDate());
        long from = sessions.getFirst().open();
        long to = contract.calendar().dayAfter(session.get().tradingDate()).map(Session::open).orElse(from + 24 * HOUR);
        to = Math.min(to, from + 24 * HOUR);
        pen.text("Trading day", Fonts.bold(12), Palette.INK, LEFT, 16);
        pen.text(TapeTime.in(zone, sessions.getLast().open()).toLocalDate() + " · " + Format.city(zone)
                + " above, yours below: " + Format.city(own) + " " + difference(zone), Fonts.words(11), Palette.MUTED,
                LEFT + 92, 16);
        double right = width - 14;
        Scale x = new Scale(from, to, LEFT, right);
        double top = 36;
        double band = 34;
        pen.fill(Palette.SOFT, LEFT, top, right - LEFT, band);
        for (Session s : sessions) {
            pen.fill(Palette.FAINT, x.at(s.open()), top, x.at(s.close()) - x.at(s.open()), band);
        }
        for (long t = from; t <= to; t += 2 * HOUR) {
            double at = Math.round(x.at(t));
            pen.fill(Palette.RULE, at, top, 1, band);
            hour(pen, t, zone, at, top - 5, LEFT, right);
            hour(pen, t, own, at, top + band + 13, LEFT, right);
        }
        double now = Math.round(x.at(Math.clamp(clock, from, to)));
        for (WindowSchedule.Occurrence w : windows) {
            window(pen, w, x, top, band, now);
        }
        rules(pen, x, from, to, top, band);
        boolean crossesName = windows.stream().anyMatch(w -> nameCovers(pen, w, x, now));
        double middle = top + band / 2;
        pen.fill(Palette.AUTOMATION, now - 1, top - 3, 2, crossesName ? band / 2 - 6 : band + 6);
        if (crossesName) {
            pen.fill(Palette.AUTOMATION, now - 1, middle + 7, 2, band / 2 - 3);
        }
        pen.text(sentence(), Fonts.words(11), Palette.INK, LEFT, top + band + 30);
    }

    /** Quiet times hatched, and a line where everything is flat. */
    private void rules(Pen pen, Scale x, long from, long to, double top, double band) {
        for (QuietTimes.Quiet one : account.own().quietTimes().times()) {
            if (one.to() > from && one.acts() < to) {
                double left = Math.max(x.left(), x.at(one.acts()));
                pen.hatch(Palette.WARN, left, top, Math.max(3, x.at(one.to()) - left), band);
            }
        }
        account.rulebook().of(Rulebook.FlatBy.class).map(rule -> rule.actsFrom(from) + rule.lead())
                .filter(time -> time <= to)
                .forEach(time -> pen.fill(Palette.TRIP, Math.round(x.at(time)) - 1, top, 2, band));
    }

    private record Scale(long from, long to, double left, double right) {
        double at(long time) {
            return left + (right - left) * (time - from) / (to - from);
        }
    }

    private static void hour(Pen pen, long time, ZoneId zone, double x, double y, double left, double right) {
        String text = String.format(Locale.ROOT, "%02d", TapeTime.in(zone, time).getHour());
        double w = pen.width(text, Fonts.figures(10.5));
        pen.text(text, Fonts.figures(10.5), Palette.MUTED, Math.clamp(x - w / 2, left, right - w), y);
    }

    private void window(Pen pen, WindowSchedule.Occurrence w, Scale x, double top, double band,
            double now) {
        double from = Math.round(Math.max(x.at(w.from()), x.left()));
        double to = Math.round(Math.min(x.at(w.to()), x.right()));
        pen.fill(Palette.CHART, from, top + 4, to - from, band - 8);
        pen.frame(Palette.SLATE, from, top + 4, to - from, band - 8);
        if (w.window().end() == SessionWindow.End.FLATTEN) {
            pen.fill(Palette.TRIP, to - 2, top + 4, 2, band - 8);
        }
        double wide = pen.width(w.window().name(), NAME);
        // the name steps aside for the clock's line where there is room
        double left = now > from && now < from + wide + 8 && now + wide + 8 < to ? now : from;
        if (wide < to - from - 5) {
            pen.text(w.window().name(), NAME, Palette.INK, left + 4, top + band / 2 + 4);
        }
    }

    private static boolean nameCovers(Pen pen, WindowSchedule.Occurrence w, Scale x, double now) {
        double from = Math.max(x.at(w.from()), x.left());
        double wide = pen.width(w.window().name(), NAME);
        boolean fits = wide < x.at(w.to()) - from - 5;
        return fits && now > from && now < from + wide + 8 && now + wide + 8 >= x.at(w.to());
    }

    private String difference(ZoneId zone) {
        int seconds = TapeTime.in(own, clock).getOffset().getTotalSeconds()
                - TapeTime.in(zone, clock).getOffset().getTotalSeconds();
        String hours = Format.signed(seconds / 3600);
        return seconds % 3600 == 0 ? hours + " h" : hours + " h " + Math.abs(seconds % 3600 / 60) + " min";
    }

    private String sentence() {
        if (windows.isEmpty()) {
            return "No window today.";
        }
        for (WindowSchedule.Occurrence w : windows) {
            ZoneId zone = contract.calendar().zone();
            String end = switch (w.window().end()) {
                case FLATTEN -> ", flat " + w.window().lead() / TapeTime.SECOND + " s before its end";
                case CANCEL -> ", resting entries are cancelled at its end";
                case STOP_ENTERING -> ", no entry after its end";
            };
            if (clock < w.from()) {
                return w.window().name() + " opens at " + Format.minute(w.from(), zone) + ", in "
                        + Format.duration(w.from() - clock) + end;
            }
            if (clock < w.to()) {
                return w.window().name() + ": " + Format.duration(w.to() - clock) + " left" + end;
            }
        }
        return "The last window of this trading day is over.";
    }
}
