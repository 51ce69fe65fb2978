package zesty.signal.engine;

import java.util.Arrays;
import zesty.signal.takes.Take;

/**
 * Rows of a source of a take that is too long for memory: read from its file when they are asked for. The take must stay
 * open; all that read of it wait for each other.
 */
final class FiledRows implements Rows {
    /** A piece this long or shorter is kept until another one of its column is asked for. */
    private static final int KEPT_ROWS = 1 << 16;

    private final Take take;
    private final int source;
    private final int firstColumn;
    private final long count;
    private final long[] starts;
    private final int[] keptPiece;
    private final double[][] kept;

    FiledRows(Take take, int source, int columns) {
        this.take = take;
        this.source = source;
        firstColumn = take.firstColumn(source);
        count = take.rows(source);
        starts = new long[take.pieces(source)];
        Arrays.setAll(starts, piece -> take.rowOf(source, piece));
        // The times are kept behind the columns.
        keptPiece = new int[columns + 1];
        Arrays.fill(keptPiece, -1);
        kept = new double[columns + 1][];
    }

    @Override
    public long count() {
        return count;
    }

    @Override
    public boolean held() {
        return false;
    }

    /** @return index of the piece that holds a row */
    int pieceOf(long row) {
        int found = Arrays.binarySearch(starts, row);
        return found >= 0 ? found : -found - 2;
    }

    int pieces() {
        return starts.length;
    }

    long start(int piece) {
        return piece < starts.length ? starts[piece] : count;
    }

    double firstSeconds(int piece) {
        return take.firstSeconds(source, piece);
    }

    double periodSeconds(int piece) {
        return take.periodSeconds(source, piece);
    }

    /** @return the extremes of each {@link Take#CELL} rows as they were recorded; empty where they are not to be had */
    double[] cells(int column) {
        synchronized (take) {
            return take.cells(firstColumn + column);
        }
    }

    @Override
    public double[] values(int column, long from, long to) {
        return gathered(column, from, to);
    }

    @Override
    public double[] seconds(long from, long to) {
        return gathered(kept.length - 1, from, to);
    }

    private double[] gathered(int column, long from, long to) {
        double[] values = new double[(int) (to - from)];
        if (values.length == 0) {
            return values;
        }
        long row = from;
        for (int piece = pieceOf(from); row < to; piece++) {
            double[] of = piece(column, piece);
            int first = (int) (row - starts[piece]);
            int some = (int) Math.min(of.length - first, to - row);
            System.arraycopy(of, first, values, (int) (row - from), some);
            row += some;
        }
        return values;
    }

    private double[] piece(int column, int piece) {
        synchronized (take) {
            if (keptPiece[column] == piece) {
                return kept[column];
            }
            double[] values =
                    column == kept.length - 1 ? take.times(source, piece) : take.values(firstColumn + column, piece);
            boolean keep = values.length <= KEPT_ROWS;
            keptPiece[column] = keep ? piece : -1;
            kept[column] = keep ? values : null;
            return values;
        }
    }
}
