package zesty.signal.core.sample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import org.junit.jupiter.api.Test;

class SpanNumbersTest {
    private static double[] times(int n, double step) {
        double[] t = new double[n];
        Arrays.setAll(t, i -> 1e6 + i * step);
        return t;
    }

    @Test
    void aRampHasItsSlopeItsAreaAndTheSpreadOfEvenNumbers() {
        double[] x = new double[101];
        Arrays.setAll(x, i -> 3 + 0.5 * i);
        SpanNumbers n = SpanNumbers.of(x, times(101, 0.01));
        assertThat(n.count()).isEqualTo(101);
        assertThat(n.mean()).isCloseTo(28, within(1e-12));
        // Of 0 … 100 the variance with n − 1 is 101 · 102 / 12.
        assertThat(n.deviation()).isCloseTo(0.5 * Math.sqrt(101 * 102 / 12.0), within(1e-9));
        assertThat(n.rms() * n.rms()).isCloseTo(28 * 28 + 0.25 * (101 * 101 - 1) / 12.0, within(1e-9));
        assertThat(n.low()).isEqualTo(3);
        assertThat(n.high()).isEqualTo(53);
        assertThat(n.slope()).isCloseTo(50, within(1e-6));
        assertThat(n.area()).isCloseTo(28, within(1e-6));
    }

    @Test
    void ofASineTheCrestIsRootTwoAndWholeTurnsHaveNoArea() {
        double[] x = new double[1000];
        Arrays.setAll(x, i -> 5 * Math.sin(2 * Math.PI * i / 100));
        SpanNumbers n = SpanNumbers.of(x, times(1000, 0.001));
        assertThat(n.crest()).isCloseTo(Math.sqrt(2), within(1e-9));
        assertThat(n.rms()).isCloseTo(5 / Math.sqrt(2), within(1e-9));
        assertThat(n.area()).isCloseTo(0, within(2e-3));
    }

    @Test
    void whatIsMissingIsLeftOutAndNothingIsAddedAcrossAGap() {
        double[] x = {2, 2, Double.NaN, 2, 2, 2};
        double[] t = {0, 1, 2, 3, 4, 20};
        SpanNumbers n = SpanNumbers.of(x, t);
        assertThat(n.count()).isEqualTo(5);
        assertThat(n.deviation()).isZero();
        assertThat(n.crest()).isNaN();
        // From 0 to 1 and from 3 to 4; the steps are 4 s long on average.
        assertThat(n.area()).isEqualTo(4);
        assertThat(SpanNumbers.of(new double[0], new double[0]).count()).isZero();
        SpanNumbers one = SpanNumbers.of(new double[] {7}, new double[] {3});
        assertThat(one.mean()).isEqualTo(7);
        assertThat(one.deviation()).isNaN();
        assertThat(one.slope()).isNaN();
    }
}
