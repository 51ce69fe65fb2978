package zesty.signal.benchmarks;

import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;

/** The least window that the toolkit can open: what a start cannot go below on a machine. Ends once it was painted. */
public final class EmptyWindow extends Application {
    @Override
    public void start(Stage stage) {
        stage.setScene(new Scene(new StackPane(new Label("Nothing")), 1280, 800));
        stage.show();
        Platform.runLater(() -> Platform.runLater(() -> {
            System.out.println("painted");
            Platform.exit();
        }));
    }
}
