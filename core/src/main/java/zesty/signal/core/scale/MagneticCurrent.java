package zesty.signal.core.scale;

/** A magnetic current sensor. I = (V − Vzero) / sensitivity; a ratiometric zero is half the supply. */
public record MagneticCurrent(double zeroVolts, double voltsPerAmp) implements Conversion {
    public MagneticCurrent {
        Conversion.needFinite("the zero", zeroVolts);
        if (voltsPerAmp == 0 || !Double.isFinite(voltsPerAmp)) {
            throw new IllegalArgumentException("the sensitivity must not be 0 V/A, was " + voltsPerAmp);
        }
    }

    @Override
    public double apply(double volts) {
        return (volts - zeroVolts) / voltsPerAmp;
    }

    @Override
    public double invert(double amps) {
        return amps * voltsPerAmp + zeroVolts;
    }

    @Override
    public String unit() {
        return "A";
    }

    @Override
    public String words() {
        return "magnetic current sensor, " + Digits.of(voltsPerAmp) + " V/A";
    }

    @Override
    public String sum(double volts) {
        return "(" + Digits.of(volts) + " − " + Digits.of(zeroVolts) + ") ÷ " + Digits.of(voltsPerAmp);
    }
}
