package zesty.signal.core.spectrum;

import java.util.List;
import org.jtransforms.fft.DoubleFFT_1D;
import zesty.signal.core.text.Messages;

/**
 * Power spectral density as the mean over windowed segments that overlap (P. D. Welch 1967, "The use of fast Fourier
 * transform for the estimation of power spectra"): one-sided, unit²/Hz, each segment's mean taken off. A last segment
 * that is not whole is left out, and so is one across a gap.
 */
public final class Welch {
    private final double rateHz;
    private final int segment;
    private final int step;
    private final double[] weights;
    private final double scale;
    private final DoubleFFT_1D transform;
    private final double[] sum;
    private int segments;

    /**
     * @param segment its length in samples, at least 1
     * @param overlap share of a segment that the next one has in common with it, 0 … below 1, rounded down to samples
     */
    public Welch(double rateHz, Window window, int segment, double overlap) {
        if (!(rateHz > 0) || segment < 1 || !(overlap >= 0 && overlap < 1)) {
            throw new IllegalArgumentException(
                    Messages.of("spectrum.a-spectrum-needs-a-rate-above-0-a", rateHz, segment, overlap));
        }
        this.rateHz = rateHz;
        this.segment = segment;
        step = segment - (int) Math.floor(overlap * segment);
        Plan plan = Plan.of(window, segment);
        weights = plan.weights();
        scale = 1 / (rateHz * plan.squares());
        transform = plan.transform();
        sum = new double[segment / 2 + 1];
    }

    /** Adds the segments of a run without a gap. */
    public void add(double[] values, int from, int to) {
        double[] work = new double[segment];
        for (int at = from; at + segment <= to; at += step) {
            double mean = 0;
            for (int i = 0; i < segment; i++) {
                mean += values[at + i];
            }
            mean /= segment;
            for (int i = 0; i < segment; i++) {
                work[i] = (values[at + i] - mean) * weights[i];
            }
            add(work);
        }
    }

    private void add(double[] work) {
        transform.realForward(work);
        int n = segment;
        boolean even = n % 2 == 0;
        sum[0] += work[0] * work[0];
        if (even && n > 1) {
            sum[n / 2] += work[1] * work[1];
        }
        // The packing of the library: real and imaginary part in turn; of an odd length the last imaginary part comes
        // first.
        for (int k = 1; k < (n + 1) / 2; k++) {
            double re = work[2 * k];
            double im = !even && k == (n - 1) / 2 ? work[1] : work[2 * k + 1];
            sum[k] += 2 * (re * re + im * im);
        }
        segments++;
    }

    /** @return how many segments went in */
    public int segments() {
        return segments;
    }

    /** @return the density at k · rate / segment, in unit²/Hz; NaN without a segment */
    public double[] density() {
        double[] density = new double[sum.length];
        for (int k = 0; k < density.length; k++) {
            density[k] = segments == 0 ? Double.NaN : sum[k] * scale / segments;
        }
        return density;
    }

    /** @return the frequencies that belong to it, in Hz */
    public double[] hz() {
        double[] hz = new double[sum.length];
        for (int k = 0; k < hz.length; k++) {
            hz[k] = k * rateHz / segment;
        }
        return hz;
    }

    /** @return the density of all runs together */
    public static Welch of(
            double[] values, List<int[]> runs, double rateHz, Window window, int segment, double overlap) {
        Welch welch = new Welch(rateHz, window, segment, overlap);
        for (int[] run : runs) {
            welch.add(values, run[0], run[1]);
        }
        return welch;
    }
}
