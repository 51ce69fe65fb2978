package zesty.signal.core.sample;

import java.util.Arrays;

/** Order statistics of arrays without missing values; what is given is not changed. */
public final class Order {
    private Order() {}

    /** @return the middle value, of an even number the upper one; NaN of none */
    public static double median(double[] values) {
        return quantile(values, 0.5);
    }

    /** @return the value below which that share lies, 0 … 1; NaN of none */
    public static double quantile(double[] values, double share) {
        if (values.length == 0) {
            return Double.NaN;
        }
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[(int) Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
    }
}
