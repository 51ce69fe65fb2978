package zesty.signal.core.read.joint;

import java.util.ArrayList;
import java.util.List;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.EigenDecompositionSymmetric;
import org.hipparchus.linear.LUDecomposition;

/**
 * How the axis of a hinge lies in each of two units that are fixed on either side of it, however they were strapped on (T. Seel, J.
 * Raisch and T. Schauer 2014, "IMU-based joint angle measurement for gait analysis"): what both turn across the axis is the same size,
 * |ω₁ × j₁| = |ω₂ × j₂|, since the hinge only lets them differ along it. Found by least squares from several beginnings.
 *
 * @param first the axis in the first unit, of length 1. @param second in the second unit, pointing the same way; null where that unit
 *     hardly turns and its share is nothing
 * @param misfit what is left of the constraint, root of the mean square, as a share of how fast the units turn: 0 for a perfect hinge
 */
record HingeAxes(double[] first, double[] second, double misfit) {
    /** Samples that are looked at; more tell no more. */
    private static final int MOST_SAMPLES = 1500;

    /** Slower than this a unit stands still, in °/s. */
    private static final double STILL = 8;
    /** A unit that turns less than this share of what the other does tells nothing of its axis. */
    private static final double HARDLY = 0.12;

    private static final int STARTS = 6;
    private static final int ITERATIONS = 40;
    private static final int FEWEST = 30;

    /**
     * @param w1 rates of turning of the first unit, one array of three a sample, in °/s. @param w2 of the second
     * @return null where neither turns enough to tell
     */
    static HingeAxes of(double[][] w1, double[][] w2) {
        List<double[][]> moving = new ArrayList<>();
        double squares1 = 0;
        double squares2 = 0;
        for (int i = 0; i < w1.length; i++) {
            double own1 = dot(w1[i], w1[i]);
            double own2 = dot(w2[i], w2[i]);
            if (Math.max(own1, own2) > STILL * STILL) {
                moving.add(new double[][] {w1[i], w2[i]});
                squares1 += own1;
                squares2 += own2;
            }
        }
        if (moving.size() < FEWEST) {
            return null;
        }
        boolean still1 = squares1 < HARDLY * HARDLY * squares2;
        boolean still2 = squares2 < HARDLY * HARDLY * squares1;
        int every = (moving.size() + MOST_SAMPLES - 1) / MOST_SAMPLES;
        List<double[][]> some = new ArrayList<>();
        for (int i = 0; i < moving.size(); i += every) {
            some.add(moving.get(i));
        }
        double size = Math.sqrt((squares1 + squares2) / 2 / moving.size());
        if (still1 || still2) {
            double[] axis = main(some, still1 ? 1 : 0);
            double across = 0;
            for (double[][] one : some) {
                double[] off = cross(one[still1 ? 1 : 0], axis);
                across += dot(off, off);
            }
            double misfit = Math.sqrt(across / some.size()) / Math.sqrt((still1 ? squares2 : squares1) / moving.size());
            return still1 ? new HingeAxes(null, axis, misfit) : new HingeAxes(axis, null, misfit);
        }
        HingeAxes best = null;
        for (int start = 0; start < STARTS; start++) {
            HingeAxes found = from(some, start, size);
            best = best == null || found.misfit() < best.misfit() ? found : best;
        }
        return best;
    }

    /** @return the axis of the second unit pointing the other way, which the constraint allows as well */
    HingeAxes secondFlipped() {
        return new HingeAxes(first, negative(second), misfit);
    }

    private static double[] negative(double[] v) {
        return v == null ? null : new double[] {-v[0], -v[1], -v[2]};
    }

    /** The direction that one unit turns about most: the main axis of its rates. */
    private static double[] main(List<double[][]> some, int unit) {
        double[][] moments = new double[3][3];
        for (double[][] one : some) {
            for (int r = 0; r < 3; r++) {
                for (int c = 0; c < 3; c++) {
                    moments[r][c] += one[unit][r] * one[unit][c];
                }
            }
        }
        return new EigenDecompositionSymmetric(new Array2DRowRealMatrix(moments, false))
                .getEigenvector(0)
                .toArray();
    }

    /** Gauss and Newton's steps from one beginning, shortened where they do not get nearer. */
    private static HingeAxes from(List<double[][]> some, int start, double size) {
        double[] j1 = unit(
                start % 3 == 0
                        ? new double[] {1, 0.1, 0.1}
                        : start % 3 == 1 ? new double[] {0.1, 1, 0.1} : new double[] {0.1, 0.1, 1});
        double[] j2 = start < 3 ? main(some, 1) : unit(new double[] {j1[1], j1[2], j1[0]});
        double squares = squares(some, j1, j2);
        double damping = 1e-3;
        for (int k = 0; k < ITERATIONS; k++) {
            double[][] normal = new double[6][6];
            double[] right = new double[6];
            for (double[][] one : some) {
                double[] off1 = cross(one[0], j1);
                double[] off2 = cross(one[1], j2);
                double size1 = Math.max(1e-9, Math.sqrt(dot(off1, off1)));
                double size2 = Math.max(1e-9, Math.sqrt(dot(off2, off2)));
                // d|ω × j|/dj = ((ω × j) × ω)/|ω × j|
                double[] by1 = cross(off1, one[0]);
                double[] by2 = cross(off2, one[1]);
                double[] row = {
                    by1[0] / size1, by1[1] / size1, by1[2] / size1, -by2[0] / size2, -by2[1] / size2, -by2[2] / size2
                };
                for (int r = 0; r < 6; r++) {
                    for (int c = 0; c < 6; c++) {
                        normal[r][c] += row[r] * row[c];
                    }
                    right[r] -= row[r] * (size1 - size2);
                }
            }
            double trace = 0;
            for (int r = 0; r < 6; r++) {
                trace += normal[r][r];
            }
            for (int r = 0; r < 6; r++) {
                normal[r][r] += damping * trace / 6 + 1e-12;
            }
            double[] step = new LUDecomposition(new Array2DRowRealMatrix(normal, false))
                    .getSolver()
                    .solve(new ArrayRealVector(right, false))
                    .toArray();
            double[] next1 = unit(new double[] {j1[0] + step[0], j1[1] + step[1], j1[2] + step[2]});
            double[] next2 = unit(new double[] {j2[0] + step[3], j2[1] + step[4], j2[2] + step[5]});
            double then = squares(some, next1, next2);
            if (then < squares) {
                boolean done = squares - then < 1e-10 * squares;
                j1 = next1;
                j2 = next2;
                squares = then;
                damping = Math.max(1e-9, damping / 5);
                if (done) {
                    break;
                }
            } else {
                damping *= 8;
                if (damping > 1e6) {
                    break;
                }
            }
        }
        return new HingeAxes(j1, j2, Math.sqrt(squares / some.size()) / size);
    }

    private static double squares(List<double[][]> some, double[] j1, double[] j2) {
        double sum = 0;
        for (double[][] one : some) {
            double[] off1 = cross(one[0], j1);
            double[] off2 = cross(one[1], j2);
            double apart = Math.sqrt(dot(off1, off1)) - Math.sqrt(dot(off2, off2));
            sum += apart * apart;
        }
        return sum;
    }

    static double dot(double[] a, double[] b) {
        return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    }

    static double[] cross(double[] a, double[] b) {
        return new double[] {a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]};
    }

    static double[] unit(double[] v) {
        double length = Math.sqrt(dot(v, v));
        return length > 0 ? new double[] {v[0] / length, v[1] / length, v[2] / length} : new double[] {1, 0, 0};
    }
}
