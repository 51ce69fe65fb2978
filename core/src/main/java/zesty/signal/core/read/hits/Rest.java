package zesty.signal.core.read.hits;

import java.util.Arrays;
import org.hipparchus.distribution.continuous.NormalDistribution;
import zesty.signal.core.sample.Order;

/**
 * What a signal does while nothing hits: its level, which may wander, and how far its quiet windows reach from it.
 */
final class Rest {
    /** The level is the median of blocks of so long, smoothed over three of them, in s. */
    private static final double BLOCK_SECONDS = 0.25;

    /** The share of the windows that are taken for quiet ones: in the others it may ring. */
    private static final double QUIET = 0.2;

    /** A median of so many is known to a fiftieth of the noise. */
    private static final int MOST_LOOKED_AT = 4096;

    /** And of so many to a twentieth, which the median over five blocks halves. */
    private static final int MOST_OF_BLOCK = 1024;

    private static final double QUIETEST = 0.05;
    /**
     * So many times the spread of the quiet windows above them is out of their reach: of noise, of which a window has 25
     * samples, that is 5.4 standard deviations, and one in ten million samples goes so far.
     */
    private static final double REACH = 12;

    private static final double LEAST_SHARE = 1.35;
    private static final NormalDistribution NORMAL = new NormalDistribution();

    private Rest() {}

    /** @return how far the signal is from its level, sample by sample */
    static double[] deviations(double[] x, double rateHz) {
        int block = Math.max(8, (int) Math.round(BLOCK_SECONDS * rateHz));
        int blocks = Math.max(1, x.length / block);
        double[] medians = new double[blocks];
        for (int b = 0; b < blocks; b++) {
            int to = b == blocks - 1 ? x.length : (b + 1) * block;
            medians[b] = middle(x, b * block, to, MOST_OF_BLOCK);
        }
        double[] smooth = new double[blocks];
        for (int b = 0; b < blocks; b++) {
            smooth[b] = Order.median(Arrays.copyOfRange(medians, Math.max(0, b - 2), Math.min(blocks, b + 3)));
        }
        double[] off = new double[x.length];
        for (int b = 0; b <= blocks; b++) {
            // From the middle of one block to that of the next the level goes in a line.
            int from = b == 0 ? 0 : b * block - block / 2;
            int to = b == blocks ? x.length : Math.min(x.length, (b + 1) * block - block / 2);
            double level = smooth[Math.max(0, b - 1)];
            double slope = b == 0 || b == blocks ? 0 : (smooth[b] - level) / block;
            for (int i = from; i < to; i++) {
                off[i] = x[i] - level - slope * (i - from);
            }
        }
        return off;
    }

    /** @return the level of a signal at rest: its median, of evenly chosen samples where there are very many */
    static double level(double[] x) {
        return middle(x, 0, x.length, MOST_LOOKED_AT);
    }

    private static double middle(double[] x, int from, int to, int most) {
        int every = Math.max(1, (to - from) / most);
        double[] some = new double[(to - from + every - 1) / every];
        int n = 0;
        for (int i = from; i < to; i += every) {
            if (x[i] == x[i]) {
                some[n++] = x[i];
            }
        }
        return Order.median(Arrays.copyOf(some, n));
    }

    /**
     * @param highest of each window, at least one
     * @param samples in a window
     * @param step of the converter: quiet windows of few counts look alike although they are not
     * @return what quiet ones do not reach
     */
    static double outOfReach(double[] highest, int samples, double step) {
        double[] sorted = highest.clone();
        Arrays.sort(sorted);
        double quiet = sorted[(int) (QUIET * (sorted.length - 1))];
        double quietest = sorted[(int) (QUIETEST * (sorted.length - 1))];
        double spread = quiet - quietest;
        double expected = quiet * (1 - highestOfNoise(QUIETEST, samples) / highestOfNoise(QUIET, samples));
        // Rounded to counts, the two may have come a count nearer to each other.
        spread = Math.max(spread, Math.min(expected, spread + step));
        return Math.max(quiet + REACH * spread, LEAST_SHARE * quiet);
    }

    /** @return what the highest of so many samples of noise stays below with that probability, in standard deviations */
    private static double highestOfNoise(double probability, int samples) {
        double each = Math.pow(probability, 1.0 / Math.max(2, samples));
        return NORMAL.inverseCumulativeProbability((1 + each) / 2);
    }
}
