package zesty.signal.core.sample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What all the rest counts with, held against sorting by the library, and against numbers worked by hand at their edges. */
class OnPaperTest {
    private static final double NAN = Double.NaN;

    /** Of an even number the mean of the two in the middle. */
    private static double middle(List<Double> values) {
        List<Double> sorted = new ArrayList<>(values);
        Collections.sort(sorted);
        int half = sorted.size() / 2;
        return sorted.isEmpty() ? NAN : (sorted.get((sorted.size() - 1) / 2) + sorted.get(half)) / 2;
    }

    @Test
    void aWindowThatSlidesKnowsItsMiddleAsSortingDoes() {
        Random random = new Random(8);
        SortedWindow window = new SortedWindow(9);
        List<Double> in = new ArrayList<>();
        for (int step = 0; step < 3000; step++) {
            // Few different values, so that many are alike.
            double value = random.nextInt(7) - 3;
            int what = random.nextInt(3);
            if (in.size() == 9 || what == 0 && !in.isEmpty()) {
                window.remove(in.remove(random.nextInt(in.size())));
            } else if (what == 1 && !in.isEmpty()) {
                window.replace(in.remove(0), value);
                in.add(value);
            } else {
                window.add(value);
                in.add(value);
            }
            double median = middle(in);
            assertThat(window.count()).isEqualTo(in.size());
            if (in.isEmpty()) {
                assertThat(window.median()).isNaN();
                assertThat(window.medianDeviation()).isNaN();
                continue;
            }
            assertThat(window.median()).isEqualTo(median);
            assertThat(window.medianDeviation())
                    .isEqualTo(middle(in.stream().map(v -> Math.abs(v - median)).toList()));
            double[] values = in.stream().mapToDouble(v -> v).toArray();
            double share = random.nextInt(11) / 10.0;
            int rank = (int) Math.min(values.length - 1, Math.floor(share * values.length));
            assertThat(Order.quantile(values, share))
                    .isEqualTo(
                            values.length == 0
                                    ? NAN
                                    : Arrays.stream(values).sorted().toArray()[rank]);
        }
        window.clear();
        assertThat(window.median()).isNaN();
        SortedWindow one = new SortedWindow(1);
        one.add(1);
        assertThatThrownBy(() -> one.add(2)).isInstanceOf(IndexOutOfBoundsException.class);
    }

    /** The highest code of a width stands for a missing value, so that a span has one code less. */
    @ParameterizedTest
    @CsvSource({
        "0, 254, 1, 1, 0",
        "-3, 251, 1, 1, -3",
        "0, 255, 2, 1, 0",
        "-1.5, 23.9, 1, 10, -15",
        "0, 65534, 2, 1, 0",
        "0, 65535, 4, 1, 0",
        "1.25, 6554.5, 4, 100, 125",
        "0, 4294967294, 4, 1, 0",
        "0, 4294967295, 8, 1, 0",
        "0.001, 0.255, 1, 1000, 1",
        "0.000001, 1, 4, 1000000, 1",
        "0.3333333333333333, 1, 8, 1, 0",
        "9007199254740992, 9007199254740992, 8, 1, 0",
        "-0.0, 1, 1, 1, 0"
    })
    void valuesArePackedAsNarrowAsTheySpan(double low, double high, int width, double divisor, long base) {
        double[] values = {high, NAN, low, 77};
        Packed packed = Packed.of(values, 3);
        assertThat(packed.width()).isEqualTo(width);
        assertThat(packed.divisor()).isEqualTo(divisor);
        assertThat(packed.base()).isEqualTo(base);
        assertThat(packed.holds(3)).isTrue();
        assertThat(packed.holds(2)).isFalse();
        double[] back = new double[4];
        packed.unpack(back, 1, 3);
        // Of a zero the sign is not kept.
        assertThat(back).containsExactly(0, high, NAN, low + 0.0);
    }

