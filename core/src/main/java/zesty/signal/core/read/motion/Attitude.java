package zesty.signal.core.read.motion;

/**
 * The attitude of a unit by a complementary filter (R. Mahony, T. Hamel and J.-M. Pflimlin 2008, "Nonlinear complementary
 * filters on the special orthogonal group"): turning is integrated, gravity and field pull it right, and what the gyro
 * reads at rest is taken off. The direction of up is kept as a vector, so that no lean is special. One stretch.
 */
public final class Attitude {
    /** Gravity pulls the lean right within this, in s. */
    private static final double LEAN_SECONDS = 1.0;
    /** And the field the heading. */
    private static final double HEADING_SECONDS = 0.7;
    /** Where acceleration differs so much from 1 g, gravity is not all there is, in g. */
    private static final double FOREIGN_G = 0.15;
    /** Without a gyro, acceleration is smoothed over this, in s. */
    private static final double SMOOTH_SECONDS = 0.12;
    /** At rest for so long, the gyro's reading is its bias, in s. */
    private static final double REST_SECONDS = 1;

    /** Its means of so long are compared, in s. */
    private static final double PIECE_SECONDS = 0.25;
    /** A single sample that is off by so many times what a mean may be is no rest. */
    private static final double THROWN = 4;
    /** A piece more of rest brings the bias nearer to what the whole rest says by this share. */
    private static final double FOLLOW = 0.4;

    private static final double REST_DEGREES = 1.2;
    private static final double REST_G = 0.04;
    /** A gyro that reads more than this at rest is turning, in °/s. */
    private static final double MOST_BIAS = 12;

    /** Straight up or down there is no heading; near it, it turns no faster than this allows. */
    private static final double LEAST_LEVEL = 0.05;

    /** A turn in rad below which series replace sine and cosine. */
    private static final double LITTLE = 0.05;

    private final boolean fusion;
    private final double[] up = {0, 0, 1};
    private boolean begun;
    private double heading = Double.NaN;
    private final double[] bias = new double[3];
    private boolean biasKnown;
    private final double[] gPiece = new double[3];
    private final double[] aPiece = new double[3];
    private int pieceSamples;
    private double pieceSeconds;
    private boolean resting;
    private final double[] gFirst = new double[3];
    private final double[] aFirst = new double[3];
    private final double[] restSum = new double[3];
    private int rests;
    private double restSeconds;

    public Attitude(boolean fusion) {
        this.fusion = fusion;
    }

