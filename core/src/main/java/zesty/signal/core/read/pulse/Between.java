package zesty.signal.core.read.pulse;

import java.util.ArrayDeque;
import java.util.Iterator;

/**
 * The highest bump between two beats. The second hump of a pulse comes at the same time after each beat, as the valve closes;
 * bumps as high as that which come now sooner, now later are beats that are missed, or movement. One thread.
 */
final class Between {
    /** So long bumps are kept: until it is decided whether a run of beats is one, in s. */
    private static final double KEPT_SECONDS = 40;

    /** Nearer to a beat it is a part of it, in s. */
    private static final double OWN_SECONDS = 0.05;
    /** Bumps lower than this share of a usual beat say nothing; a fifth higher, a quarter of the wrong rates is not seen. */
    private static final double HIGH = 0.5;

    /** So many high ones at least tell how they scatter. */
    private static final int FEWEST = 6;

    /**
     * A bump between two beats.
     *
     * @param height of the highest one, in usual beats; 0 where there is none, NaN where nothing is known of it
     * @param afterSeconds since the beat before
     */
    record Bump(double height, double afterSeconds) {
        static final Bump UNKNOWN = new Bump(Double.NaN, Double.NaN);
    }

    private final ArrayDeque<Candidate> recent = new ArrayDeque<>();

    void add(Candidate candidate) {
        recent.addLast(candidate);
        while (candidate.seconds() - recent.getFirst().seconds() > KEPT_SECONDS) {
            recent.removeFirst();
        }
    }

    /** @param usual height of a beat */
    Bump highest(double fromSeconds, double toSeconds, double usual) {
        double height = 0;
        double after = 0;
        // From the newest on: what came before the last beat is most of them.
        for (Iterator<Candidate> back = recent.descendingIterator(); back.hasNext(); ) {
            Candidate one = back.next();
            if (one.seconds() <= fromSeconds + OWN_SECONDS) {
                break;
            }
            if (one.seconds() < toSeconds - OWN_SECONDS && one.height() > height) {
                height = one.height();
                after = one.seconds() - fromSeconds;
            }
        }
        return new Bump(height / usual, after);
    }

    /**
     * What stands between the beats of a stretch of time.
     *
     * @param share of the intervals that hold a high bump
     * @param scatterSeconds standard deviation of when that one comes after its beat; 0 of few
     */
    record Bumps(double share, double scatterSeconds) {
        static Bumps of(Bump[] bumps) {
            int known = 0;
            int high = 0;
            double sum = 0;
            double squares = 0;
            for (Bump one : bumps) {
                known += one.height() >= 0 ? 1 : 0;
                if (one.height() > HIGH) {
                    high++;
                    sum += one.afterSeconds();
                    squares += one.afterSeconds() * one.afterSeconds();
                }
            }
            double mean = sum / Math.max(1, high);
            double variance = squares / Math.max(1, high) - mean * mean;
            return new Bumps((double) high / Math.max(1, known), high < FEWEST ? 0 : Math.sqrt(Math.max(0, variance)));
        }
    }
}
