package zesty.signal.core.decode;

import java.util.List;
import zesty.signal.core.sample.Gap;

/** What is counted of a stream while its rows are dated: gaps, lost rows, late ones, wrong stamps. One thread. */
final class Losses {
    private long gapCount;
    private long lostRows;
    private long wrongStamps;
    private long lateRows;

    /** A gap was found, with so many rows missing in it. @param gaps takes it up */
    void gap(double from, double to, long missing, List<Gap> gaps) {
        gaps.add(new Gap(from, to, missing));
        uncertainGap(missing);
    }

    /** A gap was found that is too late to be told as one. */
    void uncertainGap(long missing) {
        gapCount++;
        lostRows += missing;
    }

    void wrongStamp() {
        wrongStamps++;
    }

    void late(int rows) {
        lateRows += rows;
    }

    /** A row came behind later ones that had it counted as lost, with so many others. */
    void lateAfterAll(long countedAsLost) {
        lateRows++;
        lostRows -= Math.min(lostRows, countedAsLost);
    }

    long gapCount() {
        return gapCount;
    }

    long lostRows() {
        return lostRows;
    }

    long wrongStamps() {
        return wrongStamps;
    }

    long lateRows() {
        return lateRows;
    }
}
