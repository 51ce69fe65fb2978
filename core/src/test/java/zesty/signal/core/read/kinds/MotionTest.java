package zesty.signal.core.read.kinds;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;

/**
 * A unit whose attitude is known as a rotation matrix at every sample: what its sensors read follows from the matrix and
 * from how it changes, by no formula that the reader uses.
 */
class MotionTest {
    private static final double RATE = 100;

    /** Angles over time, in degrees. */
    private interface Course {
        /** @return roll, pitch, heading */
        double[] at(double t);
    }

    private static double[][] times(double[][] a, double[][] b) {
        double[][] c = new double[3][3];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                for (int k = 0; k < 3; k++) {
                    c[i][j] += a[i][k] * b[k][j];
                }
            }
        }
        return c;
    }

    private static double[][] transposed(double[][] a) {
        double[][] t = new double[3][3];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                t[j][i] = a[i][j];
            }
        }
        return t;
    }

    private static double[][] about(int axis, double degrees) {
        double c = Math.cos(Math.toRadians(degrees));
        double s = Math.sin(Math.toRadians(degrees));
        int u = (axis + 1) % 3;
        int v = (axis + 2) % 3;
        double[][] r = new double[3][3];
        r[axis][axis] = 1;
        r[u][u] = c;
        r[v][v] = c;
        r[u][v] = -s;
        r[v][u] = s;
        return r;
    }

    /** From the unit to the world (north, west, up). */
    private static double[][] attitude(double[] angles) {
        return times(times(about(2, -angles[2]), about(1, angles[1])), about(0, angles[0]));
    }

    private static double[] seen(double[][] attitude, double... world) {
        double[] own = new double[3];
        for (int i = 0; i < 3; i++) {
            for (int k = 0; k < 3; k++) {
                own[i] += attitude[k][i] * world[k];
            }
        }
        return own;
    }

    /** @return nine columns, bias of the gyro included */
    private static double[][] unit(Course course, double seconds, double noise, double bias, Random random) {
        int n = (int) (seconds * RATE);
        double[][] columns = new double[9][n];
        double[] off = {bias * 0.8, -bias, bias * 0.5};
        double[][] before = attitude(course.at(0));
        for (int i = 0; i < n; i++) {
            double[][] now = attitude(course.at(i / RATE));
            double[] gravity = seen(now, 0, 0, 1);
            double[] field = seen(now, 22, 0, -40);
            // Rᵀ(t − dt) R(t) is a small turn; its skew part is the turning.
            double[][] turn = times(transposed(before), now);
            double[] rate = {turn[2][1] - turn[1][2], turn[0][2] - turn[2][0], turn[1][0] - turn[0][1]};
            for (int k = 0; k < 3; k++) {
                columns[k][i] = gravity[k] + noise * random.nextGaussian();
                columns[3 + k][i] = Math.toDegrees(rate[k] / 2) * RATE + off[k] + 20 * noise * random.nextGaussian();
                columns[6 + k][i] = field[k] + 30 * noise * random.nextGaussian();
            }
            before = now;
        }
        return columns;
    }

    private static double[] numbers(Reading reading, String key) {
        return reading.items().stream()
                .filter(item -> item.key().equals(key))
                .map(item -> ((Item.Numbers) item).values())
                .findFirst()
                .orElseThrow();
    }

    /** @return the error that 95 of 100 samples do not exceed */
    private static double worst(double[] found, Course course, int angle) {
        double[] off = new double[found.length];
        for (int i = 0; i < off.length; i++) {
            double apart = found[i] - course.at(i / RATE)[angle];
            off[i] = Math.abs(apart - 360 * Math.rint(apart / 360));
        }
        Arrays.sort(off);
        return off[(int) (0.95 * off.length)];
    }

    @ParameterizedTest(name = "noise {0} g, bias {1} °/s")
    @CsvSource({"0.002,0,0.5", "0.01,1,1.5", "0.01,3,1.5"})
    void leanAndHeadingFollowABoat(double noise, double bias, double most) {
        Course boat = t -> {
            double on = Math.min(1, Math.max(0, (t - 3) / 2));
            return new double[] {
                on * 25 * Math.sin(2 * Math.PI * t / 6),
                on * 8 * Math.sin(2 * Math.PI * t / 4.1),
                (200 + on * 70 * Math.sin(2 * Math.PI * t / 20) + 360) % 360
            };
        };
        double[][] columns = unit(boat, 60, noise, bias, new Random(3));
        Reading reading = Asked.of("motion", RATE, columns);
        assertThat(worst(numbers(reading, "roll_deg"), boat, 0)).isLessThan(most);
        assertThat(worst(numbers(reading, "pitch_deg"), boat, 1)).isLessThan(most);
        assertThat(worst(numbers(reading, "heading_deg"), boat, 2)).isLessThan(2 * most);
        assertThat(reading.scalar("steps")).isZero();
        assertThat(reading.events("events")).isEmpty();
        // Without the field the heading begins at 0 and turns as far.
        Reading six = Asked.of("motion", RATE, Arrays.copyOf(columns, 6));
        double[] relative = numbers(six, "heading_deg");
        double turned = relative[800] - relative[0] - (boat.at(8)[2] - boat.at(0)[2]);
        assertThat(Math.abs(turned - 360 * Math.rint(turned / 360))).isLessThan(2 * most + 0.5);
        assertThat(relative[0]).isZero();
        assertThat(six.quality().reasons()).contains("no field: the heading counts from the start");
        Reading three = Asked.of("motion", RATE, Map.of("fusion", "off"), Arrays.copyOf(columns, 3));
        assertThat(numbers(three, "heading_deg")).containsOnly(Double.NaN);
        assertThat(worst(numbers(three, "roll_deg"), boat, 0)).isLessThan(5);
    }

    @ParameterizedTest
    @CsvSource({"0,0,0", "37,-21,90", "-120,10,359", "5,84,180", "179,-60,45"})
    void atRestTheAnglesAreThoseOfTheDefinition(double roll, double pitch, double heading) {
        Course still = t -> new double[] {roll, pitch, heading};
        Reading reading = Asked.of("motion", RATE, unit(still, 8, 0, 2, new Random(1)));
        assertThat(reading.scalar("roll")).isCloseTo(roll, within(0.2));
        assertThat(reading.scalar("pitch")).isCloseTo(pitch, within(0.2));
        double off = reading.scalar("heading") - heading;
        assertThat(off - 360 * Math.rint(off / 360)).isCloseTo(0, within(0.5));
        assertThat(reading.scalar("activity_g")).isCloseTo(0, within(1e-9));
    }

    /** A gyro in other units, or whose axes lie otherwise, or that says one number, is contradicted by gravity; a bias, noise and knocks are not that. */
    @ParameterizedTest
    @CsvSource({
        "1, 1, 3, 0.01, ''",
        "1, 1, 8, 0.03, ''",
        "0.0174533, 1, 3, 0.01, 5",
        "131, 1, 3, 0.01, 0.007",
        "1, -1, 1, 0.01, −",
        "0, 1, 3, 0.01, 'and by the gyro'"
    })
    void aGyroInOtherUnitsIsContradictedByGravity(double unit, double sign, double bias, double noise, String times) {
        Course boat = t -> new double[] {
            15 * Math.sin(2 * Math.PI * t / 5), 6 * Math.sin(2 * Math.PI * t / 4.1), 40 * Math.sin(t / 9)
        };
        double[][] columns = unit(boat, 40, noise, bias, new Random(4));
        for (int i = 0; i < columns[0].length; i++) {
            columns[3][i] *= unit * sign;
            columns[4][i] *= unit * sign;
            columns[5][i] *= unit;
            columns[4][i] += unit == 0 ? 3 : 0;
            columns[1][i] += i % 700 < 5 ? 0.8 : 0;
        }
        Reading reading = Asked.of("motion", RATE, columns);
        assertThat(reading.quality().reasons().stream()
                        .filter(one -> one.contains("the gyro"))
                        .toList())
                .hasSize(times.isEmpty() ? 0 : 1)
                .allMatch(one -> one.replace(",", "").startsWith("by gravity it turns " + times));
        assertThat(reading.quality().share()).isEqualTo(times.isEmpty() ? 1 : 0.2);
        // Turned about the vertical alone gravity says nothing.
        Reading level = Asked.of(
                "motion", RATE, unit(t -> new double[] {0, 0, 50 * Math.sin(t)}, 30, noise, bias, new Random(4)));
        assertThat(level.quality().reasons()).noneMatch(one -> one.contains("by the gyro"));
    }

    /** A sum of swings of its own periods, as a boat, an arm or a hand makes them. */
    private static Course swinging(Random random) {
        double[] size = new double[6];
        double[] pace = new double[6];
        double[] at = new double[6];
        for (int i = 0; i < 6; i++) {
            size[i] = (i < 3 ? 4 + 14 * random.nextDouble() : 2 + 6 * random.nextDouble()) * (i == 2 ? 2 : 1);
            pace[i] = 2 * Math.PI / (2 + 6 * random.nextDouble());
            at[i] = 2 * Math.PI * random.nextDouble();
        }
        return t -> {
            double[] angles = new double[3];
            for (int i = 0; i < 6; i++) {
                angles[i % 3] += size[i] * Math.sin(pace[i] * t + at[i]);
            }
            return angles;
        };
    }

    /** What a unit feels that sits so many metres above the axis about which it rolls, beside gravity; and engines, and shaking. */
    private static void moved(double[][] columns, double above, double engine, double shaken, Random random) {
        int n = columns[0].length;
        double pace = 2 * Math.PI * (15 + 25 * random.nextDouble());
        double sway = 0;
        for (int i = 1; i < n - 1; i++) {
            double faster = Math.toRadians(columns[3][i + 1] - columns[3][i - 1]) / 2 * RATE;
            sway += 0.05 * (shaken * random.nextGaussian() - sway);
            columns[1][i] -= Math.abs(faster) < 20 ? above * faster / 9.81 : 0;
            columns[2][i] += engine * Math.sin(pace * i / RATE);
            columns[0][i] += sway;
        }
    }

    /** Of two columns that are exchanged, or three: which, is told. Of a unit that is put together rightly nothing is, wherever it sits. */
    @Test
    void axesThatAreExchangedAreNamedAndRightOnesAreNot() {
        int[][] orders = {{1, 0, 2}, {0, 2, 1}, {2, 1, 0}, {1, 2, 0}, {2, 0, 1}};
        String[] named = {"y, x, z", "x, z, y", "z, y, x", "z, x, y", "y, z, x"};
        int told = 0;
        for (int seed = 0; seed < 60; seed++) {
            Random random = new Random(seed);
            double[][] columns = unit(swinging(random), 30, 0.002 * Math.pow(15, random.nextDouble()), 2, random);
            double[][] exchanged = columns.clone();
            for (int k = 0; k < 3; k++) {
                exchanged[k] = columns[orders[seed % 5][k]].clone();
            }
            moved(
                    columns,
                    -1.5 + 5 * random.nextDouble(),
                    0.3 * random.nextDouble(),
                    1.5 * random.nextDouble(),
                    random);
            assertThat(Asked.of("motion", RATE, columns).quality().reasons())
                    .as("%d", seed)
                    .noneMatch(one -> one.contains("the gyro"));
            Quality doubt = Asked.of("motion", RATE, exchanged).quality();
            boolean which = doubt.reasons().toString().contains("only with " + named[seed % 5] + " of");
            told += which && doubt.share() <= 0.2 ? 1 : 0;
        }
        assertThat(told).isGreaterThan(57);
    }

    /** A board that goes on at another pace has turned as far as it has turned. */
    @Test
    void whatTurnsTurnsByTheTimeOfItsSamples() {
        int n = 1000;
        double[] seconds = new double[n];
        double[][] columns = new double[6][n];
        for (int i = 0; i < n; i++) {
            seconds[i] = i == 0 ? 0 : seconds[i - 1] + 1 / (i < 500 ? RATE : 0.7 * RATE);
            columns[2][i] = 1;
            columns[5][i] = -30;
        }
        double[] heading = numbers(Asked.at("motion", RATE, seconds, columns), "heading_deg");
        for (int i = 0; i < n; i += 99) {
            assertThat(heading[i]).isCloseTo(30 * seconds[i] % 360, within(0.01));
        }
    }

    /** Of a good unit, and of one that an engine shakes. */
    @ParameterizedTest
    @ValueSource(doubles = {0.005, 0.03})
    void tenMinutesAtRestDoNotDrift(double noise) {
        Course still = t -> new double[] {10, -5, 0};
        Reading reading = Asked.of("motion", RATE, Arrays.copyOf(unit(still, 600, noise, 2, new Random(2)), 6));
        double[] roll = numbers(reading, "roll_deg");
        double[] heading = numbers(reading, "heading_deg");
        assertThat(Math.abs(roll[59_999] - 10)).isLessThan(0.5);
        double drift = heading[59_999] - heading[3000];
        assertThat(Math.abs(drift - 360 * Math.rint(drift / 360))).isLessThan(0.5);
    }

    private static double[][] level(int n, double noise, Random random) {
        double[][] columns = new double[3][n];
        for (int i = 0; i < n; i++) {
            for (int k = 0; k < 3; k++) {
                columns[k][i] = (k == 2 ? 1 : 0) + noise * random.nextGaussian();
            }
        }
        return columns;
    }

    @ParameterizedTest
    @ValueSource(doubles = {1.5, 1.9, 2.6})
    void stepsAreCountedAndARideHasNone(double pace) {
        Random random = new Random(4);
        double[][] walk = level(4000, 0.02, random);
        int steps = 0;
        for (double at = 4; at < 34; at += 1 / pace * (1 + 0.04 * random.nextGaussian())) {
            steps++;
            for (int i = (int) (at * RATE); i < Math.min(4000, (at + 1 / pace) * RATE); i++) {
                double in = (i / RATE - at) * pace;
                walk[2][i] += 0.22 * Math.sin(2 * Math.PI * in) + 0.1 * Math.exp(-Math.pow((in - 0.2) / 0.06, 2));
                walk[1][i] += 0.05 * Math.sin(Math.PI * in);
            }
        }
        assertThat(Asked.of("motion", RATE, walk).scalar("steps")).isCloseTo(steps, within(0.05 * steps + 1));
        double[][] ride = level(4000, 0.03, random);
        double sway = 0;
        for (int i = 0; i < 4000; i++) {
            sway += 0.01 * random.nextGaussian() - sway / 60;
            ride[2][i] += 0.05 * Math.sin(2 * Math.PI * 14 * i / RATE) + 0.2 * sway;
        }
        assertThat(Asked.of("motion", RATE, ride).scalar("steps")).isLessThan(3);
    }

    @Test
    void aFallATapTwoTapsAndShakingAreToldApart() {
        Random random = new Random(7);
        double rate = 400;
        double[][] x = level((int) (30 * rate), 0.01, random);
        jolt(x, rate, 3, 1.5);
        jolt(x, rate, 7, 2);
        jolt(x, rate, 7.22, 2);
        for (int i = (int) (12 * rate); i < 12.35 * rate; i++) {
            x[2][i] = 0.02 * random.nextGaussian();
        }
        jolt(x, rate, 12.35, 6);
        for (int i = (int) (20 * rate); i < 22 * rate; i++) {
            x[0][i] += 2.5 * Math.sin(2 * Math.PI * 4 * i / rate);
        }
        List<Event> events = Asked.of("motion", rate, x).events("events");
        assertThat(events).extracting(Event::kind).containsExactly("tap", "double-tap", "free-fall", "fall", "shake");
        assertThat(events.get(0).startSeconds()).isCloseTo(3, within(0.01));
        assertThat(events.get(1).startSeconds()).isCloseTo(7, within(0.01));
        assertThat(events.get(2).startSeconds()).isCloseTo(12, within(0.02));
        assertThat(events.get(4).startSeconds()).isCloseTo(20, within(0.3));
    }

    private static void jolt(double[][] x, double rate, double at, double height) {
        for (int i = (int) (at * rate); i < (at + 0.1) * rate; i++) {
            double s = i / rate - at;
            x[2][i] += height * Math.exp(-s / 0.01) * Math.cos(2 * Math.PI * 55 * s);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"+x", "-x", "+y", "-y", "+z", "-z"})
    void theFaceThatIsUpIsNamed(String face) {
        double[][] x = level(1000, 0.02, new Random(3));
        double[][] turned = {new double[1000], new double[1000], new double[1000]};
        int axis = face.charAt(1) - 'x';
        for (int i = 0; i < 1000; i++) {
            turned[axis][i] = (face.charAt(0) == '+' ? 1 : -1) * x[2][i];
            turned[(axis + 1) % 3][i] = x[0][i];
            turned[(axis + 2) % 3][i] = x[1][i];
        }
        assertThat(Asked.of("motion", RATE, turned).word("face")).isEqualTo(face);
    }

    @Test
    void aWrongScaleAMagnetAndAMissingAxisAreSaid() {
        Course still = t -> new double[] {0, 0, 0};
        double[][] columns = unit(still, 5, 0.01, 0, new Random(1));
        for (double[] axis : Arrays.copyOfRange(columns, 6, 9)) {
            Arrays.setAll(axis, i -> axis[i] * 4);
        }
        assertThat(Asked.of("motion", RATE, columns).quality().reasons())
                .anyMatch(reason -> reason.contains("not that of the earth"));
        double[][] counts = level(500, 0.01, new Random(1));
        for (double[] axis : counts) {
            Arrays.setAll(axis, i -> axis[i] * 8192);
        }
        assertThat(Asked.of("motion", RATE, counts).quality().reasons())
                .anyMatch(reason -> reason.contains("is the scale right"));
        ReaderKind motion = ReaderKinds.of("motion");
        assertThatThrownBy(() -> motion.check(Settings.of(motion, Map.of()), new double[4][10]))
                .isInstanceOf(ReaderException.class)
                .hasMessageContaining("3, 6 or 9 columns");
    }
}
