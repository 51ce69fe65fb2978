package zesty.signal.engine;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;

/**
 * Brings what comes of several lines of samples into one order of time. A line that is behind is waited for as long as it is heard of;
 * what comes too late for its place comes at once. One thread.
 */
final class RowMerge {
    /** A line that was silent for so long is not waited for. */
    private static final long PATIENCE_NANOS = 400_000_000;

    /** What comes at one moment: an event of a watch, or values, one a watch. */
    record Moment(double seconds, int event, double[] values) {}

    /** Takes the moments in order. */
    interface Sink {
        void moment(Moment moment);
    }

    private static final class Line {
        final Deque<Moment> waiting = new ArrayDeque<>();
        double lastSeconds = Double.NEGATIVE_INFINITY;
        long heardNanos;
    }

    private final Map<Object, Line> lines = new HashMap<>();

    /** A line of samples counts from here on. */
    void join(Object key) {
        lines.computeIfAbsent(key, one -> new Line());
    }

    void add(Object key, Moment moment) {
        lines.get(key).waiting.addLast(moment);
    }

    /** A line has come as far as that. */
    void heard(Object key, double seconds, long nanos) {
        Line line = lines.get(key);
        line.lastSeconds = Math.max(line.lastSeconds, seconds);
        line.heardNanos = nanos;
    }

    /** Hands on what nothing earlier can still come before. */
    void release(long nanos, Sink sink) {
        double until = Double.POSITIVE_INFINITY;
        for (Line line : lines.values()) {
            if (nanos - line.heardNanos < PATIENCE_NANOS) {
                until = Math.min(until, line.lastSeconds);
            }
        }
        for (Line line = earliest(); line != null && line.waiting.peekFirst().seconds() <= until; line = earliest()) {
            sink.moment(line.waiting.pollFirst());
        }
    }

    private Line earliest() {
        Line first = null;
        for (Line line : lines.values()) {
            if (!line.waiting.isEmpty()
                    && (first == null
                            || line.waiting.peekFirst().seconds()
                                    < first.waiting.peekFirst().seconds())) {
                first = line;
            }
        }
        return first;
    }

    void clear() {
        lines.clear();
    }
}
