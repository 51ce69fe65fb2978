package zesty.signal.core.decode;

import java.util.Arrays;
import java.util.List;
import zesty.signal.core.spectrum.LinearPrediction;

/**
 * Whether steps of two ticks at even distances are of rows that were lost. A rate between the ticks leaves the same times, as of 917 rows a
 * second in whole milliseconds; the samples tell which it was: the one after such a step follows from those before it as the next one, or
 * as the next but one.
 */
final class RegularLosses {
    /**
     * So much smaller is the squared error as the next but one. Of noise both are the same within a tenth, of a slower board it is larger,
     * and of lost rows it was below 0.5 in lines that stand ten times above the noise; a fifth more or less changes neither.
     */
    private static final double SMALLER = 0.7;
    /** Fewer breaks do not tell. */
    private static final int FEWEST = 8;

    private RegularLosses() {}

    /**
     * @param seconds of rows
     * @param tick what their clock tells apart, in s
     * @param values columns of the first of these rows; NaN where there is no number
     */
    static boolean told(double[] seconds, double tick, List<double[]> values) {
        boolean[] breaks = new boolean[seconds.length];
        int count = 0;
        for (int i = 1; i < breaks.length; i++) {
            breaks[i] = Math.rint((seconds[i] - seconds[i - 1]) / tick) == 2;
            count += breaks[i] ? 1 : 0;
        }
        return count >= FEWEST && values.stream().anyMatch(column -> told(column, breaks));
    }

    private static boolean told(double[] column, boolean[] breaks) {
        if (column.length < FEWEST || Arrays.stream(column).anyMatch(Double::isNaN)) {
            return false;
        }
        double[] errors = LinearPrediction.onwards(column, breaks);
        return errors[1] < SMALLER * errors[0];
    }
}
