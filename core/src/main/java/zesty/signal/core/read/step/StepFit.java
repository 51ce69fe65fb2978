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

    boolean oscillates() {
        return damping == damping;
    }

    /** @return how far it goes beyond where it comes to rest, as a share of the way; 0 of a first order */
    double overshoot() {
        return damping < 1 ? Math.exp(-Math.PI * damping / Math.sqrt(1 - damping * damping)) : 0;
    }

    static StepFit firstOrder(double[] t, double[] y, double period) {
        return best(t, y, period, new double[] {Double.NaN});
    }

    static StepFit secondOrder(double[] t, double[] y, double period) {
        return best(t, y, period, DAMPINGS);
    }

    private static StepFit best(double[] t, double[] y, double period, double[] dampings) {
        double after = t[t.length - 1];
        StepFit best = null;
        for (double damping : dampings) {
            for (int k = 0; k < TAUS; k++) {
                double tau = period / 2 * Math.pow(4 * after / period, (double) k / (TAUS - 1));
                for (int d = 0; d < DEADS; d++) {
                    StepFit fit = solve(t, y, tau, after * 0.5 * d * d / DEADS / DEADS, damping);
                    best = best == null || fit.squares() < best.squares() ? fit : best;
                }
            }
        }
        return refined(t, y, after, best);
    }

    private static StepFit refined(double[] t, double[] y, double after, StepFit from) {
        StepFit best = from;
        double tauStep = 0.25;
        double deadStep = Math.max(0.05 * after, 1e-9);
        double dampingStep = 0.15;
        for (int halving = 0; halving < HALVINGS; halving++) {
            boolean better = true;
            for (int tries = 0; better && tries < 60; tries++) {
                better = false;
                for (int way = 0; way < (best.oscillates() ? 6 : 4); way++) {
                    double sign = way % 2 == 0 ? 1 : -1;
                    double tau = best.tau() * (way / 2 == 0 ? Math.exp(sign * tauStep) : 1);
                    double dead = best.dead() + (way / 2 == 1 ? sign * deadStep : 0);
                    double damping = best.damping() + (way / 2 == 2 ? sign * dampingStep : 0);
                    if (dead < 0 || damping <= 0.02 || damping > 3) {
                        continue;
                    }
                    StepFit fit = solve(t, y, tau, dead, damping);
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

    private static StepFit solve(double[] t, double[] y, double tau, double dead, double damping) {
        double sf = 0;
        double sy = 0;
        double sff = 0;
        double sfy = 0;
        double syy = 0;
        int n = t.length;
        for (int i = 0; i < n; i++) {
            double f = shape((t[i] - dead) / tau, damping);
            sf += f;
            sy += y[i];
            sff += f * f;
            sfy += f * y[i];
            syy += y[i] * y[i];
        }
        double spread = sff - sf * sf / n;
        double size = spread > 1e-12 * n ? (sfy - sf * sy / n) / spread : 0;
        double base = (sy - size * sf) / n;
        double left = syy - sy * sy / n - size * (sfy - sf * sy / n);
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
        if (!oscillates()) {
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
        return dead + (oscillates() ? 4 * tau / Math.min(damping, 1 / damping) : 4 * tau);
    }
}
