package zesty.signal.core.read.pulse;

import java.util.Arrays;

/** Gives each value back so many samples later; the first one stands for those before it. */
final class Delay {
    private final double[] ring;
    private int at;
    private boolean started;

    Delay(int samples) {
        ring = new double[samples + 1];
    }

    void reset() {
        started = false;
    }

    double next(double x) {
        if (!started) {
            started = true;
            Arrays.fill(ring, x);
            at = 0;
        }
        ring[at] = x;
        at = at + 1 == ring.length ? 0 : at + 1;
        return ring[at];
    }
}
