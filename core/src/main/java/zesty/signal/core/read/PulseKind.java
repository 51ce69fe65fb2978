package zesty.signal.core.read;

/** Where a pulse signal comes from: what band it lives in and how long its parts are. */
public enum PulseKind {
    /**
     * Light through or off the skin. Band and windows of M. Elgendi, I. Norton, M. Brearley, D. Abbott and D. Schuurmans
     * 2013, "Systolic Peak Detection in Acceleration Photoplethysmograms Measured from Emergency Responders in Tropical
     * Conditions".
     */
    OPTICAL(0.5, 8, 0.111, 0.667, 0.02, 0.25, 0.35, 20),
    /**
     * Electrodes. Band and windows of M. Elgendi, M. Jonkman and F. De Boer 2010, "Frequency Bands Effects on QRS
     * Detection".
     */
    ELECTRICAL(8, 20, 0.097, 0.611, 0.08, 0.08, 0.08, 100);

    final double lowHz;
    final double highHz;
    /** About the length of the part that stands out, in s. */
    final double peakSeconds;
    /** About the length of a beat, in s. */
    final double beatSeconds;
    /** How much of the mean level the peak must stand out by. */
    final double beta;
    /** How much of a beat is compared with the others, before and after its peak, in s. */
    final double shapeBefore;

    final double shapeAfter;
    final double lowestRateHz;

    PulseKind(
            double lowHz,
            double highHz,
            double peakSeconds,
            double beatSeconds,
            double beta,
            double shapeBefore,
            double shapeAfter,
            double lowestRateHz) {
        this.lowHz = lowHz;
        this.highHz = highHz;
        this.peakSeconds = peakSeconds;
        this.beatSeconds = beatSeconds;
        this.beta = beta;
        this.shapeBefore = shapeBefore;
        this.shapeAfter = shapeAfter;
        this.lowestRateHz = lowestRateHz;
    }

    /** @return the slowest sample rate the band can be read at, in Hz */
    public double lowestRateHz() {
        return lowestRateHz;
    }
}
