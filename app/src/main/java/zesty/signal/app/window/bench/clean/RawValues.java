package zesty.signal.app.window.bench.clean;

import java.util.Arrays;
import zesty.signal.app.window.workspace.TimeWindow;
import zesty.signal.core.sample.Times;
import zesty.signal.engine.ChannelSnapshot;

/** The newest values in sight of a channel as they came, in its unit or in its own numbers. */
record RawValues(double[] values, double toSeconds) {
    /** @param scaled in the channel's unit; else what arrived */
    static RawValues of(ChannelSnapshot channel, TimeWindow window, int most, boolean scaled) {
        Times times = channel.stream().times();
        long end = Math.min(times.firstAtOrAfter(window.to()), channel.raw().end());
        long begin = Math.max(
                Math.max(times.firstAtOrAfter(window.from()), channel.raw().start()), end - most);
        double[] values = new double[(int) Math.max(0, end - begin)];
        Arrays.setAll(values, i -> {
            double raw = channel.raw().value(begin + i);
            return scaled ? channel.scalingNow().apply(raw) : raw;
        });
        return new RawValues(values, values.length == 0 ? Double.NaN : times.secondsAt(end - 1));
    }
}
