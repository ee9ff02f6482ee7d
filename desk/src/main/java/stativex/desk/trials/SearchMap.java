package stativex.desk.trials;

import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.LongConsumer;
import javafx.scene.input.KeyCode;
import javafx.scene.text.Font;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.search.Ranking;
import stativex.search.Score;
import stativex.search.Space;

/**
 * Scores over two ranges of a search, the others held: the darker the better, a dash at 0 or below, empty where nothing was tried. The
 * plateau around the chosen variant is framed; the lone peak is ringed.
 */
final class SearchMap extends Sketch {
    private static final Font FIGURES = Fonts.figures(11);
    private static final Font WORDS = Fonts.words(11);
    private static final double LEFT = 92;
    private static final double TOP = 26;
    private static final double GUTTER = 178;
    private static final double BOTTOM = 44;

    private final LongConsumer picked;
    private Space space;
    private int across;
    private int up;
    private int[] held = {};
    private final Map<Long, Ranking.Ranked> found = new HashMap<>();
    private Optional<Ranking.Ranked> chosen = Optional.empty();
    private Optional<Ranking.Ranked> peak = Optional.empty();
    private double best;
    private double cellWidth = 1;
    private double cellHeight = 1;
    private double bottom;

    /** @param picked told of the grid number of a cell that was clicked */
    SearchMap(LongConsumer picked) {
        this.picked = picked;
        setFocusTraversable(true);
        setOnMouseClicked(e -> {
            requestFocus();
            int x = (int) ((e.getX() - LEFT) / cellWidth);
            int y = (int) ((bottom - e.getY()) / cellHeight);
            if (space != null && e.getX() >= LEFT && x < size(across) && e.getY() < bottom && y < size(up)) {
                picked.accept(space.number(at(x, y)));
            }
        });
        setOnKeyPressed(e -> {
            int dx = e.getCode() == KeyCode.RIGHT ? 1 : e.getCode() == KeyCode.LEFT ? -1 : 0;
            int dy = e.getCode() == KeyCode.UP ? 1 : e.getCode() == KeyCode.DOWN ? -1 : 0;
            if (space != null && (dx != 0 || dy != 0)) {
                picked.accept(space.number(at(Math.clamp(held[across] + dx, 0, size(across) - 1),
                        Math.clamp(held[up] + (across == up ? 0 : dy), 0, size(up) - 1))));
                e.consume();
            }
        });
    }

    /**
     * @param x the range across; {@code y} the range upward, the same one where there is only one
     * @param at places of the chosen variant, at which the other ranges are held
     */
    void show(Space of, List<Ranking.Ranked> ranked, int x, int y, int[] at) {
        space = of;
        across = x;
        up = y;
        held = at.clone();
        found.clear();
        ranked.forEach(one -> found.put(one.entry().grid(), one));
        chosen = Optional.ofNullable(found.get(space.number(held)));
        peak = peak(ranked);
        best = ranked.stream().mapToDouble(Ranking.Ranked::score).filter(Double::isFinite).max().orElse(0);
        setAccessibleText(words());
        repaint();
    }

    /** The best by its own score alone. */
    static Optional<Ranking.Ranked> peak(List<Ranking.Ranked> ranked) {
        return ranked.stream().filter(one -> one.score() != Score.ABSENT)
                .max(Comparator.comparingDouble(Ranking.Ranked::score));
    }

    private String words() {
        return "Map of " + space.ranges().get(across).name() + " and " + space.ranges().get(up).name() + ". Chosen "
                + space.words(held) + chosen.map(one -> ", score " + text(one.score()) + ", neighbours "
                        + text(one.neighbours()) + ", " + plateau(one).size() + " settings side by side").orElse("");
    }

    static String text(double score) {
        return score == Score.ABSENT
                ? "absent"
                : score == Score.NONE ? "none" : (score > 0 ? "+" : "") + Format.decimal(score, 2);
    }

    private int size(int range) {
        return range == up && across == up ? 1 : space.ranges().get(range).values().size();
    }

    private int[] at(int x, int y) {
        int[] places = held.clone();
        if (across != up) {
            places[up] = y;
        }
        places[across] = x;
        return places;
    }

    /** Cells side by side with the chosen one whose score is at least half of its neighbours' score. */
    private Set<Long> plateau(Ranking.Ranked one) {
        Set<Long> plateau = new HashSet<>();
        if (!(one.neighbours() > 0) || !Double.isFinite(one.neighbours())) {
            return plateau;
        }
        Deque<int[]> open = new ArrayDeque<>(List.of(held));
        while (!open.isEmpty()) {
            int[] places = open.pop();
            Ranking.Ranked here = found.get(space.number(places));
            if (here == null || here.score() < one.neighbours() / 2 || !plateau.add(space.number(places))) {
                continue;
            }
            for (int range : across == up ? new int[]{across} : new int[]{across, up}) {
                for (int step : new int[]{-1, 1}) {
                    int[] next = places.clone();
                    next[range] += step;
                    if (next[range] >= 0 && next[range] < space.ranges().get(range).values().size()) {
                        open.push(next);
                    }
                }
            }
        }
        return plateau;
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        if (space == null) {
            return;
        }
        int columns = size(across);
        int rows = size(up);
        bottom = height - BOTTOM;
        cellWidth = Math.min(60, (width - LEFT - GUTTER) / columns);
        cellHeight = Math.min(26, (bottom - TOP) / rows);
        Set<Long> plateau = chosen.map(this::plateau).orElse(Set.of());
        for (int x = 0; x < columns; x++) {
            for (int y = 0; y < rows; y++) {
                cell(pen, x, y);
            }
        }
        for (int x = 0; x < columns; x++) {
            for (int y = 0; y < rows; y++) {
                frame(pen, x, y, plateau);
            }
        }
        axis(pen, columns, rows);
        double tags = LEFT + columns * cellWidth + 14;
        chosen.ifPresent(one -> {
            mark(pen, one.entry().grid(), true);
            tag(pen, tags, TOP + 12, true, "chosen", "own " + text(one.score()),
                    "neighbours " + text(one.neighbours()));
            if (!plateau.isEmpty()) {
                pen.frame(Palette.INK, tags, TOP + 62, 9, 9);
                pen.text("plateau", Fonts.bold(11), Palette.INK, tags + 16, TOP + 71);
                pen.text(plateau.size() + " side by side,", WORDS, Palette.MUTED, tags + 16, TOP + 86);
                pen.text("each " + text(one.neighbours() / 2) + " or more", WORDS, Palette.MUTED, tags + 16,
                        TOP + 100);
            }
        });
        peak.filter(one -> chosen.isEmpty() || one != chosen.get()).ifPresent(one -> {
            mark(pen, one.entry().grid(), false);
            tag(pen, tags, TOP + 122, false, "peak", "own " + text(one.score()),
                    "neighbours " + text(one.neighbours()));
        });
    }

