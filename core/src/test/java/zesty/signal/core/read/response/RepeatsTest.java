package zesty.signal.core.read.response;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Repeats after markers on records whose answer is known, and on wander that answers nothing. */
class RepeatsTest {
    private static final double RATE = 10;

    private static double[] seconds(double length) {
        double[] seconds = new double[(int) (length * RATE)];
        Arrays.setAll(seconds, i -> i / RATE);
        return seconds;
    }

    /** Slow wander, drawn back to its middle, as a pulse or a temperature has it. */
    private static double[] wander(double[] seconds, double sd, long seed) {
        Random random = new Random(seed);
        double[] x = new double[seconds.length];
        double keep = Math.exp(-1 / (RATE * 6));
        for (int i = 1; i < x.length; i++) {
            x[i] = keep * x[i - 1] + sd * Math.sqrt(1 - keep * keep) * random.nextGaussian();
        }
        return x;
    }

    @Test
    void aTriangleOnALevelIsMeasuredAsOnPaper() {
        double[] seconds = seconds(300);
        double[] x = new double[seconds.length];
        List<Double> moments = List.of(50.0, 120.0, 200.0);
        for (int i = 0; i < x.length; i++) {
            x[i] = 70;
            for (double moment : moments) {
                double since = seconds[i] - moment;
                // Up by 20 within 4 s, and down again within 8 s.
                x[i] += since <= 0 || since >= 12 ? 0 : since < 4 ? 5 * since : 2.5 * (12 - since);
            }
        }
        Repeats found = Repeats.of(seconds, x, moments, 10, 30);
        assertThat(found.each()).hasSize(3);
        assertThat(found.change()).isCloseTo(20, within(1e-6));
        assertThat(found.latency()).isCloseTo(2.1, within(1e-6));
        assertThat(found.recovery()).isCloseTo(4, within(0.11));
        assertThat(found.spread()[found.grid().length / 2]).isCloseTo(0, within(1e-9));
        assertThat(found.chance()).isBetween(0.002, 0.05);
        assertThat(Repeats.of(seconds, x, List.of(299.0), 10, 30).each()).isEmpty();
        assertThat(Repeats.of(seconds, x, List.of(50.0), 10, 200).chance()).isNaN();
    }

    /** Of wander alone the chance is what it says: hardly more often below a tenth than one time in ten. */
    @Test
    void wanderAloneIsNoResponseAndAResponseWithinItIsFound() {
        int belowTenth = 0;
        int found = 0;
        int runs = 60;
        for (int run = 0; run < runs; run++) {
            double[] seconds = seconds(600);
            double[] x = wander(seconds, 3, 100 + run);
            List<Double> moments = List.of(100.0 + run, 260.0, 420.0 + run / 2.0);
            Repeats nothing = Repeats.of(seconds, x, moments, 10, 30);
            belowTenth += nothing.chance() < 0.1 ? 1 : 0;
            for (int i = 0; i < x.length; i++) {
                for (double moment : moments) {
                    double since = seconds[i] - moment - 1;
                    x[i] += since <= 0 ? 0 : 18 * (since / 4) * Math.exp(1 - since / 4);
                }
            }
            Repeats some = Repeats.of(seconds, x, moments, 10, 30);
            found += some.chance() < 0.05 ? 1 : 0;
            assertThat(some.change()).isCloseTo(18, within(9.0));
        }
        assertThat(belowTenth).as("of wander").isLessThanOrEqualTo(13);
        assertThat(found).as("of responses").isGreaterThanOrEqualTo(54);
    }
}
