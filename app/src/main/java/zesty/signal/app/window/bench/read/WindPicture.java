package zesty.signal.app.window.bench.read;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** Wind: its speed over time with mean, gust and lull, what that feels like, and a rose where there is a vane. */
final class WindPicture extends ReaderPicture {
    private final TracePicture trace;
    private final Rose rose = new Rose();
    private final Label force = new Label();
    private final Label from = Bench.small("");

    WindPicture(Workspace workspace) {
        super(workspace);
        trace = new TracePicture(workspace);
        force.setId("force");
        force.getStyleClass().add("bench-line");
        force.setWrapText(true);
        force.setMinHeight(USE_PREF_SIZE);
        from.setId("from");
        from.setWrapText(true);
        from.setMinHeight(USE_PREF_SIZE);
        VBox right = new VBox(4, Bench.small(Messages.of("bench.read.from-where")), rose, from);
        right.setMinWidth(200);
        right.setPrefWidth(300);
        VBox.setVgrow(rose, Priority.ALWAYS);
        HBox.setHgrow(trace, Priority.ALWAYS);
        trace.setMinWidth(0);
        HBox both = new HBox(14, trace, right);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().addAll(force, both);
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        trace.show(snapshot, channel, reader, colour);
        Reading reading = reader == null ? null : reader.reading();
        force.setText(
                reading == null || reading.word("force").isEmpty()
                        ? Messages.of("bench.read.no-wind-measured-yet")
                        : Messages.of("bench.read.force-the-mean-is", reading.word("force"), reading.word("also")));
        double mean = reading == null ? Double.NaN : reading.scalar("from_deg");
        List<double[]> directions = reading == null ? List.of() : reading.records("rose");
        rose.show(directions, mean, colour, workspace.view().night().get());
        boolean vane = reader != null && reader.setup().columns().size() > 1;
        from.setText(
                mean == mean
                        ? Messages.of(
                                "bench.read.from-spread-longer-more-often",
                                Digits.fixed(mean, 0),
                                Digits.fixed(reading.scalar("from_spread_deg"), 0))
                        : vane
                                ? Messages.of("bench.read.nothing-has-blown-yet")
                                : Messages.of("bench.read.a-vane-can-be-added-above-then-a"));
    }
}
