package zesty.signal.core.scale;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * A thermistor in a divider: from the pin's voltage to its resistance, and by its law to °C.
 *
 * @param seriesOhms the fixed resistor
 * @param side which leg the thermistor is
 * @param supplyVolts over the whole divider
 */
public record Thermistor(Law law, double seriesOhms, Side side, double supplyVolts) implements Conversion {
    static final double KELVIN = 273.15;

    /** Which leg of the divider the thermistor is. */
    public enum Side {
        /** Between the pin and ground. */
        LOW,
        /** Between the supply and the pin. */
        HIGH
    }

    /** How the resistance goes with the temperature. */
    public sealed interface Law permits Beta, ThreeCoefficients {
        /** @return °C; NaN for a resistance that is not above 0 */
        double celsius(double ohms);

        /** @return Ω at that temperature */
        double ohms(double celsius);
    }

    /** 1/T = 1/T0 + ln(R/R0)/β, in kelvin. */
    public record Beta(double beta, double r0, double t0Celsius) implements Law {
        public Beta {
            Conversion.needPositive("beta", beta);
            Conversion.needPositive("r0", r0);
            Conversion.needPositive("t0 + 273.15", t0Celsius + KELVIN);
        }

        @Override
        public double celsius(double ohms) {
            return ohms > 0 ? 1 / (1 / (t0Celsius + KELVIN) + Math.log(ohms / r0) / beta) - KELVIN : Double.NaN;
        }

        @Override
        public double ohms(double celsius) {
            return r0 * Math.exp(beta * (1 / (celsius + KELVIN) - 1 / (t0Celsius + KELVIN)));
        }
    }

    /** 1/T = a + b·ln R + c·(ln R)³, in kelvin (Steinhart and Hart 1968, Calibration curves for thermistors). */
    public record ThreeCoefficients(double a, double b, double c) implements Law {
        public ThreeCoefficients {
            Conversion.needFinite("a", a);
            Conversion.needPositive("b", b);
            Conversion.needFinite("c", c);
        }

        @Override
        public double celsius(double ohms) {
            double ln = Math.log(ohms);
            return ohms > 0 ? 1 / (a + b * ln + c * ln * ln * ln) - KELVIN : Double.NaN;
        }

        @Override
        public double ohms(double celsius) {
            double target = 1 / (celsius + KELVIN) - a;
            double ln = target / b;
            for (int i = 0; i < 100; i++) {
                double step = (b * ln + c * ln * ln * ln - target) / (b + 3 * c * ln * ln);
                ln -= step;
                if (Math.abs(step) <= 1e-15 * Math.abs(ln)) {
                    break;
                }
            }
            return Math.exp(ln);
        }
    }

    public Thermistor {
        Objects.requireNonNull(law, "law");
        Objects.requireNonNull(side, "side");
        Conversion.needPositive(Messages.of("scale.the-series-resistor"), seriesOhms);
        Conversion.needPositive(Messages.of("scale.the-supply"), supplyVolts);
    }

    /** @return its resistance in Ω; NaN at or beyond the ends, where it is shorted or missing */
    public double ohms(double volts) {
        if (!(volts > 0 && volts < supplyVolts)) {
            return Double.NaN;
        }
        return side == Side.LOW
                ? seriesOhms * volts / (supplyVolts - volts)
                : seriesOhms * (supplyVolts - volts) / volts;
    }

    @Override
    public double apply(double volts) {
        return law.celsius(ohms(volts));
    }

    @Override
    public void apply(double[] values, int length) {
        Objects.checkFromIndexSize(0, length, values.length);
        Remembered.apply(values, length, this::apply);
    }

    @Override
    public double invert(double celsius) {
        double ohms = law.ohms(celsius);
        double share = ohms / (ohms + seriesOhms);
        return supplyVolts * (side == Side.LOW ? share : 1 - share);
    }

    @Override
    public String unit() {
        return "°C";
    }

    @Override
    public String words() {
        return Messages.of(
                "scale.thermistor",
                (side == Side.LOW ? Messages.of("scale.to-ground") : Messages.of("scale.to-the-supply")));
    }

    @Override
    public String sum(double volts) {
        return Messages.of("scale.r-by-its-law", Digits.of(ohms(volts)));
    }
}
