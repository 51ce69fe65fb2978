package zesty.signal.app.window.parts;

import java.util.List;
import javafx.application.Platform;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextAlignment;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.drawing.WhenSeen;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.RecordingPlan;
import zesty.signal.engine.RecordingSnapshot;
import zesty.signal.engine.Snapshot;

/** The capture bar: one button, how long, a field for marks, what is lost and what room is left. */
public final class CaptureBar extends VBox {
    private static final char UNPARTED = '\u00a0';
    /** So much of its usual width the field for markers needs for its prompt. */
    private static final double MARK_SHARE = 0.5;

    /** What the words about the recording take at their least, and the bar's edges, in pixels. */
    private static final double ROOM_WIDTH = 190;

    private static final PseudoClass OPEN = PseudoClass.getPseudoClass("open");

    private final Workspace workspace;
    private final Button record = new Button(Messages.of("parts.record"));
    private final ToggleGroup lengths = new ToggleGroup();
    private final ToggleButton open =
            chip(Messages.of("parts.until-i-stop"), Messages.of("parts.recording-goes-on-until-the-button"));
    private final ToggleButton timed =
            chip(Messages.of("parts.minutes"), Messages.of("parts.recording-stops-after-so-many"));
    private final ToggleButton counted =
            chip(Messages.of("parts.samples"), Messages.of("parts.recording-stops-after-so-many-2"));
    private final ToggleButton cued =
            chip(Messages.of("parts.on-cue"), Messages.of("parts.recording-starts-when-a-channel"));
    private final ToggleButton phased =
            chip(Messages.of("parts.protocol"), Messages.of("parts.recording-goes-through-the-phases"));
    private final RecordingForm form;
    private final ProtocolRow protocol;
    private final FlowPane keys = new FlowPane(6, 4);
    private List<String> keyed = List.of();
    private final CueRow cue = new CueRow(this::toggle);
    private final TextField amount = new TextField();
    private final TextField mark = new TextField();
    private final Label room = new Label();
    private final ComboBox<String> whose = new ComboBox<>();
    private List<String> sources = List.of();
    private final HBox bar = new HBox(9);
    private final HBox rest = new HBox(9);
    private long markNanos;
    private boolean wasRunning;

    public CaptureBar(Workspace workspace) {
        HelpPlace.mark(this, "recording");
        this.workspace = workspace;
        getStyleClass().add("capture");
        setSpacing(7);
        record.setId("record");
        record.getStyleClass().setAll("record");
        record.setOnAction(event -> toggle());
        record.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(record, Messages.of("parts.record-or-stop-r"));
        open.setSelected(true);
        amount.setPrefColumnCount(5);
        amount.setId("amount");
        amount.getStyleClass().add("amount");
        Tip.on(amount, Messages.of("parts.how-many-enter-changes-a-recording"));
        amount.setOnAction(event -> changeLimit());
        amount.visibleProperty().bind(timed.selectedProperty().or(counted.selectedProperty()));
        amount.managedProperty().bind(amount.visibleProperty());
        lengths.selectedToggleProperty().addListener((p, was, is) -> {
            if (is == null) {
                lengths.selectToggle(was);
            } else {
                amount.setText(is == timed ? "10" : "600");
                if (is == open) {
                    changeLimit();
                }
            }
        });
        whose.setId("amount-of");
        Tip.on(whose, Messages.of("parts.whose-samples-are-counted"));
        whose.managedProperty().bind(whose.visibleProperty());
        cue.visibleProperty().bind(cued.selectedProperty());
        form = new RecordingForm(workspace);
        protocol = new ProtocolRow(workspace);
        keys.setId("marker-keys");
        keys.managedProperty().bind(keys.visibleProperty());
        phased.setId("by-protocol");
        cued.setId("on-cue");
        counted.setId("for-samples");
        timed.setId("for-minutes");
        mark.setId("mark");
        mark.setPromptText(Messages.of("parts.add-a-marker"));
        mark.setPrefColumnCount(26);
        mark.setMinWidth(60);
        Tip.on(mark, Messages.of("parts.a-mark-in-the-recording-m"));
        // A remark is of the moment at which its first letter was written, however long the rest takes.
        mark.textProperty().addListener((p, was, is) -> markNanos = was.isBlank() ? System.nanoTime() : markNanos);
        mark.setOnAction(event -> {
            if (!mark.getText().isBlank()) {
                workspace.recordings().mark(mark.getText().strip(), markNanos);
                mark.clear();
            }
        });
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        room.getStyleClass().add("room");
        room.setWrapText(true);
        room.setTextAlignment(TextAlignment.RIGHT);
        room.setMinHeight(Region.USE_PREF_SIZE);
        Button more = new Button("\u2026");
        more.setId("recording-setup");
        more.getStyleClass().setAll("chip");
        more.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(more, Messages.of("parts.markers-with-keys-a-protocol-which"));
        more.setOnAction(event -> form.toggle());
        bar.getChildren().setAll(record, open, timed, counted, cued, phased, more, amount, whose);
        bar.setAlignment(Pos.CENTER_LEFT);
        rest.getChildren().setAll(mark, space, room);
        rest.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(rest, Priority.ALWAYS);
        getChildren().addAll(new WhenSeen(form), new WhenSeen(protocol), new WhenSeen(keys), new WhenSeen(cue), bar);
        widthProperty().addListener((p, was, is) -> part());
        workspace.view().textSize().addListener((p, was, is) -> Platform.runLater(this::part));
        amount.visibleProperty().addListener((p, was, is) -> Platform.runLater(this::part));
        part();
    }

