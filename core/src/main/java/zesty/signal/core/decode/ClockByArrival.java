package zesty.signal.core.decode;

import java.util.Arrays;

/**
 * Tells of a stream whose columns have no names whether its first number is the board's clock, by how it goes on beside arrival:
 * a number that rises from row to row by a thousand a second, or a million, or one, counts time, whatever its rows do. One
 * thread.
 */
public final class ClockByArrival {
    private static final double[] TICKS_PER_SECOND = {1e3, 1e6, 1};
    /** So near to that. A board's clock is right within a hundredth; the rest is for arrival on a busy machine. */
    private static final double NEAR = 0.02;
    /** What is off by less may be a clock whose rows came late: more of it tells … */
    private static final double LIKELY = 0.15;
    /** … within this time. */
    private static final double LONGEST_SECONDS = 4;

    private static final double LEAST_SECONDS = 0.5;
    private static final int FEWEST_ROWS = 8;
    /** Smaller steps of whole numbers are those of a count of rows. */
    private static final double LEAST_STEP = 1.1;

    private final StreamFormat format;
    private final ArrivalClockFit fit = new ArrivalClockFit();
    private double newest = Double.NEGATIVE_INFINITY;
    private double first = Double.NaN;
    private boolean falls;

    private ClockByArrival(StreamFormat format) {
        this.format = format;
    }

    /** @return what looks at such a stream; null where its format tells a clock, names its columns or has but one */
    public static ClockByArrival of(StreamFormat format) {
        boolean may = format.clock() == null
                && !(format instanceof PictureFormat)
                && format.columns().size() > 1
                && Roles.nameless(format.columns(), 0)
                && format.columns().get(0).role() == Role.VALUE;
        return may ? new ClockByArrival(format) : null;
    }

    /** The first number of the newest row that has come by that time, in s on any steady clock. */
    public void saw(double value, double seconds) {
        if (!(value >= newest)) {
            falls = true;
        }
        if (falls) {
            return;
        }
        newest = value;
        first = first == first ? first : seconds;
        fit.saw(value, seconds);
    }

    /** @return whether it may be a clock and more of it would tell. @param nowSeconds as the times of arrival */
    public boolean wantsMore(double nowSeconds) {
        boolean near = Arrays.stream(TICKS_PER_SECOND).anyMatch(ticks -> off(ticks) < LIKELY && off(ticks) > NEAR);
        return !falls && nowSeconds - first < LONGEST_SECONDS && near;
    }

    private double off(double ticksPerSecond) {
        return Math.abs(1 / (fit.periodSeconds() * ticksPerSecond) - 1);
    }

    /** @param rows all that came. @return the format with the clock, and what follows from it; as it was where it is none */
    public StreamFormat told(Rows rows) {
        if (falls || rows.count() < FEWEST_ROWS || !(fit.spanSeconds() >= LEAST_SECONDS)) {
            return format;
        }
        double[] values = Arrays.copyOf(rows.columns()[0], rows.count());
        boolean whole = Arrays.stream(values).allMatch(v -> v == Math.rint(v));
        double step = (values[values.length - 1] - values[0]) / (values.length - 1);
        for (double ticks : TICKS_PER_SECOND) {
            if (off(ticks) <= NEAR && whole == ticks > 1 && (!whole || step >= LEAST_STEP) && Roles.rises(values)) {
                BoardClock clock = new BoardClock(0, ticks, whole ? BoardClock.WRAP_32_BIT : 0);
                return format.with(Roles.behindClock(format.columns(), rows), clock);
            }
        }
        return format;
    }
}
