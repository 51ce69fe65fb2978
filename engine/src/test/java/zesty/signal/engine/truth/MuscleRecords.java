package zesty.signal.engine.truth;

import static zesty.signal.engine.truth.Sensor.between;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import zesty.signal.core.read.Event;

/**
 * Muscles: noise of a band from 20 to 150 Hz (E. Shwedyk et al. 1977, "A nonstationary model for the electromyogram":
 * amplitude-modulated Gaussian noise), or its envelope as a board makes it.
 */
final class MuscleRecords {
    private MuscleRecords() {}

    /** @return begin, end, height of each pull, the pauses between them from 1 s on */
    private static List<double[]> pulls(Random random, double lasting, double low) {
        List<double[]> pulls = new ArrayList<>();
        double t = between(random, 3, 5);
        while (t < lasting - 6) {
            double end = t + between(random, 0.5, 4);
            pulls.add(new double[] {t, end, between(random, low, 1)});
            t = end + between(random, 1.2, 4);
        }
        return pulls;
    }

    private static double[] effort(double[] t, List<double[]> pulls, double ramp) {
        double[] effort = new double[t.length];
        for (double[] pull : pulls) {
            for (int i = 0; i < t.length; i++) {
                double in = Math.min((t[i] - pull[0]) / ramp, (pull[1] - t[i]) / ramp + 1);
                effort[i] = Math.max(effort[i], pull[2] * Math.max(0, Math.min(1, in)));
            }
        }
        return effort;
    }

    static Record raw(Random random, int hard) {
        double rate = new double[] {500, 1000, 2000}[random.nextInt(3)];
        double[] t = Record.times(rate, 40);
        List<double[]> pulls = pulls(random, 40, hard == 0 ? 0.4 : 0.2);
        double[] effort = effort(t, pulls, 0.02);
        double size = between(random, 60, 250);
        double rest = size * (hard == 0 ? 0.02 : between(random, 0.02, 0.05));
        double[] x = new double[t.length];
        // A band: the difference of two first-order low-passes of the same noise.
        double fast = 1 - Math.exp(-2 * Math.PI * 150 / rate);
        double slow = 1 - Math.exp(-2 * Math.PI * 40 / rate);
        double a = 0;
        double b = 0;
        double gain = 2.6 * Math.sqrt(rate / 1000);
        for (int i = 0; i < x.length; i++) {
            double white = random.nextGaussian();
            a += fast * (white - a);
            b += slow * (a - b);
            x[i] = size * effort[i] * gain * (a - b);
        }
        Sensor.noise(x, rest, random);
        String scene = "raw";
        if (hard > 0) {
            Sensor.wander(x, rate, 0.5, size * 0.3, random);
            Sensor.hum(x, rate, 50, rest * between(random, 0, 2), random);
            if (random.nextInt(3) == 0) {
                scene += ", heart";
                for (double beat = 0.3; beat < 40; beat += 0.8 + 0.03 * random.nextGaussian()) {
                    for (int i = (int) (beat * rate); i < Math.min(x.length, (beat + 0.08) * rate); i++) {
                        double at = i / rate - beat - 0.04;
                        x[i] += 6 * rest * Math.exp(-0.5 * at * at / 0.011 / 0.011);
                    }
                }
            }
        }
        for (int i = 0; i < x.length; i++) {
            x[i] += 512;
        }
        Sensor.counts(x, 0, 1023);
        return new Record("muscle", scene, Map.of("kind", "raw"), rate, t, new double[][] {x}, judge(pulls, 0.12));
    }

    static Record envelope(Random random, int hard) {
        double rate = new double[] {20, 50, 100, 200}[random.nextInt(4)];
        double[] t = Record.times(rate, 60);
        List<double[]> pulls = pulls(random, 60, hard == 0 ? 0.3 : 0.1);
        double[] x = effort(t, pulls, 0.05);
        double size = between(random, 100, 600);
        double offset = between(random, 0, hard == 0 ? 60 : 300);
        double noise = hard == 0 ? 2 : between(random, 1, Math.max(2, 0.012 * size));
        // The board's own smoothing: a first order of 50 to 150 ms.
        double share = 1 - Math.exp(-1 / rate / between(random, 0.05, 0.15));
        double y = 0;
        for (int i = 0; i < x.length; i++) {
            y += share * (x[i] - y);
            x[i] = offset + size * y * (1 + 0.06 * random.nextGaussian());
        }
        Sensor.noise(x, noise, random);
        Sensor.counts(x, 0, 1023);
        return new Record(
                "muscle",
                "envelope over " + Math.round(offset),
                Map.of("kind", "envelope"),
                rate,
                t,
                new double[][] {x},
                judge(pulls, 0.45));
    }

    static Record nothing(Random random, int hard) {
        double rate = 1000;
        double[] t = Record.times(rate, 30);
        double[] x = new double[t.length];
        Sensor.noise(x, between(random, 1, 20), random);
        Sensor.hum(x, rate, 50, hard == 0 ? 0 : between(random, 0, 30), random);
        Sensor.wander(x, rate, 0.3, hard == 0 ? 0 : 20, random);
        Sensor.counts(x, -512, 511);
        return new Record(
                "muscle",
                "rest alone",
                Map.of("kind", "raw"),
                rate,
                t,
                new double[][] {x},
                reading -> reading.events("bursts").isEmpty()
                        ? ""
                        : reading.events("bursts").size() + " pulls where there are none");
    }

    private static Record.Judge judge(List<double[]> pulls, double off) {
        double[] begins = pulls.stream().mapToDouble(p -> p[0]).toArray();
        double[] ends = pulls.stream().mapToDouble(p -> p[1]).toArray();
        return reading -> {
            List<Event> bursts = reading.events("bursts");
            Matching from = Matching.of(
                    begins, bursts.stream().mapToDouble(Event::startSeconds).toArray(), 0.5, 0.5);
            Matching to = Matching.of(
                    ends, bursts.stream().mapToDouble(Event::endSeconds).toArray(), 0.8, 0.8);
            String events = from.objection(0.06, begins.length);
            if (!events.isEmpty()) {
                return "pulls: " + events;
            }
            return Math.abs(from.medianLag()) < off && Math.abs(to.medianLag()) < off + 0.1
                    ? ""
                    : "begins " + from.medianLag() + " s late, ends " + to.medianLag() + " s late";
        };
    }
}
