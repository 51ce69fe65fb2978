package zesty.signal.boards.sim;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Reading;

/** Joints and shafts on the boards' own signals, good and bad; bounds are stated beside. */
class TurningTruthTest {
    private static double[][] elbow(Heard heard) {
        return List.of("ax1", "ay1", "az1", "gx1", "gy1", "gz1", "ax2", "ay2", "az2", "gx2", "gy2", "gz2").stream()
                .map(heard::of)
                .toArray(double[][]::new);
    }

    private static double[] angle(Reading reading) {
        return reading.items().stream()
                .filter(item -> item.key().equals("angle"))
                .map(item -> ((Item.Trace) item).values())
                .findFirst()
                .orElseThrow();
    }

    /** Units that are strapped on anyhow, gyros with a bias, acceleration of the arm itself: within 4° of the model's angle. */
    @ParameterizedTest
    @ValueSource(strings = {"elbow", "elbow+resting"})
    void anElbowsAngleIsThatOfTheModelHoweverTheUnitsSit(String board) {
        for (long seed = 1; seed <= 2; seed++) {
            Heard heard = Heard.hear(board, seed, 40);
            Reading reading = Heard.read("joint", 100, Map.of("start", "12"), elbow(heard));
            double[] told = angle(reading);
            double[] truth = heard.truth("angle °");
            double[] off = new double[told.length];
            Arrays.setAll(off, i -> Math.abs(told[i] - truth[i]));
            assertThat(Arrays.stream(off).max().orElseThrow()).isLessThan(4);
            assertThat(Arrays.stream(off).average().orElseThrow()).isLessThan(2);
            assertThat(reading.scalar("range_deg")).isCloseTo(92, within(2.0));
            assertThat(reading.scalar("repetitions")).isBetween(6.0, 8.0);
            assertThat(reading.quality().share()).isGreaterThan(0.8);
        }
    }

    /** No hinge, an axis that gravity cannot see, units whose columns are mixed up, and units at rest: doubted, each with its reason. */
    @Test
    void aJointThatCannotBeReadIsDoubted() {
        for (long seed = 1; seed <= 2; seed++) {
            Reading twists = Heard.read("joint", 100, Map.of(), elbow(Heard.hear("elbow+twists", seed, 40)));
            assertThat(twists.quality().share()).isLessThan(0.5);
            assertThat(twists.quality().reasons().get(0)).contains("do not turn as across a hinge");
            Reading upright = Heard.read("joint", 100, Map.of(), elbow(Heard.hear("elbow+upright", seed, 40)));
            assertThat(upright.quality().share()).isLessThan(0.5);
            double[][] mixed = elbow(Heard.hear("elbow", seed, 40));
            // A gyro whose z counts the other way round.
            Arrays.setAll(mixed[11], k -> -mixed[11][k]);
            assertThat(Heard.read("joint", 100, Map.of(), mixed).quality().share())
                    .isLessThan(0.5);
        }
        Random random = new Random(4);
        double[][] rest = new double[12][1000];
        for (int c = 0; c < 12; c++) {
            double level = c % 6 == 2 ? 1 : 0;
            double noise = c % 6 < 3 ? 0.006 : 0.3;
            Arrays.setAll(rest[c], i -> level + noise * random.nextGaussian());
        }
        Reading still = Heard.read("joint", 100, Map.of(), rest);
        assertThat(still.quality().share()).isLessThan(0.2);
        assertThat(still.scalar("range_deg")).isNaN();
        assertThat(still.quality().reasons().get(0)).contains("bend it a few times");
    }

    /** Amplitudes and where the crest comes after the mark, while the speed sways, or runs up fourfold, with hum that is no order. */
    @ParameterizedTest
    @ValueSource(strings = {"shaft", "shaft+runs-up", "shaft+bounced", "shaft+skips"})
    void aShaftsOrdersAreThoseOfTheModelWhateverItsSpeed(String board) {
        for (long seed = 1; seed <= 2; seed++) {
            Heard heard = Heard.hear(board, seed, 20);
            Reading reading = Heard.read("orders", 1000, Map.of(), heard.of("vibration"), heard.of("mark"));
            List<double[]> orders = reading.records("orders");
            double[][] truth = {{1, 0.4, 60}, {2, 0.15, 200}, {5, 0.08, 310}};
            for (double[] one : truth) {
                double[] told = orders.get((int) one[0] - 1);
                // Four standard uncertainties, and what a mark that is only there or not moves it: half a sample of 50
                // a turn.
                assertThat(told[2]).isCloseTo(one[1], within(4 * told[3] + 0.006));
                assertThat(told[4]).isCloseTo(one[2], within(8.0));
            }
            for (int other : new int[] {3, 4, 6, 7, 8}) {
                assertThat(orders.get(other - 1)[2]).isLessThan(4 * orders.get(other - 1)[3] + 0.006);
            }
            assertThat(reading.scalar("strongest")).isEqualTo(1);
            if (board.equals("shaft")) {
                assertThat(reading.scalar("turning_hz")).isCloseTo(23, within(0.25));
                assertThat(reading.quality().share()).isEqualTo(1);
                // Of 0.4, 0.15 and 0.08 beside hum of 0.1 and noise of 0.05: 0.0944 of 0.1019.
                assertThat(reading.scalar("with_turning")).isCloseTo(92.7, within(2.0));
            } else if (!board.endsWith("up")) {
                assertThat(reading.quality().share()).isLessThan(0.95);
                assertThat(reading.quality().reasons().get(0)).contains("left out");
            }
        }
    }

    /** A sensor where nothing of the shaft arrives, a mark that never comes, and a mark of pure noise. */
    @Test
    void nothingThatTurnsIsNoOrder() {
        for (long seed = 1; seed <= 2; seed++) {
            Heard apart = Heard.hear("shaft+apart", seed, 10);
            Reading reading = Heard.read("orders", 1000, Map.of(), apart.of("vibration"), apart.of("mark"));
            assertThat(reading.quality().share()).isLessThanOrEqualTo(0.5);
            assertThat(reading.scalar("strongest")).isNaN();
            assertThat(reading.scalar("phase_deg")).isNaN();
            double[] never = new double[10_000];
            Reading none = Heard.read("orders", 1000, Map.of(), apart.of("vibration"), never);
            assertThat(none.quality().share()).isZero();
            assertThat(none.scalar("turning_hz")).isNaN();
            Random random = new Random(seed);
            double[] noise = new double[10_000];
            Arrays.setAll(noise, i -> random.nextGaussian());
            Reading noisy = Heard.read("orders", 1000, Map.of(), apart.of("vibration"), noise);
            assertThat(noisy.quality().share()).isLessThanOrEqualTo(0.5);
        }
    }
}
