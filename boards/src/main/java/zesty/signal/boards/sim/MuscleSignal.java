package zesty.signal.boards.sim;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;

/**
 * A forearm as electrodes on it see it: motor units of growing size that join as the force grows, each firing at its own
 * pace (A. J. Fuglevand, D. A. Winter and A. E. Patla 1993, "Models of recruitment and rate coding organization in
 * motor-unit pools"), with shapes of the first Hermite order (L. Lo Conte, R. Merletti and G. Sandri 1994, "Hermite
 * expansions of compact support waveforms"), which widen as the muscle tires. Written without regard to any reader; knows
 * its own truth.
 */
public final class MuscleSignal {
    /** A pull of the hand. @param force 0 … 1, of the hardest */
    public record Pull(double fromSeconds, double toSeconds, double force) {}

    private static final int UNITS = 50;
    /** Of the biggest unit to the smallest. */
    private static final double SIZES = 25;
    /** With the hardest pull all units are in and the signal has this RMS, in counts. */
    private static final double HARDEST = 30_000;

    private static final double USUAL_NOISE = 400;
    private static final double REACH_SECONDS = 0.02;

    private final Random random;
    private final Set<MuscleMode> modes;
    private final double rateHz;
    private final double[] size = new double[UNITS];
    private final double[] threshold = new double[UNITS];
    private final double[] width = new double[UNITS];
    private final double[] next = new double[UNITS];
    private final double[] ring;
    private final List<Pull> pulls = new ArrayList<>();
    private final double gain;
    private final double noise;
    private long sample;
    private Pull now;
    private double tired;
    private double motor;
    private double motorUntil;
    private double looseUntil = -1;
    private double nextLoose = 12;
    private double level;
    private double beat = 0.4;
    private double effort;

    /** Pulls that are known beforehand, in order; null where they come by chance. */
    private final List<Pull> plan;

    MuscleSignal(long seed, double rateHz, Set<MuscleMode> modes) {
        this(seed, rateHz, modes, null);
    }

    /** @return a forearm that pulls as planned and then rests */
    public static MuscleSignal planned(long seed, double rateHz, Set<MuscleMode> modes, List<Pull> plan) {
        return new MuscleSignal(seed, rateHz, modes, List.copyOf(plan));
    }

    private MuscleSignal(long seed, double rateHz, Set<MuscleMode> modes, List<Pull> plan) {
        this.plan = plan;
        random = new Random(seed * 104_729 + 3);
        this.rateHz = rateHz;
        this.modes = modes;
        ring = new double[(int) Math.ceil(2 * REACH_SECONDS * rateHz) + 2];
        double squares = 0;
        for (int u = 0; u < UNITS; u++) {
            double share = (double) u / UNITS;
            size[u] = Math.exp(Math.log(SIZES) * share) * (random.nextBoolean() ? 1 : -1);
            threshold[u] = 0.6 * (Math.exp(Math.log(30) * share) - 1) / 29;
            width[u] = 0.0018 + 0.0014 * random.nextDouble();
            // A shape's square, integrated, times how often it comes.
            squares += size[u] * size[u] * width[u] * Math.sqrt(Math.PI) / 2 * (8 + 25 * (1 - threshold[u]));
        }
        double decibels = (modes.contains(MuscleMode.ELBOW) ? -8 : 0) + (modes.contains(MuscleMode.WRIST) ? -14 : 0);
        gain = HARDEST * Math.pow(10, decibels / 20) / Math.sqrt(squares);
        // Rest lies 8 dB below a pull of half the force when it is weak.
        noise = modes.contains(MuscleMode.WEAK) ? 0.4 * 0.6 * HARDEST : USUAL_NOISE;
        now = planned(1.5);
    }

    private Pull planned(double after) {
        if (plan != null) {
            return pulls.size() < plan.size()
                    ? plan.get(pulls.size())
                    : new Pull(Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, 0);
        }
        double from = after + 1 + 2 * random.nextDouble();
        boolean held = modes.contains(MuscleMode.TIRES) && pulls.size() % 4 == 3;
        // The first pull is the hardest; a weak signal's pulls are all about as hard.
        double force = pulls.isEmpty()
                ? 1
                : modes.contains(MuscleMode.WEAK) ? 0.5 + 0.1 * random.nextDouble() : 0.25 + 0.6 * random.nextDouble();
        return new Pull(from, from + (held ? 25 : 1 + 2 * random.nextDouble()), held ? 0.6 : force);
    }

