package zesty.signal.core.read.hits;

/**
 * How one hit came and went.
 *
 * @param riseSeconds from where it passed the threshold to its crest
 * @param ringSeconds from the crest until it stays within a tenth of its height; NaN where the next hit or the end came before
 */
record Shape(double riseSeconds, double ringSeconds) {
    private static final double LONGEST_SECONDS = 1;
    private static final double DIED = 0.1;

    /** @param from the first sample of the hit, {@code to} that of the next one or the end */
    static Shape of(double[] x, int from, int to, double rest, double rateHz, double attackSeconds) {
        int end = (int) Math.min(to, from + LONGEST_SECONDS * rateHz);
        int crest = from;
        for (int i = from; i < Math.min(end, from + (int) Math.ceil(attackSeconds * rateHz)); i++) {
            crest = Math.abs(x[i] - rest) > Math.abs(x[crest] - rest) ? i : crest;
        }
        double least = DIED * Math.abs(x[crest] - rest);
        int last = crest;
        for (int i = crest; i < end; i++) {
            last = Math.abs(x[i] - rest) > least ? i : last;
        }
        boolean cut = last >= end - 1;
        return new Shape((crest - from) / rateHz, cut ? Double.NaN : (last - crest) / rateHz);
    }
}
