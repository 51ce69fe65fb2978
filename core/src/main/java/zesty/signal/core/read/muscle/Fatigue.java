package zesty.signal.core.read.muscle;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.muscle.Effort.Burst;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;

/**
 * How a muscle tires in a long pull: its median frequency falls, as the fibres conduct more slowly (F. B. Stulen and C. J.
 * De Luca 1981, "Frequency parameters of the myoelectric signal as a measure of muscle conduction velocity"). The slope is
 * that of a straight line through the median frequencies of windows of a second, each half over the one before.
 *
 * @param seconds the middle of each window
 * @param medianHz the frequency that parts its power into halves
 * @param slopeHz the line's slope in Hz/s; NaN where no pull is long enough
 * @param uncertaintyHz its standard uncertainty, in Hz/s; the windows overlap by half, which is counted in
 * @param startHz where the line begins
 */
record Fatigue(double[] seconds, double[] medianHz, double slopeHz, double uncertaintyHz, double startHz) {
    static final Fatigue NONE = new Fatigue(new double[0], new double[0], Double.NaN, Double.NaN, Double.NaN);
    /** A pull that is looked at lasts this at least, in s: a slope needs about nine windows. */
    static final double LONG_SECONDS = 5;

    private static final double WINDOW_SECONDS = 1;
    /** The rise and the end of a pull are no part of it, in s. */
    private static final double EDGE_SECONDS = 0.25;

    private static final double LOWEST_HZ = 20;

    /** Of neighbouring windows that share a half, two count as much as one and a half. */
    private static final double OVERLAP = Math.sqrt(4.0 / 3);

    /** @return that of the longest pull */
    static Fatigue of(Effort effort, double[] seconds, double rateHz) {
        Burst longest = null;
        for (Burst burst : effort.bursts()) {
            longest = longest == null || burst.to() - burst.from() > longest.to() - longest.from() ? burst : longest;
        }
        if (longest == null || (longest.to() - longest.from()) / rateHz < LONG_SECONDS) {
            return NONE;
        }
        int window = (int) Math.round(WINDOW_SECONDS * rateHz);
        int edge = (int) Math.round(EDGE_SECONDS * rateHz);
        List<double[]> points = new ArrayList<>();
        for (int at = longest.from() + edge; at + window <= longest.to() - edge; at += window / 2) {
            double hz = median(Arrays.copyOfRange(effort.activity(), at, at + window), rateHz);
            points.add(new double[] {seconds[at] + WINDOW_SECONDS / 2, hz});
        }
        double[] t = points.stream().mapToDouble(p -> p[0]).toArray();
        double[] hz = points.stream().mapToDouble(p -> p[1]).toArray();
        return line(t, hz);
    }

    private static double median(double[] x, double rateHz) {
        int segment = (int) Math.max(16, Math.round(0.25 * rateHz));
        double[] density = Welch.of(x, List.of(new int[] {0, x.length}), rateHz, Window.HANN, segment, 0.5)
                .density();
        double bin = rateHz / segment;
        int first = (int) Math.ceil(LOWEST_HZ / bin);
        double all = 0;
        for (int k = first; k < density.length; k++) {
            all += density[k];
        }
        double sum = 0;
        for (int k = first; k < density.length; k++) {
            if (sum + density[k] >= all / 2) {
                return bin * (k - 0.5 + (all / 2 - sum) / density[k]);
            }
            sum += density[k];
        }
        return Double.NaN;
    }

    private static Fatigue line(double[] t, double[] hz) {
        int n = t.length;
        double meanT = Arrays.stream(t).average().orElse(0);
        double meanHz = Arrays.stream(hz).average().orElse(0);
        double squares = 0;
        double both = 0;
        for (int i = 0; i < n; i++) {
            squares += (t[i] - meanT) * (t[i] - meanT);
            both += (t[i] - meanT) * (hz[i] - meanHz);
        }
        double slope = both / squares;
        double left = 0;
        for (int i = 0; i < n; i++) {
            double off = hz[i] - meanHz - slope * (t[i] - meanT);
            left += off * off;
        }
        double uncertainty = OVERLAP * Math.sqrt(left / (n - 2) / squares);
        return new Fatigue(t, hz, slope, uncertainty, meanHz + slope * (t[0] - meanT));
    }
}
