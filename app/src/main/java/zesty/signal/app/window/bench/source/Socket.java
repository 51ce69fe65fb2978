package zesty.signal.app.window.bench.source;

import javafx.beans.binding.Bindings;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;

/** Something that bytes can come from: its name and a word on it; its settings only while it is the one in hand. */
final class Socket extends VBox {
    private static final PseudoClass OPEN = PseudoClass.getPseudoClass("open");

    private final Label about = Bench.small("");
    private final VBox body = new VBox(6);
    private final Button head = new Button();

    /** @param at what stands at the right of its name */
    Socket(String id, String name, String words, Node... at) {
        super(6);
        getStyleClass().add("socket");
        Label title = new Label(name);
        title.getStyleClass().add("socket-name");
        title.setMinWidth(Region.USE_PREF_SIZE);
        about.setText(words);
        about.setMinWidth(0);
        about.getStyleClass().add("socket-about");
        HBox.setHgrow(about, Priority.ALWAYS);
        about.setMaxWidth(Double.MAX_VALUE);
        HBox line = new HBox(8, title, about);
        line.getChildren().addAll(at);
        line.setAlignment(Pos.CENTER_LEFT);
        head.setId(id);
        head.getStyleClass().setAll("socket-head");
        head.setGraphic(line);
        head.accessibleTextProperty().bind(Bindings.concat(title.textProperty(), " ", about.textProperty()));
        head.setMaxWidth(Double.MAX_VALUE);
        line.prefWidthProperty().bind(head.widthProperty().subtract(4));
        body.managedProperty().bind(body.visibleProperty());
        getChildren().addAll(head, body);
        open(false);
    }

    Socket holding(Node... settings) {
        body.getChildren().setAll(settings);
        return this;
    }

    void onPressed(Runnable action) {
        head.setOnAction(event -> action.run());
    }

    void say(String words) {
        about.setText(words);
    }

    boolean isOpen() {
        return body.isVisible();
    }

    void open(boolean on) {
        body.setVisible(on && !body.getChildren().isEmpty());
        pseudoClassStateChanged(OPEN, on);
    }
}
