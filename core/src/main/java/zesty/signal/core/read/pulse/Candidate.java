package zesty.signal.core.read.pulse;

import java.util.Arrays;

/**
 * A bump that may be a beat.
 *
 * @param seconds when it is: its fixed point (optical), the middle of its energy (electrical)
 * @param upSeconds and downSeconds when it would be if beats point up, or down: the same for an optical one, the highest
 *     and the lowest point of an electrical one
 * @param height how far it stands out of what the finder looks at
 * @param upright how much more it points up than down, about −1 … 1: of an optical one by its slopes and its skewness, of an
 *     electrical one by its peaks
 * @param floor what the finder sees between the beats, as a share of the height
 * @param around the signal around it; as many points to either side of the shape as it may be moved to fit another one
 * @param slack how many points that is
 */
record Candidate(
        double seconds,
        double upSeconds,
        double downSeconds,
        double height,
        double upright,
        double floor,
        double[] around,
        int slack) {

    /** @return its shape, mean 0 and length 1 */
    double[] shape() {
        return moved(slack);
    }

    private double[] moved(int from) {
        return normalise(Arrays.copyOfRange(around, from, from + around.length - 2 * slack));
    }

    /**
     * @return how alike its shape and another are: 1 the same, 0 nothing in common, −1 upside down; where it fits best
     *     within the slack, for the middle of a beat may be found on a neighbouring lobe
     */
    double likeness(double[] other) {
        double best = -1;
        for (int from = 0; from <= 2 * slack; from++) {
            best = Math.max(best, product(other, from));
        }
        return best;
    }

    /** @return its shape where it fits the other best */
    double[] fitted(double[] other) {
        double best = -2;
        int at = slack;
        for (int from = 0; from <= 2 * slack; from++) {
            double alike = product(other, from);
            if (alike > best) {
                best = alike;
                at = from;
            }
        }
        return moved(at);
    }

    /** The correlation with a shape of mean 0 and length 1. */
    private double product(double[] other, int from) {
        double sum = 0;
        double squares = 0;
        double both = 0;
        for (int i = 0; i < other.length; i++) {
            double x = around[from + i];
            sum += x;
            squares += x * x;
            both += x * other[i];
        }
        double spread = squares - sum * sum / other.length;
        return spread > 0 ? both / Math.sqrt(spread) : 0;
    }

    static double product(double[] a, double[] b) {
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
