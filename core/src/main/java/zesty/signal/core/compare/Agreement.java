package zesty.signal.core.compare;

import java.util.Optional;

/**
 * By how many samples one record is shifted to agree best with another, and how well it then does: the largest normalised
 * cross-correlation (J. P. Lewis 1995, "Fast normalized cross-correlation"), the means taken over the overlap alone.
 *
 * @param shift sample {@code i + shift} of the second stands over sample {@code i} of the first
 * @param correlation −1 … 1
 */
public record Agreement(int shift, double correlation) {
    /** Below so many pairs a correlation says nothing. */
    private static final int FEWEST = 8;

    /** What lies over the other must be this share of the shorter one: short overlaps agree by chance. */
    private static final double LEAST_OVERLAP = 0.5;

    /**
     * @param first and {@code second} evenly sampled alike, NaN where there is nothing
     * @param from least and {@code to} largest shift that is tried
     * @return empty where no shift leaves enough of both, or one of them never changes
     */
    public static Optional<Agreement> best(double[] first, double[] second, int from, int to) {
        Agreement best = null;
        int least = (int) Math.max(FEWEST, LEAST_OVERLAP * Math.min(first.length, second.length));
        for (int shift = from; shift <= to; shift++) {
            double r = correlation(first, second, shift, least);
            if (r == r && (best == null || r > best.correlation())) {
                best = new Agreement(shift, r);
            }
        }
        return Optional.ofNullable(best);
    }

    /** @return NaN where fewer than {@code least} pairs are there */
    private static double correlation(double[] first, double[] second, int shift, int least) {
        int begin = Math.max(0, -shift);
        int end = Math.min(first.length, second.length - shift);
        double sumA = 0;
        double sumB = 0;
        double aa = 0;
        double bb = 0;
        double ab = 0;
        int n = 0;
        for (int i = begin; i < end; i++) {
            double a = first[i];
            double b = second[i + shift];
            if (a == a && b == b) {
                sumA += a;
                sumB += b;
                aa += a * a;
                bb += b * b;
                ab += a * b;
                n++;
            }
        }
        double va = n * aa - sumA * sumA;
        double vb = n * bb - sumB * sumB;
        // What rounding leaves of a constant is no change.
        boolean still = va <= 1e-12 * n * aa || vb <= 1e-12 * n * bb;
        return n < least || still ? Double.NaN : (n * ab - sumA * sumB) / Math.sqrt(va * vb);
    }
}
