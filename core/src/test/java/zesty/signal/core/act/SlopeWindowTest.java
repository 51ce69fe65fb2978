package zesty.signal.core.act;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The slope that goes along with a stream against one worked out anew for each sample, from all that lies in the window. */
class SlopeWindowTest {
    /** Samples come close together and far apart, stand at one moment, and stand far from zero; the window holds two to 900 of them. */
    @ParameterizedTest
    @CsvSource({"1, 0.02, 10000", "2, 2, 10000", "3, 9, 6000", "4, 0.5, 300"})
    void theSlopeIsThatOfTheSamplesInTheWindow(long seed, double length, int n) {
        Random random = new Random(seed);
        SlopeWindow window = new SlopeWindow(length);
        double[] t = new double[n];
        double[] x = new double[n];
        double at = 1e5;
        int told = 0;
        for (int k = 0; k < n; k++) {
            at += random.nextInt(20) == 0 ? 0 : random.nextDouble() * 0.02 + (random.nextInt(500) == 0 ? length : 0);
            t[k] = at;
            x[k] = 3e4 + 50 * Math.sin(at) + random.nextGaussian();
            double own = window.add(t[k], x[k]);
            double slope = slope(t, x, k, length);
            assertThat(Double.isNaN(own)).as("sample %d", k).isEqualTo(Double.isNaN(slope));
            if (own == own) {
                told++;
                assertThat(own).as("sample %d", k).isCloseTo(slope, within(1e-5 * (1 + Math.abs(slope))));
            }
        }
        assertThat(told).isGreaterThan(n / 2);
    }

    /** About the means, as a textbook has it. */
    private static double slope(double[] t, double[] x, int last, double length) {
        int first = last;
        while (first > 0 && t[first - 1] > t[last] - length + 1e-9) {
            first--;
        }
        double meanT = 0;
        double meanX = 0;
        for (int i = first; i <= last; i++) {
            meanT += (t[i] - t[first]) / (last - first + 1);
            meanX += (x[i] - x[first]) / (last - first + 1);
        }
        double tt = 0;
        double tx = 0;
        for (int i = first; i <= last; i++) {
            double dt = t[i] - t[first] - meanT;
            tt += dt * dt;
            tx += dt * (x[i] - x[first] - meanX);
        }
        return tt > 0 ? tx / tt : Double.NaN;
    }
}
