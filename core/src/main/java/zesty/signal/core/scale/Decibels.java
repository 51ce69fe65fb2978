package zesty.signal.core.scale;

/** 20·log10(x / reference) dB. @param reference what reads 0 dB, in the unit of x */
public record Decibels(double reference) implements Conversion {
    public Decibels {
        Conversion.needPositive("the reference", reference);
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
        return "decibels above " + Digits.of(reference);
    }

    @Override
    public String sum(double x) {
        return "20 × log10(" + Digits.of(x) + " ÷ " + Digits.of(reference) + ")";
    }
}
