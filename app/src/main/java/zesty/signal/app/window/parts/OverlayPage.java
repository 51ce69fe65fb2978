package zesty.signal.app.window.parts;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Line;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Overlay;
import zesty.signal.takes.Shelf;

/** The same channel of two to six takes over one another, each in its own colour and dash, from a moment that is chosen. */
final class OverlayPage extends WidePage {
    private static final double[][] DASHES = {{}, {9, 5}, {3, 4}, {14, 4, 3, 4}, {2, 6}, {18, 6}};
    private static final double WIDTH = 1.4;
    private static final double SWATCH = 34;

    private final Workspace workspace;
    private final List<Shelf.Entry> takes;
    private final ComboBox<String> channels = new ComboBox<>();
    private final ComboBox<Way> ways = new ComboBox<>();
    private final TextField nth = new TextField("1");
    private final Label said = hint("");
    private final VBox legend = new VBox(4);
    private final Plot plot = new Plot();
    private Overlay shown;
    private List<ReaderSetup> readers = List.of();

    /** How the takes are put over each other; {@code reader} where it is an event of one. */
    private record Way(String words, Overlay.From from, String reader) {
        @Override
        public String toString() {
            return words;
        }
    }

    OverlayPage(Workspace workspace, List<Shelf.Entry> takes) {
        super("overlay", Messages.of("parts.takes-over-one-another", takes.size()));
        this.workspace = workspace;
        this.takes = takes;
        channels.setId("overlay-channel");
        Tip.on(channels, Messages.of("parts.which-channel-is-laid-over"));
        ways.setId("overlay-from");
        Tip.on(ways, Messages.of("parts.the-moment-that-is-0-s-in-each"));
        nth.setId("overlay-nth");
        nth.setPrefColumnCount(3);
        Tip.on(nth, Messages.of("parts.which-event-counted-from-1"));
        nth.setOnAction(event -> ask());
        nth.managedProperty().bind(nth.visibleProperty());
        nth.setVisible(false);
        plot.setId("overlay-plot");
        plot.setMinHeight(240);
        HBox bar = new HBox(
                8, plain(Messages.of("parts.channel")), channels, plain(Messages.of("parts.0-s-is")), ways, nth, said);
        bar.setAlignment(Pos.CENTER_LEFT);
        getChildren().add(bar);
        fill(plot);
        getChildren().add(legend);
        channels.getItems().setAll(common());
        plot.widthProperty().addListener((p, was, is) -> draw());
        plot.heightProperty().addListener((p, was, is) -> draw());
        workspace.view().night().addListener((p, was, is) -> draw());
        if (channels.getItems().isEmpty()) {
            said.setText(Messages.of("parts.these-takes-have-no-channel-in"));
            return;
        }
        List<String> marked = marked();
        ways.getItems().add(new Way(Messages.of("parts.the-first-sample"), new Overlay.From.Start(), ""));
        ways.getItems().add(new Way(Messages.of("parts.where-they-agree-best"), new Overlay.From.Best(), ""));
        marked.forEach(text ->
                ways.getItems().add(new Way(Messages.of("parts.marker", text), new Overlay.From.Marked(text), "")));
        channels.getSelectionModel().selectFirst();
        ways.getSelectionModel().selectFirst();
        channels.valueProperty().addListener((p, was, is) -> {
            offer();
            ask();
        });
        ways.valueProperty().addListener((p, was, is) -> {
            nth.setVisible(is != null && !is.reader().isEmpty());
            ask();
        });
        workspace.takes().commonReaders(takes.stream().map(Shelf.Entry::file).toList(), found -> {
            readers = found;
            offer();
        });
        ask();
    }

