package zesty.signal.core.sample;

/** Order statistics of arrays without missing values; what is given is not changed. */
public final class Order {
    private Order() {}

    /** @return the middle value, of an even number the upper one; NaN of none */
    public static double median(double[] values) {
        return quantile(values, 0.5);
    }

    /** @return the value below which that share lies, 0 … 1; NaN of none */
    public static double quantile(double[] values, double share) {
        return values.length == 0
                ? Double.NaN
                : ranked(values.clone(), (int) Math.min(values.length - 1, Math.floor(share * values.length)));
    }

    /**
     * The value of that rank, by parting again and again the side it is on (C. A. R. Hoare 1961, "Algorithm 65: Find"), the
     * middle one of three to part by.
     */
    private static double ranked(double[] x, int rank) {
        int low = 0;
        int high = x.length - 1;
        while (low < high) {
            int middle = (low + high) >>> 1;
            double a = x[low];
            double b = x[middle];
            double c = x[high];
            double pivot = Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
            int i = low;
            int j = high;
            while (i <= j) {
                while (x[i] < pivot) {
                    i++;
                }
                while (x[j] > pivot) {
                    j--;
                }
                if (i <= j) {
                    double swapped = x[i];
                    x[i++] = x[j];
                    x[j--] = swapped;
                }
            }
            if (rank <= j) {
                high = j;
            } else if (rank >= i) {
                low = i;
            } else {
                return x[rank];
            }
        }
        return x[rank];
    }
}
