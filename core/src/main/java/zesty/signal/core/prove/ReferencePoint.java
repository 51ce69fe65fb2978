package zesty.signal.core.prove;

import zesty.signal.core.text.Messages;

/**
 * What came from the sensor while the meter, ruler or weight said something.
 *
 * @param raw the steady mean of what is to be fitted
 * @param reference what the trusted thing said
 * @param uncertainty how good that is, as a standard uncertainty in the unit of the reference; 0 when it is not told
 */
public record ReferencePoint(double raw, double reference, double uncertainty) {
    public ReferencePoint {
        if (!Double.isFinite(raw) || !Double.isFinite(reference)) {
            throw new IllegalArgumentException(Messages.of("prove.a-point-has-two-numbers-was-and", raw, reference));
        }
        if (!(uncertainty >= 0) || Double.isInfinite(uncertainty)) {
            throw new IllegalArgumentException(Messages.of("prove.an-uncertainty-is-0-or-above-was", uncertainty));
        }
    }

    /** A point whose uncertainty is not told. */
    public ReferencePoint(double raw, double reference) {
        this(raw, reference, 0);
    }
}
