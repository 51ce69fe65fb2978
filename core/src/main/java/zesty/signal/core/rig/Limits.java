package zesty.signal.core.rig;

import zesty.signal.core.scale.Digits;

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
                    "the lower limit must be below the upper one, were " + Digits.of(low) + " and " + Digits.of(high));
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
        return Digits.about(value, 4) + behind + " is " + (above ? "above" : "below") + " its limit of "
                + Digits.of(above ? high : low) + behind;
    }
}
