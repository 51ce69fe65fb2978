package zesty.signal.core.sample;

/**
 * How two numbers that were taken at the same moments go together: the straight line of least squares, y = slope · x + offset, and
 * the correlation of K. Pearson 1896, "Regression, heredity and panmixia".
 *
 * @param correlation −1 … 1; NaN when one of them does not change
 */
public record Pair(
        double lowX, double highX, double lowY, double highY, double slope, double offset, double correlation) {

    /** @param length how many of the moments count; none of them is missing */
    public static Pair of(double[] x, double[] y, int length) {
        double lowX = Double.POSITIVE_INFINITY;
        double highX = Double.NEGATIVE_INFINITY;
        double lowY = Double.POSITIVE_INFINITY;
        double highY = Double.NEGATIVE_INFINITY;
        double meanX = 0;
        double meanY = 0;
        for (int i = 0; i < length; i++) {
            lowX = Math.min(lowX, x[i]);
            highX = Math.max(highX, x[i]);
            lowY = Math.min(lowY, y[i]);
            highY = Math.max(highY, y[i]);
            meanX += (x[i] - meanX) / (i + 1);
            meanY += (y[i] - meanY) / (i + 1);
        }
        double xx = 0;
        double xy = 0;
        double yy = 0;
        for (int i = 0; i < length; i++) {
            xx += (x[i] - meanX) * (x[i] - meanX);
            xy += (x[i] - meanX) * (y[i] - meanY);
            yy += (y[i] - meanY) * (y[i] - meanY);
        }
        boolean some = length > 0;
        double slope = xx > 0 ? xy / xx : Double.NaN;
        double correlation = xx > 0 && yy > 0 && length > 2 ? xy / Math.sqrt(xx * yy) : Double.NaN;
        return new Pair(
                some ? lowX : 0,
                some ? highX : 1,
                some ? lowY : 0,
                some ? highY : 1,
                slope,
                meanY - slope * meanX,
                correlation);
    }
}
