package zesty.signal.core.scale;

import java.util.Objects;

/**
 * An analog-to-digital converter: volts = counts · referenceVolts / divisor.
 *
 * @param bits 8 to 24
 * @param referenceVolts above 0
 */
public record Converter(int bits, double referenceVolts, Divisor divisor) {
    public Converter {
        Objects.requireNonNull(divisor, "divisor");
        if (bits < 8 || bits > 24) {
            throw new IllegalArgumentException("a converter has 8 to 24 bits, not " + bits);
        }
        if (!(referenceVolts > 0) || Double.isInfinite(referenceVolts)) {
            throw new IllegalArgumentException("the reference must be above 0 V, was " + referenceVolts + " V");
        }
    }

    /** @return the voltage of so many counts, in V */
    public double volts(double counts) {
        return counts * referenceVolts / divisor.of(bits);
    }

    /** @return the highest code, in counts */
    public double highestCode() {
        return Math.scalb(1.0, bits) - 1;
    }
}
