package zesty.signal.core.sample;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Values of a record at a steady rate, those missing in short holes filled by straight lines. Filters and readers work on
 * it; what is filled was never measured, so that its results are dropped again by {@link #row}.
 *
 * @param values measured and filled ones
 * @param seconds the time of each
 * @param row index of each among the values that were given; −1 of one that is filled
 */
public record FilledRun(double[] values, double[] seconds, int[] row) {

    /**
     * Fills what is missing for so long at most, and parts where it is missing for longer.
     *
     * @param values NaN is a missing value
     * @param seconds when each was, never falling
     * @param from first of those that count, {@code to} the end
     * @param longestSeconds from the value before a hole to the one after it
     * @param missingStays whether a row without a value stays one, because a step of cleaning deals with it
     */
    public static List<FilledRun> of(
            double[] values,
            double[] seconds,
            int from,
            int to,
            double rateHz,
            double longestSeconds,
            boolean missingStays) {
        List<FilledRun> runs = new ArrayList<>();
        double[] out = new double[to - from];
        double[] when = new double[to - from];
        int[] row = new int[to - from];
        int n = 0;
        int before = -1;
        Holes holes = new Holes();
        for (int i = from; i < to; i++) {
            if (values[i] != values[i] && !missingStays) {
                continue;
            }
            double step = before < 0 ? 0 : seconds[i] - seconds[before];
            if (step > Gap.PERIODS / rateHz + 1e-9) {
                if (step > longestSeconds) {
                    runs.add(part(out, when, row, n));
                    n = 0;
                    holes.restart();
                } else {
                    int count = holes.missing(step, rateHz);
                    if (n + count + to - i > out.length) {
                        int more = Math.max(n + count + to - i, out.length + out.length / 4);
                        out = Arrays.copyOf(out, more);
                        when = Arrays.copyOf(when, more);
                        row = Arrays.copyOf(row, more);
                    }
                    for (int k = 1; k <= count; k++) {
                        double share = (double) k / (count + 1);
                        out[n] = values[before] + (values[i] - values[before]) * share;
                        when[n] = seconds[before] + step * share;
                        row[n++] = -1;
                    }
                }
            }
            out[n] = values[i];
            when[n] = seconds[i];
            row[n++] = i;
            before = i;
        }
        if (n > 0) {
            runs.add(part(out, when, row, n));
        }
        return runs;
    }

    private static FilledRun part(double[] values, double[] seconds, int[] row, int n) {
        return new FilledRun(Arrays.copyOf(values, n), Arrays.copyOf(seconds, n), Arrays.copyOf(row, n));
    }
}
