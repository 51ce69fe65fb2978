package zesty.signal.core.clean;

import zesty.signal.core.sample.SortedWindow;

/**
 * Replaces a sample that stands out from its neighbours by their median: F. R. Hampel 1974, "The influence curve and
 * its role in robust estimation". Stands out is more than k · 1.4826 · the median absolute deviation.
 */
final class Despiker extends Ranked {
    /** Makes the median absolute deviation of normal noise its standard deviation: 1 / Φ⁻¹(3/4). */
    private static final double NORMAL = 1.4826;

    private final double k;

    Despiker(int half, double k) {
        super(half);
        this.k = k;
    }

    @Override
    double answer(double asked, SortedWindow window) {
        double median = window.median();
        return Math.abs(asked - median) > k * NORMAL * window.medianDeviation() ? median : asked;
    }
}
