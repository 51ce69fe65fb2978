package zesty.signal.app.window.bench.source;

import java.util.List;
import java.util.function.BiConsumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.SpeedFinder;

/** What each of the usual speeds gives on a port, the one that makes most sense first, to choose from. */
final class Trials extends VBox {
    private static final int MOST = 6;

    Trials() {
        super(4);
        setId("trials");
        managedProperty().bind(visibleProperty());
        setVisible(false);
    }

    /** @param use called with the trial that is chosen */
    void show(
            LinkAddress.Serial port,
            List<SpeedFinder.Trial> tried,
            BiConsumer<LinkAddress.Serial, SpeedFinder.Trial> use) {
        getChildren().setAll(Bench.small(Messages.of("bench.source.what-makes-sense-at-which-speed-on", port.path())));
        for (SpeedFinder.Trial trial : tried.subList(0, Math.min(MOST, tried.size()))) {
            Button take = new Button(Messages.of("bench.source.use-it"));
            take.getStyleClass().setAll("plug");
            take.setId("use-" + trial.baud());
            take.setMinWidth(Region.USE_PREF_SIZE);
            take.setOnAction(event -> {
                setVisible(false);
                use.accept(port, trial);
            });
            String share = trial.bytes() == 0
                    ? Messages.of("bench.source.no-bytes")
                    : Messages.of("bench.source.makes-sense", Math.round(100 * trial.share()));
            Label words = Bench.mono(String.format("%8d  %-18s", trial.baud(), share));
            words.setMinWidth(Region.USE_PREF_SIZE);
            Label line = Bench.mono(trial.line());
            line.setMinWidth(0);
            HBox.setHgrow(line, Priority.ALWAYS);
            HBox row = new HBox(8, take, words, line);
            row.setAlignment(Pos.CENTER_LEFT);
            getChildren().add(row);
        }
        setVisible(true);
    }
}