    /** Where the window is narrow, the marker and what room is left have a line of their own. */
    private void part() {
        double ways = bar.getChildren().stream()
                .filter(node -> node != rest && node.isManaged())
                .mapToDouble(node -> node.prefWidth(-1) + bar.getSpacing())
                .sum();
        boolean below = getWidth() > 0 && ways + mark.prefWidth(-1) * MARK_SHARE + ROOM_WIDTH > getWidth();
        if (below && rest.getParent() != this) {
            bar.getChildren().remove(rest);
            getChildren().add(rest);
        } else if (!below && rest.getParent() != bar) {
            getChildren().remove(rest);
            bar.getChildren().add(rest);
        }
    }

    private ToggleButton chip(String text, String tip) {
        ToggleButton chip = new ToggleButton(text);
        chip.getStyleClass().setAll("chip");
        chip.setMinWidth(Region.USE_PREF_SIZE);
        chip.setToggleGroup(lengths);
        Tip.on(chip, tip);
        return chip;
    }

    /** Starts or ends a recording. */
    public void toggle() {
        if (workspace.recordings().waits()
                || workspace.live().snapshot(System.nanoTime()).recording().running()) {
            workspace.recordings().stop();
            return;
        }
        if (cued.isSelected()) {
            try {
                workspace.recordings().start(cue.plan());
            } catch (IllegalArgumentException e) {
                workspace.trouble(e.getMessage());
                cue.focusStart();
            }
            return;
        }
        if (phased.isSelected()) {
            Protocol phases = workspace.live().rig().recording().protocol();
            if (phases.isNone()) {
                workspace.trouble(Messages.of("parts.this-rig-has-no-protocol-yet-write"));
                if (!form.isVisible()) {
                    form.toggle();
                }
                return;
            }
            workspace.recordings().start(RecordingPlan.through(phases));
            return;
        }
        RecordingLimit limit = limit();
        if (limit != null) {
            workspace.recordings().start(limit);
        }
    }

    /** @return how long it is to last by what is chosen; null where that makes no sense, which has been said */
    private RecordingLimit limit() {
        RecordingLimit limit = RecordingLimit.NONE;
        if (!open.isSelected()) {
            double number = number(amount.getText());
            boolean whole = number == Math.rint(number);
            if (!(number > 0) || counted.isSelected() && !whole || number > 1e12) {
                workspace.trouble(Messages.of(
                        "parts.is-no-write-for-example",
                        amount.getText(),
                        (counted.isSelected()
                                ? Messages.of("parts.whole-number-of-samples")
                                : Messages.of("parts.number-of-minutes")),
                        (counted.isSelected() ? "600." : Messages.of("parts.10-or-0-5"))));
                amount.requestFocus();
                return null;
            }
            limit = counted.isSelected()
                    ? RecordingLimit.ofSamples(
                            (long) number, whose.getSelectionModel().getSelectedIndex() - 1)
                    : RecordingLimit.ofSeconds(number * 60);
        }
        return limit;
    }

    /** A recording that runs lasts as is chosen now. */
    private void changeLimit() {
        boolean runs = workspace.live().snapshot(System.nanoTime()).recording().running();
        boolean plain = open.isSelected() || timed.isSelected() || counted.isSelected();
        RecordingLimit limit = runs && plain ? limit() : null;
        if (limit != null) {
            workspace.recordings().limit(limit);
            workspace.say(Messages.of(
                    "parts.the-recording-lasts",
                    (open.isSelected()
                            ? Messages.of("parts.until-you-stop-it")
                            : amount.getText().strip()
                                    + (timed.isSelected()
                                            ? Messages.of("parts.minutes-2")
                                            : Messages.of("parts.samples-2")))));
        }
    }

    /** Opens what recordings of this rig go by, or closes it. */
    public void toggleForm() {
        form.toggle();
    }

