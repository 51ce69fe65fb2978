package zesty.signal.core.decode;

/** Counts by the number that rows carry how many were lost between them. One thread. */
final class SequenceLosses {
    /** A row so many numbers behind another one is late, not the first of a board that restarted. */
    static final double LATE_NUMBERS = 64;
    /** A row so few numbers behind is late, however low the numbers are. */
    private static final double NEXT = 3;
    /** Across the end of a turn a row is late by this share of it at most. */
    private static final double LATE_OF_TURN = 1 / 16.0;

    private final BoardSequence sequence;
    private final Losses losses;
    private double lastNumber = Double.NaN;
    /** The newest number before each of the rows that were read last. */
    private double[] numbersBefore = {};

    private long acrossLink = -1;

    /** @param sequence null where rows carry none */
    SequenceLosses(BoardSequence sequence, Losses losses) {
        this.sequence = sequence;
        this.losses = losses;
    }

    boolean none() {
        return sequence == null;
    }

    BoardSequence sequence() {
        return sequence;
    }

    /** @return the newest number that was read; NaN before the first */
    double lastNumber() {
        return lastNumber;
    }

    /**
     * @return rows lost while the link was away, but for whole turns of the number, if the board ran on all the while; −1
     *     where the numbers do not tell
     */
    long acrossLink() {
        return acrossLink;
    }

    /** Of the rows that were read last those from there on are to be read again, with those that follow them. */
    void unread(int row) {
        lastNumber = sequence == null ? lastNumber : numbersBefore[row];
    }

    /**
     * @param relinked whether the link was opened anew before the first of these
     * @return rows that the sequence says were lost before each row; null when it says none was
     */
    long[] missing(Rows rows, boolean relinked) {
        if (sequence == null) {
            return null;
        }
        acrossLink = -1;
        double[] numbers = rows.columns()[sequence.column()];
        long[] missing = null;
        numbersBefore = new double[rows.count()];
        for (int row = 0; row < rows.count(); row++) {
            numbersBefore[row] = lastNumber;
            if (Double.isNaN(numbers[row])) {
                continue;
            }
            // A board says its header to whoever calls, too: a number that went on is one of the same run.
            boolean anew = rows.restartsAt(row) && (sequence.wrap() > 0 || numbers[row] <= lastNumber);
            boolean known = !Double.isNaN(lastNumber) && !anew && !(relinked && row == 0);
            if (relinked && row == 0) {
                acrossLink = Double.isNaN(lastNumber) ? -1 : sequence.acrossLink(lastNumber, numbers[0]);
            }
            if (known && isLate(numbers[row])) {
                losses.lateAfterAll(sequence.rowsEach());
                continue;
            }
            long lost = known ? sequence.missingBetween(lastNumber, numbers[row]) : 0;
            if (lost > 0) {
                missing = missing == null ? new long[rows.count()] : missing;
                missing[row] = lost;
            }
            lastNumber = numbers[row];
        }
        return missing;
    }

    private boolean isLate(double number) {
        double behind = lastNumber - number;
        if (behind < 0 && sequence.wrap() > 0) {
            // One that was overtaken by the first of the next turn; further behind, more of them than that are lost.
            behind += sequence.wrap();
            return behind > 0 && behind <= Math.min(LATE_NUMBERS, sequence.wrap() * LATE_OF_TURN);
        }
        // A board that begins anew falls to its first numbers.
        boolean anew = behind > NEXT && behind * 2 >= lastNumber;
        return behind > 0 && behind <= LATE_NUMBERS && !anew;
    }
}
