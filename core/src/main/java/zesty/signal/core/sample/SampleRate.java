package zesty.signal.core.sample;

import java.util.Arrays;

/** The sample rate that a list of times says. */
public final class SampleRate {
    private static final double ROUNDING = 1e-6;
    /** A stretch of so many steps, and so many of the least there are, tells its pace to a few percent. */
    private static final int FEW = 64;

    private static final double FEW_TICKS = 20;
    /** Stretches whose paces differ by more are of a board that went on at another. */
    private static final double ALIKE = 0.05;

    private SampleRate() {}

    /**
     * @param seconds never falling, two at least
     * @return samples a second outside the gaps, and where they come at several paces that of most of them; a whole number
     *     where it is one but for rounding; NaN when no time passes
     */
    public static double of(double[] seconds) {
        double usual = usualStep(seconds);
        double longest = Gap.PERIODS * usual;
        boolean[] other = ofOtherPaces(seconds, longest);
        double sum = 0;
        int count = 0;
        double all = 0;
        int counted = 0;
        boolean after = false;
        for (int i = 1; i < seconds.length; i++) {
            double step = seconds[i] - seconds[i - 1];
            boolean gap = step > longest;
            if (other[i]) {
                after = gap;
                continue;
            }
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

    /** @return from when on samples come at another pace than most of them do, in s, and how many a second; null where none do */
    public static double[] otherPace(double[] seconds) {
        boolean[] other = ofOtherPaces(seconds, Gap.PERIODS * usualStep(seconds));
        int from = 0;
        while (from < other.length && !other[from]) {
            from++;
        }
        int to = from;
        while (to < other.length && other[to]) {
            to++;
        }
        return to - from < FEW ? null : new double[] {seconds[from], of(Arrays.copyOfRange(seconds, from, to))};
    }

    /** @return of each row whether it lies in a stretch that is faster or slower than most of them; none where none are most */
    private static boolean[] ofOtherPaces(double[] seconds, double longest) {
        double least = Double.POSITIVE_INFINITY;
        for (int i = 1; i < seconds.length; i++) {
            double step = seconds[i] - seconds[i - 1];
            least = step > 0 ? Math.min(least, step) : least;
        }
        int[] ends = new int[seconds.length / FEW + 1];
        double[] means = new double[ends.length];
        int stretches = 0;
        double sum = 0;
        int steps = 0;
        for (int i = 1; i < seconds.length; i++) {
            double step = seconds[i] - seconds[i - 1];
            sum += step > longest ? 0 : step;
            steps += step > longest ? 0 : 1;
            if (steps >= FEW && sum >= FEW_TICKS * least) {
                means[stretches] = sum / steps;
                ends[stretches++] = i;
                sum = 0;
                steps = 0;
            }
        }
        boolean[] other = new boolean[seconds.length];
        if (stretches < 2) {
            return other;
        }
        double usual = Order.median(Arrays.copyOf(means, stretches));
        int near = 0;
        for (int k = 0; k < stretches; k++) {
            near += Math.abs(means[k] / usual - 1) < ALIKE ? 1 : 0;
        }
        for (int k = 0; k < stretches && 2 * near > stretches; k++) {
            if (!(Math.abs(means[k] / usual - 1) < ALIKE)) {
                // What follows the last one is too short to tell its own.
                int end = k + 1 == stretches ? other.length : ends[k] + 1;
                Arrays.fill(other, k == 0 ? 0 : ends[k - 1] + 1, end, true);
            }
        }
        return other;
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
