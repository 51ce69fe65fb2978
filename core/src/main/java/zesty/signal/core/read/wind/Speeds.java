package zesty.signal.core.read.wind;

import java.util.Arrays;

/** Speeds of the wind in m/s, each of which holds from one moment to the next. Moments are seconds and rise. Not safe for several threads. */
final class Speeds {
    static final double GUST_SECONDS = 3;
    private static final double GRID_SECONDS = 0.25;

    private double[] until = new double[256];
    private double[] mps = new double[256];
    private int count;
    private double from = Double.NaN;

    /** Means over the length of a gust: the slowest and the fastest. */
    record Extremes(double lull, double gust) {}

    void add(double begin, double end, double speed) {
        if (Double.isNaN(from)) {
            from = begin;
        }
        if (count == until.length) {
            until = Arrays.copyOf(until, 2 * count);
            mps = Arrays.copyOf(mps, 2 * count);
        }
        until[count] = end;
        mps[count++] = speed;
    }

    double from() {
        return from;
    }

    double end() {
        return count == 0 ? from : until[count - 1];
    }

    /** @return seconds that are known; NaN where none are */
    double length() {
        return end() - from;
    }

    boolean any() {
        return length() > 0;
    }

    /** @return metres of wind that have gone by at moments rising from the start, each */
    double[] way(double[] at) {
        double[] way = new double[at.length];
        double gone = 0;
        double since = from;
        int k = 0;
        for (int i = 0; i < at.length; i++) {
            while (k < count && until[k] <= at[i]) {
                gone += (until[k] - since) * mps[k];
                since = until[k++];
            }
            way[i] = gone + (k < count ? (at[i] - since) * mps[k] : 0);
        }
        return way;
    }

    /** @return NaN where nothing is known */
    double mean() {
        return any() ? way(new double[] {end()})[0] / length() : Double.NaN;
    }

    /** @return the mean of the newest so many seconds; NaN where the record is shorter */
    double newest(double seconds) {
        double begin = end() - seconds;
        if (!(begin >= from - 1e-9)) {
            return Double.NaN;
        }
        double[] way = way(new double[] {begin, end()});
        return (way[1] - way[0]) / seconds;
    }

    /** @return the mean of each full second from the start on, of the whole where it is shorter than one */
    double[] ofSeconds() {
        double[] means = new double[any() ? (int) Math.max(1, Math.floor(length() + 1e-9)) : 0];
        for (int i = 0; i < means.length; i++) {
            double[] way = way(new double[] {from + i, Math.min(from + i + 1, end())});
            means[i] = (way[1] - way[0]) / Math.min(1, length());
        }
        return means;
    }

    /** @return NaN where nothing is known */
    Extremes extremes() {
        if (!any()) {
            return new Extremes(Double.NaN, Double.NaN);
        }
        double window = Math.min(GUST_SECONDS, length());
        int steps = (int) Math.max(0, Math.floor((length() - window) / GRID_SECONDS + 1e-9));
        double[] begins = new double[steps + 1];
        double[] ends = new double[steps + 1];
        for (int i = 0; i <= steps; i++) {
            begins[i] = from + i * GRID_SECONDS;
            ends[i] = begins[i] + window;
        }
        double[] before = way(begins);
        double[] after = way(ends);
        double low = Double.MAX_VALUE;
        double high = 0;
        for (int i = 0; i <= steps; i++) {
            double mean = (after[i] - before[i]) / window;
            low = Math.min(low, mean);
            high = Math.max(high, mean);
        }
        return new Extremes(low, high);
    }
}
