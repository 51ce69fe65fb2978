package zesty.signal.core.decode;

import java.util.Arrays;

/**
 * Rows that a line sent twice, as the stamp that the board gave them says: all of such a row was in one of the newest before it. Put between
 * the others they would make tones of their own. Where rows of one stamp differ, the stamp is coarser than they are, and tells nothing;
 * where rows of different stamps are mostly alike, those of one may be, too. One thread.
 *
 * <p>Its numbers are chosen, not measured: moved by a fifth, each alone, they tell the same of all streams they are tested with.
 */
public final class RepeatedRows {
    /** A datagram that came twice has the rows of some hundred milliseconds. */
    private static final int REMEMBERED = 64;
    /** For so many rows of one stamp that are alike one may differ, as where one of the two was damaged. */
    private static final int DAMAGED = 4;
    /** Of rows of different stamps fewer are alike than this share of those that are not, or those of one stamp may be by chance. */
    private static final double MOSTLY_OTHERS = 0.5;

    /** Rows that differ, seen before one is left out: of fewer a coarse clock may only not have told yet. */
    private static final int FEWEST_OTHERS = 16;

    private final int stamp;
    private final int fewest;
    private double[][] before = {};
    private double newest = Double.NEGATIVE_INFINITY;
    private int remembered;
    private long alike;
    private long others;
    private long shared;
    private long found;
    private long leftOut;

    /** Of rows that come bit by bit. @param stamp column of what tells each row from the others: a clock, or a number that goes up */
    public RepeatedRows(int stamp) {
        this(stamp, FEWEST_OTHERS);
    }

    /**
     * @param stamp as above
     * @param fewest so many rows that differ have to be seen before one is left out
     */
    public RepeatedRows(int stamp, int fewest) {
        this.stamp = stamp;
        this.fewest = fewest;
    }

    /** @return rows left out so far */
    public long leftOut() {
        return leftOut;
    }

    /** What came so far was of another run of the board. */
    void forget() {
        remembered = 0;
        newest = Double.NEGATIVE_INFINITY;
    }

    /**
     * @param columns the next rows, {@code columns[c][row]}
     * @return which of them to keep, in order; null for all
     */
    public int[] kept(double[][] columns, int count) {
        if (columns.length < 2) {
            return null;
        }
        if (before.length != columns.length) {
            // Rows of another shape are others.
            before = new double[columns.length][REMEMBERED];
            forget();
        }
        int[] kept = new int[count];
        int n = 0;
        for (int row = 0; row < count; row++) {
            if (!isAgain(columns, row)) {
                remember(columns, row);
                kept[n++] = row;
            }
        }
        boolean told = others >= fewest && alike <= MOSTLY_OTHERS * others && DAMAGED * shared <= found;
        if (n == count || !told) {
            return null;
        }
        leftOut += count - n;
        return Arrays.copyOf(kept, n);
    }

    private boolean isAgain(double[][] columns, int row) {
        double own = columns[stamp][row];
        boolean sharing = false;
        // Nearly every row has a stamp above all that are remembered.
        for (int i = 0; own <= newest && i < Math.min(remembered, REMEMBERED); i++) {
            if (before[stamp][i] == own) {
                if (sameRest(columns, row, i)) {
                    found++;
                    return true;
                }
                sharing = true;
            }
        }
        boolean same = remembered > 0 && sameRest(columns, row, (remembered - 1) % REMEMBERED);
        shared += sharing ? 1 : 0;
        alike += same && !sharing ? 1 : 0;
        others += same || sharing ? 0 : 1;
        return false;
    }

    private boolean sameRest(double[][] columns, int row, int at) {
        for (int c = 0; c < columns.length; c++) {
            if (c != stamp && Double.compare(columns[c][row], before[c][at]) != 0) {
                return false;
            }
        }
        return true;
    }

    private void remember(double[][] columns, int row) {
        int at = remembered % REMEMBERED;
        for (int c = 0; c < columns.length; c++) {
            before[c][at] = columns[c][row];
        }
        remembered++;
        newest = columns[stamp][row] > newest ? columns[stamp][row] : newest;
        if (at == REMEMBERED - 1) {
            remembered = REMEMBERED;
            // A counter may have begun again since.
            newest =
                    Arrays.stream(before[stamp]).filter(one -> one == one).max().orElse(Double.NEGATIVE_INFINITY);
        }
    }
}
