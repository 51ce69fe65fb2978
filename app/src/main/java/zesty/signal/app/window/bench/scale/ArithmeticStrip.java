package zesty.signal.app.window.bench.scale;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.IntConsumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;

/**
 * The strip of arithmetic: this moment's numbers in square boxes, and between them, round, what is done to them. A round
 * one opens to be changed. Its nodes stay while the numbers run.
 */
final class ArithmeticStrip extends FlowPane {
    /** What is done on the way, in its order. */
    enum Op {
        CONVERTER(Messages.of("bench.scale.converter"), Messages.of("bench.scale.the-board-s-converter-bits")),
        LAW(Messages.of("bench.scale.law"), Messages.of("bench.scale.from-volts-to-the-quantity-the")),
        SHOWN(
                Messages.of("bench.scale.unit-and-limits"),
                Messages.of("bench.scale.the-name-the-unit-and-what-it-must"));

        private final String title;
        private final String tip;

        Op(String title, String tip) {
            this.title = title;
            this.tip = tip;
        }

        String title() {
            return title;
        }
    }

    private final IntConsumer dropCorrection;
    private final ToggleGroup group = new ToggleGroup();
    private final Map<Op, ToggleButton> ops = new EnumMap<>(Op.class);
    private final Map<Op, Label> sums = new EnumMap<>(Op.class);
    private final List<Box> boxes = new ArrayList<>();

    private static final class Box extends VBox {
        final Label name = Bench.small("");
        final Label result = new Label();
        final Label unit = Bench.small("");
        final Label sum = Bench.mono("");
        final Button away = new Button("\u00d7");

        Box() {
            super(2);
            getStyleClass().add("sum");
            result.getStyleClass().add("sum-result");
            HBox number = new HBox(5, result, unit);
            number.setAlignment(Pos.BASELINE_LEFT);
            away.getStyleClass().add("tile-off");
            away.setId("correction-away");
            Tip.on(away, Messages.of("bench.scale.take-this-correction-out-u-undoes"));
            away.managedProperty().bind(away.visibleProperty());
            HBox top = new HBox(8, name, away);
            top.setAlignment(Pos.CENTER_LEFT);
            getChildren().addAll(top, number, sum);
            setMinWidth(124);
        }
    }

    /**
     * @param open is told what is to be changed; null for nothing any more
     * @param dropCorrection takes a correction out, by its place among them
     */
    ArithmeticStrip(Consumer<Op> open, IntConsumer dropCorrection) {
        super(8, 6);
        this.dropCorrection = dropCorrection;
        setRowValignment(javafx.geometry.VPos.CENTER);
        for (Op op : Op.values()) {
            ToggleButton button = new ToggleButton();
            Label sum = Bench.mono("");
            Label title = Bench.small(op.title());
            VBox words = new VBox(sum, title);
            words.setAlignment(Pos.CENTER);
            button.setGraphic(words);
            button.getStyleClass().setAll("op");
            button.setId("op-" + op.name().toLowerCase(java.util.Locale.ROOT));
            Tip.on(button, op.tip);
            button.setToggleGroup(group);
            button.setMinWidth(Region.USE_PREF_SIZE);
            button.setOnAction(event -> open.accept(button.isSelected() ? op : null));
            ops.put(op, button);
            sums.put(op, sum);
        }
    }

    /** Shows which is open; null for none. */
    void select(Op op) {
        group.selectToggle(op == null ? null : ops.get(op));
    }

    /** There is no channel. */
    void showNothing() {
        getChildren().setAll(Bench.small(Messages.of("bench.scale.no-channel-yet")));
    }

    /** @param allDigits whether every digit is shown, or as many as mean something */
    void show(Scaling scaling, double raw, boolean allDigits) {
        List<Scaling.Step> steps = scaling.explain(raw);
        while (boxes.size() < steps.size()) {
            boxes.add(new Box());
        }
        int corrections = scaling.corrections().size();
        int converted = scaling.converter() == null ? 1 : 2;
        List<Node> wanted = new ArrayList<>();
        for (int i = 0; i < steps.size(); i++) {
            Box box = boxes.get(i);
            fill(box, steps.get(i), i - (steps.size() - corrections), allDigits);
            if (i == 1 && scaling.converter() != null) {
                wanted.add(ops.get(Op.CONVERTER));
            } else if (i == converted && i < steps.size() - corrections) {
                addOps(wanted, scaling);
            }
            wanted.add(box);
        }
        addOps(wanted, scaling);
        wanted.add(ops.get(Op.SHOWN));
        if (!wanted.equals(getChildren())) {
            getChildren().setAll(wanted);
        }
        sums.get(Op.CONVERTER).setText(converter(scaling.throughConverter().orElse(null)));
        sums.get(Op.LAW).setText(scaling.conversion().words().split(",", 2)[0]);
        sums.get(Op.SHOWN).setText(scaling.unit().isEmpty() ? Messages.of("bench.scale.no-unit") : scaling.unit());
    }

    /** What stands nowhere yet: a converter that there is none of, a law that changes nothing. */
    private void addOps(List<Node> wanted, Scaling scaling) {
        for (Op op : new Op[] {Op.CONVERTER, Op.LAW}) {
            if (!wanted.contains(ops.get(op))) {
                wanted.add(ops.get(op));
            }
        }
    }

    private static String converter(Converter converter) {
        if (converter == null) {
            return "raw";
        }
        int bits = converter.bits();
        double by = converter.divisor().of(bits);
        return "\u00d7 " + Digits.of(converter.referenceVolts()) + " V \u00f7 " + Digits.of(by)
                + (converter.divisor() == Divisor.HIGHEST_CODE ? Messages.of("bench.scale.full-scale-code") : "");
    }

    private static String exact(double value) {
        return Double.isFinite(value) ? Digits.box(value).replace('-', '\u2212') : "\u2014";
    }

    private void fill(Box box, Scaling.Step step, int correction, boolean allDigits) {
        box.name.setText(step.name());
        box.result.setText(allDigits ? exact(step.result()) : Digits.of(step.result()));
        box.unit.setText(step.unit());
        box.sum.setText(step.sum());
        box.away.setVisible(correction >= 0);
        box.away.setOnAction(event -> dropCorrection.accept(correction));
    }
}
