package stativex.desk.live;

import stativex.desk.draw.Pen;
import stativex.desk.draw.Sketch;
import stativex.desk.look.Palette;

/** A state at a glance, by shape and hue: an open circle, a triangle, a square with a bar. */
final class Mark extends Sketch {
    /** How something stands. */
    enum State {
        CLEAR, NEAR, WRONG
    }

    private State state = State.CLEAR;

    Mark() {
        setMinSize(12, 12);
        setPrefSize(12, 12);
        setMaxSize(12, 12);
    }

    void set(State next) {
        if (state != next) {
            state = next;
            repaint();
        }
    }

    @Override
    protected void paint(Pen pen, double width, double height) {
        switch (state) {
            case CLEAR -> pen.disc(Palette.PANEL, Palette.SLATE, 6, 6, 4);
            case NEAR -> pen.polygon(Palette.WARN, Palette.WARN, new double[]{6, 11, 1}, new double[]{1, 11, 11});
            case WRONG -> {
                pen.fill(Palette.TRIP, 0, 1, 11, 11);
                pen.fill(Palette.PANEL, 2, 5, 7, 3);
            }
        }
    }
}
