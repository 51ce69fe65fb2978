package zesty.signal.app.window.lanes;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.FilmStrip;
import zesty.signal.app.window.drawing.FrameStore;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.picture.Film;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.StreamSnapshot;

/** The pictures of a stream as a strip over the lanes' time axis; pressed, the one under the pointer is shown large. */
final class FilmLane extends HBox {
    private static final double HIGH = 86;
    private static final int RIM = 4;

    private final Workspace workspace;
    private final FilmStrip strip;
    private final Label name = new Label(Messages.of("lanes.pictures"));
    private final Label value = new Label();
    private final Label how = new Label();
    private final Pane plot = new Pane();
    private final Region bar = new Region();
    private StreamSnapshot stream;
    private double from;
    private double to;

    FilmLane(Workspace workspace) {
        this.workspace = workspace;
        strip = new FilmStrip(new FrameStore(workspace.tasks()));
        getStyleClass().addAll("lane", "film-lane");
        setFocusTraversable(true);
        bar.getStyleClass().add("lane-bar");
        name.getStyleClass().add("lane-name");
        value.getStyleClass().add("lane-value");
        how.getStyleClass().add("lane-how");
        VBox tag = new VBox(3, name, value, how);
        tag.getStyleClass().add("lane-tag");
        tag.setAlignment(Pos.TOP_LEFT);
        plot.getStyleClass().add("lane-plot");
        plot.getChildren().add(strip);
        strip.relocate(0, RIM);
        plot.setMinWidth(0);
        HBox.setHgrow(plot, Priority.ALWAYS);
        Pane side = new Pane();
        side.getStyleClass().add("lane-side");
        getChildren().addAll(bar, tag, plot, side);
        Tip.on(plot, Messages.of("lanes.press-a-picture-to-see-it-large"));
        setOnMouseClicked(event -> look(Double.NaN));
        plot.setOnMouseClicked(event -> {
            look(from + (to - from) * event.getX() / Math.max(1, plot.getWidth()));
            event.consume();
        });
        setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.ENTER) {
                look(Double.NaN);
                event.consume();
            }
        });
    }

    /** Shows one picture large. @param moment NaN for the newest one */
    private void look(double moment) {
        if (stream == null) {
            return;
        }
        Snapshot snapshot = workspace.shown().snapshot(System.nanoTime());
        snapshot.channels().stream()
                .filter(one -> one.stream().key().equals(stream.key()))
                .findFirst()
                .ifPresent(one -> {
                    workspace.view().focus().set(one.channel().column());
                    boolean newest = workspace.shown().isLive() && moment > stream.lastSeconds() - (to - from) / 50;
                    workspace.view().pictureAt().set(newest ? Double.NaN : moment);
                    workspace.view().stop().set(Stop.READ);
                });
    }

    /** Paints a frame. @param begin and {@code end} of what is in sight, in s. @param now seconds on any steady clock */
    void frame(Snapshot snapshot, StreamSnapshot of, double begin, double end, int width, double now) {
        stream = of;
        from = begin;
        to = end;
        double size = workspace.view().textSize().get().of(HIGH);
        setMinHeight(size);
        setPrefHeight(size);
        setMaxHeight(size);
        Film film = of.film();
        boolean night = workspace.view().night().get();
        LinkState state = snapshot.state(of, System.nanoTime());
        boolean stale = state == LinkState.LOST || state == LinkState.HELD || state == LinkState.REFUSED;
        bar.setStyle("-fx-background-color: " + (night ? "#F2B632" : "#B87A00") + ";");
        name.setText(pictureOf(snapshot, of));
        value.setText(film.width() + " × " + film.height());
        how.setText(
                stale ? Wording.state(snapshot, of) : Wording.rate(of.rateHz()).replace("samples", "pictures"));
        setAccessibleText(name.getText() + ": " + value.getText() + ", " + how.getText());
        int high = (int) size - 2 * RIM;
        strip.paint(
                film, of.times(), begin, end, Math.min(width, (int) plot.getWidth()), high, Palette.card(night), now);
        strip.setOpacity(stale ? 0.6 : 1);
    }

    private static String pictureOf(Snapshot snapshot, StreamSnapshot of) {
        return (Messages.of(
                        "lanes.picture",
                        snapshot.rig().sources().get(of.source()).name()))
                .strip();
    }
}
