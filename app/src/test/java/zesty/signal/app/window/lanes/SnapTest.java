package zesty.signal.app.window.lanes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.sample.SeriesRing;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.sample.TimeRing;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LevelNow;
import zesty.signal.engine.StreamSnapshot;

class SnapTest {
    /** Ten seconds at 100/s. */
    private static ChannelSnapshot of(DoubleUnaryOperator signal) {
        SeriesRing series = new SeriesRing(0);
        TimeRing times = new TimeRing(series.capacity());
        double[] values = new double[1000];
        for (int i = 0; i < values.length; i++) {
            values[i] = signal.applyAsDouble(i / 100.0);
        }
        series.append(values, 0, values.length);
        times.append(new TimeBase.Steady(0, 0.01), values.length);
        Channel channel = new Channel("a", "a", Scaling.asItCame("V"), Recipe.NONE, true);
        return new ChannelSnapshot(
                channel,
                new StreamSnapshot(0, Double.NaN, 100, times, 9.99, 0, List.of(), 0),
                100,
                series,
                series,
                0,
                0,
                0,
                0,
                0,
                new LevelNow(0, 0, 0, 0, 1000),
                List.of(),
                false,
                Double.NaN,
                channel.scaling(),
                "");
    }

    @Test
    void peaksTroughsAndCrossingsAreMet() {
        ChannelSnapshot sine = of(t -> Math.sin(Math.PI * t));
        // Crests of a sine of 0.5 Hz lie at 0.5, 2.5 …, troughs at 1.5 …, and it crosses its middle at whole seconds.
        assertThat(Snap.onSignal(sine, 2.43, 0.15)).isCloseTo(2.5, within(1e-9));
        assertThat(Snap.onSignal(sine, 3.57, 0.15)).isCloseTo(3.5, within(1e-9));
        ChannelSnapshot step = of(t -> t < 4.2 ? 1 : 3);
        assertThat(Snap.onSignal(step, 4.27, 0.15)).isCloseTo(4.195, within(1e-9));
        ChannelSnapshot level = of(t -> 7);
        assertThat(Snap.onSignal(level, 5.123, 0.15)).isEqualTo(5.123);
        assertThat(Snap.onSignal(sine, 20, 0.15)).isEqualTo(20);
        assertThat(Snap.nearest(List.of(1.0, 2.0, 2.2), 2.12, 0.1)).isEqualTo(2.2);
        assertThat(Snap.nearest(List.of(1.0), 2.12, 0.1)).isNaN();
    }
}
