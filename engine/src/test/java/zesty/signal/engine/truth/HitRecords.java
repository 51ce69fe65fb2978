package zesty.signal.engine.truth;

import static zesty.signal.engine.truth.Sensor.between;
import static zesty.signal.engine.truth.Sensor.octaves;

import java.util.Arrays;
import java.util.Map;
import java.util.Random;

/** Strikes on something that rings: decaying sines (P. M. Morse and K. U. Ingard 1968, "Theoretical Acoustics"), one mode or two. */
final class HitRecords {
    private HitRecords() {}

    static Record strikes(Random random, int hard) {
        double rate = new double[] {500, 1000, 4000, 10_000, 20_000}[random.nextInt(5)];
        double lasting = rate > 5000 ? 12 : 30;
        double[] t = Record.times(rate, lasting);
        double[] x = new double[t.length];
        double noise = between(random, 0.5, 2);
        double hz = octaves(random, 40, 0.2 * rate);
        double decay = octaves(random, Math.max(0.003, 0.8 / hz), 0.06);
        double size = between(random, 150, 450);
        double least = Math.max(14 * noise / size, hard == 0 ? 1.0 / 6 : 1.0 / 20);
        double[] at = new double[200];
        double[] height = new double[200];
        int n = 0;
        double when = between(random, 0.5, 1);
        while (when < lasting - 0.6) {
            double high = random.nextInt(3) == 0 ? octaves(random, least, 1) : between(random, 0.6, 1);
            at[n] = when;
            height[n++] = high;
            // The next may come soon, but not before the ringing has fallen well below it.
            when += Math.max(0.08, 6 * decay) + Math.min(3, -Math.log(1 - random.nextDouble()) * 0.5);
        }
        double second = hard > 0 && random.nextInt(3) == 0 ? between(random, 1.08, 1.3) : 0;
        for (int k = 0; k < n; k++) {
            int from = (int) Math.ceil(at[k] * rate);
            for (int i = from; i < Math.min(x.length, from + 10 * decay * rate); i++) {
                double s = i / rate - at[k];
                double modes = Math.cos(2 * Math.PI * hz * s);
                if (second > 0) {
                    modes = 0.6 * modes + 0.4 * Math.cos(2 * Math.PI * hz * second * s);
                }
                x[i] += size * height[k] * Math.exp(-s / decay) * modes;
            }
        }
        if (hard > 0) {
            Sensor.wander(x, rate, 0.5, noise, random);
        }
        Sensor.noise(x, noise, random);
        Sensor.counts(x, -512, 511);
        double[] truth = Arrays.copyOf(at, n);
        return new Record(
                "hits",
                "strikes down to 1:" + Math.round(1 / least) + ", ringing for " + Math.round(3000 * decay) + " ms"
                        + (second > 0 ? ", two modes" : ""),
                Map.of(),
                rate,
                t,
                new double[][] {x},
                reading -> Matching.of(truth, reading.times("hits"), 0.01, 0.04).objection(0.05, truth.length));
    }

    static Record nothing(Random random, int hard) {
        double rate = new double[] {1000, 4000}[random.nextInt(2)];
        double[] t = Record.times(rate, 20);
        double[] x = new double[t.length];
        Sensor.noise(x, between(random, 0.5, 20), random);
        Sensor.wander(x, rate, 2, hard == 0 ? 0 : 10, random);
        Sensor.counts(x, -512, 511);
        return new Record(
                "hits",
                "noise alone",
                Map.of(),
                rate,
                t,
                new double[][] {x},
                reading -> reading.times("hits").length <= 1
                        ? ""
                        : reading.times("hits").length + " hits where there are none");
    }
}
