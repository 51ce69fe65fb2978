package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.HPos;
import javafx.scene.control.Label;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** Current over time with the area under it filled by state, and what each state costs a day. */
final class SupplyPicture extends ReaderPicture {
    private static final double SECONDS = 60;
    private static final int MEAN = 0;
    private static final int SHARE = 1;
    private static final int A_DAY = 2;

    private final Plot plot = new Plot();
    private final GridPane table = new GridPane();
    private final Label said = Bench.small("");

    SupplyPicture(Workspace workspace) {
        super(workspace);
        plot.setId("supply-plot");
        table.setId("supply-states");
        table.setHgap(14);
        table.setVgap(4);
        table.getColumnConstraints().add(new ColumnConstraints(16));
        for (int c = 0; c < 4; c++) {
            ColumnConstraints column = new ColumnConstraints();
            column.setHalignment(c == 0 ? HPos.LEFT : HPos.RIGHT);
            column.setMinWidth(Region.USE_PREF_SIZE);
            table.getColumnConstraints().add(column);
        }
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        VBox right = new VBox(8, Bench.small(Messages.of("bench.read.what-it-does-and-what-a-day-of-it")), table, said);
        right.setMinWidth(330);
        right.setPrefWidth(330);
        HBox.setHgrow(plot, Priority.ALWAYS);
        HBox both = new HBox(14, plot, right);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().add(both);
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        boolean night = workspace.view().night().get();
        Span seen = workspace.shown().pictured(snapshot, SECONDS);
        double zero = zero(snapshot);
        Samples samples = Samples.of(channel, seen.from(), seen.to());
        int n = samples.seconds().length;
        double low = Math.min(0, samples.low());
        double high = samples.high() > low ? samples.high() : 1;
        plot.begin(
                night,
                seen.from() - zero,
                seen.to() - zero,
                "s",
                low,
                high + 0.08 * (high - low),
                channel.channel().unit());
        List<double[]> states = states(reader);
        for (int i = 0; i + 1 < n; i++) {
            double value = samples.values()[i];
            double until = samples.seconds()[i + 1];
            boolean gap = until - samples.seconds()[i] > channel.joinedSeconds() * 1.5;
            if (value == value && !gap) {
                Color of = states.isEmpty() ? colour : colour(nearest(states, raw(channel, value)), night);
                plot.bar(samples.seconds()[i] - zero, until - zero, 0, value, of.deriveColor(0, 1, 1, 0.42));
            }
        }
        double[] x = samples.seconds().clone();
        for (int i = 0; i < n; i++) {
            x[i] -= zero;
        }
        plot.line(x, samples.values(), n, Palette.ink(night), 1.1);
        table(states, channel, night);
        said.setText(words(reader, states));
    }

    private static double raw(ChannelSnapshot channel, double shown) {
        double slope = channel.channel().display().slope();
        return slope == 0 ? shown : (shown - channel.channel().display().offset()) / slope;
    }

    private static List<double[]> states(ReaderSnapshot reader) {
        Reading reading = reader == null ? null : reader.reading();
        return reading == null ? List.of() : reading.records("states");
    }

    private static int nearest(List<double[]> states, double amps) {
        int best = 0;
        for (int s = 1; s < states.size(); s++) {
            best = Math.abs(states.get(s)[MEAN] - amps) < Math.abs(states.get(best)[MEAN] - amps) ? s : best;
        }
        return best;
    }

    private static Color colour(int state, boolean night) {
        // Cold colours for what costs little, warm ones for what costs much.
        int[] order = {2, 3, 5, 1, 0, 7, 4, 6};
        return Color.web(Palette.css(Palette.channel(order[state % order.length]), night));
    }

    /** @return what states are called, lowest current first */
    static List<String> names(int count) {
        return switch (count) {
            case 1 -> List.of("always");
            case 2 -> List.of("idle", "busy");
            case 3 -> List.of("sleep", "awake", "sending");
            default -> {
                List<String> names = new ArrayList<>();
                for (int s = 1; s <= count; s++) {
                    names.add("state " + s);
                }
                yield names;
            }
        };
    }

    private void table(List<double[]> states, ChannelSnapshot channel, boolean night) {
        table.getChildren().clear();
        String[] heads = {
            "",
            Messages.of("bench.read.state"),
            Messages.of("bench.read.current"),
            Messages.of("bench.read.share"),
            Messages.of("bench.read.a-day")
        };
        for (int c = 1; c < heads.length; c++) {
            table.add(Bench.small(heads[c]), c, 0);
        }
        List<String> names = names(states.size());
        for (int s = states.size() - 1; s >= 0; s--) {
            int row = states.size() - s;
            Region key = new Region();
            key.setMinSize(14, 14);
            key.setMaxSize(14, 14);
            Color of = colour(s, night);
            key.setStyle("-fx-background-color: " + of.toString().replace("0x", "#") + ";");
            table.add(key, 0, row);
            table.add(new Label(names.get(s)), 1, row);
            table.add(Bench.mono(current(states.get(s)[MEAN])), 2, row);
            table.add(Bench.mono(Digits.about(100 * states.get(s)[SHARE], 3) + " %"), 3, row);
            table.add(Bench.mono(charge(states.get(s)[A_DAY])), 4, row);
        }
    }

    private static String current(double amps) {
        return Math.abs(amps) < 0.9995 ? Digits.about(1000 * amps, 3) + " mA" : Digits.about(amps, 3) + " A";
    }

    private static String charge(double hours) {
        return Math.abs(hours) < 0.9995 ? Digits.about(1000 * hours, 3) + " mAh" : Digits.about(hours, 3) + " Ah";
    }

    private static String words(ReaderSnapshot reader, List<double[]> states) {
        if (states.isEmpty()) {
            return Messages.of("bench.read.waiting-for-more-samples-the");
        }
        double day = states.stream().mapToDouble(state -> state[A_DAY]).sum();
        String capacity = reader.setup().settings().getOrDefault("capacity", "auto");
        String lasts = "";
        try {
            lasts = Messages.of(
                    "bench.read.a-battery-of-ah-would-last-days-at",
                    capacity,
                    Digits.about(Double.parseDouble(capacity) / day, 3));
        } catch (NumberFormatException e) {
            lasts = Messages.of("bench.read.with-the-battery-s-capacity-in-the");
        }
        return Messages.of("bench.read.all-day-like-this", charge(day), lasts);
    }
}
