package stativex.desk.chart;

import java.util.List;
import java.util.Optional;
import java.util.function.IntConsumer;
import javafx.scene.control.Tooltip;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Palette;
import stativex.desk.draw.Sketch;
import stativex.engine.Snapshot;
import stativex.market.Side;
import stativex.rule.Truth;

/**
 * The why lanes: one lane per condition, one cell per bar, filled where it held, a frame where it is absent, and a last
 * lane for all of them, hatched where a signal was withdrawn, hatched and framed while it is provisional. The bar that
 * forms is hatched where it holds as things stand. A click on a cell chooses its bar.
 */
public final class LanesView extends Sketch {
    private static final double LANE = 16;
    private final Viewport viewport;
    private List<Snapshot.Lane> lanes = List.of();
    private Side side = Side.LONG;
    private boolean unread;
    private Optional<Integer> cursor = Optional.empty();
    private Optional<Integer> chosen = Optional.empty();
    private Optional<Tooltip> whole = Optional.empty();

    /** @param viewport of the chart above, under whose bars the cells lie */
    public LanesView(Viewport viewport) {
        this.viewport = viewport;
        setOnMouseMoved(e -> tip(e.getX(), e.getY()));
    }

    /** A condition whose name has no room is read by pointing at it. */
    private void tip(double x, double y) {
        int at = (int) (y / lane(getHeight()));
        String words = x > getWidth() - ChartView.AXIS && at < lanes.size() - 1 ? lanes.get(at).text() : "";
        if (!words.equals(whole.map(Tooltip::getText).orElse(""))) {
            whole.ifPresent(there -> Tooltip.uninstall(this, there));
            whole = words.isEmpty() ? Optional.empty() : Optional.of(new Tooltip(words));
            whole.ifPresent(there -> Tooltip.install(this, there));
        }
    }

    private double lane(double height) {
        return Math.min(LANE, height / Math.max(1, lanes.size()));
    }

    /** Height that shows so many lanes. */
    public static double height(int lanes) {
        return LANE * Math.max(1, lanes) + 4;
    }

    /** Tells of the bar of a cell that was clicked. */
    public void onChoose(IntConsumer told) {
        setOnMouseClicked(e -> {
            int bar = viewport.barAt(e.getX());
            if (e.getX() < getWidth() - ChartView.AXIS && !lanes.isEmpty() && bar >= 0
                    && bar < lanes.getFirst().truth().count()) {
                told.accept(bar);
            }
        });
    }

    /**
     * @param shown one for each condition, the last one for all of them; empty: the side has no rule
     * @param cursorBar the bar under the crosshair
     * @param chosenBar the bar that is explained
     */
    public void show(List<Snapshot.Lane> shown, Side shownSide, Optional<Integer> cursorBar,
            Optional<Integer> chosenBar) {
        lanes = shown;
        side = shownSide;
        cursor = cursorBar;
        chosen = chosenBar;
        setAccessibleText("Why lanes, " + side.word() + ": " + words());
        repaint();
    }

    /** Whether there is a rule that does not read, where there are no lanes. */
    public void unread(boolean is) {
        unread = is;
    }

