package zesty.signal.core.doctor;

import java.util.Arrays;
import zesty.signal.core.sample.Order;

/** What the single examinations share: the numbers that are there, their spread, their noise and their step, worked out once. */
final class Measures {
    /** A normal spread is so many times its median distance. */
    private static final double NORMAL = 1.4826;

    /** The values that are there, and when. */
    final double[] x;

    final double[] t;
    final double periodSeconds;
    final double rateHz;
    final double least;
    final double most;
    /** The smallest change there is. */
    final double step;
    /** How many different values there are, up to {@link #MANY}. */
    final int kinds;
    /** Half the width of the middle 68 %. */
    final double spread;
    /** Of one sample against its neighbours, slopes and bends not counted. */
    final double noise;
    /** Of the changes from one sample to the next, by their median, so that a few jumps do not count. */
    final double change;

    static final int MANY = 400;
    private static final int ENOUGH = 2048;

    Measures(Examined examined) {
        int n = 0;
        double[] values = new double[examined.values().length];
        double[] seconds = new double[values.length];
        for (int i = 0; i < values.length; i++) {
            if (examined.values()[i] == examined.values()[i]) {
                values[n] = examined.values()[i];
                seconds[n++] = examined.seconds()[i];
            }
        }
        x = Arrays.copyOf(values, n);
        t = Arrays.copyOf(seconds, n);
        double[] apart = new double[Math.max(0, seconds.length - 1)];
        for (int i = 0; i < apart.length; i++) {
            apart[i] = examined.seconds()[i + 1] - examined.seconds()[i];
        }
        periodSeconds = apart.length == 0 ? Double.NaN : median(apart, apart.length);
        rateHz = 1 / periodSeconds;
        double[] sorted = x.clone();
        Arrays.sort(sorted);
        least = n == 0 ? Double.NaN : sorted[0];
        most = n == 0 ? Double.NaN : sorted[n - 1];
        double smallest = Double.POSITIVE_INFINITY;
        int different = n == 0 ? 0 : 1;
        for (int i = 1; i < n; i++) {
            if (sorted[i] > sorted[i - 1]) {
                smallest = Math.min(smallest, sorted[i] - sorted[i - 1]);
                different++;
            }
        }
        step = Double.isInfinite(smallest) ? 0 : smallest;
        kinds = Math.min(MANY, different);
        spread = n < 4 ? 0 : (sorted[(int) (0.84 * n)] - sorted[(int) (0.16 * n)]) / 2;
        double[] bends = new double[Math.max(0, n - 2)];
        double[] changes = new double[Math.max(0, n - 1)];
        for (int i = 0; i < changes.length; i++) {
            changes[i] = Math.abs(x[i + 1] - x[i]);
            if (i < bends.length) {
                bends[i] = Math.abs(x[i] - 2 * x[i + 1] + x[i + 2]);
            }
        }
        // White noise of one has second differences of √6.
        noise = bends.length == 0 ? 0 : NORMAL * median(bends, bends.length) / Math.sqrt(6);
        change = changes.length == 0 ? 0 : NORMAL * median(changes, changes.length) / Math.sqrt(2);
    }

    /** Of many values each so-many-th is enough for their median. */
    private static double median(double[] values, int length) {
        int stride = Math.max(1, length / ENOUGH);
        double[] some = new double[(length + stride - 1) / stride];
        for (int i = 0; i < some.length; i++) {
            some[i] = values[i * stride];
        }
        return Order.quantile(some, 0.5);
    }

    int count() {
        return x.length;
    }

    double span() {
        return x.length < 2 ? 0 : t[t.length - 1] - t[0];
    }

    /** @return of such a step a change that no noise makes; at least some of the converter's steps */
    double jump() {
        return Math.max(10 * Math.max(change, noise), 6 * step);
    }
}
