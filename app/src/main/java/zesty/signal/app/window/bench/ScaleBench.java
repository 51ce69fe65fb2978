package zesty.signal.app.window.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.Palette;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Stop;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.prove.RangeWatch;
import zesty.signal.core.prove.ReferencePoint;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Companions;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.rig.Sensor;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.core.sample.Series;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Correction;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Formula;
import zesty.signal.core.scale.FormulaException;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.UnitBook;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.Sight;

/**
 * Scale: the strip of arithmetic with today's numbers running through it, each box open to editing, over the transfer
 * curve; and beside it, when asked for, proving against reference points.
 */
public final class ScaleBench extends Bench {
    private static final String NONE = "as it came";
    private static final String STEPS = "steps (2^bits)";
    private static final String TOP = "highest code (2^bits − 1)";
    private static final String TYPED = "typed";
    private static final int WATCHED = 2000;

    private final FlowPane strip = new FlowPane(8, 8);
    private final Label worth = new Label();
    private final Label watch = new Label();
    private final Label error = new Label();
    private final ComboBox<SensorKind> kind = new ComboBox<>();
    private final TextField name = field(12, "what you call this channel");
    private final ComboBox<String> bits = new ComboBox<>();
    private final TextField reference = field(4, "the converter's reference, in V, as you measured it");
    private final ComboBox<String> measured = new ComboBox<>();
    private final CheckBox signed = new CheckBox("signed");
    private final ComboBox<String> divisor = new ComboBox<>();
    private final FlowPane numbers = new FlowPane(12, 8);
    private final List<TextField> numberFields = new ArrayList<>();
    private final TextField unit = field(5, "the unit of the result");
    private final ComboBox<String> shownIn = new ComboBox<>();
    private final TextField low =
            field(5, "in the unit: below it the lane and a notice say so at once; empty for none");
    private final TextField high =
            field(5, "in the unit: above it the lane and a notice say so at once; empty for none");
    private final Button keepKind = new Button("Keep as a kind");
    private final Plot transfer = new Plot();
    private final ToggleButton allDigits = new ToggleButton("All digits");
    private final ToggleButton prove = new ToggleButton("Prove");
    private final ProvePanel panel;
    private final HBox lower = new HBox(14);
    private final Region editing;
    private Channel filled;
    /** Which end of a straight curve is held: −1 the left, 1 the right, 0 none. */
    private int grip;

    private Scaling pulled;
    private boolean filling;

