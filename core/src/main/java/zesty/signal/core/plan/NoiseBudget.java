package zesty.signal.core.plan;

/** What a converter resolves. @param noiseVolts of one average, its rounding included. @param effectiveBits of that */
public record NoiseBudget(double stepVolts, double noiseVolts, double effectiveBits) {
    /** Rounding to whole counts is noise of a uniform distribution, 1/√12 of a count (W. R. Bennett 1948). */
    private static final double ROUNDING = 1.0 / 12;

    public static NoiseBudget of(Plan.Converter converter) {
        double step = converter.ref() / Math.pow(2, converter.bits());
        double counts = Math.sqrt(converter.noiseCounts() * converter.noiseCounts() + ROUNDING)
                / Math.sqrt(converter.average());
        double bits = converter.bits() - Math.log(Math.sqrt(12) * counts) / Math.log(2);
        return new NoiseBudget(step, counts * step, bits);
    }
}
