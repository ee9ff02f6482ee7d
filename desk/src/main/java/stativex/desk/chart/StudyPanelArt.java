package stativex.desk.chart;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import javafx.scene.paint.Color;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Palette;
import stativex.engine.Snapshot;
import stativex.study.Unit;

/**
 * The panel of one study that is no price: its numbers as lines on one scale for each unit, told apart by dashes, below
 * them a row for each yes or no, filled where it is yes.
 */
final class StudyPanelArt {
    private static final double NUMBERS = 58;
    private static final double LEAST = 30;
    private static final double ROW = 11;

    private final String name;
    private final List<Snapshot.StudyView> numbers;
    private final List<Snapshot.StudyView> flags;

    private StudyPanelArt(String name, List<Snapshot.StudyView> outputs) {
        this.name = name;
        this.numbers = outputs.stream().filter(o -> o.unit() != Unit.FLAG).toList();
        this.flags = outputs.stream().filter(o -> o.unit() == Unit.FLAG).toList();
    }

    /** One for each study that has outputs that are no prices. */
    static List<StudyPanelArt> of(List<Snapshot.StudyView> outputs) {
        Map<String, List<Snapshot.StudyView>> byStudy = new LinkedHashMap<>();
        outputs.stream().filter(output -> output.unit() != Unit.LEVEL)
                .forEach(output -> byStudy.computeIfAbsent(study(output.name()), n -> new ArrayList<>()).add(output));
        return byStudy.entrySet().stream().map(e -> new StudyPanelArt(e.getKey(), e.getValue())).toList();
    }

    private static String study(String name) {
        return name.split("\\.")[0];
    }

    /** Height it would like to have. */
    double height() {
        return (numbers.isEmpty() ? 6 : NUMBERS) + ROW * flags.size();
    }

    /** Height it needs. */
    double least() {
        return (numbers.isEmpty() ? 6 : LEAST) + ROW * flags.size();
    }

    void draw(Pen pen, ChartSpace s, double top, double height) {
        double foot = top + height - ROW * flags.size();
        if (!numbers.isEmpty()) {
            for (Unit unit : List.of(Unit.NUMBER, Unit.DISTANCE)) {
                numbers(pen, s, unit, top, foot);
            }
            Panels.title(pen, s, title(), "", top + (foot - top) / 2 + 4);
        }
        for (int i = 0; i < flags.size(); i++) {
            flag(pen, s, flags.get(i), foot + i * ROW - (numbers.isEmpty() ? 3 : 2));
        }
    }

    /** {@code pull, signal}: a main output by the study's name; {@code floor: longs, shorts}: there is none. */
    private String title() {
        boolean main = numbers.stream().anyMatch(number -> number.name().equals(name));
        String others = numbers.stream().filter(number -> !number.name().equals(name))
                .map(number -> number.name().substring(name.length() + 1)).collect(Collectors.joining(", "));
        return name + (others.isEmpty() ? "" : (main ? ", " : ": ") + others);
    }

    private void numbers(Pen pen, ChartSpace s, Unit unit, double top, double foot) {
        List<Snapshot.StudyView> lines = numbers.stream().filter(number -> number.unit() == unit).toList();
        double lowest = Double.POSITIVE_INFINITY;
        double highest = Double.NEGATIVE_INFINITY;
        for (Snapshot.StudyView line : lines) {
            int last = Math.min(s.last(), line.values().count() - 1);
            for (int bar = s.first(); bar <= last; bar += s.step()) {
                double value = line.values().get(bar);
                if (!Double.isNaN(value)) {
                    lowest = Math.min(lowest, value);
                    highest = Math.max(highest, value);
                }
            }
        }
        if (lowest > highest) {
            return;
        }
        double room = Math.max(4, foot - top - 22);
        double scale = room / Math.max(1e-9, highest - lowest);
        pen.clip(0, top, s.plot(), foot - top);
        if (lowest < 0 && highest > 0) {
            pen.fill(Palette.FAINT, 0, Math.round(foot - 6 + lowest * scale), s.plot(), 1);
        }
        for (int i = 0; i < lines.size(); i++) {
            line(pen, s, lines.get(i), StudyLines.DASHES[i % StudyLines.DASHES.length], foot - 6 + lowest * scale,
                    scale);
        }
        pen.unclip();
        pen.rightAligned(Readout.value(s.bars().contract(), unit, highest), Fonts.figures(9.5), Palette.MUTED,
                s.width() - 8, top + 14);
        if (foot - top > 28 && lowest < highest) {
            pen.rightAligned(Readout.value(s.bars().contract(), unit, lowest), Fonts.figures(9.5), Palette.MUTED,
                    s.width() - 8, foot - 4);
        }
    }

    private static void line(Pen pen, ChartSpace s, Snapshot.StudyView line, double[] dashes, double zero,
            double scale) {
        int last = Math.min(s.last(), line.values().count() - 1);
        double[] xs = new double[Math.max(0, (last - s.first()) / s.step() + 1)];
        double[] ys = new double[xs.length];
        int count = 0;
        Color ink = Palette.ink(line.ink(), Palette.SLATE);
        for (int bar = s.first(); bar <= last; bar += s.step()) {
            double value = line.values().get(bar);
            if (Double.isNaN(value)) {
                // nothing is drawn over bars at which there is no value
                path(pen, ink, xs, ys, count, dashes);
                count = 0;
            } else {
                xs[count] = s.viewport().centre(bar);
                ys[count++] = zero - value * scale;
            }
        }
        path(pen, ink, xs, ys, count, dashes);
    }

    private static void path(Pen pen, Color ink, double[] xs, double[] ys, int count, double[] dashes) {
        if (count > 1) {
            pen.path(ink, 1.2, xs, ys, count, dashes);
        }
    }

    /** Filled where it is yes, a foot where it is no, nothing where nobody knows. */
    private void flag(Pen pen, ChartSpace s, Snapshot.StudyView flag, double top) {
        int last = Math.min(s.last(), flag.values().count() - 1);
        double wide = Math.max(1, Math.floor(s.viewport().barWidth()) - (s.viewport().barWidth() >= 4 ? 2 : 0));
        pen.clip(0, top, s.plot(), ROW);
        for (int bar = s.first(); bar <= last; bar += s.step()) {
            double value = flag.values().get(bar);
            double x = Math.round(s.viewport().centre(bar) - wide / 2);
            if (value == 1) {
                pen.fill(Palette.ink(flag.ink(), Palette.LANE), x, top + 2, wide, ROW - 4);
            } else if (value == 0) {
                pen.fill(Palette.SOFT, x, top + ROW - 4, wide, 2);
            }
        }
        pen.unclip();
        Panels.title(pen, s, flag.name(), "", top + 9);
    }
}
