package zesty.signal.core.read.joint;

import java.util.Arrays;
import zesty.signal.core.read.motion.Attitude;

/**
 * The angle of a hinge over time: the difference of what both units turn about its axis is integrated, and put right by what gravity
 * says, seen from both sides of the hinge (T. Seel, J. Raisch and T. Schauer 2014). What drifts between the two is a gyro's, and
 * slow; what comes and goes within seconds is the limb's own acceleration, which gravity's direction suffers from. So the
 * difference is smoothed by straight lines over some seconds on either side. Where the axis stands upright gravity says nothing of the
 * angle, and it drifts.
 *
 * @param degrees one a sample, from the pose at the beginning
 * @param led share of the samples at which gravity could lead it
 * @param apart how far turning and gravity are from each other once a steady drift is taken off, root of the mean square, in
 *     degrees: large where the axes were taken wrongly; NaN where gravity never leads
 * @param foreign how far each unit's gravity is from where its gyro puts it, the larger of both, in degrees: large where columns are mixed up
 */
record JointAngle(double[] degrees, double led, double apart, double foreign) {
    /** On either side of a moment, in s: longer than a repetition, shorter than a gyro's drift. */
    private static final double SMOOTH_SECONDS = 5;
    /** Of gravity so much must lie across the axis, as a share, to tell an angle: 17° from upright. */
    private static final double LEAST_ACROSS = 0.3;
    /** The beginning, over which the pose there is taken, in s. */
    private static final double BEGIN_SECONDS = 0.2;

    /** A unit's samples: acceleration in g and turning in °/s, one array of three a sample. */
    record Unit(double[][] a, double[][] w) {
        int length() {
            return a.length;
        }
    }

    static JointAngle of(Unit first, Unit second, HingeAxes axes, double[] seconds) {
        int n = first.length();
        double[] degrees = new double[n];
        double[] off = new double[n];
        Side one = new Side(first, axes.first());
        Side other = new Side(second, axes.second());
        double angle = 0;
        double last = 0;
        int led = 0;
        for (int i = 0; i < n; i++) {
            double step = i > 0 ? seconds[i] - seconds[i - 1] : 0;
            one.next(i, step);
            other.next(i, step);
            angle += (other.rate() - one.rate()) * step;
            degrees[i] = angle;
            off[i] = Double.NaN;
            if (one.leads() && other.leads()) {
                double now = other.angle() - one.angle() - angle;
                last = led == 0 ? now : last + wrapped(now - last);
                off[i] = last;
                led++;
            }
        }
        // The gyro's drift goes by time, not by samples.
        double rateHz = n < 2 ? 1 : (n - 1) / (seconds[n - 1] - seconds[0]);
        double[] places = new double[n];
        Arrays.setAll(places, i -> (seconds[i] - seconds[0]) * rateHz);
        LocalLines lines = new LocalLines(off, places);
        double apart = led == 0 ? Double.NaN : lines.residual();
        int reach = (int) Math.round(SMOOTH_SECONDS * rateHz);
        double begin = 0;
        for (int i = 0; i < n; i++) {
            double right = lines.at(i, reach);
            degrees[i] += right == right ? right : 0;
            begin = i == 0 ? degrees[0] : begin;
            degrees[i] -= begin;
        }
        return new JointAngle(degrees, n == 0 ? 0 : (double) led / n, apart, Math.max(one.foreign(), other.foreign()));
    }

    private static double wrapped(double degrees) {
        return degrees - 360 * Math.rint(degrees / 360);
    }

    /** One side of the hinge. Its angle is that of gravity about the axis, from a direction across it that is fixed in the unit. */
    private static final class Side {
        private final Unit unit;
        private final double[] axis;
        private final double[] across;
        private final double[] along;
        private final Attitude attitude;
        private double[] up = {0, 0, 1};
        private double rate;
        private double squares;
        private int counted;

        /** @param axis null of a unit that hardly turns: it counts as fixed */
        Side(Unit unit, double[] axis) {
            this.unit = unit;
            this.axis = axis;
            attitude = new Attitude(true);
            double[] j = axis == null ? new double[] {1, 0, 0} : axis;
            double[] other = Math.abs(j[0]) < 0.7 ? new double[] {1, 0, 0} : new double[] {0, 1, 0};
            across = HingeAxes.unit(HingeAxes.cross(j, other));
            along = HingeAxes.cross(j, across);
        }

        void next(int i, double step) {
            attitude.next(step, unit.a()[i], unit.w()[i], null);
            up = attitude.up();
            double length = Math.sqrt(HingeAxes.dot(unit.a()[i], unit.a()[i]));
            if (length > 0) {
                double between = Math.acos(Math.max(-1, Math.min(1, HingeAxes.dot(up, unit.a()[i]) / length)));
                squares += between * between;
                counted++;
            }
            rate = axis == null ? 0 : attitude.speedAbout(axis, unit.w()[i]);
        }

        boolean leads() {
            return axis == null || Math.hypot(HingeAxes.dot(up, across), HingeAxes.dot(up, along)) > LEAST_ACROSS;
        }

        /** As the unit turns about the axis, gravity goes round the other way. */
        double angle() {
            return axis == null ? 0 : -Math.toDegrees(Math.atan2(HingeAxes.dot(up, along), HingeAxes.dot(up, across)));
        }

        double rate() {
            return rate;
        }

        double foreign() {
            return counted == 0 ? 0 : Math.toDegrees(Math.sqrt(squares / counted));
        }
    }
}
