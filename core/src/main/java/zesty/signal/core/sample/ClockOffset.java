package zesty.signal.core.sample;

/**
 * By how much a source's own time is behind the computer's clock, from when its rows arrive. A row can come late but
 * never early, so the least delayed row of each second tells the offset (the minimum filter of D. L. Mills, 1991,
 * Internet time synchronization), and a line through these the drift. One thread.
 */
public final class ClockOffset {
    private static final double BUCKET_SECONDS = 1;
    private static final int BUCKETS = 60;
    /** Fewer seconds than this tell no drift that is above their own scatter. */
    private static final int BUCKETS_FOR_DRIFT = 20;

    private final double[] at = new double[BUCKETS];
    private final double[] least = new double[BUCKETS];
    private int filled;
    private double firstArrival = Double.NaN;
    private double offset = Double.NaN;
    private double drift;

    /**
     * @param ownSeconds the newest row's time by its source
     * @param arrivalSeconds when it arrived, by the computer's steady clock
     */
    public void saw(double ownSeconds, double arrivalSeconds) {
        if (Double.isNaN(firstArrival)) {
            firstArrival = arrivalSeconds;
        }
        double behind = arrivalSeconds - ownSeconds;
        int newest = (filled - 1) % BUCKETS;
        if (filled == 0 || arrivalSeconds - at[newest] >= BUCKET_SECONDS) {
            newest = filled++ % BUCKETS;
            at[newest] = arrivalSeconds;
            least[newest] = behind;
        } else if (behind < least[newest]) {
            least[newest] = behind;
        }
        estimate(arrivalSeconds);
    }

    private void estimate(double now) {
        int n = Math.min(filled, BUCKETS);
        if (n < BUCKETS_FOR_DRIFT) {
            offset = Double.POSITIVE_INFINITY;
            for (int i = 0; i < n; i++) {
                offset = Math.min(offset, least[i]);
            }
            return;
        }
        double meanX = 0;
        double meanY = 0;
        for (int i = 0; i < n; i++) {
            meanX += (at[i] - firstArrival) / n;
            meanY += (least[i] - firstArrival) / n;
        }
        double xx = 0;
        double xy = 0;
        for (int i = 0; i < n; i++) {
            double x = at[i] - firstArrival - meanX;
            xx += x * x;
            xy += x * (least[i] - firstArrival - meanY);
        }
        drift = xy / xx;
        offset = meanY + firstArrival + drift * (now - firstArrival - meanX);
    }

    /** @return what to add to the source's time to have the computer's; NaN before the first row */
    public double offsetSeconds() {
        return offset;
    }

    /** @return by how much the source's clock is slow, in seconds a second; 0 while that is not known */
    public double drift() {
        return drift;
    }
}
