package zesty.signal.core.spectrum;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import java.util.function.IntPredicate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Two lines and noise at 100 samples/s, where what was between the samples is known. */
class EvenRecordTest {
    private static final double RATE = 100;
    private static final double NOISE = 0.05;
    private static final DoubleUnaryOperator TRUTH =
            t -> 2 * Math.sin(2 * Math.PI * 17 * t) + 0.3 * Math.sin(2 * Math.PI * 6.3 * t + 1) + 5;

    private final Random random = new Random(20);

    private double[] sampled(double[] seconds, DoubleUnaryOperator truth, double noise) {
        return Arrays.stream(seconds)
                .map(t -> truth.applyAsDouble(t) + noise * random.nextGaussian())
                .toArray();
    }

    private static double[] even(int n, IntPredicate there) {
        return java.util.stream.IntStream.range(0, n)
                .filter(there)
                .mapToDouble(i -> i / RATE)
                .toArray();
    }

    private EvenRecord record(double[] seconds, DoubleUnaryOperator truth, double noise) {
        return EvenRecord.of(sampled(seconds, truth, noise), seconds, RATE, 0.25);
    }

    /** The root of the mean squared error against the truth at each place. */
    private static double error(EvenRecord record, DoubleUnaryOperator truth) {
        double squares = 0;
        for (int i = 0; i < record.axes()[0].length; i++) {
            double off = record.axes()[0][i] - truth.applyAsDouble(record.begins()[0] + i / RATE);
            squares += off * off;
        }
        return Math.sqrt(squares / record.axes()[0].length);
    }

    @ParameterizedTest
    @CsvSource({"24, 5", "12, 2", "60, 10", "24, 20"})
    void holesThatComeRegularlyAreFilledAsTheRestHasIt(int turn, int missing) {
        EvenRecord record = record(
                even(4000, i -> i % turn < turn - missing || i == 3999 || missing > 10 && i < 400), TRUTH, NOISE);

        assertThat(record.runs()).hasSize(1);
        assertThat(record.axes()[0]).hasSize(4000);
        assertThat(record.unevenness()).isZero();
        assertThat(error(record, TRUTH)).isLessThan(missing > 10 ? 12 * NOISE : 2 * NOISE);
    }

    @Test
    void rowsLostAtRandomAreToo() {
        boolean[] lost = new boolean[4000];
        for (int i = 1; i < 3999; i++) {
            lost[i] = random.nextDouble() < 0.2;
        }
        assertThat(error(record(even(4000, i -> !lost[i]), TRUTH, NOISE), TRUTH))
                .isLessThan(2 * NOISE);
    }

    @Test
    void ofNoiseNothingIsMadeUp() {
        EvenRecord record = record(even(4000, i -> i % 24 < 19 || i == 3999), t -> 5, NOISE);

        double most = 0;
        for (int i = 0; i < 4000; i++) {
            most = i % 24 < 19 ? most : Math.max(most, Math.abs(record.axes()[0][i] - 5));
        }
        assertThat(most).isLessThan(3 * NOISE);
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.07, 0.25})
    void stepsOfALoopThatIsNowLongerAndNowShorterAreBroughtOntoAGrid(double scatter) {
        double[] seconds = new double[4000];
        for (int i = 1; i < seconds.length; i++) {
            seconds[i] = seconds[i - 1] + Math.max(0.2, 1 + scatter * random.nextGaussian()) / RATE;
        }
        EvenRecord record = record(seconds, TRUTH, 0);

        assertThat(record.unevenness()).isGreaterThan(scatter);
        assertThat(record.axes()[0].length / RATE).isCloseTo(seconds[3999], within(1 / RATE));
        // What is left is what a spline loses of the faster line, with six samples to a period.
        assertThat(error(record, TRUTH)).isLessThan(scatter / 2);
    }

    @Test
    void aPauseThatIsNoWholeNumberOfPeriodsKeepsThePhaseOfWhatFollows() {
        double[] seconds = new double[2500];
        for (int i = 1; i < seconds.length; i++) {
            seconds[i] = seconds[i - 1] + (i % 25 == 0 ? 3.4 : 1) / RATE;
        }
        assertThat(error(record(seconds, TRUTH, NOISE), TRUTH)).isLessThan(0.15);
    }

    /** Samples of a timer are even, and what a clock rounds of their times is not to be put into them. */
    @ParameterizedTest
    @CsvSource({"0.003, 0", "0.001, 0", "0, 0.0003"})
    void timesThatAreRoundedOrALittleOffLeaveSamplesAsTheyCame(double tick, double noise) {
        double[] seconds = even(4000, i -> true);
        double[] values = sampled(seconds, TRUTH, NOISE);
        double[] told = Arrays.stream(seconds)
                .map(t -> tick > 0 ? Math.floor(t / tick) * tick : t + noise * random.nextGaussian())
                .toArray();

        assertThat(EvenRecord.of(values, told, RATE, 0.25).axes()[0]).containsExactly(values);
    }

    /** A timer samples, and the loop stamps what it finds when it comes to it. */
    @Test
    void evenSamplesWithStampsThatAreLateStayAsTheyCame() {
        double[] seconds = even(4000, i -> true);
        double[] values = sampled(seconds, TRUTH, NOISE);
        double[] told = Arrays.stream(seconds)
                .map(t -> t + 0.5 / RATE * random.nextDouble())
                .toArray();
        EvenRecord record = EvenRecord.of(values, told, RATE, 0.25);

        assertThat(record.axes()[0]).containsExactly(values);
        assertThat(record.unevenness()).isZero();
    }

    @Test
    void aRowThatWasHeldUpNowAndThenIsNoHole() {
        double[] seconds = even(4000, i -> true);
        for (int i = 300; i < 3900; i += 600) {
            seconds[i] += 0.008;
        }
        EvenRecord record = EvenRecord.of(sampled(seconds, TRUTH, NOISE), seconds, RATE, 0.25);

        assertThat(record.axes()[0]).hasSize(4000);
    }

    @Test
    void afterALongHoleAnotherRunBegins() {
        double[] seconds = even(1000, i -> i < 500 || i >= 530);
        double[] values = sampled(seconds, TRUTH, NOISE);
        values[900] = Double.NaN;
        EvenRecord record = EvenRecord.of(values, seconds, RATE, 0.25);

        assertThat(record.runs()).containsExactly(new int[] {0, 500}, new int[] {500, 970});
        assertThat(record.begins()).containsExactly(0, 5.3);
        assertThat(record.axes()[0][900]).isCloseTo(TRUTH.applyAsDouble(9.3), within(4 * NOISE));
        assertThat(EvenRecord.of(new double[] {Double.NaN}, new double[] {0}, RATE, 0.25)
                        .runs())
                .isEmpty();
        assertThat(EvenRecord.of(new double[] {1, 2, 4}, new double[] {0, 0, 0}, RATE, 0.25)
                        .axes()[0])
                .hasSize(3);
        assertThat(EvenRecord.of(new double[][] {{1, 2}}, new double[] {0, 1}, List.of(new int[] {0, 2}), i -> false, 1)
                        .runs())
                .isEmpty();
    }
}
