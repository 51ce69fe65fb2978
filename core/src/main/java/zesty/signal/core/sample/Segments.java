package zesty.signal.core.sample;

import java.util.ArrayList;
import java.util.List;

/**
 * Parts rows into segments without a missing row within, and says which of them are kept but not read because the board
 * is warming up. It is the one place where that is done: for the live trail, its recalculation, stored takes and files.
 * Whether the rows missing between two segments are a hole that is filled or a break is decided by who reads, from how
 * long they lasted. One thread; rows come in order.
 */
public final class Segments {
    /** After a silence as long as this the board has probably been started anew, and warms up again. */
    private static final double NEW_START_SECONDS = 1;

    /** Room for times that were rounded on the way, in s. */
    private static final double ROUNDING_SECONDS = 1e-9;

    /**
     * Rows {@code from … to - 1}.
     *
     * @param stepSeconds from the row before to the first of these where rows are missing between them;
     *     {@link Double#POSITIVE_INFINITY} where nothing may be read across, because reading begins or ends here; 0 for the
     *     first segment of all, and where it goes on from the rows that were parted before
     * @param cold whether they are kept but not read
     */
    public record Segment(int from, int to, double stepSeconds, boolean cold) {
        public boolean afterGap() {
            return stepSeconds > 0;
        }

        public int length() {
            return to - from;
        }
    }

    private double longestStep;
    private final double warmUpSeconds;
    private double before = Double.NaN;
    private double coldUntil = Double.NEGATIVE_INFINITY;

    public Segments(double rateHz, double warmUpSeconds) {
        rate(rateHz);
        this.warmUpSeconds = warmUpSeconds;
    }

    /** Goes on at a rate that is known better by now. */
    public void rate(double rateHz) {
        longestStep = Gap.PERIODS / rateHz + ROUNDING_SECONDS;
    }

    /** @return as if all rows until then had been parted, and the board had long been warm */
    public static Segments after(double seconds, double rateHz, double warmUpSeconds) {
        Segments later = new Segments(rateHz, warmUpSeconds);
        later.before = seconds;
        return later;
    }

    /** @param seconds the rows' times, {@code from … to - 1} count */
    public List<Segment> part(double[] seconds, int from, int to) {
        List<Segment> found = new ArrayList<>();
        int start = from;
        double gap = 0;
        for (int i = from; i < to; i++) {
            double step = seconds[i] - before;
            boolean first = Double.isNaN(step);
            boolean apart = step > longestStep;
            boolean wasCold = before < coldUntil;
            if (first || step >= NEW_START_SECONDS && apart) {
                coldUntil = warmUpSeconds > 0 ? seconds[i] + warmUpSeconds : coldUntil;
            }
            boolean cold = seconds[i] < coldUntil;
            if (!first && (apart || cold != wasCold)) {
                if (i > start) {
                    found.add(new Segment(start, i, gap, wasCold));
                }
                start = i;
                gap = cold || wasCold ? Double.POSITIVE_INFINITY : step;
            }
            before = seconds[i];
        }
        if (to > start) {
            found.add(new Segment(start, to, gap, before < coldUntil));
        }
        return found;
    }
}
