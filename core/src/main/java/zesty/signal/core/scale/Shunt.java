package zesty.signal.core.scale;

import zesty.signal.core.text.Messages;

/** A shunt with an amplifier. I = (V − Vzero) / (R · gain). */
public record Shunt(double ohms, double gain, double zeroVolts) implements Conversion {
    public Shunt {
        Conversion.needPositive(Messages.of("scale.the-shunt"), ohms);
        Conversion.needPositive(Messages.of("scale.the-gain"), gain);
        Conversion.needFinite(Messages.of("scale.the-zero"), zeroVolts);
    }

    @Override
    public double apply(double volts) {
        return (volts - zeroVolts) / (ohms * gain);
    }

    @Override
    public double invert(double amps) {
        return amps * ohms * gain + zeroVolts;
    }

    @Override
    public String unit() {
        return "A";
    }

    @Override
    public String words() {
        return Messages.of("scale.shunt-gain", Digits.of(ohms), Digits.of(gain));
    }

    @Override
    public String sum(double volts) {
        return "(" + Digits.of(volts) + " − " + Digits.of(zeroVolts) + ") ÷ (" + Digits.of(ohms) + " × "
                + Digits.of(gain) + ")";
    }
}
