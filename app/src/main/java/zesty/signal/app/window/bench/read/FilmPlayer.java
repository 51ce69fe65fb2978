package zesty.signal.app.window.bench.read;

import javafx.beans.binding.Bindings;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.Pane;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Which picture of a film is looked at: the newest, one that was chosen, or one after the other. */
final class FilmPlayer {
    private final Workspace workspace;
    private final ToggleButton play = FilmPanel.toggle(
            "play", Messages.of("bench.read.play"), Messages.of("bench.read.shows-one-picture-after-the-other"));
    private final ComboBox<String> speed = new ComboBox<>();
    private final Button newest = Bench.button(
            "newest", Messages.of("bench.read.newest"), Messages.of("bench.read.goes-back-to-the-newest-picture"));
    private final Label when = Bench.mono("");
    private double playedNanos;

    FilmPlayer(Workspace workspace) {
        this.workspace = workspace;
        speed.setId("speed");
        speed.getItems().setAll("¼ ×", "1 ×", "4 ×", "16 ×");
        speed.setValue("1 ×");
        Tip.on(speed, Messages.of("bench.read.how-fast-the-pictures-follow-each"));
        newest.setOnAction(event -> choose(Double.NaN));
        newest.managedProperty().bind(newest.visibleProperty());
        play.textProperty()
                .bind(Bindings.when(play.selectedProperty())
                        .then(Messages.of("bench.read.stop"))
                        .otherwise(Messages.of("bench.read.play")));
        play.setOnAction(event -> playedNanos = System.nanoTime());
        when.setId("film-time");
    }

    void putInto(Pane bar) {
        bar.getChildren().addAll(play, speed, when, newest);
    }

    /** @return the moment whose picture is looked at, in s of the time line; NaN for the newest */
    double moment() {
        return workspace.view().pictureAt().get();
    }

    /** Looks at the picture of a moment, NaN for the newest, and plays no more. */
    void choose(double moment) {
        play.setSelected(false);
        workspace.view().pictureAt().set(moment);
    }

    void stop() {
        play.setSelected(false);
    }

    /** Goes on, where it plays. @param first and {@code last} moment that there is a picture of */
    void tick(long nanos, double first, double last) {
        newest.setVisible(!Double.isNaN(moment()));
        if (!play.isSelected()) {
            return;
        }
        double passed = (nanos - playedNanos) * 1e-9 * factor();
        playedNanos = nanos;
        double at = moment();
        double next = Double.isNaN(at) || at >= last ? first : Math.max(first, at) + Math.min(passed, 1);
        workspace.view().pictureAt().set(Math.min(next, last));
    }

    private double factor() {
        return switch (speed.getValue()) {
            case "¼ ×" -> 0.25;
            case "4 ×" -> 4;
            case "16 ×" -> 16;
            default -> 1;
        };
    }

    /** @param at the time of the picture that is shown, from where times are counted */
    void say(double at) {
        when.setText(
                !workspace.shown().isLive()
                        ? Messages.of("bench.read.at-s", Digits.fixed(at, 2))
                        : Double.isNaN(moment())
                                ? Messages.of("bench.read.newest-2")
                                : Messages.of("bench.read.s-ago", Digits.fixed(Math.max(0, -at), 1)));
    }

    /** @return what it says of the time */
    String words() {
        return when.getText();
    }
}