    private static Label plain(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("hint");
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    private List<String> common() {
        List<String> common = new ArrayList<>(takes.get(0).columns());
        takes.forEach(one -> common.retainAll(one.columns()));
        return common;
    }

    private List<String> marked() {
        List<String> marked = new ArrayList<>(takes.get(0).marks());
        takes.forEach(one -> marked.retainAll(one.marks()));
        return marked.stream().distinct().toList();
    }

    /** The events of the readers on the channel that is chosen. */
    private void offer() {
        ways.getItems().removeIf(way -> !way.reader().isEmpty());
        for (ReaderSetup reader : readers) {
            if (reader.columns().get(0).equals(channels.getValue())) {
                ways.getItems()
                        .add(new Way(
                                Messages.of(
                                        "parts.event-no-of",
                                        Messages.within(reader.readerKind().title())),
                                new Overlay.From.Nth(reader.id(), 1),
                                reader.id()));
            }
        }
    }

    private void ask() {
        Way way = ways.getValue();
        String channel = channels.getValue();
        if (way == null || channel == null) {
            return;
        }
        Overlay.From from = way.from();
        if (!way.reader().isEmpty()) {
            if (!nth.getText().strip().matches("[1-9]\\d{0,5}")) {
                workspace.trouble(Messages.of("parts.write-the-number-of-the-event-for", nth.getText()));
                return;
            }
            from = new Overlay.From.Nth(
                    way.reader(), Integer.parseInt(nth.getText().strip()));
        }
        said.setText(Messages.of("parts.reading"));
        workspace.takes().overlay(takes.stream().map(Shelf.Entry::file).toList(), channel, from, made -> {
            if (way.equals(ways.getValue()) && channel.equals(channels.getValue())) {
                shown = made;
                said.setText("");
                legend();
                draw();
            }
        });
    }

    private Color colour(int index) {
        return Color.web(
                Palette.css(Palette.channel(index), workspace.view().night().get()));
    }

    private void legend() {
        legend.getChildren().clear();
        for (int i = 0; i < shown.lines().size(); i++) {
            Overlay.Line line = shown.lines().get(i);
            Line swatch = new Line(0, 0, SWATCH, 0);
            swatch.setStroke(colour(i));
            swatch.setStrokeWidth(2);
            for (double dash : DASHES[i]) {
                swatch.getStrokeDashArray().add(dash);
            }
            String words = line.title();
            if (!line.leftOut().isEmpty()) {
                words += Messages.of("parts.left-out", line.leftOut());
            } else if (line.correlation() == line.correlation() && i > 0) {
                words += Messages.of(
                        "parts.shifted-by-s-agreement",
                        Digits.fixed(-line.zero(), 3),
                        Digits.fixed(100 * line.correlation(), 0));
            }
            HBox row = new HBox(8, swatch, new Label(words));
            row.setAlignment(Pos.CENTER_LEFT);
            legend.getChildren().add(row);
        }
    }

    private void draw() {
        if (shown == null || plot.getWidth() < 1) {
            return;
        }
        double fromX = Double.POSITIVE_INFINITY;
        double toX = Double.NEGATIVE_INFINITY;
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (Overlay.Line line : shown.lines()) {
            for (int i = 0; i < line.values().length; i++) {
                if (line.values()[i] == line.values()[i]) {
                    fromX = Math.min(fromX, line.seconds()[i]);
                    toX = Math.max(toX, line.seconds()[i]);
                    low = Math.min(low, line.values()[i]);
                    high = Math.max(high, line.values()[i]);
                }
            }
        }
        boolean some = high >= low;
        double room = some ? Math.max(1e-9, 0.05 * (high - low)) : 0;
        plot.begin(
                workspace.view().night().get(),
                some ? fromX : 0,
                some ? toX : 1,
                "s",
                some ? low - room : 0,
                some ? high + room : 1,
                shown.channel() + (shown.unit().isEmpty() ? "" : ", " + shown.unit()));
        for (int i = 0; i < shown.lines().size(); i++) {
            Overlay.Line line = shown.lines().get(i);
            plot.line(line.seconds(), line.values(), line.values().length, colour(i), WIDTH, DASHES[i]);
        }
    }
}
