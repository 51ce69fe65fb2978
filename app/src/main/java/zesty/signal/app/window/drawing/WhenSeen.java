package zesty.signal.app.window.drawing;

import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;

/**
 * Holds the place of a part that is not seen at first: it joins the window when it is first made visible, and is not styled and laid out
 * with every start before. JavaFX thread.
 */
public final class WhenSeen extends StackPane {
    /** Puts a part into a parent as its last, when it is first made visible; it has its styles before it is measured. */
    public static void in(Pane parent, Node part) {
        part.visibleProperty().addListener((p, was, is) -> {
            if (is && part.getParent() == null) {
                parent.getChildren().add(part);
                part.applyCss();
            }
        });
    }

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