    static double number(String text) {
        try {
            return Digits.typed(text);
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    /** Chooses the next way to say how long a recording lasts. */
    public void nextLength() {
        if (!open.isDisabled()) {
            List<ToggleButton> ways = List.of(open, timed, counted, cued, phased);
            lengths.selectToggle(ways.get((ways.indexOf(lengths.getSelectedToggle()) + 1) % ways.size()));
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
        boolean waits = !recording.waitsFor().isEmpty();
        record.setText(
                waits || workspace.recordings().waits()
                        ? Messages.of("parts.waiting")
                        : running
                                ? Messages.of("parts.recording", Wording.clock(recording.seconds()))
                                : Messages.of("parts.record"));
        record.pseudoClassStateChanged(PseudoClass.getPseudoClass("running"), running);
        boolean begunOtherwise = running
                && (cued.isSelected() || !workspace.recordings().protocol().isNone());
        for (ToggleButton chip : new ToggleButton[] {open, timed, counted}) {
            chip.setDisable(begunOtherwise);
        }
        cued.setDisable(running);
        phased.setDisable(running);
        amount.setDisable(begunOtherwise);
        cue.setDisable(running);
        showSources(live.rig());
        form.show(live.rig());
        protocol.show(recording);
        showKeys(live.rig().recording().markers(), running && !waits);
        workspace.recordings().beginWhenRowsCome(live);
        long lost = live.links().stream().mapToLong(LinkHealth::lostRows).sum() + recording.lostRows();
        String words = Messages.of("parts.lost", lost);
        if (workspace.recordings().waits()) {
            words = Messages.of("parts.for-the-first-row");
        } else if (waits) {
            words = Messages.of("parts.for", recording.waitsFor(), made(recording), words);
        } else if (running) {
            // What is left is as much again as there is for each share of it.
            double remains = recording.seconds() * (1 - recording.share()) / recording.share();
            String share = recording.share() > 0 ? Messages.of("parts.left", Wording.clock(Math.ceil(remains))) : "";
            words = Messages.of(
                    "parts.rows",
                    share + recording.rows(),
                    Wording.size(recording.bytes()),
                    made(recording),
                    words,
                    left(recording));
        } else if (workspace.live().connected()) {
            words = Messages.of(
                    "parts.rows-received",
                    live.links().stream().mapToLong(LinkHealth::rows).sum(),
                    words);
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

    /** Boards beside each other send at rates of their own: whose samples are counted must be said. */
    private void showSources(Rig rig) {
        List<String> names = rig.sources().stream()
                .map(one -> one.name().isEmpty() ? Messages.of("parts.the-first-board") : one.name())
                .toList();
        if (!names.equals(sources)) {
            sources = names;
            whose.getItems().setAll(Messages.of("parts.of-all-boards"));
            names.forEach(name -> whose.getItems().add(Messages.of("parts.of", name)));
            whose.getSelectionModel().selectFirst();
        }
        whose.setVisible(counted.isSelected() && names.size() > 1);
    }

    private void showKeys(List<String> markers, boolean recording) {
        keys.setVisible(recording && !markers.isEmpty());
        if (!markers.equals(keyed)) {
            keyed = markers;
            keys.getChildren().clear();
            for (int i = 0; i < markers.size(); i++) {
                int index = i;
                Button key = new Button(Messages.of("parts.alt", (i + 1), markers.get(i)));
                key.setId("marker-" + (i + 1));
                key.getStyleClass().setAll("small-button");
                Tip.on(key, Messages.of("parts.marks-this-moment-with-shift-it"));
                key.setOnMousePressed(event -> key.getProperties().put("span", event.isShiftDown()));
                key.setOnAction(event -> {
                    if (Boolean.TRUE.equals(key.getProperties().remove("span"))) {
                        workspace.recordings().spanByKey(index);
                    } else {
                        workspace.recordings().markByKey(index);
                    }
                });
                keys.getChildren().add(key);
            }
        }
        for (int i = 0; i < markers.size(); i++) {
            keys.getChildren()
                    .get(i)
                    .pseudoClassStateChanged(OPEN, workspace.recordings().isOpen(markers.get(i)));
        }
    }

    private static String made(RecordingSnapshot recording) {
        int takes = recording.made().size();
        return takes == 0 ? "" : " · " + takes + (takes == 1 ? Messages.of("parts.take") : Messages.of("parts.takes"));
    }

    private static String left(RecordingSnapshot recording) {
        if (recording.freeBytes() < 0) {
            return Messages.of("parts.free-space-unknown");
        }
        double perSecond = recording.seconds() > 5 ? recording.bytes() / recording.seconds() : Double.NaN;
        double hours = recording.freeBytes() / perSecond / 3600;
        String room = Messages.of("parts.disk", Wording.size(recording.freeBytes()));
        return hours < 1000 ? room + ", " + Math.round(hours) + " h" : room;
    }
}
