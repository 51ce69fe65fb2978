package zesty.signal.engine.truth;

import static zesty.signal.engine.truth.Sensor.between;

import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import zesty.signal.core.read.Reading;

/**
 * Pulses. Optical beats are two Gaussian humps (after A. Sološenko et al. 2017, "Photoplethysmogram modelling during
 * paroxysmal atrial fibrillation and sinus rhythm": sums of few humps), electrical ones five (P. E. McSharry et al. 2003,
 * "A dynamical model for generating synthetic electrocardiogram signals"). Intervals wander with breath, or are drawn
 * freely, with pauses.
 */
final class PulseRecords {
    private PulseRecords() {}

    private static double[] beats(Random random, double lasting, boolean irregular, double bpm) {
        double usual = 60 / bpm;
        double breath = between(random, 0.15, 0.35);
        double swing = between(random, 0.01, 0.06);
        double[] at = new double[(int) (lasting * 5)];
        int n = 0;
        double t = between(random, 0, usual);
        while (t < lasting) {
            at[n++] = t;
            double step = usual * (1 + swing * Math.sin(2 * Math.PI * breath * t) + 0.01 * random.nextGaussian());
            if (irregular) {
                step = usual * Math.max(0.55, Math.min(1.9, 1 + 0.22 * random.nextGaussian()));
            }
            t += step;
        }
        return Arrays.copyOf(at, n);
    }

    private static double hump(double t, double width) {
        return Math.abs(t) > 5 * width ? 0 : Math.exp(-0.5 * t * t / width / width);
    }

    private static void add(double[] x, double rateHz, double[] beats, double size, double[][] humps) {
        for (double beat : beats) {
            for (double[] one : humps) {
                int from = (int) Math.max(0, (beat + one[1] - 5 * one[2]) * rateHz);
                int to = (int) Math.min(x.length, (beat + one[1] + 5 * one[2]) * rateHz + 1);
                for (int i = from; i < to; i++) {
                    x[i] += size * one[0] * hump(i / rateHz - beat - one[1], one[2]);
                }
            }
        }
    }

    static Record optical(Random random, int hard) {
        double rate = new double[] {25, 50, 100, 200, 500}[random.nextInt(5)];
        double[] t = Record.times(rate, 60);
        double[] x = new double[t.length];
        boolean irregular = random.nextInt(4) == 0;
        double[] beats = beats(random, 60, irregular, between(random, 48, irregular ? 95 : 130));
        double size = (random.nextInt(4) == 0 ? -1 : 1) * between(random, 30, 200);
        double width = between(random, 0.06, 0.09);
        // Of a quick pulse the second hump comes sooner after the first and is lower.
        double[][] humps = {{1, 0, width}, {between(random, 0.1, 0.4), between(random, 0.24, 0.3), 1.3 * width}};
        add(x, rate, beats, size, humps);
        double noise = Math.abs(size) * (hard == 0 ? 0.01 : between(random, 0.02, 0.08));
        String scene = irregular ? "optical, irregular" : "optical";
        if (hard > 0) {
            Sensor.wander(x, rate, 0.15, Math.abs(size) * between(random, 0.1, 0.6), random);
            if (random.nextInt(3) == 0) {
                scene += ", steps of contact";
                Sensor.steps(x, 2, Math.abs(size) * 4, random);
            }
            if (random.nextInt(4) == 0) {
                scene += ", lamp";
                Sensor.hum(x, rate, 100, Math.abs(size) * 0.1, random);
            }
        }
        Sensor.noise(x, noise, random);
        shift(x, 500);
        Sensor.counts(x, 0, 1023);
        return new Record("pulse", scene, Map.of("kind", "optical"), rate, t, new double[][] {x}, judge(beats, 0.45));
    }

