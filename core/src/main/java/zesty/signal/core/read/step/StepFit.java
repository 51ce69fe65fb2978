package zesty.signal.core.read.step;

import java.util.stream.IntStream;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.SingularValueDecomposition;

/**
 * The least-squares fit of an answer to a step at time 0: base + size · shape(t − dead), first order (K. Küpfmüller 1928,
 * "Über die Dynamik der selbsttätigen Verstärkungsregler": dead time and one time constant) or second order with
 * damping. Base and size are linear, so for each shape the best of them follow (G. H. Golub and V. Pereyra 1973, variable projection); the
 * shape is sought on a grid, then by damped steps along its derivatives (D. W. Marquardt 1963, "An algorithm for least-squares
 * estimation of nonlinear parameters").
 *
 * @param before size of the step before, whose answer was still under way; 0 without one
 * @param damping NaN of a first order
 * @param squares sum of the squares left over
 */
record StepFit(double base, double size, double before, double tau, double dead, double damping, double squares) {
    private static final int DEADS = 14;
    private static final int TAUS = 18;
    private static final double[] DAMPINGS = {0.15, 0.3, 0.5, 0.75, 1.0};
    /** The shape is sought on so many points, and then made exact on all. */
    private static final int FEW_POINTS = 120;
    /** It is found to the last digit in far fewer steps than these. */
    private static final int MOST_ITERATIONS = 60;
    /** A step that leaves less than this share fewer squares ends the search. */
    private static final double FINEST = 1e-9;
    /** What derivatives are taken over, as a share of the time constant, of it, and of a damping of 1. */
    private static final double SMALL = 1e-4;

    private static final double LEAST_DAMPING = 0.02;
    private static final double MOST_DAMPING = 3;

    /** Mean square of what the step before has still to go, below which it has come to rest: 0.03 % of its size. A hundredth of it left out made the gain a hundredth too small. */
    private static final double LEAST_TAIL = 1e-7;

    /** @return the dead time as the rows show it: none where the input switched between two of them */
    double shownDead() {
        return Math.max(0, dead);
    }

    boolean secondOrder() {
        return damping == damping;
    }

    /** @return the time constants of two lags in a row, the slower first; null where it is not such */
    double[] lags() {
        if (!(damping >= 1)) {
            return null;
        }
        double w = Math.sqrt(damping * damping - 1);
        return new double[] {tau * (damping + w), tau * (damping - w)};
    }

    /** @return how far it goes beyond where it comes to rest, as a share of the way; 0 of a first order */
    double overshoot() {
        return damping < 1 ? Math.exp(-Math.PI * damping / Math.sqrt(1 - damping * damping)) : 0;
    }

    /**
     * What is fitted to.
     *
     * @param t seconds from the step
     * @param y the response
     * @param period from one point to the next, in s
     * @param lead seconds from the step before to this one: its answer may still be under way; NaN without one
     */
    record Data(double[] t, double[] y, double period, double lead) {
        double after() {
            return t[t.length - 1];
        }

        /** @return every so-many-th point, so that there are few */
        Data thinned() {
            int every = (t.length + FEW_POINTS - 1) / FEW_POINTS;
            if (every <= 1) {
                return this;
            }
            int n = (t.length + every - 1) / every;
            double[] some = new double[n];
            double[] values = new double[n];
            for (int i = 0; i < n; i++) {
                some[i] = t[i * every];
                values[i] = y[i * every];
            }
            return new Data(some, values, period, lead);
        }
    }

    /**
     * What the maker set by hand; NaN for what is sought.
     *
     * @param tau in s. @param dead in s. @param size of the response
     */
    record Held(double tau, double dead, double size) {
        static final Held NONE = new Held(Double.NaN, Double.NaN, Double.NaN);

        boolean any() {
            return tau == tau || dead == dead || size == size;
        }
    }

    static StepFit firstOrder(Data data) {
        return best(data, new double[] {Double.NaN});
    }

    /** @return the first order with what is held as it is, and the rest as near to the response as it gets */
    StepFit held(Data data, Held held) {
        StepFit from = solve(
                data,
                held.tau() == held.tau() ? held.tau() : tau,
                held.dead() == held.dead() ? held.dead() : dead,
                Double.NaN,
                held.size());
        return refined(data, from, held);
    }

