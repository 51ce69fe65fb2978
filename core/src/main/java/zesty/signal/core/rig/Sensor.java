package zesty.signal.core.rig;

import java.util.Objects;
import java.util.Optional;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * What is known of the sensor behind a channel.
 *
 * @param kind what sort it is; empty when the maker did not say
 * @param low the least plausible value, and {@code high} the greatest, in the channel's unit; NaN where unknown
 * @param trap what goes wrong with it, in words; may be empty
 * @param caution null where there is nothing to take care of
 */
public record Sensor(String kind, double low, double high, String trap, Caution caution) {
    public static final Sensor UNKNOWN = new Sensor("", Double.NaN, Double.NaN, "", null);

    public Sensor {
        Objects.requireNonNull(kind, "kind");
        Objects.requireNonNull(trap, "trap");
        if (low >= high) {
            throw new IllegalArgumentException(
                    Messages.of("rig.the-least-plausible-value-must-be", Digits.of(low), Digits.of(high)));
        }
    }

    /** @return whether nothing is said of it */
    public boolean isUnknown() {
        return kind.isEmpty() && low != low && high != high && trap.isEmpty() && caution == null;
    }

    public Optional<Caution> takesCare() {
        return Optional.ofNullable(caution);
    }

    /** @return what is odd about the value, in words; empty when it may well be */
    public String oddity(double value, String unit) {
        if (!(value < low || value > high)) {
            return "";
        }
        return Messages.of(
                "rig.it-reads-which-is-not-plausible",
                Digits.about(value, 4),
                (unit.isEmpty() ? "" : " " + unit),
                Digits.of(low),
                Digits.of(high));
    }
}
