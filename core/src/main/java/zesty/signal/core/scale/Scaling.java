package zesty.signal.core.scale;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import zesty.signal.core.text.Messages;

/**
 * A channel's chain from what arrived to the quantity: through the converter where there is one, by the conversion, and
 * with the corrections added.
 *
 * @param converter null when the board sends no counts
 * @param conversion from volts, or from what arrived, to the quantity
 * @param corrections added at the end, in order
 * @param unit of the quantity; empty for a bare number
 */
public record Scaling(Converter converter, Conversion conversion, List<Correction> corrections, String unit) {
    public Scaling {
        Objects.requireNonNull(conversion, "conversion");
        Objects.requireNonNull(unit, "unit");
        corrections = List.copyOf(corrections);
    }

    /** A line: slope · x + offset. */
    public Scaling(Converter converter, double slope, double offset, String unit) {
        this(converter, new Line(slope, offset), List.of(), unit);
    }

    /** One line of the arithmetic: what it is called, the sum with today's numbers, its result and the unit of that. */
    public record Step(String name, String sum, double result, String unit) {}

    /** @return the scaling that leaves a number as it came */
    public static Scaling asItCame(String unit) {
        return new Scaling(null, Line.SAME, List.of(), unit);
    }

    /** @return whether the number is left as it came */
    public boolean isAsItCame() {
        return converter == null && conversion instanceof Line line && line.isSame() && corrections.isEmpty();
    }

    /** @return the channel's converter, if there is one */
    public Optional<Converter> throughConverter() {
        return Optional.ofNullable(converter);
    }

    public Scaling withConversion(Conversion other, String itsUnit) {
        return new Scaling(converter, other, corrections, itsUnit);
    }

    public Scaling withCorrections(List<Correction> others) {
        return new Scaling(converter, conversion, others, unit);
    }

    /** @return the sum of all corrections, in the unit */
    public double correction() {
        return corrections.stream().mapToDouble(Correction::offset).sum();
    }

    /** @return the quantity for one raw value; NaN where the conversion has none */
    public double apply(double raw) {
        return conversion.apply(converter == null ? raw : converter.volts(raw)) + correction();
    }

    /** @return the raw value that gives the quantity; NaN where there is none */
    public double invert(double quantity) {
        double x = conversion.invert(quantity - correction());
        return converter == null ? x : x / converter.referenceVolts() * converter.divideBy();
    }

    /** @return the other columns of the same rows that the chain takes in, in the order it wants their values */
    public List<String> columns() {
        List<String> columns = new ArrayList<>();
        if (converter != null && !converter.referenceFrom().isEmpty()) {
            columns.add(converter.referenceFrom());
        }
        columns.addAll(conversion.columns());
        return columns;
    }

    /** @return the chain with the values of its other columns as they are now, for arithmetic on one moment's numbers */
    public Scaling at(double[] others) {
        if (columns().isEmpty()) {
            return this;
        }
        int firsts = columns().size() - conversion.columns().size();
        return new Scaling(
                firsts == 0 ? converter : converter.at(others[0]),
                conversion.at(Arrays.copyOfRange(others, firsts, others.length)),
                corrections,
                unit);
    }

    /**
     * Scales {@code length} raw values, from index 0.
     *
     * @param others the values of {@link #columns()}, row by row, in their own units
     */
    public void apply(double[] raw, double[][] others, double[] scaled, int length) {
        if (columns().isEmpty()) {
            apply(raw, scaled, length);
            return;
        }
        if (others.length < columns().size()) {
            Arrays.fill(scaled, 0, length, Double.NaN);
            return;
        }
        int firsts = columns().size() - conversion.columns().size();
        for (int i = 0; i < length; i++) {
            double reference = firsts == 0 ? 0 : others[0][i];
            scaled[i] = converter == null
                    ? raw[i]
                    : firsts == 0
                            ? converter.volts(raw[i])
                            : reference > 0 ? raw[i] * reference / converter.divideBy() : Double.NaN;
        }
        conversion.apply(scaled, Arrays.copyOfRange(others, firsts, others.length), length);
        double correction = correction();
        for (int i = 0; i < length; i++) {
            scaled[i] += correction;
        }
    }

    /** Scales {@code length} raw values from {@code raw} into {@code scaled}, both from index 0. */
    public void apply(double[] raw, double[] scaled, int length) {
        Objects.checkFromIndexSize(0, length, raw.length);
        Objects.checkFromIndexSize(0, length, scaled.length);
        if (converter == null) {
            if (raw != scaled) {
                System.arraycopy(raw, 0, scaled, 0, length);
            }
        } else {
            double reference = converter.referenceVolts();
            double divisor = converter.divideBy();
            for (int i = 0; i < length; i++) {
                scaled[i] = raw[i] * reference / divisor;
            }
        }
        conversion.apply(scaled, length);
        double correction = correction();
        if (correction != 0) {
            for (int i = 0; i < length; i++) {
                scaled[i] += correction;
            }
        }
    }

    /** @return what one count, or one unit that arrived, is worth in the quantity around that raw value */
    public double stepSize(double raw) {
        return Math.abs(apply(raw + 0.5) - apply(raw - 0.5));
    }

    /** @return the same in the middle of the converter's range, or around 0 where there is none */
    public double stepSize() {
        double step = stepSize(converter == null ? 0 : converter.highestCode() / 2);
        return Double.isNaN(step) ? 0 : step;
    }

    /** @return the arithmetic for one raw value, line by line; the last result is {@link #apply(double)} of it */
    public List<Step> explain(double raw) {
        List<Step> steps = new ArrayList<>();
        double x = raw;
        String unitBefore = converter == null ? conversion.takes() : "counts";
        steps.add(new Step(
                converter == null ? Messages.of("scale.raw") : Messages.of("scale.counts"),
                Digits.of(raw),
                raw,
                unitBefore));
        if (converter != null) {
            x = converter.volts(raw);
            String sum = Digits.of(raw) + " × " + Digits.of(converter.referenceVolts()) + " V ÷ "
                    + Digits.of(converter.divideBy());
            steps.add(new Step(Messages.of("scale.volts"), sum, x, "V"));
        }
        if (!conversion.equals(Line.SAME) || steps.size() == 1) {
            steps.add(new Step(Messages.of("scale.quantity"), conversion.sum(x), conversion.apply(x), unit));
        }
        double sum = steps.get(steps.size() - 1).result();
        for (Correction correction : corrections) {
            String words = Digits.of(sum)
                    + (correction.offset() < 0 ? " \u2212 " : " + ")
                    + Digits.of(Math.abs(correction.offset()));
            sum += correction.offset();
            steps.add(new Step(correction.name(), words, sum, unit));
        }
        return steps;
    }
}
