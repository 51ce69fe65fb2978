package zesty.signal.core.spectrum;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntPredicate;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.CholeskyDecomposition;

/**
 * Puts values into the holes of a record so that it goes through them as a linear prediction of each sample by those before it has it:
 * the sum of the squared errors of prediction is the least (Janssen, Veldhuis and Vries 1986, "Adaptive interpolation of
 * discrete-time signals that can be modeled as autoregressive processes"). What predicts is found of what was measured alone, in
 * all pieces between holes at once (de Waele and Broersen 2000, "The Burg algorithm for segments"). Holds no state.
 */
public final class LinearPrediction {
    /** A prediction is found anew for so many samples: what shakes may change. */
    private static final int PIECE = 1024;
    /** Most samples that one is predicted by: sixteen lines. */
    private static final int MOST_ORDER = 32;
    /** Of the longest piece without a hole, so much may go into one prediction. */
    private static final double ORDER_SHARE = 2.0 / 3;
    /** Holes that are longer stay straight lines: they would hold little but what was made up. */
    private static final int LONGEST = 256;
    /** Holes near each other are filled by what the others hold, so often. */
    private static final int SWEEPS = 3;

    /**
     * What is put in goes no farther from the mean than what was measured, times this. A prediction found of short pieces is a little
     * off, and of clean tones a hole longer than they are was filled with a hundred times their height.
     */
    private static final double REACH = 1.5;

    /** Where so much of the power is left all is told that can be: more samples back would only tell what was rounded off. */
    private static final double TOLD = 1e-7;

    private static final double RIDGE = 1e-9;
    /** Sums of the same products in another order differ by less. */
    private static final double SYMMETRIC = 1e-12;

    /** So many samples show how well a record is told by what came before. */
    private static final int LOOKED_AT = 4096;

    private LinearPrediction() {}

    /** @param x a record, in place: NaN is what is missing; the first and the last value are there */
    static void fill(double[] x) {
        List<int[]> holes = holes(x);
        if (holes.isEmpty()) {
            return;
        }
        boolean[] missing = new boolean[x.length];
        for (int[] hole : holes) {
            Arrays.fill(missing, hole[0], hole[1], true);
            straight(x, hole);
        }
        int next = 0;
        int from = 0;
        while (next < holes.size()) {
            int to = x.length - from < 2 * PIECE ? x.length : from + PIECE;
            List<int[]> own = new ArrayList<>();
            for (; next < holes.size() && holes.get(next)[0] < to; next++) {
                int[] hole = holes.get(next);
                if (hole[1] - hole[0] <= LONGEST) {
                    own.add(hole);
                }
            }
            if (!own.isEmpty()) {
                mend(x, missing, from, to, own);
            }
            from = to;
        }
    }

    private static List<int[]> holes(double[] x) {
        List<int[]> holes = new ArrayList<>();
        for (int i = 0; i < x.length; i++) {
            if (x[i] != x[i]) {
                int from = i;
                while (x[i] != x[i]) {
                    i++;
                }
                holes.add(new int[] {from, i});
            }
        }
        return holes;
    }

    private static void straight(double[] x, int[] hole) {
        double before = x[hole[0] - 1];
        double step = (x[hole[1]] - before) / (hole[1] - hole[0] + 1);
        for (int i = hole[0]; i < hole[1]; i++) {
            x[i] = before + step * (i - hole[0] + 1);
        }
    }

    private static void mend(double[] x, boolean[] missing, int from, int to, List<int[]> holes) {
        Measured measured = Measured.of(x, i -> missing[i], from, to);
        int order = measured.order();
        if (order < 1) {
            return;
        }
        double[] prediction = burg(measured.pieces(), order);
        for (int sweep = 0; sweep < SWEEPS; sweep++) {
            for (int[] hole : holes) {
                mend(x, hole, prediction, measured.mean(), REACH * measured.highest());
            }
        }
    }

    /**
     * What was measured of a part of a record.
     *
     * @param pieces without a hole, less the mean
     */
    private record Measured(List<double[]> pieces, double mean) {
        static Measured of(double[] x, IntPredicate missing, int from, int to) {
            List<double[]> pieces = new ArrayList<>();
            double sum = 0;
            int count = 0;
            for (int i = from; i < to; i++) {
                int begin = i;
                while (i < to && !missing.test(i)) {
                    sum += x[i++];
                }
                if (i > begin) {
                    pieces.add(Arrays.copyOfRange(x, begin, i));
                    count += i - begin;
                }
            }
            double mean = sum / Math.max(1, count);
            pieces.forEach(piece -> Arrays.setAll(piece, i -> piece[i] - mean));
            return new Measured(pieces, mean);
        }

        /** @return how far from the mean any of it goes */
        double highest() {
            return pieces.stream()
                    .flatMapToDouble(Arrays::stream)
                    .map(Math::abs)
                    .max()
                    .orElse(0);
        }

        int order() {
            int longest = pieces.stream().mapToInt(piece -> piece.length).max().orElse(0);
            return (int) Math.min(MOST_ORDER, ORDER_SHARE * longest);
        }
    }

