package zesty.signal.app.window.parts;

import javafx.geometry.Pos;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Tone;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.RecordingSnapshot;

/** The phase that a recording is in, large, with the seconds that are left of it and what comes next; a tone at each change. */
final class ProtocolRow extends HBox {
    private final Workspace workspace;
    private final Label left = new Label();
    private final Label name = new Label();
    private final Label next = new Label();
    private final ProgressBar share = new ProgressBar(0);
    private final CheckBox tone = new CheckBox(Messages.of("parts.tone"));
    private int phase = -1;

    ProtocolRow(Workspace workspace) {
        super(16);
        HelpPlace.mark(this, "protocol");
        this.workspace = workspace;
        setId("protocol");
        getStyleClass().add("protocol");
        setAlignment(Pos.CENTER_LEFT);
        left.setId("protocol-left");
        left.getStyleClass().add("protocol-left");
        left.setMinWidth(Region.USE_PREF_SIZE);
        name.setId("protocol-phase");
        name.getStyleClass().add("protocol-phase");
        name.setMinWidth(Region.USE_PREF_SIZE);
        next.getStyleClass().add("hint");
        share.setMaxWidth(Double.MAX_VALUE);
        VBox middle = new VBox(6, next, share);
        middle.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(middle, Priority.ALWAYS);
        tone.setId("protocol-tone");
        tone.setSelected(true);
        tone.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(tone, Messages.of("parts.sounds-when-a-phase-begins-the"));
        getChildren().addAll(left, name, middle, tone);
        managedProperty().bind(visibleProperty());
        setVisible(false);
    }

    void show(RecordingSnapshot recording) {
        Protocol protocol = workspace.recordings().protocol();
        boolean runs = recording.running() && !protocol.isNone();
        setVisible(runs);
        if (!runs) {
            phase = -1;
            return;
        }
        int now = Math.min(protocol.at(recording.seconds()), protocol.phases().size() - 1);
        Protocol.Phase is = protocol.phases().get(now);
        if (now != phase && tone.isSelected()) {
            Tone.play(workspace.tasks(), now == 0 ? Tone.LOW : Tone.HIGH);
        }
        phase = now;
        left.setText(String.format("%2d s", (long) Math.ceil(is.endSeconds() - recording.seconds() - 1e-6)));
        name.setText(is.name());
        next.setText(Messages.of(
                "parts.of-3",
                (now + 1),
                protocol.phases().size(),
                (now + 1 < protocol.phases().size()
                        ? Messages.of(
                                "parts.then", protocol.phases().get(now + 1).name())
                        : Messages.of("parts.the-last"))));
        share.setProgress(Math.min(1, recording.seconds() / protocol.seconds()));
    }
}
