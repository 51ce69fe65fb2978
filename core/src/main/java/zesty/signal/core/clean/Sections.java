package zesty.signal.core.clean;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * A filter as a cascade of second-order sections, each b0, b1, b2, a1, a2 with a0 = 1:
 * y[n] = b0·x[n] + b1·x[n−1] + b2·x[n−2] − a1·y[n−1] − a2·y[n−2].
 */
public final class Sections {
    /** What is left of an answer after {@link #settlingSamples()}, as a share. */
    static final double NOTHING = 1e-8;

    private final double[] coefficients;
    private final int poles;

    /**
     * @param coefficients five a section, as above, b0 not 0
     * @param poles how many poles the whole filter has
     */
    Sections(double[] coefficients, int poles) {
        if (coefficients.length == 0 || coefficients.length % 5 != 0) {
            throw new IllegalArgumentException(
                    Messages.of("clean.five-coefficients-a-section-were", coefficients.length));
        }
        for (int s = 0; s < coefficients.length; s += 5) {
            if (coefficients[s] == 0) {
                throw new IllegalArgumentException(Messages.of("clean.b0-of-section-must-not-be-0", s / 5));
            }
        }
        this.coefficients = coefficients.clone();
        this.poles = poles;
    }

    /** @return this filter and another one after it */
    Sections then(Sections other) {
        double[] both = java.util.Arrays.copyOf(coefficients, coefficients.length + other.coefficients.length);
        System.arraycopy(other.coefficients, 0, both, coefficients.length, other.coefficients.length);
        return new Sections(both, poles + other.poles);
    }

    /** @return how many sections */
    public int count() {
        return coefficients.length / 5;
    }

    /** @return how many poles */
    public int poles() {
        return poles;
    }

    /** @return b0, b1, b2, a1 and a2 of a section, a0 being 1 */
    public double[] section(int section) {
        return java.util.Arrays.copyOfRange(coefficients, 5 * section, 5 * section + 5);
    }

    /** @return coefficient k (b0, b1, b2, a1, a2) of a section */
    double at(int section, int k) {
        return coefficients[Objects.checkIndex(section, count()) * 5 + k];
    }

    /** @return the gain |H| at a frequency in turns a sample, 0 … 0.5 */
    public double gain(double turnsPerSample) {
        double omega = 2 * Math.PI * turnsPerSample;
        double gain = 1;
        for (int s = 0; s < count(); s++) {
            double top = magnitude(at(s, 0), at(s, 1), at(s, 2), omega);
            double bottom = magnitude(1, at(s, 3), at(s, 4), omega);
            gain *= top / bottom;
        }
        return gain;
    }

    /** @return after how many samples nothing is left of a blow but a part in 10⁸; {@link Long#MAX_VALUE} if it never is so */
    public long settlingSamples() {
        double slowest = 0;
        for (int s = 0; s < count(); s++) {
            double a1 = at(s, 3);
            double a2 = at(s, 4);
            double square = a1 * a1 / 4 - a2;
            double radius = square < 0 ? Math.sqrt(a2) : Math.abs(a1) / 2 + Math.sqrt(square);
            slowest = Math.max(slowest, radius);
        }
        // Poles that lie close together add up to a few times one of them.
        return slowest >= 1
                ? Long.MAX_VALUE
                : 2L * poles + (slowest > 0 ? (long) Math.ceil(1.3 * Math.log(NOTHING) / Math.log(slowest)) : 0);
    }

    /** @return the group delay in samples at a frequency in turns a sample, 0 … 0.5: by how much an envelope is late */
    public double delaySamples(double turnsPerSample) {
        double omega = 2 * Math.PI * turnsPerSample;
        double delay = 0;
        for (int s = 0; s < count(); s++) {
            delay += turning(at(s, 0), at(s, 1), at(s, 2), omega) - turning(1, at(s, 3), at(s, 4), omega);
        }
        return delay;
    }

    /** −dφ/dω of c0 + c1 z⁻¹ + c2 z⁻² on the unit circle: Re(Σ k·cₖ·z⁻ᵏ / Σ cₖ·z⁻ᵏ). */
    private static double turning(double c0, double c1, double c2, double omega) {
        double real = c0 + c1 * Math.cos(omega) + c2 * Math.cos(2 * omega);
        double imaginary = -c1 * Math.sin(omega) - c2 * Math.sin(2 * omega);
        double topReal = c1 * Math.cos(omega) + 2 * c2 * Math.cos(2 * omega);
        double topImaginary = -c1 * Math.sin(omega) - 2 * c2 * Math.sin(2 * omega);
        double square = real * real + imaginary * imaginary;
        return square < 1e-24 ? 0 : (topReal * real + topImaginary * imaginary) / square;
    }

    private static double magnitude(double c0, double c1, double c2, double omega) {
        double real = c0 + c1 * Math.cos(omega) + c2 * Math.cos(2 * omega);
        double imaginary = -c1 * Math.sin(omega) - c2 * Math.sin(2 * omega);
        return Math.hypot(real, imaginary);
    }
}
