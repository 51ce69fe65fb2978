package zesty.signal.engine;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.text.Messages;

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
            throw new IllegalArgumentException(Messages.of("engine.from-before-the-start-0-to-60-s", beforeSeconds));
        }
        if (repeat && start == null) {
            throw new IllegalArgumentException(Messages.of("engine.what-repeats-needs-a-condition-to"));
        }
        if (!protocol.isNone() && (at != null || start != null || stop != null)) {
            throw new IllegalArgumentException(Messages.of("engine.a-protocol-begins-with-its"));
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

    /**
     * @param clock such as 14:30 or 14:30:05
     * @return the next time the computer's clock shows it; today's if that is still to come
     * @throws IllegalArgumentException when it is none
     */
    public static Instant nextTime(String clock) {
        String text = clock.strip();
        try {
            ZonedDateTime now = ZonedDateTime.now();
            ZonedDateTime then = now.with(LocalTime.parse(text.indexOf(':') == 1 ? "0" + text : text));
            return (then.isBefore(now) ? then.plusDays(1) : then).toInstant();
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(Messages.of("engine.a-time-of-day-such-as-14-30-or-14", text), e);
        }
    }

    /** @return whether something must be watched to begin or end it */
    boolean cued() {
        return at != null || start != null || stop != null;
    }

    /** @return what it waits for, in words */
    String waitsFor() {
        return start != null
                ? start.words()
                : at != null ? Messages.of("engine.its-time") : Messages.of("engine.the-first-row");
    }
}
