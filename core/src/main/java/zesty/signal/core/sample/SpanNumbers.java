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
        double length = seconds.length < 2 ? 0 : seconds[seconds.length - 1] - seconds[0];
        Sums sums = new Sums(length / Math.max(1, seconds.length - 1));
        for (int i = 0; i < values.length; i++) {
            sums.add(values[i], seconds[i]);
        }
        return sums.numbers();
    }

    /**
     * Adds a stretch up sample by sample, however long it is, without a large sum to lose small differences in (B. P. Welford 1962,
     * "Note on a method for calculating corrected sums of squares and products"). One thread.
     */
    public static final class Sums {
        private final double longestStep;
        private long n;
        private double origin;
        private double mean;
        private double meanT;
        private double squares;
        private double timesTwo;
        private double both;
        private double low = Double.POSITIVE_INFINITY;
        private double high = Double.NEGATIVE_INFINITY;
        private double area;
        private double first = Double.NaN;
        private double last = Double.NaN;
        private double lastSeconds;
        private boolean missed;

        /** @param stepSeconds usual time from sample to sample */
        public Sums(double stepSeconds) {
            longestStep = GAP * stepSeconds;
        }

        /** @param value NaN for a missing one */
        public void add(double value, double seconds) {
            if (value != value) {
                missed = true;
                return;
            }
            if (n == 0) {
                origin = seconds;
                first = value;
            } else if (!missed && seconds - lastSeconds < longestStep) {
                area += (value + last) / 2 * (seconds - lastSeconds);
            }
            n++;
            double t = seconds - origin;
            double off = value - mean;
            double offT = t - meanT;
            mean += off / n;
            meanT += offT / n;
            squares += off * (value - mean);
            timesTwo += offT * (t - meanT);
            both += off * (t - meanT);
            low = Math.min(low, value);
            high = Math.max(high, value);
            last = value;
            lastSeconds = seconds;
            missed = false;
        }

        /** @return the first sample that was there; NaN before one */
        public double first() {
            return first;
        }

        /** @return the last sample that was there; NaN before one */
        public double last() {
            return last;
        }

        public SpanNumbers numbers() {
            if (n == 0) {
                double none = Double.NaN;
                return new SpanNumbers(0, none, none, none, none, none, none, none, none);
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
}
