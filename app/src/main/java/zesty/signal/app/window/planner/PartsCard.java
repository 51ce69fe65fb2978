package zesty.signal.app.window.planner;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.BiFunction;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.core.plan.BridgeChoice;
import zesty.signal.core.plan.DividerChoice;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.plan.FilterChoice;
import zesty.signal.core.plan.PullUpChoice;
import zesty.signal.core.plan.ShuntChoice;
import zesty.signal.core.plan.SpotSize;
import zesty.signal.core.plan.ThermistorChoice;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divider;
import zesty.signal.core.scale.Shunt;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.core.text.Messages;

/** Values of the parts before the pin, from the standard series, of what they are for. JavaFX thread. */
final class PartsCard extends VBox {
    /** What is typed, and the lines that follow. */
    private record Kind(
            String name,
            String tip,
            List<Input> inputs,
            BiFunction<double[], Draft, List<Line>> work,
            BiFunction<double[], Draft, Conversion> scaling) {
        Kind(String name, String tip, List<Input> inputs, BiFunction<double[], Draft, List<Line>> work) {
            this(name, tip, inputs, work, null);
        }
    }

    private static final String BRIDGE_UNIT = "kg";

    private record Input(String words, String unit, double usual) {}

    private record Line(String words, String value) {}

    private static final List<Kind> KINDS = List.of(
            new Kind(
                    Messages.of("planner.divider"),
                    Messages.of("planner.two-resistors-that-bring-a-voltage"),
                    List.of(new Input(Messages.of("planner.highest-voltage"), "V", 25)),
                    PartsCard::divider,
                    PartsCard::dividerScaling),
            new Kind(
                    Messages.of("planner.shunt"),
                    Messages.of("planner.a-small-resistor-whose-drop-tells"),
                    List.of(
                            new Input(Messages.of("planner.highest-current"), "A", 3),
                            new Input(Messages.of("planner.amplifier"), Messages.of("planner.times"), 20),
                            new Input(Messages.of("planner.may-drop"), "V", 0.3)),
                    PartsCard::shunt,
                    PartsCard::shuntScaling),
            new Kind(
                    Messages.of("planner.thermistor"),
                    Messages.of("planner.the-resistor-in-series-with-a"),
                    List.of(
                            new Input(Messages.of("planner.at-25-c"), "Ω", 10_000),
                            new Input(Messages.of("planner.beta"), "K", 3950),
                            new Input(Messages.of("planner.from"), "°C", 0),
                            new Input(Messages.of("planner.to"), "°C", 60)),
                    PartsCard::thermistor,
                    PartsCard::thermistorScaling),
            new Kind(
                    Messages.of("planner.bridge"),
                    Messages.of("planner.the-gain-behind-a-load-cell"),
                    List.of(
                            new Input(Messages.of("planner.gives"), "mV/V", 2),
                            new Input(Messages.of("planner.fed-with"), "V", 5),
                            new Input(Messages.of("planner.full-scale"), BRIDGE_UNIT, 200)),
                    PartsCard::bridge,
                    PartsCard::bridgeScaling),
            new Kind(
                    Messages.of("planner.filter"),
                    Messages.of("planner.one-resistor-and-one-capacitor"),
                    List.of(),
                    PartsCard::filter),
            new Kind(
                    Messages.of("planner.pull-up"),
                    Messages.of("planner.the-resistor-that-a-bus-line-needs"),
                    List.of(
                            new Input(Messages.of("planner.supply"), "V", 3.3),
                            new Input(Messages.of("planner.line-and-chips"), "pF", 100),
                            new Input(Messages.of("planner.rise-within"), "ns", 1000)),
                    PartsCard::pullUp),
            new Kind(
                    Messages.of("planner.spot"),
                    Messages.of("planner.the-smallest-spot-that-a-heat"),
                    List.of(
                            new Input(Messages.of("planner.pixels-across"), "", 32),
                            new Input(Messages.of("planner.sees"), "°", 55),
                            new Input(Messages.of("planner.at"), "m", 1)),
                    PartsCard::spot));

    private final ComboBox<Kind> which = new ComboBox<>();
    private final VBox inputs = new VBox(4);
    private final VBox lines = new VBox(4);
    private final Label wrong = new Label();
    private final List<TextField> boxes = new ArrayList<>();
    private final Button scale = Bench.button("plan-scale", Messages.of("planner.scale-with-it"), "");
    private final BiConsumer<Conversion, String> adopt;
    private Draft draft;
    private String channel = "";
    private Conversion scaling;

