package zesty.signal.core.sample;

import java.util.Arrays;

/** The sample rate that a list of times says. */
public final class SampleRate {
    private static final double ROUNDING = 1e-6;

    private SampleRate() {}

    /**
     * @param seconds never falling, two at least
     * @return samples a second outside the gaps, a whole number where it is one but for rounding; NaN when no time passes
     */
    public static double of(double[] seconds) {
        double longest = Gap.PERIODS * usualStep(seconds);
        double sum = 0;
        int count = 0;
        double all = 0;
        int counted = 0;
        boolean after = false;
        for (int i = 1; i < seconds.length; i++) {
            double step = seconds[i] - seconds[i - 1];
            boolean gap = step > longest;
            if (!gap) {
                all += step;
                counted++;
            }
            // A board that was held up sends its next row late and the one after it in time: that step is short.
            if (!gap && !after) {
                sum += step;
                count++;
            }
            after = gap;
        }
        if (count * 2 < counted) {
            sum = all;
            count = counted;
        }
        double rate = sum > 0 ? count / sum : Double.NaN;
        double whole = Math.rint(rate);
        return Math.abs(rate - whole) <= ROUNDING * rate ? whole : rate;
    }

    /** The median of the steps that are not 0: coarse times repeat. */
    private static double usualStep(double[] seconds) {
        double[] steps = new double[seconds.length - 1];
        int n = 0;
        for (int i = 1; i < seconds.length; i++) {
            if (seconds[i] > seconds[i - 1]) {
                steps[n++] = seconds[i] - seconds[i - 1];
            }
        }
        Arrays.sort(steps, 0, n);
        return n == 0 ? 0 : steps[n / 2];
    }
}
