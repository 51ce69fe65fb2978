package zesty.signal.app.window.lanes;

import zesty.signal.core.sample.Series;

/**
 * The range of values a lane shows: what is in the window with some air, between round numbers. It grows at once and
 * shrinks only when the signal has needed much less for a while, so that the lane does not breathe. Or it is held, or
 * follows the newest of the signal with its height held.
 */
final class ValueScale {
    private static final double SHRINK_BELOW = 0.6;
    private static final double SHRINK_AFTER_SECONDS = 2.5;

    /** The newest share of what is in sight, which a range that follows keeps clear of its ends by a share of its height. */
    private static final double NEWEST = 0.1;

    private static final double CLEAR = 0.1;

    private final float[] extremes = new float[2];
    private double low = 0;
    private double high = 1;
    private boolean set;
    private RangeMode mode = RangeMode.FIT;
    private double smallSince = Double.NaN;

    double low() {
        return low;
    }

    double high() {
        return high;
    }

    RangeMode mode() {
        return mode;
    }

    void go(RangeMode how) {
        mode = how;
    }

    /** Starts anew with the next fit. */
    void reset() {
        set = false;
    }

    /** Fits the scale to samples from … to of the series. @param nowSeconds on any steady clock */
    void fit(Series series, long from, long to, double nowSeconds) {
        long first = Math.max(from, series.start());
        long last = Math.min(to, series.end());
        if (last <= first) {
            return;
        }
        if (set && mode == RangeMode.HOLD) {
            return;
        }
        if (set && mode == RangeMode.FOLLOW) {
            series.range(last - Math.max(1, (long) (NEWEST * (last - first))), last, extremes);
            follow(extremes[0], extremes[1]);
            return;
        }
        series.range(first, last, extremes);
        fit(extremes[0], extremes[1], nowSeconds);
    }

    /** Fits the scale to what lies between two values, unless it is held. */
    void fit(double bottom, double top, double nowSeconds) {
        if (set && mode == RangeMode.HOLD) {
            return;
        }
        if (!(top >= bottom) || Double.isInfinite(top - bottom)) {
            return;
        }
        boolean fits = set && bottom >= low && top <= high;
        boolean small = top - bottom < SHRINK_BELOW * (high - low);
        if (fits && !small) {
            smallSince = Double.NaN;
            return;
        }
        if (fits) {
            smallSince = Double.isNaN(smallSince) ? nowSeconds : smallSince;
            if (nowSeconds - smallSince < SHRINK_AFTER_SECONDS) {
                return;
            }
        }
        smallSince = Double.NaN;
        set = true;
        double span = Math.max(top - bottom, Math.max(Math.abs(top) * 1e-6, 1e-9));
        double step = niceStep(span / 4);
        low = Math.floor((bottom - 0.06 * span) / step) * step;
        high = Math.ceil((top + 0.06 * span) / step) * step;
    }

    /** Moves by whole steps, far enough that the middle of the newest samples is clear of both ends. */
    private void follow(double bottom, double top) {
        double middle = (bottom + top) / 2;
        double height = high - low;
        boolean clear = !(middle < low + CLEAR * height) && !(middle > high - CLEAR * height);
        if (clear || Double.isInfinite(middle)) {
            return;
        }
        double step = niceStep(height / 8);
        double moved = Math.rint((middle - (low + high) / 2) / step) * step;
        low += moved;
        high = low + height;
    }

    /** @return 1, 2 or 5 times a power of ten, at least the given size */
    static double niceStep(double least) {
        double power = Math.pow(10, Math.floor(Math.log10(least)));
        double part = least / power;
        return (part <= 1 ? 1 : part <= 2 ? 2 : part <= 5 ? 5 : 10) * power;
    }
}
