package zesty.signal.app.window.bench;

import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.Palette;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Stop;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.Sight;

/** Scale: the strip of arithmetic with today's numbers running through it, each box open to editing. */
public final class ScaleBench extends Bench {
    private static final String NONE = "as it came";
    private static final String STEPS = "steps (2^bits)";
    private static final String TOP = "highest code (2^bits − 1)";

    private final FlowPane strip = new FlowPane(10, 10);
    private final Label worth = new Label();
    private final Label error = new Label();
    private final TextField name = field(14, "what you call this channel");
    private final ComboBox<String> bits = new ComboBox<>();
    private final TextField reference = field(5, "the converter's reference, in V, as you measured it");
    private final ComboBox<String> divisor = new ComboBox<>();
    private final TextField slope = field(7, "units a volt, or a unit that arrives");
    private final TextField offset = field(7, "in the unit, added at the end");
    private final TextField unit = field(6, "the unit of the result");
    private final Plot transfer = new Plot();
    private Channel filled;

    public ScaleBench(Desk desk) {
        super(desk, Stop.SCALE);
        bits.getItems().add(NONE);
        for (int b = 8; b <= 24; b++) {
            bits.getItems().add(b + " bit");
        }
        bits.setId("bits");
        bits.setTooltip(new Tooltip("how many bits the board's converter has"));
        divisor.getItems().setAll(STEPS, TOP);
        divisor.setTooltip(new Tooltip("makers disagree; the top code is one step below the reference"));
        bits.setOnAction(event -> adopt());
        divisor.setOnAction(event -> adopt());
        reference.setId("reference");
        slope.setId("slope");
        unit.setId("unit");
        for (TextField text : new TextField[] {name, reference, slope, offset, unit}) {
            text.setOnAction(event -> adopt());
            text.focusedProperty().addListener((p, was, is) -> {
                if (!is) {
                    adopt();
                }
            });
        }
        worth.getStyleClass().add("bench-line");
        worth.setWrapText(true);
        error.getStyleClass().add("error");
        error.setWrapText(true);
        FlowPane boxes = new FlowPane(12, 8);
        boxes.getChildren()
                .addAll(
                        labelled("Name", name),
                        labelled("Converter", bits),
                        labelled("Reference, V", reference),
                        labelled("Divided by", divisor),
                        labelled("Slope", slope),
                        labelled("Offset", offset),
                        labelled("Unit", unit));
        getChildren()
                .addAll(
                        small("The arithmetic, with the numbers of this moment"),
                        strip,
                        worth,
                        small("Change a box and press Enter; U takes it back"),
                        boxes,
                        error,
                        small("What arrives along the foot, the quantity up the side; the dot is now"),
                        transfer);
        VBox.setVgrow(transfer, Priority.ALWAYS);
        error.managedProperty().bind(error.textProperty().isNotEmpty());
    }

    private static TextField field(int columns, String tip) {
        TextField text = new TextField();
        text.setPrefColumnCount(columns);
        text.setTooltip(new Tooltip(tip));
        return text;
    }

    @Override
    public void opened(Sight sight) {
        filled = null;
        error.setText("");
        show(sight);
    }

    @Override
    public void show(Sight sight) {
        head(sight);
        Optional<ChannelSight> focused = focused(sight);
        if (focused.isEmpty()) {
            strip.getChildren().setAll(small("No channel yet."));
            worth.setText("");
            return;
        }
        Channel channel = focused.get().channel();
        if (!channel.equals(filled)) {
            fill(channel);
        }
        Scaling scaling = channel.scaling();
        List<Scaling.Line> lines = scaling.explain(focused.get().latestRaw());
        strip.getChildren().clear();
        for (int i = 0; i < lines.size(); i++) {
            if (i > 0) {
                Label arrow = new Label("›");
                arrow.getStyleClass().add("arrow");
                strip.getChildren().add(arrow);
            }
            strip.getChildren().add(box(lines.get(i)));
        }
        worth.setText(worth(scaling));
        draw(sight, focused.get());
    }

