package zesty.signal.core.act;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * A range a reading is meant to stay in.
 *
 * @param hysteresis how far the value must come back inside before an alarm ends, in its unit, at least 0
 */
public record Band(double low, double high, double hysteresis) {
    public Band {
        if (!(low < high) || !(hysteresis >= 0) || hysteresis * 2 >= high - low) {
            throw new IllegalArgumentException(Messages.of("act.a-band-needs-low-high-and-0", low, high, hysteresis));
        }
    }

    /** Where a value lies. */
    public enum Side {
        UNKNOWN,
        BELOW,
        INSIDE,
        ABOVE
    }

    /**
     * @param before where the value before lay
     * @return where this one lies; unknown for NaN
     */
    public Side next(Side before, double value) {
        Objects.requireNonNull(before, "before");
        if (Double.isNaN(value)) {
            return Side.UNKNOWN;
        }
        double lowEdge = before == Side.BELOW ? low + hysteresis : low;
        double highEdge = before == Side.ABOVE ? high - hysteresis : high;
        return value < lowEdge ? Side.BELOW : value > highEdge ? Side.ABOVE : Side.INSIDE;
    }
}
