package zesty.signal.core.clean;

import java.util.Arrays;
import org.hipparchus.analysis.interpolation.AkimaSplineInterpolator;
import org.hipparchus.analysis.polynomials.PolynomialSplineFunction;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Brings samples that came unevenly, or at another rate, to a steady rate: by the curve of H. Akima 1970, "A new method of
 * interpolation and smooth curve fitting based on local procedures", which does not swing beside a step. What would fold is taken off
 * before, by a Butterworth low-pass of order 8 at 0.4 of the new rate, run both ways.
 */
public final class Resampler {
    /** More samples than this are a slip of the pen. */
    private static final double MOST = 1e9;

    private static final int FEWEST = 5;
    private static final double CORNER = 0.4;
    private static final int ORDER = 8;

    private Resampler() {}

    /** Samples at a steady rate. @param firstSeconds time of the first one */
    public record Steady(double firstSeconds, double rateHz, double[] values) {}

    /**
     * @param seconds of each sample, never falling; no gap between them
     * @param rateHz of the samples, as far as they have one
     * @param wantedHz the new rate
     * @return those from the first whole period on, none beyond the last sample
     * @throws RecipeException when there are too few samples, or the rate makes no sense
     */
    public static Steady steady(double[] seconds, double[] values, double rateHz, double wantedHz) {
        double[] x = new double[seconds.length];
        double[] y = new double[seconds.length];
        int n = 0;
        for (int i = 0; i < seconds.length; i++) {
            // Rows of one moment count as one, the newest; what is missing is bridged.
            if (values[i] == values[i]) {
                n -= n > 0 && !(seconds[i] > x[n - 1]) ? 1 : 0;
                x[n] = seconds[i];
                y[n++] = values[i];
            }
        }
        if (n < FEWEST) {
            throw new RecipeException(
                    Messages.of("clean.resample-samples-in-a-segment-are", Digits.exact(wantedHz), n, FEWEST));
        }
        double length = (x[n - 1] - x[0]) * wantedHz;
        if (!(length >= 1 && length <= MOST)) {
            throw new RecipeException(Messages.of(
                    "clean.resample-a-segment-of-s-would-have",
                    Digits.exact(wantedHz),
                    Digits.about(x[n - 1] - x[0], 4),
                    Digits.about(length, 4),
                    Digits.about(1 / (x[n - 1] - x[0]), 4)));
        }
        double[] smooth = Arrays.copyOf(y, n);
        if (CORNER * wantedHz < rateHz / 2) {
            new LowPass(CORNER * wantedHz, ORDER).bothWays(smooth, rateHz);
        }
        PolynomialSplineFunction curve = new AkimaSplineInterpolator().interpolate(Arrays.copyOf(x, n), smooth);
        // A hair of room, so that a moment that was rounded does not cost a sample.
        long first = (long) Math.ceil(x[0] * wantedHz - 1e-6);
        long last = (long) Math.floor(x[n - 1] * wantedHz + 1e-6);
        double[] out = new double[(int) (last - first + 1)];
        for (int i = 0; i < out.length; i++) {
            out[i] = curve.value(Math.max(x[0], Math.min(x[n - 1], (first + i) / wantedHz)));
        }
        return new Steady(first / wantedHz, wantedHz, out);
    }
}
