package zesty.signal.app.window.parts;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;

/** What to take care of with the sensors of this rig, one at a time, until it is acknowledged. */
public final class CautionBar extends HBox {
    private final Label words = new Label();
    private Caution shown;

    public CautionBar(Workspace workspace) {
        super(12);
        setId("caution");
        getStyleClass().add("caution");
        setAlignment(Pos.CENTER_LEFT);
        words.setId("caution-words");
        words.setWrapText(true);
        words.setMinHeight(Region.USE_PREF_SIZE);
        words.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(words, Priority.ALWAYS);
        Button read = new Button(Messages.of("parts.i-have-read-this"));
        read.setId("acknowledge");
        read.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(read, Messages.of("parts.it-is-saved-with-the-rig-that-this"));
        read.setOnAction(event -> {
            Caution caution = shown;
            workspace.change(rig -> rig.acknowledging(caution));
        });
        getChildren().addAll(words, read);
        managedProperty().bind(visibleProperty());
        setVisible(false);
    }

    /**
     * @param live the rig of what runs
     * @param stored whether a stored take is open over it, with which nobody is on a board
     */
    public void show(Rig live, boolean stored) {
        List<Caution> due = stored ? List.of() : live.cautions();
        shown = due.isEmpty() ? null : due.get(0);
        setVisible(shown != null);
        if (shown != null) {
            boolean waits = live.channels().stream().anyMatch(live::waits);
            words.setText(shown.words() + (waits ? Messages.of("parts.nothing-is-read-from-it-before-you") : ""));
        }
    }
}
