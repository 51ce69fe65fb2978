package zesty.signal.app.window.bench.read;

import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** What was set above what came of it, with the curve that was fitted and its dead time and time constant. */
final class StepPicture extends ReaderPicture {
    private final Plot input = new Plot();
    private final Plot response = new Plot();

    StepPicture(Workspace workspace) {
        super(workspace);
        input.setPrefHeight(110);
        input.setMaxHeight(110);
        response.setId("response-plot");
        VBox.setVgrow(response, Priority.ALWAYS);
        getChildren().addAll(Bench.small("What was set"), input, Bench.small("Response"), response);
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        double zero = zero(snapshot);
        Span seen = workspace.shown().pictured(snapshot, windowSeconds(reader));
        double from = seen.from();
        double to = seen.to();
        boolean night = workspace.view().night().get();
        Samples set = Samples.of(channel, from, to);
        set.draw(input, night, zero, channel.channel().unit(), colour.deriveColor(0, 0.6, 1, 1));
        ChannelSnapshot answer = reader == null
                ? null
                : snapshot.channel(reader.setup().columns().get(1)).orElse(null);
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

    private static double windowSeconds(ReaderSnapshot reader) {
        return reader == null ? 20 : reader.kind().windowSeconds();
    }

    private void fit(Reading reading, Samples set, int jump, double zero, ChannelSnapshot answer, Color colour) {
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
