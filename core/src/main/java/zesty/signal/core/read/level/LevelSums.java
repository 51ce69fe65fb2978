package zesty.signal.core.read.level;

/**
 * Mean, range and noise of samples as they come. Noise is measured on second differences, which a slope and a slow bend
 * leave alone: those of independent noise have six times its variance (J. von Neumann 1941, "Distribution of the ratio
 * of the mean square successive difference to the variance", carried one difference further). Jumps would weigh in with
 * their square, so differences beyond {@link #FAR} times the usual one are left out; for that they are counted in steps
 * of a thirty-second of an octave.
 */
final class LevelSums {
    private static final double FAR = 4;
    /** The median of the absolute value of Gaussian noise over its standard deviation. */
    private static final double MEDIAN_SHARE = 0.6745;

    private static final int STEPS_AN_OCTAVE = 32;
    private static final int MANTISSA_BITS = 5;
    private static final int LOWEST_EXPONENT = -100;
    private static final int OCTAVES = 200;

    private final int[] counts = new int[OCTAVES * STEPS_AN_OCTAVE];
    private long differences;
    private long zeros;
    private long count;
    private double mean;
    private double lowest = Double.NaN;
    private double highest = Double.NaN;
    private final Farthest above = new Farthest(1);
    private final Farthest below = new Farthest(-1);
    private double before = Double.NaN;
    private double beforeThat = Double.NaN;

    void gap() {
        before = Double.NaN;
        beforeThat = Double.NaN;
    }

    void add(double value) {
        count++;
        mean += (value - mean) / count;
        lowest = value >= lowest ? lowest : value;
        highest = value <= highest ? highest : value;
        above.add(value);
        below.add(value);
        double difference = Math.abs(value - 2 * before + beforeThat);
        if (difference == difference) {
            differences++;
            if (difference == 0) {
                zeros++;
            } else {
                counts[cell(difference)]++;
            }
        }
        beforeThat = before;
        before = value;
    }

    private static int cell(double x) {
        int octave = Math.max(0, Math.min(OCTAVES - 1, Math.getExponent(x) - LOWEST_EXPONENT));
        int part = (int) (Double.doubleToRawLongBits(x) >>> (52 - MANTISSA_BITS)) & (STEPS_AN_OCTAVE - 1);
        return octave * STEPS_AN_OCTAVE + part;
    }

    /** The middle of a cell. */
    private static double value(int cell) {
        double octave = Math.scalb(1.0, cell / STEPS_AN_OCTAVE + LOWEST_EXPONENT);
        return octave * (1 + (cell % STEPS_AN_OCTAVE + 0.5) / STEPS_AN_OCTAVE);
    }

    long count() {
        return count;
    }

    double mean() {
        return count == 0 ? Double.NaN : mean;
    }

    double lowest() {
        return lowest;
    }

    double highest() {
        return highest;
    }

    /** @return what samples say that have no reading; null where none does */
    Farthest word() {
        return above.isWord(lowest, count) ? above : below.isWord(highest, count) ? below : null;
    }

    /** @return the standard deviation of one sample; NaN below three samples in a row */
    double noise() {
        if (differences == 0) {
            return Double.NaN;
        }
        double bound = Double.POSITIVE_INFINITY;
        long below = zeros;
        for (int cell = 0; cell < counts.length && zeros * 2 < differences; cell++) {
            below += counts[cell];
            if (below * 2 >= differences) {
                bound = FAR * value(cell) / MEDIAN_SHARE;
                break;
            }
        }
        double squares = 0;
        long kept = zeros;
        // Most are empty.
        for (int cell = 0; cell < counts.length; cell++) {
            if (counts[cell] > 0 && value(cell) <= bound) {
                double value = value(cell);
                squares += counts[cell] * value * value;
                kept += counts[cell];
            }
        }
        return Math.sqrt(squares / kept / 6);
    }
}
