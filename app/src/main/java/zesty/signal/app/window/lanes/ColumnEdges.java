package zesty.signal.app.window.lanes;

import zesty.signal.core.sample.Times;

/**
 * Which rows fall into which pixel column of a picture: column x shows the rows {@code at(x) … at(x + 1) - 1}. Worked
 * out once a frame for all lanes that share a time ring.
 */
final class ColumnEdges {
    /** Nobody sees a row that stands so far beside its place. */
    private static final double ROOM_PIXELS = 0.25;

    private long[] rows = new long[0];
    private int width;
    private double fromSeconds;
    private double secondsPerPixel;

    void compute(Times times, double from, double to, int pixels) {
        if (rows.length < pixels + 1) {
            rows = new long[pixels + 1];
        }
        width = pixels;
        fromSeconds = from;
        secondsPerPixel = (to - from) / pixels;
        for (int x = 0; x <= pixels; x++) {
            rows[x] = times.near(from + x * secondsPerPixel, ROOM_PIXELS * secondsPerPixel);
        }
    }

    long at(int x) {
        return rows[x];
    }

    int width() {
        return width;
    }

    double secondsAt(int x) {
        return fromSeconds + x * secondsPerPixel;
    }

    double pixelOf(double seconds) {
        return (seconds - fromSeconds) / secondsPerPixel;
    }
}
