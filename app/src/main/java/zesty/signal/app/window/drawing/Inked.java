package zesty.signal.app.window.drawing;

import java.util.BitSet;

/** Where lines run in a picture, in cells of a few pixels, so that words find a place beside them. JavaFX thread only. */
final class Inked {
    private static final int CELL = 5;

    private final BitSet cells = new BitSet();
    private int columns = 1;
    private int rows = 1;

    /** Begins with an empty picture of that size, in pixels. */
    void clear(double width, double height) {
        columns = (int) width / CELL + 1;
        rows = (int) height / CELL + 1;
        cells.clear();
    }

    /** A line runs through points, in pixels; NaN parts it. */
    void line(double[] x, double[] y, int length) {
        for (int i = 1; i < length; i++) {
            double steps = Math.ceil(Math.max(Math.abs(x[i] - x[i - 1]), Math.abs(y[i] - y[i - 1])) / CELL);
            if (!(steps <= columns + rows)) {
                continue;
            }
            for (int k = 0; k <= steps; k++) {
                double share = steps == 0 ? 0 : k / steps;
                mark(x[i - 1] + share * (x[i] - x[i - 1]), y[i - 1] + share * (y[i] - y[i - 1]));
            }
        }
    }

    private void mark(double x, double y) {
        int column = (int) (x / CELL);
        int row = (int) (y / CELL);
        if (x >= 0 && y >= 0 && column < columns && row < rows) {
            cells.set(row * columns + column);
        }
    }

    /** @return how much of lines runs through a rectangle, in cells */
    int within(double left, double top, double width, double height) {
        int n = 0;
        int last = Math.min(columns - 1, (int) ((left + width) / CELL));
        for (int row = (int) Math.max(0, top / CELL); row <= Math.min(rows - 1, (int) ((top + height) / CELL)); row++) {
            for (int column = (int) Math.max(0, left / CELL); column <= last; column++) {
                n += cells.get(row * columns + column) ? 1 : 0;
            }
        }
        return n;
    }
}
