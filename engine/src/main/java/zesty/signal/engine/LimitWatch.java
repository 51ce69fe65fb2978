package zesty.signal.engine;

import zesty.signal.core.rig.Limits;
import zesty.signal.core.sample.TimeBase;

/** Watches every sample of a channel against its limits; a breach is told for a while, so that a short one is seen. */
final class LimitWatch {
    private static final double TOLD_SECONDS = 2;

    private double worst = Double.NaN;
    private double seenSeconds = Double.NEGATIVE_INFINITY;

    void accept(Limits limits, double[] values, int n, TimeBase time) {
        double now = time.secondsAt(n - 1);
        if (limits.none() || now - seenSeconds > TOLD_SECONDS) {
            worst = Double.NaN;
        }
        for (int i = 0; i < n && !limits.none(); i++) {
            if (limits.beyond(values[i])) {
                boolean other = Double.isNaN(worst) || worst > limits.high() != values[i] > limits.high();
                boolean further = values[i] > limits.high() ? values[i] > worst : values[i] < worst;
                worst = other || further ? values[i] : worst;
                seenSeconds = time.secondsAt(i);
            }
        }
    }

    /** @return the value furthest beyond a limit in the last seconds; NaN when there is none */
    double worst() {
        return worst;
    }
}
