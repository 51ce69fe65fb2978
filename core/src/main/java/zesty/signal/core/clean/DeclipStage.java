package zesty.signal.core.clean;

/**
 * Draws what was cut off at the end of the range as a cubic that leaves and meets the signal with its own slopes (C. Hermite 1878).
 * Cut off is what stays at the highest or lowest value there has been, for three samples or more; what is flat for longer than the
 * limit stays as it is, for nobody knows what was there.
 */
final class DeclipStage extends GapFiller {
    private static final int FEWEST = 3;
    private final int longest;
    private double highest = Double.NEGATIVE_INFINITY;
    private double lowest = Double.POSITIVE_INFINITY;
    private double last = Double.NaN;
    private int run;
    /** A run that ended with the sample before the newest; 0 for none. */
    private int ended;

    DeclipStage(int longest) {
        super(longest, 4);
        this.longest = longest;
    }

    @Override
    void forget() {
        highest = Double.NEGATIVE_INFINITY;
        lowest = Double.POSITIVE_INFINITY;
        last = Double.NaN;
        run = 0;
        ended = 0;
    }

    @Override
    void came(double value) {
        if (ended > 0) {
            mend(ended, value);
            ended = 0;
        }
        if (value == last) {
            run++;
        } else {
            boolean cut = run >= FEWEST && run <= longest && (last >= highest || last <= lowest);
            ended = cut ? run : 0;
            run = value == value ? 1 : 0;
        }
        last = value;
        highest = Math.max(highest, value == value ? value : highest);
        lowest = Math.min(lowest, value == value ? value : lowest);
    }

    /** The run lies before the two newest samples, and two more before it. */
    private void mend(int length, double newest) {
        double after = back(1);
        double before = back(length + 2);
        double earlier = back(length + 3);
        double flat = back(2);
        boolean top = before < flat && after < flat;
        boolean bottom = before > flat && after > flat;
        if (!top && !bottom || earlier != earlier || newest != newest) {
            return;
        }
        double span = length + 1;
        double out = (before - earlier) * span;
        double in = (newest - after) * span;
        for (int k = 1; k <= length; k++) {
            double t = k / span;
            double t2 = t * t;
            double t3 = t2 * t;
            double drawn = (2 * t3 - 3 * t2 + 1) * before
                    + (t3 - 2 * t2 + t) * out
                    + (3 * t2 - 2 * t3) * after
                    + (t3 - t2) * in;
            // It went beyond the end, or it would not have been cut.
            put(length + 2 - k, top ? Math.max(flat, drawn) : Math.min(flat, drawn));
        }
    }
}
