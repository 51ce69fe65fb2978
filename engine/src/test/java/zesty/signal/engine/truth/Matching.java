package zesty.signal.engine.truth;

import java.util.Arrays;

/** Events found beside those that were there. @param missed of the true ones. @param extra of those found */
record Matching(int missed, int extra, double medianLag, double worst) {

    /** Each true event takes the nearest found one within reach that is still free. */
    static Matching of(double[] truth, double[] found, double before, double after) {
        boolean[] used = new boolean[found.length];
        double[] lags = new double[truth.length];
        int n = 0;
        for (double at : truth) {
            int best = -1;
            for (int i = 0; i < found.length; i++) {
                double lag = found[i] - at;
                if (!used[i]
                        && lag >= -before
                        && lag <= after
                        && (best < 0 || Math.abs(lag) < Math.abs(found[best] - at))) {
                    best = i;
                }
            }
            if (best >= 0) {
                used[best] = true;
                lags[n++] = found[best] - at;
            }
        }
        double[] sorted = Arrays.copyOf(lags, n);
        Arrays.sort(sorted);
        double median = n == 0 ? 0 : sorted[n / 2];
        double worst = 0;
        for (double lag : sorted) {
            worst = Math.max(worst, Math.abs(lag - median));
        }
        return new Matching(truth.length - n, found.length - n, median, worst);
    }

    String objection(double share, int truth) {
        int most = (int) Math.floor(share * truth);
        return missed > most || extra > most ? "of " + truth + " missed " + missed + ", invented " + extra : "";
    }
}
