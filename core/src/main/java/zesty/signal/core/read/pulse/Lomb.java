package zesty.signal.core.read.pulse;

import java.util.Arrays;

/**
 * The spectrum of values that do not come at even times: least squares with a sine at each frequency (N. R. Lomb 1976,
 * "Least-squares frequency analysis of unequally spaced data"; J. D. Scargle 1982).
 */
final class Lomb {
    private static final double PIECE_SECONDS = 300;

    private final double[] seconds;
    private final double[] values;
    private final double variance;

    /** @param values in any unit; their mean and slope are taken off */
    Lomb(double[] seconds, double[] values) {
        this.seconds = seconds;
        this.values = values.clone();
        int n = values.length;
        double meanT = 0;
        double meanV = 0;
        for (int i = 0; i < n; i++) {
            meanT += seconds[i] / n;
            meanV += values[i] / n;
        }
        double tt = 0;
        double tv = 0;
        for (int i = 0; i < n; i++) {
            tt += (seconds[i] - meanT) * (seconds[i] - meanT);
            tv += (seconds[i] - meanT) * (values[i] - meanV);
        }
        double squares = 0;
        for (int i = 0; i < n; i++) {
            this.values[i] -= meanV + (tt > 0 ? tv / tt : 0) * (seconds[i] - meanT);
            squares += this.values[i] * this.values[i];
        }
        variance = n > 1 ? squares / (n - 1) : 0;
    }

    /**
     * The power in a band of a long run, as the mean over pieces of five minutes: the length such bands are spoken of for
     * (Task Force of the European Society of Cardiology and the North American Society of Pacing and Electrophysiology
     * 1996, "Heart rate variability"), and a heart is not the same for an hour.
     *
     * @return in the square of the values' unit
     */
    static double meanBand(double[] seconds, double[] values, double lowHz, double highHz) {
        int n = seconds.length;
        double length = n == 0 ? 0 : seconds[n - 1] - seconds[0];
        int pieces = (int) Math.max(1, Math.round(length / PIECE_SECONDS));
        double sum = 0;
        int from = 0;
        for (int piece = 1; piece <= pieces; piece++) {
            int to = from;
            while (to < n && (piece == pieces || seconds[to] - seconds[0] < piece * length / pieces)) {
                to++;
            }
            sum += new Lomb(Arrays.copyOfRange(seconds, from, to), Arrays.copyOfRange(values, from, to))
                    .band(lowHz, highHz);
            from = to;
        }
        return sum / pieces;
    }

    double variance() {
        return variance;
    }

    /** @return the power at a frequency in units of the variance: of noise alone 1 on the mean, exponentially spread */
    double power(double hz) {
        double omega = 2 * Math.PI * hz;
        double sin2 = 0;
        double cos2 = 0;
        for (double t : seconds) {
            sin2 += Math.sin(2 * omega * t);
            cos2 += Math.cos(2 * omega * t);
        }
        double tau = Math.atan2(sin2, cos2) / (2 * omega);
        double c = 0;
        double cc = 0;
        double s = 0;
        double ss = 0;
        for (int i = 0; i < seconds.length; i++) {
            double cos = Math.cos(omega * (seconds[i] - tau));
            double sin = Math.sin(omega * (seconds[i] - tau));
            c += values[i] * cos;
            cc += cos * cos;
            s += values[i] * sin;
            ss += sin * sin;
        }
        return variance > 0 ? 0.5 * (c * c / Math.max(1e-12, cc) + s * s / Math.max(1e-12, ss)) / variance : 0;
    }

    /** @return the power between two frequencies, in the square of the values' unit */
    double band(double lowHz, double highHz) {
        int n = seconds.length;
        if (n < 3) {
            return Double.NaN;
        }
        double length = seconds[n - 1] - seconds[0];
        double step = 1 / (4 * length);
        double sum = 0;
        for (double hz = lowHz + step / 2; hz < highHz; hz += step) {
            // A sine's peak of n·A²/4 stands over a width of 1/length for its A²/2.
            sum += power(hz) * variance * 2 * length / n * step;
        }
        return sum;
    }
}
