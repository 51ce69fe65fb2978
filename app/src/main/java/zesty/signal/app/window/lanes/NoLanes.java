package zesty.signal.app.window.lanes;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.engine.Snapshot;

/** What stands in the place of the lanes while there are none: why, and one thing to do. */
final class NoLanes extends VBox {
    private final Workspace workspace;
    private final Label words = new Label();
    private final Button action = new Button();

    NoLanes(Workspace workspace) {
        this.workspace = workspace;
        getStyleClass().add("empty");
        words.setWrapText(true);
        words.setId("empty");
        action.getStyleClass().setAll("plug");
        action.setId("empty-action");
        action.managedProperty().bind(action.visibleProperty());
        getChildren().addAll(words, action);
        setMaxSize(Double.MAX_VALUE, Double.MAX_VALUE);
        VBox.setVgrow(this, Priority.ALWAYS);
    }

    /** Each empty state has its own words and one thing to do. */
    void say(Snapshot snapshot) {
        if (!snapshot.channels().isEmpty()) {
            say("All lanes are hidden.", "Show them (Shift+H)", workspace::showAllLanes);
            return;
        }
        String reason = snapshot.health().reason();
        switch (snapshot.health().state()) {
            case IDLE -> say("No board is connected.", "Pick a source (1)", this::pickSource);
            case LOST, REFUSED -> say("No signal: " + reason, "Look at the source (1)", this::pickSource);
            case OVER -> say("The source has ended: " + reason, "Pick another source (1)", this::pickSource);
            default ->
                say(
                        "Waiting for the board: " + (reason.isEmpty() ? "opening the link" : reason),
                        "Look at its bytes (1)",
                        this::pickSource);
        }
    }

    private void say(String text, String button, Runnable what) {
        words.setText(text);
        action.setText(button);
        action.setOnAction(event -> what.run());
    }

    private void pickSource() {
        workspace.view().stop().set(Stop.SOURCE);
    }
}
