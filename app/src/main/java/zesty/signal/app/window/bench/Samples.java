package zesty.signal.app.window.bench;

import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.engine.ChannelSnapshot;

/**
 * Cleaned samples of a channel over a stretch, in the unit they are shown in, thinned out where there are more than anyone
 * can see.
 */
public record Samples(double[] seconds, double[] values, double low, double high) {
    private static final int MOST_POINTS = 4000;
    /** So many are worked on at once: half an hour at 1000/s. */
    private static final int MOST_SAMPLES = 1 << 21;

    /** What is set jumps where it changes by more than this share of its range. */
    private static final double JUMP = 0.2;

    public static Samples of(ChannelSnapshot channel, double from, double to) {
        Times times = channel.stream().times();
        long first = Math.max(times.firstAtOrAfter(from), channel.clean().start());
        long last = Math.min(times.firstAtOrAfter(to), channel.clean().end() - channel.lateSamples());
        if (last - first >= (long) Series.WIDE * MOST_POINTS / 2) {
            return extremes(channel, first, last);
        }
        int step = (int) Math.max(1, (last - first) / MOST_POINTS);
        int n = (int) Math.max(0, (last - first) / step);
        double[] x = new double[n];
        double[] y = new double[n];
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < n; i++) {
            x[i] = times.secondsAt(first + (long) i * step);
            y[i] = channel.channel()
                    .display()
                    .apply(channel.clean().value(first + (long) i * step + channel.lateSamples()));
            low = y[i] < low ? y[i] : low;
            high = y[i] > high ? y[i] : high;
        }
        return new Samples(x, y, low, high);
    }

    /** Of a long stretch the lowest and the highest of each part of it, one after the other. */
    private static Samples extremes(ChannelSnapshot channel, long first, long last) {
        int parts = MOST_POINTS / 2;
        double[] x = new double[2 * parts];
        double[] y = new double[2 * parts];
        float[] range = new float[2];
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        double begin = channel.stream().times().secondsAt(first);
        double end = channel.stream().times().secondsAt(last - 1);
        for (int k = 0; k < parts; k++) {
            long from = first + (last - first) * k / parts;
            long to = first + (last - first) * (k + 1) / parts;
            channel.clean().range(from + channel.lateSamples(), to + channel.lateSamples(), range);
            for (int side = 0; side < 2; side++) {
                x[2 * k + side] = begin + (end - begin) * (2 * k + side) / (2 * parts - 1.0);
                y[2 * k + side] = channel.channel().display().apply(range[side]);
                low = y[2 * k + side] < low ? y[2 * k + side] : low;
                high = y[2 * k + side] > high ? y[2 * k + side] : high;
            }
        }
        return new Samples(x, y, low, high);
    }

    /** @return the cleaned samples of a stretch in the unit of the scaling: the newest ones where it is very long */
    public static double[] cleaned(ChannelSnapshot channel, double begin, double end) {
        Times times = channel.stream().times();
        long last = Math.min(
                times.firstAtOrAfter(end) + channel.lateSamples(),
                channel.clean().end());
        long first = Math.max(
                Math.max(times.firstAtOrAfter(begin) + channel.lateSamples(), last - MOST_SAMPLES),
                channel.clean().start());
        double[] x = new double[(int) Math.max(0, last - first)];
        for (int i = 0; i < x.length; i++) {
            x[i] = channel.clean().value(first + i);
        }
        return x;
    }

    /** @return the time of each of {@link #cleaned}'s samples: a stream may have stood still in between */
    public static double[] moments(ChannelSnapshot channel, double begin, double end) {
        Times times = channel.stream().times();
        int late = channel.lateSamples();
        long last = Math.min(times.firstAtOrAfter(end) + late, channel.clean().end());
        long first = Math.max(
                Math.max(times.firstAtOrAfter(begin) + late, last - MOST_SAMPLES),
                channel.clean().start());
        double[] seconds = new double[(int) Math.max(0, last - first)];
        for (int i = 0; i < seconds.length; i++) {
            seconds[i] = times.secondsAt(first + i - late);
        }
        return seconds;
    }

    /** @return index of the last jump; −1 when there is none */
    public int jump() {
        for (int i = values.length - 1; i > 0; i--) {
            if (Math.abs(values[i] - values[i - 1]) > JUMP * (high - low)) {
                return i;
            }
        }
        return -1;
    }

    public void draw(Plot plot, boolean night, double zero, String unit, Color colour) {
        double[] shifted = seconds.clone();
        for (int i = 0; i < shifted.length; i++) {
            shifted[i] -= zero;
        }
        boolean some = high >= low;
        double room = some ? Math.max(1e-9, 0.1 * (high - low)) : 0;
        plot.begin(
                night,
                shifted.length == 0 ? -20 : shifted[0],
                shifted.length == 0 ? 0 : shifted[shifted.length - 1],
                "s",
                some ? low - room : 0,
                some ? high + room : 1,
                unit);
        plot.line(shifted, values, shifted.length, colour, 1.6);
    }
}