    /** @param x NaN is what is missing. @return the share of its variance that those before a sample do not tell, of its beginning */
    static double untold(double[] x) {
        Measured measured = Measured.of(x, i -> x[i] != x[i], 0, Math.min(x.length, LOOKED_AT));
        double[] filter = burg(measured.pieces(), measured.order());
        double left = 0;
        double all = 0;
        for (double[] piece : measured.pieces()) {
            for (int i = filter.length - 1; i < piece.length; i++) {
                double error = 0;
                for (int k = 0; k < filter.length; k++) {
                    error += filter[k] * piece[i - k];
                }
                left += error * error;
                all += piece[i] * piece[i];
            }
        }
        return left / all;
    }

    /**
     * How well samples go on after a break, by the pieces between breaks.
     *
     * @param x without a missing value
     * @param breaks of each sample whether a break lies before it: none at the first
     * @return the sum of squared errors of the first sample after each break, taken as the next one and as the next but one
     */
    public static double[] onwards(double[] x, boolean[] breaks) {
        double mean = Arrays.stream(x).average().orElse(0);
        List<double[]> pieces = new ArrayList<>();
        int begin = 0;
        for (int i = 1; i <= x.length; i++) {
            if (i == x.length || breaks[i]) {
                pieces.add(Arrays.stream(x, begin, i).map(v -> v - mean).toArray());
                begin = i;
            }
        }
        double[] filter = burg(pieces, new Measured(pieces, mean).order());
        int order = filter.length - 1;
        double[] sums = new double[2];
        for (int p = 1; p < pieces.size(); p++) {
            double[] before = pieces.get(p - 1);
            if (before.length < order || order < 1) {
                continue;
            }
            double next = 0;
            for (int k = 1; k <= order; k++) {
                next -= filter[k] * before[before.length - k];
            }
            double nextButOne = -filter[1] * next;
            for (int k = 2; k <= order; k++) {
                nextButOne -= filter[k] * before[before.length + 1 - k];
            }
            double first = pieces.get(p)[0];
            sums[0] += (first - next) * (first - next);
            sums[1] += (first - nextButOne) * (first - nextButOne);
        }
        return sums;
    }

    /** @return the filter of prediction errors: 1, and a factor for each sample back */
    private static double[] burg(List<double[]> pieces, int order) {
        double[] filter = new double[order + 1];
        filter[0] = 1;
        List<double[]> forward = new ArrayList<>(pieces);
        List<double[]> backward = new ArrayList<>(pieces);
        double most = 0;
        for (int m = 1; m <= order; m++) {
            double product = 0;
            double squares = 0;
            for (int p = 0; p < forward.size(); p++) {
                double[] f = forward.get(p);
                double[] b = backward.get(p);
                for (int i = 1; i < f.length; i++) {
                    product += f[i] * b[i - 1];
                    squares += f[i] * f[i] + b[i - 1] * b[i - 1];
                }
            }
            most = Math.max(most, squares);
            if (!(squares > TOLD * most)) {
                return Arrays.copyOf(filter, m);
            }
            double reflection = -2 * product / squares;
            for (int p = 0; p < forward.size(); p++) {
                double[] f = forward.get(p);
                double[] b = backward.get(p);
                int n = Math.max(0, f.length - 1);
                double[] nextF = new double[n];
                double[] nextB = new double[n];
                for (int i = 0; i < n; i++) {
                    nextF[i] = f[i + 1] + reflection * b[i];
                    nextB[i] = b[i] + reflection * f[i + 1];
                }
                forward.set(p, nextF);
                backward.set(p, nextB);
            }
            double[] before = filter.clone();
            for (int k = 1; k <= m; k++) {
                filter[k] = before[k] + reflection * before[m - k];
            }
        }
        return filter;
    }

    /**
     * The values of a hole for which the errors of all predictions that it has a part in are least.
     *
     * @param most farther from the mean than this nothing is put in: the hole stays as it is then
     */
    private static void mend(double[] x, int[] hole, double[] filter, double mean, double most) {
        int order = filter.length - 1;
        int from = Math.max(order, hole[0]);
        int to = Math.min(x.length, hole[1] + order);
        int n = hole[1] - hole[0];
        if (to - from < n) {
            return;
        }
        double[][] normal = new double[n][n];
        double[] right = new double[n];
        for (int at = from; at < to; at++) {
            double known = 0;
            for (int k = 0; k <= order; k++) {
                int i = at - k;
                known += i >= hole[0] && i < hole[1] ? 0 : filter[k] * (x[i] - mean);
            }
            int first = Math.max(hole[0], at - order);
            int last = Math.min(hole[1] - 1, at);
            for (int i = first; i <= last; i++) {
                right[i - hole[0]] -= filter[at - i] * known;
                for (int j = first; j <= last; j++) {
                    normal[i - hole[0]][j - hole[0]] += filter[at - i] * filter[at - j];
                }
            }
        }
        double ridge = 0;
        for (int i = 0; i < n; i++) {
            ridge += RIDGE * normal[i][i] / n;
        }
        for (int i = 0; i < n; i++) {
            normal[i][i] += ridge;
        }
        // Near an end of a record what is left of a prediction may be far smaller than one: the ridge keeps it
        // positive.
        double[] found = new CholeskyDecomposition(new Array2DRowRealMatrix(normal, false), SYMMETRIC, 0)
                .getSolver()
                .solve(new ArrayRealVector(right, false))
                .toArray();
        if (Arrays.stream(found).allMatch(one -> Math.abs(one) <= most)) {
            for (int i = 0; i < n; i++) {
                x[hole[0] + i] = mean + found[i];
            }
        }
    }
}
