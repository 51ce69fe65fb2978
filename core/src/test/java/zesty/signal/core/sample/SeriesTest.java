package zesty.signal.core.sample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SeriesTest {
    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void rangesEqualALookAtEverySampleAlsoAfterTheRingWentRound(boolean exactly) {
        SeriesRing series = new SeriesRing(1 << 16, exactly);
        Random random = new Random(9);
        double[] all = new double[300_000];
        for (int i = 0; i < all.length; i++) {
            all[i] = i % 97 == 0 ? Double.NaN : random.nextGaussian();
        }
        for (int at = 0; at < all.length; ) {
            int n = Math.min(all.length - at, 1 + random.nextInt(5000));
            series.append(all, at, n);
            at += n;
        }
        assertThat(series.end()).isEqualTo(all.length);
        assertThat(series.capacity()).isEqualTo(1 << 16);
        for (int i = (int) series.start(); i < all.length; i++) {
            assertThat((Double) series.value(i))
                    .isEqualTo(exactly ? (Double) all[i] : (Double) (double) (float) all[i]);
        }
        assertThat(series.start()).isEqualTo(all.length - (1 << 16) + SeriesRing.MARGIN);
        float[] found = new float[2];
        for (int trial = 0; trial < 2000; trial++) {
            int from = (int) series.start() + random.nextInt(50_000);
            int to = Math.min(all.length, from + 1 + random.nextInt(12_000));
            series.range(from, to, found);
            double[] there =
                    Arrays.stream(all, from, to).filter(v -> !Double.isNaN(v)).toArray();
            if (there.length > 0) {
                assertThat(found[0])
                        .isEqualTo((float) Arrays.stream(there).min().orElseThrow());
                assertThat(found[1])
                        .isEqualTo((float) Arrays.stream(there).max().orElseThrow());
            }
        }
        series.range(5, 5, found);
        assertThat(found[0]).isNaN();
    }

    @Test
    void timesAreFoundAndBlocksJoinedAndCut() {
        Block a = new Block(new TimeBase.Steady(0, 0.5), new double[][] {{1, 2, 3}}, 3, List.of());
        Block b = new Block(
                new TimeBase.Explicit(new double[] {4, 4.5}), new double[][] {{4, 5}}, 2, List.of(new Gap(1, 4, 5)));
        Block joined = Block.join(List.of(a, b));
        assertThat(joined.columns()[0]).containsExactly(1, 2, 3, 4, 5);
        assertThat(joined.lastSeconds()).isEqualTo(4.5);
        assertThat(joined.gaps()).hasSize(1);
        assertThat(joined.head(3).gaps()).isEmpty();
        assertThat(joined.head(4).gaps()).hasSize(1);
        assertThat(joined.head(0).rows()).isZero();
        assertThat(joined.tail(3).gaps()).hasSize(1);
        assertThat(joined.tail(4).gaps()).isEmpty();
        assertThat(joined.tail(4).columns()[0]).containsExactly(5);
        assertThat(joined.tail(0)).isSameAs(joined);
        assertThat(joined.head(5)).isSameAs(joined);
        TimeRing ring = new TimeRing(1 << 16);
        ring.append(joined.time(), joined.rows());
        assertThat(ring.firstAtOrAfter(1.2)).isEqualTo(3);
        assertThat(ring.firstAtOrAfter(-1)).isZero();
        assertThat(ring.firstAtOrAfter(9)).isEqualTo(5);
    }

    @Test
    void theRateIsTakenFromTimesAroundGapsAndFromCoarseOnes() {
        double[] times = new double[1000];
        for (int i = 1; i < times.length; i++) {
            times[i] = times[i - 1] + (i == 500 ? 3.0 : 0.004);
        }
        assertThat(SampleRate.of(times)).isEqualTo(250);
        double[] coarse = new double[16_001];
        for (int i = 0; i < coarse.length; i++) {
            coarse[i] = Math.floor(i / 1.6) / 1000;
        }
        assertThat(SampleRate.of(coarse)).isCloseTo(1600, within(0.01));
        assertThat(SampleRate.of(new double[] {1, 1, 1})).isNaN();
    }
}
