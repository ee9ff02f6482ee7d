package stativex.desk.trials;

import java.util.ArrayList;
import java.util.List;
import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Fonts;
import stativex.desk.look.Format;
import stativex.desk.look.Palette;
import stativex.files.SearchRun;
import stativex.search.Tried;

/** The unseen days of a walk forward joined, day by day; a line where the next part begins. */
final class WalkPicture extends Sketch {
    private final List<Long> curve = new ArrayList<>(List.of(0L));
    private final List<Integer> begins = new ArrayList<>();

    WalkPicture(List<SearchRun.Step> steps) {
        long sum = 0;
        for (SearchRun.Step step : steps) {
            begins.add(curve.size() - 1);
            for (long day : step.tried().map(Tried::days).orElse(new long[0])) {
                sum += day;
                curve.add(sum);
            }
        }
        setAccessibleText("Joined days of " + steps.size() + " steps end at " + Format.signedMoney(sum));
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        pen.fill(Palette.CHART, 0, 0, width, height);
        long low = curve.stream().mapToLong(v -> v).min().orElse(0);
        long high = Math.max(curve.stream().mapToLong(v -> v).max().orElse(0), low + 1);
        double right = width - 70;
        double[] xs = new double[curve.size()];
        double[] ys = new double[curve.size()];
        for (int i = 0; i < xs.length; i++) {
            xs[i] = 4 + (right - 4) * i / Math.max(1, xs.length - 1);
            ys[i] = height - 8 - (height - 16) * (curve.get(i) - low) / (high - low);
        }
        begins.forEach(at -> pen.fill(Palette.FAINT, Math.round(xs[at]), 0, 1, height));
        pen.fill(Palette.RULE, 4, Math.round(height - 8 - (height - 16) * (0 - low) / (high - low)), right - 4, 1);
        pen.path(Palette.INK, 1.3, xs, ys, xs.length);
        pen.text(Format.signedMoney(curve.getLast()), Fonts.bold(11), Palette.INK, right + 4,
                Math.clamp(ys[ys.length - 1] + 4, 12, height - 2));
    }
}
