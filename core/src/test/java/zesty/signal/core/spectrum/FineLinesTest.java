package zesty.signal.core.spectrum;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** A minute at 200 samples/s: short segments tell 0.4 Hz apart, the whole a fifteenth of one. */
class FineLinesTest {
    private static final double RATE = 200;
    private static final int SAMPLES = 12_000;
    private static final int SHORT = 500;
    private static final double FINE_HZ = RATE / SAMPLES;

    private static double[] made(double noise, long seed, IntToDoubleFunction signal) {
        Random random = new Random(seed);
        double[] x = new double[SAMPLES];
        Arrays.setAll(x, i -> signal.applyAsDouble(i) + noise * random.nextGaussian());
        return x;
    }

    private static double tone(int i, double hz, double amplitude) {
        return amplitude * Math.sin(2 * Math.PI * hz * i / RATE + hz);
    }

    private static FineLines of(List<int[]> runs, double[]... axes) {
        double[] coarse = new double[SHORT / 2 + 1];
        for (double[] axis : axes) {
            double[] own = Welch.of(axis, runs, RATE, Window.HANN, SHORT, 0.5).density();
            Arrays.setAll(coarse, k -> coarse[k] + own[k]);
        }
        return FineLines.of(axes, runs, RATE, coarse, RATE / SHORT, 1);
    }

    private static FineLines of(double[]... axes) {
        return of(List.of(new int[] {0, axes[0].length}), axes);
    }

    /** The lines above a height, as "Hz × height", since noise may leave low ones. */
    private static List<Lines.Line> above(FineLines lines, double amplitude) {
        return lines.lines().stream().filter(one -> one.amplitude() > amplitude).toList();
    }

    private static void are(List<Lines.Line> lines, double... hzAndAmplitudes) {
        assertThat(lines).as("%s", lines).hasSize(hzAndAmplitudes.length / 2);
        for (int i = 0; i < lines.size(); i++) {
            assertThat(lines.get(i).hz()).isCloseTo(hzAndAmplitudes[2 * i], within(0.1 * FINE_HZ));
            assertThat(lines.get(i).amplitude())
                    .isCloseTo(hzAndAmplitudes[2 * i + 1], within(0.02 * hzAndAmplitudes[2 * i + 1]));
        }
    }

    /** Two a fifth of a hertz apart, one short segment's line: both by their own place and height, between the bins, too. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 0.3, 0.5, 0.8})
    void twoThatShortSegmentsTakeForOneAreTold(double part) {
        double hz = (1800 + part) * FINE_HZ;
        FineLines lines = of(made(0.1, 1, i -> tone(i, hz, 1) + tone(i, hz + 0.21, 0.6)));
        are(above(lines, 0.05), hz, 1, hz + 0.21, 0.6);
        assertThat(lines.resolutionHz()).isCloseTo(4 * FINE_HZ, within(1e-12));
        assertThat(lines.lines().get(0).clear()).isGreaterThan(1000);
    }

    /** What shakes two ways at once is as high as both together; a gap in the record is left out. */
    @Test
    void axesAreAddedUpOverTheLongestRunWithoutAGap() {
        double[] along = made(0.05, 2, i -> i < 3000 ? 40 * tone(i, 33, 1) : tone(i, 50, 3));
        double[] across = made(0.05, 3, i -> i < 3000 ? 40 * tone(i, 33, 1) : tone(i, 50, 4));
        FineLines lines = of(List.of(new int[] {0, 1000}, new int[] {3000, SAMPLES}), along, across);
        assertThat(above(lines, 1).stream().filter(one -> Math.abs(one.hz() - 50) < 0.01))
                .singleElement()
                .satisfies(one -> assertThat(one.amplitude()).isCloseTo(5, within(0.1)));
        assertThat(lines.resolutionHz()).isCloseTo(4 * RATE / 9000, within(1e-12));
    }

    @Test
    void oneThatSwingsInHeightOrPaceIsOneLineAndSoAreItsHarmonics() {
        FineLines height = of(made(0.02, 4, i -> (1 + 0.8 * Math.cos(2 * Math.PI * 0.2 * i / RATE)) * tone(i, 40, 1)));
        assertThat(above(height, 0.1)).hasSize(1);
        assertThat(height.lines().get(0).hz()).isCloseTo(40, within(0.05));
        FineLines pace = of(made(0.02, 5, i -> {
            double turned = 2 * Math.PI * 30 * i / RATE + 1.5 * Math.sin(2 * Math.PI * 0.15 * i / RATE);
            return Math.sin(turned) + 0.4 * Math.sin(2 * turned);
        }));
        assertThat(above(pace, 0.1).stream().mapToLong(one -> Math.round(one.hz())))
                .containsExactly(30L, 60L);
    }

