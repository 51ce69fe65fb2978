package zesty.signal.boards.sim;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.Set;

/**
 * A made-up electrical heart signal with its truth. The fast part of a beat is a sum of Hermite functions (L. Sörnmo, P.
 * O. Börjesson, M.-E. Nygårds and O. Pahlm 1981, "A method for evaluation of QRS shape features using a mathematical
 * model for the ECG"), the atria's wave and the slow one after it are raised cosines; early beats are wide, without the
 * atria's wave, and end the other way. Muscles are noise through one resonance, movement is slow and sharp at once. Made
 * without a look at any reader.
 */
public final class HeartSignal {
    private static final double MIDDLE = 2048;
    private static final double HIGH = 620;
    private static final double FAINT = 40;
    private static final double NARROW = 0.012;
    private static final double WIDE = 0.03;
    private static final double REACH = 0.8;

    private final Random random;
    private final Set<PulseMode> modes;
    private final double rateHz;
    private final double amplitude;
    private final BeatTrain train;
    private final List<Double> beats = new ArrayList<>();
    private final List<Double> early = new ArrayList<>();
    private final List<double[]> doubtful = new ArrayList<>();
    private final List<double[]> shapes = new ArrayList<>();
    private long sample;
    private double slow;
    private double slower;
    private double muscle;
    private double muscleBefore;
    private double episode;
    private double jerk;

    /** @param rateHz samples a second */
    public HeartSignal(long seed, double rateHz, Set<PulseMode> modes) {
        random = new Random(seed * 4099 + 5);
        this.modes = Set.copyOf(modes);
        this.rateHz = rateHz;
        amplitude = modes.contains(PulseMode.FAINT) ? FAINT : HIGH;
        train = new BeatTrain(new Random(seed * 4099 + 6), modes);
        episode = 18 + 8 * random.nextDouble();
        if (modes.contains(PulseMode.LIFTED)) {
            doubtful.add(new double[] {30, 60});
        }
    }

    /** @return the next sample, in counts of a twelve-bit converter, whole and within its range */
    public double next() {
        double t = sample++ / rateHz;
        double dt = 1 / rateHz;
        // The wave of the atria is seen before the beat.
        while (t >= train.nextSeconds() - REACH / 2) {
            boolean soon = train.nextIsEarly();
            double at = train.nextSeconds();
            beats.add(at);
            if (soon) {
                early.add(at);
            }
            shapes.add(new double[] {at, soon ? 1 : 0, train.interval()});
            if (shapes.size() > 6) {
                shapes.remove(0);
            }
            train.advance();
        }
        boolean off = modes.contains(PulseMode.LIFTED) && t >= 30 && t < 60;
        double x = 0;
        for (double[] one : shapes) {
            x += off ? 0 : beat(t - one[0], one[1] > 0, one[2]);
        }
        x = modes.contains(PulseMode.UPSIDE) ? -x : x;
        x += off ? 1.4 : 0;
        double corner = 2 * Math.PI * 0.2;
        slow += dt * corner * (Math.sqrt(1 / (corner * dt)) * random.nextGaussian() - slow);
        slower += dt * corner * (slow - slower);
        x += (modes.contains(PulseMode.WANDER) ? 0.9 : 0.06) * slower;
        x += (modes.contains(PulseMode.HUM) ? 0.3 : 0.01) * Math.sin(2 * Math.PI * 49.96 * t);
        x += (modes.contains(PulseMode.GRAIN) ? 0.08 : 0.008) * random.nextGaussian();
        x += modes.contains(PulseMode.MUSCLE) ? muscle(t, dt) : 0;
        x += modes.contains(PulseMode.MOVEMENT) ? movement(t, dt) : 0;
        return Math.max(0, Math.min(4095, Math.rint(MIDDLE + amplitude * x)));
    }

    private double beat(double s, boolean soon, double interval) {
        double width = soon ? WIDE : NARROW;
        double u = s / width;
        double bell = Math.exp(-0.5 * u * u);
        // Hermite functions of order 0, 1 and 2: the peak, its lean, and the dips beside it.
        double fast = soon ? 1.15 * bell * (1 - 0.12 * u * u) + 0.2 * u * bell : bell * (1 - 0.3 * u * u - 0.18 * u);
        double stretch = Math.sqrt(Math.max(0.35, interval) / 0.85);
        double tall = modes.contains(PulseMode.TALL) ? 1 : 0.28;
        double after = (soon ? -0.5 : tall) * cosine(s - 0.27 * stretch, 0.09 * stretch);
        double before = soon ? 0 : 0.12 * cosine(s + 0.16 * stretch, 0.045 * stretch);
        return fast + after + before;
    }

    private static double cosine(double s, double half) {
        return Math.abs(s) < half ? 0.5 + 0.5 * Math.cos(Math.PI * s / half) : 0;
    }

    /** Noise through a resonance at 70 Hz, in bursts of some seconds. */
    private double muscle(double t, double dt) {
        double pole = Math.exp(-2 * Math.PI * 35 * dt);
        double next = 2 * pole * Math.cos(2 * Math.PI * Math.min(70, 0.35 * rateHz) * dt) * muscle
                - pole * pole * muscleBefore
                + (1 - pole) * random.nextGaussian();
        muscleBefore = muscle;
        muscle = next;
        return Math.sin(2 * Math.PI * t / 17) > 0.4 ? 0.35 * muscle : 0.03 * muscle;
    }

    private double movement(double t, double dt) {
        if (t > episode + 4) {
            episode = t + 22 + 12 * random.nextDouble();
        }
        boolean now = t >= episode;
        if (now && (doubtful.isEmpty() || doubtful.get(doubtful.size() - 1)[0] != episode)) {
            doubtful.add(new double[] {episode, episode + 4});
        }
        if (now && random.nextDouble() < 3 * dt) {
            jerk += (random.nextBoolean() ? 1 : -1) * (0.8 + 2 * random.nextDouble());
        }
        jerk -= jerk * dt / 0.25;
        return jerk;
    }

    /** @return the true moments of R so far, early ones among them, in s; also of those that cannot be seen */
    public List<Double> truth() {
        return Collections.unmodifiableList(beats);
    }

    /** @return those that come early */
    public List<Double> early() {
        return Collections.unmodifiableList(early);
    }

    /** @return the stretches in which nobody can know, start and end in s */
    public List<double[]> doubtful() {
        return Collections.unmodifiableList(doubtful);
    }
}
