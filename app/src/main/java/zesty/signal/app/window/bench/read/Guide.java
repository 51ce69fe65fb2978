package zesty.signal.app.window.bench.read;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.workspace.Workspace;

/** Leads through what a reader needs to be told, below its picture: buttons in a row, and what to do or what came of it. */
abstract class Guide extends VBox {
    final Workspace workspace;
    final Label says = Bench.small("");

    Guide(Workspace workspace, String id) {
        super(4);
        this.workspace = workspace;
        setId(id);
        says.setId("guide-says");
        says.setWrapText(true);
        says.setMaxWidth(Double.MAX_VALUE);
        says.setMinHeight(USE_PREF_SIZE);
        HBox.setHgrow(says, Priority.ALWAYS);
    }

    /** The buttons, and beside them what is said. */
    final void row(Node... buttons) {
        HBox line = new HBox(8, buttons);
        line.getChildren().add(says);
        line.setAlignment(Pos.CENTER_LEFT);
        getChildren().add(line);
    }
}
