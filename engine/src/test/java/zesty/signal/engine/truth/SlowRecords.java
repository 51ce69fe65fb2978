package zesty.signal.engine.truth;

import static zesty.signal.engine.truth.Sensor.between;
import static zesty.signal.engine.truth.Sensor.octaves;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;

/** Wind cups, steps of a heater, and levels that cross edges. */
final class SlowRecords {
    private SlowRecords() {}

    static Record wind(Random random, int hard) {
        double rate = new double[] {1, 2, 4}[random.nextInt(3)];
        double lasting = 240;
        double perTurn = 1 + random.nextInt(4);
        double factor = between(random, 0.5, 1.5);
        double mean = between(random, 3, 12);
        double[] fine = new double[(int) (lasting * 50)];
        Sensor.wander(fine, 50, 0.1, mean * between(random, 0.05, 0.25), random);
        double[] t = Record.times(rate, lasting);
        double[] counts = new double[t.length];
        double turned = 0;
        double sum = 0;
        double[] sums = new double[fine.length + 1];
        double done = 0;
        int row = 0;
        for (int i = 0; i < fine.length; i++) {
            double speed = Math.max(0.5, mean + fine[i]);
            sums[i + 1] = sums[i] + speed / 50;
            turned += speed / factor / 50 * perTurn;
            // A row holds the pulses of the interval that ends at it.
            if (row < t.length && (i + 1) / 50.0 >= t[row] + 1e-9) {
                counts[row] = Math.floor(turned) - done;
                done = Math.floor(turned);
                row++;
            }
            sum += speed / fine.length;
        }
        String scene = "counts, " + perTurn + " a turn at " + rate + "/s";
        double[] seconds = t;
        if (hard > 0) {
            // The board stalls: what it counted meanwhile stands in the next row.
            int from = (int) (t.length * between(random, 0.3, 0.6));
            int lost = (int) Math.ceil(between(random, 3, 12) * rate);
            scene += ", a stall of " + lost / rate + " s";
            List<Double> kept = new ArrayList<>();
            List<Double> when = new ArrayList<>();
            double carried = 0;
            for (int i = 0; i < t.length; i++) {
                carried += counts[i];
                if (i < from || i >= from + lost) {
                    kept.add(carried);
                    when.add(t[i]);
                    carried = 0;
                }
            }
            counts = kept.stream().mapToDouble(Double::doubleValue).toArray();
            seconds = when.stream().mapToDouble(Double::doubleValue).toArray();
        }
        double gust = 0;
        for (int i = 150; i < sums.length; i++) {
            gust = Math.max(gust, (sums[i] - sums[i - 150]) / 3);
        }
        double most = gust;
        double average = sum;
        double grain = factor / perTurn / 3;
        return new Record(
                "wind",
                scene,
                Map.of(
                        "input", "count",
                        "factor", Double.toString(factor),
                        "per_turn", Long.toString((long) perTurn)),
                rate,
                seconds,
                new double[][] {counts},
                reading -> {
                    double told = reading.scalar("mean_mps");
                    double high = reading.scalar("gust_mps");
                    if (!(Math.abs(told - average) < Math.max(0.15, 0.04 * average))) {
                        return "mean " + told + " of " + average;
                    }
                    return Math.abs(high - most) < Math.max(1.5 * grain + 0.3, 0.12 * most)
                            ? ""
                            : "gust " + high + " of " + most;
                });
    }

    /** First order with dead time, or two lags in a row; one step or several. */
    static Record step(Random random, int hard) {
        double rate = new double[] {1, 2, 10}[random.nextInt(3)];
        double tau = between(random, 8, 40);
        double second = hard > 0 && random.nextBoolean() ? between(random, 0.1, 0.5) * tau : 0;
        double dead = random.nextBoolean() ? between(random, 0, 10) : 0;
        double gain = between(random, 0.1, 2) * (random.nextInt(4) == 0 ? -1 : 1);
        int steps = 1 + random.nextInt(3);
        double each = 8 * (tau + second) + dead;
        double[] t = Record.times(rate, 30 + steps * each);
        double[] input = new double[t.length];
        double[] output = new double[t.length];
        double y = 0;
        double z = 0;
        int fine = 20;
        for (int i = 0; i < t.length; i++) {
            input[i] = at(t[i], each);
            for (int k = 0; k < fine; k++) {
                double then = (i + (double) k / fine) / rate;
                double drive = gain * at(then - dead, each);
                z = second > 0 ? z + (drive - z) * (1 - Math.exp(-1 / rate / fine / second)) : drive;
                output[i] = 20 + y;
                y += (z - y) * (1 - Math.exp(-1 / rate / fine / tau));
            }
        }
        double size = Math.abs(60 * gain);
        Sensor.noise(output, size * (hard == 0 ? 0.003 : between(random, 0.005, 0.02)), random);
        double lag = tau + second;
        String scene = (second > 0 ? "two lags, " + Math.round(tau) + " and " + Math.round(second) + " s" : "one lag")
                + ", " + steps + " steps";
        return new Record("step", scene, Map.of(), rate, t, new double[][] {input, output}, reading -> {
            double told = reading.scalar("gain");
            double tauTold = reading.scalar("tau_s");
            double deadTold = reading.scalar("dead_s");
            if (!(Math.abs(told / gain - 1) < 0.03)) {
                return "gain " + told + " of " + gain;
            }
            // Of two lags the first-order fit has its dead time and time constant between them; their sum is the delay.
            return Math.abs(tauTold + deadTold - lag - dead) < Math.max(2 / rate, 0.08 * (lag + dead))
                            && (second > 0 || Math.abs(tauTold / tau - 1) < 0.08)
                    ? ""
                    : "tau " + tauTold + ", dead " + deadTold + " of " + tau + " + " + second + ", " + dead;
        });
    }

