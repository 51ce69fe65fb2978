package zesty.signal.core.read.muscle;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Mains as a sine taken out: what is left of it, and of everything that is not it. */
class HumTest {
    private static final double RATE = 1000;

    private static double rms(double[] x, int from, int to) {
        double squares = 0;
        for (int i = from; i < to; i++) {
            squares += x[i] * x[i];
        }
        return Math.sqrt(squares / (to - from));
    }

    /** The frequency may be off by as much as a line between bins can be told, and wander in height. */
    @ParameterizedTest
    @CsvSource({"50,50,0", "60,60,0", "50.03,50,0", "49.95,50,0", "50,50,0.3", "60.02,60.01,0.2"})
    void aSineIsGoneFromTheFirstSampleToTheLast(double hz, double told, double swells) {
        double[] x = new double[20_000];
        Arrays.setAll(
                x,
                i -> (1 + swells * Math.sin(2 * Math.PI * 0.05 * i / RATE))
                        * 10
                        * Math.sin(2 * Math.PI * hz * i / RATE + 1));
        Hum.out(x, told, RATE);
        // What turns by a twentieth of a period in the second looked at is left by as much; at the ends half is looked
        // at.
        double left = 10 / Math.sqrt(2) * (0.01 + Math.pow(2 * Math.PI * Math.abs(hz - told), 2) / 4 + 0.2 * swells);
        assertThat(rms(x, 1500, 18_500)).isLessThan(left);
        assertThat(rms(x, 0, 1500)).isLessThan(4 * left + 10 * Math.PI * Math.abs(hz - told));
        assertThat(rms(x, 18_500, 20_000)).isLessThan(4 * left + 10 * Math.PI * Math.abs(hz - told));
    }

    @Test
    void whatIsNoHumStaysAndAPullCastsNoShadowBefore() {
        Random random = new Random(3);
        double[] noise = new double[20_000];
        Arrays.setAll(noise, i -> random.nextGaussian() * (i >= 9000 && i < 10_500 ? 8 : 1));
        double[] x = noise.clone();
        Hum.out(x, 50, RATE);
        // Of white noise a band of half a hertz in five hundred is taken.
        assertThat(rms(x, 0, 8000)).isBetween(0.97 * rms(noise, 0, 8000), 1.02 * rms(noise, 0, 8000));
        assertThat(rms(x, 9000, 10_500)).isBetween(0.97 * rms(noise, 9000, 10_500), 1.01 * rms(noise, 9000, 10_500));
        // Just before the pull, eight times as strong, rest is rest.
        assertThat(rms(x, 8900, 9000)).isLessThan(1.25 * rms(noise, 8900, 9000));
        double[] level = new double[4000];
        Arrays.fill(level, 7);
        Hum.out(level, 50, RATE);
        assertThat(rms(level, 1000, 3000)).isBetween(6.98, 7.02);
        // Of less than a period nobody knows what is hum.
        double[] few = {3, 4, 5};
        Hum.out(few, 50, RATE);
        assertThat(few).containsExactly(3, 4, 5);
        Hum.out(new double[0], 50, RATE);
    }
}
