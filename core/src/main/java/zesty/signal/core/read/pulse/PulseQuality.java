package zesty.signal.core.read.pulse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Quality;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** How far a pulse can be trusted, and why not further. One thread. */
final class PulseQuality {
    /** Half of the successive intervals of an irregular heart differ by this share of one at least. */
    private static final double IRREGULAR = 0.12;
    /** Of a white jitter alone the ratio to the spread is 0.7; from 0.5 on more than half of the variance is noise. */
    private static final double JITTERS = 0.5;

    private static final double IN_DOUBT_BY_RHYTHM = 0.58;
    private static final int FEWEST_FOR_RHYTHM = 12;

    /** A beat whose rise is steeper than its fall by so little, as a share, may as well point the other way. */
    private static final double UNSIDED = 0.035;

    private static final double SIDED = 0.045;
    private static final double FAST_SECONDS = 0.5;
    /**
     * From such a share of the intervals on, bumps between the beats that scatter tell. Of models' pulses beside an arm's
     * swing, 45 of 1000 rates were wrong and told without a doubt, 32 of them have more and 4 of 100 right ones; without a
     * swing none of 600. A fifth more or less of either number moves three of the 45 and four of 1000.
     */
    private static final double BETWEEN = 0.35;
    /** The second hump of a model's pulse scatters by 0.02 s at the most. */
    private static final double SCATTER_SECONDS = 0.06;

    private static final double IN_DOUBT_BY_BUMPS = 0.4;
    private static final int LEAP_BEATS = 5;
    private static final double LEAP = 1.35;
    private static final double EVEN = 0.12;
    /** What an answer that may be another one altogether is worth at most. */
    private static final double IN_DOUBT = 0.3;
    /** So many beats are looked at for humps that were taken for beats. */
    private static final int HEIGHTS = 60;

    private final Beats beats;
    private final Intervals intervals;
    private final double from;
    private final double to;
    private final boolean held;

    /**
     * @param from begin and {@code to} end of what was read, in s
     * @param held whether the pulse has just gone, so that what is said of it is held
     */
    PulseQuality(Beats beats, Intervals intervals, double from, double to, boolean held) {
        this.beats = beats;
        this.intervals = intervals;
        this.from = from;
        this.to = to;
        this.held = held;
    }

    Quality quality() {
        List<String> reasons = new ArrayList<>();
        double length = to - from;
        int count = intervals.all().length;
        if (count == 0) {
            boolean bumps = beats.rejected().length > 2;
            reasons.add(
                    !(length >= 5)
                            ? Messages.of("read.pulse.not-enough-signal-yet-some-beats")
                            : bumps
                                    ? Messages.of("read.pulse.no-pulse-there-are-peaks-but-no")
                                    : Messages.of("read.pulse.no-pulse-nothing-stands-out-of-the"));
            return new Quality(0, reasons);
        }
        double alike = 0;
        for (double one : beats.likeness()) {
            alike += Math.min(1, one) / beats.count();
        }
        double shape = Math.max(0, Math.min(1, (alike - 0.35) / 0.5));
        double kept = (double) beats.count() / (beats.count() + beats.rejected().length);
        double covered = Arrays.stream(intervals.all()).sum() / 1000;
        double share =
                Math.min(1, covered / Math.max(length - 2.5 * intervals.usualSeconds(), intervals.usualSeconds()));
        double few = Math.min(1, count / 3.0);
        if (held) {
            double silent = to - beats.seconds()[beats.count() - 1];
            reasons.add(Messages.of("read.pulse.stale-no-beat-for-s", Digits.fixed(silent, 0)));
            share *= 0.3;
        }
        if (share < 0.9) {
            reasons.add(Messages.of(
                    "read.pulse.only-of-the-time-could-be-read", Math.round(100 * Math.min(1, covered / length))));
        }
        if (beats.rejected().length > 0) {
            int n = beats.rejected().length;
            reasons.add(Messages.of(
                    "read.pulse.rejected-2",
                    n + (n == 1 ? Messages.of("read.pulse.peak") : Messages.of("read.pulse.peaks"))));
        }
        if (shape < 0.8) {
            reasons.add(Messages.of("read.pulse.the-beats-differ-in-shape-noise-or"));
        }
        if (count < 4) {
            reasons.add(Messages.of(
                    "read.pulse.only-so-far",
                    count,
                    (count == 1 ? Messages.of("read.pulse.interval-3") : Messages.of("read.pulse.intervals-2"))));
        }
        double told = 1;
        double[] ms = intervals.all();
        if (irregular(ms)) {
            told *= IN_DOUBT_BY_RHYTHM;
            reasons.add(Messages.of("read.pulse.the-intervals-differ-much-from"));
        }
        double jitter = jitter(ms);
        if (jitter > JITTERS * Math.sqrt(variance(ms))) {
            told *= IN_DOUBT_BY_RHYTHM;
            reasons.add(Messages.of("read.pulse.noise-moves-each-beat-by-about-ms", Digits.fixed(jitter, 0)));
        }
        if (beats.source() == PulseSource.OPTICAL) {
            double sided = (beats.clear() - UNSIDED) / (SIDED - UNSIDED);
            if (sided < 1) {
                // Of a fast pulse either flank is near the beat.
                told *= Math.max(intervals.usualSeconds() < FAST_SECONDS ? 2 * IN_DOUBT : IN_DOUBT, sided);
                reasons.add(Messages.of("read.pulse.rise-and-fall-are-alike-which-way"));
            }
            Between.Bumps bumps = Between.Bumps.of(beats.bumps());
            if (bumps.share() > BETWEEN && bumps.scatterSeconds() > SCATTER_SECONDS) {
                told *= IN_DOUBT_BY_BUMPS;
                reasons.add(Messages.of("read.pulse.peaks-stand-between-the-beats"));
            }
            if (leaps()) {
                told *= IN_DOUBT;
                reasons.add(Messages.of("read.pulse.the-rate-leaps-within-a-beat-and"));
            }
            int fold = Humps.fold(newestHeights(), intervals.usualSeconds());
            if (fold > 1) {
                told *= IN_DOUBT;
                reasons.add(Messages.of(
                        "read.pulse.every-beat-is-higher-the-others",
                        (fold == 2 ? Messages.of("read.pulse.second") : Messages.of("read.pulse.third")),
                        Digits.fixed(60 / intervals.usualSeconds() / fold, 0)));
            }
        }
        return new Quality(Math.max(0, Math.min(1, shape * kept * share * few * told)), reasons);
    }

