package zesty.signal.app.window.lanes;

import java.util.List;
import zesty.signal.app.window.drawing.LaneColours;
import zesty.signal.core.read.Event;
import zesty.signal.engine.ReaderSnapshot;

/**
 * Paints what a reader found over its lane: a moment that is believed as a seed above the line, one that comes before its
 * time with a bar on top, one that is not believed as an empty seed; a stretch as a wash, dotted where it is in doubt.
 * Pure pixels.
 */
final class EventPainter {
    /** Height of the strip above the line that the seeds stand in, in pixels. */
    static final int STRIP = 15;

    private static final int HALF_WIDTH = 3;
    private static final int HEIGHT = 9;
    private static final int CROWDED = 2 * HALF_WIDTH + 1;
    /** How strong the wash of a stretch is, and its dots where it is in doubt, 0 … 1. */
    private static final float WASH = 0.14f;

    private static final float DOTS = 0.45f;

    private int[] pixels;
    private int width;
    private int height;
    private LaneColours colours;

    /** @param rate what there is to see of moments that have no room; null where they have */
    void paint(
            int[] target,
            int wide,
            int high,
            ReaderSnapshot reader,
            RateLine rate,
            ColumnEdges edges,
            LaneColours with) {
        pixels = target;
        width = wide;
        height = high;
        colours = with;
        stretches(reader, edges);
        if (rate != null) {
            rate(rate);
        }
        moments(reader, edges, rate == null);
    }

    /** The rate from below to above the lane, two pixels strong. */
    private void rate(RateLine rate) {
        double room = height - STRIP - 10.0;
        double before = Double.NaN;
        for (int x = 0; x < width; x++) {
            double y = STRIP + 5 + room * (rate.high() - rate.at(x)) / (rate.high() - rate.low());
            if (y == y) {
                double from = Double.isNaN(before) ? y : Math.min(y, before);
                double to = Double.isNaN(before) ? y : Math.max(y, before);
                for (int row = (int) Math.floor(from); row <= Math.ceil(to) + 1; row++) {
                    dot(x, row, colours.line(), 1);
                }
            }
            before = y;
        }
    }

    private void stretches(ReaderSnapshot reader, ColumnEdges edges) {
        for (Event event : reader.events()) {
            if (!event.lasts()) {
                continue;
            }
            int from = (int) Math.max(0, Math.round(edges.pixelOf(event.startSeconds() + reader.lateSeconds())));
            int to = (int) Math.min(width - 1, Math.round(edges.pixelOf(event.endSeconds() + reader.lateSeconds())));
            boolean believed = event.believed();
            int colour = believed ? colours.line() : colours.ink();
            float weight = believed ? WASH : DOTS;
            // What lies below is mostly of one colour: it is mixed once.
            int below = colours.card();
            int mixed = LaneColours.mix(below, colour, weight);
            // Line by line, as they lie in memory.
            for (int y = 1; y < height - 1; y++) {
                if (!believed && y % 6 >= 2) {
                    continue;
                }
                for (int x = from; x <= to; x++) {
                    if (believed || x % 6 < 2) {
                        int at = y * width + x;
                        if (pixels[at] != below) {
                            below = pixels[at];
                            mixed = LaneColours.mix(below, colour, weight);
                        }
                        pixels[at] = mixed;
                    }
                }
            }
        }
    }

    private void moments(ReaderSnapshot reader, ColumnEdges edges, boolean seeds) {
        double before = -100;
        List<Event> events = reader.events();
        for (Event event : events) {
            double x = event.lasts() ? Double.NaN : edges.pixelOf(event.startSeconds() + reader.lateSeconds());
            if (!(x >= -HALF_WIDTH && x <= width + HALF_WIDTH)) {
                continue;
            }
            if (!event.believed()) {
                empty(x);
                continue;
            }
            if (!seeds) {
                // The rate stands for them.
                before = x;
            } else if (x - before >= 0 && x - before < CROWDED) {
                // Too close for a seed each: a bar tells that they are there.
                for (int k = (int) Math.max(0, before); k <= x && k < width; k++) {
                    for (int y = 5; y < 9; y++) {
                        pixels[y * width + k] = colours.line();
                    }
                }
            } else {
                seed(x);
            }
            if (!event.why().isEmpty()) {
                bar(x);
            }
            before = x;
        }
    }

    private static double half(int y) {
        double down = (y + 0.5) / HEIGHT;
        // Pointed above, round below.
        return HALF_WIDTH * Math.sqrt(down) * Math.sqrt(Math.max(0, 1 - Math.pow(down, 3.5))) * 1.25;
    }

    private void seed(double centre) {
        for (int y = 0; y < HEIGHT; y++) {
            double half = half(y);
            for (int x = (int) Math.floor(centre - half); x <= centre + half; x++) {
                double cover = Math.min(x + 1, centre + half) - Math.max(x, centre - half);
                dot(x, y + 3, colours.line(), (float) cover);
            }
        }
    }

    /** Only its outline: seen, but not believed. */
    private void empty(double centre) {
        for (int y = 0; y < HEIGHT; y++) {
            double half = half(y);
            boolean end = y == 0 || y == HEIGHT - 1;
            for (int x = (int) Math.round(centre - half); x <= Math.round(centre + half); x++) {
                boolean edge = end || x == Math.round(centre - half) || x == Math.round(centre + half);
                if (edge) {
                    dot(x, y + 3, colours.ink(), 0.75f);
                }
            }
        }
    }

    private void bar(double centre) {
        for (int x = (int) Math.round(centre) - 4; x <= Math.round(centre) + 4; x++) {
            dot(x, 1, colours.ink(), 0.9f);
            dot(x, 2, colours.ink(), 0.9f);
        }
    }

    private void dot(int x, int y, int colour, float weight) {
        if (x >= 0 && x < width && y >= 0 && y < height && weight > 0) {
            int at = y * width + x;
            pixels[at] = LaneColours.mix(pixels[at], colour, weight);
        }
    }
}