    /** @param adopt takes up a part's conversion and its unit as the scaling of the channel in focus */
    PartsCard(BiConsumer<Conversion, String> adopt) {
        super(6);
        this.adopt = adopt;
        scale.setMinWidth(USE_PREF_SIZE);
        scale.setOnAction(event -> this.adopt.accept(scaling, unit()));
        setId("plan-parts");
        getStyleClass().add("plan-card");
        Label title = new Label(Messages.of("planner.parts"));
        title.getStyleClass().add("plan-name");
        which.setId("plan-part");
        which.getItems().setAll(KINDS);
        which.setConverter(new javafx.util.StringConverter<>() {
            @Override
            public String toString(Kind kind) {
                return kind == null ? "" : kind.name();
            }

            @Override
            public Kind fromString(String text) {
                return null;
            }
        });
        which.setMaxWidth(Double.MAX_VALUE);
        which.setOnAction(event -> choose());
        wrong.getStyleClass().add("error");
        wrong.setWrapText(true);
        wrong.setMinHeight(USE_PREF_SIZE);
        wrong.managedProperty().bind(wrong.textProperty().isNotEmpty());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(6, title, space, scale);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, which, inputs, lines, wrong);
        which.setValue(KINDS.get(0));
        choose();
    }

    private void choose() {
        Kind kind = which.getValue();
        Tip.on(which, kind.tip());
        boxes.clear();
        inputs.getChildren().clear();
        for (Input input : kind.inputs()) {
            TextField box = new TextField(Digits.box(input.usual()));
            box.setId("part-" + input.words().replaceAll("\\W+", "-"));
            box.setAccessibleText(input.words());
            box.setPrefColumnCount(5);
            box.setMaxWidth(74);
            box.textProperty().addListener((p, was, is) -> work());
            boxes.add(box);
            inputs.getChildren().add(line(Bench.small(input.words()), box, Bench.small(input.unit())));
        }
        work();
    }

    private static HBox line(Label words, Region value, Label unit) {
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        unit.setMinWidth(34);
        words.setMinWidth(USE_PREF_SIZE);
        HBox line = new HBox(6, words, space, value, unit);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }

    /** @param focused name of the channel in focus; empty where there is none */
    void show(Draft now, String focused) {
        draft = now;
        channel = focused;
        work();
    }

    private void work() {
        if (draft == null) {
            return;
        }
        lines.getChildren().clear();
        wrong.setText("");
        scaling = null;
        scale.setVisible(false);
        double[] typed = new double[boxes.size()];
        try {
            for (int i = 0; i < typed.length; i++) {
                String text = boxes.get(i).getText().strip();
                try {
                    typed[i] = Digits.typed(text);
                } catch (NumberFormatException e) {
                    throw new IllegalArgumentException(Messages.of("planner.is-not-a-number", text));
                }
            }
            for (Line one : which.getValue().work().apply(typed, draft)) {
                Label value = Bench.mono(one.value());
                value.setMinWidth(USE_PREF_SIZE);
                Region space = new Region();
                HBox.setHgrow(space, Priority.ALWAYS);
                lines.getChildren().add(new HBox(6, Bench.small(one.words()), space, value));
            }
            if (which.getValue().scaling() != null && !channel.isEmpty()) {
                scaling = which.getValue().scaling().apply(typed, draft);
                Tip.on(scale, Messages.of("planner.makes-this-the-scaling-of-with-the", channel));
                scale.setVisible(true);
            }
        } catch (IllegalArgumentException e) {
            String why = e.getMessage();
            wrong.setText(Character.toUpperCase(why.charAt(0)) + why.substring(1) + ".");
        }
    }

    private static String ohms(double value) {
        return value >= 1e6
                ? Digits.about(value / 1e6, 3) + " MΩ"
                : value >= 1000 ? Digits.about(value / 1000, 3) + " kΩ" : Digits.about(value, 3) + " Ω";
    }

    private static String milli(double value, String unit) {
        return Math.abs(value) < 0.1
                ? Digits.about(1000 * value, 3) + " m" + unit
                : Digits.about(value, 3) + " " + unit;
    }

    private static List<Line> divider(double[] in, Draft draft) {
        DividerChoice choice = DividerChoice.of(in[0], draft.converter());
        return List.of(
                new Line(Messages.of("planner.upper"), ohms(choice.top())),
                new Line(Messages.of("planner.lower"), ohms(choice.bottom())),
                new Line(
                        Messages.of("planner.at-the-pin"),
                        Digits.about(choice.budget().atMaxVolts(), 3) + " V"),
                new Line(Messages.of("planner.drawn"), milli(choice.budget().amps(), "A")),
                new Line(Messages.of("planner.heat-in-upper"), milli(choice.watts(), "W")),
                new Line(
                        Messages.of("planner.worst-case"),
                        "±" + Digits.about(100 * choice.budget().worstError(), 2) + " %"));
    }

    private static List<Line> shunt(double[] in, Draft draft) {
        ShuntChoice choice = ShuntChoice.of(in[0], in[1], in[2], draft.converter());
        return List.of(
                new Line(
                        Messages.of("planner.resistor"),
                        ohms(choice.ohms()) + ", " + Digits.about(choice.ratedWatts(), 3) + " W"),
                new Line(Messages.of("planner.drops"), milli(choice.budget().dropVolts(), "V")),
                new Line(Messages.of("planner.heat"), milli(choice.budget().watts(), "W")),
                new Line(
                        Messages.of("planner.at-the-pin"),
                        Digits.about(choice.budget().dropVolts() * in[1], 3) + " V"),
                new Line(Messages.of("planner.one-count"), milli(choice.budget().stepAmps(), "A")));
    }

    private static List<Line> thermistor(double[] in, Draft draft) {
        ThermistorChoice choice = ThermistorChoice.of(in[0], in[1], in[2], in[3], draft.converter());
        return List.of(
                new Line(Messages.of("planner.in-series"), ohms(choice.ohms())),
                new Line(Messages.of("planner.one-count"), Digits.about(choice.stepDegrees(), 2) + " °C"),
                new Line(Messages.of("planner.warms-itself-by"), milli(choice.selfWatts(), "W")));
    }

    private static List<Line> bridge(double[] in, Draft draft) {
        BridgeChoice choice = BridgeChoice.of(in[0], in[1], in[2], draft.converter());
        return List.of(
                new Line(Messages.of("planner.gain"), Digits.about(choice.gain(), 3)),
                new Line(
                        Messages.of("planner.at-the-pin"),
                        Digits.about(choice.budget().fullScaleVolts(), 3) + " V"),
                new Line(
                        Messages.of("planner.one-count"),
                        Digits.about(choice.budget().step(), 2) + " " + BRIDGE_UNIT));
    }

    private String unit() {
        return scaling.unit().isEmpty() ? BRIDGE_UNIT : scaling.unit();
    }

    private static Conversion dividerScaling(double[] in, Draft draft) {
        DividerChoice choice = DividerChoice.of(in[0], draft.converter());
        return new Divider(choice.top(), choice.bottom());
    }

    private static Conversion shuntScaling(double[] in, Draft draft) {
        return new Shunt(ShuntChoice.of(in[0], in[1], in[2], draft.converter()).ohms(), in[1], 0);
    }

    private static Conversion thermistorScaling(double[] in, Draft draft) {
        ThermistorChoice choice = ThermistorChoice.of(in[0], in[1], in[2], in[3], draft.converter());
        return new Thermistor(
                new Thermistor.Beta(in[1], in[0], 25),
                choice.ohms(),
                Thermistor.Side.LOW,
                draft.converter().ref());
    }

    private static Conversion bridgeScaling(double[] in, Draft draft) {
        BridgeChoice choice = BridgeChoice.of(in[0], in[1], in[2], draft.converter());
        return new zesty.signal.core.scale.Line(in[2] / choice.budget().fullScaleVolts(), 0);
    }

    private static List<Line> filter(double[] in, Draft draft) {
        FilterChoice choice = FilterChoice.of(draft.need().highestHz(), draft.rateHz());
        return List.of(
                new Line(Messages.of("planner.resistor"), ohms(choice.ohms())),
                new Line(Messages.of("planner.capacitor"), Digits.about(1e9 * choice.farads(), 3) + " nF"),
                new Line(Messages.of("planner.corner"), Digits.about(choice.cornerHz(), 3) + " Hz"),
                new Line(
                        Messages.of(
                                "planner.passes-at-hz",
                                Digits.about(draft.need().highestHz(), 3)),
                        Digits.about(100 * choice.passes(), 2) + " %"),
                new Line(Messages.of("planner.left-of-aliases"), Digits.about(100 * choice.aliased(), 2) + " %"));
    }

    private static List<Line> pullUp(double[] in, Draft draft) {
        PullUpChoice choice = PullUpChoice.of(in[0], in[1] * 1e-12, in[2] * 1e-9);
        return List.of(
                new Line(Messages.of("planner.resistor"), ohms(choice.ohms())),
                new Line(Messages.of("planner.at-least"), ohms(choice.least())),
                new Line(Messages.of("planner.at-most"), ohms(choice.most())));
    }

    private static List<Line> spot(double[] in, Draft draft) {
        SpotSize size = SpotSize.of((int) in[0], in[1], in[2]);
        return List.of(
                new Line(Messages.of("planner.a-pixel-sees"), milli(size.pixel(), "m")),
                new Line(Messages.of("planner.smallest-spot"), milli(size.spot(), "m")));
    }
}
