package zesty.signal.core.scale;

import java.util.Objects;
import zesty.signal.core.text.Messages;

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
            throw new IllegalArgumentException(Messages.of(
                    "scale.the-cold-junction-of-type-is",
                    type,
                    Digits.of(type.lowest()),
                    Digits.of(type.highest()),
                    Digits.of(coldCelsius)));
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
        return Messages.of("scale.thermocouple-type-cold-junction-at", type, Digits.of(coldCelsius));
    }

    /** The cold junction's voltage to a tenth of the published tables' step: at 0 °C the function leaves some billionths. */
    @Override
    public String sum(double millivolts) {
        double cold = Math.rint(1e4 * type.millivolts(coldCelsius)) / 1e4;
        return Messages.of("scale.mv-mv-by-the-reference-function", Digits.of(millivolts), Digits.of(cold));
    }
}
