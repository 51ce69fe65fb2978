package zesty.signal.app.window.parts;

import javafx.scene.Node;
import javafx.scene.layout.StackPane;

/**
 * Holds the place of a part that is not seen at first: it joins the window when it is first made visible, and is not styled and laid out
 * with every start before. JavaFX thread.
 */
public final class WhenSeen extends StackPane {
    public WhenSeen(Node part) {
        visibleProperty().bind(part.visibleProperty());
        managedProperty().bind(part.visibleProperty());
        if (part.isVisible()) {
            getChildren().add(part);
        } else {
            part.visibleProperty().addListener((p, was, is) -> {
                if (is && getChildren().isEmpty()) {
                    getChildren().add(part);
                }
            });
        }
    }
}
