package zesty.signal.core.read.motion;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.jtransforms.fft.DoubleFFT_1D;
import zesty.signal.core.sample.Order;

/**
 * How smooth movements are: the arc length of the spectrum of each one's speed (S. Balasubramanian, A. Melendez-Calderon, A.
 * Roby-Brami and E. Burdet 2015, "On the analysis of movement smoothness"). A single stroke of least jerk has about −1.4; each stop
 * and start within a movement makes it more negative. Neither size nor duration of the movement changes it.
 *
 * @param movements how many there were
 * @param arc of the middle one; NaN without one
 */
record Smoothness(int movements, double arc) {
    static final Smoothness NONE = new Smoothness(0, Double.NaN);
    /** Faster than this nobody moves on purpose, in Hz (the paper's choice). */
    private static final double HIGHEST_HZ = 10;
    /** The spectrum ends where its share of the largest part falls below this for good (the paper's choice). */
    private static final double LEAST_PART = 0.05;
    /** Bins between those of the movement's own length, as a power of two (the paper's choice). */
    private static final int PADDED = 4;

    /** A movement is faster than this share of the record's fast moments, and than the noise of a gyro, in °/s. */
    private static final double LEAST_SHARE = 0.1;

    private static final double LEAST_SPEED = 5;
    private static final double FAST_QUANTILE = 0.95;

    private static final double SHORTEST_SECONDS = 0.2;
    /** What goes on for longer is no movement from standstill to standstill. */
    private static final double LONGEST_SECONDS = 5;
    /** So many tell the middle one well enough; of more they are evenly chosen. */
    private static final int MOST_LOOKED_AT = 8;

    private static final int MOST_RANKED = 4096;

    /** A standstill shorter than this is a hitch within a movement. */
    private static final double HITCH_SECONDS = 0.12;

    /** @param speed of turning of one run without a gap, in °/s, never below 0 */
    static Smoothness of(double[] speed, double rateHz) {
        if (speed.length < 8 || rateHz < 2 * HIGHEST_HZ) {
            return NONE;
        }
        double least = Math.max(LEAST_SPEED, LEAST_SHARE * Order.quantile(some(speed), FAST_QUANTILE));
        List<int[]> movements = new ArrayList<>();
        for (int i = 0; i < speed.length; i++) {
            int[] last = movements.isEmpty() ? null : movements.get(movements.size() - 1);
            if (!(speed[i] > least)) {
                continue;
            }
            if (last != null && i - last[1] <= HITCH_SECONDS * rateHz) {
                last[1] = i + 1;
            } else {
                movements.add(new int[] {i, i + 1});
            }
        }
        // One that is cut by an end of the record says nothing of how it begins or ends.
        movements.removeIf(one -> one[1] - one[0] < SHORTEST_SECONDS * rateHz
                || one[1] - one[0] > LONGEST_SECONDS * rateHz
                || one[0] == 0
                || one[1] == speed.length);
        // Tables of a transform cost as much as the transform.
        Map<Integer, DoubleFFT_1D> plans = new HashMap<>();
        int every = (movements.size() + MOST_LOOKED_AT - 1) / MOST_LOOKED_AT;
        double[] arcs = IntStream.range(0, movements.size())
                .filter(i -> i % every == 0)
                .mapToDouble(i -> arc(whole(speed, movements.get(i)), rateHz, plans))
                .toArray();
        return arcs.length == 0 ? NONE : new Smoothness(movements.size(), Order.median(arcs));
    }

    /** @return evenly chosen ones where there are very many: a quantile of them is known well enough */
    private static double[] some(double[] speed) {
        int every = 1 + speed.length / MOST_RANKED;
        double[] some = new double[(speed.length + every - 1) / every];
        for (int i = 0; i < some.length; i++) {
            some[i] = speed[i * every];
        }
        return some;
    }

    /** @return the movement with its slow begin and end: outward as long as it gets slower */
    private static double[] whole(double[] speed, int[] movement) {
        int from = movement[0];
        int to = movement[1];
        while (from > 0 && speed[from - 1] < speed[from]) {
            from--;
        }
        while (to < speed.length && speed[to] < speed[to - 1]) {
            to++;
        }
        return Arrays.copyOfRange(speed, from, to);
    }

    /** @return the spectral arc length of one movement's speed */
    static double arc(double[] speed, double rateHz) {
        return arc(speed, rateHz, new HashMap<>());
    }

    private static double arc(double[] speed, double rateHz, Map<Integer, DoubleFFT_1D> plans) {
        int size = Integer.highestOneBit(Math.max(1, speed.length * 2 - 1)) << PADDED;
        double[] bins = Arrays.copyOf(speed, size);
        plans.computeIfAbsent(size, DoubleFFT_1D::new).realForward(bins);
        int last = Math.min(size / 2 - 1, (int) Math.floor(HIGHEST_HZ * size / rateHz));
        double[] parts = new double[last + 1];
        double most = 0;
        for (int k = 0; k <= last; k++) {
            parts[k] = k == 0
                    ? Math.abs(bins[0])
                    : Math.sqrt(bins[2 * k] * bins[2 * k] + bins[2 * k + 1] * bins[2 * k + 1]);
            most = Math.max(most, parts[k]);
        }
        int from = -1;
        int to = 0;
        for (int k = 0; k <= last; k++) {
            parts[k] /= most;
            if (parts[k] >= LEAST_PART) {
                from = from < 0 ? k : from;
                to = k;
            }
        }
        double length = 0;
        for (int k = from + 1; k <= to; k++) {
            length += Math.hypot(1.0 / (to - from), parts[k] - parts[k - 1]);
        }
        return -length;
    }
}
