package zesty.signal.core.read.vibration;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.spectrum.Lines;

/**
 * What the density of an acceleration says beside its lines: the same as a velocity and as a way, its share by bands, and
 * the orders of what turns. A density a(f) in (m/s²)²/Hz is one of velocity when divided by (2πf)², and of the way when
 * divided by (2πf)⁴; below a stated frequency both would only show the drift of the sensor.
 *
 * @param density one-sided, in unit²/Hz
 * @param binHz from one to the next
 */
record Shaking(double[] density, double binHz) {
    private static final double GRAVITY = 9.80665;
    /** Orders up to this one are told. */
    static final int MOST_ORDERS = 8;
    /** A harmonic is one within this share of a bin more than the bins its order multiplies. */
    private static final double NEAR_BINS = 0.6;

    private static final int LEAST_HARMONICS = 2;

    /** @return m/s² of one unit; NaN for counts */
    static double metres(String unit) {
        return switch (unit) {
            case "g" -> GRAVITY;
            case "m/s2" -> 1;
            default -> Double.NaN;
        };
    }

    /** @return RMS of the velocity above {@code fromHz}, in mm/s, of a density in (unit)²/Hz */
    double velocity(double fromHz, double metres) {
        return 1e3 * metres * Math.sqrt(above(fromHz, 2));
    }

    /** @return RMS of the way, in µm */
    double displacement(double fromHz, double metres) {
        return 1e6 * metres * Math.sqrt(above(fromHz, 4));
    }

    private double above(double fromHz, int power) {
        double sum = 0;
        for (int k = 1; k < density.length; k++) {
            double hz = k * binHz;
            if (hz >= fromHz) {
                sum += density[k] * binHz / Math.pow(2 * Math.PI * hz, power);
            }
        }
        return sum;
    }

    /**
     * @param parts bands in a factor of ten: 10 for thirds of an octave, 10/3 for octaves (IEC 61260: centres at
     *     10^(k/parts) Hz, edges half a band away)
     * @return centre in Hz and RMS of each band that lies in the spectrum with more than three bins
     */
    List<double[]> bands(double parts) {
        List<double[]> bands = new ArrayList<>();
        double last = (density.length - 1) * binHz;
        for (int k = (int) Math.ceil(parts * Math.log10(4 * binHz)); ; k++) {
            double low = Math.pow(10, (k - 0.5) / parts);
            double high = Math.pow(10, (k + 0.5) / parts);
            if (high > last) {
                return bands;
            }
            if (high - low > 3 * binHz) {
                bands.add(new double[] {Math.pow(10, k / parts), Math.sqrt(between(low, high))});
            }
        }
    }

    /** The power between two frequencies; of a bin at an edge its share. */
    private double between(double low, double high) {
        double sum = 0;
        for (int k = 1; k < density.length; k++) {
            double from = Math.max(low, (k - 0.5) * binHz);
            double to = Math.min(high, (k + 0.5) * binHz);
            sum += to > from ? density[k] * (to - from) : 0;
        }
        return sum;
    }

    /** @return the frequency of which most of the others are harmonics, of those with two or more; NaN for none */
    static double turning(List<Lines.Line> lines, double binHz) {
        double best = Double.NaN;
        double most = 0;
        for (Lines.Line base : lines) {
            double power = 0;
            int harmonics = 0;
            for (Lines.Line other : lines) {
                long order = Math.round(other.hz() / base.hz());
                boolean fits = order >= 2
                        && order <= MOST_ORDERS
                        && Math.abs(other.hz() - order * base.hz()) < NEAR_BINS * binHz * Math.sqrt(order);
                harmonics += fits ? 1 : 0;
                power += fits ? other.amplitude() : 0;
            }
            if (harmonics >= LEAST_HARMONICS && power + base.amplitude() > most) {
                most = power + base.amplitude();
                best = base.hz();
            }
        }
        return best;
    }

    /** @return of each order its number, frequency and height; those that do not stand out with height 0 */
    List<double[]> orders(double turningHz, double rateHz, List<Lines.Line> lines) {
        List<double[]> orders = new ArrayList<>();
        for (int order = 1; order <= MOST_ORDERS && order * turningHz < rateHz / 2 - 3 * binHz; order++) {
            double hz = order * turningHz;
            double reach = 2 * binHz + 0.004 * hz;
            // The highest come first.
            double height = lines.stream()
                    .filter(line -> Math.abs(line.hz() - hz) < reach)
                    .mapToDouble(Lines.Line::amplitude)
                    .findFirst()
                    .orElse(0);
            orders.add(new double[] {order, hz, height});
        }
        return orders;
    }
}