    private void tag(Pen pen, double x, double y, boolean filled, String... words) {
        pen.disc(filled ? Palette.INK : Palette.CHART, Palette.INK, x + 4.5, y - 4, 4.5);
        pen.text(words[0], Fonts.bold(11), Palette.INK, x + 16, y);
        pen.text(words[1], WORDS, Palette.MUTED, x + 16, y + 15);
        pen.text(words[2], WORDS, Palette.MUTED, x + 16, y + 29);
    }

    private void mark(Pen pen, long grid, boolean filled) {
        int[] places = space.places(grid);
        for (int i = 0; i < places.length; i++) {
            if (i != across && i != up && places[i] != held[i]) {
                // it lies on another sheet of the map
                return;
            }
        }
        double x = LEFT + (places[across] + 0.5) * cellWidth;
        double y = bottom - ((across == up ? 0 : places[up]) + 0.5) * cellHeight;
        pen.disc(Palette.CHART, Palette.CHART, x, y, 6.5);
        pen.disc(filled ? Palette.INK : Palette.CHART, Palette.INK, x, y, 4.5);
    }

    private void cell(Pen pen, int x, int y) {
        double left = LEFT + x * cellWidth;
        double top = bottom - (y + 1) * cellHeight;
        Ranking.Ranked one = found.get(space.number(at(x, y)));
        if (one == null) {
            pen.frame(Palette.RULE, left, top, cellWidth - 1, cellHeight - 1);
            return;
        }
        double share = one.score() == Score.NONE ? 1 : best > 0 ? Math.clamp(one.score() / best, 0, 1) : 0;
        boolean nothing = !(one.score() > 0);
        pen.fill(nothing ? Palette.FAINT : Palette.SOFT.interpolate(Palette.INK, 0.1 + 0.75 * share), left, top,
                cellWidth - 1, cellHeight - 1);
        if (nothing) {
            pen.centred("–", FIGURES, Palette.MUTED, left + cellWidth / 2, top + cellHeight / 2 + 4);
        }
    }

    private void frame(Pen pen, int x, int y, Set<Long> plateau) {
        if (!plateau.contains(space.number(at(x, y)))) {
            return;
        }
        double left = LEFT + x * cellWidth - 1;
        double top = bottom - (y + 1) * cellHeight - 1;
        for (int[] side : new int[][]{{-1, 0}, {1, 0}, {0, 1}, {0, -1}}) {
            int nx = x + side[0];
            int ny = y + side[1];
            boolean edge = nx < 0 || ny < 0 || nx >= size(across) || ny >= size(up)
                    || !plateau.contains(space.number(at(nx, ny)));
            if (!edge) {
                continue;
            }
            if (side[0] != 0) {
                pen.fill(Palette.INK, side[0] < 0 ? left - 1 : left + cellWidth - 1, top, 2, cellHeight + 1);
            } else {
                pen.fill(Palette.INK, left, side[1] > 0 ? top - 1 : top + cellHeight - 1, cellWidth + 1, 2);
            }
        }
    }

    private void axis(Pen pen, int columns, int rows) {
        Space.Range one = space.ranges().get(across);
        double free = 0;
        for (int x = 0; x < columns; x++) {
            String words = one.values().get(x);
            double centre = LEFT + (x + 0.5) * cellWidth;
            double half = pen.width(words, FIGURES) / 2;
            if (centre - half > free) {
                pen.centred(words, x == held[across] ? Fonts.bold(11) : FIGURES, Palette.INK, centre, bottom + 15);
                free = centre + half + 8;
            }
        }
        pen.text(one.name(), WORDS, Palette.MUTED, LEFT, bottom + 33);
        if (across == up) {
            return;
        }
        Space.Range other = space.ranges().get(up);
        pen.text(other.name(), WORDS, Palette.MUTED, 12, 16);
        int every = Math.max(1, (int) Math.ceil(14 / cellHeight));
        for (int y = 0; y < rows; y += every) {
            pen.rightAligned(other.values().get(y), y == held[up] ? Fonts.bold(11) : FIGURES, Palette.INK, LEFT - 8,
                    bottom - (y + 0.5) * cellHeight + 4);
        }
    }
}
