package zesty.signal.app.window.bench.read;

import java.util.Arrays;
import java.util.List;
import java.util.function.Function;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.core.picture.Region;
import zesty.signal.core.text.Messages;

/** The values along the lines of a picture, from where each begins; not there while no line is drawn. JavaFX thread. */
final class FilmProfile extends VBox {
    private static final double HEIGHT = 132;

    private final Label title = Bench.small("");
    private final Plot plot = new Plot();

    FilmProfile() {
        super(2);
        setId("film-profile");
        plot.setId("profile-plot");
        plot.setMinHeight(HEIGHT);
        plot.setPrefHeight(HEIGHT);
        getChildren().addAll(title, plot);
        managedProperty().bind(visibleProperty());
    }

    /** @param colour of the lane of a region */
    void show(
            double[] frame,
            int width,
            List<Region> regions,
            String unit,
            boolean night,
            Function<Region, Color> colour) {
        List<Region> lines = regions.stream()
                .filter(one -> one.form() == Region.Form.LINE && !one.isPoint())
                .toList();
        setVisible(!lines.isEmpty());
        if (lines.isEmpty()) {
            return;
        }
        title.setText(Messages.of(
                "bench.read.along",
                String.join(", ", lines.stream().map(Region::name).toList())));
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        int longest = 0;
        for (Region line : lines) {
            double[] values = line.profile(frame, width);
            longest = Math.max(longest, values.length - 1);
            for (double value : values) {
                low = value < low ? value : low;
                high = value > high ? value : high;
            }
        }
        boolean some = high >= low;
        double room = some ? Math.max(0.05, 0.1 * (high - low)) : 0;
        plot.begin(
                night,
                0,
                Math.max(1, longest),
                Messages.of("bench.read.pixels"),
                some ? low - room : 0,
                some ? high + room : 1,
                unit);
        for (int i = 0; i < lines.size(); i++) {
            double[] values = lines.get(i).profile(frame, width);
            double[] x = new double[values.length];
            Arrays.setAll(x, k -> k);
            plot.line(x, values, x.length, colour.apply(lines.get(i)), 1.8);
        }
    }
}
