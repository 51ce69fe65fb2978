package zesty.signal.core.read.pulse;

import java.util.Locale;

/** Where a pulse signal comes from. */
public enum PulseSource {
    /** Light through or off the skin. */
    OPTICAL(20, 80, 20),
    /** Electrodes. */
    ELECTRICAL(100, 200, 45);

    /** The slowest rate at which a beat's parts are still told apart, in Hz. */
    final double lowestRateHz;

    /** Samples are averaged together down to about this rate, in Hz: more would cost and tell nothing. */
    final double workingRateHz;

    /**
     * What a bump must be as high as, as the finder measures it, for each step of the converter: two and a half times what a
     * single step gives. Single steps are all alike, and so make runs.
     */
    final double leastHeight;

    PulseSource(double lowestRateHz, double workingRateHz, double leastHeight) {
        this.lowestRateHz = lowestRateHz;
        this.workingRateHz = workingRateHz;
        this.leastHeight = leastHeight;
    }

    /** @return as written in settings */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    static PulseSource of(String word) {
        return valueOf(word.toUpperCase(Locale.ROOT));
    }

    Finder finder(double rateHz, Finder.Found found) {
        return this == OPTICAL ? new OpticalFinder(rateHz, found) : new ElectricalFinder(rateHz, found);
    }
}
