package zesty.signal.app.window.bench.act;

import java.util.Arrays;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.core.act.Watch;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.scale.Line;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.NumberHistory;
import zesty.signal.engine.Snapshot;

/**
 * What a rule watches over a stretch, in its own unit.
 *
 * @param display from that unit to the one it is shown in
 */
record Watched(double[] seconds, double[] values, double rateHz, Line display, String unit) {
    static Watched nothing(String unit) {
        return new Watched(new double[0], new double[0], Double.NaN, Line.SAME, unit);
    }

    /** @return nothing where there is no such channel */
    static Watched of(Snapshot snapshot, Watch watch, double from, double to) {
        ChannelSnapshot channel = channel(snapshot, watch);
        if (channel == null || channel.stream().times() == null) {
            return nothing("");
        }
        double[] seconds = Samples.moments(channel, from, to);
        double[] values = Samples.cleaned(channel, from, to);
        int n = Math.min(seconds.length, values.length);
        return new Watched(
                Arrays.copyOf(seconds, n),
                Arrays.copyOf(values, n),
                channel.rateHz(),
                channel.channel().display(),
                channel.channel().unit());
    }

    /** @return the channel that is looked at; null for none of that name */
    static ChannelSnapshot channel(Snapshot snapshot, Watch watch) {
        String name = WatchChoice.column(watch);
        return snapshot.channels().stream()
                .filter(one -> one.channel().column().equals(name)
                        || one.channel().name().equals(name))
                .findFirst()
                .orElse(null);
    }

    /** @return the reader's number over the same stretch. Long: not on the window's thread */
    Watched number(Watch.Number watch, String unit) {
        NumberHistory.Values values = NumberHistory.of(watch, seconds, this.values, rateHz);
        return new Watched(values.seconds(), values.values(), SampleRate.of(values.seconds()), Line.SAME, unit);
    }

    /** @return lowest and highest of it; NaN where there is nothing */
    double[] range() {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (double value : values) {
            low = value < low ? value : low;
            high = value > high ? value : high;
        }
        return low <= high ? new double[] {low, high} : new double[] {Double.NaN, Double.NaN};
    }

    /** @return the middle value; NaN where there is nothing */
    double median() {
        double[] present = Arrays.stream(values).filter(v -> v == v).sorted().toArray();
        return present.length == 0 ? Double.NaN : present[present.length / 2];
    }
}
