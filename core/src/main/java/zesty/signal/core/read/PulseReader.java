package zesty.signal.core.read;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.clean.FilterDesign;
import zesty.signal.core.clean.SectionFilter;
import zesty.signal.core.clean.Start;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;

/**
 * Finds the beats of a pulse signal: see {@link PulseKind} for the published method. Both polarities are followed at
 * once; the one in which the signal is skewed upward and rises faster than it falls is the upright one.
 */
public final class PulseReader {
    /** A missing stretch shorter than this is bridged by its last value, in s. */
    private static final double BRIDGE_SECONDS = 0.05;

    /** How much stronger a pulse band must be than the band above it, both per Hz: noise makes 1. */
    private static final double CLEAR_OF_NOISE = 2.5;

    private static final double POWER_SECONDS = 3;

    private static final double BASE_SECONDS = 1.5;
    private static final double OPENING_SECONDS = 2;

    private final PulseKind kind;
    private final double rateHz;
    private final SectionFilter band;
    private final SectionFilter above;
    private final SectionFilter smooth;
    private final double aboveWidthHz;
    private final BeatFinder[] finders = new BeatFinder[2];
    private final BeatJudge[] judges = new BeatJudge[2];
    private final double[] one = new double[1];

    private double last = Double.NaN;
    private double lastSeconds = Double.NaN;
    private double firstSeconds = Double.NaN;
    private final double[] openingValues;
    private final double[] openingSeconds;
    private int held;
    private boolean opened;
    private int missing;
    private long since;
    private double bandPower;
    private double abovePower;
    private double slopePower;
    private double levelPower;
    private double lastSmoothed;
    private double base;
    private double uprightness;
    private long samples;
    private long unclear;

    /**
     * @param rateHz at least {@link PulseKind#lowestRateHz()}
     * @throws IllegalArgumentException when the rate is too slow, saying what would do
     */
    public PulseReader(PulseKind kind, double rateHz) {
        if (!(rateHz >= kind.lowestRateHz()) || rateHz > 1e5) {
            throw new IllegalArgumentException(
                    "a pulse needs " + kind.lowestRateHz() + " to 100000 samples/s, not " + rateHz);
        }
        this.kind = kind;
        this.rateHz = rateHz;
        band = new SectionFilter(
                FilterDesign.bandPass(rateHz, kind.lowHz, Math.min(kind.highHz, 0.4 * rateHz), 2), Start.SETTLED);
        double aboveLow = Math.min(1.25 * kind.highHz, 0.3 * rateHz);
        double aboveHigh = Math.min(2.5 * kind.highHz, 0.45 * rateHz);
        aboveWidthHz = aboveHigh - aboveLow;
        above = new SectionFilter(FilterDesign.bandPass(rateHz, aboveLow, aboveHigh, 2), Start.SETTLED);
        smooth = new SectionFilter(FilterDesign.lowPass(rateHz, Math.min(kind.highHz, 0.4 * rateHz), 2), Start.SETTLED);
        openingValues = new double[(int) Math.ceil(OPENING_SECONDS * rateHz)];
        openingSeconds = new double[openingValues.length];
        double delay = kind == PulseKind.OPTICAL ? 0.022 : 0.035;
        for (int side = 0; side < 2; side++) {
            BeatFinder[] finder = new BeatFinder[1];
            BeatJudge judge = new BeatJudge(height -> finder[0].usualHeight(height));
            finder[0] = new BeatFinder(kind, side == 0 ? 1 : -1, rateHz, delay, c -> judge.accept(c, clearOfNoise()));
            finders[side] = finder[0];
            judges[side] = judge;
        }
    }

    /** Takes the next samples; a gap is told before its first sample by {@link #gap()}. NaN is a missing value. */
    public void accept(double[] values, int length, TimeBase time) {
        for (int i = 0; i < length; i++) {
            accept(values[i], time.secondsAt(i));
        }
    }

