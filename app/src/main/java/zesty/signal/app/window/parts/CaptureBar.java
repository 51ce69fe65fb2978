package zesty.signal.app.window.parts;

import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.text.TextAlignment;
import zesty.signal.app.window.lanes.Wording;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.RecordingSnapshot;
import zesty.signal.engine.Snapshot;

/** The capture bar: one button, how long, a field for marks, what is lost and what room is left. */
public final class CaptureBar extends HBox {
    private static final char UNPARTED = '\u00a0';

    private final Workspace workspace;
    private final Button record = new Button("Record");
    private final ToggleGroup lengths = new ToggleGroup();
    private final ToggleButton open =
            chip("until I stop", "recording goes on until the button is pressed again (D changes it)");
    private final ToggleButton timed = chip("for minutes", "recording stops after so many minutes (D changes it)");
    private final ToggleButton counted = chip("for samples", "recording stops after so many samples (D changes it)");
    private final TextField amount = new TextField();
    private final TextField mark = new TextField();
    private final Label room = new Label();
    private boolean wasRunning;

    public CaptureBar(Workspace workspace) {
        this.workspace = workspace;
        getStyleClass().add("capture");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(9);
        record.setId("record");
        record.getStyleClass().setAll("record");
        record.setOnAction(event -> toggle());
        record.setMinWidth(Region.USE_PREF_SIZE);
        record.setTooltip(new Tooltip("record or stop (R)"));
        open.setSelected(true);
        amount.setPrefColumnCount(5);
        amount.setId("amount");
        amount.getStyleClass().add("amount");
        amount.setTooltip(new Tooltip("how many"));
        amount.visibleProperty().bind(Bindings.not(open.selectedProperty()));
        amount.managedProperty().bind(amount.visibleProperty());
        lengths.selectedToggleProperty().addListener((p, was, is) -> {
            if (is == null) {
                lengths.selectToggle(was);
            } else {
                amount.setText(is == timed ? "10" : "600");
            }
        });
        counted.setId("for-samples");
        timed.setId("for-minutes");
        mark.setId("mark");
        mark.setPromptText("Add a marker");
        mark.setPrefColumnCount(26);
        mark.setMinWidth(60);
        mark.setTooltip(new Tooltip("a mark in the recording (M)"));
        mark.setOnAction(event -> {
            if (!mark.getText().isBlank()) {
                workspace.recordings().mark(mark.getText().strip());
                mark.clear();
            }
        });
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        room.getStyleClass().add("room");
        room.setWrapText(true);
        room.setTextAlignment(TextAlignment.RIGHT);
        room.setMinHeight(Region.USE_PREF_SIZE);
        getChildren().addAll(record, open, timed, counted, amount, mark, space, room);
    }

    private ToggleButton chip(String text, String tip) {
        ToggleButton chip = new ToggleButton(text);
        chip.getStyleClass().setAll("chip");
        chip.setMinWidth(Region.USE_PREF_SIZE);
        chip.setToggleGroup(lengths);
        chip.setTooltip(new Tooltip(tip));
        return chip;
    }

    /** Starts or ends a recording. */
    public void toggle() {
        if (workspace.live().snapshot(System.nanoTime()).recording().running()) {
            workspace.recordings().stop();
            return;
        }
        RecordingLimit limit = RecordingLimit.NONE;
        if (!open.isSelected()) {
            double number = number(amount.getText());
            boolean whole = number == Math.rint(number);
            if (!(number > 0) || counted.isSelected() && !whole || number > 1e12) {
                workspace.trouble("'" + amount.getText() + "' is no "
                        + (counted.isSelected() ? "whole number of samples" : "number of minutes")
                        + "; write for example " + (counted.isSelected() ? "600." : "10 or 0.5."));
                amount.requestFocus();
                return;
            }
            limit = counted.isSelected()
                    ? RecordingLimit.ofSamples((long) number)
                    : RecordingLimit.ofSeconds(number * 60);
        }
        workspace.recordings().start(limit);
    }

    private static double number(String text) {
        try {
            return Double.parseDouble(text.strip().replace(',', '.'));
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    /** Chooses the next way to say how long a recording lasts. */
    public void nextLength() {
        if (!open.isDisabled()) {
            lengths.selectToggle(open.isSelected() ? timed : timed.isSelected() ? counted : open);
        }
    }

    /** Puts the cursor into the field for marks. */
    public void writeMark() {
        mark.requestFocus();
    }

    /** Shows what is so now. @param live the live trail's sight */
    public void show(Snapshot live) {
        RecordingSnapshot recording = live.recording();
        boolean running = recording.running();
        record.setText(running ? "Recording  " + Wording.clock(recording.seconds()) : "Record");
        record.pseudoClassStateChanged(javafx.css.PseudoClass.getPseudoClass("running"), running);
        for (ToggleButton chip : new ToggleButton[] {open, timed, counted}) {
            chip.setDisable(running);
        }
        amount.setDisable(running);
        long lost = live.links().stream().mapToLong(LinkHealth::lostRows).sum() + recording.lostRows();
        String words = lost + " lost";
        if (running) {
            String share = Double.isNaN(recording.share()) ? "" : Math.round(100 * recording.share()) + " % · ";
            words = share + Wording.size(recording.bytes()) + " · " + words + " · " + left(recording);
        } else if (workspace.live().connected()) {
            words = live.links().stream().mapToLong(LinkHealth::rows).sum() + " rows received · " + words;
        } else {
            words = "";
        }
        // Where it needs two lines, it parts between its facts.
        room.setText(words.replace(' ', UNPARTED).replace("" + UNPARTED + '·' + UNPARTED, " · "));
        if (wasRunning
                && !running
                && recording.file() != null
                && workspace.live().connected()) {
            workspace.recordings().ended(recording);
        }
        wasRunning = running;
    }

    private static String left(RecordingSnapshot recording) {
        if (recording.freeBytes() < 0) {
            return "free space unknown";
        }
        double perSecond = recording.seconds() > 5 ? recording.bytes() / recording.seconds() : Double.NaN;
        double hours = recording.freeBytes() / perSecond / 3600;
        String room = "disk " + Wording.size(recording.freeBytes());
        return hours < 1000 ? room + ", " + Math.round(hours) + " h" : room;
    }
}
