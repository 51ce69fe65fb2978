package zesty.signal.core.decode;

import java.util.Arrays;

/**
 * The steady rate of rows that come without a clock, from when they arrive. A row may come late but never early, so the
 * rows lie above a line whose slope is the period; of all lines below them the one is taken that lies closest on the mean
 * over time (the lower convex hull; S. B. Moon, P. Skelly and D. Towsley 1999, "Estimation and removal of clock skew from
 * network delay measurements"). What waited in a buffer, a burst or a stall lies above it and moves nothing. Where the
 * newer half of what came disagrees with the whole, as after a buffer that was emptied row by row, the older half is left
 * out. One thread.
 */
public final class ArrivalClockFit {
    private static final int MOST = 2048;
    private static final double SHORTEST_SECONDS = 1;
    private static final double LONGEST_SECONDS = 3;
    private static final int MANY_ROWS = 60;
    private static final int ENOUGH_ROWS = 8;
    /** A half that is so much faster or slower than the whole is of another kind, as a share … */
    private static final double OTHER = 0.02;
    /** … and this many seconds of lateness over its length. */
    private static final double OTHER_SECONDS = 0.05;

    private static final double REFIT_SECONDS = 0.2;

    private final double[] rows = new double[MOST];
    private final double[] arrival = new double[MOST];
    private int count;
    private boolean began;
    private double lastRows;
    private double lastArrival;
    private double fittedAt = Double.NEGATIVE_INFINITY;
    private double period = Double.NaN;
    private double level;
    private double spanSeconds;
    private double lateness;
    private int used;

    /** So many rows had come by that time, in s on any steady clock. */
    public void saw(double rowsSoFar, double seconds) {
        if (!began) {
            // These came at some moment before: their arrival was not seen.
            began = true;
            lastRows = rowsSoFar;
            lastArrival = seconds;
            return;
        }
        if (rowsSoFar == lastRows) {
            return;
        }
        if (count == MOST) {
            thin();
        }
        rows[count] = rowsSoFar;
        arrival[count++] = seconds;
        lastRows = rowsSoFar;
        lastArrival = seconds;
        if (seconds - fittedAt >= Math.min(5, Math.max(REFIT_SECONDS, 0.02 * spanSeconds))) {
            fit();
            fittedAt = seconds;
        }
    }

    /** Of two neighbours the one that came less late stays. */
    private void thin() {
        double slope = Double.isNaN(period) ? 0 : period;
        int kept = 0;
        for (int i = 0; i + 1 < count; i += 2) {
            boolean first = arrival[i] - slope * rows[i] <= arrival[i + 1] - slope * rows[i + 1];
            rows[kept] = rows[first ? i : i + 1];
            arrival[kept++] = arrival[first ? i : i + 1];
        }
        count = kept;
    }

    /** @return whether the rate is known well enough to begin with: many rows in a second, or some in up to three */
    public boolean enough() {
        if (count < 4) {
            return false;
        }
        double seconds = lastArrival - arrival[0];
        double came = lastRows - rows[0];
        return seconds >= SHORTEST_SECONDS && came >= MANY_ROWS
                || seconds >= LONGEST_SECONDS
                || seconds >= SHORTEST_SECONDS && came >= ENOUGH_ROWS && count > came * 0.7;
    }

    /** @return whether nothing has come for so long that waiting for more is in vain */
    public boolean quiet(double nowSeconds) {
        return nowSeconds - lastArrival > SHORTEST_SECONDS;
    }

    private void fit() {
        int from = 0;
        double[] line = line(from);
        while (line != null) {
            double middle = (arrival[from] + arrival[count - 1]) / 2;
            int half = Arrays.binarySearch(arrival, from, count, middle);
            half = half < 0 ? -half - 1 : half;
            double seconds = arrival[count - 1] - middle;
            double[] newer = seconds < 0.4 || count - half < 6 ? null : line(half);
            if (newer == null || Math.abs(newer[0] / line[0] - 1) < OTHER + OTHER_SECONDS / seconds) {
                break;
            }
            from = half;
            line = newer;
        }
        if (line == null) {
            return;
        }
        period = line[0];
        level = line[1];
        spanSeconds = arrival[count - 1] - arrival[from];
        used = count - from;
        double[] late = new double[used];
        for (int i = 0; i < used; i++) {
            late[i] = arrival[from + i] - level - period * rows[from + i];
        }
        Arrays.sort(late);
        lateness = late[used / 2] - late[0];
    }

    /** @return slope and level of the line under the points from there on; null when they tell none */
    private double[] line(int from) {
        int n = count - from;
        if (n < 3) {
            return null;
        }
        int[] hull = new int[n];
        int size = 0;
        double weight = 0;
        double mean = 0;
        for (int i = from; i < count; i++) {
            // Every second counts as much, however many rows came in it.
            double own = i == from ? 0 : arrival[i] - arrival[i - 1];
            weight += own;
            mean += own * (rows[i] + rows[Math.max(from, i - 1)]) / 2;
            while (size >= 2 && !below(hull[size - 2], hull[size - 1], i)) {
                size--;
            }
            hull[size++] = i;
        }
        if (!(weight > 0)) {
            return null;
        }
        mean /= weight;
        for (int h = 1; h < size; h++) {
            int a = hull[h - 1];
            int b = hull[h];
            if (rows[b] >= mean || h == size - 1) {
                double slope = (arrival[b] - arrival[a]) / (rows[b] - rows[a]);
                return slope > 0 ? new double[] {slope, arrival[a] - slope * rows[a]} : null;
            }
        }
        return null;
    }

    /** Whether the middle point lies below the line from the first to the last. */
    private boolean below(int first, int middle, int last) {
        return (arrival[middle] - arrival[first]) * (rows[last] - rows[first])
                < (arrival[last] - arrival[first]) * (rows[middle] - rows[first]);
    }

    /** @return seconds from row to row; NaN until something tells */
    public double periodSeconds() {
        return period;
    }

    /** @return for how long what the period rests on has come, in s */
    public double spanSeconds() {
        return spanSeconds;
    }

    /** @return the standard uncertainty of the period as a share of it: how late rows usually are, over the time seen */
    public double uncertainty() {
        return Double.isNaN(period) || !(spanSeconds > 0)
                ? 1
                : Math.min(1, (2 * lateness + period) / (spanSeconds * Math.sqrt(Math.max(1, used / 12.0))));
    }

    /** @return when a row is due to arrive at the earliest, on the clock of arrival */
    double dueSeconds(double row) {
        return level + period * row;
    }
}
