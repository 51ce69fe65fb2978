package zesty.signal.core.decode;

/**
 * Decoded rows, by column: {@code columns[c][row]}, of which the first {@code count} rows hold. The receiver owns it.
 *
 * @param restarts rows before which the board said its header, as it does when it starts; in order
 */
public record Rows(double[][] columns, int count, int[] restarts) {
    private static final int[] NEVER = {};

    public Rows(double[][] columns, int count) {
        this(columns, count, NEVER);
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
}
