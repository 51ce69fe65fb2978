package zesty.signal.core.read.pulse;

import java.util.Arrays;
import zesty.signal.core.sample.Order;

/**
 * Whether the signal is clean and the heart beats as it likes, so that early beats and pauses are what they seem. Of a poor signal
 * anything may hide, and an even heart is told from its gaps better. One thread.
 */
final class FreeRhythm {
    /** The beats of a clean signal are as alike as this on average. */
    private static final double CLEAN = 0.96;

    /** Bumps of middling height, neither noise nor beats, come beside few of the beats of a clean signal. */
    private static final int MIDDLING_MEMORY = 12;

    private static final int MOST_MIDDLING = 1;
    /** Of a free heart half of the newest intervals are off their median by this share of it. */
    private static final double IRREGULAR = 0.07;

    private static final int FEWEST_INTERVALS = 5;
    private static final int MEMORY = 8;

    private final Flags middling = new Flags(MIDDLING_MEMORY);
    private final double[] intervals = new double[MEMORY];
    private int intervalCount;

    /** @param middlingBump whether a bump of middling height stood before a beat */
    void beat(boolean middlingBump) {
        middling.add(middlingBump);
    }

    void interval(double seconds) {
        intervals[intervalCount++ % MEMORY] = seconds;
    }

    /** The pulse was lost: its intervals tell nothing of the next one. */
    void lose() {
        intervalCount = 0;
    }

    boolean is(double usualLikeness) {
        int n = Math.min(intervalCount, MEMORY);
        if (usualLikeness <= CLEAN || middling.count() > MOST_MIDDLING || n < FEWEST_INTERVALS) {
            return false;
        }
        double[] newest = Arrays.copyOf(intervals, n);
        double median = Order.median(newest);
        // Half of them further off than this: a beat missed now and then makes one interval twice as long, not half of
        // all.
        double off = Order.median(
                Arrays.stream(newest).map(one -> Math.abs(one - median)).toArray());
        return off > IRREGULAR * median;
    }
}
