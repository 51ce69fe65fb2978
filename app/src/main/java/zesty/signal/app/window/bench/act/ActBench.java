package zesty.signal.app.window.bench.act;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.lanes.Wording;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Band;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.level.Level;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.BandSnapshot;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** Act: a number of a reader over time with its band as a wash; the edges can be dragged. */
public final class ActBench extends Bench {
    private static final double GRAB_PIXELS = 10;
    private static final String LEVEL_MEAN = "mean";

    private final Label words = new Label();
    private final Label error = new Label();
    private final ComboBox<Choice> number = new ComboBox<>();
    private final TextField low = field("lowest value that is all right");
    private final TextField high = field("highest value that is all right");
    private final TextField hysteresis = field("how far it must come back inside before the alarm ends");
    private final Button none = new Button("No band");
    private final Plot plot = new Plot();
    private final HBox fields;
    private Band filled;
    private BandSnapshot seen;
    private Choice chosen;
    private boolean filling;
    private String column = "";
    private int dragged;

    /** A number that a band may stand on. */
    private record Choice(ReaderSetup reader, ScalarInfo scalar, String unit) {
        @Override
        public String toString() {
            return reader.kind() + ": " + scalar.words() + (unit.isEmpty() ? "" : ", " + unit);
        }
    }

    public ActBench(Workspace workspace) {
        super(workspace, Stop.ACT);
        words.getStyleClass().add("bench-line");
        words.setWrapText(true);
        error.getStyleClass().add("error");
        number.setId("band-number");
        number.setTooltip(new Tooltip("which number the band is on"));
        number.setOnAction(event -> {
            if (!filling) {
                chosen = number.getValue();
                filled = null;
            }
        });
        none.getStyleClass().add("small-button");
        none.setTooltip(new Tooltip("takes the band off (U undoes it)"));
        none.setOnAction(event -> {
            if (chosen != null) {
                Choice off = chosen;
                workspace.change(
                        rig -> rig.withoutBand(off.reader().id(), off.scalar().key()));
            }
        });
        fields = new HBox(
                12,
                labelled("Number", number),
                labelled("Low edge", low),
                labelled("High edge", high),
                labelled("Hysteresis", hysteresis),
                none,
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
                    hysteresis.getText().isBlank()
                            ? 0
                            : Double.parseDouble(hysteresis.getText().strip())));
            error.setText("");
        } catch (NumberFormatException e) {
            error.setText("Edges and hysteresis are numbers such as 60. The old band stays.");
        } catch (IllegalArgumentException e) {
            error.setText(e.getMessage());
        }
    }

    private void change(Band band) {
        Choice on = chosen;
        if (on != null) {
            workspace.change(rig -> {
                boolean there = rig.readers().stream()
                        .anyMatch(r -> r.id().equals(on.reader().id()));
                return (there ? rig : rig.withReader(on.reader()))
                        .withBand(new BandSetup(on.reader().id(), on.scalar().key(), band));
            });
        }
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
        double grain = Math.pow(10, Math.floor(Math.log10(filled.high() - filled.low())) - 1);
        double value = Math.rint(plot.valueY(event.getY()) / grain) * grain;
        double room = 2 * filled.hysteresis() + 2 * grain;
        Band band = dragged < 0
                ? new Band(Math.min(value, filled.high() - room), filled.high(), filled.hysteresis())
                : new Band(filled.low(), Math.max(value, filled.low() + room), filled.hysteresis());
        if (!band.equals(filled)) {
            change(band);
        }
    }

    @Override
    public void opened(Snapshot snapshot) {
        filled = null;
        chosen = null;
        show(snapshot);
    }

    @Override
    public void show(Snapshot snapshot) {
        head(snapshot);
        Optional<ChannelSnapshot> focused = focused(snapshot);
        fields.setVisible(focused.isPresent());
        plot.setVisible(focused.isPresent());
        if (focused.isEmpty()) {
            words.setText("No channel yet.");
            return;
        }
        ChannelSnapshot channel = focused.get();
        offer(channel);
        Optional<BandSetup> setup = workspace.shown().rig().bands().stream()
                .filter(b -> chosen != null
                        && b.reader().equals(chosen.reader().id())
                        && b.scalar().equals(chosen.scalar().key()))
                .findFirst();
        none.setVisible(setup.isPresent());
        seen = channel.readers().stream()
                .filter(r ->
                        chosen != null && r.setup().id().equals(chosen.reader().id()))
                .findFirst()
                .flatMap(r -> r.band(chosen.scalar().key()))
                .orElse(null);
        fill(setup.map(BandSetup::band).orElse(null));
        if (setup.isEmpty() || seen == null) {
            words.setText("No band on this number yet: write its edges and press Enter.");
            plot.setVisible(false);
            return;
        }
        words.setText(words(channel));
        draw(snapshot, channel);
    }

    /** The numbers that bands may stand on, those that have one first. */
    private void offer(ChannelSnapshot channel) {
        List<Choice> choices = new ArrayList<>();
        String unit = channel.channel().scaling().unit();
        for (ReaderSetup reader :
                workspace.shown().rig().readersOn(channel.channel().column())) {
            for (ScalarInfo scalar : reader.readerKind().scalars()) {
                choices.add(new Choice(reader, scalar, scalar.unit(unit)));
            }
        }
        boolean level = choices.stream().anyMatch(c -> c.reader().kind().equals(Level.NAME));
        if (!level) {
            ReaderSetup reader = ReaderSetup.on(channel.channel().column(), Level.NAME, java.util.Map.of());
            ScalarInfo mean = reader.readerKind().scalar(LEVEL_MEAN);
            choices.add(new Choice(reader, mean, mean.unit(unit)));
        }
        List<BandSetup> bands = workspace.shown().rig().bands();
        boolean moved = !channel.channel().column().equals(column);
        column = channel.channel().column();
        if (moved || chosen == null || !choices.contains(chosen)) {
            chosen = choices.stream()
                    .filter(c -> bands.stream()
                            .anyMatch(b -> b.reader().equals(c.reader().id())
                                    && b.scalar().equals(c.scalar().key())))
                    .findFirst()
                    .orElse(choices.get(0));
            filled = null;
            error.setText("");
        }
        filling = true;
        if (!number.getItems().equals(choices)) {
            number.getItems().setAll(choices);
        }
        number.setValue(chosen);
        filling = false;
    }

    private void fill(Band band) {
        if (band == null ? filled != null : !band.equals(filled)) {
            filled = band;
            low.setText(band == null ? "" : Digits.exact(band.low()));
            high.setText(band == null ? "" : Digits.exact(band.high()));
            hysteresis.setText(band == null ? "" : Digits.exact(band.hysteresis()));
        }
    }

    private String words(ChannelSnapshot channel) {
        Band band = seen.setup().band();
        double value = seen.values().length == 0 ? Double.NaN : seen.values()[seen.values().length - 1];
        String now = Wording.scalar(channel, chosen.scalar(), value) + " " + chosen.unit();
        String changes = !workspace.shown().isLive() || !seen.decisions().isEmpty()
                ? " Changed sides " + Math.max(0, seen.decisions().size() - 1) + " times."
                : "";
        return switch (seen.side()) {
            case UNKNOWN -> "No value, so no decision." + changes;
            case BELOW ->
                "Too low: " + now + ". It counts as inside again from " + Digits.of(band.low() + band.hysteresis())
                        + " on." + changes;
            case INSIDE -> "Inside: " + now + "." + changes;
            case ABOVE ->
                "Too high: " + now + ". It counts as inside again below " + Digits.of(band.high() - band.hysteresis())
                        + "." + changes;
        };
    }

    private void draw(Snapshot snapshot, ChannelSnapshot channel) {
        Band band = seen.setup().band();
        double zero = workspace.shown().zero(snapshot);
        int n = seen.seconds().length;
        double[] x = new double[n];
        double room = 0.4 * (band.high() - band.low());
        double lowest = band.low() - room;
        double highest = band.high() + room;
        for (int i = 0; i < n; i++) {
            double y = seen.values()[i];
            x[i] = seen.seconds()[i] - zero;
            lowest = y < lowest ? y - room / 5 : lowest;
            highest = y > highest ? y + room / 5 : highest;
        }
        boolean night = workspace.view().night().get();
        Color colour = Palette.of(snapshot.rig(), channel.channel().column(), night);
        plot.begin(
                night,
                n == 0 ? -60 : x[0],
                n == 0 ? 0 : Math.max(x[n - 1], x[0] + 1),
                "s",
                lowest,
                highest,
                chosen.scalar().words() + (chosen.unit().isEmpty() ? "" : ", " + chosen.unit()));
        plot.wash(band.low(), band.high(), colour.deriveColor(0, 1, 1, 0.10));
        for (BandSnapshot.Decision decision : seen.decisions()) {
            plot.upright(
                    decision.seconds() - zero,
                    decision.seconds() - zero,
                    colour.deriveColor(0, 1, 1, decision.side() == Band.Side.INSIDE ? 0.25 : 0.7));
        }
        plot.limit(band.low(), "low edge", colour);
        plot.limit(band.high(), "high edge", colour);
        plot.line(x, seen.values(), n, colour, 2);
    }
}
