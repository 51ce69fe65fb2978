package zesty.signal.core.read.wind;

import java.util.Arrays;
import zesty.signal.core.sample.Order;

/** The moments at which a contact closed, with its bouncing left out. */
final class Edges {
    /** A contact bounces for some milliseconds at most, in s. */
    private static final double LONGEST_BOUNCE_SECONDS = 0.012;
    /** And far shorter than a pulse lasts. */
    private static final double SHARE = 0.35;

    private Edges() {}

    /** @param all rising, in s @return those that are no bounce of the one before */
    static double[] withoutBounces(double[] all) {
        if (all.length < 3) {
            return all;
        }
        double[] gaps = new double[all.length - 1];
        for (int i = 1; i < all.length; i++) {
            gaps[i - 1] = all[i] - all[i - 1];
        }
        // Of a contact that bounces at each closing half the gaps are bounces: the longer ones are the pulses.
        double usual = Order.quantile(gaps, 0.75);
        double most = Math.min(LONGEST_BOUNCE_SECONDS, SHARE * usual);
        double[] kept = new double[all.length];
        int n = 0;
        for (double one : all) {
            if (n == 0 || one - kept[n - 1] > most) {
                kept[n++] = one;
            }
        }
        return Arrays.copyOf(kept, n);
    }

    /**
     * The rising edges of a square wave: past three quarters of its height after it was below a quarter.
     *
     * @param found where they are put, from {@code count} on
     * @return how many there are now
     */
    static int ofWave(
            double[] x, double[] seconds, int from, int to, double low, double high, double[] found, int count) {
        double up = low + 0.65 * (high - low);
        double down = low + 0.35 * (high - low);
        boolean closed = from < to && x[from] > (up + down) / 2;
        int n = count;
        for (int i = from; i < to; i++) {
            if (!closed && x[i] >= up) {
                closed = true;
                found[n++] = seconds[i];
            } else if (closed && x[i] <= down) {
                closed = false;
            }
        }
        return n;
    }
}
