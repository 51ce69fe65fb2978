package zesty.signal.core.scale;

import zesty.signal.core.text.Messages;

/**
 * The time of an echo there and back, in µs, as a distance in m. Speed of sound 331.3·√(1 + T/273.15) m/s, for dry air;
 * humid air is faster by about 0.16 % at 20 °C and 100 % (Cramer 1993, The variation of the specific heat ratio and the
 * speed of sound in air), here by 1.6e-3·h·exp(0.058·(T − 20)) of it.
 *
 * @param celsius above −273.15
 * @param humidity 0 … 1; 0 for dry air
 */
public record Echo(double celsius, double humidity) implements Conversion {
    public Echo {
        Conversion.needPositive("temp + 273.15", celsius + Thermistor.KELVIN);
        if (!(humidity >= 0 && humidity <= 1)) {
            throw new IllegalArgumentException(Messages.of("scale.the-humidity-is-0-to-1-was", humidity));
        }
    }

    /** @return the speed of sound, in m/s */
    public double metresPerSecond() {
        double dry = 331.3 * Math.sqrt(1 + celsius / Thermistor.KELVIN);
        return dry * (1 + 1.6e-3 * humidity * Math.exp(0.058 * (celsius - 20)));
    }

    @Override
    public double apply(double microseconds) {
        return microseconds * 1e-6 / 2 * metresPerSecond();
    }

    @Override
    public double invert(double metres) {
        return 2 * metres / metresPerSecond() * 1e6;
    }

    @Override
    public String unit() {
        return "m";
    }

    @Override
    public String takes() {
        return "µs";
    }

    @Override
    public String words() {
        return Messages.of("scale.echo-at-c", Digits.of(celsius));
    }

    @Override
    public String sum(double microseconds) {
        return Digits.of(microseconds) + " µs ÷ 2 × " + Digits.of(metresPerSecond()) + " m/s";
    }
}
