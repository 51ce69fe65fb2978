package zesty.signal.core.sample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import zesty.signal.core.spectrum.Waterfall;

class HistogramTest {
    @Test
    void everyStepHasABarAndTheNoiseTellsTheBitsWorthSomething() {
        Random random = new Random(3);
        double[] x = new double[50_000];
        // A slow swing over 400 counts with a noise of two counts.
        Arrays.setAll(x, i -> Math.rint(1000 + 30 * Math.sin(i / 3000.0) + 2 * random.nextGaussian()));
        Histogram histogram = Histogram.of(x);
        assertThat(histogram.step()).isEqualTo(1);
        assertThat(histogram.width()).isEqualTo(1);
        assertThat(Arrays.stream(histogram.counts()).sum()).isEqualTo(50_000);
        assertThat(histogram.noise()).isCloseTo(Math.sqrt(4 + 1 / 12.0), within(0.1));
        // log₂(4096 / (2.02 · √12)): of twelve bits a little more than nine.
        assertThat(histogram.effectiveBits(4096)).isCloseTo(9.19, within(0.08));
        for (int i = 0; i < histogram.counts().length; i++) {
            double value = histogram.low() + i;
            assertThat(histogram.counts()[i])
                    .isEqualTo(Arrays.stream(x).filter(v -> v == value).count());
        }
    }

    @Test
    void aWideOneGetsWiderBarsOfWholeStepsAndACleanOneAllItsBits() {
        double[] ramp = new double[10_000];
        Arrays.setAll(ramp, i -> 4.0 * (i / 2));
        Histogram histogram = Histogram.of(ramp);
        assertThat(histogram.step()).isEqualTo(4);
        assertThat(histogram.width() / 4).isEqualTo(Math.rint(histogram.width() / 4));
        assertThat(histogram.counts().length).isLessThanOrEqualTo(121);
        assertThat(Arrays.stream(histogram.counts()).sum()).isEqualTo(10_000);
        assertThat(Histogram.of(new double[0]).counts()).isEmpty();
        assertThat(Histogram.of(new double[] {5, 5, Double.NaN}).counts()).containsExactly(2);
    }

    @Test
    void aGlidingToneClimbsThroughTheWaterfall() {
        double[] x = new double[40_000];
        // From 50 to 450 Hz in 20 s at 2000/s.
        Arrays.setAll(x, i -> Math.sin(2 * Math.PI * (50 + 10 * i / 2000.0) * i / 2000.0));
        Waterfall fall = Waterfall.of(x, 2000, 60);
        assertThat(fall.density().length).isBetween(55, 61);
        for (int row = 0; row < fall.density().length; row += 10) {
            double[] one = fall.density()[row];
            int top = 1;
            for (int k = 2; k < one.length; k++) {
                top = one[k] > one[top] ? k : top;
            }
            double at = (row + 1) * fall.stepSeconds();
            assertThat(top * fall.binHz()).isCloseTo(50 + 20 * at, within(2 * fall.binHz() + 10));
        }
        assertThat(Waterfall.of(new double[5], 100, 60).density()).isEmpty();
    }
}