    private void draw(Sight sight, ChannelSight channel) {
        Scaling scaling = channel.channel().scaling();
        double raw = channel.latestRaw();
        double low = 0;
        double high = scaling.throughConverter().map(Converter::highestCode).orElse(Math.max(1, 2 * Math.abs(raw)));
        if (scaling.converter() == null) {
            low = raw < 0 ? -high : 0;
        }
        double atLow = scaling.apply(low);
        double atHigh = scaling.apply(high);
        boolean night = desk.night().get();
        transfer.begin(
                night,
                low,
                high,
                scaling.converter() == null ? "as it came" : "counts",
                Math.min(atLow, atHigh),
                Math.max(atLow, atHigh),
                scaling.unit());
        Color colour = Color.web(Palette.css(Palette.channel(LaneStack.colourOf(sight, channel.channel())), night));
        transfer.curve(scaling::apply, colour);
        transfer.dots(new double[] {raw}, new double[] {scaling.apply(raw)}, 1, colour, 6);
    }

    private static VBox box(Scaling.Line line) {
        Label result = new Label(Digits.of(line.result()));
        result.getStyleClass().add("sum-result");
        HBox number = new HBox(5, result, small(line.unit()));
        number.setAlignment(Pos.BASELINE_LEFT);
        VBox box = new VBox(2, small(line.name()), number, mono(line.sum()));
        box.getStyleClass().add("sum");
        box.setMinWidth(150);
        return box;
    }

    private static String worth(Scaling scaling) {
        String step = Digits.of(scaling.stepSize()) + " " + scaling.unit();
        if (scaling.converter() == null) {
            return "One step of what arrives is worth " + step + ".";
        }
        Converter converter = scaling.converter();
        Divisor other = converter.divisor() == Divisor.STEPS ? Divisor.HIGHEST_CODE : Divisor.STEPS;
        Scaling otherwise = new Scaling(
                new Converter(converter.bits(), converter.referenceVolts(), other),
                scaling.slope(),
                scaling.offset(),
                scaling.unit());
        double difference = Math.abs(scaling.apply(converter.highestCode()) - otherwise.apply(converter.highestCode()));
        return "One count is worth " + step + ". Divided by the other number, the top code would read "
                + Digits.of(difference) + " " + scaling.unit() + " differently.";
    }

    private void fill(Channel channel) {
        filled = null;
        Scaling scaling = channel.scaling();
        name.setText(channel.name());
        bits.setValue(scaling.converter() == null ? NONE : scaling.converter().bits() + " bit");
        reference.setText(
                scaling.converter() == null
                        ? "5"
                        : Digits.exact(scaling.converter().referenceVolts()));
        divisor.setValue(
                scaling.converter() != null && scaling.converter().divisor() == Divisor.HIGHEST_CODE ? TOP : STEPS);
        slope.setText(Digits.exact(scaling.slope()));
        offset.setText(Digits.exact(scaling.offset()));
        unit.setText(scaling.unit());
        filled = channel;
        able();
    }

    private void able() {
        boolean through = !NONE.equals(bits.getValue());
        reference.setDisable(!through);
        divisor.setDisable(!through);
    }

    private void adopt() {
        Channel channel = filled;
        if (channel == null) {
            return;
        }
        able();
        try {
            Converter converter = NONE.equals(bits.getValue())
                    ? null
                    : new Converter(
                            Integer.parseInt(bits.getValue().replace(" bit", "")),
                            number("reference", reference.getText()),
                            TOP.equals(divisor.getValue()) ? Divisor.HIGHEST_CODE : Divisor.STEPS);
            Scaling scaling = new Scaling(
                    converter,
                    number("slope", slope.getText()),
                    number("offset", offset.getText()),
                    unit.getText().strip());
            Channel changed =
                    channel.withScaling(scaling).withName(name.getText().strip());
            error.setText("");
            if (!changed.equals(channel)) {
                filled = changed;
                desk.change(rig -> rig.withChannel(channel.column(), c -> changed));
            }
        } catch (IllegalArgumentException e) {
            error.setText(e.getMessage() + ". The old scaling stays in force.");
        }
    }

    private static double number(String what, String text) {
        try {
            return Double.parseDouble(text.strip().replace(',', '.').replace('\u2212', '-'));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("the " + what + " must be a number such as 0.5, was '" + text + "'", e);
        }
    }
}
