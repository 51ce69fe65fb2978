package zesty.signal.core.clean;

/** Fills missing values by a straight line from the one before to the one after; what is missing longer stays missing. */
final class Filler extends GapFiller {
    private final int longest;
    private double before = Double.NaN;
    private int missing;

    Filler(int longest) {
        super(longest, 1);
        this.longest = longest;
    }

    @Override
    void forget() {
        before = Double.NaN;
        missing = 0;
    }

    @Override
    void came(double value) {
        if (value != value) {
            missing++;
            return;
        }
        if (missing > 0 && missing <= longest && before == before) {
            for (int k = 1; k <= missing; k++) {
                put(missing + 1 - k, before + (value - before) * k / (missing + 1));
            }
        }
        missing = 0;
        before = value;
    }
}
