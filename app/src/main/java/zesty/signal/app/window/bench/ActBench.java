package zesty.signal.app.window.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.Palette;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Stop;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.core.act.Band;
import zesty.signal.core.rig.PulseSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.Sight;

/** Act: the rate over time with its band as a wash; the edges can be dragged. */
public final class ActBench extends Bench {
    /** Rates beat by beat are averaged over this many, as the eye would. */
    private static final int SMOOTH = 5;

    private static final double GRAB_PIXELS = 10;

    private final Label words = new Label();
    private final Label error = new Label();
    private final TextField low = field("lowest rate that is all right, in beats/min");
    private final TextField high = field("highest rate that is all right, in beats/min");
    private final TextField slack = field("how far the rate must come back inside before the alarm ends");
    private final Plot plot = new Plot();
    private final HBox fields;
    private Band filled;
    private String column = "";
    private int dragged;

    public ActBench(Desk desk) {
        super(desk, Stop.ACT);
        words.getStyleClass().add("bench-line");
        words.setWrapText(true);
        error.getStyleClass().add("error");
        fields = new HBox(
                12,
                labelled("Low edge, beats/min", low),
                labelled("High edge, beats/min", high),
                labelled("Slack, beats/min", slack),
                error);
        fields.setAlignment(Pos.BOTTOM_LEFT);
        plot.setOnMousePressed(this::grab);
        plot.setOnMouseDragged(this::drag);
        plot.setOnMouseReleased(event -> dragged = 0);
        VBox.setVgrow(plot, Priority.ALWAYS);
        getChildren().addAll(words, fields, small("Drag an edge of the band, or write it above"), plot);
    }

    private TextField field(String tip) {
        TextField text = new TextField();
        text.setPrefColumnCount(6);
        text.setTooltip(new Tooltip(tip));
        text.setOnAction(event -> adopt());
        return text;
    }

    private void adopt() {
        try {
            change(new Band(
                    Double.parseDouble(low.getText().strip()),
                    Double.parseDouble(high.getText().strip()),
                    Double.parseDouble(slack.getText().strip())));
            error.setText("");
        } catch (NumberFormatException e) {
            error.setText("Edges and slack are numbers such as 60. The old band stays.");
        } catch (IllegalArgumentException e) {
            error.setText(e.getMessage());
        }
    }

    private void change(Band band) {
        String target = column;
        desk.change(rig -> withBand(rig, target, band));
    }

    private static Rig withBand(Rig rig, String column, Band band) {
        List<PulseSetup> pulses = new ArrayList<>(rig.pulses());
        pulses.replaceAll(p -> p.column().equals(column) ? new PulseSetup(column, p.kind(), band) : p);
        return rig.withPulses(pulses);
    }

    private void grab(MouseEvent event) {
        if (filled != null) {
            double toLow = Math.abs(plot.pixelY(filled.low()) - event.getY());
            double toHigh = Math.abs(plot.pixelY(filled.high()) - event.getY());
            dragged = Math.min(toLow, toHigh) > GRAB_PIXELS ? 0 : toLow < toHigh ? -1 : 1;
        }
    }

    private void drag(MouseEvent event) {
        if (dragged == 0 || filled == null) {
            return;
        }
        double value = Math.rint(plot.valueY(event.getY()));
        double room = 2 * filled.slack() + 2;
        Band band = dragged < 0
                ? new Band(Math.max(20, Math.min(value, filled.high() - room)), filled.high(), filled.slack())
                : new Band(filled.low(), Math.min(220, Math.max(value, filled.low() + room)), filled.slack());
        if (!band.equals(filled)) {
            change(band);
        }
    }

    @Override
    public void opened(Sight sight) {
        filled = null;
        show(sight);
    }

    @Override
    public void show(Sight sight) {
        head(sight);
        Optional<ChannelSight> focused = focused(sight);
        column = focused.map(c -> c.channel().column()).orElse("");
        Optional<PulseSetup> setup = sight.rig().pulseOn(column);
        fields.setVisible(setup.isPresent());
        plot.setVisible(setup.isPresent());
        if (setup.isEmpty() || focused.get().pulse() == null) {
            words.setText(
                    "Bands belong to a pulse so far. Choose a channel with a pulse reader, or switch one on under Read "
                            + "(key 5).");
            return;
        }
        Band band = setup.get().band();
        if (!band.equals(filled)) {
            filled = band;
            low.setText(Digits.exact(band.low()));
            high.setText(Digits.exact(band.high()));
            slack.setText(Digits.exact(band.slack()));
        }
        ChannelSight channel = focused.get();
        double rate = channel.pulse().meanBpm();
        words.setText(
                switch (channel.side()) {
                    case UNKNOWN -> "No rate, so nothing to decide.";
                    case BELOW ->
                        "Too slow: " + Digits.fixed(rate, 0) + " beats/min. It counts as inside again from "
                                + Digits.of(band.low() + band.slack()) + " on.";
                    case INSIDE -> "Inside: " + Digits.fixed(rate, 0) + " beats/min.";
                    case ABOVE ->
                        "Too fast: " + Digits.fixed(rate, 0) + " beats/min. It counts as inside again below "
                                + Digits.of(band.high() - band.slack()) + ".";
                });
        draw(sight, channel, band);
    }

    private void draw(Sight sight, ChannelSight channel, Band band) {
        double[] beats = channel.pulse().beats();
        int n = Math.max(0, beats.length - SMOOTH);
        double[] x = new double[n];
        double[] y = new double[n];
        double lowest = band.low() - 15;
        double highest = band.high() + 15;
        for (int i = 0; i < n; i++) {
            x[i] = beats[i + SMOOTH] - (desk.isStored() ? 0 : sight.lastSeconds());
            double mean = (beats[i + SMOOTH] - beats[i]) / SMOOTH;
            // A gap or a spoilt stretch is no slow pulse.
            y[i] = mean < 1.7 ? 60 / mean : Double.NaN;
            lowest = y[i] < lowest ? y[i] - 5 : lowest;
            highest = y[i] > highest ? y[i] + 5 : highest;
        }
        boolean night = desk.night().get();
        Color colour = Color.web(Palette.css(Palette.channel(LaneStack.colourOf(sight, channel.channel())), night));
        plot.begin(
                night,
                n == 0 ? -60 : x[0],
                n == 0 ? 0 : Math.max(x[n - 1], x[0] + 1),
                "s",
                lowest,
                highest,
                "beats/min, mean of " + SMOOTH + " beats");
        plot.wash(band.low(), band.high(), colour.deriveColor(0, 1, 1, 0.10));
        plot.limit(band.low(), "low edge", colour);
        plot.limit(band.high(), "high edge", colour);
        plot.line(x, y, n, colour, 2);
    }
}
