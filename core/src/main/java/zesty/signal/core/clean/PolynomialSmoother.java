package zesty.signal.core.clean;

/**
 * The value at each sample of the polynomial fitted to the window around it: A. Savitzky and M. J. E. Golay 1964,
 * "Smoothing and Differentiation of Data by Simplified Least Squares Procedures". The first and last half windows of a
 * record take the polynomial of the first and last whole window.
 */
final class PolynomialSmoother extends Centred {
    private final int samples;
    /** weights[p][i]: what sample i of the window adds to the fitted value at its position p. */
    private final double[][] weights;

    PolynomialSmoother(int samples, int degree) {
        super(samples / 2);
        this.samples = samples;
        weights = weights(samples, degree);
    }

    @Override
    double answer(double[] window, int length, int centre) {
        if (length < samples) {
            return window[centre];
        }
        return fitted(window, 0, centre);
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
