package zesty.signal.app.window.lanes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.sample.SeriesRing;

/** The ends of a lane's scale and the labels of its time. */
class ScalesTest {
    private static SeriesRing series(double... values) {
        SeriesRing series = new SeriesRing(0);
        series.append(values, 0, values.length);
        return series;
    }

    @Test
    void theScaleGrowsAtOnceShrinksLateAndEndsOnRoundNumbers() {
        ValueScale scale = new ValueScale();
        SeriesRing small = series(0.02, 0.97);
        scale.fit(small, 0, 2, 0);
        assertThat(scale.low()).isEqualTo(-0.5);
        assertThat(scale.high()).isCloseTo(1.5, within(1e-12));
        scale.fit(series(-3, 40), 0, 2, 0.1);
        assertThat(scale.high()).isGreaterThanOrEqualTo(40);
        double grown = scale.high();
        for (double now = 0.2; now < 2.6; now += 0.1) {
            scale.fit(small, 0, 2, now);
            assertThat(scale.high()).isEqualTo(grown);
        }
        scale.fit(small, 0, 2, 2.8);
        assertThat(scale.high()).isCloseTo(1.5, within(1e-12));
        // A short dip in between starts the waiting anew.
        scale.fit(series(-3, 40), 0, 2, 3);
        scale.fit(small, 0, 2, 4);
        scale.fit(series(-3, 40), 0, 2, 5);
        scale.fit(small, 0, 2, 6);
        assertThat(scale.high()).isEqualTo(grown);
    }

    @Test
    void aHeldRangeStandsStillAndOneThatFollowsKeepsItsHeight() {
        ValueScale scale = new ValueScale();
        scale.fit(series(0.02, 0.97), 0, 2, 0);
        scale.go(RangeMode.HOLD);
        scale.fit(series(-3, 40), 0, 2, 10);
        assertThat(new double[] {scale.low(), scale.high()}).containsExactly(new double[] {-0.5, 1.5}, within(1e-12));
        scale.go(RangeMode.FOLLOW);
        // A swing of 0.2 on a drift that has come to 7: it is in sight again, as high as before, between round numbers.
        double[] drift = new double[200];
        Arrays.setAll(drift, i -> 0.035 * i + 0.1 * Math.sin(i));
        scale.fit(series(drift), 0, 200, 11);
        assertThat(scale.high() - scale.low()).isCloseTo(2, within(1e-12));
        assertThat(scale.low()).isBetween(5.0, 6.5);
        assertThat(scale.low() / 0.25).isCloseTo(Math.rint(scale.low() / 0.25), within(1e-9));
        double low = scale.low();
        drift[199] = 6.3;
        scale.fit(series(drift), 0, 200, 12);
        assertThat(scale.low()).isEqualTo(low);
        scale.go(RangeMode.FIT);
        scale.fit(series(drift), 0, 200, 13);
        assertThat(scale.low()).isLessThan(0);
    }

    @Test
    void aConstantAndNothingAtAllHaveAScaleToo() {
        ValueScale scale = new ValueScale();
        double[] flat = new double[50];
        Arrays.fill(flat, 512);
        scale.fit(series(flat), 0, 50, 0);
        assertThat(scale.high()).isGreaterThan(512);
        assertThat(scale.low()).isLessThan(512);
        double high = scale.high();
        scale.fit(series(Double.NaN, Double.NaN), 0, 2, 1);
        scale.fit(series(), 0, 0, 1);
        assertThat(scale.high()).isEqualTo(high);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "80!100!770!100!true!−20 s,−15 s,−10 s,−5 s,now",
                "0!612!820!0!false!0 s,2:00,4:00,6:00,8:00,10:00",
                "0!9000!820!0!false!0 s,30:00,1:00:00,1:30:00,2:00:00,2:30:00",
                "1.0005!1.0105!820!0!false!1.002 s,1.004 s,1.006 s,1.008 s,1.010 s"
            })
    void labelsStandAtRoundTimes(double from, double to, int width, double zero, boolean live, String expected) {
        TimeTicks ticks = new TimeTicks();
        ticks.compute(from, to, width, zero, live);
        String labels = "";
        for (int i = 0; i < ticks.count(); i++) {
            if (ticks.labelled(i)) {
                labels += (labels.isEmpty() ? "" : ",") + ticks.label(i);
                assertThat(ticks.pixel(i)).isBetween(0.0, width + 1.0);
            }
        }
        assertThat(labels).isEqualTo(expected);
    }
}
