package zesty.signal.core.read.hits;

import java.util.Arrays;
import zesty.signal.core.sample.Order;
import zesty.signal.core.text.Messages;

/**
 * The threshold, release and dead time that tell the true events of a record best: most of them found, fewest others
 * (F1, the harmonic mean of the two shares; C. J. van Rijsbergen 1979, "Information retrieval"). Thresholds are tried where
 * the record has its crests, releases between there and its usual level, dead times from none to as long as the true
 * events allow. Of what does equally well the middle of the widest range of thresholds is taken: it has most room on
 * either side.
 *
 * @param release what the signal must come back past, on the way from the threshold to its usual level
 * @param low and high: from where to where the threshold could be and do as well
 */
public record Tuning(
        double threshold,
        double release,
        double deadSeconds,
        int found,
        int missed,
        int invented,
        double f1,
        double low,
        double high) {
    private static final int MOST_THRESHOLDS = 96;
    private static final double[] RELEASES = {0.2, 0.5, 0.8};
    private static final double[] DEAD_SECONDS = {0, 0.01, 0.02, 0.05, 0.1, 0.2, 0.4};
    /** No dead time may be longer than this share of the shortest time between two true events. */
    private static final double DEAD_SHARE = 0.8;

    private record Score(int found, int invented) {}

    /**
     * @param x the signal; NaN where a value is missing
     * @param seconds the time of each value, rising
     * @param truth the times of the true events, in any order, at least one
     * @param within how far a hit may be from its event, in s
     * @throws IllegalArgumentException when there is no event, or none that lies in the record
     */
    public static Tuning of(double[] x, double[] seconds, double[] truth, double within) {
        double[] events = Arrays.stream(truth).sorted().toArray();
        if (events.length == 0) {
            throw new IllegalArgumentException(Messages.of("read.hits.there-is-no-true-event-to-tune-to"));
        }
        double last = seconds.length == 0 ? Double.NEGATIVE_INFINITY : seconds[seconds.length - 1];
        if (!(events[0] <= last + within) || !(events[events.length - 1] >= seconds[0] - within)) {
            throw new IllegalArgumentException(Messages.of("read.hits.no-true-event-lies-within-the"));
        }
        double[] present = Arrays.stream(x).filter(v -> v == v).toArray();
        double rest = Order.median(present);
        Tuning rise = best(x, seconds, events, within, rest, 1);
        Tuning fall = best(x, seconds, events, within, rest, -1);
        return fall.f1() > rise.f1() ? fall : rise;
    }

    private static Tuning best(double[] x, double[] seconds, double[] events, double within, double rest, int sign) {
        double[] levels = levels(x, rest, sign);
        double shortest = Double.POSITIVE_INFINITY;
        for (int i = 1; i < events.length; i++) {
            shortest = Math.min(shortest, events[i] - events[i - 1]);
        }
        Tuning best = new Tuning(Double.NaN, Double.NaN, 0, 0, events.length, 0, -1, Double.NaN, Double.NaN);
        double widest = 0;
        for (double share : RELEASES) {
            for (double dead : DEAD_SECONDS) {
                if (dead > DEAD_SHARE * shortest) {
                    continue;
                }
                Score[] scores = new Score[levels.length];
                for (int k = 0; k < levels.length; k++) {
                    double release = rest + (levels[k] - rest) * (1 - share);
                    scores[k] = score(x, seconds, events, within, sign, levels[k], release, dead);
                }
                for (int from = 0; from < levels.length; ) {
                    int to = from;
                    while (to + 1 < levels.length
                            && f1(scores[to + 1], events.length) == f1(scores[from], events.length)) {
                        to++;
                    }
                    double f1 = f1(scores[from], events.length);
                    double width = Math.abs(levels[to] - levels[from]);
                    if (f1 > best.f1() || f1 == best.f1() && width > widest) {
                        widest = width;
                        double threshold = (levels[from] + levels[to]) / 2;
                        double release = rest + (threshold - rest) * (1 - share);
                        Score told = score(x, seconds, events, within, sign, threshold, release, dead);
                        best = new Tuning(
                                threshold,
                                release,
                                dead,
                                told.found(),
                                events.length - told.found(),
                                told.invented(),
                                f1(told, events.length),
                                Math.min(levels[from], levels[to]),
                                Math.max(levels[from], levels[to]));
                    }
                    from = to + 1;
                }
            }
        }
        return best;
    }

    /** Between the heights of neighbouring crests lies what makes a difference; of many a part, evenly chosen. */
    private static double[] levels(double[] x, double rest, int sign) {
        double[] crests = new double[x.length];
        int n = 0;
        for (int i = 1; i + 1 < x.length; i++) {
            double own = sign * (x[i] - rest);
            if (own > 0 && own >= sign * (x[i - 1] - rest) && own > sign * (x[i + 1] - rest)) {
                crests[n++] = own;
            }
        }
        double[] sorted = Arrays.stream(crests, 0, n).sorted().distinct().toArray();
        if (sorted.length == 0) {
            return new double[0];
        }
        double[] levels = new double[MOST_THRESHOLDS];
        int half = MOST_THRESHOLDS / 2;
        double top = sorted[sorted.length - 1];
        for (int k = 0; k < half; k++) {
            // Half of them where the crests crowd, half of them evenly up to the highest.
            levels[2 * k] = rest + sign * sorted[(int) ((long) k * sorted.length / half)];
            levels[2 * k + 1] = rest + sign * top * (k + 0.5) / half;
        }
        return Arrays.stream(levels)
                .map(v -> sign * v)
                .sorted()
                .distinct()
                .map(v -> sign * v)
                .toArray();
    }

    private static double f1(Score score, int events) {
        return 2.0 * score.found() / (score.found() + score.invented() + events);
    }

    /** A hit and an event within reach of each other are one, each taken once, in the order of time. */
    private static Score score(
            double[] x,
            double[] seconds,
            double[] events,
            double within,
            int sign,
            double threshold,
            double release,
            double dead) {
        int found = 0;
        int invented = 0;
        int next = 0;
        boolean over = false;
        double free = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < x.length; i++) {
            double own = sign * x[i];
            if (over) {
                over = !(own < sign * release);
            } else if (own >= sign * threshold) {
                over = true;
                if (seconds[i] >= free) {
                    free = seconds[i] + dead;
                    while (next < events.length && events[next] < seconds[i] - within) {
                        next++;
                    }
                    if (next < events.length && events[next] <= seconds[i] + within) {
                        found++;
                        next++;
                    } else {
                        invented++;
                    }
                }
            }
        }
        return new Score(found, invented);
    }
}
