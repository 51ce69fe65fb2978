package zesty.signal.core.read.pulse;

import java.util.Arrays;

/**
 * Candidates of an electrical heart signal: where the slopes of a tenth of a second hold most energy, whichever way they
 * point (slope, squared, integrated over a moving window: J. Pan and W. J. Tompkins 1985, "A real-time QRS detection
 * algorithm"). Around it the highest and the lowest point are looked up: which of the two is R is for the whole to say.
 */
final class ElectricalFinder implements Finder {
    private static final double SLOPE_SECONDS = 0.016;
    private static final double ENERGY_SECONDS = 0.1;
    /** What is compared with other beats, before and after the middle, in s. */
    private static final double HALF_SHAPE = 0.1;

    private static final int POINTS = 25;
    /** A shape may be moved by so many points, 42 ms, to fit another. */
    private static final int SLACK = 5;

    private static final double APART = 0.17;
    /** R is within so much of the middle of the energy, in s. */
    private static final double R_WITHIN = 0.085;
    /** At the end of that way a point has to be higher by this share of the signal's range than one in the middle. */
    private static final double FARTHER = 0.2;
    /** The level that R stands on is taken from so far to either side, in s. */
    private static final double BASE = 0.1;
    /** What lies between beats is looked at from so far before to a little after, in s. */
    private static final double FLOOR_SECONDS = 0.65;

    private final double rateHz;
    private final Found found;
    private final Delay slopeDelay;
    private final double slopeGain;
    private final RunningMean energyMean;
    private final Recent seconds;
    private final Recent even;
    private final Recent slope;
    private final Recent energy;
    private final double slopeLag;
    private final double energyLag;
    private final int apart;
    private final int latency;

    ElectricalFinder(double rateHz, Found found) {
        this.rateHz = rateHz;
        this.found = found;
        int step = (int) Math.max(1, Math.round(SLOPE_SECONDS * rateHz));
        slopeDelay = new Delay(step);
        slopeGain = rateHz / step;
        energyMean = new RunningMean((int) Math.max(1, Math.round(ENERGY_SECONDS * rateHz)));
        slopeLag = step / 2.0;
        energyLag = slopeLag + energyMean.delay();
        apart = (int) Math.max(1, Math.round(APART * rateHz));
        latency = (int) Math.max(apart, Math.ceil(1.5 * HALF_SHAPE * rateHz) + 1);
        int capacity = (int) Math.ceil(4 * rateHz) + 2 * latency + (int) energyLag;
        seconds = new Recent(capacity);
        even = new Recent(capacity);
        slope = new Recent(capacity);
        energy = new Recent(capacity);
    }

    @Override
    public void usualHeight(boolean upward, double height) {
        // Energies are compared, not clipped.
    }

    @Override
    public void next(double value, double time) {
        add(value, (value - slopeDelay.next(value)) * slopeGain, time);
    }

    private void add(double smooth, double steep, double time) {
        seconds.add(time);
        even.add(smooth);
        slope.add(steep);
        energy.add(Math.sqrt(Math.max(0, energyMean.next(steep * steep))));
        long at = energy.end() - 1 - latency;
        // What lies at the beginning is cut off.
        if (at - 1 < energy.start() || at < energyLag + HALF_SHAPE * rateHz) {
            return;
        }
        double y = energy.at(at);
        if (y > 0 && y > energy.at(at - 1) && y >= energy.at(at + 1) && outstanding(at, y)) {
            found.candidate(candidate(at, y), true, knownSeconds());
        }
    }

    private boolean outstanding(long at, double height) {
        for (long i = Math.max(energy.start(), at - apart); i <= at + apart; i++) {
            if (energy.at(i) > height) {
                return false;
            }
        }
        return true;
    }

