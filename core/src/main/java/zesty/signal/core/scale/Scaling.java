package zesty.signal.core.scale;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * A channel's chain from what arrived to the quantity: through the converter where there is one, then along a line,
 * quantity = slope · x + offset.
 *
 * @param converter null when the board sends the quantity itself
 * @param slope in units a volt, or a unit that arrived; not 0
 * @param offset in the unit
 * @param unit of the quantity; empty for a bare number
 */
public record Scaling(Converter converter, double slope, double offset, String unit) {
    public Scaling {
        Objects.requireNonNull(unit, "unit");
        if (slope == 0 || !Double.isFinite(slope) || !Double.isFinite(offset)) {
            throw new IllegalArgumentException(
                    "the slope must not be 0 and both must be numbers, were slope " + slope + ", offset " + offset);
        }
    }

    /** One line of the arithmetic: what it is called, the sum with today's numbers, its result and the unit of that. */
    public record Line(String name, String sum, double result, String unit) {}

    /** @return the scaling that leaves a number as it came */
    public static Scaling asItCame(String unit) {
        return new Scaling(null, 1, 0, unit);
    }

    /** @return the channel's converter, if there is one */
    public Optional<Converter> throughConverter() {
        return Optional.ofNullable(converter);
    }

    /** @return the quantity for one raw value */
    public double apply(double raw) {
        return slope * (converter == null ? raw : converter.volts(raw)) + offset;
    }

    /** Scales {@code length} raw values from {@code raw} into {@code scaled}, both from index 0. */
    public void apply(double[] raw, double[] scaled, int length) {
        Objects.checkFromIndexSize(0, length, raw.length);
        Objects.checkFromIndexSize(0, length, scaled.length);
        if (converter == null) {
            for (int i = 0; i < length; i++) {
                scaled[i] = slope * raw[i] + offset;
            }
            return;
        }
        double reference = converter.referenceVolts();
        double divisor = converter.divisor().of(converter.bits());
        for (int i = 0; i < length; i++) {
            scaled[i] = slope * (raw[i] * reference / divisor) + offset;
        }
    }

    /** @return what one count, or one unit that arrived, is worth in the quantity */
    public double stepSize() {
        return Math.abs(slope * (converter == null ? 1 : converter.volts(1)));
    }

    /** @return the arithmetic for one raw value, line by line; the last result is {@link #apply(double)} of it */
    public List<Line> explain(double raw) {
        List<Line> lines = new ArrayList<>();
        double x = raw;
        String unitBefore = converter == null ? "" : "counts";
        lines.add(new Line(converter == null ? "as it came" : "counts", Digits.of(raw), raw, unitBefore));
        if (converter != null) {
            x = converter.volts(raw);
            String sum = Digits.of(raw) + " × " + Digits.of(converter.referenceVolts()) + " V ÷ "
                    + Digits.of(converter.divisor().of(converter.bits()));
            lines.add(new Line("volts", sum, x, "V"));
        }
        if (slope != 1 || offset != 0 || lines.size() == 1) {
            String sum = Digits.of(slope) + " × " + Digits.of(x) + (offset < 0 ? " \u2212 " : " + ")
                    + Digits.of(Math.abs(offset));
            lines.add(new Line("quantity", sum, apply(raw), unit));
        }
        return lines;
    }
}
