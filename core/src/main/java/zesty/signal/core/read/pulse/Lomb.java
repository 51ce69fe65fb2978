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

    /**
     * The power at evenly spaced frequencies in units of the variance: of noise alone 1 on the mean, exponentially spread.
     * The angle of each sample is turned on from one frequency to the next, so that there is no sine to work out within.
     */
    double[] powers(double fromHz, double stepHz, int count) {
        int n = seconds.length;
        double[] cos = new double[n];
        double[] sin = new double[n];
        double[] turnCos = new double[n];
        double[] turnSin = new double[n];
        for (int i = 0; i < n; i++) {
            // From the middle of the run the angles stay small, and what is rounded on the way with them.
            double t = seconds[i] - seconds[n / 2];
            cos[i] = Math.cos(2 * Math.PI * fromHz * t);
            sin[i] = Math.sin(2 * Math.PI * fromHz * t);
            turnCos[i] = Math.cos(2 * Math.PI * stepHz * t);
            turnSin[i] = Math.sin(2 * Math.PI * stepHz * t);
        }
        double[] powers = new double[count];
        for (int k = 0; k < count; k++) {
            double c = 0;
            double s = 0;
            double c2 = 0;
            double s2 = 0;
            for (int i = 0; i < n; i++) {
                double x = cos[i];
                double y = sin[i];
                c += values[i] * x;
                s += values[i] * y;
                c2 += x * x - y * y;
                s2 += 2 * x * y;
                cos[i] = x * turnCos[i] - y * turnSin[i];
                sin[i] = x * turnSin[i] + y * turnCos[i];
            }
            // The offset of time that makes cosine and sine independent, as an angle.
            double twice = Math.atan2(s2, c2);
            double half = twice / 2;
            double inPhase = c * Math.cos(half) + s * Math.sin(half);
            double across = s * Math.cos(half) - c * Math.sin(half);
            double length = c2 * Math.cos(twice) + s2 * Math.sin(twice);
            powers[k] = variance > 0
                    ? 0.5
                            * (inPhase * inPhase / Math.max(1e-12, (n + length) / 2)
                                    + across * across / Math.max(1e-12, (n - length) / 2))
                            / variance
                    : 0;
        }
        return powers;
    }

    /** @return the power at a frequency, as {@link #powers} */
    double power(double hz) {
        return powers(hz, 0, 1)[0];
    }

    /** @return the power between two frequencies, in the square of the values' unit */
    double band(double lowHz, double highHz) {
        int n = seconds.length;
        if (n < 3) {
            return Double.NaN;
        }
        double length = seconds[n - 1] - seconds[0];
        double step = 1 / (4 * length);
        int count = (int) Math.max(0, Math.ceil((highHz - lowHz) / step - 0.5));
        // A sine's peak of n·A²/4 stands over a width of 1/length for its A²/2.
        return Arrays.stream(powers(lowHz + step / 2, step, count)).sum() * variance * 2 * length / n * step;
    }
}
