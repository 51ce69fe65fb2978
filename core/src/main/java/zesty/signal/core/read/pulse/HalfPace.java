package zesty.signal.core.read.pulse;

import java.util.List;

/**
 * Notices a pulse that goes twice as fast as it did and is followed at its old pace: each second beat is passed over. No hump of a
 * pulse is as high as its beat, of its shape and in the middle of the interval beat after beat. One thread.
 */
final class HalfPace {
    /** After so many beats in a row with another halfway before them, half of them are missed. */
    private static final int BEATS = 4;
    /** Halfway is within this share of the middle of the interval. */
    private static final double MIDDLE = 0.06;

    private static final double LOWEST = 0.8;
    /** So much less like the usual beat than beats are it may be. */
    private static final double LIKENESS = 0.1;

    private int halves;

    /**
     * @param lastBeat when the beat before was, in s
     * @param next the beat that is chosen, {@code passed} the candidates passed over between the two
     * @return whether every second beat is passed over by now
     */
    boolean is(double lastBeat, Candidate next, List<Candidate> passed, BeatLooks looks) {
        double middle = (lastBeat + next.seconds()) / 2;
        double near = MIDDLE * (next.seconds() - lastBeat);
        boolean half = passed.stream()
                .anyMatch(one -> Math.abs(one.seconds() - middle) < near
                        && one.height() > LOWEST * looks.usual()
                        && looks.likeness(one) > looks.usualLikeness() - LIKENESS);
        halves = half ? halves + 1 : 0;
        if (halves < BEATS) {
            return false;
        }
        halves = 0;
        return true;
    }

    /** No beat is followed any more. */
    void lose() {
        halves = 0;
    }
}
