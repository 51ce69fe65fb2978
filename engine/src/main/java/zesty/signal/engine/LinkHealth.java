package zesty.signal.engine;

import java.util.List;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.text.Messages;

/**
 * What is known of a link at one moment.
 *
 * @param reason in words, where the state has one; else empty
 * @param bytes received in all
 * @param bytesPerSecond over about the last second
 * @param rows decoded in all
 * @param rejectedLines lines not understood, in all
 * @param lostRows rows missing in gaps, as far as the rate tells, and any the trail could not keep up with
 * @param gaps how many
 * @param wrongStamps rows whose clock the rows around contradict
 * @param lateRows rows that came behind later ones
 * @param repeatedRows rows left out, as they had come before
 * @param turnedAway callers turned away because another board is connected
 * @param reconnects how often it was opened anew
 * @param old messages that a broker had kept from before, left out because they are not of now
 * @param driftPpm by how much the board's clock is fast against the computer's, in parts per million; NaN if unknown
 * @param jitterSeconds how unevenly rows arrive against their own time
 * @param rateUncertainty the standard uncertainty of the rate as a share of it, where arrival alone tells it; else 0
 * @param shiftSeconds what is added to the source's own time to bring it onto the rig's line; NaN while nothing has come
 * @param aside the newest lines set aside
 */
public record LinkHealth(
        LinkState state,
        String reason,
        long bytes,
        double bytesPerSecond,
        long rows,
        long rejectedLines,
        long lostRows,
        long gaps,
        long wrongStamps,
        long lateRows,
        long repeatedRows,
        int turnedAway,
        int old,
        int reconnects,
        double driftPpm,
        double jitterSeconds,
        double rateUncertainty,
        double shiftSeconds,
        List<RejectedLines.Item> aside) {

    /** Stands in the reason of a source without a clock that is read faster than time passes. */
    public static final String ASSUMED = Messages.of("engine.it-has-no-clock-so-100-samples-s");

    /** Begins the reason of a source whose stream goes on in another shape. */
    public static final String CHANGED = Messages.of("engine.the-stream-changed-its-shape");

    /** A link that was not asked to run. */
    public static final LinkHealth IDLE = new LinkHealth(
            LinkState.IDLE, "", 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, Double.NaN, 0, 0, Double.NaN, List.of());

    LinkHealth withState(LinkState other, String why) {
        return with(other, why, shiftSeconds);
    }

    LinkHealth withShift(double seconds) {
        return with(state, reason, seconds);
    }

    private LinkHealth with(LinkState other, String why, double shift) {
        return new LinkHealth(
                other,
                why,
                bytes,
                bytesPerSecond,
                rows,
                rejectedLines,
                lostRows,
                gaps,
                wrongStamps,
                lateRows,
                repeatedRows,
                turnedAway,
                old,
                reconnects,
                driftPpm,
                jitterSeconds,
                rateUncertainty,
                shift,
                aside);
    }
}
