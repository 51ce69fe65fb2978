package zesty.signal.core.scale;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * Pressure in hPa as height in m, by the standard atmosphere (NOAA, NASA and USAF 1976, U.S. Standard Atmosphere):
 * temperature falls by 6.5 K a km up to 11 km and stays from there to 20 km.
 *
 * @param seaHpa the pressure at sea level
 */
public record Height(double seaHpa) implements Conversion {
    private static final double T0 = 288.15;
    private static final double LAPSE = 0.0065;
    private static final double GAS = 8.31432;
    private static final double GRAVITY = 9.80665;
    private static final double MOLAR = 0.0289644;
    private static final double EXPONENT = GAS * LAPSE / (GRAVITY * MOLAR);
    private static final double TROPOPAUSE = 11_000;
    private static final double T_TROPOPAUSE = T0 - LAPSE * TROPOPAUSE;
    private static final double RATIO_TROPOPAUSE = Math.pow(T_TROPOPAUSE / T0, 1 / EXPONENT);
    private static final double SCALE_HEIGHT = GAS * T_TROPOPAUSE / (GRAVITY * MOLAR);

    public Height {
        Conversion.needPositive(Messages.of("scale.the-pressure-at-sea-level"), seaHpa);
    }

    @Override
    public double apply(double hpa) {
        double ratio = hpa / seaHpa;
        if (!(ratio > 0)) {
            return Double.NaN;
        }
        return ratio >= RATIO_TROPOPAUSE
                ? T0 / LAPSE * (1 - Math.pow(ratio, EXPONENT))
                : TROPOPAUSE - SCALE_HEIGHT * Math.log(ratio / RATIO_TROPOPAUSE);
    }

    @Override
    public void apply(double[] values, int length) {
        Objects.checkFromIndexSize(0, length, values.length);
        Remembered.apply(values, length, this::apply);
    }

    @Override
    public double invert(double metres) {
        return seaHpa
                * (metres <= TROPOPAUSE
                        ? Math.pow(1 - metres * LAPSE / T0, 1 / EXPONENT)
                        : RATIO_TROPOPAUSE * Math.exp((TROPOPAUSE - metres) / SCALE_HEIGHT));
    }

    @Override
    public String unit() {
        return "m";
    }

    @Override
    public String takes() {
        return "hPa";
    }

    @Override
    public String words() {
        return Messages.of("scale.height-hpa-at-sea-level", Digits.of(seaHpa));
    }

    @Override
    public String sum(double hpa) {
        return Messages.of("scale.hpa-of-by-the-standard-atmosphere", Digits.of(hpa), Digits.of(seaHpa));
    }
}
