package zesty.signal.core.sample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

class PairTest {
    @Test
    void lineAndCorrelationOnPaper() {
        // Means 3 and 4; xx = 10, xy = 8, yy = 10.
        Pair pair = Pair.of(new double[] {1, 2, 3, 4, 5}, new double[] {2, 4, 3, 6, 5}, 5);
        assertThat(pair.slope()).isCloseTo(0.8, within(1e-12));
        assertThat(pair.offset()).isCloseTo(1.6, within(1e-12));
        assertThat(pair.correlation()).isCloseTo(0.8, within(1e-12));
        // Means 11 and −4; xx = 2, xy = −6, yy = 18.
        Pair falling = Pair.of(new double[] {10, 11, 12, 99}, new double[] {-1, -4, -7, 99}, 3);
        assertThat(falling.slope()).isCloseTo(-3, within(1e-12));
        assertThat(falling.offset()).isCloseTo(29, within(1e-12));
        assertThat(falling.correlation()).isCloseTo(-1, within(1e-12));
        assertThat(Pair.of(new double[] {1, 2}, new double[] {1, 2}, 2).correlation())
                .isNaN();
        assertThat(Pair.of(new double[] {1, 1, 1}, new double[] {1, 2, 3}, 3).correlation())
                .isNaN();
        assertThat(Pair.of(new double[0], new double[0], 0).correlation()).isNaN();
    }
}
