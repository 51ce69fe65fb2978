package zesty.signal.engine;

import java.time.Instant;
import zesty.signal.core.rig.Protocol;

/**
 * When a recording begins and ends, for the window and the command line alike.
 *
 * @param limit by time and rows, both counted from the cue: what is kept from before it comes on top
 * @param at not before this moment; null for at once
 * @param start what it waits for; null for the first row
 * @param beforeSeconds how much from before its start is kept, 0 to {@link #MOST_BEFORE_SECONDS}
 * @param stop what ends it; null for nothing
 * @param repeat whether it waits again afterwards, for a take of its own
 * @param protocol the phases it goes through and marks, from its first row on; {@link Protocol#NONE} for none
 */
public record RecordingPlan(
        RecordingLimit limit,
        Instant at,
        RecordingCue start,
        double beforeSeconds,
        RecordingCue stop,
        boolean repeat,
        Protocol protocol) {
    public static final double MOST_BEFORE_SECONDS = 60;

    public RecordingPlan {
        if (!(beforeSeconds >= 0 && beforeSeconds <= MOST_BEFORE_SECONDS)) {
            throw new IllegalArgumentException(
                    "from before the start 0 to 60 s are kept, were to be " + beforeSeconds + " s");
        }
        if (repeat && start == null) {
            throw new IllegalArgumentException("what repeats needs a condition to start by");
        }
        if (!protocol.isNone() && (at != null || start != null || stop != null)) {
            throw new IllegalArgumentException("a protocol begins with its recording, not on cue");
        }
    }

    /** A plan without a protocol. */
    public RecordingPlan(
            RecordingLimit limit,
            Instant at,
            RecordingCue start,
            double beforeSeconds,
            RecordingCue stop,
            boolean repeat) {
        this(limit, at, start, beforeSeconds, stop, repeat, Protocol.NONE);
    }

    /** @return a recording from the first row on */
    public static RecordingPlan now(RecordingLimit limit) {
        return new RecordingPlan(limit, null, null, 0, null, false);
    }

    /** @return a recording from the first row on, through all phases of a protocol */
    public static RecordingPlan through(Protocol protocol) {
        return new RecordingPlan(RecordingLimit.ofSeconds(protocol.seconds()), null, null, 0, null, false, protocol);
    }

    /** @return whether something must be watched to begin or end it */
    boolean cued() {
        return at != null || start != null || stop != null;
    }

    /** @return what it waits for, in words */
    String waitsFor() {
        return start != null ? start.words() : at != null ? "its time" : "the first row";
    }
}
