package zesty.signal.engine;

import zesty.signal.core.rig.Limits;

/** Watches every sample of a channel against its limits; a breach is told for a while, so that a short one is seen. */
final class LimitWatch {
    private static final double TOLD_SECONDS = 2;

    private double worst = Double.NaN;
    private double seenSeconds = Double.NEGATIVE_INFINITY;

    /** Takes what was measured of a part; it holds a value at least. */
    void accept(Limits limits, ChannelChain.Part part) {
        int n = part.values.length;
        double now = part.seconds[n - 1];
        if (limits.none() || now - seenSeconds > TOLD_SECONDS) {
            worst = Double.NaN;
        }
        for (int i = 0; i < n && !limits.none(); i++) {
            double value = part.values[i];
            if (limits.beyond(value) && (part.holes == null || part.holes[i] == 0)) {
                boolean other = Double.isNaN(worst) || worst > limits.high() != value > limits.high();
                boolean further = value > limits.high() ? value > worst : value < worst;
                worst = other || further ? value : worst;
                seenSeconds = part.seconds[i];
            }
        }
    }

    /** @return the value furthest beyond a limit in the last seconds; NaN when there is none */
    double worst() {
        return worst;
    }
}
