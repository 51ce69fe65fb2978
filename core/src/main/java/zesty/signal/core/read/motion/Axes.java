package zesty.signal.core.read.motion;

import java.util.Arrays;
import java.util.stream.Collectors;
import java.util.stream.DoubleStream;
import zesty.signal.core.scale.Digits;

/**
 * Takes what three axes of a sensor read to what the body does: a matrix times the reading less an offset. It undoes scales,
 * axes that are swapped or turned, and offsets at once.
 *
 * @param matrix nine numbers, row by row: x forward, y left, z up
 * @param offset what the three axes read where there is nothing, in the sensor's own unit
 */
public record Axes(double[] matrix, double[] offset) {
    /** So many numbers are written of it: the matrix, then the offset. */
    public static final int NUMBERS = 12;

    private static final double[] NOTHING = {1, 0, 0, 0, 1, 0, 0, 0, 1};
    /** Nothing is changed. */
    public static final Axes AS_THEY_COME = new Axes(NOTHING, new double[3]);

    /** @param numbers twelve, as {@link #text} writes them; none for axes as they come */
    public static Axes of(double[] numbers) {
        return numbers.length == 0
                ? AS_THEY_COME
                : new Axes(Arrays.copyOf(numbers, 9), Arrays.copyOfRange(numbers, 9, NUMBERS));
    }

    /** @return its twelve numbers, parted by commas, as a setting takes them */
    public String text() {
        return DoubleStream.concat(Arrays.stream(matrix), Arrays.stream(offset))
                .mapToObj(value -> Digits.exact(Math.rint(value * 1e9) / 1e9))
                .collect(Collectors.joining(","));
    }

    /** @return what the body does, from what the sensor reads */
    public double[] apply(double[] read) {
        double[] body = new double[3];
        for (int row = 0; row < 3; row++) {
            for (int k = 0; k < 3; k++) {
                body[row] += matrix[3 * row + k] * (read[k] - offset[k]);
            }
        }
        return body;
    }

    /** @return these axes and then others: both matrices in one */
    Axes then(double[] other) {
        double[] product = new double[9];
        for (int row = 0; row < 3; row++) {
            for (int column = 0; column < 3; column++) {
                for (int k = 0; k < 3; k++) {
                    product[3 * row + column] += other[3 * row + k] * matrix[3 * k + column];
                }
            }
        }
        return new Axes(product, offset);
    }
}