    /** Takes the next samples of a block whose rows may stand on both sides of gaps. */
    public void accept(double[] values, int length, TimeBase time, List<Gap> gaps) {
        int next = 0;
        for (int i = 0; i < length; i++) {
            double seconds = time.secondsAt(i);
            if (next < gaps.size() && seconds >= gaps.get(next).endSeconds()) {
                gap();
                next++;
            }
            accept(values[i], seconds);
        }
    }

    /** Takes one sample. */
    public void accept(double value, double seconds) {
        if (Double.isNaN(firstSeconds)) {
            firstSeconds = seconds;
        }
        lastSeconds = seconds;
        if (Double.isNaN(value)) {
            missing++;
            if (Double.isNaN(last)) {
                return;
            }
            if (missing > BRIDGE_SECONDS * rateHz + 1) {
                gap();
                return;
            }
        } else {
            missing = 0;
            last = value;
        }
        if (!opened) {
            hold(last, seconds);
            return;
        }
        work(last, seconds);
    }

    /** Keeps the first samples back until there are enough of them to settle the filters with. */
    private void hold(double value, double seconds) {
        openingValues[held] = value;
        openingSeconds[held++] = seconds;
        if (held == openingValues.length) {
            open();
        }
    }

    /**
     * Settles the filters on the opening stretch turned about its first sample, as if the signal had been on its way
     * before, and then takes the stretch itself. Without it the first second would be the filters' own swing.
     */
    private void open() {
        opened = true;
        for (int i = held - 1; i > 0; i--) {
            double before = 2 * openingValues[0] - openingValues[i];
            for (SectionFilter filter : new SectionFilter[] {band, above, smooth}) {
                one[0] = before;
                filter.apply(one, 0, 1);
            }
        }
        for (int i = 0; i < held; i++) {
            work(openingValues[i], openingSeconds[i]);
        }
        held = 0;
    }

    private void work(double value, double seconds) {
        one[0] = value;
        band.apply(one, 0, 1);
        double x = one[0];
        one[0] = value;
        above.apply(one, 0, 1);
        double high = one[0];
        one[0] = value;
        smooth.apply(one, 0, 1);
        measure(x, high);
        weighPolarity(one[0]);
        finders[0].accept(x, seconds);
        finders[1].accept(x, seconds);
    }

    private void measure(double x, double high) {
        since++;
        samples++;
        double weight = 1 / Math.min(since, POWER_SECONDS * rateHz);
        bandPower += weight * (Math.min(x * x, since > rateHz ? 16 * bandPower : x * x) - bandPower);
        abovePower += weight * (high * high - abovePower);
        if (!clearOfNoise()) {
            unclear++;
        }
    }

    /**
     * Adds up how much more the signal stands out upward and how much faster it rises than it falls. The band filter
     * would not do here: it moves slow parts against fast ones, and a signal may have been through one already.
     */
    private void weighPolarity(double smoothed) {
        double slope = since > 1 ? smoothed - lastSmoothed : 0;
        lastSmoothed = smoothed;
        base = since > 1 ? base + (smoothed - base) / (BASE_SECONDS * rateHz) : smoothed;
        double weight = 1 / Math.min(since, POWER_SECONDS * rateHz);
        double level = smoothed - base;
        levelPower += weight * (level * level - levelPower);
        slopePower += weight * (slope * slope - slopePower);
        if (since > rateHz && levelPower > 0 && slopePower > 0) {
            uprightness += skew(level / Math.sqrt(levelPower));
            if (kind == PulseKind.OPTICAL) {
                uprightness += 2 * skew(slope / Math.sqrt(slopePower));
            }
        }
    }

    private static double skew(double z) {
        double clipped = Math.max(-3, Math.min(3, z));
        return clipped * clipped * clipped;
    }

    private boolean clearOfNoise() {
        double inside = bandPower / (kind.highHz - kind.lowHz);
        double outside = abovePower / aboveWidthHz;
        return inside > CLEAR_OF_NOISE * outside && bandPower > 0;
    }

    /** Samples are missing here: no interval runs across. */
    public void gap() {
        if (!opened && held > 1) {
            open();
        }
        opened = false;
        held = 0;
        for (int side = 0; side < 2; side++) {
            finders[side].finish();
            judges[side].gap();
            finders[side].restart();
        }
        band.reset();
        above.reset();
        smooth.reset();
        since = 0;
        bandPower = 0;
        abovePower = 0;
        slopePower = 0;
        levelPower = 0;
        last = Double.NaN;
    }

