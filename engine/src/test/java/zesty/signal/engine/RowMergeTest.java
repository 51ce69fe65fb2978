package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import zesty.signal.core.act.Watch;

/** Several lines of samples in one order of time, and a reader's number second by second. */
class RowMergeTest {
    private final RowMerge merge = new RowMerge();
    private final List<Double> out = new ArrayList<>();

    private void add(String line, double... seconds) {
        merge.join(line);
        for (double one : seconds) {
            merge.add(line, new RowMerge.Moment(one, -1, new double[] {one}));
        }
    }

    private void release(long nanos) {
        merge.release(nanos, moment -> out.add(moment.seconds()));
    }

    @Test
    void whatIsBehindIsWaitedForAndWhatIsSilentIsNot() {
        add("a", 1, 2, 3);
        merge.heard("a", 3, 1_000_000_000);
        add("b", 0.5, 1.5);
        merge.heard("b", 1.5, 1_000_000_000);
        release(1_000_000_000);
        assertThat(out).containsExactly(0.5, 1.0, 1.5);
        // b says no more: after a while a goes on without it.
        release(1_200_000_000);
        assertThat(out).hasSize(3);
        merge.heard("a", 3, 1_500_000_000);
        release(1_500_000_000);
        assertThat(out).containsExactly(0.5, 1.0, 1.5, 2.0, 3.0);
        // What then comes of b comes at once, late as it is.
        add("b", 1.7, 4);
        merge.heard("b", 4, 1_600_000_000);
        release(1_600_000_000);
        assertThat(out).containsExactly(0.5, 1.0, 1.5, 2.0, 3.0, 1.7);
        add("a", 3.5, 4.5);
        merge.heard("a", 4.5, 1_700_000_000);
        release(1_700_000_000);
        assertThat(out.subList(6, out.size())).containsExactly(3.5, 4.0);
        merge.clear();
        release(9_000_000_000L);
        assertThat(out).hasSize(8);
    }

    @Test
    void fourLinesInRandomBlocksComeOutInOrderAndWhole() {
        Random random = new Random(20_261_134);
        double[] at = new double[4];
        int given = 0;
        long nanos = 1;
        for (int line = 0; line < 4; line++) {
            add("line " + line);
            merge.heard("line " + line, 0, nanos);
        }
        for (int block = 0; block < 2000; block++) {
            int line = random.nextInt(4);
            double[] seconds = new double[random.nextInt(6)];
            for (int i = 0; i < seconds.length; i++) {
                at[line] += 0.001 + 0.01 * random.nextDouble();
                seconds[i] = at[line];
            }
            add("line " + line, seconds);
            given += seconds.length;
            nanos += 1_000_000;
            merge.heard("line " + line, at[line], nanos);
            release(nanos);
        }
        assertThat(out).isSorted();
        merge.heard("line 0", 1e9, nanos + 1_000_000_000);
        release(nanos + 1_000_000_000);
        assertThat(out).isSorted().hasSize(given);
    }

    /** The mean of the last two seconds, second by second, by plain arithmetic. */
    @Test
    void aNumbersHistoryIsWhatAReaderSaidEachSecond() {
        double rate = 20;
        double[] seconds = new double[200];
        double[] x = new double[200];
        Random random = new Random(5);
        for (int i = 0; i < x.length; i++) {
            seconds[i] = 7 + i / rate;
            x[i] = random.nextGaussian();
        }
        NumberHistory.Values values =
                NumberHistory.of(new Watch.Number("level", "x", Map.of(), "mean", 2), seconds, x, rate);
        assertThat(values.seconds()).containsExactly(8, 9, 10, 11, 12, 13, 14, 15, 16);
        for (int k = 0; k < values.seconds().length; k++) {
            double until = values.seconds()[k];
            double mean = java.util.stream.IntStream.range(0, x.length)
                    .filter(i -> seconds[i] <= until && seconds[i] >= until - 2)
                    .mapToDouble(i -> x[i])
                    .average()
                    .orElseThrow();
            assertThat(values.values()[k]).as("at %s s", until).isCloseTo(mean, within(1e-9));
        }
        NumberHistory.Values none = NumberHistory.of(
                new Watch.Number("level", "x", Map.of(), "mean", 2), new double[0], new double[0], rate);
        assertThat(none.seconds()).isEmpty();
        assertThat(Arrays.stream(none.values())).isEmpty();
    }
}
