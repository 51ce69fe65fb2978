package zesty.signal.app.window.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.Palette;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Stop;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.core.read.PulseKind;
import zesty.signal.core.read.PulseReading;
import zesty.signal.core.rig.PulseSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.Sight;

/** Read: the pulse reader's own picture, beats laid over each other and the run of their intervals. */
public final class ReadBench extends Bench {
    private static final int BEATS = 24;
    private static final double BEFORE = 0.3;
    private static final double AFTER = 0.7;

    private final CheckBox on = new CheckBox("Read a pulse on this channel");
    private final ComboBox<String> kind = new ComboBox<>();
    private final Label words = new Label();
    private final Plot shapes = new Plot();
    private final Plot intervals = new Plot();
    private boolean filling;
    private String column = "";

    public ReadBench(Desk desk) {
        super(desk, Stop.READ);
        on.setId("read-pulse");
        on.setTooltip(new Tooltip("finds beats in the cleaned signal"));
        on.setOnAction(event -> adopt());
        kind.getItems().setAll("optical", "electrical");
        kind.setTooltip(new Tooltip("light through the skin, or electrodes"));
        kind.setOnAction(event -> adopt());
        HBox line = new HBox(12, on, kind);
        line.setAlignment(Pos.CENTER_LEFT);
        words.getStyleClass().add("bench-line");
        words.setWrapText(true);
        VBox left = new VBox(4, small("The last beats laid over each other, tops at 0"), shapes);
        VBox right = new VBox(4, small("The time from each beat to the next"), intervals);
        for (VBox box : new VBox[] {left, right}) {
            box.setMinWidth(0);
            box.setPrefWidth(300);
            HBox.setHgrow(box, Priority.ALWAYS);
        }
        VBox.setVgrow(shapes, Priority.ALWAYS);
        VBox.setVgrow(intervals, Priority.ALWAYS);
        HBox both = new HBox(14, left, right);
        both.setMinHeight(0);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().addAll(line, words, both);
    }

    private void adopt() {
        if (filling || column.isEmpty()) {
            return;
        }
        PulseKind chosen = PulseKind.valueOf(kind.getValue().toUpperCase(Locale.ROOT));
        boolean wanted = on.isSelected();
        String target = column;
        desk.change(rig -> withPulse(rig, target, wanted ? chosen : null));
    }

    private static Rig withPulse(Rig rig, String column, PulseKind kind) {
        List<PulseSetup> pulses = new ArrayList<>(rig.pulses());
        pulses.removeIf(p -> p.column().equals(column));
        if (kind != null) {
            pulses.add(new PulseSetup(
                    column, kind, rig.pulseOn(column).map(PulseSetup::band).orElse(PulseSetup.RESTING)));
        }
        return rig.withPulses(pulses);
    }

    @Override
    public void show(Sight sight) {
        head(sight);
        Optional<ChannelSight> focused = focused(sight);
        if (focused.isEmpty()) {
            words.setText("No channel yet.");
            return;
        }
        ChannelSight channel = focused.get();
        column = channel.channel().column();
        filling = true;
        Optional<PulseSetup> setup = sight.rig().pulseOn(column);
        on.setSelected(setup.isPresent());
        kind.setValue(setup.map(p -> p.kind().name().toLowerCase(Locale.ROOT)).orElse("optical"));
        kind.setDisable(setup.isEmpty());
        filling = false;
        PulseReading pulse = channel.pulse();
        Color colour = Color.web(Palette.css(
                Palette.channel(LaneStack.colourOf(sight, channel.channel())),
                desk.night().get()));
        words.setText(words(channel, pulse));
        drawShapes(sight, channel, pulse, colour);
        drawIntervals(sight, pulse, colour);
    }

    private String words(ChannelSight channel, PulseReading pulse) {
        if (!channel.trouble().isEmpty()) {
            return channel.trouble();
        }
        if (pulse == null) {
            return "This channel is read as a level: its mean, range and noise stand on its card.";
        }
        StringBuilder text = new StringBuilder();
        text.append(
                pulse.present()
                        ? Digits.fixed(pulse.meanBpm(), 1) + " beats/min, SDNN " + Digits.fixed(pulse.sdnnMs(), 0)
                                + " ms, RMSSD " + Digits.fixed(pulse.rmssdMs(), 0) + " ms, trust "
                                + pulse.quality().segments() + " of 8."
                        : "No pulse.");
        for (String reason : pulse.quality().reasons()) {
            text.append(" ")
                    .append(Character.toUpperCase(reason.charAt(0)))
                    .append(reason.substring(1))
                    .append(".");
        }
        return text.append(" Not a medical device; it diagnoses nothing.").toString();
    }

    private void drawShapes(Sight sight, ChannelSight channel, PulseReading pulse, Color colour) {
        double[] beats = pulse == null ? new double[0] : pulse.beats();
        int n = (int)
                Math.min(4000, Math.ceil((BEFORE + AFTER) * channel.strand().rateHz()));
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        List<double[]> drawn = new ArrayList<>();
        List<double[]> times = new ArrayList<>();
        double end = Math.min(desk.window().to(), channel.strand().lastSeconds());
        for (int b = beats.length - 1; b >= 0 && drawn.size() < BEATS; b--) {
            if (beats[b] + AFTER > end) {
                continue;
            }
            long first = channel.strand().times().firstAtOrAfter(beats[b] - BEFORE);
            if (first + n + channel.lateSamples() >= channel.clean().end()
                    || first < channel.clean().start()) {
                continue;
            }
            double[] x = new double[n];
            double[] y = new double[n];
            for (int i = 0; i < n; i++) {
                x[i] = channel.strand().times().secondsAt(first + i) - beats[b];
                y[i] = channel.clean().value(first + i + channel.lateSamples());
                low = y[i] < low ? y[i] : low;
                high = y[i] > high ? y[i] : high;
            }
            drawn.add(y);
            times.add(x);
        }
        String unit = channel.channel().scaling().unit();
        boolean some = !drawn.isEmpty();
        shapes.begin(desk.night().get(), -BEFORE, AFTER, "s", some ? low : 0, some ? high : 1, unit);
        for (int i = drawn.size() - 1; i >= 0; i--) {
            shapes.line(times.get(i), drawn.get(i), n, colour.deriveColor(0, 1, 1, i == 0 ? 1 : 0.28), i == 0 ? 2 : 1);
        }
    }

    private void drawIntervals(Sight sight, PulseReading pulse, Color colour) {
        double[] beats = pulse == null ? new double[0] : pulse.beats();
        int n = Math.max(0, beats.length - 1);
        double[] x = new double[n];
        double[] y = new double[n];
        double from = n == 0 ? 0 : beats[0];
        double low = 600;
        double high = 1000;
        for (int i = 0; i < n; i++) {
            x[i] = beats[i + 1] - (desk.isStored() ? 0 : sight.lastSeconds());
            y[i] = 1000 * (beats[i + 1] - beats[i]);
            if (y[i] < 1700) {
                low = Math.min(low, y[i] - 30);
                high = Math.max(high, y[i] + 30);
            }
        }
        double start = n == 0 ? -60 : desk.isStored() ? from : x[0];
        double stop = desk.isStored() && n > 0 ? x[n - 1] : 0;
        intervals.begin(desk.night().get(), start, stop, "s", low, high, "ms");
        intervals.dots(x, y, n, colour, 2.6);
    }
}
