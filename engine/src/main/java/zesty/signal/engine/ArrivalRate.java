package zesty.signal.engine;

/**
 * Rows a second as arrival tells them: the slope of the rows counted over the time they came at, by least squares, so
 * that neither a burst at the start nor one at the end decides. One thread.
 */
final class ArrivalRate {
    private static final double SHORTEST_SECONDS = 1;
    private static final double LONGEST_SECONDS = 3;
    private static final int MANY_ROWS = 60;
    private static final int ENOUGH_ROWS = 8;

    private double first = Double.NaN;
    private int firstRows;
    private double lastSeconds;
    private int lastRows = -1;
    private double n;
    private double sumT;
    private double sumR;
    private double sumTt;
    private double sumTr;

    /** So many rows had come by that time. */
    void saw(int rows, double seconds) {
        if (lastRows < 0) {
            // These came at some moment before: their arrival was not seen.
            lastRows = rows;
            lastSeconds = seconds;
            return;
        }
        if (rows == lastRows) {
            return;
        }
        if (Double.isNaN(first)) {
            first = seconds;
            firstRows = rows;
        }
        lastRows = rows;
        lastSeconds = seconds;
        double t = seconds - first;
        double r = rows - firstRows;
        n++;
        sumT += t;
        sumR += r;
        sumTt += t * t;
        sumTr += t * r;
    }

    /** @return whether the rate is known well: from many rows in a second, or some in up to three */
    boolean enough() {
        double seconds = lastSeconds - first;
        int rows = lastRows - firstRows;
        return n >= 4
                && (seconds >= SHORTEST_SECONDS && rows >= MANY_ROWS
                        || seconds >= LONGEST_SECONDS
                        || seconds >= SHORTEST_SECONDS && rows >= ENOUGH_ROWS && n > rows * 0.7);
    }

    /** @return whether nothing has come for so long that waiting for more is in vain */
    boolean quiet(double nowSeconds) {
        return nowSeconds - lastSeconds > SHORTEST_SECONDS;
    }

    /** @return the rate; {@code otherwise} where nothing tells it */
    double rateHz(double otherwise) {
        double slope = (n * sumTr - sumT * sumR) / (n * sumTt - sumT * sumT);
        return n >= 3 && slope > 0 && Double.isFinite(slope) ? slope : otherwise;
    }
}