    /** The record is over: beats under way are finished. Nothing may be accepted after it. */
    public void finish() {
        if (!opened && held > 1) {
            open();
        }
        if (since > 0) {
            finders[0].finish();
            finders[1].finish();
        }
    }

    /** @return the reading over the whole of what was accepted */
    public PulseReading reading() {
        return reading(Double.NEGATIVE_INFINITY);
    }

    /** @return the reading over the last so many seconds */
    public PulseReading recent(double windowSeconds) {
        return reading(lastSeconds - windowSeconds);
    }

    /** @return times of the beats from the given time on, in s */
    public double[] beatsFrom(double seconds) {
        return judge().beats().beatsFrom(seconds);
    }

    /** @return the time of the newest sample, in s; NaN before the first */
    public double lastSeconds() {
        return lastSeconds;
    }

    private BeatJudge judge() {
        return judges[uprightness >= 0 ? 0 : 1];
    }

    private PulseReading reading(double from) {
        BeatList beats = judge().beats();
        int first = beats.firstFrom(from);
        double[] intervals = new double[beats.count()];
        int n = 0;
        int pairs = 0;
        double squares = 0;
        boolean follows = false;
        for (int i = Math.max(1, first); i < beats.count(); i++) {
            boolean valid = beats.followsOn(i) && i > first;
            if (valid) {
                intervals[n] = 1000 * (beats.secondsAt(i) - beats.secondsAt(i - 1));
                if (follows) {
                    double difference = intervals[n] - intervals[n - 1];
                    squares += difference * difference;
                    pairs++;
                }
                n++;
            }
            follows = valid;
        }
        intervals = java.util.Arrays.copyOf(intervals, n);
        double[] rejected = beats.rejectedFrom(from);
        Spread spread = Spread.of(intervals);
        double covered = spread.mean() * n / 1000;
        double length = lastSeconds - Math.max(from, firstSeconds);
        return new PulseReading(
                beats.beatsFrom(from),
                rejected,
                intervals,
                60000 / spread.mean(),
                60000 / spread.highest(),
                60000 / spread.lowest(),
                spread.deviation(),
                pairs == 0 ? Double.NaN : Math.sqrt(squares / pairs),
                uprightness >= 0,
                quality(beats, first, rejected.length, n, covered, length));
    }

    private Quality quality(BeatList beats, int first, int rejected, int intervals, double covered, double length) {
        List<String> reasons = new ArrayList<>();
        if (intervals == 0) {
            if (Double.isNaN(lastSeconds) || length < 6) {
                reasons.add("not enough signal yet: five beats alike are needed");
            } else if (unclear * 2 > samples) {
                reasons.add("no pulse: nothing stands clear of the noise. Is a finger on the sensor?");
            } else {
                reasons.add("no pulse: no five beats alike in a row. Is a finger on the sensor, and still?");
            }
            return new Quality(0, reasons);
        }
        double alike = 0;
        int accepted = beats.count() - first;
        for (int i = first; i < beats.count(); i++) {
            alike += beats.likenessAt(i) / accepted;
        }
        double shape = Math.max(0, Math.min(1, (alike - 0.5) / 0.45));
        double kept = (double) accepted / (accepted + rejected);
        double share = Math.min(1, covered / Math.max(length - 1.5, 1));
        if (share < 0.9) {
            reasons.add("only " + Math.round(100 * share) + " % of the time could be read");
        }
        if (rejected > 0) {
            reasons.add(rejected + (rejected == 1 ? " bump was" : " bumps were") + " no believable beat");
        }
        if (shape < 0.8) {
            reasons.add("the beats differ in shape: noise or movement");
        }
        if (intervals < 4) {
            reasons.add("only " + intervals + (intervals == 1 ? " interval" : " intervals") + " so far");
        }
        double few = Math.min(1, intervals / 4.0);
        return new Quality(shape * kept * share * few, reasons);
    }
}
