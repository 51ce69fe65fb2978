package zesty.signal.core.scale;

import java.util.Arrays;
import java.util.Locale;
import java.util.ResourceBundle;

/**
 * The thermocouples with letters, by their reference functions: E(T) in mV for the other junction at 0 °C (Burns et al.
 * 1993, Temperature-electromotive force reference functions and tables for the letter-designated thermocouple types based
 * on the ITS-90, NIST Monograph 175).
 */
public enum ThermocoupleType {
    K,
    J,
    T,
    E,
    N,
    S,
    R,
    B;

    /** Type K above 0 °C has a bell on top: 0.1185976·exp(−1.183432e-4·(T − 126.9686)²). */
    private static final double BELL_HEIGHT = 0.118597600000e+00;

    private static final double BELL_WIDTH = -0.118343200000e-03;
    private static final double BELL_CENTRE = 0.126968600000e+03;

    /** Type B falls at first and rises from here on; only from here on is there one temperature for a voltage. */
    private static final double B_LOWEST = 21.020262;

    /** The published tables give the ends rounded to 1 µV: as such they are taken, in mV. */
    private static final double ROUNDED = 0.0006;

    private static final int GRID = 2048;
    /** At the cold end, where hardly any voltage comes, the function bends most. */
    private static final int STEEP_CELLS = 256;

    private final double[] limits;
    private final double[][] coefficients;
    /** Temperatures at even steps of voltage, to begin the inversion from. Made when it is first asked for: a start waits for none. */
    private volatile double[] grid;

    private final double lowestMillivolts;
    private final double highestMillivolts;

    ThermocoupleType() {
        ResourceBundle tables =
                ResourceBundle.getBundle(ThermocoupleType.class.getPackageName() + ".thermocouples", Locale.ROOT);
        limits = table(tables, name() + ".limits");
        coefficients = new double[limits.length - 1][];
        Arrays.setAll(coefficients, part -> table(tables, name() + "." + (part + 1)));
        lowestMillivolts = sum(lowestInvertible());
        highestMillivolts = sum(highest());
    }

    private double[] grid() {
        double[] known = grid;
        if (known != null) {
            return known;
        }
        double[] made = new double[GRID + 1];
        double low = lowestInvertible();
        for (int i = 0; i <= GRID; i++) {
            double target = lowestMillivolts + (highestMillivolts - lowestMillivolts) * i / GRID;
            double high = highest();
            for (int n = 0; n < 60; n++) {
                double middle = 0.5 * (low + high);
                if (sum(middle) < target) {
                    low = middle;
                } else {
                    high = middle;
                }
            }
            made[i] = low;
        }
        grid = made;
        return made;
    }

    /** @return the lowest temperature of its range, in °C */
    public double lowest() {
        return limits[0];
    }

    /** @return the highest temperature of its range, in °C */
    public double highest() {
        return limits[limits.length - 1];
    }

    private double lowestInvertible() {
        return this.ordinal() == 7 ? B_LOWEST : limits[0];
    }

    /** @return the voltage at the lowest temperature that a voltage stands for, in mV */
    public double lowestMillivolts() {
        return lowestMillivolts;
    }

    /** @return the voltage at its highest temperature, in mV */
    public double highestMillivolts() {
        return highestMillivolts;
    }

    /** @return mV at that temperature in °C; NaN outside its range */
    public double millivolts(double celsius) {
        return celsius >= lowest() && celsius <= highest() ? sum(celsius) : Double.NaN;
    }

    private int part(double celsius) {
        int part = 0;
        while (part < coefficients.length - 1 && celsius >= limits[part + 1]) {
            part++;
        }
        return part;
    }

    private double sum(double celsius) {
        int part = part(celsius);
        double[] c = coefficients[part];
        double e = 0;
        for (int i = c.length - 1; i >= 0; i--) {
            e = e * celsius + c[i];
        }
        return bells(part) ? e + bell(celsius) : e;
    }

    private boolean bells(int part) {
        return ordinal() == 0 && part == 1;
    }

    private static double bell(double celsius) {
        double off = celsius - BELL_CENTRE;
        return BELL_HEIGHT * Math.exp(BELL_WIDTH * off * off);
    }

    /**
     * The reference function turned round by Newton's method, from a grid that is within a fraction of a degree.
     *
     * @return °C at that voltage; NaN outside its range
     */
    public double celsius(double millivolts) {
        if (!(millivolts >= lowestMillivolts - ROUNDED && millivolts <= highestMillivolts + ROUNDED)) {
            return Double.NaN;
        }
        double place = (millivolts - lowestMillivolts) / (highestMillivolts - lowestMillivolts) * GRID;
        int i = (int) Math.max(0, Math.min(GRID - 1, place));
        double[] even = grid();
        double low = even[i];
        double high = even[i + 1];
        double t = low + (place - i) * (high - low);
        for (int n = 0; n < 30; n++) {
            int part = part(t);
            double[] c = coefficients[part];
            double e = 0;
            double slope = 0;
            for (int k = c.length - 1; k >= 0; k--) {
                slope = slope * t + e;
                e = e * t + c[k];
            }
            if (bells(part)) {
                double bell = bell(t);
                e += bell;
                slope += 2 * BELL_WIDTH * (t - BELL_CENTRE) * bell;
            }
            double step = (e - millivolts) / slope;
            // Never out of the grid's cell by more than its width: near the cold end the slope is next to nothing.
            t = Math.max(low - (high - low), Math.min(high + (high - low), t - step));
            // What is left after a step is its square times half the bend over the slope: below 1e-3 but at the cold
            // end.
            if (Math.abs(step) < (i < STEEP_CELLS ? 1e-11 : 5e-5) * (1 + Math.abs(t))) {
                break;
            }
        }
        return t;
    }

    /** A line of the published tables, which ship with the product. */
    private static double[] table(ResourceBundle tables, String key) {
        return Arrays.stream(tables.getString(key).strip().split(" "))
                .mapToDouble(Double::parseDouble)
                .toArray();
    }
}
