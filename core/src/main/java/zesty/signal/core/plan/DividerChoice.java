package zesty.signal.core.plan;

import zesty.signal.core.text.Messages;

/**
 * Two resistors that bring a voltage down to what a pin takes, with both at their worst: of the standard values the pair that uses
 * most of the range, and whose resistance towards the pin is low enough for a converter that samples.
 *
 * @param top and {@code bottom} in Ω. @param budget what they give
 */
public record DividerChoice(double top, double bottom, DividerBudget budget) {
    /** Seen from the pin: lower draws much current, higher is too much for the converter's own capacitor. */
    private static final double LEAST_OHMS = 1000;

    private static final double MOST_OHMS = 10_000;

    /**
     * @param maxVolts of the source. @param ref what the converter takes
     * @throws IllegalArgumentException when the source needs no divider, or one of them makes no sense
     */
    public static DividerChoice of(double maxVolts, Plan.Converter converter) {
        Plan.above(Messages.of("plan.the-highest-voltage"), maxVolts);
        if (maxVolts <= converter.ref()) {
            throw new IllegalArgumentException(
                    Messages.of("plan.no-divider-is-needed-the-pin-takes", converter.ref(), maxVolts));
        }
        StandardSeries series = StandardSeries.E24;
        double tolerance = 0.01;
        DividerChoice best = null;
        for (double bottom : series.between(LEAST_OHMS, 10 * MOST_OHMS)) {
            double exact = bottom * (maxVolts / converter.ref() - 1);
            double top = series.atLeast(exact);
            for (int more = 0; more < 2; more++) {
                double seen = top * bottom / (top + bottom);
                Plan.Divider divider = new Plan.Divider(top, bottom, tolerance, maxVolts);
                DividerBudget budget = DividerBudget.of(divider, converter);
                boolean fits = budget.atMaxVolts() * (1 + budget.worstError()) <= converter.ref() * (1 + 1e-9);
                if (fits
                        && seen >= LEAST_OHMS
                        && seen <= MOST_OHMS
                        && (best == null || budget.atMaxVolts() > best.budget().atMaxVolts() * (1 + 1e-9))) {
                    best = new DividerChoice(top, bottom, budget);
                }
                top = series.atLeast(top * 1.02);
            }
        }
        if (best == null) {
            throw new IllegalArgumentException(
                    Messages.of("plan.no-pair-of-standard-resistors", maxVolts, converter.ref()));
        }
        return best;
    }

    /** @return power in the top resistor at the highest voltage, in W */
    public double watts() {
        return budget.amps() * budget.amps() * top;
    }
}
