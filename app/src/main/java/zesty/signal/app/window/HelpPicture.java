package zesty.signal.app.window;

import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.shape.SVGPath;
import zesty.signal.app.help.HelpDrawing;

/** The drawing beside a topic of help. JavaFX thread. */
final class HelpPicture {
    private HelpPicture() {}

    static Optional<Node> of(String topic) {
        return HelpDrawing.of(topic).map(drawing -> {
            Pane field = new Pane(path(drawing.pale(), "help-pale"), path(drawing.strong(), "help-strong"));
            field.getStyleClass().add("help-drawing");
            field.setPrefSize(HelpDrawing.WIDTH, HelpDrawing.HEIGHT);
            field.setMaxSize(HelpDrawing.WIDTH, HelpDrawing.HEIGHT);
            return field;
        });
    }

    private static SVGPath path(String content, String style) {
        SVGPath path = new SVGPath();
        path.setContent(content);
        path.getStyleClass().add(style);
        return path;
    }
}
