package zesty.signal.core.scale;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * An analog-to-digital converter: volts = counts · referenceVolts / divisor.
 *
 * @param bits 8 to 24
 * @param referenceVolts above 0
 * @param signed whether its codes run from −2^(bits−1) to 2^(bits−1) − 1, for −referenceVolts to referenceVolts
 * @param referenceFrom the column of the same stream that measures the reference, whose own chain gives V; empty when it
 *     is steady and {@code referenceVolts}
 */
public record Converter(int bits, double referenceVolts, Divisor divisor, boolean signed, String referenceFrom) {
    public Converter {
        Objects.requireNonNull(divisor, "divisor");
        Objects.requireNonNull(referenceFrom, "referenceFrom");
        if (bits < 8 || bits > 24) {
            throw new IllegalArgumentException(Messages.of("scale.a-converter-has-8-to-24-bits-not", bits));
        }
        if (!(referenceVolts > 0) || Double.isInfinite(referenceVolts)) {
            throw new IllegalArgumentException(Messages.of("scale.the-reference-must-be-above-0-v", referenceVolts));
        }
    }

    /** A converter of unsigned codes with a steady reference. */
    public Converter(int bits, double referenceVolts, Divisor divisor) {
        this(bits, referenceVolts, divisor, false, "");
    }

    /** @return what counts are divided by */
    public double divideBy() {
        return divisor.of(signed ? bits - 1 : bits);
    }

    /** @return the voltage of so many counts, in V */
    public double volts(double counts) {
        return counts * referenceVolts / divideBy();
    }

    /** @return the highest code, in counts */
    public double highestCode() {
        return Math.scalb(1.0, signed ? bits - 1 : bits) - 1;
    }

    /** @return the lowest code, in counts */
    public double lowestCode() {
        return signed ? -Math.scalb(1.0, bits - 1) : 0;
    }

    /** @return the same with its reference as it was measured now; as it is where that is no voltage above 0 */
    public Converter at(double volts) {
        boolean usable = volts > 0 && volts < Double.POSITIVE_INFINITY;
        return new Converter(bits, usable ? volts : referenceVolts, divisor, signed, "");
    }
}
