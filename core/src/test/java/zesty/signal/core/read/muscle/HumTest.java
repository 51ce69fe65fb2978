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
        Hum.out(x, RATE, told);
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
        Hum.out(x, RATE, 50);
        // Of white noise a band of half a hertz in five hundred is taken.
        assertThat(rms(x, 0, 8000)).isBetween(0.97 * rms(noise, 0, 8000), 1.02 * rms(noise, 0, 8000));
        assertThat(rms(x, 9000, 10_500)).isBetween(0.97 * rms(noise, 9000, 10_500), 1.01 * rms(noise, 9000, 10_500));
        // Mains of three harmonics beside a pull 25 times as strong as the rest: next to the pull rest is rest.
        double[] hum = noise.clone();
        for (int i = 0; i < hum.length; i++) {
            noise[i] *= i >= 9000 && i < 10_500 ? 3 : 1;
            double turn = 2 * Math.PI * 50 * i / RATE;
            hum[i] = noise[i] + 8 * Math.sin(turn) + 2 * Math.sin(2 * turn) + 3 * Math.sin(3 * turn);
        }
        Hum.out(hum, RATE, 50, 100, 150);
        for (int from : new int[] {8000, 8900, 10_500, 11_400}) {
            assertThat(rms(hum, from, from + 100))
                    .isBetween(0.9 * rms(noise, from, from + 100), 1.1 * rms(noise, from, from + 100));
        }
        double[] level = new double[4000];
        Arrays.fill(level, 7);
        Hum.out(level, RATE, 50);
        assertThat(rms(level, 1000, 3000)).isBetween(6.98, 7.02);
        // Of less than a period nobody knows what is hum.
        double[] few = {3, 4, 5};
        Hum.out(few, RATE, 50);
        assertThat(few).containsExactly(3, 4, 5);
        Hum.out(new double[0], RATE, 50);
    }
}