    /** @return the pulls that have begun, in order */
    public List<Pull> pulls() {
        return List.copyOf(pulls);
    }

    /** @return force of the hand now, 0 … 1 */
    double effort() {
        return effort;
    }

    /** @return duty of the winch motor now, 0 … 100 % */
    double motor() {
        return motor;
    }

    /** @return the next sample, in counts about 0 */
    public double next() {
        double t = sample / rateHz;
        if (t > now.toSeconds() + 0.3) {
            now = planned(now.toSeconds());
        }
        boolean in = t >= now.fromSeconds() && t < now.toSeconds();
        if (in && (pulls.isEmpty() || pulls.get(pulls.size() - 1) != now)) {
            pulls.add(now);
            for (int u = 0; u < UNITS; u++) {
                next[u] = t + 0.03 * random.nextDouble();
            }
        }
        effort = in ? now.force() : 0;
        // Widths grow by about a quarter in 25 s of a pull of 0.6.
        tired += in && modes.contains(MuscleMode.TIRES) ? effort / 60 / rateHz : -tired / 20 / rateHz;
        for (int u = 0; in && u < UNITS; u++) {
            while (effort > threshold[u] && next[u] < t + 1 / rateHz) {
                fire(u, next[u]);
                double hz = 8 + 25 * (effort - threshold[u]);
                next[u] += Math.max(0.3, 1 + 0.2 * random.nextGaussian()) / hz;
            }
        }
        int at = (int) (sample % ring.length);
        double muscle = gain * ring[at];
        ring[at] = 0;
        sample++;
        return spoilt(t, muscle);
    }

    private void fire(int unit, double at) {
        double wide = width[unit] * (1 + tired);
        double first = Math.ceil(at * rateHz);
        // The shape comes whole after the moment it fires at.
        for (int k = 0; k < 2 * REACH_SECONDS * rateHz; k++) {
            double u = ((first + k) / rateHz - at - REACH_SECONDS / 2) / wide;
            long index = (long) first + k;
            if (index >= sample && index < sample + ring.length) {
                ring[(int) (index % ring.length)] += size[unit] * Math.sqrt(2) * u * Math.exp(-u * u / 2);
            }
        }
    }

    private double spoilt(double t, double muscle) {
        double x = muscle + noise * random.nextGaussian();
        double mains =
                modes.contains(MuscleMode.HUM) ? 3 * noise : modes.contains(MuscleMode.WRIST) ? 8 * noise : 0.1 * noise;
        x += Math.sqrt(2) * mains * (Math.sin(2 * Math.PI * 50.02 * t) + 0.3 * Math.sin(2 * Math.PI * 150.06 * t));
        if (modes.contains(MuscleMode.MOTOR)) {
            if (t > motorUntil) {
                motor = motor > 0 ? 0 : 40 + 20 * random.nextInt(4);
                motorUntil = t + 1.5 + 3 * random.nextDouble();
            }
            // Brushes make a comb of sparks, the more the harder it works.
            double turn = t * (90 + motor) % 1;
            x += motor / 100 * (3 * noise * random.nextGaussian() + (turn < 0.15 ? 8 * noise : 0));
        }
        if (modes.contains(MuscleMode.HEART)) {
            beat -= 1 / rateHz;
            beat += beat < -0.5 ? 0.9 + 0.05 * random.nextGaussian() : 0;
            x += 9 * noise * Math.exp(-0.5 * beat * beat / 0.0001);
        }
        if (modes.contains(MuscleMode.LOOSE)) {
            if (t > nextLoose) {
                looseUntil = t + 0.3 + random.nextDouble();
                nextLoose = looseUntil + 6 + 8 * random.nextDouble();
                level = (random.nextBoolean() ? 1 : -1) * 400_000;
            }
            level *= t < looseUntil ? 1 : Math.exp(-1 / (0.15 * rateHz));
            x = t < looseUntil ? level + 6 * noise * Math.sin(2 * Math.PI * 50.02 * t) : x + level;
        }
        return x;
    }
}
