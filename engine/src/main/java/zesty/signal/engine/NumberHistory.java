package zesty.signal.engine;

import java.util.Arrays;
import zesty.signal.core.act.Watch;

/** A reader's number over a stretch, once a second, as rules get it. */
public final class NumberHistory {
    private NumberHistory() {}

    /** @param values the number, at these seconds; NaN where there is none */
    public record Values(double[] seconds, double[] values) {}

    /**
     * @param x cleaned samples of its column, NaN where none came, at these seconds
     * @throws zesty.signal.core.read.ReaderException when the reader cannot read them
     */
    public static Values of(Watch.Number watch, double[] seconds, double[] x, double rateHz) {
        if (x.length == 0) {
            return new Values(new double[0], new double[0]);
        }
        WatchedReader reader = new WatchedReader(watch, rateHz);
        int count = (int) Math.floor((seconds[seconds.length - 1] - seconds[0]) / WatchedReader.NUMBER_SECONDS);
        double[] at = new double[Math.max(0, count)];
        double[] values = new double[at.length];
        int from = 0;
        for (int k = 0; k < at.length; k++) {
            at[k] = seconds[0] + (k + 1) * WatchedReader.NUMBER_SECONDS;
            int to = Arrays.binarySearch(seconds, from, seconds.length, at[k]);
            to = to < 0 ? -to - 1 : to + 1;
            reader.rows(seconds, x, from, Math.max(from, to));
            from = Math.max(from, to);
            values[k] = reader.number(at[k]);
        }
        return new Values(at, values);
    }
}
