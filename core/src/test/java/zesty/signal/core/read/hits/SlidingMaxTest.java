package zesty.signal.core.read.hits;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;

class SlidingMaxTest {
    /** Against looking at every one of them, at windows shorter and longer than the record. */
    @Test
    void theHighestBeforeEachValueIsThatOfLookingAtAllOfThem() {
        Random random = new Random(3);
        for (int length : new int[] {0, 1, 2, 7, 64, 333}) {
            double[] x = random.doubles(length, -1, 1).toArray();
            for (int window : new int[] {1, 2, 3, 7, 50, 400}) {
                double[] got = SlidingMax.before(x, window);
                for (int i = 0; i < length; i++) {
                    double most = 0;
                    for (int k = Math.max(0, i - window); k < i; k++) {
                        most = Math.max(most, Math.abs(x[k]));
                    }
                    assertThat(got[i])
                            .as("%d of %d, window %d", i, length, window)
                            .isEqualTo(most);
                }
            }
        }
    }
}
