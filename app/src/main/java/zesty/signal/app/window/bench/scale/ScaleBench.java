package zesty.signal.app.window.bench.scale;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.ConversionForm;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ExtraInputs;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Sensor;
import zesty.signal.core.rig.SensorKind;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Correction;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.FormulaException;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.UnitBook;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * Scale: the strip of arithmetic with today's numbers running through it, each box open to editing, over the transfer
 * curve; and beside it, when asked for, proving against reference points.
 */
public final class ScaleBench extends Bench {
    private static final String NONE = "raw";
    private static final String STEPS = "steps (2^bits)";
    private static final String TOP = "highest code (2^bits − 1)";
    private static final String TYPED = "typed";

    private static final double SIDE_WIDTH = 330;

    private final ArithmeticStrip strip = new ArithmeticStrip(this::open, this::dropCorrection);
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
    private final TransferCurve curve = new TransferCurve(this::pulled);
    private final ToggleButton allDigits = new ToggleButton("All digits");
    private final ToggleButton prove = new ToggleButton("Calibrate");
    private final ProvePanel panel;
    private final HBox lower = new HBox(14);
    /** What is changed of each step on the strip. */
    private final Map<ArithmeticStrip.Op, VBox> groups = new EnumMap<>(ArithmeticStrip.Op.class);

    private final VBox side = new VBox(10);
    private Channel filled;
    private boolean filling;

    public ScaleBench(Workspace workspace) {
        super(workspace, Stop.SCALE);
        panel = new ProvePanel(workspace, this::focusedNow);
        bits.getItems().add(NONE);
        for (int b = 8; b <= 24; b++) {
            bits.getItems().add(b + " bit");
        }
        bits.setId("bits");
        bits.setTooltip(new Tooltip("how many bits the board's converter has"));
        divisor.getItems().setAll(STEPS, TOP);
        divisor.setTooltip(new Tooltip("makers disagree; the full-scale code is one count below the reference"));
        bits.setOnAction(event -> adopt());
        divisor.setOnAction(event -> adopt());
        measured.setId("measured");
        measured.setTooltip(new Tooltip("typed and steady, or measured all the time by another column that gives V"));
        measured.setOnAction(event -> adopt());
        signed.setId("signed");
        signed.setTooltip(new Tooltip("codes below 0 stand for voltages below 0"));
        signed.setOnAction(event -> adopt());
        kind.setId("kind");
        kind.getItems().setAll(workspace.kinds().all().get());
        workspace.kinds().all().addListener((p, was, is) -> {
            SensorKind chosen = kind.getValue();
            filling = true;
            kind.getItems().setAll(is);
            kind.setValue(chosen);
            filling = false;
        });
        kind.setPromptText("kind of sensor …");
        kind.getStyleClass().add("sensor-kind");
        kind.setConverter(new KindWords());
        kind.setTooltip(new Tooltip("a generic kind of sensor fills the chain, the recipe and the notes; U undoes it"));
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
        numbers.setPrefWrapLength(SIDE_WIDTH - 40);
        group(
                ArithmeticStrip.Op.CONVERTER,
                new HBox(10, labelled("Converter", bits), labelled("Codes", signed)),
                new HBox(10, labelled("Reference, V", reference), labelled("Reference is", measured)),
                labelled("Divided by", divisor));
        group(ArithmeticStrip.Op.LAW, numbers);
        group(
                ArithmeticStrip.Op.SHOWN,
                labelled("Name", name),
                new HBox(10, labelled("Unit", unit), labelled("Shown in", shownIn)),
                new HBox(10, labelled("Never below", low), labelled("Never above", high)));
        side.setMinWidth(SIDE_WIDTH);
        side.setPrefWidth(SIDE_WIDTH);
        side.setMaxWidth(SIDE_WIDTH);
        atHead(kind, allDigits, keepKind, tare, prove);
        VBox.setVgrow(lower, Priority.ALWAYS);
        getChildren().addAll(strip, lower);
        arrange();
        open(null);
    }

    private void group(ArithmeticStrip.Op op, Node... fields) {
        VBox box = new VBox(8, fields);
        box.getStyleClass().add("op-panel");
        groups.put(op, box);
    }

    /** Opens a step of the strip to be changed; null closes what is open. */
    private void open(ArithmeticStrip.Op op) {
        strip.select(op);
        side.getChildren().clear();
        if (op != null) {
            side.getChildren().add(groups.get(op));
        }
        side.getChildren().addAll(error, worth, watch);
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
        VBox pictures = new VBox(4, curve);
        if (prove.isSelected()) {
            pictures.getChildren().add(panel.leftOver());
        }
        pictures.setMinWidth(0);
        VBox.setVgrow(curve, Priority.ALWAYS);
        HBox.setHgrow(pictures, Priority.ALWAYS);
        lower.getChildren().setAll(prove.isSelected() ? panel : side, pictures);
    }