    static StepFit secondOrder(Data data) {
        return best(data, DAMPINGS);
    }

    private static StepFit best(Data all, double[] dampings) {
        Data data = all.thinned();
        double after = data.after();
        StepFit best = null;
        for (double damping : dampings) {
            StepFit near = null;
            for (int k = 0; k < TAUS; k++) {
                double tau = data.period() / 2 * Math.pow(4 * after / data.period(), (double) k / (TAUS - 1));
                for (int d = 0; d < DEADS; d++) {
                    StepFit fit = solve(data, tau, after * 0.5 * d * d / DEADS / DEADS, damping);
                    near = near == null || fit.squares() < near.squares() ? fit : near;
                }
            }
            StepFit fit = refined(data, near, Held.NONE);
            best = best == null || fit.squares() < best.squares() ? fit : best;
        }
        // What some points tell is near; all of them tell the rest.
        return data == all ? best : refined(all, solve(all, best.tau(), best.dead(), best.damping()), Held.NONE);
    }

    private static StepFit refined(Data data, StepFit from, Held held) {
        StepFit best = from;
        double cautious = 1e-3;
        for (int i = 0; i < MOST_ITERATIONS && cautious < 1e9 && best.squares() > 0; i++) {
            StepFit next = stepped(data, best, held, cautious);
            if (next.squares() < best.squares()) {
                boolean done = next.squares() > best.squares() * (1 - FINEST);
                best = next;
                cautious = Math.max(1e-9, cautious / 8);
                if (done) {
                    break;
                }
            } else {
                cautious *= 8;
            }
        }
        return best;
    }

    private static StepFit stepped(Data data, StepFit at, Held held, double cautious) {
        double[] left = at.left(data);
        double[][] slopes = at.slopes(data, held, left);
        int[] free = IntStream.range(0, slopes.length)
                .filter(k -> slopes[k] != null && dot(slopes[k], slopes[k]) > 0)
                .toArray();
        if (free.length == 0) {
            return at;
        }
        double[][] normal = new double[free.length][free.length];
        double[] right = new double[free.length];
        for (int a = 0; a < free.length; a++) {
            for (int b = 0; b < free.length; b++) {
                normal[a][b] = dot(slopes[free[a]], slopes[free[b]]) * (a == b ? 1 + cautious : 1);
            }
            right[a] = -dot(slopes[free[a]], left);
        }
        double[] found = new SingularValueDecomposition(new Array2DRowRealMatrix(normal, false))
                .getSolver()
                .solve(new ArrayRealVector(right, false))
                .toArray();
        double[] by = new double[slopes.length];
        for (int a = 0; a < free.length; a++) {
            by[free[a]] = Math.max(-1, Math.min(1, found[a]));
        }
        return at.moved(data, held, by);
    }

    /** @return by how much what is left changes with the logarithm of tau, with dead in taus, and with damping; null for what is held */
    private double[][] slopes(Data data, Held held, double[] left) {
        double[][] slopes = new double[secondOrder() ? 3 : 2][];
        for (int k = 0; k < slopes.length; k++) {
            if (k == 0 && held.tau() == held.tau() || k == 1 && held.dead() == held.dead()) {
                continue;
            }
            double[] by = new double[slopes.length];
            by[k] = SMALL;
            slopes[k] = moved(data, held, by).left(data);
            for (int i = 0; i < left.length; i++) {
                slopes[k][i] = (slopes[k][i] - left[i]) / SMALL;
            }
        }
        return slopes;
    }

