package zesty.signal.core.clean;

import java.util.Arrays;

/**
 * The value at each sample of the polynomial fitted to the window around it: A. Savitzky and M. J. E. Golay 1964,
 * "Smoothing and Differentiation of Data by Simplified Least Squares Procedures". The first and last half windows of a
 * record take the polynomial of the first and last whole window.
 */
final class PolynomialSmoother extends Centred {
    private static final int PIECE = 1024;

    private final int samples;
    /** weights[p][i]: what sample i of the window adds to the fitted value at its position p. */
    private final double[][] weights;
    /** The samples before a piece, and the piece. */
    private final double[] held;

    private final double[] sum = new double[PIECE];

    PolynomialSmoother(int samples, int degree) {
        super(samples / 2);
        this.samples = samples;
        weights = weights(samples, degree);
        held = new double[samples - 1 + PIECE];
        Arrays.fill(held, Double.NaN);
    }

    @Override
    public void reset() {
        super.reset();
        Arrays.fill(held, 0, samples - 1, Double.NaN);
    }

    /**
     * Weight by weight over a piece at once, which a processor does for several samples together; at the middle of the window the
     * weights are alike to either side, so that two samples take one multiplication. Where a value is missing, or before
     * the beginning, the sum is none, and the sample stays as it is.
     */
    @Override
    public void apply(double[] data, int offset, int length) {
        double[] middle = weights[half];
        for (int at = offset; at < offset + length; at += PIECE) {
            int n = Math.min(PIECE, offset + length - at);
            System.arraycopy(data, at, held, samples - 1, n);
            for (int i = 0; i < n; i++) {
                sum[i] = middle[half] * held[half + i];
            }
            int k = 0;
            for (; k + 3 <= half; k += 3) {
                three(middle, k, n);
            }
            for (; k < half; k++) {
                double weight = middle[k];
                int last = samples - 1 - k;
                for (int i = 0; i < n; i++) {
                    sum[i] += weight * (held[k + i] + held[last + i]);
                }
            }
            for (int i = 0; i < n; i++) {
                data[at + i] = sum[i] == sum[i] ? sum[i] : held[half + i];
            }
            System.arraycopy(held, n, held, 0, samples - 1);
        }
    }

    /** Three weights at a time: what is summed up is fetched and put back a third as often. */
    private void three(double[] middle, int k, int n) {
        double w0 = middle[k], w1 = middle[k + 1], w2 = middle[k + 2];
        int last = samples - 1 - k;
        for (int i = 0; i < n; i++) {
            double outer = Fused.add(w0, held[k + i] + held[last + i], sum[i]);
            double middling = Fused.add(w1, held[k + 1 + i] + held[last - 1 + i], outer);
            sum[i] = Fused.add(w2, held[k + 2 + i] + held[last - 2 + i], middling);
        }
    }

    @Override
    void moved(double gone, double came) {
        // The samples themselves are all that is looked at.
    }

    @Override
    double answer(double asked) {
        return asked;
    }

    private double fitted(double[] data, int from, int position) {
        double sum = 0;
        for (int i = 0; i < samples; i++) {
            sum += weights[position][i] * data[from + i];
        }
        return sum;
    }

    @Override
    void whole(double[] data) {
        double[] raw = data.clone();
        super.whole(data);
        if (raw.length >= samples) {
            for (int i = 0; i < half; i++) {
                double first = fitted(raw, 0, i);
                double last = fitted(raw, raw.length - samples, samples - 1 - i);
                data[i] = Double.isNaN(first) ? data[i] : first;
                data[data.length - 1 - i] = Double.isNaN(last) ? data[data.length - 1 - i] : last;
            }
        }
    }

    /** The projection onto polynomials, W = Σ q qᵀ over an orthonormal basis q made by Gram and Schmidt, done twice. */
    private static double[][] weights(int samples, int degree) {
        double[][] basis = new double[degree + 1][samples];
        double half = (samples - 1) / 2.0;
        for (int d = 0; d <= degree; d++) {
            for (int i = 0; i < samples; i++) {
                basis[d][i] = Math.pow((i - half) / half, d);
            }
            for (int pass = 0; pass < 2; pass++) {
                for (int e = 0; e < d; e++) {
                    double dot = dot(basis[d], basis[e]);
                    for (int i = 0; i < samples; i++) {
                        basis[d][i] -= dot * basis[e][i];
                    }
                }
            }
            double norm = Math.sqrt(dot(basis[d], basis[d]));
            for (int i = 0; i < samples; i++) {
                basis[d][i] /= norm;
            }
        }
        double[][] weights = new double[samples][samples];
        for (double[] q : basis) {
            for (int p = 0; p < samples; p++) {
                for (int i = 0; i < samples; i++) {
                    weights[p][i] += q[p] * q[i];
                }
            }
        }
        return weights;
    }

    private static double dot(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += a[i] * b[i];
        }
        return sum;
    }
}
