package zesty.signal.app.window;

import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TextArea;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;

/** What a problem report would hold, every word of it, before it is saved: nothing is sent anywhere. JavaFX thread. */
final class ReportSheet extends StackPane {
    private static final double SHEET = 900;

    private final Workspace workspace;
    private final ListView<String> names = new ListView<>();
    private final TextArea text = new TextArea();
    private final CheckBox stream = new CheckBox(Messages.of("window.the-last-30-s-of-the-stream-too"));
    private final Button save = new Button(Messages.of("window.save-it"));
    private Map<String, String> parts = Map.of();

    ReportSheet(Workspace workspace, Runnable close) {
        this.workspace = workspace;
        getStyleClass().add("command-shade");
        setId("problem-report");
        Label title = new Label(Messages.of("window.problem-report"));
        title.getStyleClass().add("bench-title");
        Label about = new Label(Messages.of("window.all-that-it-holds-is-here-it-is"));
        about.getStyleClass().add("hint");
        about.setWrapText(true);
        about.setMinHeight(Region.USE_PREF_SIZE);
        names.setId("report-parts");
        names.setPrefWidth(190);
        names.setMinWidth(190);
        names.setAccessibleText(Messages.of("window.parts-of-the-report"));
        text.setId("report-text");
        text.setEditable(false);
        text.setAccessibleText(Messages.of("window.what-this-part-says"));
        HBox.setHgrow(text, Priority.ALWAYS);
        names.getSelectionModel()
                .selectedItemProperty()
                .addListener((p, was, is) -> text.setText(parts.getOrDefault(is, "")));
        HBox both = new HBox(12, names, text);
        VBox.setVgrow(both, Priority.ALWAYS);
        stream.setId("report-stream");
        stream.selectedProperty().addListener((p, was, is) -> gather());
        save.setId("report-save");
        save.getStyleClass().setAll("plug");
        save.setDefaultButton(true);
        save.setOnAction(event -> {
            workspace.saveProblemReport(parts);
            close.run();
        });
        Button leave = new Button(Messages.of("window.close"));
        leave.setId("report-close");
        leave.getStyleClass().setAll("small-button");
        leave.setOnAction(event -> close.run());
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox foot = new HBox(12, stream, space, leave, save);
        foot.setAlignment(Pos.CENTER_LEFT);
        VBox sheet = new VBox(10, title, about, both, foot);
        sheet.getStyleClass().add("command-sheet");
        sheet.setMaxWidth(SHEET);
        sheet.setOnMouseClicked(event -> event.consume());
        getChildren().add(sheet);
        setOnMouseClicked(event -> close.run());
        gather();
    }

    private void gather() {
        save.setDisable(true);
        workspace.gatherProblemReport(stream.isSelected(), found -> {
            parts = found;
            String chosen = names.getSelectionModel().getSelectedItem();
            names.getItems().setAll(found.keySet());
            names.getSelectionModel()
                    .select(
                            chosen != null && found.containsKey(chosen)
                                    ? chosen
                                    : names.getItems().get(0));
            text.setText(found.get(names.getSelectionModel().getSelectedItem()));
            save.setDisable(false);
        });
    }
}
