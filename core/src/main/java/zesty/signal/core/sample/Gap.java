package zesty.signal.core.sample;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * A stretch in which samples are missing.
 *
 * @param startSeconds time of the last sample before it
 * @param endSeconds time of the first sample after it
 * @param missing how many samples should have been there, as far as the rate tells
 */
public record Gap(double startSeconds, double endSeconds, long missing) {
    /** A step longer than this many usual ones is a gap: a missed sample makes a step of two. */
    public static final double PERIODS = 1.6;
    /** So many long steps behind each other, the same but for this share, are of a slower stretch that misses none. */
    private static final int OTHER_PACE = 8;

    private static final double ALIKE = 0.05;

    public Gap {
        if (!(endSeconds >= startSeconds) || missing < 0) {
            throw new IllegalArgumentException(
                    Messages.of("sample.a-gap-runs-forward-and-misses-at", startSeconds, endSeconds, missing));
        }
    }

    /**
     * @param before time of the row before the first of these; NaN when there is none
     * @param seconds times of rows, never falling
     * @return where rows are missing, as far as the rate tells
     */
    public static List<Gap> between(double before, double[] seconds, double rateHz) {
        List<Gap> gaps = new ArrayList<>();
        double last = before;
        double stepBefore = Double.NaN;
        int alike = 0;
        for (double now : seconds) {
            double step = now - last;
            if (step > PERIODS / rateHz) {
                alike = Math.abs(step / stepBefore - 1) < ALIKE ? alike + 1 : 0;
                if (alike < OTHER_PACE) {
                    gaps.add(new Gap(last, now, Holes.alone(step, rateHz)));
                }
            } else {
                alike = 0;
            }
            stepBefore = step;
            last = now;
        }
        return gaps;
    }

    /** @return its length, in seconds */
    public double seconds() {
        return endSeconds - startSeconds;
    }
}
