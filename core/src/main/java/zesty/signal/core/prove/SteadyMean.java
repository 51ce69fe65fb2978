package zesty.signal.core.prove;

import java.util.Arrays;

/**
 * A mean over the newest samples that says whether the signal is steady: its two halves then differ by no more than their
 * scatter lets expect. One thread.
 */
public final class SteadyMean {
    /** The halves may differ by so many standard errors of their difference. */
    private static final double STEADY_ERRORS = 3;

    private static final int FEWEST = 8;
    /** Share of the mean square that stays when the largest twentieth of normal differences is left out. */
    private static final double TRIMMED = 0.759;

    private SteadyMean() {}

    /**
     * @param mean of all samples
     * @param noise standard deviation from sample to sample, drift taken off
     * @param drift second half's mean less the first's
     */
    public record Held(int samples, double mean, double noise, double drift, boolean steady) {}

    /**
     * @param values missing ones are left out
     * @param step what one step of the converter is worth: less than that is no drift
     */
    public static Held of(double[] values, int length, double step) {
        int n = 0;
        double[] kept = new double[length];
        for (int i = 0; i < length; i++) {
            if (!Double.isNaN(values[i])) {
                kept[n++] = values[i];
            }
        }
        if (n < FEWEST) {
            return new Held(n, Double.NaN, Double.NaN, Double.NaN, false);
        }
        double first = mean(kept, 0, n / 2);
        double second = mean(kept, n / 2, n);
        double noise = noise(kept, n);
        double error = noise * Math.sqrt(4.0 / n);
        double drift = second - first;
        boolean steady = Math.abs(drift) <= Math.max(STEADY_ERRORS * error, step);
        return new Held(n, mean(kept, 0, n), noise, drift, steady);
    }

    /**
     * Half the mean square of successive differences is the variance without what moves slowly (von Neumann 1941, The mean
     * square successive difference). The largest twentieth is left out, so that a jump is no noise; for normal scatter
     * 0.759 of the mean square stays.
     */
    private static double noise(double[] kept, int n) {
        double[] squares = new double[n - 1];
        for (int i = 1; i < n; i++) {
            squares[i - 1] = (kept[i] - kept[i - 1]) * (kept[i] - kept[i - 1]);
        }
        Arrays.sort(squares);
        int used = Math.max(1, squares.length - Math.max(1, squares.length / 20));
        double sum = 0;
        for (int i = 0; i < used; i++) {
            sum += squares[i];
        }
        return Math.sqrt(sum / used / 2 / TRIMMED);
    }

    private static double mean(double[] values, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += values[i];
        }
        return sum / Math.max(1, to - from);
    }
}
