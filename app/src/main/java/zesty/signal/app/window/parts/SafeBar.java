package zesty.signal.app.window.parts;

import java.util.List;
import java.util.stream.Collectors;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Output;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;
import zesty.signal.engine.Snapshot;

/** In sight whatever is open while an output is on, or while all are held safe: what is on, and the way to make it safe. */
public final class SafeBar extends HBox {
    private static final PseudoClass HELD = PseudoClass.getPseudoClass("held");
    private final Label words = new Label();
    private final Button safe = new Button(Messages.of("parts.all-outputs-safe"));
    private final Button release = new Button(Messages.of("parts.let-rules-drive-again"));

    public SafeBar(Workspace workspace) {
        super(12);
        setId("safe-bar");
        getStyleClass().add("safe-bar");
        setAlignment(Pos.CENTER_LEFT);
        words.setId("safe-words");
        words.setMaxWidth(Double.MAX_VALUE);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        safe.setId("all-safe");
        safe.getStyleClass().add("all-safe");
        safe.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(safe, Messages.of("parts.sends-every-output-its-safe-line"));
        safe.setOnAction(event -> workspace.acting().hold(Messages.of("parts.made-safe-by-hand")));
        release.setId("release-outputs");
        release.setMinWidth(Region.USE_PREF_SIZE);
        release.getStyleClass().add("small-button");
        Tip.on(release, Messages.of("parts.a-rule-that-is-on-now-drives-its"));
        release.setOnAction(event -> workspace.acting().release());
        for (Button one : List.of(safe, release)) {
            one.managedProperty().bind(one.visibleProperty());
        }
        getChildren().addAll(words, safe, release);
        managedProperty().bind(visibleProperty());
        setVisible(false);
    }

    /** Shows how the live trail's outputs stand. */
    public void show(Snapshot live) {
        ActSnapshot act = live.act();
        boolean held = !act.held().isEmpty();
        setVisible(held || act.anyOn());
        if (!isVisible()) {
            return;
        }
        pseudoClassStateChanged(HELD, held);
        safe.setVisible(!held);
        release.setVisible(held);
        double now = live.nowSeconds(System.nanoTime());
        words.setText(
                held
                        ? Messages.of("parts.all-outputs-are-safe", act.held())
                        : act.outputs().stream()
                                .filter(one -> one.drives() && !one.safe())
                                .map(one ->
                                        Messages.of("parts.on-for", one.output().name(), one.line(), since(one, now)))
                                .collect(Collectors.joining("     ")));
    }

    private static String since(ActSnapshot.OutputNow one, double now) {
        String time = clock(now - one.sinceSeconds());
        return one.output() instanceof Output.ByRule rule && rule.longestOnSeconds() < Double.POSITIVE_INFINITY
                ? Messages.of("parts.of-2", time, clock(rule.longestOnSeconds()))
                : time;
    }

    private static String clock(double seconds) {
        long whole = (long) Math.max(0, seconds);
        return whole / 60 + ":" + Digits.fixed(100 + whole % 60, 0).substring(1);
    }
}
