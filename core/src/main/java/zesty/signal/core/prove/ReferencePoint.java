package zesty.signal.core.prove;

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
            throw new IllegalArgumentException("a point has two numbers, was " + raw + " and " + reference);
        }
        if (!(uncertainty >= 0) || Double.isInfinite(uncertainty)) {
            throw new IllegalArgumentException("an uncertainty is 0 or above, was " + uncertainty);
        }
    }

    /** A point whose uncertainty is not told. */
    public ReferencePoint(double raw, double reference) {
        this(raw, reference, 0);
    }
}
