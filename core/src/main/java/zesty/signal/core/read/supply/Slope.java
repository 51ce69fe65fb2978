package zesty.signal.core.read.supply;

/**
 * A straight line by least squares.
 *
 * @param perSecond its slope, {@code error} the standard error of that; NaN where no time passes
 */
public record Slope(double perSecond, double error) {
    /** Of the samples from one on; at least two. */
    public static Slope of(double[] seconds, double[] x, int from) {
        int n = x.length - from;
        double mt = 0;
        double mx = 0;
        for (int i = from; i < x.length; i++) {
            mt += seconds[i] / n;
            mx += x[i] / n;
        }
        double up = 0;
        double down = 0;
        double squares = 0;
        for (int i = from; i < x.length; i++) {
            up += (seconds[i] - mt) * (x[i] - mx);
            down += (seconds[i] - mt) * (seconds[i] - mt);
            squares += (x[i] - mx) * (x[i] - mx);
        }
        if (n < 2 || !(down > 0)) {
            return new Slope(Double.NaN, Double.NaN);
        }
        double left = Math.max(0, squares - up * up / down);
        return new Slope(up / down, n < 3 ? Double.NaN : Math.sqrt(left / (n - 2) / down));
    }

    /** @return seconds until a falling value comes down to a limit; 0 where it is there, NaN where it does not fall */
    public double secondsTo(double limit, double newest) {
        return newest <= limit ? 0 : perSecond < 0 ? (newest - limit) / -perSecond : Double.NaN;
    }
}