    /** How each condition stands at the newest bar, for those who cannot see the cells. */
    private String words() {
        StringBuilder words = new StringBuilder();
        for (Snapshot.Lane lane : lanes) {
            int truth = lane.truth().count() == 0 ? Truth.ABSENT : lane.truth().get(lane.truth().count() - 1);
            words.append(lane.text()).append(' ')
                    .append(truth == Truth.TRUE ? "held" : truth == Truth.FALSE ? "did not hold" : "is absent")
                    .append("; ");
            lane.forming().ifPresent(now -> words.append(
                    now == Truth.TRUE ? "holds now, before the close; " : "does not hold now, before the close; "));
            if (lane.raised().isPresent()) {
                long gone = java.util.stream.IntStream.range(0, lane.truth().count()).filter(lane::withdrawn).count();
                words.append("withdrawn on ").append(gone).append(" bars");
            }
        }
        return words.toString();
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        if (lanes.isEmpty()) {
            pen.text(
                    unread
                            ? "The " + side.word() + " rule does not read yet."
                            : "This strategy has no rule for " + side.word() + ".",
                    Fonts.words(11), Palette.MUTED, 14, 16);
            return;
        }
        double plot = width - ChartView.AXIS;
        pen.fill(Palette.RULE, plot, 0, 1, height);
        double lane = lane(height);
        for (int i = 0; i < lanes.size(); i++) {
            boolean all = i == lanes.size() - 1;
            double y = Math.round(i * lane);
            String name = all ? "all of them" : lanes.get(i).text();
            Font font = all ? Fonts.bold(10.5) : Fonts.words(10.5);
            Color ink = all ? Palette.AUTOMATION : Palette.INK;
            String count = trueOf(lanes.get(i));
            pen.rightAligned(count, font, ink, width - 8, y + 12);
            pen.text(Gutter.fit(pen, name, font, width - 16 - pen.width(count, font) - plot - 12), font, ink, plot + 12,
                    y + 12);
            pen.clip(0, 0, Math.max(0, plot), height);
            cells(pen, lanes.get(i), y + 2, lane - 4, all);
            forming(pen, lanes.get(i), y + 2, lane - 4, all);
            pen.unclip();
        }
        chosen.ifPresent(bar -> {
            double x = Math.round(viewport.centre(bar));
            if (x > 0 && x < plot) {
                double half = Math.max(2, Math.floor(viewport.barWidth() / 2));
                pen.frame(Palette.INK, x - half - 1, 0, 2 * half + 2, height - 1);
            }
        });
        cursor.ifPresent(bar -> {
            double x = Math.round(viewport.centre(bar)) + 0.5;
            if (x > 0 && x < plot) {
                pen.line(Palette.SLATE, 1, x, 0, x, height, 2, 2);
            }
        });
    }

    private void cells(Pen pen, Snapshot.Lane lane, double y, double height, boolean all) {
        double cell = Math.max(1, Math.floor(viewport.barWidth()) - (viewport.barWidth() >= 4 ? 2 : 0));
        int last = viewport.lastSeen(lane.truth().count());
        for (int bar = viewport.firstSeen(); bar <= last; bar++) {
            double x = Math.round(viewport.centre(bar) - cell / 2);
            switch (lane.truth().get(bar)) {
                case Truth.TRUE -> pen.fill(all ? Palette.AUTOMATION : Palette.LANE, x, y, cell, height);
                case Truth.FALSE -> {
                    if (lane.withdrawn(bar)) {
                        pen.hatch(Palette.AUTOMATION, x, y, cell, height);
                    } else {
                        pen.fill(Palette.SOFT, x, y + height - 3, cell, 3);
                    }
                }
                default -> pen.frame(Palette.SOFT, x, y, cell, height);
            }
        }
    }

    /** What holds in the bar that forms is not known to stay: hatched; a signal that was raised in it is framed as well. */
    private void forming(Pen pen, Snapshot.Lane lane, double y, double height, boolean all) {
        double cell = Math.max(3, Math.floor(viewport.barWidth()) - 2);
        double x = Math.round(viewport.centre(lane.truth().count()) - cell / 2);
        int now = lane.forming().orElse(Truth.ABSENT);
        if (now == Truth.TRUE || lane.provisional()) {
            pen.hatch(all ? Palette.AUTOMATION : Palette.LANE, x, y, cell, height);
        }
        if (lane.provisional()) {
            pen.frame(Palette.AUTOMATION, x, y, cell, height);
        } else if (now == Truth.FALSE) {
            pen.hatch(Palette.LANE, x, y + height - 3, cell, 3);
        }
    }

    /** {@code 7 of 58}: true on 7 of the 58 bars in view. */
    private String trueOf(Snapshot.Lane lane) {
        int first = viewport.firstSeen();
        int last = viewport.lastSeen(lane.truth().count());
        return lane.held(first, last) + " of " + Math.max(0, last - first + 1);
    }
}
