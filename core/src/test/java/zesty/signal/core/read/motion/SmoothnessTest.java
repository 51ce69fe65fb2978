package zesty.signal.core.read.motion;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/** Spectral arc lengths against those of {@code core/src/test/python/smoothness.py}, alone and through the reader. */
class SmoothnessTest {
    private static final double RATE = 100;

    private static double stroke(int i, int n) {
        double s = (double) i / n;
        return 30 * s * s * (1 - s) * (1 - s);
    }

    private static double[] movement(int n, IntToDoubleFunction speed) {
        return IntStream.range(0, n).mapToDouble(speed).toArray();
    }

    private static double[] trembling() {
        return movement(100, i -> stroke(i, 100) * (1 + 0.4 * Math.sin(2 * Math.PI * 6 * i / 100)));
    }

    private static double[] halting() {
        return movement(120, i -> stroke(i % 60, 60));
    }

    @Test
    void theArcIsThatOfThePublishedMethod() {
        assertThat(Smoothness.arc(movement(100, i -> stroke(i, 100)), RATE)).isCloseTo(-1.4058293244, within(1e-9));
        assertThat(Smoothness.arc(movement(250, i -> stroke(i, 250)), RATE)).isCloseTo(-1.4024260641, within(1e-9));
        assertThat(Smoothness.arc(halting(), RATE)).isCloseTo(-2.2925053535, within(1e-9));
        assertThat(Smoothness.arc(trembling(), RATE)).isCloseTo(-1.9447449143, within(1e-9));
    }

    /** Six movements with rests between them, to and fro about one axis, of a gyro with noise and a bias. */
    private static Reading read(double[] speed, double degreesPerSecond, long seed) {
        Random random = new Random(seed);
        int pause = 150;
        int n = 6 * (speed.length + pause) + pause;
        double[][] ports = new double[6][n];
        double roll = 0;
        for (int i = 0; i < n; i++) {
            int at = (i - pause) % (speed.length + pause);
            int which = (i - pause) / (speed.length + pause);
            double now = i < pause || at >= speed.length ? 0 : (which % 2 == 0 ? 1 : -1) * degreesPerSecond * speed[at];
            roll += Math.toRadians(now) / RATE;
            ports[1][i] = Math.sin(roll) + 0.004 * random.nextGaussian();
            ports[2][i] = Math.cos(roll) + 0.004 * random.nextGaussian();
            ports[3][i] = now + 0.6 + 0.1 * random.nextGaussian();
            ports[4][i] = -0.3 + 0.1 * random.nextGaussian();
        }
        Motion kind = new Motion();
        Reader reader = kind.reader(Settings.of(kind, Map.of()), RATE);
        reader.accept(ports, n, new TimeBase.Steady(0, 1 / RATE));
        reader.finish();
        return reader.reading();
    }

    @Test
    void aReadingTellsTheSmoothnessOfTheMiddleMovementAndHowManyThereWere() {
        for (long seed = 1; seed <= 5; seed++) {
            Reading smooth = read(movement(100, i -> stroke(i, 100)), 40, seed);
            assertThat(smooth.scalar("movements")).isEqualTo(6);
            assertThat(smooth.scalar("smoothness")).isCloseTo(-1.41, within(0.05));
            assertThat(read(trembling(), 40, seed).scalar("smoothness")).isCloseTo(-1.94, within(0.08));
            Reading halts = read(halting(), 40, seed);
            assertThat(halts.scalar("movements")).isEqualTo(6);
            assertThat(halts.scalar("smoothness")).isCloseTo(-2.29, within(0.1));
            Reading rests = read(new double[100], 40, seed);
            assertThat(rests.scalar("movements")).isZero();
            assertThat(rests.scalar("smoothness")).isNaN();
        }
        double[] ports = new double[10];
        Arrays.fill(ports, 40);
        assertThat(Smoothness.of(ports, RATE).movements()).isZero();
    }
}
