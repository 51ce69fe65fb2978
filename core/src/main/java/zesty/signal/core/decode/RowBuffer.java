package zesty.signal.core.decode;

import java.util.Arrays;

/** Rows as they are decoded, by column, until they are taken. */
final class RowBuffer {
    private static final int FIRST_ROOM = 256;

    private final int width;
    double[][] columns;
    int count;
    private int[] restarts = {};

    RowBuffer(int width) {
        this.width = width;
        columns = new double[width][room(0)];
    }

    private int room(int wanted) {
        // Many columns come seldom: a picture's pixels need no room for hundreds of rows.
        return Math.max(wanted, width > 64 ? 8 : FIRST_ROOM);
    }

    /** Makes room for so many rows more. */
    void need(int more) {
        if (count + more > columns[0].length) {
            int grown = Math.max(columns[0].length * 2, count + more);
            for (int c = 0; c < width; c++) {
                columns[c] = Arrays.copyOf(columns[c], grown);
            }
        }
    }

    void add(double[] row) {
        need(1);
        for (int c = 0; c < width; c++) {
            columns[c][count] = row[c];
        }
        count++;
    }

    /** The board said its header: it may have started anew. */
    void restarted() {
        restarts = Arrays.copyOf(restarts, restarts.length + 1);
        restarts[restarts.length - 1] = count;
    }

    Rows take() {
        Rows taken = new Rows(columns, count, restarts);
        restarts = new int[0];
        columns = new double[width][room(count)];
        count = 0;
        return taken;
    }
}
