package zesty.signal.core.read.pulse;

/**
 * Candidates of an optical pulse: a moment after the steepest point of each rise. The slope tells the systolic rise from the second
 * hump and from slow wander better than the height does (after W. Zong, T. Heldt, G. B. Moody and R. G. Mark 2003, "An
 * open-source algorithm to detect onset of arterial blood pressure pulses"), and the steepest point moves least of all
 * fixed points (E. Peralta, J. Lázaro, R. Bailón, V. Marozas and E. Gil 2019, "Optimal fiducial points for pulse rate
 * variability analysis from forehead and finger photoplethysmographic signals").
 *
 * <p>All filters are running means, so nothing is moved against anything else: two short ones take hum and noise off,
 * and from the slope its own mean over half a second is taken twice, which leaves 0.4 % of a wander at 0.4 Hz.
 *
 * <p>Which way the pulse points is told by its slopes, rise against fall, and by its skewness: a pulse stands above its
 * mean for less than half of the time, also where a second hump makes its fall as steep as its rise (the measure is that
 * of M. Elgendi 2016, "Optimal signal quality index for photoplethysmogram signals").
 */
final class OpticalFinder implements Finder {
    private static final double SMOOTH_SECONDS = 0.15;
    private static final double SMOOTHER_SECONDS = 0.1;
    private static final double SLOPE_SECONDS = 0.04;
    /**
     * A beat is dated so much after its steepest point: still on the rise, also of a child's, and so near to the top that
     * a mark stands where the eye looks for the beat, whichever of two humps is the higher one.
     */
    private static final double ON_SECONDS = 0.025;

    private static final double LEVEL_SECONDS = 0.5;
    /** What is slower than this is no part of the pulse's wave, in s; its skewness is that of so much of it. */
    private static final double WAVE_SECONDS = 0.7;

    private static final double SKEW_SECONDS = 3;
    /** A skewness of 1 says as much about which way beats point as one flank this much steeper than the other. */
    private static final double SKEW_WEIGHT = 0.5;
    /** Around the steepest point so much is compared with other beats, in s. */
    private static final double BEFORE = 0.3;

    private static final double AFTER = 0.25;
    private static final int POINTS = 23;
    /** Of two bumps nearer than this the steeper one is the candidate, in s. */
    private static final double APART = 0.13;
    /** What is so many times as steep as usual is clipped: a shift of the finger is steeper than any beat. */
    private static final double STEEPEST = 2.5;

    private final double rateHz;
    private final Found found;
    private final RunningMean smooth;
    private final RunningMean smoother;
    private final Delay slopeDelay;
    private final double slopeGain;
    private final RunningMean[] level = new RunningMean[2];
    private final Delay[] levelDelay = new Delay[2];
    private final RunningMean[] base = new RunningMean[2];
    private final Delay[] baseDelay = new Delay[2];
    private final Recent wave;
    private final double lag;
    private final int latency;
    private final int reach;
    private final int apart;
    private final Recent slope;
    private final Recent seconds;
    private double highest = Double.POSITIVE_INFINITY;
    private double lowest = Double.NEGATIVE_INFINITY;

    OpticalFinder(double rateHz, Found found) {
        this.rateHz = rateHz;
        this.found = found;
        smooth = new RunningMean((int) Math.round(SMOOTH_SECONDS * rateHz));
        smoother = new RunningMean((int) Math.round(SMOOTHER_SECONDS * rateHz));
        int step = (int) Math.max(1, Math.round(SLOPE_SECONDS * rateHz));
        slopeDelay = new Delay(step);
        slopeGain = rateHz / step;
        int half = (int) Math.max(1, Math.round(LEVEL_SECONDS * rateHz / 2));
        for (int i = 0; i < 2; i++) {
            level[i] = new RunningMean(2 * half + 1);
            levelDelay[i] = new Delay(half);
        }
        int wide = (int) Math.max(1, Math.round(WAVE_SECONDS * rateHz / 2));
        for (int i = 0; i < 2; i++) {
            base[i] = new RunningMean(2 * wide + 1);
            baseDelay[i] = new Delay(wide);
        }
        wave = new Recent((int) Math.ceil(SKEW_SECONDS * rateHz));
        lag = smooth.delay() + smoother.delay() + step / 2.0 + 2 * half;
        apart = (int) Math.max(1, Math.round(APART * rateHz));
        latency = Math.max(apart, (int) Math.ceil(AFTER * rateHz) + 1);
        reach = (int) Math.ceil(BEFORE * rateHz) + 1;
        int capacity = (int) Math.ceil(4 * rateHz) + 2 * (reach + latency) + (int) lag;
        slope = new Recent(capacity);
        seconds = new Recent(capacity);
    }

