package zesty.signal.core.read.pulse;

import java.util.Arrays;

/** The mean of the last so many values; before that many have come, the first one stands for those that are missing. */
final class RunningMean {
    private final double[] ring;
    private int at;
    private double sum;
    private boolean started;

    RunningMean(int length) {
        ring = new double[Math.max(1, length)];
    }

    int length() {
        return ring.length;
    }

    /** @return by how many samples the mean stands behind, if it is taken as that of its middle */
    double delay() {
        return (ring.length - 1) / 2.0;
    }

    void reset() {
        started = false;
    }

    double next(double x) {
        if (!started) {
            started = true;
            Arrays.fill(ring, x);
            sum = x * ring.length;
            at = 0;
        }
        sum += x - ring[at];
        ring[at] = x;
        if (++at == ring.length) {
            at = 0;
            // Summed anew once a round, so that rounding does not pile up.
            sum = 0;
            for (double value : ring) {
                sum += value;
            }
        }
        return sum / ring.length;
    }
}
