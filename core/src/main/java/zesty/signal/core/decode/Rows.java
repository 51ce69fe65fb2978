package zesty.signal.core.decode;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * Decoded rows, by column: {@code columns[c][row]}, of which the first {@code count} rows hold. The receiver owns it.
 *
 * @param frames the picture of each row; null where rows carry none
 * @param restarts rows before which the board said its header, as it does when it starts; in order
 */
public record Rows(double[][] columns, int count, double[][] frames, int[] restarts) {
    private static final int[] NEVER = {};

    public Rows(double[][] columns, int count) {
        this(columns, count, null, NEVER);
    }

    /** @return whether the board started anew just before that row */
    boolean restartsAt(int row) {
        for (int restart : restarts) {
            if (restart == row) {
                return true;
            }
        }
        return false;
    }

    /** @return these rows, and those behind them */
    public Rows joined(Rows second) {
        double[][] both = new double[columns.length][];
        for (int c = 0; c < both.length; c++) {
            both[c] = Arrays.copyOf(columns[c], count + second.count);
            System.arraycopy(second.columns[c], 0, both[c], count, second.count);
        }
        int[] starts = IntStream.concat(
                        Arrays.stream(restarts), Arrays.stream(second.restarts).map(row -> row + count))
                .toArray();
        double[][] pictures = null;
        if (frames != null && second.frames != null) {
            pictures = Arrays.copyOf(frames, count + second.count);
            System.arraycopy(second.frames, 0, pictures, count, second.count);
        }
        return new Rows(both, count + second.count, pictures, starts);
    }

    /** @return the rows from that one on */
    Rows from(int row) {
        double[][] rest = new double[columns.length][];
        for (int c = 0; c < rest.length; c++) {
            rest[c] = Arrays.copyOfRange(columns[c], row, count);
        }
        return new Rows(rest, count - row, frames == null ? null : Arrays.copyOfRange(frames, row, count), NEVER);
    }

    /** @param kept rows, in order; none has a picture. @return these without the others */
    Rows only(int[] kept) {
        double[][] fewer = new double[columns.length][kept.length];
        for (int c = 0; c < fewer.length; c++) {
            double[] all = columns[c];
            Arrays.setAll(fewer[c], i -> all[kept[i]]);
        }
        // A header stands before the next row that is kept.
        int[] starts = Arrays.stream(restarts)
                .map(row -> {
                    int at = Arrays.binarySearch(kept, row);
                    return at < 0 ? -at - 1 : at;
                })
                .filter(row -> row < kept.length)
                .toArray();
        return new Rows(fewer, kept.length, null, starts);
    }
}