    /**
     * The next sample.
     *
     * @param step since the one before, in s: a loop may go on at another pace, and turning goes on over all of it
     * @param a acceleration in g
     * @param g turning in °/s; null without a gyro
     * @param m field in µT; null without one
     */
    public void next(double step, double[] a, double[] g, double[] m) {
        double length = Math.sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]);
        boolean gyro = g != null && fusion;
        if (!begun) {
            begun = true;
            if (length > 1e-9) {
                for (int i = 0; i < 3; i++) {
                    up[i] = a[i] / length;
                }
            }
            heading = m != null ? byField(m) : g != null ? 0 : Double.NaN;
            return;
        }
        double[] turn = new double[3];
        if (gyro) {
            learnBias(step, a, g);
            for (int i = 0; i < 3; i++) {
                turn[i] = Math.toRadians(g[i] - bias[i]);
            }
            // The world's up, seen from the unit, turns the other way round.
            rotate(up, turn, -step);
        }
        boolean gravity = length > 1e-9 && Math.abs(length - 1) < FOREIGN_G;
        if (gravity || !gyro && length > 1e-9) {
            double share = Math.min(1, step / (gyro ? LEAN_SECONDS : SMOOTH_SECONDS));
            for (int i = 0; i < 3; i++) {
                up[i] += share * (a[i] / length - up[i]);
            }
            normalise(up);
        }
        turnHeading(step, turn, gyro, m);
    }

    private void turnHeading(double step, double[] turn, boolean gyro, double[] m) {
        if (gyro) {
            // How fast the nose turns to the left over the ground; a heading counts to the right.
            // Of the roll the sine is up's share to the left of what is not along the nose, of the pitch the cosine
            // that itself.
            double across = Math.sqrt(up[1] * up[1] + up[2] * up[2]);
            double left = across > 0 ? (turn[1] * up[1] + turn[2] * up[2]) / across / Math.max(LEAST_LEVEL, across) : 0;
            heading = wrap(heading - Math.toDegrees(left * step));
        }
        if (m != null) {
            double off = byField(m) - heading;
            off -= 360 * Math.rint(off / 360);
            double share = step / (gyro ? HEADING_SECONDS : SMOOTH_SECONDS);
            heading = wrap(heading + Math.min(1, share) * off);
        }
    }

    /** Turns a vector about an axis of so many rad/s for a time, exactly (O. Rodrigues 1840). */
    private static void rotate(double[] v, double[] rate, double seconds) {
        double angle = Math.sqrt(rate[0] * rate[0] + rate[1] * rate[1] + rate[2] * rate[2]) * seconds;
        if (angle == 0) {
            return;
        }
        double norm = angle / seconds;
        double x = rate[0] / norm;
        double y = rate[1] / norm;
        double z = rate[2] / norm;
        // Between two samples it turns little: the first terms of the series are exact to a double's last digits.
        double square = angle * angle;
        boolean little = square < LITTLE * LITTLE;
        double cos =
                little ? 1 - square / 2 * (1 - square / 12 * (1 - square / 30 * (1 - square / 56))) : Math.cos(angle);
        double sin = little
                ? angle * (1 - square / 6 * (1 - square / 20 * (1 - square / 42 * (1 - square / 72))))
                : Math.sin(angle);
        double along = (x * v[0] + y * v[1] + z * v[2]) * (1 - cos);
        double v0 = v[0] * cos + (y * v[2] - z * v[1]) * sin + x * along;
        double v1 = v[1] * cos + (z * v[0] - x * v[2]) * sin + y * along;
        double v2 = v[2] * cos + (x * v[1] - y * v[0]) * sin + z * along;
        v[0] = v0;
        v[1] = v1;
        v[2] = v2;
    }

    private static void normalise(double[] v) {
        double length = Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]);
        for (int i = 0; i < 3 && length > 1e-9; i++) {
            v[i] /= length;
        }
    }

    /**
     * Where neither turning nor acceleration changes for a while, the unit rests, and the gyro should read nothing. What is
     * compared are means of a quarter of a second: single samples of a cheap unit, or beside an engine, differ by more than rest
     * allows. One that differs far more ends it.
     */
    private void learnBias(double step, double[] a, double[] g) {
        boolean thrown = false;
        for (int i = 0; i < 3; i++) {
            thrown |= resting
                    && (Math.abs(g[i] - gFirst[i]) > THROWN * REST_DEGREES
                            || Math.abs(a[i] - aFirst[i]) > THROWN * REST_G);
            gPiece[i] += g[i];
            aPiece[i] += a[i];
        }
        pieceSamples++;
        pieceSeconds += step;
        if (thrown) {
            resting = false;
            nextPiece();
        } else if (pieceSeconds >= PIECE_SECONDS) {
            restGoesOn();
            nextPiece();
        }
    }

    private void restGoesOn() {
        boolean still = resting;
        for (int i = 0; i < 3; i++) {
            double mean = gPiece[i] / pieceSamples;
            still &= Math.abs(mean - gFirst[i]) < REST_DEGREES
                    && Math.abs(aPiece[i] / pieceSamples - aFirst[i]) < REST_G
                    && Math.abs(mean) < MOST_BIAS;
        }
        if (!still) {
            resting = true;
            rests = 0;
            restSeconds = 0;
            for (int i = 0; i < 3; i++) {
                gFirst[i] = gPiece[i] / pieceSamples;
                aFirst[i] = aPiece[i] / pieceSamples;
                restSum[i] = 0;
            }
        }
        rests += pieceSamples;
        restSeconds += pieceSeconds;
        for (int i = 0; i < 3; i++) {
            restSum[i] += gPiece[i];
        }
        if (restSeconds >= REST_SECONDS) {
            double weight = FOLLOW * Math.min(1, restSeconds / 2);
            for (int i = 0; i < 3; i++) {
                double mean = restSum[i] / rests;
                bias[i] = biasKnown ? bias[i] + weight * (mean - bias[i]) : mean;
            }
            biasKnown = true;
        }
    }

    private void nextPiece() {
        pieceSamples = 0;
        pieceSeconds = 0;
        for (int i = 0; i < 3; i++) {
            gPiece[i] = 0;
            aPiece[i] = 0;
        }
    }

    /** The field laid level: turned back by roll and pitch, whose sines and cosines are the parts of up. */
    private double byField(double[] m) {
        double across = Math.sqrt(up[1] * up[1] + up[2] * up[2]);
        double sinRoll = across > 0 ? up[1] / across : 0;
        double cosRoll = across > 0 ? up[2] / across : 1;
        double y1 = m[1] * cosRoll - m[2] * sinRoll;
        double z1 = m[1] * sinRoll + m[2] * cosRoll;
        double x2 = m[0] * across - z1 * up[0];
        return wrap(Math.toDegrees(Math.atan2(y1, x2)));
    }

    private static double wrap(double degrees) {
        double turned = degrees - 360 * Math.floor(degrees / 360);
        return turned < 360 ? turned : 0;
    }

    /** @return the direction of up seen from the unit, of length 1; the caller's own */
    public double[] up() {
        return up.clone();
    }

    /** @return how fast that reading of the gyro turns it once what it reads at rest is taken off, in °/s */
    double speed(double[] g) {
        double x = g[0] - bias[0];
        double y = g[1] - bias[1];
        double z = g[2] - bias[2];
        return Math.sqrt(x * x + y * y + z * z);
    }

    /** @return how fast it turns about an axis of length 1, in °/s, likewise */
    public double speedAbout(double[] axis, double[] g) {
        return (g[0] - bias[0]) * axis[0] + (g[1] - bias[1]) * axis[1] + (g[2] - bias[2]) * axis[2];
    }

    /** @return in degrees, −180 … 180 */
    double roll() {
        return Math.toDegrees(Math.atan2(up[1], up[2]));
    }

    /** @return in degrees, −90 … 90 */
    double pitch() {
        return Math.toDegrees(Math.atan2(-up[0], Math.sqrt(up[1] * up[1] + up[2] * up[2])));
    }

    /** @return in degrees, 0 … 360; NaN without gyro and field */
    double heading() {
        return heading;
    }
}