    @Override
    public void usualHeight(boolean upward, double height) {
        double bound = height > 0 ? STEEPEST * height : Double.POSITIVE_INFINITY;
        if (upward) {
            highest = bound;
        } else {
            lowest = -bound;
        }
    }

    @Override
    public void next(double value, double time) {
        seconds.add(time);
        slope.add(filtered(value));
        look();
    }

    private double filtered(double value) {
        double even = smoother.next(smooth.next(value));
        double bare = even;
        for (int i = 0; i < 2; i++) {
            bare = baseDelay[i].next(bare) - base[i].next(bare);
        }
        wave.add(bare);
        double steep = (even - slopeDelay.next(even)) * slopeGain;
        // Both bounds count only together: with beats that point down, the rises are the long falls of the pulse.
        double bound = Math.min(highest, -lowest);
        double clipped = Math.max(-bound, Math.min(bound, steep));
        for (int i = 0; i < 2; i++) {
            clipped = levelDelay[i].next(clipped) - level[i].next(clipped);
        }
        return clipped;
    }

    private void look() {
        long at = slope.end() - 1 - latency;
        // What lies at the beginning is cut off and looks steeper than it is.
        if (at - 1 < slope.start() || at < reach + lag) {
            return;
        }
        double y0 = slope.at(at - 1);
        double y1 = slope.at(at);
        double y2 = slope.at(at + 1);
        if (y1 > 0 && y1 > y0 && y1 >= y2 && outstanding(at, 1)) {
            found.candidate(candidate(at, 1), true, knownSeconds());
        } else if (y1 < 0 && y1 < y0 && y1 <= y2 && outstanding(at, -1)) {
            found.candidate(candidate(at, -1), false, knownSeconds());
        }
    }

    private boolean outstanding(long at, int sign) {
        double height = sign * slope.at(at);
        for (long i = Math.max(slope.start(), at - apart); i <= at + apart; i++) {
            if (sign * slope.at(i) > height) {
                return false;
            }
        }
        return true;
    }

    private Candidate candidate(long at, int sign) {
        double y0 = slope.at(at - 1);
        double y1 = slope.at(at);
        double y2 = slope.at(at + 1);
        double bend = y0 - 2 * y1 + y2;
        double shift = bend == 0 ? 0 : Math.max(-0.5, Math.min(0.5, (y0 - y2) / (2 * bend)));
        double time = seconds.between(at + shift - lag) + ON_SECONDS;
        double[] shape = new double[POINTS];
        double step = (BEFORE + AFTER) * rateHz / (POINTS - 1);
        double down = 0;
        for (int i = 0; i < POINTS; i++) {
            shape[i] = sign * slope.between(at + shift - BEFORE * rateHz + i * step);
            down = Math.max(down, -shape[i]);
        }
        double height = sign * y1;
        // The fall after the rise is looked at as well as the one before it: the window is short for a slow heart.
        for (long i = Math.max(slope.start(), at - 2L * reach); i < at; i++) {
            down = Math.max(down, -sign * slope.at(i));
        }
        double upright = (height - down) / (height + down) + SKEW_WEIGHT * sign * skewness();
        return new Candidate(time, time, time, height, upright, 0, shape, 0);
    }

    /** @return of the wave of late, −1 … 1; 0 while there is none */
    private double skewness() {
        double mean = 0;
        double square = 0;
        double cube = 0;
        long n = Math.min(wave.end(), (long) (SKEW_SECONDS * rateHz));
        for (long i = wave.end() - n; i < wave.end(); i++) {
            mean += wave.at(i) / n;
        }
        for (long i = wave.end() - n; i < wave.end(); i++) {
            double off = wave.at(i) - mean;
            square += off * off / n;
            cube += off * off * off / n;
        }
        return square > 0 ? Math.max(-1, Math.min(1, cube / (square * Math.sqrt(square)))) : 0;
    }

    @Override
    public double knownSeconds() {
        return seconds.end() == 0 ? Double.NaN : seconds.between(seconds.end() - 1 - latency - lag) + ON_SECONDS;
    }

    @Override
    public void finish() {
        if (seconds.end() == 0) {
            return;
        }
        double period = 1 / rateHz;
        double last = seconds.at(seconds.end() - 1);
        int more = latency + (int) Math.ceil(lag);
        for (int i = 1; i <= more; i++) {
            seconds.add(last + i * period);
            double clipped = 0;
            for (int k = 0; k < 2; k++) {
                clipped = levelDelay[k].next(clipped) - level[k].next(clipped);
            }
            slope.add(clipped);
            look();
        }
    }

    @Override
    public void reset() {
        smooth.reset();
        smoother.reset();
        slopeDelay.reset();
        for (int i = 0; i < 2; i++) {
            level[i].reset();
            levelDelay[i].reset();
            base[i].reset();
            baseDelay[i].reset();
        }
        slope.clear();
        wave.clear();
        seconds.clear();
    }
}