    @Test
    void theRateIsThatOutsideTheGaps() {
        assertThat(SampleRate.of(new double[] {0, 0.1, 0.2, 0.3, 1.3, 1.4})).isEqualTo(10);
        // 1.6 steps are none missing yet: four steps in 0.46 s.
        assertThat(SampleRate.of(new double[] {0, 0.1, 0.2, 0.3, 0.46})).isCloseTo(4 / 0.46, within(1e-9));
        // Held up, then in time: neither of the two steps counts.
        assertThat(SampleRate.of(new double[] {0, 0.1, 0.2, 0.3, 0.48, 0.5, 0.6}))
                .isEqualTo(10);
        // Coarse times: what is usual is found without the steps of 0, what is counted with them.
        assertThat(SampleRate.of(new double[] {0, 0, 1, 1, 2, 2, 3})).isEqualTo(2);
        assertThat(SampleRate.of(new double[] {0, 0.3, 0.6, 0.9})).isCloseTo(1 / 0.3, within(1e-12));
        assertThat(SampleRate.of(new double[] {5, 5, 5})).isNaN();
        // Two thirds at 500 a second, then twice or half as fast, and 430 stamped in whole milliseconds.
        for (double by : new double[] {2, 0.5, 1.2}) {
            double[] paces = new double[9000];
            for (int i = 1; i < paces.length; i++) {
                paces[i] = paces[i - 1] + (i < 6000 ? 0.002 : 0.002 / by);
            }
            assertThat(SampleRate.of(paces)).as("%s", by).isCloseTo(500, within(0.5));
        }
        double[] stamped = new double[900];
        Arrays.setAll(stamped, i -> Math.floor(i / 0.43) / 1000);
        assertThat(SampleRate.of(stamped)).isCloseTo(430, within(1.0));
    }

    @Test
    void aShortHoleIsFilledByALineAndALongOneParts() {
        double[] values = {7, 1, NAN, 4, 5, 9};
        double[] seconds = {-1, 0, 1, 3, 4, 8};
        List<FilledRun> runs = FilledRun.of(values, seconds, 1, 6, 1, 3, false);
        assertThat(runs).hasSize(2);
        assertThat(runs.get(0).values()).containsExactly(1, 2, 3, 4, 5);
        assertThat(runs.get(0).seconds()).containsExactly(0, 1, 2, 3, 4);
        assertThat(runs.get(0).row()).containsExactly(1, -1, -1, 3, 4);
        assertThat(runs.get(1).row()).containsExactly(5);
        // Where a step of cleaning deals with missing values, a row without one stays.
        FilledRun stays = FilledRun.of(values, seconds, 1, 5, 1, 3, true).get(0);
        assertThat(stays.row()).containsExactly(1, 2, -1, 3, 4);
        assertThat(stays.values()[1]).isNaN();
        assertThat(FilledRun.of(values, seconds, 2, 3, 1, 3, false)).isEmpty();
        Holes holes = new Holes();
        assertThat(List.of(holes.missing(2.4, 1), holes.missing(2.4, 1), holes.missing(2.4, 1), holes.missing(2.4, 1)))
                .containsExactly(1, 2, 1, 2);
        holes.restart();
        assertThat(holes.missing(1.4, 1) + holes.missing(0, 1)).isZero();
        assertThat(Holes.alone(1.4, 1)).isZero();
        assertThat(Holes.alone(2.6, 1)).isEqualTo(2);
        assertThat(Holes.alone(0, 1)).isZero();
    }

    @Test
    void rowsArePartedWhereSomeAreMissingAndWhereABoardIsWarm() {
        double[] seconds = {0, 0.125, 0.25, 0.4375, 0.65625, 0.78125, 1.78125, 1.90625, 2.15625};
        assertThat(new Segments(8, 0).part(seconds, 0, 9))
                .containsExactly(
                        new Segments.Segment(0, 4, 0, false),
                        new Segments.Segment(4, 6, 0.21875, false),
                        new Segments.Segment(6, 8, 1, false),
                        new Segments.Segment(8, 9, 0.25, false));
        double all = Double.POSITIVE_INFINITY;
        // Warm after 0.1875 s; after a silence of a second it warms up again.
        assertThat(new Segments(8, 0.1875).part(seconds, 0, 9))
                .containsExactly(
                        new Segments.Segment(0, 2, 0, true),
                        new Segments.Segment(2, 4, all, false),
                        new Segments.Segment(4, 6, 0.21875, false),
                        new Segments.Segment(6, 8, all, true),
                        new Segments.Segment(8, 9, all, false));
        assertThat(Segments.after(0.125, 8, 5).part(seconds, 2, 4))
                .containsExactly(new Segments.Segment(2, 4, 0, false));
        assertThat(new Segments.Segment(2, 4, 0, false).afterGap()).isFalse();
        assertThat(new Segments.Segment(2, 4, 0.2, false).length()).isEqualTo(2);
    }

