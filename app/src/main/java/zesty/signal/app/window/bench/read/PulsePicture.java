package zesty.signal.app.window.bench.read;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * The pulse: its last beats laid over each other, early ones apart, and its rate from beat to beat, on which a beat is
 * chosen and taken out, or one put in.
 */
final class PulsePicture extends ReaderPicture {
    private static final Laid LAID = new Laid(0.35, 0.65, 24);
    private static final double EARLY_DARK = 0.55;

    private final Plot shapes = new Plot();
    private final Plot rates = new Plot();
    private final Label moment = words("");
    private final Label hand = new Label();
    private final Button out = new Button(Messages.of("bench.read.take-this-beat-out"));
    private final Button in = new Button(Messages.of("bench.read.put-a-beat-in-here"));
    private String reader = "";
    private double zero;
    private double chosen = Double.NaN;
    private boolean onBeat;
    private List<Event> beats = List.of();

    PulsePicture(Workspace workspace) {
        super(workspace);
        hand.getStyleClass().add("hint");
        out.setId("beat-out");
        Tip.on(out, Messages.of("bench.read.the-chosen-beat-is-no-beat-u"));
        out.setOnAction(event -> edit(false));
        in.setId("beat-in");
        Tip.on(in, Messages.of("bench.read.a-beat-at-the-chosen-moment-u"));
        in.setOnAction(event -> edit(true));
        for (Button button : new Button[] {out, in}) {
            button.getStyleClass().add("small-button");
        }
        HBox line = new HBox(8, hand, out, in);
        line.setAlignment(Pos.CENTER_LEFT);
        rates.setId("rates");
        rates.setOnMouseClicked(event -> choose(rates.valueX(event.getX()) + zero));
        VBox left = new VBox(4, moment, shapes);
        VBox right = new VBox(4, words(Messages.of("bench.read.the-rate-from-each-beat-to-the")), rates, line);
        sideBySide(left, shapes, right, rates);
    }

    /** Chooses the beat nearest to a moment, or the moment itself where there is none near. */
    private void choose(double seconds) {
        Event nearest = null;
        for (Event beat : beats) {
            boolean nearer = nearest == null
                    || Math.abs(beat.startSeconds() - seconds) < Math.abs(nearest.startSeconds() - seconds);
            nearest = nearer ? beat : nearest;
        }
        double reach = 6 * (rates.highX() - rates.lowX()) / Math.max(1, rates.getWidth());
        onBeat = nearest != null && Math.abs(nearest.startSeconds() - seconds) < Math.max(0.15, reach);
        chosen = onBeat ? nearest.startSeconds() : seconds;
    }

    private void edit(boolean put) {
        if (!Double.isNaN(chosen)) {
            workspace.editByHand(reader, new HandEdit(put, chosen));
            chosen = Double.NaN;
        }
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot seen, Color colour) {
        zero = zero(snapshot);
        reader = seen == null ? "" : seen.setup().id();
        beats = seen == null
                ? List.of()
                : seen.events().stream()
                        .filter(event -> event.believed() && !event.lasts())
                        .toList();
        boolean electrical =
                seen != null && seen.setup().checked().text(Pulse.SOURCE).equals("electrical");
        moment.setText(Messages.of(
                "bench.read.the-last-beats-laid-over-each",
                (electrical
                        ? Messages.of("bench.read.the-peak-of-r-beat-time")
                        : Messages.of("bench.read.the-steepest-rise-beat-time"))));
        drawShapes(channel, seen, colour);
        drawRates(snapshot, seen, colour);
        boolean some = !Double.isNaN(chosen);
        hand.setText(
                workspace.shown().isLive()
                        ? Messages.of("bench.read.beats-can-be-taken-out-and-put-in")
                        : some
                                ? (onBeat ? Messages.of("bench.read.beat-at") : Messages.of("bench.read.no-beat-at"))
                                        + Digits.fixed(chosen, 2) + " s"
                                : Messages.of("bench.read.press-on-the-run-above-to-choose-a"));
        out.setVisible(!workspace.shown().isLive() && some && onBeat);
        out.setManaged(out.isVisible());
        in.setVisible(!workspace.shown().isLive() && some && !onBeat);
        in.setManaged(in.isVisible());
    }

    private void drawShapes(ChannelSnapshot channel, ReaderSnapshot seen, Color colour) {
        LAID.draw(
                shapes,
                workspace,
                channel,
                beats,
                seen == null ? 0 : seen.lateSeconds(),
                (beat, newest) -> beat.kind().equals("early")
                        ? Color.GRAY.deriveColor(0, 1, EARLY_DARK, 0.9)
                        : colour.deriveColor(0, 1, 1, newest ? 1 : 0.28));
    }

    private void drawRates(Snapshot snapshot, ReaderSnapshot seen, Color colour) {
        Item.Trace trace = seen == null || seen.reading() == null
                ? null
                : seen.reading().trace("rate").orElse(null);
        // Of a take the stretch in sight: beats of ten minutes on one another can be chosen by nobody.
        Span pictured = workspace.shown().pictured(snapshot, Double.POSITIVE_INFINITY);
        double first = pictured.from();
        double last = pictured.to();
        int n = 0;
        int all = trace == null ? 0 : trace.seconds().length;
        double[] x = new double[all];
        double[] y = new double[all];
        double low = 60;
        double high = 94;
        for (int i = 0; i < all; i++) {
            if (trace.seconds()[i] >= first && trace.seconds()[i] <= last) {
                x[n] = trace.seconds()[i] - zero;
                y[n] = trace.values()[i];
                low = Math.min(low, y[n] - 4);
                high = Math.max(high, y[n] + 4);
                n++;
            }
        }
        boolean live = workspace.shown().isLive();
        double start = !live ? Math.max(first, 0) : n == 0 ? -20 : x[0];
        double end = n == 0 ? start + 20 : Math.max(x[n - 1], start + 1) + 0.5;
        rates.begin(
                workspace.view().night().get(),
                start,
                live ? end : Math.min(last, snapshot.lastSeconds()),
                "s",
                low,
                high,
                "beats/min");
        if (seen != null) {
            for (Event event : seen.events()) {
                if (event.lasts()) {
                    rates.upright(event.startSeconds() - zero, event.endSeconds() - zero, Palette.aside(0.22));
                }
            }
        }
        rates.line(x, y, n, colour.deriveColor(0, 1, 1, 0.4), 1);
        rates.dots(x, y, n, colour, n > 400 ? 1.4 : 2.6);
        if (!Double.isNaN(chosen)) {
            rates.upright(chosen - zero, chosen - zero, Palette.CHOSEN);
        }
    }
}
