package zesty.signal.core.read.vibration;

import java.util.Arrays;

/**
 * Tells samples that stand at an end of the range. A wave that is cut off lies flat at its highest value, again and
 * again; one that is only coarse lies flat there as well, but about as often one step below.
 */
final class Clipping {
    private static final int LEAST = 3;
    /** Of a wave in few steps the highest holds at most so many times as many samples as the one below it. */
    private static final double OF_STEPS = 4;
    /** A range of more steps than this is fine: the same value twice in a row at its very end is no chance. */
    private static final double FINE = 1000;

    private Clipping() {}

    /** Marks the samples of one axis that are clipped. */
    static void mark(double[] x, boolean[] clipped) {
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
            if (atEnd(rising, range) && inARow(x, side == 0 ? end : -end)) {
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
        double below = sorted[n - at - 1];
        if (end - below > range / FINE * 10) {
            int under = n - at - lowerBound(sorted, below);
            return at > OF_STEPS * under;
        }
        return true;
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
