package zesty.signal.core.read.supply;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Order;

/**
 * Steps of a load: places where a signal leaps within a few samples and stays. Levels beside a step are medians, so that a stray sample is
 * no step; a slope is none, because the signal must be at rest on both sides.
 */
public final class LoadSteps {
    /** Samples that a level beside a step is the median of. */
    private static final int LEVEL = 5;

    /** Samples that a step may take. */
    private static final int EDGE = 3;

    /** A step is this many times the noise of one sample, a level being the median of five. Found by trying: 6 and 10 find the same. */
    private static final double NOISE_TIMES = 8;

    /** A step is at least this share of the whole range. */
    private static final double RANGE_SHARE = 0.05;

    /** Beside a step the signal moves by no more than this share of it. */
    private static final double REST_SHARE = 0.35;

    private LoadSteps() {}

    /** @param at index of the first sample that is past it; {@code change} of the level */
    public record Step(int at, double change) {}

    /** @param x no value missing. @return the steps in order */
    public static List<Step> in(double[] x) {
        int n = x.length;
        List<Step> steps = new ArrayList<>();
        if (n < 2 * LEVEL + EDGE) {
            return steps;
        }
        double[] leaps = new double[n - 1];
        double low = x[0];
        double high = x[0];
        for (int i = 0; i < n - 1; i++) {
            leaps[i] = Math.abs(x[i + 1] - x[i]);
            low = Math.min(low, x[i + 1]);
            high = Math.max(high, x[i + 1]);
        }
        double noise = 1.4826 * Order.median(leaps) / Math.sqrt(2);
        double least = Math.max(NOISE_TIMES * noise, RANGE_SHARE * (high - low));
        if (!(least > 0)) {
            return steps;
        }
        int i = LEVEL;
        while (i + EDGE - 1 + LEVEL <= n) {
            double change = after(x, i) - before(x, i);
            if (Math.abs(change) >= least) {
                int best = i;
                for (int k = i; k < i + EDGE + LEVEL && k + EDGE - 1 + LEVEL <= n; k++) {
                    best = Math.abs(after(x, k) - before(x, k)) > Math.abs(after(x, best) - before(x, best)) ? k : best;
                }
                double found = after(x, best) - before(x, best);
                double left = moved(x, best - LEVEL);
                double right = moved(x, best + EDGE - 1);
                double rest = Math.max(Math.abs(left), Math.abs(right));
                // What the signal would have done by itself, going on as it does on both sides.
                double drift = (left + right) / 2 / (LEVEL - 2) * (LEVEL + EDGE - 1);
                if (rest <= REST_SHARE * Math.abs(found) + 4 * noise && Math.abs(found - drift) >= least) {
                    steps.add(new Step(steepest(x, best), found));
                    i = best + EDGE + LEVEL;
                    continue;
                }
            }
            i++;
        }
        return steps;
    }

    /** The first sample after the steepest leap of an edge. */
    private static int steepest(double[] x, int edge) {
        int at = edge;
        for (int k = edge; k < edge + EDGE; k++) {
            at = Math.abs(x[k] - x[k - 1]) > Math.abs(x[at] - x[at - 1]) ? k : at;
        }
        return at;
    }

    private static double before(double[] x, int i) {
        return Order.median(Arrays.copyOfRange(x, i - LEVEL, i));
    }

    private static double after(double[] x, int i) {
        return Order.median(Arrays.copyOfRange(x, i + EDGE - 1, i + EDGE - 1 + LEVEL));
    }

    /** How far the level moves from the first two of its samples to the last two. */
    private static double moved(double[] x, int from) {
        return (x[from + LEVEL - 1] + x[from + LEVEL - 2] - x[from] - x[from + 1]) / 2;
    }

    /**
     * @return by how much another signal changes at a step, its level beside it measured in the same way; NaN too near an end
     */
    public static double changeOf(double[] y, Step step) {
        int i = step.at();
        if (i < LEVEL || i + 1 + LEVEL > y.length) {
            return Double.NaN;
        }
        return Order.median(Arrays.copyOfRange(y, i + 1, i + 1 + LEVEL))
                - Order.median(Arrays.copyOfRange(y, Math.max(0, i - 1 - LEVEL), i - 1));
    }
}
