package zesty.signal.app.window.lanes;

import zesty.signal.app.window.drawing.LaneColours;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;

/**
 * Paints a signal as one vertical span a pixel column, from its lowest to its highest value there, with fractional
 * coverage at both ends. Between samples further apart than a pixel the line runs straight; across a gap it does not
 * run. Allocates nothing.
 */
final class SpanPainter {
    private static final int FARTHEST_ROW = 64;

    private final float[] extremes = new float[2];
    private int[] pixels;
    private int stride;
    private int height;
    private int dash;

    /** What is painted from now on is dashed: so many pixels on, so many off; 0 for none. */
    void dashed(int each) {
        dash = each;
    }

    /** The picture to paint into: rows of {@code stride} pixels. */
    void target(int[] picture, int pixelsPerRow, int rows) {
        pixels = picture;
        stride = pixelsPerRow;
        height = rows;
    }

    /**
     * @param shift sample i + shift of the series belongs to row i
     * @param factor and offset from a sample to the pixel row, y = factor · value + offset
     * @param longestStep rows further apart than this, in s, are not joined
     * @param thickness of the line, in pixels
     * @param weight of the colour, 0 … 1
     */
    void paint(
            Series series,
            Times times,
            ColumnEdges edges,
            int shift,
            double factor,
            double offset,
            double longestStep,
            float thickness,
            int colour,
            float weight) {
        long start = Math.max(series.start() - shift, times.start());
        long end = Math.min(series.end() - shift, times.end());
        float half = thickness / 2;
        // What is not at hand is seen by whole cells, which neighbours share.
        long first = Math.max(start, edges.at(0) - FARTHEST_ROW);
        long beyond = Math.min(end, edges.at(edges.width()) + FARTHEST_ROW);
        boolean joined = beyond > first && series.atHand(first + shift, beyond + shift);
        float previous = joined ? crossing(series, times, edges, 0, shift, start, end, longestStep) : Float.NaN;
        for (int x = 0; x < edges.width(); x++) {
            long from = Math.max(start, edges.at(x));
            long to = Math.min(end, edges.at(x + 1));
            float next = joined ? crossing(series, times, edges, x + 1, shift, start, end, longestStep) : Float.NaN;
            float low = previous;
            float high = previous;
            low = next >= low || next != next ? low : next;
            high = next <= high || next != next ? high : next;
            if (low != low) {
                low = next;
                high = next;
            }
            if (to > from) {
                series.range(from + shift, to + shift, extremes);
                low = low <= extremes[0] || extremes[0] != extremes[0] ? low : extremes[0];
                high = high >= extremes[1] || extremes[1] != extremes[1] ? high : extremes[1];
            }
            previous = next;
            if (low == low && (dash == 0 || x / dash % 2 == 0)) {
                double a = factor * low + offset;
                double b = factor * high + offset;
                span(x, (float) Math.min(a, b) - half, (float) Math.max(a, b) + half, colour, weight);
            }
        }
    }

    /** The value where the line crosses the left edge of column x; NaN where it does not. */
    private static float crossing(
            Series series, Times times, ColumnEdges edges, int x, int shift, long start, long end, double longestStep) {
        long right = edges.at(x);
        if (right <= start || right >= end) {
            return Float.NaN;
        }
        // Of a column that comes with some of the rows only, the nearest rows with a value.
        long before = right - 1;
        while (before > start && right - before < FARTHEST_ROW && Double.isNaN(series.value(before + shift))) {
            before--;
        }
        long after = right;
        while (after + 1 < end && after - right < FARTHEST_ROW && Double.isNaN(series.value(after + shift))) {
            after++;
        }
        double t0 = times.secondsAt(before);
        double t1 = times.secondsAt(after);
        if (t1 - t0 > longestStep || t1 <= t0) {
            return Float.NaN;
        }
        double a = series.value(before + shift);
        double b = series.value(after + shift);
        double part = (edges.secondsAt(x) - t0) / (t1 - t0);
        return (float) (a + (b - a) * Math.max(0, Math.min(1, part)));
    }

    private void span(int x, float top, float bottom, int colour, float weight) {
        float from = Math.max(0, top);
        float to = Math.min(height, bottom);
        if (!(to > from)) {
            return;
        }
        int first = (int) from;
        int last = Math.min(height - 1, (int) to);
        if (first == last) {
            blend(first * stride + x, colour, weight * (to - from));
            return;
        }
        blend(first * stride + x, colour, weight * (first + 1 - from));
        // What lies below is mostly of one colour: it is mixed once.
        int below = pixels[(first + 1) * stride + x];
        int mixed = weight >= 1 ? colour : LaneColours.mix(below, colour, weight);
        for (int y = first + 1; y < last; y++) {
            int at = y * stride + x;
            if (weight < 1 && pixels[at] != below) {
                below = pixels[at];
                mixed = LaneColours.mix(below, colour, weight);
            }
            pixels[at] = mixed;
        }
        blend(last * stride + x, colour, weight * (to - last));
    }

    private void blend(int at, int colour, float weight) {
        pixels[at] = weight >= 1 ? colour : LaneColours.mix(pixels[at], colour, weight);
    }
}
