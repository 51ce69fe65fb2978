package zesty.signal.app.window.parts;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.decode.Column;
import zesty.signal.core.rig.Protocol;
import zesty.signal.core.rig.RecordingSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.text.Messages;

/** What recordings of the rig go by: markers with a key each, the protocol, and which channels are recorded. */
final class RecordingForm extends VBox {
    private final Workspace workspace;
    private final TextField markers = new TextField();
    private final TextField protocol = new TextField();
    private final Label length = hint("");
    private final FlowPane channels = new FlowPane(14, 4);
    private RecordingSetup shown;
    private List<String> offered = List.of();

    RecordingForm(Workspace workspace) {
        super(6);
        this.workspace = workspace;
        setId("recording-form");
        getStyleClass().add("recording-form");
        markers.setId("form-markers");
        markers.setPromptText(Messages.of("parts.gust-tack-wave"));
        Tip.on(markers, Messages.of("parts.up-to-8-parted-by-commas-alt-1"));
        markers.setOnAction(event -> keep());
        protocol.setId("form-protocol");
        protocol.setPromptText(Messages.of("parts.rest-60-s-3-x-pull-5-s-pause-10-s"));
        Tip.on(protocol, Messages.of("parts.phases-with-their-times-each"));
        protocol.setOnAction(event -> keep());
        Button keep = button(
                Messages.of("parts.keep-2"),
                "form-keep",
                Messages.of("parts.keep-markers-and-protocol-in-the"),
                this::keep);
        Button close = button(
                Messages.of("parts.close"), "form-close", Messages.of("parts.close-this-e"), () -> setVisible(false));
        GridPane grid = new GridPane();
        grid.setHgap(10);
        grid.setVgap(5);
        grid.addRow(
                0,
                hint(Messages.of("parts.markers")),
                markers,
                hint(Messages.of("parts.keys-alt-1-to-alt-8-with-shift-for")));
        grid.addRow(1, hint(Messages.of("parts.protocol-2")), protocol, length);
        GridPane.setHgrow(markers, Priority.ALWAYS);
        GridPane.setHgrow(protocol, Priority.ALWAYS);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Label recorded = hint(Messages.of("parts.recorded"));
        HBox.setHgrow(channels, Priority.ALWAYS);
        HBox ticks = new HBox(10, recorded, channels);
        Label title = new Label(Messages.of("parts.recordings-of-this-rig"));
        title.getStyleClass().add("day");
        HBox head = new HBox(8, title, space, keep, close);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, grid, ticks);
        managedProperty().bind(visibleProperty());
        setVisible(false);
    }

    private static Button button(String text, String id, String tip, Runnable action) {
        Button button = new Button(text);
        button.setId(id);
        button.getStyleClass().setAll("small-button");
        button.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(button, tip);
        button.setOnAction(event -> action.run());
        return button;
    }

    private static Label hint(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("hint");
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    /** Opens it with the cursor in its first field, or closes it. */
    void toggle() {
        setVisible(!isVisible());
        if (isVisible()) {
            shown = null;
            show(workspace.live().rig());
            markers.requestFocus();
        }
    }

    /** Shows what the rig says, unless something else is being written. */
    void show(Rig rig) {
        if (!isVisible()) {
            return;
        }
        RecordingSetup now = rig.recording();
        if (!now.equals(shown)) {
            shown = now;
            markers.setText(String.join(", ", now.markers()));
            protocol.setText(now.protocol().text());
            offered = List.of();
        }
        length.setText(
                now.protocol().isNone()
                        ? Messages.of("parts.none")
                        : Messages.of(
                                "parts.phases",
                                now.protocol().phases().size(),
                                now.protocol().length()));
        List<String> columns = columns(rig);
        if (!columns.equals(offered)) {
            offered = columns;
            channels.getChildren()
                    .setAll(columns.stream().map(column -> tick(rig, column)).toList());
        }
    }

    /** Of stations each has its own channel, but they come in one column and are recorded together. */
    private static List<String> columns(Rig rig) {
        List<String> columns = new ArrayList<>();
        for (Source source : rig.sources()) {
            if (source.format() != null) {
                source.format().columns().stream()
                        .filter(Column::isChannel)
                        .forEach(column -> columns.add(source.prefix() + column.name()));
            }
        }
        return columns;
    }

    private CheckBox tick(Rig rig, String column) {
        String name = rig.channels().stream()
                .filter(channel -> channel.column().equals(column))
                .map(channel -> channel.name())
                .findFirst()
                .orElse(column);
        CheckBox tick = new CheckBox(name);
        tick.setId("record-" + column.replaceAll("[^\\p{Alnum}]", "-"));
        tick.setSelected(!rig.recording().leftOut().contains(column));
        Tip.on(tick, Messages.of("parts.whether-it-is-recorded-also-while"));
        tick.setOnAction(event -> workspace.change(now -> {
            List<String> out = new ArrayList<>(now.recording().leftOut());
            if (!out.remove(column)) {
                out.add(column);
            }
            return now.withRecording(now.recording().withLeftOut(out));
        }));
        return tick;
    }

    private void keep() {
        try {
            List<String> words = Arrays.stream(markers.getText().split(","))
                    .map(String::strip)
                    .filter(word -> !word.isEmpty())
                    .toList();
            Protocol phases = Protocol.parse(protocol.getText());
            RecordingSetup made =
                    workspace.live().rig().recording().withMarkers(words).withProtocol(phases);
            workspace.change(rig -> rig.withRecording(made));
            workspace.say(Messages.of(
                    "parts.kept-in-the-rig",
                    words.size(),
                    (words.size() == 1 ? Messages.of("parts.marker-2") : Messages.of("parts.markers-2")),
                    (phases.isNone()
                            ? Messages.of("parts.no-protocol")
                            : Messages.of("parts.a-protocol-of", phases.length()))));
        } catch (IllegalArgumentException e) {
            workspace.trouble(e.getMessage());
        }
    }
}