    private static TextField field(int columns, String tip) {
        TextField text = new TextField();
        text.setPrefColumnCount(columns);
        text.setTooltip(new Tooltip(tip));
        return text;
    }

    private Optional<ChannelSnapshot> focusedNow() {
        return focused(workspace.shown().snapshot(System.nanoTime()));
    }

    @Override
    public void opened(Snapshot snapshot) {
        filled = null;
        error.setText("");
        workspace.kinds().refresh();
        show(snapshot);
    }

    @Override
    public void show(Snapshot snapshot) {
        head(snapshot);
        Optional<ChannelSnapshot> focused = focused(snapshot);
        if (focused.isEmpty()) {
            strip.showNothing();
            worth.setText("");
            return;
        }
        refill(focused.get().channel());
        Scaling scaling = focused.get().scalingNow();
        double raw = focused.get().latestRaw();
        strip.show(scaling, raw, allDigits.isSelected());
        worth.setText(ChainRemarks.worth(scaling, raw));
        watch.setText(ChainRemarks.of(workspace.shown().rig(), focused.get()));
        curve.show(
                snapshot,
                focused.get(),
                panel.points(),
                workspace.view().night().get());
        if (prove.isSelected()) {
            panel.show(focused.get());
        }
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
        if (workspace.shown().rig().formatOf(channel.column()) != null) {
            measured.getItems().addAll(ExtraInputs.offered(workspace.shown().rig(), channel));
        }
        String from = scaling.converter() == null ? "" : scaling.converter().referenceFrom();
        measured.setValue(from.isEmpty() ? TYPED : ExtraInputs.variable(from));
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
        String column = channel.column();
        workspace.change(rig -> {
            Rig with = rig.withChannel(column, c -> {
                Channel scaled = c.withScaling(chosen.on(c.scaling())).withSensor(chosen.sensor());
                return chosen.recipe().isEmpty() ? scaled : scaled.withRecipe(Recipe.parse(chosen.recipe()));
            });
            return chosen.reader() == null || !rig.readersOn(column).isEmpty()
                    ? with
                    : with.withReader(chosen.reader().onColumns(List.of(column)));
        });
        refill(channel);
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
        workspace
                .kinds()
                .keep(new SensorKind(
                        named,
                        scaling.converter() != null,
                        scaling.conversion(),
                        scaling.unit(),
                        channel.recipe().text(),
                        workspace.shown().rig().readersOn(channel.column()).stream()
                                .filter(reader -> reader.columns().size() == 1)
                                .map(reader -> reader.onColumns(List.of()))
                                .findFirst()
                                .orElse(null)));
    }

    private void change(Channel channel, java.util.function.UnaryOperator<Channel> change) {
        workspace.change(rig -> rig.withChannel(channel.column(), change));
        refill(channel);
    }

    /** Fills the boxes from the rig in force, at once: what is seen of it comes a moment later, when somebody may type. */
    private void refill(Channel like) {
        Channel now = workspace.shown().rig().channels().stream()
                .filter(channel -> channel.column().equals(like.column()))
                .findFirst()
                .orElse(like);
        if (!now.equals(filled)) {
            fill(now);
        }
    }

    private void showIn() {
        Channel channel = filled;
        if (channel != null && !filling && shownIn.getValue() != null) {
            String wanted = shownIn.getValue().equals(channel.scaling().unit()) ? "" : shownIn.getValue();
            change(channel, c -> c.withShownIn(wanted));
        }
    }

    private void tare() {
        focusedNow().ifPresent(snapshot -> {
            double now = ProvePanel.held(snapshot, workspace).mean();
            if (Double.isNaN(now)) {
                workspace.trouble("There is no reading to tare yet.");
                return;
            }
            Correction tare =
                    new Correction("tare", -now, java.time.Instant.now().getEpochSecond());
            List<Correction> more = new ArrayList<>(snapshot.channel().scaling().corrections());
            more.add(tare);
            change(snapshot.channel(), c -> c.withScaling(c.scaling().withCorrections(more)));
            workspace.say("Tared: " + Digits.of(now) + " "
                    + snapshot.channel().scaling().unit() + " is 0 now. U undoes it.");
        });
    }

    private void pulled(Scaling after) {
        Channel channel = filled;
        if (channel != null) {
            change(channel, c -> c.withScaling(after));
        }
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
                    workspace.shown().rig().formatOf(channel.column()) == null
                            ? List.of()
                            : ExtraInputs.offered(workspace.shown().rig(), channel));
            Scaling scaling = new Scaling(
                    converter,
                    conversion,
                    channel.scaling().corrections(),
                    unit.getText().strip());
            Channel changed = channel.withScaling(scaling)
                    .withName(name.getText().strip())
                    .withLimits(new Limits(limit("lower limit", low), limit("upper limit", high)));
            ExtraInputs.of(workspace.shown().rig(), changed);
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
