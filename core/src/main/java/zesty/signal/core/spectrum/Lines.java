package zesty.signal.core.spectrum;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import zesty.signal.core.sample.Order;

/**
 * Lines of a spectrum: what stands clear of the floor around it. A line's height is that of the energy over its width, so
 * that one that wavers is not too low; its place is the centre of that energy, the floor taken off.
 */
public final class Lines {
    /** To either side of its top, in bins: the main lobe of a Hann window has two. */
    private static final int HALF = 3;
    /** The floor is the median over so many bins to either side. */
    private static final int AROUND = 24;

    /** Of averaged noise, a bin stands so far out of the median once in some ten thousand bins. */
    private static final double CLEAR = 6;

    private Lines() {}

    /**
     * A line.
     *
     * @param amplitude of the tone, from zero to its top
     * @param clear how far it stands above the floor, as a ratio of density
     */
    public record Line(double hz, double amplitude, double clear) {}

    /**
     * @param density one-sided, with a Hann window
     * @param binHz from one to the next
     * @param most how many, the highest first
     */
    public static List<Line> of(double[] density, double binHz, double fromHz, double toHz, int most) {
        List<Line> found = new ArrayList<>();
        for (int k = 1; k < density.length - 1; k++) {
            double hz = k * binHz;
            if (hz < fromHz || hz > toHz || !(density[k] >= density[k - 1]) || !(density[k] > density[k + 1])) {
                continue;
            }
            if (!highest(density, k)) {
                continue;
            }
            double floor = floor(density, k);
            if (!(density[k] > CLEAR * floor)) {
                continue;
            }
            found.add(line(density, binHz, k, floor));
        }
        found.sort(Comparator.comparingDouble(Line::amplitude).reversed());
        return List.copyOf(found.subList(0, Math.min(most, found.size())));
    }

    private static boolean highest(double[] density, int k) {
        for (int i = Math.max(0, k - HALF); i <= Math.min(density.length - 1, k + HALF); i++) {
            if (density[i] > density[k]) {
                return false;
            }
        }
        return true;
    }

    private static double floor(double[] density, int k) {
        int from = Math.max(1, k - AROUND);
        int to = Math.min(density.length, k + AROUND + 1);
        return Order.quantile(Arrays.copyOfRange(density, from, to), 0.4);
    }

    private static Line line(double[] density, double binHz, int k, double floor) {
        double energy = 0;
        double moment = 0;
        for (int i = Math.max(1, k - HALF); i <= Math.min(density.length - 1, k + HALF); i++) {
            double own = Math.max(0, density[i] - floor);
            energy += own;
            moment += own * i;
        }
        return new Line(moment / energy * binHz, Math.sqrt(2 * energy * binHz), density[k] / floor);
    }
}
