package zesty.signal.app.window.bench.read;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.step.StepResponse;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** What was set above what came of it, with the curve that was fitted and its dead time and time constant. */
final class StepPicture extends ReaderPicture {
    private static final List<String> HELD = List.of(StepResponse.GAIN, StepResponse.TAU, StepResponse.DEAD);
    private final Plot input = new Plot();
    private final Plot response = new Plot();
    private final PlotHandles handles = new PlotHandles(response, this::pulled);
    private final Label byHand = words("");
    private final Button fitted = new Button(Messages.of("bench.read.fit-again"));
    private ReaderSetup setup;
    /** What was fitted, as it is drawn: where the step is, the response before it and the change of the input; null without a fit. */
    private Drawn drawn;

    private record Drawn(double start, double base, double change, double dead, ChannelSnapshot answer) {}

    StepPicture(Workspace workspace) {
        super(workspace);
        input.setPrefHeight(110);
        input.setMaxHeight(110);
        response.setId("response-plot");
        VBox.setVgrow(response, Priority.ALWAYS);
        fitted.setId("step-fit");
        Tip.on(fitted, Messages.of("bench.read.gain-time-constant-and-dead-time"));
        fitted.setOnAction(event -> {
            for (String key : HELD) {
                workspace.set(setup.id(), key, Setting.AUTO);
            }
        });
        byHand.setId("step-by-hand");
        HBox line = new HBox(10, byHand, fitted);
        line.setAlignment(Pos.CENTER_LEFT);
        line.setMinHeight(USE_PREF_SIZE);
        getChildren()
                .addAll(
                        Bench.small(Messages.of("bench.read.what-was-set")),
                        input,
                        Bench.small(Messages.of("bench.read.response-drag-its-lines-to-set")),
                        response,
                        line);
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
        setup = reader.setup();
        handles.clear();
        drawn = null;
        boolean byMaker = HELD.stream()
                .anyMatch(
                        key -> !setup.settings().getOrDefault(key, Setting.AUTO).equals(Setting.AUTO));
        fitted.setVisible(byMaker);
        List<String> reasons = reader.reading() == null
                ? List.of()
                : reader.reading().quality().reasons();
        byHand.setText(byMaker && !reasons.isEmpty() ? Messages.of("bench.read.the-curve-is", reasons.get(0)) : "");
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
        double step = set.values()[jump] - set.values()[jump - 1];
        drawn = new Drawn(start, base, step, dead, answer);
        double shownDead = Math.max(0, handles.put(StepResponse.DEAD, true, start + dead) - start);
        double end = answer.channel().display().apply(base + change);
        double shownEnd = handles.put(StepResponse.GAIN, false, end);
        double shownTau = Math.max(1e-6, handles.put(StepResponse.TAU, true, start + dead + tau) - start - dead);
        Color line = colour.deriveColor(0, 1, 0.6, 1);
        double low = answer.channel().display().apply(base);
        response.curve(
                t -> {
                    double since = t - start - shownDead;
                    return t < start
                            ? Double.NaN
                            : low + (since <= 0 ? 0 : (shownEnd - low) * (1 - Math.exp(-since / shownTau)));
                },
                line);
        response.named(start + shownDead, Messages.of("bench.read.dead-time-s", Digits.fixed(shownDead, 2)), 0, line);
        response.named(
                start + shownDead + shownTau,
                Messages.of("bench.read.63-after-s-more", Digits.fixed(shownTau, 2)),
                1,
                line);
        response.limit(
                shownEnd, Messages.of("bench.read.gain", Digits.about(raw(answer, shownEnd, base) / step, 3)), line);
    }

    /** @return the response's change in its own unit, of where a line is drawn */
    private static double raw(ChannelSnapshot answer, double shown, double base) {
        double slope = answer.channel().display().slope();
        return (shown - answer.channel().display().apply(base)) / slope;
    }

    private void pulled(String key, double to) {
        if (drawn == null) {
            return;
        }
        double value =
                switch (key) {
                    case StepResponse.DEAD -> Math.max(0, to - drawn.start());
                    case StepResponse.TAU -> Math.max(1e-6, to - drawn.start() - drawn.dead());
                    default -> raw(drawn.answer(), to, drawn.base()) / drawn.change();
                };
        workspace.set(setup.id(), key, value);
    }
}