    private Candidate candidate(long at, double height) {
        // Where the middle of the energy is among the samples and the slopes.
        double middle = at - energyLag;
        double onSlope = at - energyLag + slopeLag;
        long from = Math.max(even.start() + 1, Math.round(middle - R_WITHIN * rateHz));
        long to = Math.min(even.end() - 2, Math.round(middle + R_WITHIN * rateHz));
        double base = 0.5 * (even.between(middle - BASE * rateHz) + even.between(middle + BASE * rateHz));
        long top = extreme(from, to, middle, 1);
        long bottom = extreme(from, to, middle, -1);
        double up = Math.max(0, even.at(top) - base);
        double down = Math.max(0, base - even.at(bottom));
        double[] around = new double[POINTS + 2 * SLACK];
        for (int i = 0; i < around.length; i++) {
            around[i] = slope.between(onSlope + (2.0 * (i - SLACK) / (POINTS - 1) - 1) * HALF_SHAPE * rateHz);
        }
        return new Candidate(
                seconds.between(at - energyLag),
                timeOf(top),
                timeOf(bottom),
                height,
                up + down > 0 ? (up - down) / (up + down) : 0,
                floor(at) / height,
                around,
                SLACK);
    }

    /**
     * @return where the signal is highest (sign 1) or lowest (−1); of two alike the one nearer to the middle, for what
     *     lies flat at the converter's end before or after the beat is as high as a beat that is cut there; of a flat top
     *     its middle
     */
    private long extreme(long from, long to, double middle, int sign) {
        double most = Double.NEGATIVE_INFINITY;
        double least = Double.POSITIVE_INFINITY;
        for (long i = from; i <= to; i++) {
            most = Math.max(most, sign * even.at(i));
            least = Math.min(least, sign * even.at(i));
        }
        double tilt = FARTHER * (most - least) / (R_WITHIN * rateHz);
        long best = from;
        double height = Double.NEGATIVE_INFINITY;
        for (long i = from; i <= to; i++) {
            double here = sign * even.at(i) - tilt * Math.abs(i - middle);
            if (here > height) {
                height = here;
                best = i;
            }
        }
        while (best < to && sign * even.at(best + 1) > sign * even.at(best)) {
            best++;
        }
        while (best > from && sign * even.at(best - 1) > sign * even.at(best)) {
            best--;
        }
        long first = best;
        while (first > from && even.at(first - 1) == even.at(best)) {
            first--;
        }
        while (best < to && even.at(best + 1) == even.at(best)) {
            best++;
        }
        return (first + best) / 2;
    }

    private double timeOf(long extreme) {
        double shift = 0;
        if (extreme - 1 >= even.start() && extreme + 1 < even.end()) {
            double y0 = even.at(extreme - 1);
            double y2 = even.at(extreme + 1);
            double bend = y0 - 2 * even.at(extreme) + y2;
            shift = bend == 0 ? 0 : Math.max(-0.5, Math.min(0.5, (y0 - y2) / (2 * bend)));
        }
        return seconds.between(extreme + shift);
    }

    /** What the energy usually is around a candidate: the value that two fifths of it stay below. */
    private double floor(long at) {
        long from = Math.max(energy.start(), at - Math.round(FLOOR_SECONDS * rateHz));
        long until = Math.min(energy.end() - 1, at + latency);
        long near = Math.round(1.4 * HALF_SHAPE * rateHz);
        int stride = (int) Math.max(1, Math.round(0.01 * rateHz));
        double[] around = new double[(int) ((until - from) / stride) + 1];
        int n = 0;
        for (long i = from; i <= until; i += stride) {
            if (Math.abs(i - at) > near) {
                around[n++] = energy.at(i);
            }
        }
        if (n == 0) {
            return energy.at(at);
        }
        Arrays.sort(around, 0, n);
        return around[n * 2 / 5];
    }

    @Override
    public double knownSeconds() {
        return seconds.end() == 0 ? Double.NaN : seconds.between(seconds.end() - 1 - latency - energyLag);
    }

    @Override
    public void finish() {
        if (seconds.end() == 0) {
            return;
        }
        double last = seconds.at(seconds.end() - 1);
        double level = even.at(even.end() - 1);
        int more = latency + (int) Math.ceil(energyLag);
        for (int i = 1; i <= more; i++) {
            add(level, 0, last + i / rateHz);
        }
    }

    @Override
    public void reset() {
        slopeDelay.reset();
        energyMean.reset();
        seconds.clear();
        even.clear();
        slope.clear();
        energy.clear();
    }
}
