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
    /**
     * Samples that a level beside a step is the median of, and samples that the step itself may take. Loads that are switched for a few
     * samples only are looked for where no longer ones are found.
     */
    private record Reach(int level, int edge) {}

    private static final Reach LONG = new Reach(5, 3);
    private static final Reach SHORT = new Reach(3, 2);

    /** A step is this many times the noise of one sample, a level being the median of three or five. Found by trying: 6 and 10 find the same. */
    private static final double NOISE_TIMES = 8;

    /** A step is at least this share of the whole range. */
    private static final double RANGE_SHARE = 0.05;

    /** Beside a step the signal moves by no more than this share of it. */
    private static final double REST_SHARE = 0.35;

    private LoadSteps() {}

    /** @param at index of the first sample that is past it; {@code change} of the level; {@code level} samples beside it that make one */
    public record Step(int at, double change, int level) {}

    /** @param x no value missing. @return the steps in order */
    public static List<Step> in(double[] x) {
        List<Step> steps = in(x, LONG);
        return steps.isEmpty() ? in(x, SHORT) : steps;
    }

    private static List<Step> in(double[] x, Reach reach) {
        int n = x.length;
        int level = reach.level();
        int edge = reach.edge();
        List<Step> steps = new ArrayList<>();
        if (n < 2 * level + edge) {
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
        int i = level;
        while (i + edge - 1 + level <= n) {
            double change = change(x, i, reach);
            if (Math.abs(change) >= least) {
                int best = i;
                for (int k = i; k < i + edge + level && k + edge - 1 + level <= n; k++) {
                    best = Math.abs(change(x, k, reach)) > Math.abs(change(x, best, reach)) ? k : best;
                }
                double found = change(x, best, reach);
                double left = moved(x, best - level, level);
                double right = moved(x, best + edge - 1, level);
                double rest = Math.max(Math.abs(left), Math.abs(right));
                // What the signal would have done by itself, going on as it does on both sides.
                double drift = (left + right) / 2 / (level - 2) * (level + edge - 1);
                if (rest <= REST_SHARE * Math.abs(found) + 4 * noise && Math.abs(found - drift) >= least) {
                    steps.add(new Step(steepest(x, best, edge), found, level));
                    i = best + edge + level - 1;
                    continue;
                }
            }
            i++;
        }
        return steps;
    }

    /** The first sample after the steepest leap of an edge. */
    private static int steepest(double[] x, int from, int edge) {
        int at = from;
        for (int k = from; k < from + edge; k++) {
            at = Math.abs(x[k] - x[k - 1]) > Math.abs(x[at] - x[at - 1]) ? k : at;
        }
        return at;
    }

    private static double change(double[] x, int i, Reach reach) {
        int after = i + reach.edge() - 1;
        return Order.median(Arrays.copyOfRange(x, after, after + reach.level()))
                - Order.median(Arrays.copyOfRange(x, i - reach.level(), i));
    }

    /** How far the level moves from the first two of its samples to the last two. */
    private static double moved(double[] x, int from, int level) {
        return (x[from + level - 1] + x[from + level - 2] - x[from] - x[from + 1]) / 2;
    }

    /**
     * @return by how much another signal changes at a step, its level beside it measured in the same way; NaN too near an end
     */
    public static double changeOf(double[] y, Step step) {
        int i = step.at();
        int level = step.level();
        // With short levels every sample counts: the one before a step is still at rest.
        int margin = level > SHORT.level() ? 1 : 0;
        if (i - margin - level < 0 || i + margin + level > y.length) {
            return Double.NaN;
        }
        return Order.median(Arrays.copyOfRange(y, i + margin, i + margin + level))
                - Order.median(Arrays.copyOfRange(y, i - margin - level, i - margin));
    }
}
