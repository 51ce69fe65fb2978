package zesty.signal.core.read.vibration;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * How a machine shakes while it is well: the strength of each of its lines and how much that differs from second to second. What
 * is measured later is held against it: a line has grown when it is stronger by more than the scatter of both explains.
 */
final class GoodState {
    /** Of each line three numbers are kept: its frequency, its amplitude, its scatter. */
    static final int GROUP = 3;
    /** Lines as near as this are the same one, in Hz. */
    private static final double SAME_HZ = 1.5;
    /** By chance a line is stronger by so many scatters once in some thousand times. */
    private static final double SCATTERS = 3;
    /** And by less than this nobody would open a machine. */
    private static final double WORTH = 1.25;

    private static final double LOOK_SECONDS = 1;

    private GoodState() {}

    /**
     * @param lines of the record
     * @return of each: Hz, the mean of its amplitude over looks of a second, and the scatter of these
     */
    static List<double[]> of(List<Double> lines, double[][] ports, List<int[]> runs, double rateHz) {
        int look = (int) Math.round(LOOK_SECONDS * rateHz);
        double[] hann = new double[look];
        Arrays.setAll(hann, i -> 1 - Math.cos(2 * Math.PI * (i + 0.5) / look));
        List<double[]> state = new ArrayList<>();
        for (double hz : lines) {
            double sum = 0;
            double squares = 0;
            int count = 0;
            for (int[] run : runs) {
                for (int at = run[0]; at + look <= run[1]; at += look) {
                    double amplitude = amplitude(ports, at, hann, hz / rateHz);
                    sum += amplitude;
                    squares += amplitude * amplitude;
                    count++;
                }
            }
            if (count > 1) {
                double mean = sum / count;
                double scatter = Math.sqrt(Math.max(0, squares - count * mean * mean) / (count - 1));
                state.add(new double[] {hz, mean, scatter});
            }
        }
        return state;
    }

    /** All axes together, with a window: one coefficient of the Fourier transform each, its phase turned from sample to sample. */
    private static double amplitude(double[][] ports, int from, double[] window, double turnsASample) {
        int length = window.length;
        double cos = Math.cos(2 * Math.PI * turnsASample);
        double sin = Math.sin(2 * Math.PI * turnsASample);
        double all = 0;
        for (double[] x : ports) {
            double mean = Arrays.stream(x, from, from + length).average().orElse(0);
            double real = 0;
            double imaginary = 0;
            double c = 1;
            double s = 0;
            for (int i = 0; i < length; i++) {
                double own = window[i] * (x[from + i] - mean);
                real += own * c;
                imaginary += own * s;
                double turned = c * cos - s * sin;
                s = c * sin + s * cos;
                c = turned;
            }
            all += 4 * (real * real + imaginary * imaginary) / ((double) length * length);
        }
        return Math.sqrt(all);
    }

    /**
     * @param good as it was kept, three numbers a line
     * @param now as {@link #of} gives it
     * @return of each line of now: Hz, what it was (0 for a new one), what it is, how many scatters lie between, and 1 where
     *     that is more than chance and worth a look, else 0; the most suspicious first
     */
    static List<double[]> compared(double[] good, List<double[]> now) {
        List<double[]> lines = new ArrayList<>();
        double least = 0;
        for (int g = 0; g < good.length; g += GROUP) {
            least = Math.max(least, good[g + 1]);
        }
        for (double[] one : now) {
            double was = 0;
            // Of a line that was not there, nothing is known but that it was weaker than what was told.
            double scatter = 0.02 * least;
            double nearest = SAME_HZ;
            for (int g = 0; g < good.length; g += GROUP) {
                if (Math.abs(good[g] - one[0]) <= nearest) {
                    nearest = Math.abs(good[g] - one[0]);
                    was = good[g + 1];
                    scatter = good[g + 2];
                }
            }
            double scatters = (one[1] - was) / Math.max(1e-300, Math.hypot(scatter, one[2]));
            boolean grown = scatters > SCATTERS && one[1] > WORTH * was;
            lines.add(new double[] {one[0], was, one[1], scatters, grown ? 1 : 0});
        }
        lines.sort((a, b) -> Double.compare(b[3], a[3]));
        return lines;
    }
}
