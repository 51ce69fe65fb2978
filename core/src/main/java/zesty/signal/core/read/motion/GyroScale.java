package zesty.signal.core.read.motion;

import java.util.Arrays;

/**
 * How far gravity turned in the unit against how far the gyro says that it did, over the same quarters of a second: where the two go
 * together but not as far, the gyro has other units, or its axes lie otherwise. Means over blocks are compared, in which both are
 * smoothed alike; what stays the same, as the gyro's bias, is left out.
 */
final class GyroScale {
    private static final double BLOCK_SECONDS = 0.25;
    /** A block in which something else than gravity pulls by more than this tells nothing, in g. */
    private static final double FOREIGN_G = 0.1;

    private static final int FEWEST = 20;
    /** Less leaning from block to block is noise, as the root of the mean square, in rad. */
    private static final double LEAST = 0.014;
    /** They go together where this much of one follows from the other. */
    private static final double TOGETHER = 0.5;
    /** At the head of a mast gravity seems to turn two or three times as far; other units are off by more. */
    private static final double MOST = 4;

    private final double[] turned = new double[3];
    private final double[] ups = new double[3];
    private final double[] turns = new double[3];
    private double blockSeconds;
    private int inBlock;
    private double[] before;

    private double[] first;
    /** A gyro that works never says the same number all the time, however still it is. */
    private boolean changes;

    private int count;
    private final double[] leanSum = new double[3];
    private final double[] turnSum = new double[3];
    private double leanSquares;
    private double turnSquares;
    private double products;

    /** A stretch begins. */
    void begin() {
        before = null;
        endBlock();
    }

    /** @param step since the sample before, in s. @param a in g. @param w in °/s, what it reads at rest and all */
    void next(double step, double[] a, double[] w) {
        if (first == null) {
            first = w.clone();
        }
        changes |= w[0] != first[0] || w[1] != first[1] || w[2] != first[2];
        double length = Math.sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]);
        double radians = length > 0 ? Math.toRadians(step) / length : 0;
        for (int k = 0; k < 3; k++) {
            int l = (k + 1) % 3;
            int m = (k + 2) % 3;
            // Up, seen from the unit, turns the other way round.
            turned[k] += (a[l] * w[m] - a[m] * w[l]) * radians;
            ups[k] += a[k];
            turns[k] += turned[k];
        }
        inBlock++;
        blockSeconds += step;
        if (blockSeconds >= BLOCK_SECONDS) {
            compare();
            endBlock();
        }
    }

    private void compare() {
        double[] now = new double[6];
        double squares = 0;
        for (int k = 0; k < 3; k++) {
            now[k] = ups[k] / inBlock;
            now[3 + k] = turns[k] / inBlock;
            squares += now[k] * now[k];
        }
        double length = Math.sqrt(squares);
        for (int k = 0; k < 3; k++) {
            now[k] /= length;
        }
        boolean gravity = Math.abs(length - 1) < FOREIGN_G;
        for (int k = 0; k < 3 && gravity && before != null; k++) {
            double lean = now[k] - before[k];
            double turn = now[3 + k] - before[3 + k];
            leanSum[k] += lean;
            turnSum[k] += turn;
            leanSquares += lean * lean;
            turnSquares += turn * turn;
            products += lean * turn;
        }
        count += gravity && before != null ? 1 : 0;
        before = gravity ? now : null;
    }

    private void endBlock() {
        Arrays.fill(ups, 0);
        Arrays.fill(turns, 0);
        blockSeconds = 0;
        inBlock = 0;
    }

    /**
     * @return how many times as far it leaned as it turned, where that is not nearly once: infinite where it leaned and the gyro said the
     *     same all the time; NaN where they agree or nobody can tell
     */
    double off() {
        double lean = leanSquares;
        double turn = turnSquares;
        double both = products;
        for (int k = 0; k < 3; k++) {
            lean -= leanSum[k] * leanSum[k] / count;
            turn -= turnSum[k] * turnSum[k] / count;
            both -= leanSum[k] * turnSum[k] / count;
        }
        boolean leaned = count >= FEWEST && lean > LEAST * LEAST * count;
        if (leaned && !changes) {
            return Double.POSITIVE_INFINITY;
        }
        boolean told = leaned && both * both > TOGETHER * lean * turn;
        double scale = both / turn;
        return told && !(scale < MOST && scale > 1 / MOST) ? scale : Double.NaN;
    }
}
