package stativex.desk.draw;

import javafx.scene.canvas.Canvas;
import javafx.scene.layout.Region;

/** A region that is drawn by hand: it keeps a canvas of its size and paints when asked or resized. */
public abstract class Sketch extends Region {
    private final Canvas canvas = new Canvas();
    private final CanvasPen pen = new CanvasPen(canvas.getGraphicsContext2D());

    protected Sketch() {
        canvas.setMouseTransparent(true);
        getChildren().add(canvas);
        setMinSize(0, 0);
    }

    @Override
    protected final void layoutChildren() {
        double width = Math.floor(getWidth());
        double height = Math.floor(getHeight());
        if (canvas.getWidth() != width || canvas.getHeight() != height) {
            canvas.setWidth(width);
            canvas.setHeight(height);
            repaint();
        }
    }

    /** Paints anew. */
    public final void repaint() {
        if (canvas.getWidth() > 0 && canvas.getHeight() > 0) {
            canvas.getGraphicsContext2D().clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
            paint(pen, canvas.getWidth(), canvas.getHeight());
        }
    }

    /** Draws everything; the area is clear. */
    protected abstract void paint(Pen pen, double width, double height);
}
