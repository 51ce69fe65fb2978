package zesty.signal.app.window.bench.scale;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.ConversionForm;
import zesty.signal.app.window.bench.TypedText;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ExtraInputs;
import zesty.signal.core.rig.Limits;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Correction;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.FormulaException;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.UnitBook;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * Scale: the strip of arithmetic with today's numbers running through it, each box open to editing, over the transfer
 * curve; and beside it, when asked for, proving against reference points.
 */
public final class ScaleBench extends Bench {
    private static final double SIDE_WIDTH = 330;

    private final ArithmeticStrip strip = new ArithmeticStrip(this::open, this::dropCorrection);
    private final Label worth = new Label();
    private final Label watch = new Label();
    private final Label error = new Label();
    private final KindChooser kind;
    private final TextField name = field(12, Messages.of("bench.scale.what-you-call-this-channel"));
    private final ConverterForm converter = new ConverterForm(this::adopt);
    private final FlowPane numbers = new FlowPane(12, 8);
    private final List<TextField> numberFields = new ArrayList<>();
    private final TextField unit = field(5, Messages.of("bench.scale.the-unit-of-the-result"));
    private final ComboBox<String> shownIn = new ComboBox<>();
    private final TextField low = field(5, Messages.of("bench.scale.in-the-unit-below-it-the-lane-and"));
    private final TextField high = field(5, Messages.of("bench.scale.in-the-unit-above-it-the-lane-and"));
    private final TransferCurve curve = new TransferCurve(this::pulled);
    private final ToggleButton allDigits = new ToggleButton(Messages.of("bench.scale.all-digits"));
    private final ToggleButton prove = new ToggleButton(Messages.of("bench.scale.calibrate"));
    private final ProvePanel panel;
    private final HBox lower = new HBox(14);
    /** What is changed of each step on the strip. */
    private final Map<ArithmeticStrip.Op, VBox> groups = new EnumMap<>(ArithmeticStrip.Op.class);

    private final VBox side = new VBox(10);
    private Channel filled;
    private String column = "";
    /** Of which conversion the number boxes are. */
    private Class<?> numbersOf = Void.class;

    private boolean filling;

