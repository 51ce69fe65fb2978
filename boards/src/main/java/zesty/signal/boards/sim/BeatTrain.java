package zesty.signal.boards.sim;

import java.util.Random;
import java.util.Set;

/**
 * When the beats of a made-up heart come: a rate that follows the breath and a slow rhythm of 0.1 Hz, an effort, and
 * beats that come early and are made up for by a pause.
 */
final class BeatTrain {
    private static final double RESTING = 70;
    private static final double EFFORT = 130;
    private static final double EFFORT_STARTS = 40;
    private static final double EFFORT_RISES = 5;
    private static final double EFFORT_LASTS = 30;
    private static final double RECOVERS = 35;
    private static final double EARLY_SHARE = 0.07;

    private final Random random;
    private final boolean effort;
    private final boolean someEarly;
    private final double resting;
    private double next;
    private double interval;
    private boolean early;
    private boolean pause;
    private double drift;

    BeatTrain(Random random, Set<PulseMode> modes) {
        this.random = random;
        effort = modes.contains(PulseMode.EFFORT);
        someEarly = modes.contains(PulseMode.EARLY);
        resting = effort ? RESTING : 58 + 30 * random.nextDouble();
        next = 0.2 + 0.5 * random.nextDouble();
        interval = 60 / resting;
    }

    /** @return the breath at a moment, from −1 to 1: about 15 a minute */
    static double breath(double t) {
        return Math.sin(2 * Math.PI * 0.25 * t + 0.6 * Math.sin(2 * Math.PI * 0.013 * t));
    }

    double nextSeconds() {
        return next;
    }

    /** @return whether the beat to come is an early one */
    boolean nextIsEarly() {
        return early;
    }

    double interval() {
        return interval;
    }

    private double rate(double t) {
        if (!effort || t < EFFORT_STARTS) {
            return resting;
        }
        double up = Math.min(1, (t - EFFORT_STARTS) / EFFORT_RISES);
        double after = t - EFFORT_STARTS - EFFORT_RISES - EFFORT_LASTS;
        return resting + (EFFORT - resting) * up * (after > 0 ? Math.exp(-after / RECOVERS) : 1);
    }

    /** The beat has come: the one after it is planned. */
    void advance() {
        drift = 0.9 * drift + 0.006 * random.nextGaussian();
        interval = 60
                / rate(next)
                * (1
                        - 0.025 * breath(next)
                        + 0.02 * Math.sin(2 * Math.PI * 0.1 * next)
                        + drift
                        + 0.006 * random.nextGaussian());
        boolean wasEarly = early;
        early = someEarly && !wasEarly && !pause && random.nextDouble() < EARLY_SHARE;
        double share = early ? 0.58 + 0.17 * random.nextDouble() : wasEarly ? 1.35 : 1;
        pause = wasEarly;
        next += interval * share;
    }
}
