package zesty.signal.core.read.response;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Recorded;
import zesty.signal.core.read.Settings;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Baseline, peak and the two half-way times, by their definitions; how far to trust them by what the baseline itself does. */
final class ChangeReader extends Recorded {
    /** A baseline of fewer samples says little of its own spread. */
    private static final int FEW = 5;

    /**
     * A peak this many times as high as the highest that noise alone is expected to make is beyond doubt. Found on records of Gaussian
     * noise; a fifth more or less moves the quality of changes of 4 to 6 standard deviations by up to 0.2 and nothing else.
     */
    private static final double CLEAR = 1.8;

    /** Noise alone reaches this often enough to be no change: its quality stays at or below {@link #DOUBT}. */
    private static final double BARELY = 1.25;

    private static final double DOUBT = 0.2;

    private final double at;
    private final double before;
    private final double until;
    private final double smooth;

    ChangeReader(Settings settings) {
        super(1);
        at = settings.number(ChangeAfter.AT);
        before = settings.number("before");
        until = settings.number("until");
        smooth = settings.number("smooth");
    }

    @Override
    protected Reading read(Segment stretch) {
        double[] seconds = new double[stretch.length()];
        double[] x = new double[stretch.length()];
        int n = 0;
        for (int i = 0; i < stretch.length(); i++) {
            if (stretch.measured(i)) {
                seconds[n] = stretch.seconds()[i];
                x[n++] = stretch.ports()[0][i];
            }
        }
        if (Double.isNaN(at)) {
            return nothing(Messages.of("read.response.say-when-it-happened-at-seconds-or"), true);
        }
        if (n == 0) {
            return nothing(Messages.of("read.response.no-samples"), false);
        }
        seconds = Arrays.copyOf(seconds, n);
        x = Arrays.copyOf(x, n);
        if (at <= seconds[0] || at > seconds[n - 1]) {
            return nothing(
                    Messages.of(
                            "read.response.at-s-lies-outside-the-record-which",
                            Digits.of(at),
                            Digits.of(seconds[0]),
                            Digits.of(seconds[n - 1])),
                    true);
        }
        return answer(seconds, x);
    }

    private static Reading nothing(String why, boolean refused) {
        List<Item> items = new ArrayList<>();
        for (String key : List.of("baseline", "sd", "peak", "peak_t_s", "change", "latency_s", "half_recovery_s")) {
            items.add(new Item.Scalar(key, Double.NaN));
        }
        items.add(new Item.Events("moments", List.of("t_s", "kind"), List.of()));
        return new Reading(new Quality(0, List.of(why)), items, List.of(), refused ? why : "");
    }

    private static int firstAt(double[] seconds, double moment) {
        int found = Arrays.binarySearch(seconds, moment - 1e-9);
        return found < 0 ? -found - 1 : found;
    }

    private Reading answer(double[] seconds, double[] x) {
        int from = firstAt(seconds, at - before);
        int zero = firstAt(seconds, at);
        int end = firstAt(seconds, at + until + 2e-9);
        int n = zero - from;
        if (n == 0) {
            return nothing(Messages.of("read.response.no-samples-in-the-s-before-it", Digits.of(before)), false);
        }
        double baseline = Arrays.stream(x, from, zero).average().orElse(Double.NaN);
        double squares = 0;
        for (int i = from; i < zero; i++) {
            squares += (x[i] - baseline) * (x[i] - baseline);
        }
        double sd = n < 2 ? Double.NaN : Math.sqrt(squares / (n - 1));
        double[] y = smoothed(seconds, x);
        int peak = zero;
        for (int i = zero; i < end; i++) {
            peak = Math.abs(y[i] - baseline) > Math.abs(y[peak] - baseline) ? i : peak;
        }
        double change = y[peak] - baseline;
        double half = Math.abs(change) / 2;
        double latency = Double.NaN;
        for (int i = zero; i <= peak && Double.isNaN(latency); i++) {
            if (Math.signum(change) * (y[i] - baseline) > half) {
                latency = seconds[i] - at;
            }
        }
        double recovery = Double.NaN;
        for (int i = peak + 1; i < y.length && Double.isNaN(recovery); i++) {
            if (Math.signum(change) * (y[i] - baseline) <= half) {
                recovery = seconds[i] - seconds[peak];
            }
        }
        List<Item> items = List.of(
                new Item.Scalar("baseline", baseline, sd / Math.sqrt(n)),
                new Item.Scalar("sd", sd),
                new Item.Scalar("peak", y[peak]),
                new Item.Scalar("peak_t_s", seconds[peak]),
                new Item.Scalar("change", change, sd / Math.sqrt(n)),
                new Item.Scalar("latency_s", latency),
                new Item.Scalar("half_recovery_s", recovery),
                new Item.Events("moments", List.of("t_s", "kind"), moments(seconds[peak], y[peak])));
        Quality quality = quality(seconds, x, y, new int[] {from, zero, end}, change);
        List<String> working = List.of(
                Messages.of(
                        "read.response.baseline-from-samples-before-s", Digits.about(baseline, 4), n, Digits.of(at)),
                Messages.of(
                        "read.response.furthest-from-it-at-s-less",
                        Digits.fixed(seconds[peak], 2),
                        Digits.about(y[peak], 4),
                        Digits.about(baseline, 4),
                        Digits.about(change, 4)));
        return new Reading(quality, items, working);
    }

