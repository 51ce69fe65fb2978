package zesty.signal.core.read.vibration;

import java.util.Arrays;
import zesty.signal.core.sample.Order;

/**
 * Tells samples that stand at an end of the range. A wave that is cut off lies flat at its highest value, again and
 * again; one that is only coarse lies flat there as well, but about as often one step below.
 */
final class Clipping {
    private static final int LEAST = 3;
    /** Of a wave in few steps the highest holds at most so many times as many samples as the one below it. */
    private static final double OF_STEPS = 4;

    private static final double SAME = 1e-9;
    private static final double NEAR = 0.01;
    private static final double FINE = 4;
    private static final double CROWDED = 8;
    /** How often a value below the end comes is told from so many samples for each that stands at the end, or from so few. */
    private static final int NEAREST = 4;

    private static final int FEW_NEAREST = 12;
    /** Values this many times as many steps apart as there are of them are sparse. */
    private static final double SPARSE = 2;

    private static final double MOSTLY = 0.75;

    private Clipping() {}

    /** Marks the samples of one axis that are clipped. */
    static void mark(double[] signal, boolean[] clipped) {
        double most =
                Arrays.stream(signal).filter(v -> v == v).map(Math::abs).max().orElse(0);
        // What differs by the rounding of its arithmetic alone is the same value.
        double[] x = Arrays.stream(signal)
                .map(v -> Math.rint(v / (most * SAME)) * (most * SAME))
                .toArray();
        double[] sorted = Arrays.stream(x).filter(v -> v == v).sorted().toArray();
        if (sorted.length < 2 * LEAST || !(sorted[sorted.length - 1] > sorted[0])) {
            return;
        }
        double[] down = new double[sorted.length];
        Arrays.setAll(down, i -> -sorted[sorted.length - 1 - i]);
        double range = sorted[sorted.length - 1] - sorted[0];
        for (int side = 0; side < 2; side++) {
            double[] rising = side == 0 ? sorted : down;
            double end = rising[rising.length - 1];
            if (atEnd(rising, range) && (stands(rising) || inARow(x, side == 0 ? end : -end))) {
                for (int i = 0; i < x.length; i++) {
                    clipped[i] |= (side == 0 ? x[i] : -x[i]) >= end;
                }
            }
        }
    }

    /** @param sorted rising: whether its last value is that of a range's end */
    private static boolean atEnd(double[] sorted, double range) {
        int n = sorted.length;
        double end = sorted[n - 1];
        int at = n - lowerBound(sorted, end);
        if (at < LEAST) {
            return false;
        }
        double near = range * NEAR;
        if (!fine(sorted, range)) {
            double below = sorted[n - at - 1];
            int under = n - at - lowerBound(sorted, below);
            return at > OF_STEPS * under;
        }
        // Of a wave that is not cut off, a step at its very end holds about as many samples as one just below.
        int under = n - at - lowerBound(sorted, end - near);
        double steps = near / step(sorted);
        return at > LEAST + CROWDED * under / steps;
    }

    /**
     * Whether the last value comes far more often than any of those next to it: that of a wave that repeats itself does not. Only
     * those nearest are asked: among all of a long record some value comes three times by chance. Where they are sparse some of
     * them come twice by chance, too, and what most of them do counts.
     */
    private static boolean stands(double[] sorted) {
        int first = lowerBound(sorted, sorted[sorted.length - 1]);
        int at = sorted.length - first;
        int from = Math.max(0, first - Math.max(FEW_NEAREST, NEAREST * at));
        if (from == first) {
            return true;
        }
        double[] often = new double[first - from];
        for (int i = from; i < first; ) {
            int end = i;
            while (end < first && sorted[end] == sorted[i]) {
                end++;
            }
            Arrays.fill(often, i - from, end - from, sorted[i] > sorted[0] ? end - i : 0);
            i = end;
        }
        boolean sparse = (sorted[first - 1] - sorted[from]) / step(sorted) > SPARSE * often.length;
        return at > LEAST * Order.quantile(often, sparse ? MOSTLY : 1);
    }

    /** Whether there are many steps within a hundredth of the range. */
    private static boolean fine(double[] sorted, double range) {
        return step(sorted) * FINE < range * NEAR;
    }

    private static double step(double[] sorted) {
        double least = Double.POSITIVE_INFINITY;
        for (int i = 1; i < sorted.length; i++) {
            double apart = sorted[i] - sorted[i - 1];
            least = apart > 0 ? Math.min(least, apart) : least;
        }
        return least;
    }

    private static int lowerBound(double[] sorted, double value) {
        int i = Arrays.binarySearch(sorted, value);
        i = i < 0 ? -i - 1 : i;
        while (i > 0 && sorted[i - 1] == value) {
            i--;
        }
        return i;
    }

    private static boolean inARow(double[] x, double end) {
        for (int i = 1; i < x.length; i++) {
            if (x[i] == end && x[i - 1] == end) {
                return true;
            }
        }
        return false;
    }
}
