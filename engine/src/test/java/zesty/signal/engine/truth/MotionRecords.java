package zesty.signal.engine.truth;

import static zesty.signal.engine.truth.Sensor.between;

import java.util.Map;
import java.util.Random;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;

/** A unit that leans, is carried by somebody walking, or lies in a car. */
final class MotionRecords {
    private MotionRecords() {}

    /** Roll and pitch swing slowly; six axes with noise and a gyro that reads a little at rest. */
    static Record lean(Random random, int hard) {
        double rate = new double[] {25, 50, 100}[random.nextInt(3)];
        double[] t = Record.times(rate, 40);
        double[][] x = new double[6][t.length];
        double rolls = between(random, 5, 35);
        double pitches = between(random, 2, 15);
        double w1 = 2 * Math.PI / between(random, 3, 10);
        double w2 = 2 * Math.PI / between(random, 3, 10);
        double[] roll = new double[t.length];
        double[] pitch = new double[t.length];
        double drift = hard == 0 ? 0 : between(random, -1, 1);
        for (int i = 0; i < t.length; i++) {
            double r = Math.toRadians(rolls * Math.sin(w1 * t[i]));
            double p = Math.toRadians(pitches * Math.sin(w2 * t[i] + 1));
            roll[i] = Math.toDegrees(r);
            pitch[i] = Math.toDegrees(p);
            x[0][i] = -Math.sin(p);
            x[1][i] = Math.cos(p) * Math.sin(r);
            x[2][i] = Math.cos(p) * Math.cos(r);
            double rr = rolls * w1 * Math.cos(w1 * t[i]);
            double pp = pitches * w2 * Math.cos(w2 * t[i] + 1);
            x[3][i] = rr + drift;
            x[4][i] = pp * Math.cos(r);
            x[5][i] = -pp * Math.sin(r);
        }
        for (int c = 0; c < 6; c++) {
            Sensor.noise(x[c], (c < 3 ? 0.005 : 0.3) * (hard == 0 ? 1 : 4), random);
        }
        return new Record("motion", "leaning", Map.of(), rate, t, x, reading -> {
            double off = Math.max(rms(reading, "roll_deg", roll), rms(reading, "pitch_deg", pitch));
            return off < 3 ? still(reading) : "lean off by " + off + "°";
        });
    }

    private static double rms(Reading reading, String key, double[] truth) {
        for (Item item : reading.items()) {
            double[] told = item instanceof Item.Numbers numbers && item.key().equals(key)
                    ? numbers.values()
                    : item instanceof Item.Trace trace && item.key().equals(key) ? trace.values() : null;
            if (told != null) {
                double sum = 0;
                int n = Math.min(told.length, truth.length);
                for (int i = n / 10; i < n; i++) {
                    sum += (told[i] - truth[i]) * (told[i] - truth[i]) / (n - n / 10);
                }
                return Math.sqrt(sum);
            }
        }
        return Double.NaN;
    }

    private static String still(Reading reading) {
        return reading.scalar("steps") > 2 ? reading.scalar("steps") + " steps of nobody" : "";
    }

    /** Trunk acceleration has a hump a step (W. Zijlstra and A. L. Hof 2003). */
    static Record walk(Random random, int hard) {
        double rate = new double[] {25, 50, 100}[random.nextInt(3)];
        double[] t = Record.times(rate, 40);
        double[][] x = new double[3][t.length];
        double pace = between(random, 1.5, 2.4);
        double strength = between(random, 0.15, 0.45);
        double phase = 0;
        int steps = 0;
        for (int i = 0; i < t.length; i++) {
            boolean walking = t[i] > 5 && t[i] < 35;
            if (walking) {
                double before = phase;
                phase += pace / rate * (1 + 0.03 * random.nextGaussian());
                steps += Math.floor(phase) > Math.floor(before) ? 1 : 0;
                x[2][i] = 1
                        + strength * Math.sin(2 * Math.PI * phase)
                        + 0.3 * strength * Math.sin(4 * Math.PI * phase + 1);
                x[0][i] = 0.3 * strength * Math.sin(2 * Math.PI * phase + 0.7);
            } else {
                x[2][i] = 1;
            }
        }
        for (double[] axis : x) {
            Sensor.noise(axis, hard == 0 ? 0.01 : 0.04, random);
        }
        int taken = steps;
        return new Record("motion", "walking", Map.of(), rate, t, x, reading -> {
            double told = reading.scalar("steps");
            return Math.abs(told - taken) <= Math.max(2, 0.06 * taken) ? "" : told + " steps of " + taken;
        });
    }

    /** A car: the body on its springs, 1 to 2 Hz, driven by the road, and the engine above. */
    static Record car(Random random, int hard) {
        double rate = new double[] {25, 50, 100}[random.nextInt(3)];
        double[] t = Record.times(rate, 40);
        double[][] x = new double[3][t.length];
        double hz = between(random, 1, 2);
        double r = Math.exp(-0.25 * 2 * Math.PI * hz / rate);
        double c = 2 * r * Math.cos(2 * Math.PI * hz / rate);
        for (int axis = 0; axis < 3; axis++) {
            double a = 0;
            double b = 0;
            double squares = 0;
            for (int i = 0; i < t.length; i++) {
                double y = c * a - r * r * b + random.nextGaussian();
                b = a;
                a = y;
                x[axis][i] = y;
                squares += y * y / t.length;
            }
            double size = between(random, 0.02, 0.06 + 0.06 * hard) * (axis == 2 ? 1 : 0.4) / Math.sqrt(squares);
            for (int i = 0; i < t.length; i++) {
                x[axis][i] = size * x[axis][i] + (axis == 2 ? 1 : 0);
            }
            Sensor.hum(x[axis], rate, between(random, 7, 11), between(random, 0.01, 0.08), random);
            Sensor.noise(x[axis], 0.02, random);
        }
        return new Record("motion", "in a car", Map.of(), rate, t, x, MotionRecords::still);
    }

    /** It lies, is lifted and held in the hand. */
    static Record pickUp(Random random, int hard) {
        double rate = new double[] {50, 100}[random.nextInt(2)];
        double[] t = Record.times(rate, 20);
        double[][] x = new double[3][t.length];
        double at = between(random, 5, 12);
        double lasts = between(random, 0.5, 1.2);
        double tilt = Math.toRadians(between(random, 15, 70));
        double[] hand = new double[t.length];
        Sensor.wander(hand, rate, 2, 0.03, random);
        for (int i = 0; i < t.length; i++) {
            double way = Math.max(0, Math.min(1, (t[i] - at) / lasts));
            double lean = tilt * (way - Math.sin(2 * Math.PI * way) / (2 * Math.PI)) + (way > 0 ? hand[i] : 0);
            double lift = way > 0 && way < 1 ? 0.25 * Math.sin(2 * Math.PI * way) : 0;
            x[0][i] = -Math.sin(lean) * (1 + lift);
            x[2][i] = Math.cos(lean) * (1 + lift);
        }
        for (double[] axis : x) {
            Sensor.noise(axis, hard == 0 ? 0.005 : 0.015, random);
        }
        return new Record("motion", "picked up", Map.of(), rate, t, x, reading -> {
            long found = reading.events("events").stream()
                    .filter(event -> event.kind().equals("pick-up") && Math.abs(event.startSeconds() - at) < 1)
                    .count();
            return found == 1 ? still(reading) : found + " times picked up of 1";
        });
    }
}
