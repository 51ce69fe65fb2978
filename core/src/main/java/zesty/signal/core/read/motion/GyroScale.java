package zesty.signal.core.read.motion;

import java.util.Arrays;

/**
 * How far gravity turned in the unit against how far the gyro says that it did, over the same quarters of a second. Where the two go
 * together but not as far, the gyro has other units; where they go together only with other axes, axes are exchanged. Means over blocks
 * are compared, in which both are smoothed alike; what stays the same, as the gyro's bias, is left out.
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

    /**
     * With the axes as they are told they do not go together where this or less of one follows from the other, as a correlation. Found by
     * trying on models of exchanged axes; moved by a fifth it names 397 or 400 of 400 instead of 399, and never one of 400 right units.
     */
    private static final double APART = 0.6;
    /** With axes in another order they go together where more than this follows; at 0.6 one of 400 right units is named, at 0.9 none. */
    private static final double OTHERWISE = 0.75;

    /** Which axis stands for x, y and z: first as it is told. */
    private static final int[][] ORDERS = {{0, 1, 2}, {1, 0, 2}, {0, 2, 1}, {2, 1, 0}, {1, 2, 0}, {2, 0, 1}};

    /** Of a block: how far up lies along each axis, then the products of its shares and of the turning about each axis, summed over time. */
    private static final int SHARES = 3 + 9;

    private final double[] turned = new double[9];
    private final double[] inside = new double[SHARES];
    private double blockSeconds;
    private int inBlock;
    private double[] before;

    private double[] first;
    /** A gyro that works never says the same number all the time, however still it is. */
    private boolean changes;

    private int count;
    private final double[] sums = new double[SHARES];
    private final double[][] products = new double[SHARES][SHARES];

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
            inside[k] += a[k];
            // Also about its own axis: where axes are exchanged it may be another's.
            for (int m = 0; m < 3; m++) {
                turned[3 * k + m] += a[k] * w[m] * radians;
                inside[3 + 3 * k + m] += turned[3 * k + m];
            }
        }
        inBlock++;
        blockSeconds += step;
        if (blockSeconds >= BLOCK_SECONDS) {
            compare();
            endBlock();
        }
    }

    private void compare() {
        double[] now = new double[SHARES];
        for (int i = 0; i < SHARES; i++) {
            now[i] = inside[i] / inBlock;
        }
        double length = Math.sqrt(now[0] * now[0] + now[1] * now[1] + now[2] * now[2]);
        for (int i = 0; i < SHARES; i++) {
            now[i] /= length;
        }
        boolean gravity = Math.abs(length - 1) < FOREIGN_G;
        if (gravity && before != null) {
            count++;
            for (int i = 0; i < SHARES; i++) {
                sums[i] += now[i] - before[i];
                for (int j = 0; j <= i; j++) {
                    products[i][j] += (now[i] - before[i]) * (now[j] - before[j]);
                }
            }
        }
        before = gravity ? now : null;
    }

    private void endBlock() {
        Arrays.fill(inside, 0);
        blockSeconds = 0;
        inBlock = 0;
    }

    /** @return what two shares have in common, without what stays the same */
    private double common(int i, int j) {
        return products[Math.max(i, j)][Math.min(i, j)] - sums[i] * sums[j] / count;
    }

    /** How far it leaned, how far it turned, and how far both went together: sums of squares and of products. */
    private record Going(double lean, double turn, double both) {
        double together() {
            return both / Math.sqrt(lean * turn);
        }
    }

    /** @param order which axis of the acceleration stands for x, y and z. @param signs of them, 1 or −1 */
    private Going going(int[] order, int[] signs) {
        double lean = 0;
        double turn = 0;
        double both = 0;
        for (int k = 0; k < 3; k++) {
            int l = (k + 1) % 3;
            int m = (k + 2) % 3;
            // Up, seen from the unit, turns the other way round.
            int plus = 3 + 3 * order[l] + m;
            int minus = 3 + 3 * order[m] + l;
            lean += common(order[k], order[k]);
            turn += common(plus, plus) + common(minus, minus) - 2 * signs[l] * signs[m] * common(plus, minus);
            both += signs[k] * (signs[l] * common(order[k], plus) - signs[m] * common(order[k], minus));
        }
        return new Going(lean, turn, both);
    }

    private Going asTold() {
        return going(ORDERS[0], new int[] {1, 1, 1});
    }

    private boolean leaned(Going going) {
        return count >= FEWEST && going.lean() > LEAST * LEAST * count;
    }

    /**
     * @return how many times as far it leaned as it turned, where that is not nearly once: infinite where it leaned and the gyro said the
     *     same all the time; NaN where they agree or nobody can tell
     */
    double off() {
        Going going = asTold();
        boolean leaned = leaned(going);
        if (leaned && !changes) {
            return Double.POSITIVE_INFINITY;
        }
        boolean told = leaned && going.together() * going.together() > TOGETHER;
        double scale = going.both() / going.turn();
        return told && !(scale < MOST && scale > 1 / MOST) ? scale : Double.NaN;
    }

    /**
     * @return with which axes of the acceleration for x, y and z gravity goes as the gyro says, such as "y, x, −z", where it does not with
     *     its own; empty where it does, or nobody can tell. Signs alone are not told: an arm that swings fast looks like that
     */
    String order() {
        Going told = asTold();
        String found = "";
        double most = OTHERWISE;
        if (!leaned(told) || told.together() > APART) {
            return found;
        }
        for (int[] order : ORDERS) {
            for (int sign = 0; sign < 8; sign++) {
                int[] signs = {1 - (sign & 1) * 2, 1 - (sign & 2), 1 - (sign & 4) / 2};
                double together = going(order, signs).together();
                if (together > most) {
                    most = together;
                    found = order == ORDERS[0] ? "" : named(order, signs);
                }
            }
        }
        return found;
    }

    private static String named(int[] order, int[] signs) {
        StringBuilder named = new StringBuilder();
        for (int k = 0; k < 3; k++) {
            named.append(k == 0 ? "" : ", ").append(signs[k] < 0 ? "−" : "").append("xyz".charAt(order[k]));
        }
        return named.toString();
    }
}
