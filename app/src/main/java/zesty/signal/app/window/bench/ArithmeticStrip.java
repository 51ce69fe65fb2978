package zesty.signal.app.window.bench;

import java.util.List;
import java.util.function.IntConsumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Scaling;

/** The strip of arithmetic: a box a step, with this moment's numbers running through it. */
final class ArithmeticStrip extends FlowPane {
    private final IntConsumer dropCorrection;

    /** @param dropCorrection takes a correction out, by its place among them */
    ArithmeticStrip(IntConsumer dropCorrection) {
        super(8, 8);
        this.dropCorrection = dropCorrection;
    }

    /** @param allDigits whether every digit is shown, or as many as mean something */
    void show(Scaling scaling, double raw, boolean allDigits) {
        List<Scaling.Step> steps = scaling.explain(raw);
        getChildren().clear();
        for (int i = 0; i < steps.size(); i++) {
            if (i > 0) {
                Label arrow = new Label("›");
                arrow.getStyleClass().add("arrow");
                getChildren().add(arrow);
            }
            int correction = i - (steps.size() - scaling.corrections().size());
            getChildren().add(box(steps.get(i), correction, allDigits));
        }
    }

    private static String exact(double value) {
        return Double.isFinite(value) ? Digits.exact(value).replace('-', '\u2212') : "—";
    }

    private VBox box(Scaling.Step step, int correction, boolean allDigits) {
        Label result = new Label(allDigits ? exact(step.result()) : Digits.of(step.result()));
        result.getStyleClass().add("sum-result");
        HBox number = new HBox(5, result, Bench.small(step.unit()));
        number.setAlignment(Pos.BASELINE_LEFT);
        HBox top = new HBox(8, Bench.small(step.name()));
        top.setAlignment(Pos.CENTER_LEFT);
        if (correction >= 0) {
            Button away = new Button("×");
            away.getStyleClass().add("tile-off");
            away.setId("correction-away");
            away.setTooltip(new Tooltip("take this correction out; U puts it back"));
            away.setOnAction(event -> dropCorrection.accept(correction));
            top.getChildren().add(away);
        }
        VBox box = new VBox(2, top, number, Bench.mono(step.sum()));
        box.getStyleClass().add("sum");
        box.setMinWidth(130);
        return box;
    }
}
