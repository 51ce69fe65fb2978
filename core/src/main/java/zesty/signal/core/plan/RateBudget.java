package zesty.signal.core.plan;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What a sample rate can tell. @param enough whether it is 2.5 times the highest frequency of interest; null where that is not known */
public record RateBudget(double nyquistHz, Boolean enough, List<Tone> tones) {
    /** So many samples a period: two are the limit that no real filter reaches. */
    public static final double SAMPLES_A_PERIOD = 2.5;

    /** A tone and where it appears after sampling. */
    public record Tone(double hz, double seenHz) {}

    public static RateBudget of(double rateHz, Plan.Signal signal) {
        List<Tone> tones = new ArrayList<>();
        for (double hz : signal.tones()) {
            tones.add(new Tone(hz, Math.abs(hz - rateHz * Math.rint(hz / rateHz))));
        }
        Boolean enough =
                Double.isNaN(signal.highestHz()) ? null : rateHz >= SAMPLES_A_PERIOD * signal.highestHz() * (1 - 1e-12);
        return new RateBudget(rateHz / 2, enough, tones);
    }

    List<Fault> faults(double rateHz, Plan.Signal signal) {
        List<Fault> faults = new ArrayList<>();
        if (Boolean.FALSE.equals(enough)) {
            faults.add(new Fault(
                    "rate",
                    Messages.of("plan.rows-s-are-too-few-for-hz", Digits.of(rateHz), Digits.of(signal.highestHz())),
                    Messages.of("plan.rows-s-at-least", Digits.of(SAMPLES_A_PERIOD * signal.highestHz()))));
        }
        for (Tone tone : tones) {
            if (tone.hz() > nyquistHz) {
                faults.add(new Fault(
                        "rate",
                        Messages.of(
                                "plan.a-tone-of-hz-is-aliased-to-hz",
                                Digits.of(tone.hz()),
                                Digits.about(tone.seenHz(), 4)),
                        Messages.of("plan.more-than-rows-s-or-a-filter", Digits.of(2 * tone.hz()))));
            }
        }
        return faults;
    }
}
