package zesty.signal.core.prove;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * What limits a reading, put together as the guide does (JCGM 100:2008, Evaluation of measurement data: Guide to the
 * expression of uncertainty in measurement): independent standard uncertainties add by their squares.
 *
 * @param parts what contributes, the largest first
 * @param standard the combined standard uncertainty, in the reading's unit
 */
public record Uncertainty(List<Part> parts, double standard) {
    /** One contribution, as a standard uncertainty in the reading's unit. */
    public record Part(String name, double standard) {}

    public Uncertainty {
        parts = List.copyOf(parts);
    }

    /**
     * @param step what one converter step is worth: evenly spread over it, its standard uncertainty is step/√12 (4.3.7)
     * @param noise standard deviation from sample to sample
     * @param samples how many are averaged: the mean's is noise/√samples (4.2.3)
     * @param reference standard uncertainty of what it was proved against; 0 for none
     * @param fit rms of what the fit left over; 0 for none
     */
    public static Uncertainty of(double step, double noise, long samples, double reference, double fit) {
        List<Part> parts = new ArrayList<>();
        parts.add(new Part(Messages.of("prove.converter-step"), step / Math.sqrt(12)));
        parts.add(new Part(Messages.of("prove.noise"), noise / Math.sqrt(Math.max(1, samples))));
        parts.add(new Part(Messages.of("prove.reference"), reference));
        parts.add(new Part(Messages.of("prove.fit"), fit));
        parts.removeIf(part -> !(part.standard() > 0));
        parts.sort(Comparator.comparingDouble(part -> -part.standard()));
        double squares =
                parts.stream().mapToDouble(p -> p.standard() * p.standard()).sum();
        return new Uncertainty(parts, Math.sqrt(squares));
    }

    /** @return twice the standard uncertainty, which holds 95 of 100 readings when they scatter normally */
    public double expanded() {
        return 2 * standard;
    }

    /** @return ± and the expanded uncertainty with two digits, and what contributes most */
    public String words(String unit) {
        if (parts.isEmpty()) {
            return "";
        }
        String size = Digits.of(new java.math.BigDecimal(expanded())
                .round(new java.math.MathContext(2))
                .doubleValue());
        return Messages.of(
                "prove.mostly",
                size,
                (unit.isEmpty() ? "" : " " + unit),
                parts.get(0).name());
    }
}
