package zesty.signal.core.clean;

import java.util.Arrays;

/**
 * The mean of the last N samples. The running sum is added up anew once a window, so that rounding does not pile up
 * over hours.
 */
final class MovingMean implements Stage {
    private final double[] window;
    private final Start start;
    private int at;
    private double sum;
    private boolean started;

    MovingMean(int samples, Start start) {
        window = new double[samples];
        this.start = start;
    }

    @Override
    public void reset() {
        Arrays.fill(window, 0);
        at = 0;
        sum = 0;
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
                if (start == Start.SETTLED) {
                    Arrays.fill(window, x);
                    sum = x * window.length;
                }
            }
            sum += x - window[at];
            window[at] = x;
            if (++at == window.length) {
                at = 0;
                sum = 0;
                for (double value : window) {
                    sum += value;
                }
            }
            data[i] = sum / window.length;
        }
    }
}
