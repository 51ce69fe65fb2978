package zesty.signal.core.sample;

import java.util.Arrays;

/**
 * How often each value comes.
 *
 * @param low the middle of the first bar
 * @param width of a bar: a whole number of the signal's steps
 * @param counts of each bar
 * @param step the smallest change there is; 0 when nothing changes
 * @param noise of one sample against its neighbours, slopes and bends not counted (median of second differences)
 */
public record Histogram(double low, double width, long[] counts, double step, double noise) {
    private static final int MOST_BARS = 120;

    /** @param values NaN ones are left out */
    public static Histogram of(double[] values) {
        double[] sorted = Arrays.stream(values).filter(v -> v == v).sorted().toArray();
        if (sorted.length == 0) {
            return new Histogram(0, 1, new long[0], 0, 0);
        }
        double step = Double.POSITIVE_INFINITY;
        double range = sorted[sorted.length - 1] - sorted[0];
        for (int i = 1; i < sorted.length; i++) {
            double apart = sorted[i] - sorted[i - 1];
            // What rounding leaves between equal values is no step.
            step = apart > 1e-9 * range && apart > 0 ? Math.min(step, apart) : step;
        }
        if (Double.isInfinite(step)) {
            return new Histogram(sorted[0], 1, new long[] {sorted.length}, 0, 0);
        }
        double width = step * Math.max(1, Math.ceil(range / step / (MOST_BARS - 1)));
        long[] counts = new long[(int) Math.floor(range / width + 0.5) + 1];
        for (double value : sorted) {
            counts[(int) Math.min(counts.length - 1, Math.floor((value - sorted[0]) / width + 0.5))]++;
        }
        return new Histogram(sorted[0], width, counts, step, noise(values, step));
    }

    private static double noise(double[] x, double step) {
        double[] bends = new double[Math.max(0, x.length - 2)];
        int n = 0;
        for (int i = 0; i + 2 < x.length; i++) {
            double bend = Math.abs(x[i] - 2 * x[i + 1] + x[i + 2]);
            if (bend == bend) {
                bends[n++] = bend;
            }
        }
        if (n == 0) {
            return 0;
        }
        double[] there = Arrays.copyOf(bends, n);
        double middle = Order.quantile(there, 0.5);
        double below = 0;
        double within = 0;
        for (double bend : there) {
            below += bend < middle - step / 2 ? 1 : 0;
            within += Math.abs(bend - middle) <= step / 2 ? 1 : 0;
        }
        // Whole steps have their median somewhere within one.
        double median = Math.max(0, middle - step / 2 + step * (n / 2.0 - below) / within);
        // White noise of one has second differences of √6; a normal spread is 1.4826 median distances.
        return 1.4826 * median / Math.sqrt(6);
    }

    /**
     * The bits of an ideal converter whose rounding alone would make this noise: log₂(full scale / (noise · √12)).
     *
     * @param fullScale from the least to the greatest number the converter can give, in the values' unit
     * @return at most those of the step itself
     */
    public double effectiveBits(double fullScale) {
        double floor = step / Math.sqrt(12);
        double own = Math.max(noise, floor);
        return own > 0 ? Math.log(fullScale / (own * Math.sqrt(12))) / Math.log(2) : Double.NaN;
    }
}
