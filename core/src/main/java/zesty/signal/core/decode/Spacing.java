package zesty.signal.core.decode;

/**
 * How evenly something comes: the scatter of its distances. Of what comes by chance their variance is nearly the square of their mean, of
 * what a rate brings next to nothing. One thread.
 */
final class Spacing {
    private double count;
    private double sum;
    private double squares;

    void saw(double distance) {
        count++;
        sum += distance;
        squares += distance * distance;
    }

    /** What came so far counts half from here on. */
    void halve() {
        count /= 2;
        sum /= 2;
        squares /= 2;
    }

    double count() {
        return count;
    }

    /** @return variance of the distances as a share of the square of their mean; NaN before the first */
    double scatter() {
        double mean = sum / count;
        return squares / count / (mean * mean) - 1;
    }
}
