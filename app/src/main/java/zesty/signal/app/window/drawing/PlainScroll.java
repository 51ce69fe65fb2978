package zesty.signal.app.window.drawing;

import javafx.scene.Node;
import javafx.scene.control.ScrollPane;

/**
 * Scrolls its content up and down, without a frame of its own. The toolkit keeps a painted copy of what a scroller holds and, where
 * something moves in it, paints that copy and then the window in each frame; here it is painted once. JavaFX thread.
 */
public class PlainScroll extends ScrollPane {
    public PlainScroll() {
        this(null);
    }

    public PlainScroll(Node content) {
        super(content);
        getStyleClass().add("plain-scroll");
        setFitToWidth(true);
        setHbarPolicy(ScrollBarPolicy.NEVER);
        skinProperty().addListener((p, was, is) -> lookupAll(".viewport").stream()
                .filter(node -> node.getParent() == this)
                .forEach(viewport -> viewport.setCache(false)));
    }
}
