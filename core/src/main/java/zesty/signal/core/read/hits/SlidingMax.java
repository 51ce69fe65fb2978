package zesty.signal.core.read.hits;

/** The highest size of the newest so many values before each, three comparisons a value (M. van Herk 1992; J. Gil and M. Werman 1993). */
final class SlidingMax {
    private SlidingMax() {}

    /**
     * @param x of any sign
     * @param window how many values before each, 1 at least
     * @return of each value the highest |x| of those before it; 0 of the first
     */
    static double[] before(double[] x, int window) {
        double[] highest = new double[x.length];
        // Blocks as long as the window: what lies before a value is the end of the block before its own, and the begin
        // of its own.
        double[] suffix = new double[window + 1];
        for (int from = 0; from < x.length; from += window) {
            int to = Math.min(x.length, from + window);
            double prefix = 0;
            for (int i = from; i < to; i++) {
                highest[i] = Math.max(suffix[i - from], prefix);
                prefix = Math.max(prefix, Math.abs(x[i]));
            }
            suffix[window] = 0;
            for (int k = to - from - 1; k >= 0; k--) {
                suffix[k] = Math.max(suffix[k + 1], Math.abs(x[from + k]));
            }
        }
        return highest;
    }
}
