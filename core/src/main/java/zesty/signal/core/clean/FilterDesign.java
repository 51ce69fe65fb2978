package zesty.signal.core.clean;

import uk.me.berndporr.iirj.Butterworth;
import uk.me.berndporr.iirj.Cascade;

/**
 * Filters designed as second-order sections: Butterworth (S. Butterworth 1930, "On the Theory of Filter Amplifiers")
 * by the bilinear transform, and the notch. Frequencies in Hz, all above 0 and below half the sample rate.
 */
public final class FilterDesign {
    /** Highest order of the prototype. */
    public static final int HIGHEST_ORDER = 16;

    private FilterDesign() {}

    public static Sections lowPass(double sampleRateHz, double cornerHz, int order) {
        Butterworth design = new Butterworth();
        design.lowPass(order, sampleRateHz, cornerHz);
        return sections(design, order);
    }

    public static Sections highPass(double sampleRateHz, double cornerHz, int order) {
        Butterworth design = new Butterworth();
        design.highPass(order, sampleRateHz, cornerHz);
        return sections(design, order);
    }

    /** @param order of the low-pass prototype: the band filter has twice as many poles */
    public static Sections bandPass(double sampleRateHz, double lowHz, double highHz, int order) {
        Butterworth design = new Butterworth();
        design.bandPass(order, sampleRateHz, (lowHz + highHz) / 2, highHz - lowHz);
        return sections(design, 2 * order);
    }

    /** @param order of the low-pass prototype: the band filter has twice as many poles */
    public static Sections bandStop(double sampleRateHz, double lowHz, double highHz, int order) {
        Butterworth design = new Butterworth();
        design.bandStop(order, sampleRateHz, (lowHz + highHz) / 2, highHz - lowHz);
        return sections(design, 2 * order);
    }

    /**
     * A notch that is −3 dB wide by exactly centreHz / q: with ω₀ = 2π·centreHz / sampleRateHz and β = tan(ω₀ / 2q),
     * H(z) = (1 − 2cos ω₀ z⁻¹ + z⁻²) / (1 + β − 2cos ω₀ z⁻¹ + (1 − β) z⁻²), after S. J. Orfanidis 1996,
     * "Introduction to Signal Processing", section 11.3.
     */
    public static Sections notch(double sampleRateHz, double centreHz, double q) {
        double omega = 2 * Math.PI * centreHz / sampleRateHz;
        double gain = 1 / (1 + Math.tan(omega / (2 * q)));
        double cosine = -2 * Math.cos(omega);
        return new Sections(new double[] {gain, gain * cosine, gain, gain * cosine, 2 * gain - 1}, 2);
    }

    private static Sections sections(Cascade design, int poles) {
        int count = design.getNumBiquads();
        double[] coefficients = new double[5 * count];
        for (int s = 0; s < count; s++) {
            double a0 = design.getBiquad(s).getA0();
            coefficients[5 * s] = design.getBiquad(s).getB0() / a0;
            coefficients[5 * s + 1] = design.getBiquad(s).getB1() / a0;
            coefficients[5 * s + 2] = design.getBiquad(s).getB2() / a0;
            coefficients[5 * s + 3] = design.getBiquad(s).getA1() / a0;
            coefficients[5 * s + 4] = design.getBiquad(s).getA2() / a0;
        }
        return new Sections(coefficients, poles);
    }
}
