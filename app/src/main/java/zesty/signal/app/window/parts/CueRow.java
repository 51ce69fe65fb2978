package zesty.signal.app.window.parts;

import java.util.regex.Pattern;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.RecordingCue;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.RecordingPlan;

/** What starts and ends a recording on cue, as it is written into the capture bar. */
final class CueRow extends HBox {
    private static final Pattern CLOCK = Pattern.compile("\\d{1,2}:\\d{2}(:\\d{2})?");

    private final Runnable go;
    private final TextField start =
            cue("cue-start", "pulse > 600", Messages.of("parts.starts-it-a-channel-or-and-a"), 9);
    private final TextField before = cue(
            "cue-before", Messages.of("parts.5-s-before"), Messages.of("parts.how-much-from-before-the-start-is"), 6);
    private final TextField stop =
            cue("cue-stop", "pulse < 500", Messages.of("parts.ends-it-a-condition-a-time-such-as"), 9);
    private final ToggleButton again = new ToggleButton(Messages.of("parts.again"));

    /** @param go what Enter in one of its fields does */
    CueRow(Runnable go) {
        super(6);
        HelpPlace.mark(this, "cue");
        this.go = go;
        again.getStyleClass().setAll("chip");
        again.setId("cue-again");
        again.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(again, Messages.of("parts.each-time-the-start-comes-again-a"));
        getChildren()
                .setAll(
                        new Label(Messages.of("parts.start-when")),
                        start,
                        new Label(Messages.of("parts.keep")),
                        before,
                        new Label(Messages.of("parts.until")),
                        stop,
                        again);
        setAlignment(Pos.CENTER_LEFT);
        managedProperty().bind(visibleProperty());
        getChildren().forEach(node -> {
            if (node instanceof Label label) {
                label.setMinWidth(Region.USE_PREF_SIZE);
            }
        });
    }

    private TextField cue(String id, String prompt, String tip, int columns) {
        TextField field = new TextField();
        field.setId(id);
        field.setPromptText(prompt);
        field.setPrefColumnCount(columns);
        field.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(field, tip);
        field.setOnAction(event -> go.run());
        return field;
    }

    /** Puts the cursor where it starts. */
    void focusStart() {
        start.requestFocus();
    }

    /** @throws IllegalArgumentException when what is written makes no sense, saying what would */
    RecordingPlan plan() {
        if (CLOCK.matcher(start.getText().strip()).matches()) {
            return new RecordingPlan(
                    limitAfter(), RecordingPlan.nextTime(start.getText()), null, kept(), endBy(), false);
        }
        RecordingCue from = RecordingCue.parse(start.getText());
        return new RecordingPlan(limitAfter(), null, from, kept(), endBy(), again.isSelected());
    }

    private double kept() {
        return before.getText().isBlank() ? 0 : seconds(before.getText());
    }

    private boolean endsByCondition() {
        return stop.getText().contains("<") || stop.getText().contains(">");
    }

    private RecordingLimit limitAfter() {
        return stop.getText().isBlank() || endsByCondition()
                ? RecordingLimit.NONE
                : RecordingLimit.ofSeconds(seconds(stop.getText()));
    }

    private RecordingCue endBy() {
        return endsByCondition() ? RecordingCue.parse(stop.getText().strip()) : null;
    }

    private static double seconds(String text) {
        double seconds = CaptureBar.number(text.replaceAll("\\s*s(ec(onds)?)?( before)?\\s*$", ""));
        if (!(seconds > 0)) {
            throw new IllegalArgumentException(Messages.of("parts.is-no-time-write-for-example-5-s", text.strip()));
        }
        return seconds;
    }
}
