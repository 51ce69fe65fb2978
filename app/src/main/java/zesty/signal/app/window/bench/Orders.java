package zesty.signal.app.window.bench;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.engine.LineEnding;
import zesty.signal.engine.SentLine;

/** Text to the board: a line to send, the rig's buttons, and what the board answered. */
final class Orders extends VBox {
    private static final int SHOWN = 2;

    private final Desk desk;
    private final TextField line = new TextField();
    private final ComboBox<LineEnding> ending = new ComboBox<>();
    private final FlowPane buttons = new FlowPane(6, 6);
    private final Label log = Bench.mono("");
    private List<String> shown = List.of();

    Orders(Desk desk) {
        super(6);
        this.desk = desk;
        line.setId("order");
        line.setPromptText("a line to the board, such as heat 40");
        HBox.setHgrow(line, Priority.ALWAYS);
        line.setOnAction(event -> send());
        ending.getItems().setAll(LineEnding.values());
        ending.setValue(LineEnding.NEW_LINE);
        ending.setTooltip(new Tooltip("what is sent behind the line"));
        ending.setConverter(new javafx.util.StringConverter<>() {
            @Override
            public String toString(LineEnding value) {
                return value == null ? "" : "+ " + value.words();
            }

            @Override
            public LineEnding fromString(String text) {
                return LineEnding.NEW_LINE;
            }
        });
        Button send = new Button("Send");
        send.setId("send");
        send.setOnAction(event -> send());
        Button keep = new Button("Keep");
        keep.setTooltip(new Tooltip("keep this line as a button of the rig"));
        keep.setOnAction(event -> {
            if (!line.getText().isBlank()) {
                desk.wire().keepOrder(line.getText().strip(), true);
            }
        });
        HBox bar = new HBox(6, line, ending, send, keep);
        bar.setAlignment(Pos.CENTER_LEFT);
        log.setId("sent");
        log.setWrapText(true);
        buttons.managedProperty().bind(javafx.beans.binding.Bindings.isNotEmpty(buttons.getChildren()));
        log.managedProperty().bind(log.textProperty().isNotEmpty());
        getChildren().addAll(bar, buttons, log);
    }

    private void send() {
        if (!line.getText().isBlank()) {
            desk.wire().send(line.getText().strip(), ending.getValue());
            line.selectAll();
        }
    }

    void show() {
        List<String> orders = desk.wire().setup().orders();
        if (!orders.equals(shown)) {
            shown = orders;
            buttons.getChildren().clear();
            for (String order : orders) {
                Button button = new Button(order);
                button.getStyleClass().add("plug");
                button.setOnAction(event -> desk.wire().send(order, ending.getValue()));
                Button away = new Button("×");
                away.getStyleClass().add("small-button");
                away.setTooltip(new Tooltip("take this button away; U puts it back"));
                away.setOnAction(event -> desk.wire().keepOrder(order, false));
                buttons.getChildren().add(new HBox(2, button, away));
            }
        }
        List<SentLine> sent = desk.wire().sent();
        StringBuilder text = new StringBuilder();
        for (SentLine each : sent.subList(Math.max(0, sent.size() - SHOWN), sent.size())) {
            text.append(text.length() == 0 ? "" : "\n")
                    .append("sent ")
                    .append(each.text())
                    .append(
                            each.answer().isEmpty()
                                    ? "   no answer yet"
                                    : "   answered " + each.answer().strip());
        }
        log.setText(text.toString());
    }
}
