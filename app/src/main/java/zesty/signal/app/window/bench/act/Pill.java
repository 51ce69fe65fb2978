package zesty.signal.app.window.bench.act;

import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import zesty.signal.app.window.drawing.Tip;

/** A part of a sentence that is pressed to be written anew, in its place. */
final class Pill extends StackPane {
    private final Button shown = new Button();
    private final Consumer<String> adopt;
    private final String value;

    /**
     * @param text as it stands in the sentence
     * @param value as it is written, without its unit
     * @param adopt takes what was written
     */
    Pill(String id, String text, String value, String tip, Consumer<String> adopt) {
        this.adopt = adopt;
        this.value = value;
        shown.setId(id);
        shown.setText(text);
        shown.getStyleClass().setAll("button", "pill");
        shown.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(shown, tip);
        shown.setOnAction(event -> write());
        getChildren().add(shown);
    }

    private void write() {
        TextField field = new TextField(value);
        field.setId(shown.getId() + "-box");
        field.setPrefColumnCount(Math.max(5, Math.min(18, value.length() + 2)));
        boolean[] done = {false};
        field.setOnAction(event -> {
            done[0] = true;
            getChildren().setAll(shown);
            adopt.accept(field.getText().strip());
        });
        field.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                done[0] = true;
                getChildren().setAll(shown);
                shown.requestFocus();
                event.consume();
            }
        });
        field.focusedProperty().addListener((property, was, is) -> {
            if (was && !is && !done[0]) {
                done[0] = true;
                getChildren().setAll(shown);
                if (!field.getText().strip().equals(value)) {
                    adopt.accept(field.getText().strip());
                }
            }
        });
        getChildren().setAll(field);
        field.requestFocus();
        field.selectAll();
    }
}
