package zesty.signal.core.scale;

/** A temperature sensor with a voltage that goes straight with it. T = (V − V0) / slope, V0 being the voltage at 0 °C. */
public record AnalogTemperature(double voltsPerDegree, double offsetVolts) implements Conversion {
    public AnalogTemperature {
        if (voltsPerDegree == 0 || !Double.isFinite(voltsPerDegree)) {
            throw new IllegalArgumentException("the slope must not be 0 V/°C, was " + voltsPerDegree);
        }
        Conversion.needFinite("the offset", offsetVolts);
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
        return "analog temperature, " + Digits.of(1000 * voltsPerDegree) + " mV/°C from " + Digits.of(offsetVolts)
                + " V";
    }

    @Override
    public String sum(double volts) {
        return "(" + Digits.of(volts) + " − " + Digits.of(offsetVolts) + ") ÷ " + Digits.of(voltsPerDegree);
    }
}
