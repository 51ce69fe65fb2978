package zesty.signal.app.window.bench.read;

import java.util.Set;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.TimeWindow;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** Any reader: its first trace over time, or else the cleaned signal, with its events along it. */
final class TracePicture extends ReaderPicture {
    private final Plot plot = new Plot();

    /** Keys of the numbers that are lines across it; empty for all in the trace's unit. */
    private final Set<String> levels;

    TracePicture(Workspace workspace, String... levels) {
        super(workspace);
        this.levels = Set.of(levels);
        VBox.setVgrow(plot, Priority.ALWAYS);
        getChildren().add(plot);
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        Item.Trace trace = reader == null || reader.reading() == null
                ? null
                : reader.reading().items().stream()
                        .filter(Item.Trace.class::isInstance)
                        .map(Item.Trace.class::cast)
                        .findFirst()
                        .orElse(null);
        double zero = zero(snapshot);
        double[] x;
        double[] y;
        String unit;
        if (trace != null) {
            x = trace.seconds().clone();
            y = trace.values();
            unit = trace.unit();
        } else {
            TimeWindow window = workspace.shown().window();
            Samples samples = Samples.of(channel, window.from(), window.to());
            x = samples.seconds();
            y = samples.values();
            unit = channel.channel().unit();
        }
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < x.length; i++) {
            x[i] -= zero;
            low = y[i] < low ? y[i] : low;
            high = y[i] > high ? y[i] : high;
        }
        boolean some = high >= low;
        double room = some ? Math.max(1e-9, 0.08 * (high - low)) : 0;
        plot.begin(
                workspace.view().night().get(),
                x.length == 0 ? -20 : x[0],
                x.length == 0 ? 0 : x[x.length - 1],
                "s",
                some ? low - room : 0,
                some ? high + room : 1,
                unit);
        if (reader != null) {
            for (Event event : reader.events()) {
                double late = reader.lateSeconds();
                plot.upright(
                        event.startSeconds() + late - zero,
                        event.endSeconds() + late - zero,
                        colour.deriveColor(0, 1, 1, event.believed() ? 0.5 : 0.2));
            }
        }
        plot.line(x, y, x.length, colour, 1.6);
        if (trace != null) {
            limits(reader, unit, colour);
        }
    }

    /** What the reader says in the unit of its trace is a line across it: a mean, a gust, a lull. */
    private void limits(ReaderSnapshot reader, String unit, Color colour) {
        for (ScalarInfo scalar : reader.kind().scalars()) {
            double value = reader.reading().scalar(scalar.key());
            if (scalar.unit("").equals(unit)
                    && !Double.isNaN(value)
                    && (levels.isEmpty() || levels.contains(scalar.key()))) {
                plot.limit(
                        value,
                        scalar.words() + " " + Digits.fixed(value, Math.max(0, scalar.decimals())) + " " + unit,
                        colour.deriveColor(0, 1, 0.8, 0.9));
            }
        }
    }
}
