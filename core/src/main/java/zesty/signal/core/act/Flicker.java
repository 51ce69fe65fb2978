package zesty.signal.core.act;

import java.util.Arrays;
import zesty.signal.core.sample.Order;

/** How much hysteresis a signal's noise asks for, so that a limit in its midst does not turn back and forth. */
public final class Flicker {
    /** So long the noise is not to turn anything. */
    private static final double CALM_SECONDS = 600;
    /** What is slower than this is signal, not noise: a limit follows it. */
    private static final double SLOW_SECONDS = 1;

    private static final int FEWEST = 16;
    private static final int LEAST_AROUND = 9;
    /** Median absolute deviation to standard deviation, of a normal distribution. */
    private static final double MAD_TO_SD = 1.4826;

    private Flicker() {}

    /**
     * The standard deviation of what moves faster than a second, by the median so that steps and knocks do not count: what is left of a
     * centred moving mean (F. R. Hampel 1974, "The influence curve and its role in robust estimation", for the median).
     *
     * @param x the signal; NaN where a value is missing
     * @return in its unit; NaN where there is too little of it
     */
    public static double noise(double[] x, double rateHz) {
        double[] present = Arrays.stream(x).filter(v -> v == v).toArray();
        int n = present.length;
        int half = (int) Math.max(LEAST_AROUND / 2.0, Math.min(SLOW_SECONDS * rateHz / 2, n / 4.0));
        if (n < FEWEST) {
            return Double.NaN;
        }
        double[] sums = new double[n + 1];
        for (int i = 0; i < n; i++) {
            sums[i + 1] = sums[i] + present[i] - present[0];
        }
        double[] left = new double[n];
        for (int i = 0; i < n; i++) {
            int from = Math.max(0, i - half);
            int to = Math.min(n, i + half + 1);
            int around = to - from;
            double mean = present[0] + (sums[to] - sums[from]) / around;
            // The sample itself is in its mean.
            left[i] = Math.abs(present[i] - mean) * Math.sqrt(around / (around - 1.0));
        }
        return MAD_TO_SD * Order.median(left);
    }

    /**
     * The hysteresis between whose edges noise stays for ten minutes, wherever the signal stands: as wide as the noise's own extremes of so
     * many samples (E. J. Gumbel 1958, "Statistics of Extremes": √(2 ln n) standard deviations to either side), and one more.
     *
     * @param rateHz samples a second that the rule looks at
     * @return in the signal's unit; NaN where there is too little of it
     */
    public static double hysteresis(double[] x, double rateHz) {
        double samples = Math.max(2, CALM_SECONDS * rateHz);
        return 2 * noise(x, rateHz) * (Math.sqrt(2 * Math.log(samples)) + 1);
    }
}
