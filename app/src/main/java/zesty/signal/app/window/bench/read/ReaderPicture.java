package zesty.signal.app.window.bench.read;

import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.hits.Hits;
import zesty.signal.core.read.joint.Joint;
import zesty.signal.core.read.motion.Motion;
import zesty.signal.core.read.muscle.Muscle;
import zesty.signal.core.read.orders.Orders;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.read.response.ChangeAfter;
import zesty.signal.core.read.step.StepResponse;
import zesty.signal.core.read.supply.Supply;
import zesty.signal.core.read.tone.Tone;
import zesty.signal.core.read.vibration.Vibration;
import zesty.signal.core.read.wind.Wind;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** The picture a kind of reader is looked at in: its own where it earns one, else its traces and events. */
abstract class ReaderPicture extends VBox {
    final Workspace workspace;

    ReaderPicture(Workspace workspace) {
        super(6);
        this.workspace = workspace;
    }

    static ReaderPicture of(String kind, Workspace workspace) {
        return switch (kind) {
            case Pulse.NAME -> new PulsePicture(workspace);
            case Hits.NAME, Muscle.NAME -> new StrikesPicture(workspace, kind);
            case Motion.NAME -> new MotionPicture(workspace);
            case StepResponse.NAME -> new StepPicture(workspace);
            case Vibration.NAME -> new SpectrumPicture(workspace, kind);
            case Joint.NAME -> new TracePicture(workspace, "least_deg", "most_deg");
            case Orders.NAME -> new OrdersPicture(workspace);
            case Tone.NAME -> new SoundPicture(workspace);
            case Wind.NAME -> new WindPicture(workspace);
            case Supply.NAME -> new SupplyPicture(workspace);
            case ChangeAfter.NAME -> new RepeatsPicture(workspace);
            default -> new TracePicture(workspace);
        };
    }

    /** @param reader null where the channel has none */
    abstract void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour);

    /** @return what times are shown against: now on a live trail, the beginning of a take */
    final double zero(Snapshot snapshot) {
        return workspace.shown().zero(snapshot);
    }

    /** @return what is said over a picture, in as many lines as it needs */
    static Label words(String text) {
        Label label = Bench.small(text);
        label.setWrapText(true);
        label.setMinHeight(USE_PREF_SIZE);
        return label;
    }

    /** Two pictures beside each other, each with as much room as the other; what grows in them is the plot. */
    final void sideBySide(VBox left, Plot leftPlot, VBox right, Plot rightPlot) {
        for (VBox box : new VBox[] {left, right}) {
            box.setMinWidth(0);
            box.setPrefWidth(300);
            HBox.setHgrow(box, Priority.ALWAYS);
        }
        VBox.setVgrow(leftPlot, Priority.ALWAYS);
        VBox.setVgrow(rightPlot, Priority.ALWAYS);
        HBox both = new HBox(14, left, right);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().add(both);
    }
}
