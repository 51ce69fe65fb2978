package zesty.signal.app.window.parts;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.core.text.Messages;

/** What stands in the place of the shelf while it is looked at: a title, a way back, and its content. */
class WidePage extends VBox {
    private Runnable close = () -> {};

    WidePage(String id, String title) {
        super(10);
        setId(id);
        getStyleClass().add("wide-page");
        Label words = new Label(title);
        words.getStyleClass().add("day");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button back = new Button(Messages.of("parts.back-to-the-takes"));
        back.setId("close-wide");
        back.getStyleClass().setAll("small-button");
        back.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(back, Messages.of("parts.shows-the-takes-again"));
        back.setOnAction(event -> close.run());
        HBox head = new HBox(8, words, space, back);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().add(head);
        setMinWidth(0);
    }

    /** @param content takes what room there is */
    final void fill(Node content) {
        VBox.setVgrow(content, Priority.ALWAYS);
        getChildren().add(content);
    }

    final void onClose(Runnable action) {
        close = action;
    }

    static Label hint(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("hint");
        label.setWrapText(true);
        return label;
    }
}
