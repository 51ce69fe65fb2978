package zesty.signal.core.clean;

import java.util.Arrays;

/** The median of the window around each sample. */
final class MovingMedian extends Centred {
    MovingMedian(int samples) {
        super(samples / 2);
    }

    @Override
    double answer(double[] window, int length, int centre) {
        return medianOf(window, length);
    }

    /** @return the median of the first {@code length} values, which are left sorted */
    static double medianOf(double[] values, int length) {
        Arrays.sort(values, 0, length);
        int middle = length / 2;
        return length % 2 == 1 ? values[middle] : (values[middle - 1] + values[middle]) / 2;
    }
}