    public ScaleBench(Workspace workspace) {
        super(workspace, Stop.SCALE);
        panel = new ProvePanel(workspace, this::focusedNow);
        kind = new KindChooser(workspace, () -> filled, this::refill);
        shownIn.setId("shown-in");
        Tip.on(shownIn, Messages.of("bench.scale.the-unit-in-which-lanes-and-cards"));
        shownIn.setOnAction(event -> showIn());
        low.setId("limit-low");
        high.setId("limit-high");
        unit.setId("unit");
        for (TextField text : new TextField[] {name, unit, low, high}) {
            listen(text);
        }
        Button tare = new Button(Messages.of("bench.scale.tare"));
        allDigits.setId("all-digits");
        allDigits.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(allDigits, Messages.of("bench.scale.show-every-digit-of-the-arithmetic"));
        tare.setId("tare");
        tare.setMinWidth(Region.USE_PREF_SIZE);
        prove.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(tare, Messages.of("bench.scale.make-the-present-reading-0-it"));
        tare.setOnAction(event -> tare());
        prove.setId("prove");
        Tip.on(prove, Messages.of("bench.scale.check-the-channel-against-a-meter"));
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
        group(ArithmeticStrip.Op.CONVERTER, converter.rows());
        group(ArithmeticStrip.Op.LAW, numbers);
        group(
                ArithmeticStrip.Op.SHOWN,
                labelled(Messages.of("bench.scale.name"), name),
                new HBox(
                        10,
                        labelled(Messages.of("bench.scale.unit"), unit),
                        labelled(Messages.of("bench.scale.shown-in"), shownIn)),
                new HBox(
                        10,
                        labelled(Messages.of("bench.scale.never-below"), low),
                        labelled(Messages.of("bench.scale.never-above"), high)));
        side.setMinWidth(SIDE_WIDTH);
        side.setPrefWidth(SIDE_WIDTH);
        side.setMaxWidth(SIDE_WIDTH);
        atHead(kind, allDigits, kind.keep(), tare, prove);
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

    static TextField field(int columns, String tip) {
        TextField text = new TextField();
        text.setPrefColumnCount(columns);
        Tip.on(text, tip);
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

    private static void say(TextField box, String text, boolean same) {
        if (same) {
            TypedText.say(box, text);
        } else {
            TypedText.sayAnew(box, text);
        }
    }

    private void fill(Channel channel) {
        boolean same = column.equals(channel.column());
        column = channel.column();
        filled = null;
        filling = true;
        Scaling scaling = channel.scaling();
        say(name, channel.name(), same);
        converter.fill(
                scaling.converter(),
                workspace.shown().rig().formatOf(channel.column()) == null
                        ? List.of()
                        : ExtraInputs.offered(workspace.shown().rig(), channel),
                same);
        say(unit, scaling.unit(), same);
        say(low, limit(channel.limits().low()), same);
        say(high, limit(channel.limits().high()), same);
        kind.show(channel);
        shownIn.getItems().setAll(UnitBook.alternatives(scaling.unit()));
        shownIn.setValue(channel.unit());
        shownIn.setDisable(shownIn.getItems().size() < 2);
        fillNumbers(scaling.conversion(), same);
        filling = false;
        filled = channel;
    }

    /** The boxes stay while they are those of the same law: somebody may be typing in one. */
    private void fillNumbers(Conversion conversion, boolean same) {
        List<ConversionForm.Box> boxes = ConversionForm.boxes(conversion);
        boolean stay = same && numbersOf == conversion.getClass() && boxes.size() == numberFields.size();
        numbersOf = conversion.getClass();
        if (!stay) {
            numbers.getChildren().clear();
            numberFields.clear();
        }
        for (int i = 0; i < boxes.size(); i++) {
            ConversionForm.Box box = boxes.get(i);
            if (!stay) {
                TextField text = field(box.width(), conversion.words());
                text.setId(
                        box.label().equals(Messages.of("bench.slope"))
                                ? "slope"
                                : box.label().equals(Messages.of("bench.offset")) ? "offset" : "number-" + (i + 1));
                listen(text);
                numberFields.add(text);
                numbers.getChildren().add(labelled(box.label(), text));
            }
            say(numberFields.get(i), box.text(), stay);
        }
    }

    private static String limit(double value) {
        return Double.isNaN(value) ? "" : Digits.box(value);
    }

    private static double limit(String what, TextField text) {
        return text.getText().isBlank() ? Double.NaN : ConverterForm.number(what, text.getText());
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
            double now = SteadyReading.of(snapshot, workspace).mean();
            if (Double.isNaN(now)) {
                workspace.trouble(Messages.of("bench.scale.there-is-no-reading-to-tare-yet"));
                return;
            }
            Correction tare =
                    new Correction("tare", -now, java.time.Instant.now().getEpochSecond());
            List<Correction> more = new ArrayList<>(snapshot.channel().scaling().corrections());
            more.add(tare);
            change(snapshot.channel(), c -> c.withScaling(c.scaling().withCorrections(more)));
            workspace.say(Messages.of(
                    "bench.scale.tared-is-0-now-u-undoes-it",
                    Digits.of(now),
                    snapshot.channel().scaling().unit()));
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
        try {
            Conversion conversion = ConversionForm.make(
                    channel.scaling().conversion(),
                    numberFields.stream().map(TextField::getText).toList(),
                    unit.getText().strip(),
                    workspace.shown().rig().formatOf(channel.column()) == null
                            ? List.of()
                            : ExtraInputs.offered(workspace.shown().rig(), channel));
            Scaling scaling = new Scaling(
                    converter.value(),
                    conversion,
                    channel.scaling().corrections(),
                    unit.getText().strip());
            Channel changed = channel.withScaling(scaling)
                    .withName(name.getText().strip())
                    .withLimits(new Limits(
                            limit(Messages.of("bench.scale.lower-limit"), low),
                            limit(Messages.of("bench.scale.upper-limit"), high)));
            ExtraInputs.of(workspace.shown().rig(), changed);
            error.setText("");
            if (!changed.equals(channel)) {
                filled = changed;
                change(channel, c -> changed);
            }
        } catch (FormulaException e) {
            error.setText(Messages.of("bench.scale.the-old-scaling-stays-in-force", e.pointed(), e.getMessage()));
        } catch (IllegalArgumentException e) {
            error.setText(Messages.of("bench.scale.the-old-scaling-stays-in-force-2", e.getMessage()));
        }
    }
}
