package zesty.signal.core.scale;

import zesty.signal.core.text.Messages;

/** Two resistors in a row; the pin sees the lower one's share. V = Vpin · (top + bottom) / bottom. */
public record Divider(double topOhms, double bottomOhms) implements Conversion {
    public Divider {
        Conversion.needPositive(Messages.of("scale.the-bottom-resistor"), bottomOhms);
        if (!(topOhms >= 0) || Double.isInfinite(topOhms)) {
            throw new IllegalArgumentException(Messages.of("scale.the-top-resistor-must-be-0-or", Digits.of(topOhms)));
        }
    }

    @Override
    public double apply(double volts) {
        return volts * (topOhms + bottomOhms) / bottomOhms;
    }

    @Override
    public double invert(double volts) {
        return volts * bottomOhms / (topOhms + bottomOhms);
    }

    @Override
    public String unit() {
        return "V";
    }

    @Override
    public String words() {
        return Messages.of("scale.divider-over", Digits.of(topOhms), Digits.of(bottomOhms));
    }

    @Override
    public String sum(double volts) {
        return Digits.of(volts) + " × (" + Digits.of(topOhms) + " + " + Digits.of(bottomOhms) + ") ÷ "
                + Digits.of(bottomOhms);
    }
}
