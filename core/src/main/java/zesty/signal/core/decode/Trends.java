package zesty.signal.core.decode;

import java.util.Arrays;

/** How the numbers of a packet's field go from packet to packet: as a clock's, as a count, as a signal. */
final class Trends {
    /** What it takes to say that a number goes on as it went. */
    private static final double SMOOTH_BITS = 0.5;

    /** 2e: a difference of mean size b, both signs alike often, takes log2(2e·b) bits. */
    private static final double LAPLACE = 2 * Math.E;

    /** Most steps of a clock are within so much of the one in the middle. */
    static final double CLOCK_SPREAD = 0.25;

    /** Few readings move by so many counts from row to row, always one way. */
    private static final double LEAST_FURTHER = 500;

    private Trends() {}

    /** Whether the upper half of four bytes is the same all along, and no small number. */
    static boolean upperStands(double[] values) {
        return values[0] >= 256.0 * 65536 && stands(values, 65536);
    }

    static boolean stands(double[] values, double unit) {
        double upper = Math.floor(values[0] / unit);
        return Arrays.stream(values).allMatch(v -> Math.floor(v / unit) == upper);
    }

    /** Whether what is in four bytes rises as evenly as no sensor's numbers do, but a clock's. */
    static boolean isClock(double[] values) {
        return rises(values) && values.length > 2 && steady(values, 0x1p32, 2, CLOCK_SPREAD);
    }

    /** Whether the upper bytes are a counter of their own: one more in each packet. */
    static boolean upperCounts(double[] values, double unit) {
        int one = 0;
        for (int i = 1; i < values.length; i++) {
            double step = Math.floor(values[i] / unit) - Math.floor(values[i - 1] / unit);
            one += step == 1 || step == -255 || step == -65535 ? 1 : 0;
        }
        return one * 10 >= values.length * 8;
    }

    /** Whether the lower half goes one way, and far, beside the upper half's count, as a clock's does at some fifteen rows a second. */
    static boolean runsOn(double[] values) {
        int up = 0;
        int down = 0;
        for (int i = 1; i < values.length; i++) {
            double further = values[i] - values[i - 1] - 65536;
            up += further > LEAST_FURTHER ? 1 : 0;
            down += further < -LEAST_FURTHER ? 1 : 0;
        }
        return Math.max(up, down) * 10 >= (values.length - 1) * 9;
    }

    static double[] steps(double[] values) {
        double[] steps = new double[values.length - 1];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = values[i + 1] - values[i];
        }
        return steps;
    }

    /**
     * Whether the numbers do not fall, as a clock's. Of twenty-five one may be damaged, which is a fall and a rise, where
     * the upper byte stands; where it moves it may be a counter of its own that begins anew.
     */
    static boolean rises(double[] values) {
        int falls = 0;
        int upper = 0;
        for (int i = 1; i < values.length; i++) {
            falls += values[i] < values[i - 1] ? 1 : 0;
            upper += Math.floor(values[i] / 0x1000000) == Math.floor(values[i - 1] / 0x1000000) ? 0 : 1;
        }
        return falls == 0 || falls * 25 <= values.length && upper * 8 <= values.length;
    }

    /** @return low bits that are zero in all values, where it is more than chance; the values must vary */
    static int commonZeros(double[] values, int bytes) {
        long any = 0;
        for (double value : values) {
            any |= (long) value;
        }
        int zeros = any == 0 ? 0 : Long.numberOfTrailingZeros(any);
        return zeros >= 2 && zeros < 8 * bytes - 4 ? zeros : 0;
    }

    /** By the numbers before, or, where that is less, by going on as they went: a fast smooth signal is no jagged one. */
    static double bits(double[] values, int most) {
        double sum = 0;
        double smooth = 0;
        for (int i = 1; i < values.length; i++) {
            double step = values[i] - values[i - 1];
            sum += Math.log(1 + LAPLACE * Math.abs(step));
            smooth += i == 1 ? 0 : Math.log(1 + LAPLACE * Math.abs(step - (values[i - 1] - values[i - 2])));
        }
        double mean = sum / Math.max(1, values.length - 1) / Math.log(2);
        // Each by as many as it has: of few values the first two are no gift to those that go on.
        double further = smooth / Math.max(1, values.length - 2) / Math.log(2) + SMOOTH_BITS;
        return Math.min(most, values.length < 8 ? mean : Math.min(mean, further));
    }

    /** Whether the number goes up by about the same step nearly always, at least by the given one. */
    static boolean steady(double[] values, double wrap, double least, double spread) {
        double[] steps = new double[values.length - 1];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = values[i + 1] - values[i];
            steps[i] += steps[i] < 0 ? wrap : 0;
        }
        double[] sorted = steps.clone();
        Arrays.sort(sorted);
        double median = sorted.length == 0 ? 0 : sorted[sorted.length / 2];
        // What nearly always falls does not wrap each time.
        if (median < least || median > wrap / 2 || least == 1 && median != 1 || values.length < 4) {
            return false;
        }
        long near = Arrays.stream(steps)
                .filter(s -> least == 1 ? s == 1 : Math.abs(s - median) <= Math.max(1, spread * median))
                .count();
        return near * 10 >= steps.length * 8L;
    }
}
