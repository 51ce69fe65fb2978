package zesty.signal.app.window;

import java.nio.file.Path;
import javafx.scene.input.TransferMode;
import zesty.signal.app.window.workspace.Workspace;

/** Files from elsewhere: a take or a rig is opened, anything else is looked at to be imported. JavaFX thread. */
final class Dropping {
    private final Workspace workspace;
    private final MainView view;

    Dropping(Workspace workspace, MainView view) {
        this.workspace = workspace;
        this.view = view;
    }

    /** Takes what is dropped on the window: one file at a time. */
    void listen() {
        view.setOnDragOver(event -> {
            if (event.getDragboard().hasFiles()) {
                event.acceptTransferModes(TransferMode.COPY);
            }
            event.consume();
        });
        view.setOnDragDropped(event -> {
            boolean some = event.getDragboard().hasFiles();
            if (some) {
                take(event.getDragboard().getFiles().get(0).toPath());
            }
            event.setDropCompleted(some);
            event.consume();
        });
    }

    /** Takes in one file. */
    void take(Path file) {
        if (file.toString().endsWith(".zest")) {
            workspace.open(file);
        } else if (file.toString().endsWith(".zrig")) {
            workspace.rigs().use(file);
        } else {
            workspace.view().takesOpen().set(true);
            view.logbook().importFile(file);
        }
    }
}
