package zesty.signal.app.window.bench.source;

import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.paint.Paint;
import javafx.scene.shape.Rectangle;

/** The bytes of the last seconds as a row of bars: whether something comes, and how evenly. */
final class Heartbeat extends Region {
    private static final int BARS = 24;
    private static final double WIDTH = 3;
    private static final double STEP = 5;
    private static final double HEIGHT = 16;

    private final long[] came = new long[BARS];
    private final Rectangle[] bars = new Rectangle[BARS];
    /** After so long without a look the next one only counts from where it is. */
    private static final long FRESH_NANOS = 1_000_000_000L;

    private long before;
    private long lookedNanos = Long.MIN_VALUE;

    Heartbeat() {
        for (int i = 0; i < BARS; i++) {
            bars[i] = new Rectangle(i * STEP, HEIGHT - 1, WIDTH, 1);
            getChildren().add(bars[i]);
        }
        setMinSize(BARS * STEP, HEIGHT);
        setPrefSize(BARS * STEP, HEIGHT);
        setMaxSize(BARS * STEP, HEIGHT);
    }

    /** One beat: so many bytes there are by now. */
    void beat(long bytes, long nanoTime, Color colour) {
        boolean fresh = lookedNanos == Long.MIN_VALUE || nanoTime - lookedNanos > FRESH_NANOS;
        System.arraycopy(came, 1, came, 0, BARS - 1);
        came[BARS - 1] = fresh ? 0 : Math.max(0, bytes - before);
        before = bytes;
        lookedNanos = nanoTime;
        long most = 1;
        for (long each : came) {
            most = Math.max(most, each);
        }
        Paint paint = colour;
        for (int i = 0; i < BARS; i++) {
            double height = Math.max(1, HEIGHT * came[i] / most);
            bars[i].setY(HEIGHT - height);
            bars[i].setHeight(height);
            bars[i].setFill(paint);
        }
    }
}