    public ScaleBench(Desk desk) {
        super(desk, Stop.SCALE);
        panel = new ProvePanel(desk, this::focusedNow);
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
        measured.setId("measured");
        measured.setTooltip(new Tooltip("typed and steady, or measured all the time by another column that gives V"));
        measured.setOnAction(event -> adopt());
        signed.setId("signed");
        signed.setTooltip(new Tooltip("codes below 0 stand for voltages below 0"));
        signed.setOnAction(event -> adopt());
        kind.setId("kind");
        kind.getItems().setAll(desk.kinds().all().get());
        desk.kinds().all().addListener((p, was, is) -> {
            SensorKind chosen = kind.getValue();
            filling = true;
            kind.getItems().setAll(is);
            kind.setValue(chosen);
            filling = false;
        });
        kind.setPromptText("choose …");
        kind.setConverter(new KindWords());
        kind.setTooltip(
                new Tooltip("a generic kind of sensor fills the chain, the recipe and the remarks; U takes it back"));
        kind.setOnAction(event -> chooseKind());
        shownIn.setId("shown-in");
        shownIn.setTooltip(new Tooltip("the unit in which lanes and cards show it; the data stays as it is"));
        shownIn.setOnAction(event -> showIn());
        low.setId("limit-low");
        high.setId("limit-high");
        keepKind.setId("keep-kind");
        keepKind.setMinWidth(Region.USE_PREF_SIZE);
        keepKind.setTooltip(
                new Tooltip("keep this chain, recipe and range under the channel's name, as a file to share"));
        keepKind.setOnAction(event -> keepKind());
        reference.setId("reference");
        unit.setId("unit");
        for (TextField text : new TextField[] {name, reference, unit, low, high}) {
            listen(text);
        }
        Button tare = new Button("Tare");
        allDigits.setId("all-digits");
        allDigits.setMinWidth(Region.USE_PREF_SIZE);
        allDigits.setTooltip(new Tooltip("show every digit of the arithmetic; nothing is rounded on the way"));
        tare.setId("tare");
        tare.setMinWidth(Region.USE_PREF_SIZE);
        prove.setMinWidth(Region.USE_PREF_SIZE);
        tare.setTooltip(new Tooltip("make the present reading 0; it becomes a step of the chain with its date"));
        tare.setOnAction(event -> tare());
        prove.setId("prove");
        prove.setTooltip(new Tooltip("check the channel against a meter, a ruler or a known weight"));
        prove.setOnAction(event -> arrange());
        error.setId("scale-error");
        worth.getStyleClass().add("bench-line");
        for (Label label : new Label[] {worth, watch, error}) {
            label.setWrapText(true);
            label.setMinHeight(Region.USE_PREF_SIZE);
            label.managedProperty().bind(label.textProperty().isNotEmpty());
        }
        watch.setId("watch");
        watch.getStyleClass().add("remark");
        error.getStyleClass().addAll("error", "mono");
        FlowPane boxes = new FlowPane(10, 6);
        boxes.getChildren()
                .addAll(
                        labelled("Sensor kind", kind),
                        labelled("Name", name),
                        labelled("Converter", bits),
                        labelled("Reference, V", reference),
                        labelled("Reference is", measured),
                        labelled("Divided by", divisor),
                        labelled("Codes", signed));
        FlowPane ends = new FlowPane(10, 6);
        ends.getChildren()
                .addAll(
                        labelled("Unit", unit),
                        labelled("Shown in", shownIn),
                        labelled("Never below", low),
                        labelled("Never above", high));
        VBox inner = new VBox(6, boxes, numbers, ends, error, watch);
        ScrollPane scroll = new ScrollPane(inner);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("plain-scroll");
        scroll.setMinWidth(430);
        scroll.setPrefWidth(430);
        editing = scroll;
        worth.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(worth, Priority.ALWAYS);
        HBox row = new HBox(8, worth, allDigits, keepKind, tare, prove);
        row.setAlignment(Pos.CENTER_LEFT);
        transfer.setId("transfer");
        transfer.setOnMousePressed(event -> grip = gripAt(event.getX()));
        transfer.setOnMouseDragged(event -> drag(event.getY()));
        transfer.setOnMouseReleased(event -> letGo());
        lower.setMinHeight(0);
        VBox.setVgrow(lower, Priority.ALWAYS);
        getChildren().addAll(strip, row, lower);
        arrange();
    }

    private void listen(TextField text) {
        text.setOnAction(event -> adopt());
        text.focusedProperty().addListener((p, was, is) -> {
            if (!is) {
                adopt();
            }
        });
    }

    private void arrange() {
        VBox curve = new VBox(
                2,
                small(
                        "What arrives along the foot, the quantity up the side; the dot is now. A straight line's ends can be pulled."),
                transfer);
        curve.setMinHeight(0);
        curve.setMinWidth(0);
        VBox.setVgrow(transfer, Priority.ALWAYS);
        HBox.setHgrow(curve, Priority.ALWAYS);
        lower.getChildren().setAll(prove.isSelected() ? panel : editing, curve);
    }

    private static TextField field(int columns, String tip) {
        TextField text = new TextField();
        text.setPrefColumnCount(columns);
        text.setTooltip(new Tooltip(tip));
        return text;
    }

    private Optional<ChannelSight> focusedNow() {
        return focused(desk.sight(System.nanoTime()));
    }

    @Override
    public void opened(Sight sight) {
        filled = null;
        error.setText("");
        desk.kinds().refresh();
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
        Scaling scaling = focused.get().scalingNow();
        List<Scaling.Step> steps = scaling.explain(focused.get().latestRaw());
        strip.getChildren().clear();
        for (int i = 0; i < steps.size(); i++) {
            if (i > 0) {
                Label arrow = new Label("›");
                arrow.getStyleClass().add("arrow");
                strip.getChildren().add(arrow);
            }
            int correction = i - (steps.size() - scaling.corrections().size());
            strip.getChildren().add(box(steps.get(i), correction));
        }
        worth.setText(worth(scaling, focused.get().latestRaw()));
        watch(focused.get());
        draw(sight, focused.get());
        if (prove.isSelected()) {
            panel.show(focused.get());
        }
    }

