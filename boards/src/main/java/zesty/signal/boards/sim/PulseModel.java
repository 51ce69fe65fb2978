package zesty.signal.boards.sim;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;

/**
 * A made-up optical pulse signal with its truth. A beat is a systolic rise and fall with a second, lower hump; the rate
 * wanders and follows the breath; the level wanders, mains hums, noise is added, and now and then the finger slips.
 */
public final class PulseModel {
    /** From the start of a beat to the top of its systolic wave, in s. */
    private static final double TO_TOP = 0.16;

    private static final double RISE = 0.055;
    private static final double FALL = 0.105;
    private static final double HUMP_AFTER = 0.21;
    private static final double HUMP_WIDTH = 0.085;
    private static final double SHORTEST = 60.0 / 205;

    /**
     * @param seed the same seed gives the same signal
     * @param rateHz samples a second
     * @param beatsPerMinute about which the rate wanders
     * @param finger whether a finger is on the sensor
     * @param slips whether it slips now and then
     * @param amplitude of the pulse, in counts; negative for a sensor that reads less when more blood is there
     * @param noise standard deviation, in counts
     * @param hum of the mains at 50 Hz, in counts
     */
    public record Settings(
            long seed,
            double rateHz,
            double beatsPerMinute,
            boolean finger,
            boolean slips,
            double amplitude,
            double noise,
            double hum) {

        public static Settings usual(long seed) {
            return new Settings(seed, 200, 74, true, true, 118, 2.5, 4);
        }

        public Settings withRate(double hz) {
            return new Settings(seed, hz, beatsPerMinute, finger, slips, amplitude, noise, hum);
        }

        public Settings withBeats(double perMinute) {
            return new Settings(seed, rateHz, perMinute, finger, slips, amplitude, noise, hum);
        }

        public Settings withFinger(boolean on) {
            return new Settings(seed, rateHz, beatsPerMinute, on, slips, amplitude, noise, hum);
        }

        public Settings withSlips(boolean some) {
            return new Settings(seed, rateHz, beatsPerMinute, finger, some, amplitude, noise, hum);
        }

        public Settings withSignal(double counts, double noiseCounts, double humCounts) {
            return new Settings(seed, rateHz, beatsPerMinute, finger, slips, counts, noiseCounts, humCounts);
        }
    }

    private final Settings settings;
    private final Random beats;
    private final Random noise;
    private final Random slip;
    private final List<Double> tops = new ArrayList<>();
    private final List<double[]> slipped = new ArrayList<>();

    private long sample;
    private double onset;
    private double interval;
    private double previousOnset = -10;
    private double previousInterval = 0.8;
    private double strength = 1;
    private double previousStrength = 1;
    private double wander;
    private double shove;
    private double slipStart;
    private double slipEnd;

    public PulseModel(Settings settings) {
        this.settings = settings;
        beats = new Random(settings.seed() * 31 + 1);
        noise = new Random(settings.seed() * 31 + 2);
        slip = new Random(settings.seed() * 31 + 3);
        onset = 0.1 + 0.3 * beats.nextDouble();
        interval = nextInterval(onset);
        planSlip(0);
        if (settings.finger()) {
            tops.add(onset + TO_TOP);
        }
    }

    private void planSlip(double after) {
        slipStart = after + 35 + 50 * slip.nextDouble();
        slipEnd = slipStart + 2.5 + 2.5 * slip.nextDouble();
    }

    private double nextInterval(double at) {
        double rate = settings.beatsPerMinute()
                * (1
                        + 0.05 * Math.sin(2 * Math.PI * at / 47 + settings.seed())
                        + 0.03 * breath(at)
                        + 0.012 * beats.nextGaussian());
        return Math.max(SHORTEST, 60 / rate);
    }

    private static double breath(double at) {
        return Math.sin(2 * Math.PI * 0.23 * at);
    }

    /** @return the next sample, in counts, not yet rounded or clipped; about 512 without a signal */
    public double next() {
        double t = sample++ / settings.rateHz();
        while (t >= onset + interval) {
            previousOnset = onset;
            previousInterval = interval;
            previousStrength = strength;
            onset += interval;
            interval = nextInterval(onset);
            strength = 1 + 0.06 * beats.nextGaussian();
            if (settings.finger()) {
                tops.add(onset + TO_TOP);
            }
        }
        double dt = 1 / settings.rateHz();
        wander += -wander * dt / 8 + 14 * Math.sqrt(2 * dt / 8) * noise.nextGaussian();
        double hum = settings.hum() * Math.sin(2 * Math.PI * 50.02 * t + 0.4);
        double value = 512 + hum + settings.noise() * noise.nextGaussian();
        if (!settings.finger()) {
            return value - 400;
        }
        double pulse =
                strength * wave(t - onset, interval) + previousStrength * wave(t - previousOnset, previousInterval);
        double on = slipping(t, dt);
        return value + wander + 12 * breath(t) + on * settings.amplitude() * pulse * (1 + 0.08 * breath(t)) + shove;
    }

    /** @return how much of the pulse still reaches the sensor; moves {@link #shove} while the finger slips */
    private double slipping(double t, double dt) {
        if (!settings.slips()) {
            return 1;
        }
        if (t > slipEnd) {
            slipped.add(new double[] {slipStart, slipEnd});
            planSlip(slipEnd);
        }
        boolean now = t >= slipStart;
        double target = now ? 160 * Math.sin(9 * (t - slipStart)) * Math.sin(2.3 * (t - slipStart)) - 120 : 0;
        shove += (target - shove) * Math.min(1, dt / 0.12);
        return now ? 0.35 : 1;
    }

    private static double wave(double sinceOnset, double interval) {
        // A fast heart's waves are shorter, by about the square root of the interval.
        double stretch = Math.min(1.15, Math.sqrt(interval / 0.8));
        double fromTop = (sinceOnset - TO_TOP) / stretch;
        double width = fromTop < 0 ? RISE : FALL;
        double systolic = Math.exp(-0.5 * fromTop * fromTop / (width * width));
        double fromHump = fromTop - HUMP_AFTER;
        return systolic + 0.34 * Math.exp(-0.5 * fromHump * fromHump / (HUMP_WIDTH * HUMP_WIDTH));
    }

    /** @return the true times of the systolic tops so far, in s from the first sample */
    public List<Double> truth() {
        return Collections.unmodifiableList(tops);
    }

    /** @return the stretches in which the finger slipped so far, start and end in s */
    public List<double[]> slips() {
        return Collections.unmodifiableList(slipped);
    }
}
