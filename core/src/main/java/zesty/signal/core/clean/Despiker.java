package zesty.signal.core.clean;

/**
 * Replaces a sample that stands out from its neighbours by their median: F. R. Hampel 1974, "The influence curve and
 * its role in robust estimation". Stands out is more than k · 1.4826 · the median absolute deviation.
 */
final class Despiker extends Centred {
    /** Makes the median absolute deviation of normal noise its standard deviation: 1 / Φ⁻¹(3/4). */
    private static final double NORMAL = 1.4826;

    private final double k;

    Despiker(int half, double k) {
        super(half);
        this.k = k;
    }

    @Override
    double answer(double[] window, int length, int centre) {
        double asked = window[centre];
        double median = MovingMedian.medianOf(window, length);
        for (int i = 0; i < length; i++) {
            window[i] = Math.abs(window[i] - median);
        }
        double deviation = MovingMedian.medianOf(window, length);
        return Math.abs(asked - median) > k * NORMAL * deviation ? median : asked;
    }
}
