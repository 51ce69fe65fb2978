package zesty.signal.core.decode;

/** Counts by the number that rows carry how many were lost between them. One thread. */
final class SequenceLosses {
    /** A row so many numbers behind another one is late, not the first of a board that restarted. */
    static final double LATE_NUMBERS = 64;

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
            double behind = lastNumber - numbers[row];
            if (known && behind > 0 && behind <= LATE_NUMBERS && behind * 2 < lastNumber) {
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
}
