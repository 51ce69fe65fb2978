package zesty.signal.core.read.motion;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Order;

/**
 * The swings of an angle: each from one way up through its middle to the next, with a slack of a quarter of its usual depth so
 * that a tremble at the middle is none. A boat's rolling has a period, a limb's exercise a count, a depth and a pace.
 *
 * @param starts when each begins, in s, rising
 * @param depths of each from its lowest to its highest, in degrees
 */
public record Cycles(double[] starts, double[] depths, double endSeconds) {
    public static final Cycles NONE = new Cycles(new double[0], new double[0], Double.NaN);
    private static final double SLACK = 0.25;
    /** Less than this is the noise of a sensor that lies still, in degrees. */
    private static final double LEAST_DEGREES = 1.5;

    /** @param degrees of one run without a gap; turns by more than half a turn at once are unwound */
    public static Cycles of(double[] seconds, double[] degrees) {
        double[] angle = degrees.clone();
        for (int i = 1; i < angle.length; i++) {
            angle[i] -= 360 * Math.rint((angle[i] - angle[i - 1]) / 360);
        }
        if (angle.length < 3) {
            return NONE;
        }
        double low = Order.quantile(angle, 0.1);
        double high = Order.quantile(angle, 0.9);
        double middle = (low + high) / 2;
        double slack = SLACK * (high - low);
        List<double[]> found = new ArrayList<>();
        if (high - low < LEAST_DEGREES) {
            return NONE;
        }
        boolean above = angle[0] > middle;
        double crossed = Double.NaN;
        double started = Double.NaN;
        double least = Double.MAX_VALUE;
        double most = -Double.MAX_VALUE;
        for (int i = 1; i < angle.length; i++) {
            if (angle[i - 1] < middle && angle[i] >= middle) {
                crossed = seconds[i - 1]
                        + (seconds[i] - seconds[i - 1]) * (middle - angle[i - 1]) / (angle[i] - angle[i - 1]);
            }
            if (!above && angle[i] > middle + slack) {
                above = true;
                if (!Double.isNaN(started) && !Double.isNaN(crossed)) {
                    found.add(new double[] {started, most - least, crossed});
                }
                started = crossed;
                least = Double.MAX_VALUE;
                most = -Double.MAX_VALUE;
            } else if (above && angle[i] < middle - slack) {
                above = false;
            }
            least = Math.min(least, angle[i]);
            most = Math.max(most, angle[i]);
        }
        return new Cycles(
                found.stream().mapToDouble(one -> one[0]).toArray(),
                found.stream().mapToDouble(one -> one[1]).toArray(),
                found.isEmpty() ? Double.NaN : found.get(found.size() - 1)[2]);
    }

    public int count() {
        return starts.length;
    }

    /** @return from one to the next on average, in s; NaN with none */
    public double periodSeconds() {
        return count() == 0 ? Double.NaN : (endSeconds - starts[0]) / count();
    }

    /** @return the standard uncertainty of the period, from how much single ones differ; NaN with fewer than three */
    double periodUncertainty() {
        if (count() < 3) {
            return Double.NaN;
        }
        double mean = periodSeconds();
        double squares = 0;
        for (int i = 0; i < count(); i++) {
            double own = (i + 1 < count() ? starts[i + 1] : endSeconds) - starts[i];
            squares += (own - mean) * (own - mean);
        }
        return Math.sqrt(squares / (count() - 1) / count());
    }

    /** @return the middle depth, in degrees; NaN with none */
    public double depth() {
        return count() == 0 ? Double.NaN : Order.median(Arrays.copyOf(depths, count()));
    }
}
