package zesty.signal.core.scale;

import zesty.signal.core.text.Messages;

/** A temperature sensor with a voltage that goes straight with it. T = (V − V0) / slope, V0 being the voltage at 0 °C. */
public record AnalogTemperature(double voltsPerDegree, double offsetVolts) implements Conversion {
    public AnalogTemperature {
        if (voltsPerDegree == 0 || !Double.isFinite(voltsPerDegree)) {
            throw new IllegalArgumentException(Messages.of("scale.the-slope-must-not-be-0-v-c-was", voltsPerDegree));
        }
        Conversion.needFinite(Messages.of("scale.the-offset"), offsetVolts);
    }

    /** 10 mV a degree, the usual slope. */
    public static AnalogTemperature tenMillivolts(double offsetVolts) {
        return new AnalogTemperature(0.01, offsetVolts);
    }

    @Override
    public double apply(double volts) {
        return (volts - offsetVolts) / voltsPerDegree;
    }

    @Override
    public double invert(double celsius) {
        return celsius * voltsPerDegree + offsetVolts;
    }

    @Override
    public String unit() {
        return "°C";
    }

    @Override
    public String words() {
        return Messages.of(
                "scale.analog-temperature-mv-c-from-v", Digits.of(1000 * voltsPerDegree), Digits.of(offsetVolts));
    }

    @Override
    public String sum(double volts) {
        return "(" + Digits.of(volts) + " − " + Digits.of(offsetVolts) + ") ÷ " + Digits.of(voltsPerDegree);
    }
}
