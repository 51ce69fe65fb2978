package zesty.signal.core.read.muscle;

import zesty.signal.core.read.Settings;

/**
 * What is set of a muscle.
 *
 * @param raw whether it is the raw signal; else an envelope
 * @param energy whether the ends of bursts are looked for on the energy operator
 * @param restSpan when it rests, in s from the first sample; null for the quietest stretches
 * @param restLevel the envelope at rest; NaN for that of the rest
 * @param hardest the envelope at the hardest pull; NaN for the highest burst
 * @param shortestSeconds less is no burst
 * @param gapSeconds bursts nearer than this are one
 */
record MuscleSettings(
        boolean raw,
        boolean energy,
        double[] restSpan,
        double restLevel,
        double hardest,
        double shortestSeconds,
        double gapSeconds) {
    static MuscleSettings of(Settings settings) {
        return new MuscleSettings(
                settings.text("kind").equals(Muscle.RAW),
                settings.text("onset").equals("energy"),
                settings.span("rest"),
                settings.number(Muscle.REST_LEVEL),
                settings.number(Muscle.HARDEST),
                settings.number("shortest"),
                settings.number("gap"));
    }

    /** @return the same for a muscle of which nothing was given */
    MuscleSettings ofAnother() {
        return new MuscleSettings(raw, energy, restSpan, Double.NaN, Double.NaN, shortestSeconds, gapSeconds);
    }
}
