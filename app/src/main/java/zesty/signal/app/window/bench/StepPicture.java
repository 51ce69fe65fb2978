package zesty.signal.app.window.bench;

import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.core.read.Reading;
import zesty.signal.core.sample.TimeRing;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.ReaderSight;
import zesty.signal.engine.Sight;

/** What was set above what came of it, with the curve that was fitted and its dead time and time constant. */
final class StepPicture extends ReaderPicture {
    private static final int MOST_POINTS = 4000;
    /** What is set jumps where it changes by more than this share of its range. */
    private static final double JUMP = 0.2;

    private final Plot input = new Plot();
    private final Plot response = new Plot();

    StepPicture(Desk desk) {
        super(desk);
        input.setPrefHeight(110);
        input.setMaxHeight(110);
        response.setId("response-plot");
        VBox.setVgrow(response, Priority.ALWAYS);
        getChildren().addAll(Bench.small("What was set"), input, Bench.small("What came of it"), response);
    }

    /** Samples of a channel that are in sight. */
    private record Samples(double[] seconds, double[] values, double low, double high) {
        static Samples of(ChannelSight channel, double from, double to) {
            TimeRing times = channel.strand().times();
            long first = Math.max(times.firstAtOrAfter(from), channel.clean().start());
            long last = Math.min(times.firstAtOrAfter(to), channel.clean().end() - channel.lateSamples());
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

        /** @return index of the last jump; −1 when there is none */
        int jump() {
            for (int i = values.length - 1; i > 0; i--) {
                if (Math.abs(values[i] - values[i - 1]) > JUMP * (high - low)) {
                    return i;
                }
            }
            return -1;
        }

        void draw(Plot plot, boolean night, double zero, String unit, Color colour) {
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

    @Override
    void show(Sight sight, ChannelSight channel, ReaderSight reader, Color colour) {
        double zero = zero(sight);
        double from = desk.isStored() ? desk.window().from() : zero - reader(reader);
        double to = desk.isStored() ? desk.window().to() : zero;
        boolean night = desk.night().get();
        Samples set = Samples.of(channel, from, to);
        set.draw(input, night, zero, channel.channel().unit(), colour.deriveColor(0, 0.6, 1, 1));
        ChannelSight answer = reader == null
                ? null
                : sight.channel(reader.setup().columns().get(1)).orElse(null);
        if (answer == null) {
            return;
        }
        Samples came = Samples.of(answer, from, to);
        came.draw(response, night, zero, answer.channel().unit(), colour);
        int jump = set.jump();
        if (reader.reading() != null && jump > 0) {
            fit(reader.reading(), set, jump, zero, answer, colour);
        }
    }

    private static double reader(ReaderSight reader) {
        return reader == null ? 20 : reader.kind().windowSeconds();
    }

    private void fit(Reading reading, Samples set, int jump, double zero, ChannelSight answer, Color colour) {
        double tau = reading.scalar("tau_s");
        double dead = reading.scalar("dead_s");
        double change = reading.scalar("gain") * (set.values()[jump] - set.values()[jump - 1]);
        double base = reading.scalar("baseline");
        if (Double.isNaN(tau) || Double.isNaN(dead)) {
            return;
        }
        double start = set.seconds()[jump] - zero;
        Color line = colour.deriveColor(0, 1, 0.6, 1);
        response.curve(
                t -> {
                    double since = t - start - dead;
                    double value = base + (since <= 0 ? 0 : change * (1 - Math.exp(-since / tau)));
                    return t < start ? Double.NaN : answer.channel().display().apply(value);
                },
                line);
        response.named(start + dead, "dead time " + Digits.fixed(dead, 2) + " s", 0, line);
        response.named(start + dead + tau, "63 % after " + Digits.fixed(tau, 2) + " s more", 1, line);
    }
}
