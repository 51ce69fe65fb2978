package zesty.signal.core.decode;

/** How fast a board's clock is against arrival: the slope of one over the other by least squares. One thread. */
final class DriftFit {
    private static final int FEWEST = 10;
    /** The variance of arrival over twenty seconds, in s²: before that the slope says little. */
    private static final double LEAST_VARIANCE = 33;

    private double n;
    private double meanX;
    private double meanY;
    private double xx;
    private double xy;

    void saw(double boardSeconds, double arrivalSeconds) {
        n++;
        double dx = arrivalSeconds - (n == 1 ? arrivalSeconds : meanX);
        double dy = boardSeconds - (n == 1 ? boardSeconds : meanY);
        meanX = n == 1 ? arrivalSeconds : meanX + dx / n;
        meanY = n == 1 ? boardSeconds : meanY + dy / n;
        xx += dx * (arrivalSeconds - meanX);
        xy += dx * (boardSeconds - meanY);
    }

    /** The clock began anew. */
    void forget() {
        n = 0;
        xx = 0;
        xy = 0;
    }

    /** @return parts per million by which the clock is fast; NaN until twenty seconds have been seen */
    double ppm() {
        return n < FEWEST || xx / n < LEAST_VARIANCE ? Double.NaN : (xy / xx - 1) * 1e6;
    }
}
