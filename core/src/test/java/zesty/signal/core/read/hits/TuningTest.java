package zesty.signal.core.read.hits;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Knocks among weaker ones that do not count, and thresholds that must lie between the two. */
class TuningTest {
    private static final double RATE = 1000;

    private static double[] seconds(int n) {
        double[] seconds = new double[n];
        Arrays.setAll(seconds, i -> i / RATE);
        return seconds;
    }

    private static void knock(double[] x, double at, double height, double decay) {
        for (int i = (int) Math.ceil(at * RATE); i < Math.min(x.length, (at + 10 * decay) * RATE); i++) {
            double s = i / RATE - at;
            x[i] += height * Math.exp(-s / decay) * Math.abs(Math.cos(2 * Math.PI * 80 * s));
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {1, -1})
    void theThresholdLiesBetweenWhatCountsAndWhatDoesNot(int sign) {
        for (long seed = 0; seed < 4; seed++) {
            Random random = new Random(seed);
            double[] x = new double[30_000];
            double[] truth = new double[24];
            for (int k = 0; k < truth.length; k++) {
                truth[k] = 0.5 + 1.2 * k + 0.2 * random.nextDouble();
                knock(x, truth[k], 60 + 30 * random.nextDouble(), 0.03);
                // A neighbour's knock, that does not count.
                knock(x, truth[k] + 0.6, 15 + 15 * random.nextDouble(), 0.03);
            }
            double[] seen = Arrays.stream(x)
                    .map(v -> 512 + sign * v + 0.8 * random.nextGaussian())
                    .toArray();
            Tuning tuning = Tuning.of(seen, seconds(seen.length), truth, 0.05);
            assertThat(tuning.f1()).as("seed %d", seed).isEqualTo(1);
            assertThat(tuning.found()).isEqualTo(24);
            assertThat(tuning.missed() + tuning.invented()).isZero();
            assertThat(sign * (tuning.threshold() - 512)).isBetween(29.0, 62.0);
            // Room on either side, and the release on the way back to rest.
            assertThat(tuning.high() - tuning.low()).isGreaterThan(15);
            assertThat(tuning.threshold()).isBetween(tuning.low(), tuning.high());
            assertThat(sign * (tuning.release() - 512)).isBetween(0.0, sign * (tuning.threshold() - 512));
            // A count by hand of what that threshold finds.
            int count = 0;
            boolean over = false;
            double free = -1;
            for (int i = 0; i < seen.length; i++) {
                double own = sign * (seen[i] - tuning.threshold());
                if (!over && own >= 0) {
                    over = true;
                    count += i / RATE >= free ? 1 : 0;
                    free = i / RATE >= free ? i / RATE + tuning.deadSeconds() : free;
                }
                over = over && sign * (seen[i] - tuning.release()) >= 0;
            }
            assertThat(count).isEqualTo(24);
        }
    }

    @Test
    void whereNothingTellsThemApartTheLeastWrongIsTold() {
        Random random = new Random(4);
        double[] x = new double[20_000];
        double[] truth = new double[12];
        for (int k = 0; k < 24; k++) {
            double at = 0.4 + 0.8 * k;
            knock(x, at, 50 + random.nextDouble(), 0.02);
            if (k % 2 == 0) {
                truth[k / 2] = at;
            }
        }
        Tuning tuning = Tuning.of(x, seconds(x.length), truth, 0.05);
        // All 24 for the 12, or about half of each: twelve found and twelve false are 24/36.
        assertThat(tuning.f1()).isBetween(0.6, 0.8);
        assertThat(tuning.found() + tuning.missed()).isEqualTo(12);
        assertThat(2.0 * tuning.found() / (2 * tuning.found() + tuning.missed() + tuning.invented()))
                .isEqualTo(tuning.f1());
    }

    @Test
    void ringingAsksForADeadTimeAndTruthThatIsElsewhereIsRefused() {
        double[] x = new double[10_000];
        double[] truth = {1, 3, 5, 7, 9};
        for (double at : truth) {
            for (int i = 0; i < 60; i++) {
                x[(int) (at * RATE) + i] = i % 10 < 3 ? 40 : 0;
            }
        }
        Tuning tuning = Tuning.of(x, seconds(x.length), truth, 0.02);
        assertThat(tuning.f1()).isEqualTo(1);
        assertThat(tuning.deadSeconds()).isBetween(0.05, 1.6);
        assertThatThrownBy(() -> Tuning.of(x, seconds(x.length), new double[0], 0.1))
                .hasMessage("there is no true event to tune to");
        assertThatThrownBy(() -> Tuning.of(x, seconds(x.length), new double[] {50, 60}, 0.1))
                .hasMessage("no true event lies within the record");
        Tuning flat = Tuning.of(new double[1000], seconds(1000), new double[] {0.5}, 0.1);
        assertThat(flat.found()).isZero();
        assertThat(flat.missed()).isEqualTo(1);
    }
}