    private static double variance(double[] x) {
        double mean = Arrays.stream(x).average().orElse(0);
        return Arrays.stream(x).map(v -> (v - mean) * (v - mean)).sum() / Math.max(1, x.length - 1);
    }

    /** Whether successive intervals differ as those of an even heart, breath and early beats included, do not. */
    private static boolean irregular(double[] ms) {
        if (ms.length < FEWEST_FOR_RHYTHM) {
            return false;
        }
        double[] off = new double[ms.length - 1];
        for (int i = 0; i < off.length; i++) {
            off[i] = Math.abs(ms[i + 1] - ms[i]);
        }
        return Order.median(off) > IRREGULAR * Order.median(ms);
    }

    /**
     * Noise that moves each beat for itself makes an interval longer and the next one shorter: their covariance is minus the
     * square of it.
     *
     * @return the standard deviation of a beat's moment, in ms; 0 where none shows
     */
    private static double jitter(double[] ms) {
        if (ms.length < FEWEST_FOR_RHYTHM) {
            return 0;
        }
        double mean = Arrays.stream(ms).average().orElse(0);
        double sum = 0;
        for (int i = 1; i < ms.length; i++) {
            sum += (ms[i] - mean) * (ms[i - 1] - mean);
        }
        return Math.sqrt(Math.max(0, -sum / (ms.length - 1)));
    }

    /**
     * No heart's even pace becomes another one from one beat to the next, but a reader's does that takes up humps: so many
     * even intervals on either side, and between the two such a leap.
     */
    private boolean leaps() {
        double[] ms = intervals.all();
        for (int i = LEAP_BEATS; i + LEAP_BEATS <= ms.length; i++) {
            double before = evenPace(ms, i - LEAP_BEATS);
            double after = evenPace(ms, i);
            if (Math.max(before / after, after / before) > LEAP) {
                return true;
            }
        }
        return false;
    }

    /** @return the middle one of {@link #LEAP_BEATS} intervals; NaN where they are not even */
    private static double evenPace(double[] ms, int from) {
        double[] some = Arrays.copyOfRange(ms, from, from + LEAP_BEATS);
        Arrays.sort(some);
        double middle = some[LEAP_BEATS / 2];
        return some[0] > (1 - EVEN) * middle && some[LEAP_BEATS - 1] < (1 + EVEN) * middle ? middle : Double.NaN;
    }

    /** How high the newest beats are that came without a break, {@link #HEIGHTS} at the most. */
    private double[] newestHeights() {
        int last = beats.count();
        int first = last - 1;
        while (first > 0 && beats.followsOn()[first] && last - first < HEIGHTS && beats.height()[first - 1] > 0) {
            first--;
        }
        return Arrays.copyOfRange(beats.height(), Math.max(0, first), last);
    }
}
