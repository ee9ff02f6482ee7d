package stativex.desk.draw;

import java.nio.IntBuffer;
import java.util.Optional;
import javafx.scene.Scene;
import javafx.scene.canvas.Canvas;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.Region;

/**
 * A region that is drawn by hand: it keeps pixels of its size, a canvas for texts, and paints when asked or resized, once in a frame at
 * most.
 */
public abstract class Sketch extends Region {
    private final ImageView shapes = new ImageView();
    private final Canvas words = new Canvas();
    private final NextFrame frame = new NextFrame(this, this::paintIfStale);
    private Optional<PixelBuffer<IntBuffer>> buffer = Optional.empty();
    private Optional<PixelPen> pen = Optional.empty();
    private double scale = 1;
    private boolean stale;

    protected Sketch() {
        shapes.setMouseTransparent(true);
        words.setMouseTransparent(true);
        getChildren().addAll(shapes, words);
        setMinSize(0, 0);
    }

    @Override
    protected final void layoutChildren() {
        double width = Math.floor(getWidth());
        double height = Math.floor(getHeight());
        double wanted = Optional.ofNullable(getScene()).map(Scene::getWindow)
                .map(window -> Math.max(1, window.getOutputScaleX())).orElse(1.0);
        if (words.getWidth() != width || words.getHeight() != height || wanted != scale || pen.isEmpty()) {
            words.setWidth(width);
            words.setHeight(height);
            scale = wanted;
            prepare();
            stale = true;
        }
        paintIfStale();
    }

    private void prepare() {
        int wide = (int) Math.round(words.getWidth() * scale);
        int high = (int) Math.round(words.getHeight() * scale);
        if (wide < 1 || high < 1) {
            pen = Optional.empty();
            return;
        }
        int[] pixels = new int[wide * high];
        PixelBuffer<IntBuffer> fresh = new PixelBuffer<>(wide, high, IntBuffer.wrap(pixels),
                PixelFormat.getIntArgbPreInstance());
        buffer = Optional.of(fresh);
        pen = Optional.of(new PixelPen(pixels, wide, high, scale, words.getGraphicsContext2D()));
        shapes.setImage(new WritableImage(fresh));
        shapes.setFitWidth(words.getWidth());
        shapes.setFitHeight(words.getHeight());
    }

    /** Paints anew with the next frame, or with the picture that is taken before it. */
    public final void repaint() {
        stale = true;
        setNeedsLayout(true);
        frame.ask();
    }

    private void paintIfStale() {
        if (!stale) {
            return;
        }
        stale = false;
        pen.ifPresent(p -> buffer.orElseThrow().updateBuffer(changed -> {
            p.clear();
            paint(p, words.getWidth(), words.getHeight());
            return null;
        }));
    }

    /** Draws everything; the area is clear. */
    protected abstract void paint(Pen pen, double width, double height);
}