    @Test
    void aPairSaysItsRangesAndNothingOfWhatDoesNotChange() {
        Pair pair = Pair.of(new double[] {4, -2, 1, 99}, new double[] {8, 5, 5, -99}, 3);
        // Means 1 and 6; xx = 18, xy = 9, yy = 6.
        assertThat(pair).isEqualTo(new Pair(-2, 4, 5, 8, 0.5, 5.5, 9 / Math.sqrt(108)));
        assertThat(Pair.of(new double[] {1, 3}, new double[] {2, 6}, 2).correlation())
                .isNaN();
        assertThat(Pair.of(new double[] {1, 2, 3}, new double[] {4, 4, 4}, 3).correlation())
                .isNaN();
        Pair none = Pair.of(new double[0], new double[0], 0);
        assertThat(new double[] {none.lowX(), none.highX(), none.lowY(), none.highY()})
                .containsExactly(0, 1, 0, 1);
    }

    /** At 8 a second a step is 0.125 s, and one of more than 0.2 s is a gap. */
    @Test
    void gapsAreLongerThanAUsualStepAndSayHowManyAreMissing() {
        double[] seconds = {1.125, 1.3125, 1.4375, 2.4375, 2.5625};
        assertThat(Gap.between(1, seconds, 8)).containsExactly(new Gap(1.4375, 2.4375, 7));
        assertThat(Gap.between(0, seconds, 8))
                .containsExactly(new Gap(0, 1.125, 8), new Gap(1.4375, 2.4375, 7))
                .extracting(Gap::seconds)
                .containsExactly(1.125, 1.0);
        assertThat(Gap.between(NAN, seconds, 0.8)).isEmpty();
        // A thousand rows half as fast: the first few might each have one missing, and no more.
        double[] slower =
                IntStream.range(0, 1000).mapToDouble(i -> 10 + i / 4.0).toArray();
        assertThat(Gap.between(9.875, slower, 8)).hasSize(8);
        assertThatThrownBy(() -> new Gap(2, 1, 0)).hasMessageContaining("2");
    }

    @Test
    void blocksAreOneAfterTheOtherWithTheirPicturesAndTheirGaps() {
        Block first = new Block(
                new TimeBase.Steady(3, 0.5), new double[][] {{1, 2, 99}}, 2, List.of(), new double[][] {{10}, {20}});
        Block second = new Block(
                new TimeBase.Explicit(new double[] {5, 5.25}),
                new double[][] {{3, 4}},
                2,
                List.of(new Gap(3.5, 5, 2)),
                new double[][] {null, {40}});
        Block both = Block.join(List.of(first, second));
        assertThat(both.rows()).isEqualTo(4);
        assertThat(both.columns()).isDeepEqualTo(new double[][] {{1, 2, 3, 4}});
        assertThat(both.frames()).isDeepEqualTo(new double[][] {{10}, {20}, null, {40}});
        assertThat(new double[] {both.time().secondsAt(1), both.time().secondsAt(2), both.lastSeconds()})
                .containsExactly(3.5, 5, 5.25);
        assertThat(both.gaps()).containsExactly(new Gap(3.5, 5, 2));
        assertThat(Block.join(List.of(second))).isSameAs(second);
        Block tail = both.tail(1);
        assertThat(tail.columns()).isDeepEqualTo(new double[][] {{2, 3, 4}});
        assertThat(tail.frames()).isDeepEqualTo(new double[][] {{20}, null, {40}});
        assertThat(tail.time().secondsAt(0)).isEqualTo(3.5);
        assertThat(tail.gaps()).hasSize(1);
        assertThat(both.head(2).gaps()).isEmpty();
        assertThat(both.withColumns(new double[][] {{0, 0, 0, 0}}).gaps()).hasSize(1);
        assertThatThrownBy(() -> both.withColumns(new double[][] {{0}})).hasMessageContaining("4");
    }

    @Test
    void aStretchSaysItsFirstAndLastThatAreThere() {
        SpanNumbers.Sums sums = new SpanNumbers.Sums(1);
        assertThat(sums.first()).isNaN();
        for (double value : new double[] {NAN, 4, NAN, 6, 9, NAN}) {
            sums.add(value, 2);
        }
        assertThat(sums.first()).isEqualTo(4);
        assertThat(sums.last()).isEqualTo(9);
        assertThat(Order.median(new double[] {9, 1, 4})).isEqualTo(4);
    }
}
