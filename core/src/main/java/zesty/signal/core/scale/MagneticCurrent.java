package zesty.signal.core.scale;

import zesty.signal.core.text.Messages;

/** A magnetic current sensor. I = (V − Vzero) / sensitivity; a ratiometric zero is half the supply. */
public record MagneticCurrent(double zeroVolts, double voltsPerAmp) implements Conversion {
    public MagneticCurrent {
        Conversion.needFinite(Messages.of("scale.the-zero"), zeroVolts);
        if (voltsPerAmp == 0 || !Double.isFinite(voltsPerAmp)) {
            throw new IllegalArgumentException(Messages.of("scale.the-sensitivity-must-not-be-0-v-a", voltsPerAmp));
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
        return Messages.of("scale.magnetic-current-sensor-v-a", Digits.of(voltsPerAmp));
    }

    @Override
    public String sum(double volts) {
        return "(" + Digits.of(volts) + " − " + Digits.of(zeroVolts) + ") ÷ " + Digits.of(voltsPerAmp);
    }
}
