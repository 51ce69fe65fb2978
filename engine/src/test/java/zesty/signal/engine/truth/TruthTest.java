package zesty.signal.engine.truth;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** A tenth of what {@code benchmarks/run truth} reads: answers are right where their quality says so. */
class TruthTest {
    private static final int EACH = 20;

    @Test
    void whatSaysThatItIsGoodIsRight() {
        List<Truth.Answer> all = new ArrayList<>();
        for (String kind : Truth.kinds()) {
            all.addAll(Truth.of(kind, EACH, 20));
        }
        List<Truth.Answer> wrong =
                all.stream().filter(one -> !one.right() && one.quality() >= 0.9).toList();
        // Of 180 records some 130 say 0.9 or more; 98 in a hundred of these are to be right.
        int[] sure = Truth.right(all, 0.9, 2);
        assertThat(sure[0]).isGreaterThan(100);
        assertThat(wrong)
                .as(() -> wrong.stream().map(Truth.Answer::toString).collect(Collectors.joining("\n")))
                .hasSizeLessThanOrEqualTo(3);
        int[] whole = Truth.right(all, -1, 2);
        assertThat(whole[1]).isGreaterThan((int) (0.9 * whole[0]));
    }

    /** A line that loses one row in twenty, and one that is silent for 45 ms each second, still answer as the whole one does. */
    @Test
    void lostRowsAreBridged() {
        for (double share : new double[] {0.005, 0.05}) {
            List<Truth.Answer> all = new ArrayList<>();
            for (String kind : List.of("pulse", "muscle", "motion")) {
                all.addAll(Truth.losing(kind, 10, 30, share));
            }
            int[] right = Truth.right(all, -1, 2);
            assertThat(right[1]).as("losing " + share).isGreaterThan((int) (0.85 * right[0]));
            assertThat(all).noneMatch(one -> share > 0.01 && one.quality() > 0.93);
        }
    }
}
