package zesty.signal.exchange;

import java.io.IOException;
import java.util.List;

/** A take as it is to be handed on: raw, scaled or cleaned, some of its columns or all, read in pieces. One thread. */
public interface TakeView {
    /** A column with the name and unit it is handed on under. */
    record Column(String name, String unit) {}

    /**
     * Columns that come with the same rows.
     *
     * @param name of the source; empty for the first
     * @param rateHz rows a second; NaN where they come too unevenly to tell
     */
    record Source(String name, List<Column> columns, long rows, double rateHz) {
        public Source {
            columns = List.copyOf(columns);
        }
    }

    /** Takes a run of rows: the time of each, in s from the take's first, and the values of the columns asked for. */
    @FunctionalInterface
    interface Taker {
        void take(double[] seconds, double[][] values) throws IOException;
    }

    List<Source> sources();

    /**
     * Hands over all rows of a source, in order.
     *
     * @param columns which of its columns, by their places; none for the times alone
     */
    void read(int source, int[] columns, Taker taker) throws IOException;
}
