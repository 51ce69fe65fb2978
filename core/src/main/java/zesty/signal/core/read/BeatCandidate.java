package zesty.signal.core.read;

import java.util.Arrays;

/**
 * A bump that may be a beat.
 *
 * @param seconds when its peak was, the filter's delay taken off
 * @param height of the peak in the filtered signal
 * @param shape the filtered signal around the peak, {@link BeatFinder#SHAPE_POINTS} points, mean 0 and length 1
 * @param from index of the first point of the shape that lies within the record
 * @param to one past the last one that does
 */
record BeatCandidate(double seconds, double height, double[] shape, int from, int to) {

    /** @return whether the whole shape lies within the record */
    boolean whole() {
        return from == 0 && to == shape.length;
    }

    /** @return how alike this one's shape and another are, over the part that lies within the record */
    double likeness(double[] other) {
        if (whole()) {
            return likeness(shape, other);
        }
        double[] a = normalise(Arrays.copyOfRange(shape, from, to));
        return likeness(a, normalise(Arrays.copyOfRange(other, from, to)));
    }

    /** @return how alike two shapes are: 1 the same, 0 nothing in common */
    static double likeness(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += a[i] * b[i];
        }
        return sum;
    }

    /** Takes the mean off and makes the length 1, in place. @return the same array */
    static double[] normalise(double[] shape) {
        double mean = 0;
        for (double value : shape) {
            mean += value / shape.length;
        }
        double square = 0;
        for (int i = 0; i < shape.length; i++) {
            shape[i] -= mean;
            square += shape[i] * shape[i];
        }
        double norm = Math.sqrt(square);
        for (int i = 0; i < shape.length; i++) {
            shape[i] = norm > 0 ? shape[i] / norm : 0;
        }
        return shape;
    }
}
