package zesty.signal.core.read.step;

/**
 * The least-squares fit of an answer to a step at time 0: base + size · shape(t − dead), first order (K. Küpfmüller 1928,
 * "Über die Dynamik der selbsttätigen Verstärkungsregler": dead time and one time constant) or second order with
 * damping. Base and size are linear, so for each shape the best of them follow; the shape is sought on a grid, then by
 * steps that halve (G. H. Golub and V. Pereyra 1973, variable projection).
 *
 * @param damping NaN of a first order
 * @param squares sum of the squares left over
 */
record StepFit(double base, double size, double tau, double dead, double damping, double squares) {
    private static final int DEADS = 24;
    private static final int TAUS = 30;
    private static final double[] DAMPINGS = {0.15, 0.3, 0.45, 0.6, 0.8, 1.0};
    private static final int HALVINGS = 26;
    /** The shape is sought on so many points, and then made exact on all. */
    private static final int FEW_POINTS = 240;

    private static final double NEAR = 0.1;
    private static final int FEW_HALVINGS = 18;
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
        return refined(data, from, NEAR, held);
    }

    static StepFit secondOrder(Data data) {
        return best(data, DAMPINGS);
    }

    private static StepFit best(Data all, double[] dampings) {
        Data data = all.thinned();
        double after = data.after();
        StepFit best = null;
        for (double damping : dampings) {
            for (int k = 0; k < TAUS; k++) {
                double tau = data.period() / 2 * Math.pow(4 * after / data.period(), (double) k / (TAUS - 1));
                for (int d = 0; d < DEADS; d++) {
                    StepFit fit = solve(data, tau, after * 0.5 * d * d / DEADS / DEADS, damping);
                    best = best == null || fit.squares() < best.squares() ? fit : best;
                }
            }
        }
        best = refined(data, best, 1, Held.NONE);
        // What some points tell is near; all of them tell the rest.
        return data == all ? best : refined(all, solve(all, best.tau(), best.dead(), best.damping()), NEAR, Held.NONE);
    }

    /** @param near how far off it may be, as a share of the steps of the grid */
    private static StepFit refined(Data data, StepFit from, double near, Held held) {
        StepFit best = from;
        double tauStep = 0.25 * near;
        double deadStep = Math.max(0.05 * near * data.after(), 1e-9);
        double dampingStep = 0.15 * near;
        for (int halving = 0; halving < (near < 1 ? FEW_HALVINGS : HALVINGS); halving++) {
            boolean better = true;
            for (int tries = 0; better && tries < 60; tries++) {
                better = false;
                for (int way = 0; way < (best.secondOrder() ? 6 : 4); way++) {
                    if (way / 2 == 0 && held.tau() == held.tau() || way / 2 == 1 && held.dead() == held.dead()) {
                        continue;
                    }
                    double sign = way % 2 == 0 ? 1 : -1;
                    double tau = best.tau() * (way / 2 == 0 ? Math.exp(sign * tauStep) : 1);
                    double dead = best.dead() + (way / 2 == 1 ? sign * deadStep : 0);
                    double damping = best.damping() + (way / 2 == 2 ? sign * dampingStep : 0);
                    // The input may have switched up to a period before the row that shows it.
                    if (dead < -data.period() || damping <= 0.02 || damping > 3) {
                        continue;
                    }
                    StepFit fit = solve(data, tau, dead, damping, held.size());
                    if (fit.squares() < best.squares()) {
                        best = fit;
                        better = true;
                    }
                }
            }
            tauStep /= 2;
            deadStep /= 2;
            dampingStep /= 2;
        }
        return best;
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
            return new StepFit((sy - held * sf) / n, held, tau, dead, damping, Math.max(0, kept));
        }
        double base = (sy - size * sf - before * sg) / n;
        double left = yy - size * fy - before * gy;
        return new StepFit(base, size, tau, dead, damping, Math.max(0, left));
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
