package zesty.signal.core.read.motion;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/**
 * A unit with crooked axes, scales, offsets and iron, all drawn, read the way a maker would teach it: six faces, a rest, a
 * figure of eight; then its lean and heading against what it was really turned to.
 */
class TaughtTest {
    private static final double RATE = 100;

    /** What the sensor reads of something in the body: mounting (axes permuted, turned a little), scale, offset. */
    private record Sensor(double[][] mount, double[] scale, double[] offset, double noise) {
        static Sensor drawn(Random random, double unit, double offset, double noise) {
            double[][] mount = turned(0.06 * random.nextGaussian(), 0.06 * random.nextGaussian(), 0);
            int shift = random.nextInt(3);
            int[] sign = {random.nextBoolean() ? 1 : -1, random.nextBoolean() ? 1 : -1};
            double[][] swapped = new double[3][3];
            for (int r = 0; r < 3; r++) {
                swapped[(r + shift) % 3] = mount[r].clone();
            }
            // Two axes turned round at most, and the third with them: still right-handed.
            for (int k = 0; k < 3; k++) {
                swapped[0][k] *= sign[0];
                swapped[1][k] *= sign[1];
                swapped[2][k] *= sign[0] * sign[1];
            }
            double[] scale = new double[3];
            double[] zero = new double[3];
            for (int k = 0; k < 3; k++) {
                scale[k] = unit * (1 + 0.04 * random.nextGaussian());
                zero[k] = offset * random.nextGaussian();
            }
            return new Sensor(swapped, scale, zero, noise);
        }

        double[] read(double[] body, Random random) {
            double[] out = new double[3];
            for (int r = 0; r < 3; r++) {
                double along = mount[r][0] * body[0] + mount[r][1] * body[1] + mount[r][2] * body[2];
                out[r] = scale[r] * along + offset[r] + noise * random.nextGaussian();
            }
            return out;
        }

        Sensor like(Sensor other) {
            return new Sensor(other.mount, scale, offset, noise);
        }
    }

    /** World seen from a body that rolls, pitches and heads: rows of the matrix are the body's axes. */
    private static double[][] turned(double roll, double pitch, double heading) {
        double cr = Math.cos(roll);
        double sr = Math.sin(roll);
        double cp = Math.cos(pitch);
        double sp = Math.sin(pitch);
        double ch = Math.cos(heading);
        double sh = Math.sin(heading);
        // World x north, y west, z up; heading clockwise.
        double[] x = {ch * cp, -sh * cp, sp};
        double[] left = {sh, ch, 0};
        double[] up = {-ch * sp, sh * sp, cp};
        double[] y = new double[3];
        double[] z = new double[3];
        for (int k = 0; k < 3; k++) {
            y[k] = left[k] * cr + up[k] * sr;
            z[k] = up[k] * cr - left[k] * sr;
        }
        return new double[][] {x, y, z};
    }

    private static double[] seen(double[][] body, double... world) {
        double[] v = new double[3];
        for (int r = 0; r < 3; r++) {
            v[r] = body[r][0] * world[0] + body[r][1] * world[1] + body[r][2] * world[2];
        }
        return v;
    }

    private static List<double[]> faces(Sensor sensor, Random random) {
        List<double[]> read = new ArrayList<>();
        for (Faces.Face face : Faces.Face.values()) {
            double[] mean = new double[3];
            double[] held = face.up();
            // Nobody holds it quite square: half a degree or so.
            for (int k = 0; k < 3; k++) {
                held[k] += 0.008 * random.nextGaussian();
            }
            double length = Math.sqrt(held[0] * held[0] + held[1] * held[1] + held[2] * held[2]);
            for (int i = 0; i < 100; i++) {
                double[] one = sensor.read(new double[] {held[0] / length, held[1] / length, held[2] / length}, random);
                for (int k = 0; k < 3; k++) {
                    mean[k] += one[k] / 100;
                }
            }
            read.add(mean);
        }
        return read;
    }

    private static double[] numbers(Reading reading, String key) {
        return reading.items().stream()
                .filter(item -> item.key().equals(key))
                .map(item -> ((Item.Numbers) item).values())
                .findFirst()
                .orElseThrow();
    }