    private static double at(double t, double each) {
        return t < 30 ? 0 : ((int) ((t - 30) / each)) % 2 == 0 ? 60 : 0;
    }

    static Record noResponse(Random random, int hard) {
        double[] t = Record.times(1, 200);
        double[] input = new double[t.length];
        double[] output = new double[t.length];
        for (int i = 40; i < t.length; i++) {
            input[i] = 60;
        }
        Sensor.noise(output, between(random, 0.05, 2), random);
        return new Record("step", "no power", Map.of(), 1, t, new double[][] {input, output}, reading -> {
            boolean settled = reading.items().stream()
                    .anyMatch(
                            item -> item instanceof Item.Flag flag && flag.key().equals("settled") && flag.value());
            return settled || !Double.isNaN(reading.scalar("tau_s")) ? "a response where there is none" : "";
        });
    }

    /** Bands by the rule of their definition, over uneven rows with a gap. */
    static Record level(Random random, int hard) {
        double rate = octaves(random, 1, 50);
        List<Double> when = new ArrayList<>();
        double at = 0;
        double gapAt = hard == 0 ? Double.POSITIVE_INFINITY : between(random, 30, 60);
        boolean uneven = hard > 0 && random.nextBoolean();
        while (at < 90) {
            when.add(at);
            at += 1 / rate * (uneven ? between(random, 0.7, 1.3) : 1);
            if (at > gapAt) {
                at += between(random, 5, 20);
                gapAt = Double.POSITIVE_INFINITY;
            }
        }
        double[] t = when.stream().mapToDouble(Double::doubleValue).toArray();
        double[] x = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            x[i] = 10 * Math.sin(2 * Math.PI * t[i] / 17);
        }
        Sensor.noise(x, 0.3, random);
        double[] edges = {-5, 0, 5};
        double slack = 0.5;
        double[] held = new double[4];
        List<Double> crossings = new ArrayList<>();
        int band = -1;
        for (int i = 0; i < t.length; i++) {
            if (band < 0) {
                band = 0;
                while (band < 3 && x[i] >= edges[band]) {
                    band++;
                }
            } else {
                int to = band;
                while (to < 3 && x[i] >= edges[to] + slack) {
                    to++;
                }
                while (to > 0 && x[i] < edges[to - 1] - slack) {
                    to--;
                }
                if (to != band) {
                    crossings.add(t[i]);
                    band = to;
                }
            }
            double step = i + 1 < t.length ? t[i + 1] - t[i] : 1 / rate;
            held[band] += step > 1.6 / rate ? 1 / rate : step;
        }
        double[] truth = crossings.stream().mapToDouble(Double::doubleValue).toArray();
        return new Record(
                "level",
                "bands" + (uneven ? ", uneven rows" : "") + (hard > 0 ? ", a gap" : ""),
                Map.of("bands", "-5,0,5", "hysteresis", "1"),
                rate,
                t,
                new double[][] {x},
                reading -> {
                    double[] found = reading.events("crossings").stream()
                            .mapToDouble(Event::startSeconds)
                            .toArray();
                    String events = Matching.of(truth, found, 1e-6, 1e-6).objection(0, truth.length);
                    for (Item item : reading.items()) {
                        if (item instanceof Item.Numbers numbers
                                && numbers.key().equals("time_in_band")) {
                            for (int b = 0; b < held.length; b++) {
                                if (!(Math.abs(numbers.values()[b] - held[b]) < 0.5 + 0.01 * held[b])) {
                                    return "band " + b + " for " + numbers.values()[b] + " s of " + held[b];
                                }
                            }
                        }
                    }
                    return events;
                });
    }
}
