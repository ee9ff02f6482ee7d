package stativex.desk.run;

import java.util.List;
import java.util.stream.Collectors;
import stativex.desk.draw.Pen;
import stativex.desk.look.Fonts;
import stativex.desk.look.Palette;
import stativex.desk.draw.Sketch;
import stativex.engine.Mode;
import stativex.files.Sentences;
import stativex.interlock.InterlockView;

/** The interlocks in the order in which they are asked: a ring is clear, a slate square is the person's
 * switch or the strategy's own trade, an amber one holds entries back, a barred square has
 * tripped. */
final class InterlocksView extends Sketch {
    private static final double ROW = 22;

    private List<Row> interlocks = List.of();

    /** An interlock as it is written. */
    private record Row(String name, InterlockView.State state, String text) {}

    void show(List<InterlockView> views, Mode mode, Sentences words) {
        List<Row> shown = views.stream()
                .map(view -> new Row(Sentences.name(view.kind()), view.state(), words.interlock(view, mode))).toList();
        if (!shown.equals(interlocks)) {
            interlocks = shown;
            setMinHeight(ROW * shown.size());
            setPrefHeight(ROW * shown.size());
            setAccessibleText("Interlocks: " + shown.stream()
                    .map(i -> i.name() + " " + i.state().name().toLowerCase(java.util.Locale.ROOT).replace('_', ' ')
                            + ", " + i.text())
                    .collect(Collectors.joining("; ")));
            repaint();
        }
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        for (int i = 0; i < interlocks.size(); i++) {
            Row interlock = interlocks.get(i);
            double y = i * ROW;
            double middle = y + 11;
            var ink = switch (interlock.state()) {
                case CLEAR, SWITCHED_OFF, OCCUPIED -> Palette.MUTED;
                case HELD -> Palette.WARN_TEXT;
                case TRIPPED -> Palette.TRIP;
            };
            switch (interlock.state()) {
                case CLEAR -> pen.disc(Palette.PANEL, Palette.SLATE, 5, middle, 4);
                case SWITCHED_OFF, OCCUPIED -> pen.fill(Palette.SLATE, 1, middle - 4, 9, 9);
                case HELD -> pen.fill(Palette.WARN, 1, middle - 4, 9, 9);
                case TRIPPED -> {
                    pen.fill(Palette.TRIP, 0, middle - 5, 11, 11);
                    pen.fill(Palette.PANEL, 2, middle - 1, 7, 3);
                }
            }
            double name = pen.width(interlock.name(), Fonts.words(12));
            pen.text(interlock.name(), Fonts.words(12), Palette.INK, 18, middle + 4);
            String text = interlock.text();
            while (text.length() > 4 && pen.width(text, Fonts.words(11)) > width - name - 26) {
                text = text.substring(0, text.length() - 2) + "…";
            }
            pen.rightAligned(text, Fonts.words(11), ink, width, middle + 4);
            pen.fill(Palette.RULE, 0, y + ROW - 1, width, 1);
        }
    }
}