    static Record electrical(Random random, int hard) {
        double rate = new double[] {125, 250, 360, 500, 1000}[random.nextInt(5)];
        double[] t = Record.times(rate, 60);
        double[] x = new double[t.length];
        boolean irregular = random.nextInt(3) == 0;
        double[] beats = beats(random, 60, irregular, between(random, 45, irregular ? 95 : 130));
        double size = (random.nextInt(4) == 0 ? -1 : 1) * between(random, 80, 250);
        double tall = hard == 0 ? between(random, 0.15, 0.4) : between(random, 0.15, 1);
        double[][] humps = {
            {0.12, -0.17, 0.022}, {-0.1, -0.028, 0.009}, {1, 0, 0.011}, {-0.18, 0.028, 0.009}, {tall, 0.24, 0.045}
        };
        add(x, rate, beats, size, humps);
        String scene = (irregular ? "electrical, irregular" : "electrical") + (tall > 0.7 ? ", tall T" : "");
        if (hard > 0) {
            Sensor.wander(x, rate, 0.2, Math.abs(size) * between(random, 0.1, 0.8), random);
            Sensor.hum(x, rate, 50, Math.abs(size) * between(random, 0, 0.3), random);
        }
        Sensor.noise(x, Math.abs(size) * (hard == 0 ? 0.01 : between(random, 0.02, 0.08)), random);
        shift(x, 512);
        Sensor.counts(x, 0, 1023);
        return new Record(
                "pulse", scene, Map.of("kind", "electrical"), rate, t, new double[][] {x}, judge(beats, 0.12));
    }

    /** Nothing is there: noise, wander, hum. */
    static Record nothing(Random random, int hard) {
        boolean optical = random.nextBoolean();
        double rate = optical ? 100 : 250;
        double[] t = Record.times(rate, 60);
        double[] x = new double[t.length];
        Sensor.noise(x, between(random, 0.3, 20), random);
        if (hard > 0) {
            Sensor.wander(x, rate, between(random, 0.1, 3), between(random, 2, 60), random);
            Sensor.hum(x, rate, 50, between(random, 0, 30), random);
        }
        shift(x, 500);
        Sensor.counts(x, 0, 1023);
        return new Record(
                "pulse",
                "nothing there",
                Map.of("kind", optical ? "optical" : "electrical"),
                rate,
                t,
                new double[][] {x},
                reading -> Double.isNaN(reading.scalar("rate_bpm.mean")) || reading.times("beats").length <= 6
                        ? ""
                        : "a pulse of " + reading.scalar("rate_bpm.mean") + " where there is none");
    }

    private static void shift(double[] x, double by) {
        for (int i = 0; i < x.length; i++) {
            x[i] += by;
        }
    }

    /** @param reach how far from its R peak or foot a beat's fixed point may lie, in s */
    private static Record.Judge judge(double[] beats, double reach) {
        double[] steps = new double[beats.length - 1];
        Arrays.setAll(steps, i -> beats[i + 1] - beats[i]);
        double mean = Arrays.stream(steps).average().orElse(0);
        double sdnn =
                Math.sqrt(Arrays.stream(steps).map(s -> (s - mean) * (s - mean)).sum() / (steps.length - 1));
        return reading -> objection(reading, beats, reach, 60 / mean, 1000 * sdnn);
    }

    private static String objection(Reading reading, double[] beats, double reach, double bpm, double sdnn) {
        double[] found = reading.times("beats");
        // What is told to be in doubt is not held against it.
        double[] asked = Arrays.stream(beats)
                .filter(t -> reading.events("doubtful").stream()
                        .noneMatch(one -> t > one.startSeconds() - 0.5 && t < one.endSeconds() + 0.5))
                .toArray();
        double[] answered = Arrays.stream(found)
                .filter(t -> Arrays.stream(asked).anyMatch(a -> Math.abs(a - t) < reach)
                        || Arrays.stream(beats).noneMatch(b -> Math.abs(b - t) < reach))
                .toArray();
        Matching all = Matching.of(asked, answered, Math.min(reach, 0.3), Math.min(reach, 0.3));
        String events = all.objection(0.08, beats.length);
        double rate = reading.scalar("rate_bpm.mean");
        double spread = reading.scalar("interval_ms.sdnn");
        if (!events.isEmpty()) {
            return "beats: " + events;
        } else if (!(Math.abs(rate - bpm) < Math.max(1.5, 0.03 * bpm))) {
            return "rate " + rate + " of " + bpm;
        }
        return Math.abs(spread - sdnn) < Math.max(12, 0.2 * sdnn) ? "" : "sdnn " + spread + " of " + sdnn;
    }
}
