package zesty.signal.app.window.lanes;

import java.util.HashMap;
import java.util.Map;
import zesty.signal.app.window.workspace.Shown;
import zesty.signal.app.window.workspace.TimeWindow;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.StreamSnapshot;

/** The time axis that all lanes have in common: which moment lies at which pixel. */
final class SharedTime {
    private final TimeTicks ticks = new TimeTicks();
    /** Streams share the time axis, but each has rows of its own. */
    private final Map<StreamSnapshot.Key, ColumnEdges> edges = new HashMap<>();

    private double from;
    private double span = 1;
    private int width;
    private double zero;

    /** Lays it out anew. @param pixels how wide the narrowest lane's plot is */
    void compute(Shown shown, Snapshot snapshot, long nanoTime, int pixels) {
        TimeWindow window = shown.window();
        width = pixels;
        span = window.span();
        double pixel = pixel();
        // On a grid of whole pixels a sample stays in its column while the picture moves.
        from = shown.isLive() ? Math.floor(window.from() / pixel) * pixel : window.from();
        for (StreamSnapshot stream : snapshot.streams()) {
            edges.computeIfAbsent(stream.key(), key -> new ColumnEdges())
                    .compute(stream.times(), from, from + span, width);
        }
        zero = !shown.isLive() ? 0 : window.following() ? window.to() : snapshot.nowSeconds(nanoTime);
        ticks.compute(from, from + span, width, zero, shown.isLive());
    }

    ColumnEdges edges(StreamSnapshot stream) {
        return edges.get(stream.key());
    }

    TimeTicks ticks() {
        return ticks;
    }

    double from() {
        return from;
    }

    int width() {
        return width;
    }

    /** @return the moment that times on the axis count from */
    double zero() {
        return zero;
    }

    /** @return how long a pixel is, in s */
    double pixel() {
        return span / Math.max(1, width);
    }

    double secondsAt(double x) {
        return from + x * pixel();
    }

    double pixelAt(double seconds) {
        return (seconds - from) / pixel();
    }
}
