package zesty.signal.core.scale;

import java.util.function.DoubleUnaryOperator;

/**
 * Applies a costly function to many values of which many are alike, as a converter's counts are: what was worked out
 * lately is looked up, so the results are the same to the last bit. Values that never repeat cost a few ns more each.
 */
final class Remembered {
    private static final int ENTRIES = 1 << 12;
    /** Fewer values than this are not worth the table. */
    private static final int WORTH = 1 << 11;

    private Remembered() {}

    /** Replaces {@code length} values from index 0. */
    static void apply(double[] values, int length, DoubleUnaryOperator function) {
        if (length < WORTH) {
            for (int i = 0; i < length; i++) {
                values[i] = function.applyAsDouble(values[i]);
            }
            return;
        }
        double[] known = new double[ENTRIES];
        double[] results = new double[ENTRIES];
        java.util.Arrays.fill(known, Double.NaN);
        for (int i = 0; i < length; i++) {
            double x = values[i];
            long bits = Double.doubleToRawLongBits(x);
            // The high bits of a product by an odd number spread whatever the low ones have in common (Knuth 1973,
            // 6.4).
            int entry = (int) (bits * 0x9E3779B97F4A7C15L >>> 52);
            if (known[entry] != x) {
                known[entry] = x;
                results[entry] = function.applyAsDouble(x);
            }
            values[i] = results[entry];
        }
    }
}
