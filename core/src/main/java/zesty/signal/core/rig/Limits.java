package zesty.signal.core.rig;

import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * What a channel must not go beyond, in its unit: the limit of a divider, a pin, a cell.
 *
 * @param low NaN for none
 * @param high NaN for none, else above {@code low}
 */
public record Limits(double low, double high) {
    public static final Limits NONE = new Limits(Double.NaN, Double.NaN);

    public Limits {
        if (low >= high) {
            throw new IllegalArgumentException(
                    Messages.of("rig.the-lower-limit-must-be-below-the", Digits.of(low), Digits.of(high)));
        }
    }

    public boolean none() {
        return Double.isNaN(low) && Double.isNaN(high);
    }

    /** @return whether the value is beyond either; NaN is not */
    public boolean beyond(double value) {
        return value < low || value > high;
    }

    /** @return what is wrong with the value, in words; empty when it is within */
    public String words(double value, String unit) {
        if (!beyond(value)) {
            return "";
        }
        boolean above = value > high;
        String behind = unit.isEmpty() ? "" : " " + unit;
        return Messages.of(
                "rig.is-its-limit-of",
                Digits.about(value, 4) + behind,
                (above ? Messages.of("rig.above") : Messages.of("rig.below")),
                Digits.of(above ? high : low),
                behind);
    }
}
