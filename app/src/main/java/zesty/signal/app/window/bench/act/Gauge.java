package zesty.signal.app.window.bench.act;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** How far an output is open: a trough that fills, with its number beside it. */
final class Gauge extends HBox {
    private final Pane trough = new Pane();
    private final Region level = new Region();
    private final Label number = new Label();
    private double share;

    Gauge() {
        super(8);
        setAlignment(Pos.CENTER_LEFT);
        trough.getStyleClass().add("trough");
        level.getStyleClass().add("trough-level");
        trough.getChildren().add(level);
        number.getStyleClass().add("mono");
        number.setMinWidth(48);
        HBox.setHgrow(trough, Priority.ALWAYS);
        getChildren().addAll(trough, number);
        trough.widthProperty().addListener((property, was, is) -> fill());
        trough.heightProperty().addListener((property, was, is) -> fill());
    }

    private void fill() {
        level.resizeRelocate(0, 0, share * trough.getWidth(), trough.getHeight());
    }

    /** @param value NaN for none */
    void show(double value, double low, double high, boolean on) {
        share = Double.isNaN(value) ? 0 : Math.max(0, Math.min(1, (value - low) / (high - low)));
        level.setVisible(on || share > 0);
        number.setText(Double.isNaN(value) ? "\u2014" : Digits.about(value, 3));
        setAccessibleText(Messages.of("bench.act.at", number.getText()));
        fill();
    }
}
