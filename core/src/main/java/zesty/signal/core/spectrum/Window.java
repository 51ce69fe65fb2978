package zesty.signal.core.spectrum;

import java.util.Locale;

/**
 * Windows, periodic (for spectra), by their cosine terms: F. J. Harris 1978, "On the use of windows for harmonic analysis
 * with the discrete Fourier transform"; the flat top is that of G. D'Antona and A. Ferrero 2006.
 */
public enum Window {
    NONE(1),
    HANN(0.5, 0.5),
    BLACKMANHARRIS(0.35875, 0.48829, 0.14128, 0.01168),
    FLATTOP(0.21557895, 0.41663158, 0.277263158, 0.083578947, 0.006947368);

    private final double[] terms;

    Window(double... terms) {
        this.terms = terms;
    }

    /** @return its name on the command line */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** @return the weights of so many samples, one whole period of the window */
    public double[] weights(int length) {
        double[] weights = new double[length];
        if (length == 1) {
            weights[0] = 1;
            return weights;
        }
        for (int i = 0; i < length; i++) {
            for (int k = 0; k < terms.length; k++) {
                weights[i] += (k % 2 == 0 ? 1 : -1) * terms[k] * Math.cos(2 * Math.PI * k * i / length);
            }
        }
        return weights;
    }
}
