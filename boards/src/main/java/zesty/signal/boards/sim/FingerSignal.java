package zesty.signal.boards.sim;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.Set;

/**
 * A made-up optical pulse as bad as life, with its truth. A beat is the sum of two gamma functions, the pulse that leaves
 * the heart and the one thrown back from below (the two-pulse picture of M. C. Baruch, D. E. Warburton, S. S. Bredin, A.
 * Cote, D. W. Gerdt and C. M. Adkins 2011, "Pulse Decomposition Analysis of the digital arterial pulse during hemorrhage
 * simulation"), with what is asked for of {@link PulseMode} on it. Made without a look at any reader.
 */
public final class FingerSignal {
    private static final double MIDDLE = 512;
    private static final double HIGH = 110;
    private static final double FAINT = 20;
    private static final double TO_TOP = 0.15;
    private static final double THROWN_BACK_AFTER = 0.2;
    private static final double BACK_TO_TOP = 0.16;
    private static final double STEEPNESS = 3;

    private final Random random;
    private final Set<PulseMode> modes;
    private final double rateHz;
    private final double amplitude;
    private final BeatTrain train;
    private final List<Double> tops = new ArrayList<>();
    private final List<double[]> doubtful = new ArrayList<>();
    private final double[] beatAt = new double[4];
    private final double[] beatInterval = new double[4];
    private int beats;
    private long sample;
    private double slow;
    private double slower;
    private double shift;
    private double shiftFades;
    private double nextShift;
    private double tapAt = Double.NaN;
    private double tapSize;
    private double nextTap;

    /** @param rateHz samples a second */
    public FingerSignal(long seed, double rateHz, Set<PulseMode> modes) {
        random = new Random(seed * 6151 + 17);
        this.modes = Set.copyOf(modes);
        this.rateHz = rateHz;
        amplitude = modes.contains(PulseMode.FAINT) ? FAINT : HIGH;
        train = new BeatTrain(new Random(seed * 6151 + 18), modes);
        nextShift = 12 + 8 * random.nextDouble();
        if (modes.contains(PulseMode.TAPPING)) {
            doubtful.add(new double[] {30, 90});
        }
        if (modes.contains(PulseMode.LIFTED)) {
            doubtful.add(new double[] {30, 60});
        }
    }

    /** @return the next sample, in counts of a ten-bit converter, whole and within its range */
    public double next() {
        double t = sample++ / rateHz;
        double dt = 1 / rateHz;
        while (t >= train.nextSeconds()) {
            int cell = beats++ % beatAt.length;
            beatAt[cell] = train.nextSeconds();
            beatInterval[cell] = train.interval();
            double stretch = stretch(train.interval());
            tops.add(train.nextSeconds() + TO_TOP * stretch);
            train.advance();
        }
        boolean off = modes.contains(PulseMode.LIFTED) && t >= 30 && t < 60;
        double x = off ? 4 : pulse(t);
        x = (modes.contains(PulseMode.UPSIDE) ? -1 : 1) * x;
        x += wander(t, dt) + (modes.contains(PulseMode.CONTACT) ? contact(t) : 0);
        x += modes.contains(PulseMode.TAPPING) ? tap(t) : 0;
        x += modes.contains(PulseMode.HUM) ? 0.4 * Math.sin(2 * Math.PI * 50.03 * t + 1) : 0;
        x += (modes.contains(PulseMode.GRAIN) ? 0.25 : 0.015) * random.nextGaussian();
        return Math.max(0, Math.min(1023, Math.rint(MIDDLE + amplitude * x)));
    }

    private static double stretch(double interval) {
        return Math.max(0.6, Math.min(1.15, Math.sqrt(interval / 0.85)));
    }

    private double pulse(double t) {
        double sum = 0;
        for (int i = 0; i < Math.min(beats, beatAt.length); i++) {
            double stretch = stretch(beatInterval[i]);
            double s = (t - beatAt[i]) / stretch;
            double back = modes.contains(PulseMode.HUMPS) ? 0.7 : 0.3;
            double wave = gamma(s, TO_TOP) + back * gamma(s - THROWN_BACK_AFTER, BACK_TO_TOP);
            double breath = modes.contains(PulseMode.BREATH) ? 0.3 * BeatTrain.breath(beatAt[i]) : 0;
            sum += (1 + breath) * wave;
        }
        return sum - 0.5;
    }

    /** Rises from 0 at 0 to 1 at {@code top}, and falls more slowly. */
    private static double gamma(double s, double top) {
        if (s <= 0) {
            return 0;
        }
        double share = s / top;
        return Math.pow(share * Math.exp(1 - share), STEEPNESS);
    }

    /** Noise through two slow low-passes, most of it below 0.3 Hz. */
    private double wander(double t, double dt) {
        double size = modes.contains(PulseMode.WANDER) ? 1.6 : 0.15;
        double corner = 2 * Math.PI * 0.12;
        slow += dt * corner * (Math.sqrt(1 / (corner * dt)) * random.nextGaussian() - slow);
        slower += dt * corner * (slow - slower);
        return size * (2 * slower + 0.35 * BeatTrain.breath(t));
    }

    private double contact(double t) {
        if (t >= nextShift) {
            shift += (random.nextBoolean() ? 1 : -1) * (1 + 2 * random.nextDouble());
            shiftFades = 0.5 + 2 * random.nextDouble();
            doubtful.add(new double[] {nextShift - 0.3, nextShift + 2});
            nextShift += 12 + 10 * random.nextDouble();
        }
        shift -= shift / (rateHz * Math.max(0.5, shiftFades));
        return shift;
    }

    private double tap(double t) {
        if (t < 30 || t > 90) {
            return 0;
        }
        if (t >= nextTap) {
            tapAt = t;
            tapSize = (random.nextInt(3) == 0 ? -1 : 1) * (1.5 + 2.5 * random.nextDouble());
            nextTap = t + 0.2 + 0.4 * random.nextDouble();
        }
        double s = (t - tapAt) / 0.05;
        return tapSize * s * Math.exp(1 - s) * Math.cos(2.2 * s);
    }

    /** @return the true tops of the first wave of each beat so far, in s; also of those that cannot be seen */
    public List<Double> truth() {
        return Collections.unmodifiableList(tops);
    }

    /** @return the stretches in which nobody can know, start and end in s */
    public List<double[]> doubtful() {
        return Collections.unmodifiableList(doubtful);
    }
}
