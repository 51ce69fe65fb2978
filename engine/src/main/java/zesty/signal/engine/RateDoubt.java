package zesty.signal.engine;

import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Of a board that tells no time the first seconds of arrival tell a rate roughly: an answer in Hz or a minute is as far off as that, and
 * says so until the rate is known. One thread.
 */
final class RateDoubt {
    /** Less is not worth a word. */
    private static final double WORTH_SAYING = 0.005;
    /** What it takes off the quality, times the share: of a rate known to a twentieth half is left. */
    private static final double COST = 10;

    private static final double LEAST = 0.3;

    private final boolean counts;
    private double share;

    RateDoubt(ReaderKind kind) {
        counts = kind.scalars().stream()
                .anyMatch(one -> one.unit().equals("Hz") || one.unit().endsWith("/min"));
    }

    /** @param offBy as a share of it, by how much the rate that is read at may be off */
    void offBy(double offBy) {
        share = offBy;
    }

    /** @return the reading, with what the rate is known to where that is too little */
    Reading said(Reading reading) {
        if (!counts
                || !(share > WORTH_SAYING)
                || reading == null
                || !reading.refusal().isEmpty()) {
            return reading;
        }
        return reading.doubted(
                Math.max(LEAST, 1 - COST * share),
                Messages.of("engine.the-sample-rate-is-known-to", Digits.about(100 * share, 1)));
    }
}