    /** What is marked in the lane: when it happened, and where the signal was furthest. */
    private List<Event> moments(double peakSeconds, double peak) {
        return List.of(
                new Event("start", at, at, Double.NaN, true, ""),
                new Event("peak", peakSeconds, peakSeconds, peak, true, ""));
    }

    /** A centred moving mean over all samples within half the length on either side. */
    private double[] smoothed(double[] seconds, double[] x) {
        if (smooth <= 0) {
            return x;
        }
        double[] sums = new double[x.length + 1];
        for (int i = 0; i < x.length; i++) {
            sums[i + 1] = sums[i] + (x[i] - x[0]);
        }
        double[] y = new double[x.length];
        int from = 0;
        int to = 0;
        for (int i = 0; i < x.length; i++) {
            while (seconds[from] < seconds[i] - smooth / 2 - 1e-9) {
                from++;
            }
            while (to < x.length && seconds[to] <= seconds[i] + smooth / 2 + 1e-9) {
                to++;
            }
            y[i] = x[0] + (sums[to] - sums[from]) / (to - from);
        }
        return y;
    }

    /** @param bounds where the baseline begins, the moment, and where the search ends */
    private Quality quality(double[] seconds, double[] x, double[] y, int[] bounds, double change) {
        List<String> reasons = new ArrayList<>();
        double share = 1;
        int n = bounds[1] - bounds[0];
        if (n < FEW) {
            share = 0.4;
            reasons.add(Messages.of(
                    "read.response.only-before-it",
                    n,
                    (n == 1 ? Messages.of("read.response.sample") : Messages.of("read.response.samples"))));
        }
        // What the smoothed baseline does by itself, by the same measure as the peak.
        double mean = Arrays.stream(x, bounds[0], bounds[1]).average().orElse(0);
        double squares = 0;
        double slopeUp = 0;
        double slopeDown = 0;
        double middle = Arrays.stream(seconds, bounds[0], bounds[1]).average().orElse(0);
        for (int i = bounds[0]; i < bounds[1]; i++) {
            squares += (y[i] - mean) * (y[i] - mean);
            slopeUp += (seconds[i] - middle) * (x[i] - mean);
            slopeDown += (seconds[i] - middle) * (seconds[i] - middle);
        }
        double spread = Math.sqrt(squares / Math.max(1, n - 1));
        double expected = spread * Math.sqrt(2 * Math.log(Math.max(2, bounds[2] - bounds[1])));
        double times = expected > 0 ? Math.abs(change) / expected : change == 0 ? 0 : Double.POSITIVE_INFINITY;
        if (times < CLEAR) {
            double clear = Math.max(0, (times - BARELY) / (CLEAR - BARELY));
            share = Math.min(share, DOUBT + (0.9 - DOUBT) * clear);
            reasons.add(Messages.of("read.response.it-stands-out-of-the-noise-before", Digits.about(times, 2)));
        }
        double slope = slopeDown > 0 ? slopeUp / slopeDown : 0;
        double error = slopeDown > 0 ? Math.sqrt(squares / Math.max(1, n - 2) / slopeDown) : 0;
        double drift = (Math.abs(slope) - 3 * error) * Math.min(until, seconds[seconds.length - 1] - at);
        if (n >= FEW && change != 0 && drift > Math.abs(change) / 3) {
            share = Math.min(share, 0.35);
            reasons.add(
                    Messages.of("read.response.it-drifted-already-before-going-on", Digits.about(slope * until, 2)));
        }
        double covered = seconds[bounds[1] - 1] - seconds[bounds[0]];
        if (covered < 0.5 * before && n >= FEW) {
            share = Math.min(share, 0.7);
            reasons.add(
                    Messages.of("read.response.the-baseline-covers-s-of", Digits.about(covered, 2), Digits.of(before)));
        }
        return new Quality(share, reasons);
    }
}
