package zesty.signal.core.decode;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import zesty.signal.core.spectrum.LinearPrediction;

/**
 * Whether steps of two ticks at even distances are of rows that were lost. A rate between the ticks leaves the same times, as of 917 rows a
 * second in whole milliseconds; the samples tell which it was: the one after such a step follows from those before it as the next one, or
 * as the next but one.
 */
final class RegularLosses {
    /**
     * So much smaller is the squared error as the next but one. Of 1200 slower boards with noise of a third to twice their lines it was
     * 0.61 at the least, and of lost rows below 0.25 in fast lines that stand ten times above the noise; a fifth more or less changes neither.
     */
    private static final double SMALLER = 0.5;
    /** Of fewer breaks chance tells: of eight, one slower board in ten was taken for one that loses rows. */
    private static final int FEWEST = 32;

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

    /** The first rows of a stream, of which it is asked as they become more. One thread. */
    static final class FirstRows {
        private static final int FIRST_LOOK = 1024;
        private static final int MOST = 8192;
        private double[][] kept;
        private int count;
        private int nextLook = FIRST_LOOK;

        /**
         * @param more the next rows, the first so many of them
         * @param clock column that counts ticks
         * @return whether the rows so far, now that there are enough to look at again, were lost regularly
         */
        boolean told(Rows more, int moreRows, int clock) {
            int take = Math.min(moreRows, MOST - count);
            kept = kept == null ? new double[more.columns().length][FIRST_LOOK] : kept;
            for (int c = 0; c < kept.length; c++) {
                if (count + take > kept[c].length) {
                    kept[c] = Arrays.copyOf(kept[c], Math.max(count + take, 2 * kept[c].length));
                }
                System.arraycopy(more.columns()[c], 0, kept[c], count, take);
            }
            count += take;
            if (count < nextLook) {
                return false;
            }
            nextLook = 2 * count;
            return RegularLosses.told(
                    Arrays.copyOf(kept[clock], count),
                    1,
                    IntStream.range(0, kept.length)
                            .filter(column -> column != clock)
                            .mapToObj(column -> Arrays.copyOf(kept[column], count))
                            .toList());
        }

        boolean full() {
            return count >= MOST;
        }
    }
}
