package zesty.signal.core.compare;

import java.util.Arrays;

/**
 * Mean and spread of a number over several takes.
 *
 * @param mean NaN of none
 * @param sd the standard deviation, divided by n − 1; NaN of fewer than two
 * @param n how many there are
 * @param min the least; NaN of none
 * @param max the greatest
 */
public record Spread(double mean, double sd, int n, double min, double max) {
    /** @param values NaN among them is none of them */
    public static Spread of(double[] values) {
        double[] known = Arrays.stream(values).filter(v -> v == v).toArray();
        double mean = Arrays.stream(known).average().orElse(Double.NaN);
        double squares = Arrays.stream(known).map(v -> (v - mean) * (v - mean)).sum();
        double sd = known.length < 2 ? Double.NaN : Math.sqrt(squares / (known.length - 1));
        return new Spread(
                mean,
                sd,
                known.length,
                Arrays.stream(known).min().orElse(Double.NaN),
                Arrays.stream(known).max().orElse(Double.NaN));
    }
}
