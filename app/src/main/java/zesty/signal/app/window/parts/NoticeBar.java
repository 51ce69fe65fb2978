package zesty.signal.app.window.parts;

import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.util.Duration;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Notice;

/** One line above the capture bar: what just happened, with its undo; or what is under way, with progress and cancel. */
public final class NoticeBar extends HBox {
    private final Label text = new Label();
    private final Button undo = new Button("Undo");
    private final Button close = new Button("Close");
    private final Label busy = new Label();
    private final ProgressBar progress = new ProgressBar();
    private final Button cancel = new Button("Cancel");
    private final PauseTransition fade = new PauseTransition(Duration.seconds(9));

    public NoticeBar(Desk desk) {
        getStyleClass().add("notice");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(10);
        text.setId("notice");
        text.setWrapText(true);
        HBox.setHgrow(text, Priority.ALWAYS);
        text.setMaxWidth(Double.MAX_VALUE);
        undo.setId("undo");
        undo.setTooltip(new Tooltip("take it back (U)"));
        undo.setOnAction(event -> {
            Notice notice = desk.notice().get();
            desk.notice().set(null);
            notice.undo().run();
        });
        close.setOnAction(event -> desk.notice().set(null));
        busy.setId("busy");
        cancel.setId("cancel-work");
        cancel.setOnAction(event -> desk.works().cancel());
        progress.progressProperty().bind(desk.works().progress());
        busy.textProperty().bind(desk.works().busy());
        getChildren().addAll(busy, progress, cancel, text, undo, close);
        for (var node : new javafx.scene.Node[] {busy, progress, cancel}) {
            node.visibleProperty().bind(desk.works().busy().isNotEmpty());
            node.managedProperty().bind(node.visibleProperty());
        }
        cancel.disableProperty().bind(desk.works().cancellable().not());
        desk.notice().addListener((p, was, is) -> show(is));
        desk.works().busy().addListener((p, was, is) -> settle(desk.notice().get()));
        fade.setOnFinished(event -> desk.notice().set(null));
        show(null);
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
