package zesty.signal.core.read.wind;

import java.util.Arrays;

/** Pulses counted from the board's start on, as many programs send them, where those since the row before are asked for. */
final class RunningTotal {
    private static final int FEWEST_ROWS = 12;
    private static final int FEWEST_VALUES = 6;
    /** Where it falls though the counter is not full, the board started anew: once in so many rows at most, and by more than half. */
    private static final int ROWS_A_FALL = 50;

    /** A counter is full near one of these. */
    private static final double[] FULL = {256, 65_536, 4_294_967_296.0};

    private static final double NEAR = 0.9;

    private RunningTotal() {}

    /** @param counts one a row, missing ones left out. @return whether they go as a total does */
    static boolean is(double[] counts) {
        int falls = 0;
        double full = full(counts);
        for (int i = 1; i < counts.length; i++) {
            if (counts[i] < counts[i - 1]) {
                falls += counts[i - 1] > NEAR * full ? 0 : 1;
                if (counts[i] > counts[i - 1] / 2) {
                    return false;
                }
            }
        }
        return counts.length >= FEWEST_ROWS
                && falls <= 1 + counts.length / ROWS_A_FALL
                && Arrays.stream(counts).distinct().limit(FEWEST_VALUES).count() == FEWEST_VALUES;
    }

    private static double full(double[] counts) {
        double highest = Arrays.stream(counts).filter(v -> v == v).max().orElse(0);
        return Arrays.stream(FULL).filter(v -> v > highest).findFirst().orElse(Double.POSITIVE_INFINITY);
    }

    /** @param totals one a row, NaN where missing. @return the pulses since the last that was not missing; NaN where nobody can know */
    static double[] steps(double[] totals) {
        double full = full(totals);
        double[] steps = new double[totals.length];
        double before = Double.NaN;
        for (int i = 0; i < totals.length; i++) {
            double step = totals[i] - before;
            steps[i] = !(step < 0) ? step : before > NEAR * full ? step + full : totals[i];
            before = totals[i] == totals[i] ? totals[i] : before;
        }
        return steps;
    }
}
