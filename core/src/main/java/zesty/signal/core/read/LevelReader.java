package zesty.signal.core.read;

import zesty.signal.core.sample.TimeBase;

/** What a slow channel says: its mean, range and noise over the last stretch. Streaming. */
public final class LevelReader {
    private final double[] values;
    private final double[] seconds;
    private final double windowSeconds;
    private long start;
    private long end;

    /**
     * What a level says.
     *
     * @param mean over the window; NaN when it is empty
     * @param noise standard deviation of one sample, from the differences of neighbours, so that a slope does not count
     * @param lowest and highest within the window
     */
    public record Level(double mean, double noise, double lowest, double highest, int samples) {}

    /** @return the level over all of the values; NaN is passed over */
    public static Level of(double[] data, int length) {
        double sum = 0;
        double squares = 0;
        double lowest = Double.POSITIVE_INFINITY;
        double highest = Double.NEGATIVE_INFINITY;
        double before = Double.NaN;
        int n = 0;
        for (int i = 0; i < length; i++) {
            double value = data[i];
            if (Double.isNaN(value)) {
                continue;
            }
            sum += value;
            squares += n > 0 ? (value - before) * (value - before) : 0;
            lowest = Math.min(lowest, value);
            highest = Math.max(highest, value);
            before = value;
            n++;
        }
        double noise = n < 2 ? Double.NaN : Math.sqrt(squares / (n - 1) / 2);
        return n == 0
                ? new Level(Double.NaN, Double.NaN, Double.NaN, Double.NaN, 0)
                : new Level(sum / n, noise, lowest, highest, n);
    }

    /** @param rateHz about how many samples a second come; sets how many are kept, 10 million at most */
    public LevelReader(double windowSeconds, double rateHz) {
        if (!(windowSeconds > 0) || !(rateHz > 0)) {
            throw new IllegalArgumentException(
                    "window and rate must be above 0, were " + windowSeconds + " s, " + rateHz + " Hz");
        }
        this.windowSeconds = windowSeconds;
        int capacity = (int) Math.min(1e7, Math.ceil(windowSeconds * rateHz * 1.1) + 16);
        values = new double[capacity];
        seconds = new double[capacity];
    }

    /** Takes the next samples; NaN is passed over. */
    public void accept(double[] data, int length, TimeBase time) {
        for (int i = 0; i < length; i++) {
            if (Double.isNaN(data[i])) {
                continue;
            }
            int cell = (int) (end % values.length);
            values[cell] = data[i];
            seconds[cell] = time.secondsAt(i);
            end++;
            start = Math.max(start, end - values.length);
        }
    }

    /** @return the level over the window that ends at the newest sample */
    public Level level() {
        while (start < end
                && seconds[(int) (start % values.length)]
                        < seconds[(int) ((end - 1) % values.length)] - windowSeconds) {
            start++;
        }
        int n = (int) (end - start);
        double[] window = new double[n];
        double squares = 0;
        for (int i = 0; i < n; i++) {
            window[i] = values[(int) ((start + i) % values.length)];
            if (i > 0) {
                squares += (window[i] - window[i - 1]) * (window[i] - window[i - 1]);
            }
        }
        Spread spread = Spread.of(window);
        // The difference of two equal noises has twice their variance (von Neumann 1941).
        double noise = n < 2 ? Double.NaN : Math.sqrt(squares / (n - 1) / 2);
        return new Level(spread.mean(), noise, spread.lowest(), spread.highest(), n);
    }
}
