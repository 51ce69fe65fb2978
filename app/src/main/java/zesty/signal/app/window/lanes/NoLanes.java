package zesty.signal.app.window.lanes;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
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
    }

    /** Each empty state has its own words and one thing to do. */
    void say(Snapshot snapshot) {
        if (!snapshot.channels().isEmpty()) {
            say(
                    Messages.of("lanes.all-lanes-are-hidden"),
                    Messages.of("lanes.show-them-shift-h"),
                    workspace::showAllLanes);
            return;
        }
        String reason = snapshot.health().reason();
        switch (snapshot.health().state()) {
            case IDLE ->
                say(Messages.of("lanes.no-board-is-connected"), Messages.of("lanes.pick-a-source-1"), this::pickSource);
            case LOST, REFUSED ->
                say(
                        Messages.of("lanes.no-signal", reason),
                        Messages.of("lanes.look-at-the-source-1"),
                        this::pickSource);
            case OVER ->
                say(
                        Messages.of("lanes.the-source-has-ended", reason),
                        Messages.of("lanes.pick-another-source-1"),
                        this::pickSource);
            default ->
                say(
                        Messages.of(
                                "lanes.waiting-for-the-board",
                                (reason.isEmpty() ? Messages.of("lanes.opening-the-link") : reason)),
                        Messages.of("lanes.look-at-its-bytes-1"),
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
