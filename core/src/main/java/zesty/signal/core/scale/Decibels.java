package zesty.signal.core.scale;

import zesty.signal.core.text.Messages;

/** 20·log10(x / reference) dB. @param reference what reads 0 dB, in the unit of x */
public record Decibels(double reference) implements Conversion {
    public Decibels {
        Conversion.needPositive(Messages.of("scale.the-reference"), reference);
    }

    @Override
    public double apply(double x) {
        return x > 0 ? 20 * Math.log10(x / reference) : Double.NaN;
    }

    @Override
    public double invert(double decibels) {
        return reference * Math.pow(10, decibels / 20);
    }

    @Override
    public String unit() {
        return "dB";
    }

    @Override
    public String takes() {
        return "";
    }

    @Override
    public String words() {
        return Messages.of("scale.decibels-above", Digits.of(reference));
    }

    @Override
    public String sum(double x) {
        return Messages.of("scale.20-log10", Digits.of(x), Digits.of(reference));
    }
}
