package zesty.signal.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class StandardSeriesTest {
    /** Over ten decades: neighbours on either side, none between them, and the nearest is one of both. */
    @ParameterizedTest
    @EnumSource(StandardSeries.class)
    void everyValueLiesBetweenTwoOfTheSeries(StandardSeries series) {
        double widest = series == StandardSeries.E12 ? 1.2501 : 1.1539;
        for (double wanted = 1.3e-7; wanted < 9e6; wanted *= 1.0137) {
            double below = series.atMost(wanted);
            double above = series.atLeast(wanted);
            assertThat(below).isLessThanOrEqualTo(wanted * (1 + 1e-9));
            assertThat(above).isGreaterThanOrEqualTo(wanted * (1 - 1e-9));
            assertThat(above / below).isLessThan(widest);
            assertThat(series.between(below * 1.001, above * 0.999)).isEmpty();
            double near = series.nearest(wanted);
            assertThat(near).isIn(below, above);
            assertThat(Math.abs(Math.log(near / wanted)))
                    .isLessThanOrEqualTo(Math.min(Math.log(wanted / below), Math.log(above / wanted)) + 1e-9);
        }
        assertThat(series.between(1, 9.999)).hasSize(series == StandardSeries.E12 ? 12 : 24);
        assertThat(series.nearest(4.7e-8)).isEqualTo(4.7e-8);
        assertThat(series.atLeast(4700)).isCloseTo(4700, within(1e-9));
        assertThatThrownBy(() -> series.nearest(0)).hasMessageContaining("must be above 0");
        assertThatThrownBy(() -> series.atMost(Double.NaN)).hasMessageContaining("must be above 0");
    }
}
