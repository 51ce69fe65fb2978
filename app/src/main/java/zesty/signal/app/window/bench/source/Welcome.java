package zesty.signal.app.window.bench.source;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.SVGPath;
import javafx.scene.text.TextAlignment;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;

/** What there is to see while nothing is plugged in: what to do, in three pictures. */
final class Welcome extends VBox {
    private static final String PLUG =
            "M8 40 L34 40 M34 26 L34 54 L54 54 Q66 54 66 40 Q66 26 54 26 Z M54 33 L74 33 M54 47 L74 47 M92 24 L112 24 L112 56 L92 56 Z";
    private static final String LINES =
            "M14 20 L52 20 M14 34 L44 34 M14 48 L56 48 M14 62 L48 62 M68 41 L80 41 M76 36 L82 41 L76 46"
                    + " M92 50 L98 50 L102 22 L107 60 L111 44 L118 44";
    private static final String ANSWER =
            "M60 40 m-26 0 a26 26 0 1 0 52 0 a26 26 0 1 0 -52 0 M60 14 L60 66 M34 40 L86 40 M42 22 L78 58 M78 22 L42 58";

    Welcome(Workspace workspace) {
        super(22);
        setId("welcome");
        setAlignment(Pos.CENTER);
        Label title = new Label(Messages.of("bench.source.nothing-is-plugged-in-yet"));
        title.getStyleClass().add("welcome-title");
        HBox steps = new HBox(
                18,
                step(PLUG, "1", Messages.of("bench.source.plug-a-board-in-and-press-its-port")),
                step(LINES, "2", Messages.of("bench.source.its-lines-are-understood-by")),
                step(ANSWER, "3", Messages.of("bench.source.press-read-5-to-get-the-answer-out")));
        steps.setAlignment(Pos.CENTER);
        Button dinghy = new Button(Messages.of("bench.source.no-board-at-hand-use-the-simulated"));
        dinghy.setId("take-dinghy");
        dinghy.getStyleClass().setAll("plug");
        dinghy.setOnAction(event -> workspace.live().connect("sim:deck"));
        Button hour = new Button(Messages.of("bench.source.the-first-hour-in-eight-steps-f3"));
        hour.setId("take-first-hour");
        hour.getStyleClass().setAll("small-button");
        hour.setOnAction(event -> {
            workspace
                    .view()
                    .firstHour()
                    .set(Math.max(0, workspace.view().firstHour().get()));
            workspace.view().guided().set(true);
        });
        getChildren().addAll(title, steps, dinghy, hour);
        managedProperty().bind(visibleProperty());
    }

    private static Node step(String drawing, String number, String words) {
        SVGPath path = new SVGPath();
        path.setContent(drawing);
        path.getStyleClass().add("welcome-drawing");
        StackPane picture = new StackPane(path);
        picture.getStyleClass().add("welcome-picture");
        picture.setMinHeight(110);
        Label text = new Label(number + "   " + words);
        text.setWrapText(true);
        text.setTextAlignment(TextAlignment.LEFT);
        text.setMinHeight(Region.USE_PREF_SIZE);
        VBox box = new VBox(10, picture, text);
        box.setPrefWidth(230);
        box.setMinWidth(0);
        HBox.setHgrow(box, Priority.SOMETIMES);
        return box;
    }
}
