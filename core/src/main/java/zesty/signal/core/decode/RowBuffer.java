package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Rows as they are decoded, by column, until they are taken. */
final class RowBuffer {
    private static final int FIRST_ROOM = 256;

    private final int width;
    double[][] columns;
    int count;
    private int[] restarts = {};
    private List<double[]> frames = List.of();

    RowBuffer(int width) {
        this.width = width;
        columns = new double[width][room(0)];
    }

    private int room(int wanted) {
        // Many columns come seldom.
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

    /** A row that carries a picture, which is kept and not copied; all rows do, or none. */
    void add(double[] row, double[] frame) {
        frames = frames.isEmpty() ? new ArrayList<>() : frames;
        frames.add(frame);
        add(row);
    }

    /** The board said its header: it may have started anew. */
    void restarted() {
        restarts = Arrays.copyOf(restarts, restarts.length + 1);
        restarts[restarts.length - 1] = count;
    }

    double newest(int column) {
        return count == 0 ? Double.NaN : columns[column][count - 1];
    }

    Rows take() {
        double[][] pictures = frames.isEmpty() ? null : frames.toArray(double[][]::new);
        Rows taken = new Rows(columns, count, pictures, restarts);
        frames = List.of();
        restarts = new int[0];
        columns = new double[width][room(count)];
        count = 0;
        return taken;
    }
}
