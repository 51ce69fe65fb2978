package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.Reading;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.sample.FilledRun;
import zesty.signal.core.sample.Segments;
import zesty.signal.core.scale.Scaling;

/** Rows that are missing for a short while are filled, for a long one cut; what is filled is never measured. */
class HolesTest {
    private static final double RATE = 100;

    /** Rows of a slow sine of 1 Hz around 5, without those that the picker takes away. */
    private static double[][] rows(int count, java.util.function.IntPredicate lost) {
        double[] seconds = new double[count];
        double[] values = new double[count];
        int n = 0;
        for (int i = 0; i < count; i++) {
            if (!lost.test(i)) {
                seconds[n] = i / RATE;
                values[n++] = 5 + Math.sin(2 * Math.PI * i / RATE);
            }
        }
        return new double[][] {Arrays.copyOf(seconds, n), Arrays.copyOf(values, n)};
    }

    private static ChannelChain chain(String recipe) {
        Channel channel = new Channel("a", "a", Scaling.asItCame(""), Recipe.parse(recipe), true);
        return new ChannelChain(null, channel, 0, RATE, 1);
    }

    /** @return what the lane gets, one value a row */
    private static double[] lane(ChannelChain chain, double[][] rows, int piece) {
        List<double[]> out = new ArrayList<>();
        SegmentRun.Lane plain = SegmentRun.Lane.of(chain);
        SegmentRun.Lane kept = new SegmentRun.Lane() {
            @Override
            public ChannelChain chain() {
                return chain;
            }

            @Override
            public boolean passes(Segments.Segment segment) {
                return plain.passes(segment);
            }

            @Override
            public void passed(Segments.Segment segment) {
                plain.passed(segment);
            }

            @Override
            public ChannelChain.Part part(
                    java.util.function.IntFunction<double[]> columns, Segments.Segment segment, double[] seconds) {
                ChannelChain.Part part = plain.part(columns, segment, seconds);
                out.add(part.rows.clone());
                return part;
            }
        };
        Segments segments = new Segments(RATE, 0);
        for (int from = 0; from < rows[0].length; from += piece) {
            int to = Math.min(rows[0].length, from + piece);
            double[] part = Arrays.copyOfRange(rows[1], from, to);
            SegmentRun.run(segments, List.of(kept), List.of(), c -> part, Arrays.copyOfRange(rows[0], from, to));
        }
        return out.stream().flatMapToDouble(Arrays::stream).toArray();
    }

    @ParameterizedTest
    @CsvSource({"lowpass:10@2", "median:5", "smooth:9@2 | lowpass:20@2", "mean:4", "notch:20@5 | despike:3@3"})
    void theLaneIsTheSameWhateverThePiecesAndHasOneValueARow(String recipe) {
        double[][] rows = rows(3000, i -> i % 37 == 5 || i % 211 > 207 || i > 1500 && i < 1700);
        double[] whole = lane(chain(recipe), rows, rows[0].length);
        assertThat(whole).hasSameSizeAs(rows[0]);
        for (int piece : new int[] {1, 7, 64, 1000}) {
            assertThat(lane(chain(recipe), rows, piece))
                    .as("pieces of " + piece)
                    .isEqualTo(whole);
        }
    }

    /** A step that looks ahead gives each row its own answer, also where rows that were filled lie between. */
    @Test
    void aStepThatLooksAheadStaysWithItsRows() {
        double[][] rows = rows(2000, i -> i % 23 == 7);
        double[] seen = lane(chain("median:5"), rows, 64);
        for (int row = 2; row + 2 < seen.length; row++) {
            // Two samples late: the median of a sine is the sine, but for its crests.
            assertThat(seen[row + 2]).isCloseTo(rows[1][row], within(0.02));
        }
    }

    /** A filter that began anew at each lost row would never come to rest. */
    @Test
    void aFilterGoesOnOverALostRow() {
        double[] whole = lane(chain("highpass:0.2@2"), rows(6000, i -> false), 500);
        double[][] rows = rows(6000, i -> i % 50 == 20);
        double[] holed = lane(chain("highpass:0.2@2"), rows, 500);
        for (int row = 3000; row < holed.length; row++) {
            int same = (int) Math.round(rows[0][row] * RATE);
            assertThat(holed[row]).isCloseTo(whole[same], within(0.02));
        }
    }

