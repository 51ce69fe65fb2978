package zesty.signal.core.scale;

import java.util.Objects;

/**
 * A thermocouple with cold-junction compensation: what the cold junction takes away is added, then the reference function
 * is turned round.
 *
 * @param coldCelsius temperature of the cold junction
 */
public record Thermocouple(ThermocoupleType type, double coldCelsius) implements Conversion {
    public Thermocouple {
        Objects.requireNonNull(type, "type");
        if (Double.isNaN(type.millivolts(coldCelsius))) {
            throw new IllegalArgumentException(
                    "the cold junction of type " + type + " is within " + Digits.of(type.lowest()) + " to "
                            + Digits.of(type.highest()) + " °C, not at " + Digits.of(coldCelsius));
        }
    }

    @Override
    public double apply(double millivolts) {
        return type.celsius(millivolts + type.millivolts(coldCelsius));
    }

    @Override
    public void apply(double[] values, int length) {
        Objects.checkFromIndexSize(0, length, values.length);
        double cold = type.millivolts(coldCelsius);
        Remembered.apply(values, length, millivolts -> type.celsius(millivolts + cold));
    }

    @Override
    public double invert(double celsius) {
        return type.millivolts(celsius) - type.millivolts(coldCelsius);
    }

    @Override
    public String unit() {
        return "°C";
    }

    @Override
    public String takes() {
        return "mV";
    }

    @Override
    public String words() {
        return "thermocouple type " + type + ", cold junction at " + Digits.of(coldCelsius) + " °C";
    }

    @Override
    public String sum(double millivolts) {
        return Digits.of(millivolts) + " mV + " + Digits.of(type.millivolts(coldCelsius))
                + " mV, by the reference function";
    }
}
