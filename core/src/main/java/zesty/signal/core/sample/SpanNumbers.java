package zesty.signal.core.sample;

/**
 * The plain numbers of a stretch of samples; missing ones (NaN) are left out.
 *
 * @param count samples that are there
 * @param mean of them
 * @param deviation their standard deviation, of a sample of them (n − 1); NaN for one
 * @param rms root of the mean square, of the values as they are
 * @param low the least
 * @param high the greatest
 * @param slope of the straight line of least squares, a second; NaN for fewer than two moments
 * @param crest the furthest from the mean over the RMS about the mean; NaN when nothing moves
 * @param area the integral over time, by trapezoids; across what is missing nothing is added
 */
public record SpanNumbers(
        long count,
        double mean,
        double deviation,
        double rms,
        double low,
        double high,
        double slope,
        double crest,
        double area) {
    /** A gap is longer than so many usual steps of time. */
    private static final double GAP = 1.5;

    /**
     * @param values in any unit
     * @param seconds when each was, rising
     */
    public static SpanNumbers of(double[] values, double[] seconds) {
        double origin = seconds.length == 0 ? 0 : seconds[0];
        double step = seconds.length < 2 ? 0 : (seconds[seconds.length - 1] - origin) / (seconds.length - 1);
        long n = 0;
        double sum = 0;
        double sumT = 0;
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        double area = 0;
        int last = -1;
        for (int i = 0; i < values.length; i++) {
            double x = values[i];
            if (x != x) {
                continue;
            }
            n++;
            sum += x;
            sumT += seconds[i] - origin;
            low = Math.min(low, x);
            high = Math.max(high, x);
            if (last == i - 1 && last >= 0 && seconds[i] - seconds[last] < GAP * step) {
                area += (x + values[last]) / 2 * (seconds[i] - seconds[last]);
            }
            last = i;
        }
        if (n == 0) {
            double none = Double.NaN;
            return new SpanNumbers(0, none, none, none, none, none, none, none, none);
        }
        double mean = sum / n;
        double meanT = sumT / n;
        double squares = 0;
        double timesTwo = 0;
        double both = 0;
        for (int i = 0; i < values.length; i++) {
            if (values[i] == values[i]) {
                double off = values[i] - mean;
                double t = seconds[i] - origin - meanT;
                squares += off * off;
                timesTwo += t * t;
                both += off * t;
            }
        }
        double about = Math.sqrt(squares / n);
        return new SpanNumbers(
                n,
                mean,
                n > 1 ? Math.sqrt(squares / (n - 1)) : Double.NaN,
                Math.sqrt(squares / n + mean * mean),
                low,
                high,
                timesTwo > 0 ? both / timesTwo : Double.NaN,
                about > 0 ? Math.max(high - mean, mean - low) / about : Double.NaN,
                area);
    }
}