    @Test
    void whatIsFilledIsNoMeasurement() {
        double[] seconds = {0, 0.01, 0.02, 0.03, 0.09, 0.1, 0.11, 0.12};
        double[] values = {1, 1, 1, 1, 7, 7, 7, 7};
        Reading level = TableReading.of("level", Map.of(), new double[][] {values}, seconds, RATE);
        assertThat(level.scalar("mean")).isEqualTo(4);
        assertThat(level.scalar("samples")).isEqualTo(8);
        double[][] rows = rows(3000, i -> i % 20 == 3);
        Reading shaken = TableReading.of("vibration", Map.of(), new double[][] {rows[1]}, rows[0], RATE);
        double mean = Arrays.stream(rows[1]).average().orElse(0);
        double rms = Math.sqrt(Arrays.stream(rows[1])
                .map(v -> (v - mean) * (v - mean))
                .average()
                .orElse(0));
        assertThat(shaken.scalar("rms")).isCloseTo(rms, within(1e-12));
        assertThat(shaken.quality().share()).isCloseTo(0.9, within(0.005));
        assertThat(shaken.quality().reasons()).anyMatch(words -> words.startsWith("5.0 % of the samples"));
    }

    /** A board that draws on a display for 0.2 s each 1.2 s leaves stretches that are too short for beats: that is what is said. */
    @Test
    void aDoubtfulAnswerSaysHowOftenItWasCut() {
        double[][] rows = rows(6000, i -> i % 120 >= 100);
        Reading cut = TableReading.of("pulse", Map.of(), new double[][] {rows[1]}, rows[0], RATE);
        assertThat(cut.quality().share()).isLessThan(0.5);
        assertThat(cut.quality().reasons())
                .last()
                .isEqualTo(
                        "samples are missing for 0.21 s and more at 49 places: the longest stretch without is 0.99 s");
        double[][] twice = rows(6000, i -> i % 2500 > 2400);
        assertThat(TableReading.of("pulse", Map.of(), new double[][] {twice[1]}, twice[0], RATE)
                        .quality()
                        .reasons())
                .noneMatch(words -> words.contains("places"));
    }

    /** A hole of 100 ms is short beside an optical beat and long beside a pull of a raw muscle. */
    @ParameterizedTest
    @ValueSource(strings = {"pulse", "muscle"})
    void theKindSaysHowLongAHoleIs(String kind) {
        ChannelChain chain = ChannelChain.plain("a", 0, 1000);
        ReaderRunner runner = new ReaderRunner(ReaderSetup.on("a", kind, Map.of()), List.of(), List.of(chain));
        double[] seconds = new double[1900];
        double[] values = new double[1900];
        Random random = new Random(1);
        for (int i = 0; i < values.length; i++) {
            seconds[i] = (i < 1000 ? i : i + 100) / 1000.0;
            values[i] = random.nextGaussian();
        }
        SegmentRun.run(
                new Segments(1000, 0), List.of(SegmentRun.Lane.of(chain)), List.of(runner), c -> values, seconds);
        boolean told = runner.whole().reading().quality().reasons().stream()
                .anyMatch(words -> words.contains("were filled in"));
        assertThat(told).isEqualTo(kind.equals("pulse"));
    }

    @Test
    void aRecordIsFilledAndParted() {
        double[] seconds = {0, 0.01, 0.05, 0.06, 2, 2.01};
        double[] values = {0, 1, 5, Double.NaN, 9, 9};
        List<FilledRun> runs = FilledRun.of(values, seconds, 0, 6, RATE, 0.25, false);
        assertThat(runs).hasSize(2);
        assertThat(runs.get(0).values()).containsExactly(0, 1, 2, 3, 4, 5);
        assertThat(runs.get(0).row()).containsExactly(0, 1, -1, -1, -1, 2);
        assertThat(runs.get(1).row()).containsExactly(4, 5);
        assertThat(FilledRun.of(values, seconds, 0, 6, RATE, 0.01, true)).hasSize(3);
    }
}