    /** The bounds are those of a unit that is well to begin with, and what the hand that turned it was off. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void aCrookedUnitIsTaughtByItsFacesARestAndAFigureOfEight(long seed) {
        Random random = new Random(seed);
        Sensor acceleration = Sensor.drawn(random, 8192, 300, 30);
        Sensor gyro = Sensor.drawn(random, 1, 3, 0.05).like(acceleration);
        double[] earth = {19, 0, -43};
        Sensor field = Sensor.drawn(random, 1, 25, 0.3).like(acceleration);
        Faces.Result faces = Faces.solve(faces(acceleration, random));
        assertThat(faces.words()).contains("points");
        double[][] eight = new double[1500][];
        for (int i = 0; i < eight.length; i++) {
            double t = i / 75.0;
            eight[i] = field.read(seen(turned(2.9 * Math.sin(1.7 * t), 1.4 * Math.sin(t), 1.3 * t), earth), random);
        }
        FieldFit.Result iron = FieldFit.of(eight);
        assertThat(iron.left()).isLessThan(0.03);
        double[] bias = gyro.read(new double[3], random);
        Map<String, String> taught = new HashMap<>();
        taught.put(Motion.FACES, faces.axes().text());
        taught.put(Motion.FIELD, iron.axes().text());
        taught.put(Motion.STILL, bias[0] + "," + bias[1] + "," + bias[2]);

        int n = 3000;
        double[][] read = new double[9][n];
        double[] roll = new double[n];
        double[] heading = new double[n];
        for (int i = 0; i < n; i++) {
            double t = i / RATE;
            roll[i] = Math.toRadians(14 * Math.sin(2 * Math.PI * t / 4.2));
            heading[i] = Math.toRadians(80 + 30 * Math.sin(2 * Math.PI * t / 17));
            double[][] body = turned(roll[i], Math.toRadians(4), heading[i]);
            double step = 1e-3;
            double[][] later = turned(
                    Math.toRadians(14 * Math.sin(2 * Math.PI * (t + step) / 4.2)),
                    Math.toRadians(4),
                    Math.toRadians(80 + 30 * Math.sin(2 * Math.PI * (t + step) / 17)));
            // How fast each axis of the body moves towards the next one is how fast it turns about the third.
            double[] turning = new double[3];
            for (int k = 0; k < 3; k++) {
                double[] to = later[(k + 1) % 3];
                double[] own = body[(k + 2) % 3];
                turning[k] = Math.toDegrees((to[0] * own[0] + to[1] * own[1] + to[2] * own[2]) / step);
            }
            put(read, 0, i, acceleration.read(seen(body, 0, 0, 1), random));
            put(read, 3, i, gyro.read(turning, random));
            put(read, 6, i, field.read(seen(body, earth), random));
        }
        Motion kind = new Motion();
        Reader reader = kind.reader(Settings.of(kind, taught), RATE);
        reader.accept(read, n, new TimeBase.Steady(0, 1 / RATE));
        reader.finish();
        Reading reading = reader.reading();
        double[] rolls = numbers(reading, "roll_deg");
        double[] headings = numbers(reading, "heading_deg");
        double worstRoll = 0;
        double squares = 0;
        for (int i = 300; i < n; i++) {
            worstRoll = Math.max(worstRoll, Math.abs(rolls[i] - Math.toDegrees(roll[i])));
            double off = headings[i] - Math.toDegrees(heading[i]);
            squares += Math.pow(off - 360 * Math.rint(off / 360), 2) / (n - 300);
        }
        // 1.5 while it moves, and half a degree for faces that were held askew.
        assertThat(worstRoll).isLessThan(2.0);
        assertThat(Math.sqrt(squares)).isLessThan(3);
        assertThat(reading.quality().reasons()).isEmpty();
        assertThat(reading.scalar("roll_period_s")).isCloseTo(4.2, within(0.06));
        assertThat(reading.scalar("repetitions")).isBetween(5.0, 7.0);
        // The gyro's scale is a few percent off, and the noise of both ends adds.
        assertThat(reading.scalar("depth_deg")).isCloseTo(28, within(2.5));
        assertThat(reading.scalar("pace_per_min")).isCloseTo(60 / 4.2, within(0.3));
    }

    private static void put(double[][] into, int first, int at, double[] three) {
        for (int k = 0; k < 3; k++) {
            into[first + k][at] = three[k];
        }
    }

    @Test
    void whoForgetsToTurnItIsToldWhichFaces() {
        Random random = new Random(9);
        List<double[]> read = faces(Sensor.drawn(random, 1, 0.03, 0.002), random);
        read.set(3, read.get(2));
        assertThat(Faces.solve(read).axes()).isNull();
        assertThat(Faces.solve(read).words()).contains("with its nose down").contains("with its nose up");
        List<double[]> askew = faces(new Sensor(turned(0, 0, 0), new double[] {1, 1, 1}, new double[3], 0), random);
        askew.set(4, new double[] {0.35, 0.93, 0.1});
        assertThat(Faces.solve(askew).axes()).isNull();
        assertThat(Faces.solve(askew).words()).contains("hold each square");
    }

    @Test
    void aFieldThatChangesByItselfOrIsSeenFromOneSideIsNoFigureOfEight() {
        Random random = new Random(10);
        double[][] spoiled = new double[1000][];
        double[][] oneSide = new double[1000][];
        for (int i = 0; i < spoiled.length; i++) {
            double t = i / 50.0;
            double[] turning = seen(turned(2.9 * Math.sin(1.7 * t), 1.4 * Math.sin(t), 1.3 * t), 19, 0, -43);
            // Somebody walks up with a magnet half way.
            turning[0] += i > 500 ? 18 : 0;
            spoiled[i] = turning;
            oneSide[i] = seen(turned(0.1 * Math.sin(t), 0.1 * Math.cos(t), 0.5 * Math.sin(0.3 * t)), 19, 0, -43);
            oneSide[i][1] += 0.3 * random.nextGaussian();
        }
        assertThat(FieldFit.of(spoiled).axes()).isNull();
        assertThat(FieldFit.of(spoiled).words()).contains("magnet");
        assertThat(FieldFit.of(oneSide).axes()).isNull();
        assertThat(FieldFit.of(oneSide).words()).contains("every way round");
    }
}
