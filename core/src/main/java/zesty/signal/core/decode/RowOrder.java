package zesty.signal.core.decode;

/**
 * Puts rows in order that overtook each other on their way, as datagrams do: by the board's clock, else by the number its
 * lines carry. Only rows that come a little late are moved; a clock that jumps is left to whoever dates the rows.
 */
final class RowOrder {
    private RowOrder() {}

    /**
     * @param rows at least one; its columns may be rearranged
     * @param column what it is ordered by
     * @param reach how far behind the row before one may be and still only be late, in the column's own steps
     * @return how many rows were moved
     */
    static int sort(Rows rows, int column, double reach) {
        double[] key = rows.columns()[column];
        int moved = 0;
        for (int row = 1; row < rows.count(); row++) {
            int to = row;
            while (to > 0 && !rows.restartsAt(to) && key[to - 1] > key[row] && key[to - 1] - key[row] <= reach) {
                to--;
            }
            if (to < row) {
                moved++;
                for (double[] values : rows.columns()) {
                    double own = values[row];
                    System.arraycopy(values, to, values, to + 1, row - to);
                    values[to] = own;
                }
            }
        }
        return moved;
    }
}
