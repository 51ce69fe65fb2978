package zesty.signal.core.clean;

/** y[n] = y[n−1] + α (x[n] − y[n−1]). */
final class ExponentialMean implements Stage {
    private final double alpha;
    private final Start start;
    private double y;
    private boolean started;

    ExponentialMean(double alpha, Start start) {
        this.alpha = alpha;
        this.start = start;
    }

    @Override
    public void reset() {
        y = 0;
        started = false;
    }

    @Override
    public void apply(double[] data, int offset, int length) {
        for (int i = offset; i < offset + length; i++) {
            double x = data[i];
            if (Double.isNaN(x)) {
                continue;
            }
            if (!started) {
                started = true;
                y = start == Start.SETTLED ? x : 0;
            }
            y += alpha * (x - y);
            data[i] = y;
        }
    }
}
