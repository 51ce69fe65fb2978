package zesty.signal.core.read.vibration;

import java.util.ArrayList;
import java.util.List;

/**
 * A tone above half the rate shows folded down, and one record cannot tell it from a true one. Recorded again at another rate, a
 * folded line moves and a true one stays: of the frequencies that either record allows the lowest that both do is true (the
 * remainders of one number by two rates; Sun Zi, fourth century).
 */
final class Folding {
    private static final int MOST_FOLDS = 6;
    /** Rates as near as this, as a share, tell nothing. */
    private static final double OTHER_RATE = 0.01;

    private Folding() {}

    /**
     * @param hz lines of the record at this rate
     * @param seen the other record: its rate, then its lines
     * @param withinHz how exactly a line is known
     * @return of each line: Hz now, Hz at the other rate, the true one; without those that no line of the other fits. Empty
     *     where the rates are too alike
     */
    static List<double[]> resolved(List<Double> hz, double rateHz, double[] seen, double withinHz) {
        List<double[]> found = new ArrayList<>();
        if (seen.length < 2 || Math.abs(seen[0] / rateHz - 1) < OTHER_RATE) {
            return found;
        }
        for (double now : hz) {
            double[] best = null;
            for (int i = 1; i < seen.length; i++) {
                double common = common(now, rateHz, seen[i], seen[0], withinHz);
                if (!Double.isNaN(common) && (best == null || common < best[2])) {
                    best = new double[] {now, seen[i], common};
                }
            }
            if (best != null) {
                found.add(best);
            }
        }
        return found;
    }

    private static double common(double a, double rateA, double b, double rateB, double within) {
        double lowest = Double.NaN;
        for (double one : candidates(a, rateA)) {
            for (double other : candidates(b, rateB)) {
                if (Math.abs(one - other) <= within && !(one >= lowest)) {
                    lowest = one;
                }
            }
        }
        return lowest;
    }

    /** @return what a line may be in truth, rising: itself, and what folds down to it */
    static List<Double> candidates(double hz, double rateHz) {
        List<Double> all = new ArrayList<>(List.of(hz));
        for (int k = 1; k <= MOST_FOLDS; k++) {
            all.add(k * rateHz - hz);
            all.add(k * rateHz + hz);
        }
        return all;
    }
}