    /**
     * Two lines beside each other are told, but not where they lie at a multiple of one that swings and is stronger: they are
     * pieces of its harmonic, which swings as often as wide.
     */
    @ParameterizedTest
    @CsvSource({
        "10, 20, 0.4, 1",
        "10, 80, 0.4, 1",
        "10, 90, 0.4, 2",
        "10, 20, 2, 2",
        "10, 21.5, 0.4, 2",
        "30, 15, 0.4, 2",
        "30, 60.9, 0.4, 1",
        "30, 58.5, 0.4, 2"
    })
    void twoAtAMultipleOfOneThatSwingsAreItsHarmonic(double swings, double hz, double amplitude, int told) {
        FineLines lines = of(made(0.01, 11, i -> {
            double turned = 2 * Math.PI * swings * i / RATE + 1.5 * Math.sin(2 * Math.PI * 0.15 * i / RATE);
            return Math.sin(turned) + tone(i, hz, amplitude) + tone(i, hz + 0.21, 0.7 * amplitude);
        }));
        assertThat(above(lines, 0.2).stream().filter(one -> Math.abs(one.hz() - hz) < 1))
                .as("%s", lines.lines())
                .hasSize(told);
        assertThat(above(lines, 0.2).stream().filter(one -> Math.abs(one.hz() - swings) < 1))
                .hasSize(1);
    }

    /** Seven of one height side by side are one that swings wide where they lie evenly, else seven. */
    @ParameterizedTest
    @CsvSource({"0, 1", "0.06, 7"})
    void evenlySpacedOnesAreOneThatSwings(double apart, int told) {
        double[] amplitudes = {0.9, 0.5, 1, 0.7, 0.6, 0.95, 0.55};
        FineLines lines = of(made(0.01, 12, i -> IntStream.range(0, 7)
                .mapToDouble(k -> tone(i, 50 + 0.15 * k + (k == 2 ? apart : 0), amplitudes[k]))
                .sum()));
        assertThat(above(lines, 0.2)).hasSize(told);
    }

    /** A tone that comes with the second half only is no steady line of the record: the short segments tell it. */
    @Test
    void whatIsNotThereAllTheTimeIsTakenFromTheShortSegments() {
        FineLines lines = of(made(0.02, 6, i -> i < SAMPLES / 2 ? 0 : tone(i, 24.7, 1)));
        assertThat(above(lines, 0.1)).singleElement().satisfies(one -> assertThat(one.hz())
                .isCloseTo(24.7, within(RATE / SHORT)));
        assertThat(lines.lines().get(0).amplitude()).isCloseTo(Math.sqrt(0.5), within(0.05));
    }

    @Test
    void aShortRecordIsReadByItsShortSegmentsAlone() {
        double[] x = Arrays.copyOf(made(0.02, 7, i -> tone(i, 44, 1)), 600);
        FineLines lines = of(x);
        assertThat(lines.resolutionHz()).isCloseTo(4 * RATE / SHORT, within(1e-12));
        assertThat(above(lines, 0.3)).singleElement().satisfies(one -> assertThat(one.hz())
                .isCloseTo(44, within(0.05)));
    }

    /** Of a hundred records of noise one may show a line that none has; what is slower than six periods a record is drift. */
    @Test
    void noiseAndDriftShowNoSteadyLines() {
        long shown = IntStream.range(0, 40)
                .mapToObj(seed -> of(made(1, 100 + seed, i -> 0)))
                .filter(lines -> lines.lines().stream().anyMatch(one -> one.clear() > 19))
                .count();
        assertThat(shown).isLessThanOrEqualTo(3);
        FineLines drift = of(made(0.01, 8, i -> tone(i, 4.5 * FINE_HZ, 10) + tone(i, 20, 0.2)));
        assertThat(above(drift, 0.1)).singleElement().satisfies(one -> assertThat(one.hz())
                .isCloseTo(20, within(0.1 * FINE_HZ)));
    }

    /** Five tones that have nothing to do with each other, within one coarse line; the strongest ten times the weakest. */
    @Test
    void aWeakOneBesideAStrongOneIsNoSideLobe() {
        double[] hz = {50, 50.11, 50.35, 50.43, 50.62};
        double[] amplitudes = {1, 0.8, 0.6, 0.5, 0.1};
        FineLines lines = of(made(0.02, 9, i -> IntStream.range(0, 5)
                .mapToDouble(k -> tone(i, hz[k], amplitudes[k]))
                .sum()));
        are(above(lines, 0.08), 50, 1, 50.11, 0.8, 50.35, 0.6, 50.43, 0.5, 50.62, 0.1);
    }
}