    private static double dot(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += a[i] * b[i];
        }
        return sum;
    }

    private StepFit moved(Data data, Held held, double[] by) {
        // The input may have switched up to a period before the row that shows it.
        return solve(
                data,
                tau * Math.exp(by[0]),
                Math.max(-data.period(), dead + by[1] * tau),
                secondOrder() ? Math.max(LEAST_DAMPING, Math.min(MOST_DAMPING, damping + by[2])) : Double.NaN,
                held.size());
    }

    /** @return the response less what it says */
    private double[] left(Data data) {
        double[] left = new double[data.t().length];
        for (int i = 0; i < left.length; i++) {
            left[i] = data.y()[i] - base - size * shape((data.t()[i] - dead) / tau, damping);
            if (before != 0) {
                left[i] -= before * (shape((data.t()[i] + data.lead() - dead) / tau, damping) - 1);
            }
        }
        return left;
    }

    /** Least squares of base, size and, after a step before, its size: all three are linear. */
    private static StepFit solve(Data data, double tau, double dead, double damping) {
        return solve(data, tau, dead, damping, Double.NaN);
    }

    /** @param held the size where it is set by hand; NaN where it is sought */
    private static StepFit solve(Data data, double tau, double dead, double damping, double held) {
        double[] t = data.t();
        double[] y = data.y();
        boolean tail = data.lead() == data.lead();
        double sf = 0;
        double sy = 0;
        double sff = 0;
        double sfy = 0;
        double syy = 0;
        double sg = 0;
        double sgg = 0;
        double sgf = 0;
        double sgy = 0;
        int n = t.length;
        for (int i = 0; i < n; i++) {
            double f = shape((t[i] - dead) / tau, damping);
            sf += f;
            sy += y[i];
            sff += f * f;
            sfy += f * y[i];
            syy += y[i] * y[i];
            if (tail) {
                // What the step before still has to go: 0 once it has come to rest.
                double g = shape((t[i] + data.lead() - dead) / tau, damping) - 1;
                sg += g;
                sgg += g * g;
                sgf += g * f;
                sgy += g * y[i];
            }
        }
        double ff = sff - sf * sf / n;
        double fy = sfy - sf * sy / n;
        double yy = syy - sy * sy / n;
        double gg = sgg - sg * sg / n;
        double gf = sgf - sg * sf / n;
        double gy = sgy - sg * sy / n;
        double size = ff > 1e-12 * n ? fy / ff : 0;
        double before = 0;
        double determinant = ff * gg - gf * gf;
        if (tail && gg > LEAST_TAIL * n && determinant > 1e-6 * ff * gg) {
            size = (fy * gg - gy * gf) / determinant;
            before = (gy * ff - fy * gf) / determinant;
        }
        if (held == held) {
            double kept = yy - 2 * held * fy + held * held * ff;
            return new StepFit((sy - held * sf) / n, held, 0, tau, dead, damping, Math.max(0, kept));
        }
        double base = (sy - size * sf - before * sg) / n;
        double left = yy - size * fy - before * gy;
        return new StepFit(base, size, before, tau, dead, damping, Math.max(0, left));
    }

    /** @return the way that is gone at so many time constants after the dead time: 0 before, towards 1 */
    static double shape(double s, double damping) {
        if (!(s > 0)) {
            return 0;
        }
        if (damping != damping) {
            return 1 - Math.exp(-s);
        }
        if (Math.abs(damping - 1) < 1e-6) {
            return 1 - (1 + s) * Math.exp(-s);
        }
        if (damping > 1) {
            double w = Math.sqrt(damping * damping - 1);
            double fast = damping + w;
            double slow = damping - w;
            return 1 - (fast * Math.exp(-slow * s) - slow * Math.exp(-fast * s)) / (2 * w);
        }
        double w = Math.sqrt(1 - damping * damping);
        return 1 - Math.exp(-damping * s) * (Math.cos(w * s) + damping / w * Math.sin(w * s));
    }

    /** @return seconds from the first time at 10 % to the first time at 90 % */
    double riseSeconds() {
        if (!secondOrder()) {
            return Math.log(9) * tau;
        }
        double low = Double.NaN;
        for (double s = 0; s < 60; s += 0.001) {
            double way = shape(s, damping);
            low = Double.isNaN(low) && way >= 0.1 ? s : low;
            if (way >= 0.9) {
                return (s - low) * tau;
            }
        }
        return Double.NaN;
    }

    /** @return after how many seconds from the step less than 2 % of the way is left */
    double settledSeconds() {
        return dead + (secondOrder() ? 4 * tau * Math.max(1 / damping, 2 * damping) : 4 * tau);
    }
}
