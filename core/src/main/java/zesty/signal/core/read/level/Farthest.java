package zesty.signal.core.read.level;

/**
 * The value that lies farthest from all others at one end of samples, and how often it was there exactly: many sensors say one number
 * where they have no reading, as a broken wire of a thermometer or an echo that never came.
 */
final class Farthest {
    /** Less often is a spike … */
    private static final int FEWEST = 3;
    /** … and more often, as a share, what is usual. */
    private static final double MOST = 0.5;
    /** It lies beyond the others by so many times what they span. */
    private static final double FAR = 3;

    private final double sign;
    private double value = Double.NEGATIVE_INFINITY;
    private double next = Double.NEGATIVE_INFINITY;
    private long times;

    /** @param sign 1 for the upper end, −1 for the lower one */
    Farthest(int sign) {
        this.sign = sign;
    }

    void add(double sample) {
        double own = sign * sample;
        if (own == value) {
            times++;
        } else if (own > value) {
            next = value;
            value = own;
            times = 1;
        } else if (own > next) {
            next = own;
        }
    }

    /** @param other the other end of the samples. @param count of all of them. @return whether it is no reading, as far as one can tell */
    boolean isWord(double other, long count) {
        double span = next - sign * other;
        return times >= FEWEST && times <= MOST * count && span > 0 && value - next > FAR * span;
    }

    double value() {
        return sign * value;
    }

    long times() {
        return times;
    }
}
