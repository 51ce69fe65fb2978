package zesty.signal.engine;

import java.util.Arrays;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** How much of what a reader took in was filled and not measured, and what that takes off its quality. One thread. */
final class FilledShare {
    /** The newest times of filled values are kept; older ones only count for the whole. */
    private static final int MOST = 1 << 16;
    /** Less than this is not worth a word. */
    private static final double WORTH_SAYING = 0.001;
    /** What a filled share takes off the quality, times the share: with a twentieth filled, answers hold and say 0.9. */
    private static final double COST = 2;
    /** However much was filled, this much is left. */
    private static final double LEAST = 0.3;

    private final double rateHz;
    private double[] seconds = new double[64];
    private int count;
    private double first = Double.NaN;
    private double last = Double.NaN;

    FilledShare(double rateHz) {
        this.rateHz = rateHz;
    }

    /** @param at when the value that was filled would have been measured, in s, never falling */
    void add(double at) {
        if (count == seconds.length) {
            if (count == MOST) {
                System.arraycopy(seconds, MOST / 2, seconds, 0, MOST / 2);
                count = MOST / 2;
                // What is spoken of begins with what is kept.
                first = seconds[0];
            } else {
                seconds = Arrays.copyOf(seconds, 2 * count);
            }
        }
        seconds[count++] = at;
    }

    /** Values from there to there were taken in. */
    void came(double from, double to) {
        first = first == first ? first : from;
        last = to;
    }

    private double share(double from, double to) {
        double begin = Math.max(from, first);
        double end = Math.min(to, last);
        int within = 0;
        for (int i = count - 1; i >= 0 && seconds[i] >= begin; i--) {
            within += seconds[i] <= end ? 1 : 0;
        }
        return end > begin ? Math.min(1, within / ((end - begin) * rateHz + 1)) : 0;
    }

    /** @return the reading, with what was filled within the span told and taken off its quality */
    Reading said(Reading reading, double from, double to) {
        double share = count == 0 || reading == null ? 0 : share(from, to);
        if (share < WORTH_SAYING || !reading.refusal().isEmpty()) {
            return reading;
        }
        return reading.doubted(
                Math.max(LEAST, 1 - COST * share),
                Messages.of("engine.of-the-samples-are-missing-and", Digits.fixed(100 * share, 1)));
    }
}
