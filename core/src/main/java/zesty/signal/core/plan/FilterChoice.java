package zesty.signal.core.plan;

import zesty.signal.core.text.Messages;

/**
 * One resistor and one capacitor before the converter, against what would be aliased.
 *
 * @param cornerHz where it lets 0.71 pass. @param passes share of the highest frequency of interest that passes
 * @param aliased share that is left of what would be aliased onto that frequency
 */
public record FilterChoice(double ohms, double farads, double cornerHz, double passes, double aliased) {
    private static final double FARADS = 100e-9;

    /** @param rateHz rows a second, more than twice the highest. @throws IllegalArgumentException when it is not */
    public static FilterChoice of(double highestHz, double rateHz) {
        Plan.above(Messages.of("plan.the-highest-frequency"), highestHz);
        if (!(rateHz > 2 * highestHz) || Double.isInfinite(rateHz)) {
            throw new IllegalArgumentException(
                    Messages.of("plan.a-filter-needs-a-rate-above-twice", highestHz, rateHz));
        }
        // Between what is wanted and what would be aliased onto it, by ratio; the capacitor as it takes a handy
        // resistor.
        double wanted = Math.sqrt(highestHz * (rateHz - highestHz));
        double farads = FARADS;
        while (1 / (2 * Math.PI * wanted * farads) > 20_000) {
            farads *= 10;
        }
        while (1 / (2 * Math.PI * wanted * farads) < 200) {
            farads /= 10;
        }
        double ohms = StandardSeries.E24.nearest(1 / (2 * Math.PI * wanted * farads));
        double corner = 1 / (2 * Math.PI * ohms * farads);
        return new FilterChoice(ohms, farads, corner, share(highestHz, corner), share(rateHz - highestHz, corner));
    }

    private static double share(double hz, double corner) {
        return 1 / Math.sqrt(1 + hz / corner * (hz / corner));
    }
}
