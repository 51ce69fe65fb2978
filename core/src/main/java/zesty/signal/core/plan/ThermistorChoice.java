package zesty.signal.core.plan;

import zesty.signal.core.text.Messages;

/**
 * The resistor in series with a thermistor to ground that spreads a temperature range widest over the converter: the geometric mean of
 * the thermistor at both ends (the divider's output is then as far from the middle at either end).
 *
 * @param ohms of the series resistor. @param stepDegrees one count at the middle of the range. @param selfWatts heat in the thermistor
 *     at its worst, where both are as large
 */
public record ThermistorChoice(double ohms, double stepDegrees, double selfWatts) {
    private static final double KELVIN = 273.15;

    /**
     * @param r0 Ω at 25 °C. @param beta in K. @param low and {@code high} of the range in °C
     * @throws IllegalArgumentException when the range is empty
     */
    public static ThermistorChoice of(double r0, double beta, double low, double high, Plan.Converter converter) {
        Plan.above(Messages.of("plan.the-thermistor-s-resistance"), r0);
        Plan.above(Messages.of("plan.its-beta"), beta);
        if (!(high > low) || !(low > -KELVIN) || Double.isInfinite(high)) {
            throw new IllegalArgumentException(Messages.of("plan.a-range-of-temperatures-runs-from", low, high));
        }
        double ohms = StandardSeries.E24.nearest(Math.sqrt(resistance(r0, beta, low) * resistance(r0, beta, high)));
        double middle = (low + high) / 2;
        double r = resistance(r0, beta, middle);
        double kelvin = middle + KELVIN;
        // V = ref·R/(R + S); dR/dT = −β·R/T².
        double perDegree = converter.ref() * ohms / ((r + ohms) * (r + ohms)) * beta * r / (kelvin * kelvin);
        double step = NoiseBudget.of(converter).stepVolts() / perDegree;
        return new ThermistorChoice(ohms, step, converter.ref() * converter.ref() / (4 * ohms));
    }

    private static double resistance(double r0, double beta, double celsius) {
        return r0 * Math.exp(beta * (1 / (celsius + KELVIN) - 1 / (25 + KELVIN)));
    }
}