    private void watch(ChannelSight channel) {
        StringBuilder words = new StringBuilder();
        Series raw = channel.raw();
        Scaling scaling = channel.channel().scaling();
        if (scaling.converter() != null && raw.end() > raw.start()) {
            int n = (int) Math.min(WATCHED, raw.end() - raw.start());
            double[] newest = new double[n];
            for (int i = 0; i < n; i++) {
                newest[i] = raw.value(raw.end() - n + i);
            }
            RangeWatch.of(newest, scaling.converter())
                    .forEach(remark -> words.append(remark).append(' '));
        }
        words.append(unitRemark(channel.channel()));
        Sensor sensor = channel.channel().sensor();
        words.append(sensor.oddity(channel.latestClean(), scaling.unit()))
                .append(' ')
                .append(sensor.trap());
        watch.setText(words.toString().strip());
    }

    /** What the units of a formula say about it. */
    private String unitRemark(Channel channel) {
        Scaling scaling = channel.scaling();
        if (!(scaling.conversion() instanceof Formula formula) || desk.rig().formatOf(channel.column()) == null) {
            return "";
        }
        try {
            List<String> units = new ArrayList<>();
            units.add(scaling.converter() != null ? "V" : unitOfColumn(channel.column()));
            Companions.of(desk.rig(), channel).scalings().forEach(other -> units.add(other.unit()));
            if (scaling.converter() != null
                    && !scaling.converter().referenceFrom().isEmpty()) {
                units.remove(1);
            }
            String remark = formula.unitRemark(units);
            return remark.isEmpty() ? "" : "The formula's units: " + remark + ". ";
        } catch (IllegalArgumentException e) {
            return "";
        }
    }

    private String unitOfColumn(String column) {
        StreamFormat format = desk.rig().formatOf(column);
        int index = Stations.indexOf(format, desk.rig().ownName(column));
        return index < 0 ? "" : format.columns().get(index).unit();
    }

    private void draw(Sight sight, ChannelSight channel) {
        Scaling scaling = channel.scalingNow();
        // While an end is pulled the picture stands still, and only the line in it moves.
        Scaling drawn = pulled != null ? pulled : scaling;
        double raw = channel.latestRaw();
        double low = scaling.throughConverter().map(Converter::lowestCode).orElse(0.0);
        double high = scaling.throughConverter().map(Converter::highestCode).orElse(Math.max(1, 2 * Math.abs(raw)));
        if (scaling.converter() == null) {
            low = raw < 0 ? -high : 0;
        }
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (int i = 0; i <= 200; i++) {
            double y = scaling.apply(low + (high - low) * i / 200);
            least = y < least ? y : least;
            most = y > most ? y : most;
        }
        boolean night = desk.night().get();
        boolean known = most > least;
        transfer.begin(
                night,
                low,
                high,
                scaling.converter() == null ? "as it came" : "counts",
                known ? least : 0,
                known ? most : 1,
                scaling.unit());
        Color colour = Color.web(Palette.css(Palette.channel(LaneStack.colourOf(sight, channel.channel())), night));
        transfer.curve(drawn::apply, colour);
        for (ReferencePoint point : panel.points()) {
            double at = scaling.invert(point.raw() + scaling.correction());
            transfer.dots(new double[] {at}, new double[] {point.reference()}, 1, colour.darker(), 4);
        }
        transfer.dots(new double[] {raw}, new double[] {drawn.apply(raw)}, 1, colour, 6);
    }

    private int gripAt(double x) {
        boolean straight = filled != null
                && filled.scaling().conversion() instanceof Line
                && filled.scaling().columns().isEmpty();
        double share = x / Math.max(1, transfer.getWidth());
        return !straight ? 0 : share < 0.4 ? -1 : share > 0.6 ? 1 : 0;
    }

    /** The end that is held goes to the height of the pointer, the other stays where it is. */
    private void drag(double pixelY) {
        if (grip == 0 || filled == null) {
            return;
        }
        Scaling before = filled.scaling();
        double left = transfer.lowX();
        double right = transfer.highX();
        double y = transfer.valueY(pixelY) - before.correction();
        double leftY = grip < 0 ? y : before.apply(left) - before.correction();
        double rightY = grip > 0 ? y : before.apply(right) - before.correction();
        Converter converter = before.converter();
        double x1 = converter == null ? left : converter.volts(left);
        double x2 = converter == null ? right : converter.volts(right);
        if (leftY != rightY) {
            pulled = before.withConversion(Line.through(x1, leftY, x2, rightY), before.unit());
        }
    }

    private void letGo() {
        Scaling after = pulled;
        Channel channel = filled;
        grip = 0;
        pulled = null;
        if (after != null && channel != null) {
            change(channel, c -> c.withScaling(after));
        }
    }

    private static String exact(double value) {
        return Double.isFinite(value) ? Digits.exact(value).replace('-', '\u2212') : "—";
    }

