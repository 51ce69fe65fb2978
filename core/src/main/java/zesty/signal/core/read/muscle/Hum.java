package zesty.signal.core.read.muscle;

/**
 * Takes mains out of a whole signal as the sine it is: its height and phase are the mean over some time to either side, so
 * that it may drift, and what is short and strong, a pull, hardly moves it. A filter as narrow as this would ring for as
 * long at the ends of a record; this has no memory.
 */
final class Hum {
    /** The mean is taken over so long to either side, in s. */
    private static final double REACH_SECONDS = 1;

    private Hum() {}

    /** Takes one frequency out, in place; a record shorter than a period of it tells nothing and stays as it is. */
    static void out(double[] x, double hz, double rateHz) {
        int n = x.length;
        if (n < rateHz / hz) {
            return;
        }
        double turn = 2 * Math.PI * hz / rateHz;
        double[] real = new double[n + 1];
        double[] imaginary = new double[n + 1];
        for (int i = 0; i < n; i++) {
            real[i + 1] = real[i] + x[i] * Math.cos(turn * i);
            imaginary[i + 1] = imaginary[i] + x[i] * Math.sin(turn * i);
        }
        // Whole periods to either side, so that a level does not look like a sine.
        int reach = (int) Math.round(Math.max(1, Math.rint(REACH_SECONDS * hz)) * rateHz / hz);
        for (int i = 0; i < n; i++) {
            int from = Math.max(0, i - reach);
            int to = Math.min(n, i + reach + 1);
            double a = 2 * (real[to] - real[from]) / (to - from);
            double b = 2 * (imaginary[to] - imaginary[from]) / (to - from);
            x[i] -= a * Math.cos(turn * i) + b * Math.sin(turn * i);
        }
    }
}
