package zesty.signal.core.clean;

import java.util.Arrays;

/**
 * A step that looks {@code half} samples either way. On a stream its answer comes {@code half} samples late; at the
 * ends of a record the window is as much as there is. A missing value within the window is not looked at.
 */
abstract class Centred implements Stage {
    final int half;
    private final double[] window;
    private final double[] ring;
    private long count;

    Centred(int half) {
        this.half = half;
        window = new double[2 * half + 1];
        ring = new double[2 * half + 1];
    }

    /**
     * @param window the samples around the one asked for, oldest first, missing ones left out
     * @param length how many there are, at least 1
     * @param centre the index in the window of the one asked for
     */
    abstract double answer(double[] window, int length, int centre);

    @Override
    public void reset() {
        count = 0;
    }

    @Override
    public int delaySamples() {
        return half;
    }

    @Override
    public void apply(double[] data, int offset, int length) {
        for (int i = offset; i < offset + length; i++) {
            ring[(int) (count % ring.length)] = data[i];
            count++;
            data[i] = count <= half ? Double.NaN : at(count - 1 - half, Math.max(0, count - ring.length), count);
        }
    }

    private double at(long centre, long from, long to) {
        double asked = ring[(int) (centre % ring.length)];
        if (Double.isNaN(asked)) {
            return Double.NaN;
        }
        int n = 0;
        int middle = 0;
        for (long k = from; k < to; k++) {
            double value = ring[(int) (k % ring.length)];
            if (k == centre) {
                middle = n;
            }
            if (!Double.isNaN(value)) {
                window[n++] = value;
            }
        }
        return answer(window, n, middle);
    }

    /** Runs over a whole record, in place, and answers for its last samples too. */
    void whole(double[] data) {
        reset();
        double[] late = Arrays.copyOf(data, data.length);
        apply(late, 0, late.length);
        int shift = Math.min(half, data.length);
        System.arraycopy(late, shift, data, 0, data.length - shift);
        for (long centre = data.length - shift; centre < data.length; centre++) {
            data[(int) centre] = at(centre, Math.max(0, centre - half), count);
        }
    }
}