    private VBox box(Scaling.Step step, int correction) {
        Label result = new Label(allDigits.isSelected() ? exact(step.result()) : Digits.of(step.result()));
        result.getStyleClass().add("sum-result");
        HBox number = new HBox(5, result, small(step.unit()));
        number.setAlignment(Pos.BASELINE_LEFT);
        HBox top = new HBox(8, small(step.name()));
        top.setAlignment(Pos.CENTER_LEFT);
        if (correction >= 0) {
            Button away = new Button("×");
            away.getStyleClass().add("tile-off");
            away.setId("correction-away");
            away.setTooltip(new Tooltip("take this correction out; U puts it back"));
            away.setOnAction(event -> dropCorrection(correction));
            top.getChildren().add(away);
        }
        VBox box = new VBox(2, top, number, mono(step.sum()));
        box.getStyleClass().add("sum");
        box.setMinWidth(130);
        return box;
    }

    private static String worth(Scaling scaling, double raw) {
        double around = scaling.stepSize(raw);
        String step = Digits.of(around) + (scaling.unit().isEmpty() ? "" : " " + scaling.unit());
        if (Double.isNaN(around)) {
            return "The present value stands for nothing: it is at or beyond the end of the conversion's range.";
        }
        if (scaling.converter() == null) {
            return "One step of what arrives is worth " + step + "; "
                    + scaling.conversion().words() + ".";
        }
        Converter converter = scaling.converter();
        Divisor other = converter.divisor() == Divisor.STEPS ? Divisor.HIGHEST_CODE : Divisor.STEPS;
        Scaling otherwise = new Scaling(
                new Converter(converter.bits(), converter.referenceVolts(), other, converter.signed(), ""),
                scaling.conversion(),
                scaling.corrections(),
                scaling.unit());
        double difference = Math.abs(scaling.apply(raw) - otherwise.apply(raw));
        return "One count is worth " + step + " here. Divided by the other number, it would read "
                + Digits.of(difference) + " " + scaling.unit() + " differently.";
    }

    private void fill(Channel channel) {
        filled = null;
        filling = true;
        Scaling scaling = channel.scaling();
        name.setText(channel.name());
        bits.setValue(scaling.converter() == null ? NONE : scaling.converter().bits() + " bit");
        reference.setText(
                scaling.converter() == null
                        ? "5"
                        : Digits.exact(scaling.converter().referenceVolts()));
        divisor.setValue(
                scaling.converter() != null && scaling.converter().divisor() == Divisor.HIGHEST_CODE ? TOP : STEPS);
        signed.setSelected(scaling.converter() != null && scaling.converter().signed());
        measured.getItems().setAll(TYPED);
        if (desk.rig().formatOf(channel.column()) != null) {
            measured.getItems().addAll(Companions.offered(desk.rig(), channel));
        }
        String from = scaling.converter() == null ? "" : scaling.converter().referenceFrom();
        measured.setValue(from.isEmpty() ? TYPED : Companions.variable(from));
        unit.setText(scaling.unit());
        low.setText(limit(channel.limits().low()));
        high.setText(limit(channel.limits().high()));
        kind.setValue(kind.getItems().stream()
                .filter(k -> k.name().equals(channel.sensor().kind()))
                .findFirst()
                .orElse(null));
        shownIn.getItems().setAll(UnitBook.alternatives(scaling.unit()));
        shownIn.setValue(channel.unit());
        shownIn.setDisable(shownIn.getItems().size() < 2);
        numbers.getChildren().clear();
        numberFields.clear();
        for (ConversionForm.Box box : ConversionForm.boxes(scaling.conversion())) {
            TextField text = field(box.width(), scaling.conversion().words());
            text.setId(
                    switch (box.label()) {
                        case "Slope" -> "slope";
                        case "Offset" -> "offset";
                        default -> "number-" + (numberFields.size() + 1);
                    });
            text.setText(box.text());
            listen(text);
            numberFields.add(text);
            numbers.getChildren().add(labelled(box.label(), text));
        }
        filling = false;
        filled = channel;
        able();
    }

    private void able() {
        boolean through = !NONE.equals(bits.getValue());
        reference.setDisable(!through);
        divisor.setDisable(!through);
        measured.setDisable(!through);
        signed.setDisable(!through);
    }

