package zesty.signal.core.read.muscle;

import java.util.Arrays;
import java.util.List;

/**
 * Takes mains out of a whole signal as the sine it is: its height and phase are the mean over some time to either side, so
 * that it may drift. A filter as narrow as this would ring for as long at the ends of a record; this has no memory. What a
 * pull holds of the same frequency would be taken for mains in the rest beside it, as high as the rest is itself, so the
 * quiet parts of that time tell most: each sample counts by one over the power around it, without mains (weighted least
 * squares with weights that a first round tells, as in F. Mosteller and J. W. Tukey 1977, "Data Analysis and Regression").
 */
final class Hum {
    /** The mean is taken over so long to either side, in s. */
    private static final double REACH_SECONDS = 1;
    /** The power around a sample is that of so long to either side, in s: some turns of mains. */
    private static final double POWER_SECONDS = 0.06;
    /** Power below this share of the mean one counts as this: a rest without any noise would be all that counts. */
    private static final double LEAST_POWER = 1e-3;

    private Hum() {}

    /** Takes frequencies out, in place; a record shorter than a period of one tells nothing of it. */
    static void out(double[] x, double rateHz, double... hz) {
        List<Sine> sines = Arrays.stream(hz)
                .filter(one -> x.length >= rateHz / one)
                .mapToObj(one -> Sine.of(one, rateHz, x.length))
                .toList();
        double[] first = x.clone();
        double[] alike = new double[x.length];
        Arrays.fill(alike, 1);
        sines.forEach(one -> out(first, one, alike));
        double[] weights = quietness(first, rateHz);
        sines.forEach(one -> out(x, one, weights));
    }

    /** A frequency at each sample. @param reach samples to either side that the mean is taken over */
    private record Sine(double[] cosine, double[] sine, int reach) {
        static Sine of(double hz, double rateHz, int n) {
            double turn = 2 * Math.PI * hz / rateHz;
            double[] cosine = new double[n];
            double[] sine = new double[n];
            for (int i = 0; i < n; i++) {
                cosine[i] = Math.cos(turn * i);
                sine[i] = Math.sin(turn * i);
            }
            // Whole periods to either side, so that a level does not look like a sine.
            int reach = (int) Math.round(Math.max(1, Math.rint(REACH_SECONDS * hz)) * rateHz / hz);
            return new Sine(cosine, sine, reach);
        }
    }

    private static double[] quietness(double[] x, double rateHz) {
        int n = x.length;
        double[] squares = new double[n + 1];
        for (int i = 0; i < n; i++) {
            squares[i + 1] = squares[i] + x[i] * x[i];
        }
        int reach = (int) Math.max(1, Math.round(POWER_SECONDS * rateHz));
        double least = n == 0 || squares[n] == 0 ? 1 : LEAST_POWER * squares[n] / n;
        double[] weights = new double[n];
        for (int i = 0; i < n; i++) {
            int from = Math.max(0, i - reach);
            int to = Math.min(n, i + reach + 1);
            weights[i] = least / Math.max(least, (squares[to] - squares[from]) / (to - from));
        }
        return weights;
    }

    private static void out(double[] x, Sine of, double[] weights) {
        int n = x.length;
        // Sums up to each sample of what the least squares of a height and a phase need.
        double[][] sums = new double[5][n + 1];
        for (int i = 0; i < n; i++) {
            double c = of.cosine()[i];
            double s = of.sine()[i];
            double w = weights[i];
            sums[0][i + 1] = sums[0][i] + w * c * c;
            sums[1][i + 1] = sums[1][i] + w * c * s;
            sums[2][i + 1] = sums[2][i] + w * s * s;
            sums[3][i + 1] = sums[3][i] + w * x[i] * c;
            sums[4][i + 1] = sums[4][i] + w * x[i] * s;
        }
        for (int i = 0; i < n; i++) {
            int from = Math.max(0, i - of.reach());
            int to = Math.min(n, i + of.reach() + 1);
            double cc = sums[0][to] - sums[0][from];
            double cs = sums[1][to] - sums[1][from];
            double ss = sums[2][to] - sums[2][from];
            double xc = sums[3][to] - sums[3][from];
            double xs = sums[4][to] - sums[4][from];
            double determinant = cc * ss - cs * cs;
            x[i] -= ((xc * ss - xs * cs) * of.cosine()[i] + (xs * cc - xc * cs) * of.sine()[i]) / determinant;
        }
    }
}
