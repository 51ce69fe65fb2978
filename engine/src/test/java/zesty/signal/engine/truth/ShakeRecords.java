package zesty.signal.engine.truth;

import static zesty.signal.engine.truth.Sensor.between;
import static zesty.signal.engine.truth.Sensor.octaves;

import java.util.Map;
import java.util.Random;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;

/** Lines in noise, for vibration and sound. */
final class ShakeRecords {
    private ShakeRecords() {}

    static Record lines(Random random, int hard) {
        double rate = new double[] {100, 400, 1600, 3200}[random.nextInt(4)];
        double lasting = between(random, 8, 30);
        double[] t = Record.times(rate, lasting);
        double[] x = new double[t.length];
        double first = hard == 0 ? octaves(random, 0.02 * rate, 0.3 * rate) : octaves(random, 20 / lasting, 0.3 * rate);
        // A second line further away than the record can just tell apart.
        double apart = hard == 0 ? between(random, 0.05, 0.5) * first : between(random, 6, 60) / lasting;
        double other = Math.min(0.45 * rate, first + Math.max(apart, 6 / lasting));
        double size = between(random, 0.1, 1);
        double ratio = between(random, 0.4, 1);
        Sensor.hum(x, rate, 0, 0, random);
        double p1 = between(random, 0, 6.28);
        double p2 = between(random, 0, 6.28);
        for (int i = 0; i < x.length; i++) {
            x[i] += size * Math.sin(2 * Math.PI * first * t[i] + p1)
                    + ratio * size * Math.sin(2 * Math.PI * other * t[i] + p2);
        }
        Sensor.noise(x, size * (hard == 0 ? 0.02 : between(random, 0.05, 0.3)), random);
        double squares = 0;
        for (double value : x) {
            squares += value * value / x.length;
        }
        double rms = Math.sqrt(squares);
        return new Record(
                "vibration",
                "lines " + Math.round(100 * (other - first)) / 100.0 + " Hz apart over " + Math.round(lasting) + " s",
                Map.of("peaks", "2"),
                rate,
                t,
                new double[][] {x},
                reading -> objection(reading, rms, new double[][] {{first, size}, {other, ratio * size}}, lasting));
    }

    private static String objection(Reading reading, double rms, double[][] lines, double lasting) {
        double told = reading.scalar("rms");
        if (!(Math.abs(told / rms - 1) < 0.02)) {
            return "rms " + told + " of " + rms;
        }
        for (double[] line : lines) {
            double nearest = Double.NaN;
            double amplitude = Double.NaN;
            for (Item item : reading.items()) {
                if (item instanceof Item.Records records && records.key().equals("peaks")) {
                    for (double[] peak : records.records()) {
                        if (!(Math.abs(peak[0] - line[0]) >= Math.abs(nearest - line[0]))) {
                            nearest = peak[0];
                            amplitude = peak[1];
                        }
                    }
                }
            }
            if (!(Math.abs(nearest - line[0]) < Math.max(0.7 / lasting, 0.003 * line[0]))
                    || !(Math.abs(amplitude / line[1] - 1) < 0.15)) {
                return "line " + nearest + " Hz, " + amplitude + " of " + line[0] + " Hz, " + line[1];
            }
        }
        return "";
    }

    static Record tone(Random random, int hard) {
        double rate = new double[] {8000, 16_000}[random.nextInt(2)];
        double[] t = Record.times(rate, 3);
        double[] x = new double[t.length];
        double hz = octaves(random, 60, 1200);
        double size = between(random, 100, 400);
        int partials = 1 + random.nextInt(6);
        int strongest = random.nextInt(Math.min(3, partials));
        for (int k = 1; k <= partials && k * hz < 0.45 * rate; k++) {
            double high = size * (k - 1 == strongest ? 1 : between(random, 0.1, 0.6)) / partials;
            double phase = between(random, 0, 6.28);
            for (int i = 0; i < x.length; i++) {
                x[i] += high * Math.sin(2 * Math.PI * k * hz * t[i] + phase);
            }
        }
        Sensor.noise(x, size * (hard == 0 ? 0.005 : between(random, 0.01, 0.1)), random);
        return new Record("tone", partials + " partials", Map.of(), rate, t, new double[][] {x}, reading -> {
            double told = reading.scalar("hz");
            return Math.abs(told / hz - 1) < 0.01 ? "" : told + " Hz of " + hz;
        });
    }

    /** Hiss, or two tones that have nothing to do with each other. */
    static Record noTone(Random random, int hard) {
        double rate = 8000;
        double[] t = Record.times(rate, 3);
        double[] x = new double[t.length];
        boolean two = random.nextBoolean();
        double first = octaves(random, 200, 900);
        // Far from ratios of small whole numbers, of which both would be partials.
        double other = first * (random.nextBoolean() ? between(random, 1.365, 1.47) : between(random, 1.53, 1.64));
        double ratio = between(random, 0.7, 1);
        for (int i = 0; i < x.length && two; i++) {
            x[i] = Math.sin(2 * Math.PI * first * t[i]) + ratio * Math.sin(2 * Math.PI * other * t[i]);
        }
        Sensor.noise(x, two ? 0.02 + 0.05 * hard : 1, random);
        return new Record(
                "tone", two ? "two unrelated tones" : "hiss", Map.of(), rate, t, new double[][] {x}, reading -> {
                    double confidence = reading.scalar("confidence");
                    return confidence < 0.5 || Double.isNaN(confidence) ? "" : "confidence " + confidence;
                });
    }
}