    private void chooseKind() {
        SensorKind chosen = kind.getValue();
        Channel channel = filled;
        if (chosen == null || channel == null || filling) {
            return;
        }
        change(channel, c -> {
            Channel scaled = c.withScaling(chosen.on(c.scaling())).withSensor(chosen.sensor());
            return chosen.recipe().isEmpty() ? scaled : scaled.withRecipe(Recipe.parse(chosen.recipe()));
        });
    }

    private static String limit(double value) {
        return Double.isNaN(value) ? "" : Digits.exact(value);
    }

    private static double limit(String what, TextField text) {
        return text.getText().isBlank() ? Double.NaN : number(what, text.getText());
    }

    private void keepKind() {
        Channel channel = filled;
        if (channel == null) {
            return;
        }
        Sensor known = channel.sensor();
        Sensor named = new Sensor(channel.name(), known.low(), known.high(), known.trap(), known.caution());
        Scaling scaling = channel.scaling();
        desk.kinds()
                .keep(new SensorKind(
                        named,
                        scaling.converter() != null,
                        scaling.conversion(),
                        scaling.unit(),
                        channel.recipe().text()));
    }

    private void change(Channel channel, java.util.function.UnaryOperator<Channel> change) {
        desk.change(rig -> rig.withChannel(channel.column(), change));
    }

    private void showIn() {
        Channel channel = filled;
        if (channel != null && !filling && shownIn.getValue() != null) {
            String wanted = shownIn.getValue().equals(channel.scaling().unit()) ? "" : shownIn.getValue();
            change(channel, c -> c.withShownIn(wanted));
        }
    }

    private void tare() {
        focusedNow().ifPresent(sight -> {
            double now = ProvePanel.held(sight, desk).mean();
            if (Double.isNaN(now)) {
                desk.trouble("There is no reading to tare yet.");
                return;
            }
            Correction tare =
                    new Correction("tare", -now, java.time.Instant.now().getEpochSecond());
            List<Correction> more = new ArrayList<>(sight.channel().scaling().corrections());
            more.add(tare);
            change(sight.channel(), c -> c.withScaling(c.scaling().withCorrections(more)));
            desk.say("Tared: " + Digits.of(now) + " "
                    + sight.channel().scaling().unit() + " is 0 now. U takes it back.");
        });
    }

    private void dropCorrection(int index) {
        Channel channel = filled;
        if (channel != null) {
            List<Correction> fewer = new ArrayList<>(channel.scaling().corrections());
            fewer.remove(index);
            change(channel, c -> c.withScaling(c.scaling().withCorrections(fewer)));
        }
    }

    private void adopt() {
        Channel channel = filled;
        if (channel == null || filling) {
            return;
        }
        able();
        try {
            Converter converter = NONE.equals(bits.getValue())
                    ? null
                    : new Converter(
                            Integer.parseInt(bits.getValue().replace(" bit", "")),
                            number("reference", reference.getText()),
                            TOP.equals(divisor.getValue()) ? Divisor.HIGHEST_CODE : Divisor.STEPS,
                            signed.isSelected(),
                            measured.getValue() == null || TYPED.equals(measured.getValue())
                                    ? ""
                                    : measured.getValue());
            Conversion conversion = ConversionForm.make(
                    channel.scaling().conversion(),
                    numberFields.stream().map(TextField::getText).toList(),
                    unit.getText().strip(),
                    desk.rig().formatOf(channel.column()) == null
                            ? List.of()
                            : Companions.offered(desk.rig(), channel));
            Scaling scaling = new Scaling(
                    converter,
                    conversion,
                    channel.scaling().corrections(),
                    unit.getText().strip());
            Channel changed = channel.withScaling(scaling)
                    .withName(name.getText().strip())
                    .withLimits(new Limits(limit("lower limit", low), limit("upper limit", high)));
            Companions.of(desk.rig(), changed);
            error.setText("");
            if (!changed.equals(channel)) {
                filled = changed;
                change(channel, c -> changed);
            }
        } catch (FormulaException e) {
            error.setText(e.pointed() + "\n" + e.getMessage() + ". The old scaling stays in force.");
        } catch (IllegalArgumentException e) {
            error.setText(e.getMessage() + ". The old scaling stays in force.");
        }
    }

    private static double number(String what, String text) {
        try {
            return ConversionForm.number(text);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("the " + what + " must be a number such as 0.5, was '" + text + "'", e);
        }
    }

    private static final class KindWords extends javafx.util.StringConverter<SensorKind> {
        @Override
        public String toString(SensorKind kind) {
            return kind == null ? "" : kind.name();
        }

        @Override
        public SensorKind fromString(String text) {
            return null;
        }
    }
}
