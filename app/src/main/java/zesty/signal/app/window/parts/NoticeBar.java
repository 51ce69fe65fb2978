package zesty.signal.app.window.parts;

import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.util.Duration;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Notice;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;

/** One line above the capture bar: what just happened, with its undo; or what is under way, with progress and cancel. */
public final class NoticeBar extends HBox {
    private final Label text = new Label();
    private final Button undo = new Button(Messages.of("parts.undo"));
    private final Button close = new Button(Messages.of("parts.close"));
    private final Label busy = new Label();
    private final ProgressBar progress = new ProgressBar();
    private final Button cancel = new Button(Messages.of("parts.cancel"));
    private final PauseTransition fade = new PauseTransition(Duration.seconds(9));

    public NoticeBar(Workspace workspace) {
        getStyleClass().add("notice");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(10);
        text.setId("notice");
        text.setWrapText(true);
        HBox.setHgrow(text, Priority.ALWAYS);
        text.setMaxWidth(Double.MAX_VALUE);
        undo.setId("undo");
        Tip.on(undo, Messages.of("parts.take-it-back-u"));
        undo.setOnAction(event -> {
            Notice notice = workspace.notice().get();
            workspace.notice().set(null);
            notice.undo().run();
        });
        close.setOnAction(event -> workspace.notice().set(null));
        busy.setId("busy");
        cancel.setId("cancel-work");
        cancel.setOnAction(event -> workspace.tasks().cancel());
        progress.progressProperty().bind(workspace.tasks().progress());
        busy.textProperty().bind(workspace.tasks().busy());
        getChildren().addAll(busy, progress, cancel, text, undo, close);
        for (var node : new javafx.scene.Node[] {busy, progress, cancel}) {
            node.visibleProperty().bind(workspace.tasks().busy().isNotEmpty());
            node.managedProperty().bind(node.visibleProperty());
        }
        cancel.disableProperty().bind(workspace.tasks().cancellable().not());
        workspace.notice().addListener((p, was, is) -> show(is));
        workspace
                .tasks()
                .busy()
                .addListener((p, was, is) -> settle(workspace.notice().get()));
        fade.setOnFinished(event -> workspace.notice().set(null));
        // What was said before it was there is shown, too.
        show(workspace.notice().get());
    }

    private void show(Notice notice) {
        fade.stop();
        text.setText(notice == null ? "" : notice.text());
        pseudoClassStateChanged(javafx.css.PseudoClass.getPseudoClass("trouble"), notice != null && notice.trouble());
        undo.setVisible(notice != null && notice.undo() != null);
        undo.setManaged(undo.isVisible());
        close.setVisible(notice != null);
        close.setManaged(notice != null);
        settle(notice);
        if (notice != null && !notice.trouble()) {
            fade.playFromStart();
        }
    }

    private void settle(Notice notice) {
        boolean needed = notice != null || !busy.getText().isEmpty();
        setVisible(needed);
        setManaged(needed);
    }
}
