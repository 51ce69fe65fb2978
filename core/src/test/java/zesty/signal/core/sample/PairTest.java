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
        assertThat(Pair.of(new double[] {1, 1, 1}, new double[] {1, 2, 3}, 3).correlation())
                .isNaN();
        assertThat(Pair.of(new double[0], new double[0], 0).correlation()).isNaN();
    }
}
